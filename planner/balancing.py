"""A day, or one meal of it, as a balance problem: its entries as parts, what stays as it is eaten
besides."""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial

from bowls.balancing import gated, unknown_per_gram
from bowls.proposed import Portioned
from clients.aims import WHOLE_DAY, meal_of, plan_aims
from clients.held import Item
from clients.in_force import Plan
from nutrition.composition.derived import amount_of
from nutrition.composition.foods import food_table
from nutrition.composition.profile import Profile
from nutrition.portions import problem as core
from nutrition.portions.reach import within_reach
from nutrition.portions.sensible import BOWL_COUNTS, SERVING_COUNTS, limits_around, limits_by_count
from nutrition.safety.gate import Gate
from nutrition.targets.aims import within_upper_levels
from nutrition.written import household
from planner.day import Entry, ReckonedDay, count_words


@dataclass(frozen=True)
class Balancing:
    """The entries whose portions are chosen, and what is eaten besides: supplements, for a whole
    day."""

    entries: list[Entry]
    besides: Profile
    problem: core.Problem


def unit_g(entry: Entry) -> float:
    """What one bowl, one serving, or a gram of a food weighs. [g]"""
    return 1.0 if entry.row.food else entry.profile.grams / entry.row.amount


def item_of(entry: Entry) -> Item:
    """An entry as the gate looks at it."""
    food = food_table()[entry.row.food] if entry.row.food else None
    return Item(
        id=str(entry.row.pk),
        name=entry.name,
        foods=entry.ingredients,
        grams=entry.profile.grams,
        food=food,
        locked=entry.row.locked,
    )


def part_for(entry: Entry, gate: Gate) -> core.Part:
    """An entry with its sensible portions, as far as the gate lets it."""
    grams = entry.profile.grams
    if entry.row.food:
        food = food_table()[entry.row.food]
        role = food.role
        limits = limits_around(role, grams, household.step_g(food), group=food.group)
    else:
        role = "dish"
        limits = limits_by_count(
            BOWL_COUNTS if entry.row.bowl_id else SERVING_COUNTS, entry.row.amount, unit_g(entry)
        )
    least, most, ceiling = gated(limits, item_of(entry), gate)
    ml = entry.volume_ml / grams
    return core.Part(
        str(entry.row.pk),
        entry.name,
        entry.profile,
        grams,
        least,
        most,
        limits.step,
        entry.row.locked,
        role,
        ml,
        unknown=unknown_per_gram(entry.ingredients, grams),
        ceiling=ceiling,
    )


@dataclass(frozen=True)
class Filled:
    """How much of the day has something in it: its share [0 to 1], and the names of the meals that
    are still empty."""

    share: float
    empty: list[str]


def filled(day: ReckonedDay, plan: Plan) -> Filled:
    """The share of the day that the meals with something in them are. Meals that are not of the
    client's pattern add nothing."""
    assert plan.day is not None
    full = {
        meal.key for meal in day.meals if any(entry.profile.grams > 0 for entry in meal.entries)
    }
    share = sum(meal.share for meal in plan.day.meals if meal.key in full)
    empty = [meal.name for meal in plan.day.meals if meal.key not in full and meal.share > 0]
    # what is eaten only outside the pattern is held against the whole day: nothing says how much of
    # it that is
    return Filled(share, empty) if share > 0 and empty else Filled(1.0, empty if share > 0 else [])


def balancing(day: ReckonedDay, plan: Plan, meal: str, gate: Gate) -> Balancing:
    """The problem of a meal by its key, or of the whole day: of as much of it as has meals in it.
    Raises BadProblem."""
    assert plan.day is not None
    chosen = meal_of(plan.day, meal) if meal != WHOLE_DAY else None
    entries = [
        entry
        for row in day.meals
        for entry in row.entries
        if entry.profile.grams > 0 and (chosen is None or row.key == chosen.key)
    ]
    share = filled(day, plan).share if chosen is None else 1.0
    besides = day.supplements_profile * share if chosen is None else Profile.empty()
    parts = tuple(part_for(entry, gate) for entry in entries)
    aims = plan_aims(plan, chosen, share if chosen is None and share < 1 else None)
    base = {
        aim.key: amount_of(besides, aim.key).amount for aim in aims if aim.key != core.DENSITY
    } | {"energy_kcal": besides["energy_kcal"].amount}
    kept = within_upper_levels(within_reach(aims, parts, base), base)
    return Balancing(entries, besides, core.Problem(parts=parts, aims=kept, base=base))


def say(entry: Entry, grams: float) -> str:
    """A portion of an entry in bowls, servings or a kitchen measure; empty where none is known.
    [g]"""
    if grams <= 0:
        return ""
    if entry.row.food:
        said = household.spoken(food_table()[entry.row.food], grams)
        return said.words if said else ""
    return count_words(entry.row, grams / unit_g(entry))


def portioned(entries: list[Entry]) -> dict[str, Portioned]:
    """The entries as proposals show them."""
    return {
        str(entry.row.pk): Portioned(
            name=entry.name,
            profile=entry.profile,
            volume_ml=entry.volume_ml,
            say=partial(say, entry),
            foods=entry.ingredients,
        )
        for entry in entries
    }
