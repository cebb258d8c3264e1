"""A day, or one meal of it, as a balance problem: its entries as parts, what stays as it is eaten besides."""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial

from bowls.balancing import refused_by
from bowls.proposed import Portioned
from clients.aims import WHOLE_DAY, meal_of, plan_aims
from clients.in_force import Plan
from nutrition import balance as core
from nutrition import household
from nutrition.foods import food_table
from nutrition.meal_aims import within_reach
from nutrition.portions import BOWL_COUNTS, SERVING_COUNTS, limits_around, limits_by_count
from nutrition.profile import Profile
from nutrition.quantities import amount_of
from planner.day import Entry, ReckonedDay, count_words


@dataclass(frozen=True)
class Balancing:
    """The entries whose portions are chosen, and what is eaten besides: supplements, for a whole day."""

    entries: list[Entry]
    besides: Profile
    problem: core.Problem


def unit_g(entry: Entry) -> float:
    """What one bowl, one serving, or a gram of a food weighs. [g]"""
    return 1.0 if entry.row.food else entry.profile.grams / entry.row.amount


def part_for(entry: Entry, allergies: frozenset[str]) -> core.Part:
    """An entry with its sensible portions; one that the client does not tolerate may only be left out."""
    grams = entry.profile.grams
    if entry.row.food:
        food = food_table()[entry.row.food]
        role = food.role
        limits = limits_around(role, grams, household.step_g(food), group=food.group)
    else:
        role = "dish"
        limits = limits_by_count(BOWL_COUNTS if entry.row.bowl_id else SERVING_COUNTS, entry.row.amount, unit_g(entry))
    refused = not entry.row.locked and refused_by(entry.ingredients, allergies)
    least, most = (0.0, 0.0) if refused else (limits.least, limits.most)
    ml = entry.volume_ml / grams
    return core.Part(str(entry.row.pk), entry.name, entry.profile, grams, least, most, limits.step, entry.row.locked, role, ml)


def balancing(day: ReckonedDay, plan: Plan, meal: str) -> Balancing:
    """The problem of a meal by its key, or of the whole day. Raises BadProblem."""
    assert plan.day is not None
    chosen = meal_of(plan.day, meal) if meal != WHOLE_DAY else None
    entries = [entry for row in day.meals for entry in row.entries if entry.profile.grams > 0 and (chosen is None or row.key == chosen.key)]
    besides = day.supplements_profile if chosen is None else Profile.empty()
    parts = tuple(part_for(entry, plan.day.person.allergies) for entry in entries)
    aims = plan_aims(plan, chosen)
    base = {aim.key: amount_of(besides, aim.key).amount for aim in aims if aim.key != core.DENSITY} | {
        "energy_kcal": besides["energy_kcal"].amount
    }
    return Balancing(entries, besides, core.Problem(parts, within_reach(aims, parts, base), base=base))


def say(entry: Entry, grams: float) -> str:
    """A portion of an entry in bowls, servings or a kitchen measure; empty where none is known. [g]"""
    if grams <= 0:
        return ""
    if entry.row.food:
        said = household.spoken(food_table()[entry.row.food], grams)
        return said.words if said else ""
    return count_words(entry.row, grams / unit_g(entry))


def portioned(entries: list[Entry]) -> dict[str, Portioned]:
    """The entries as proposals show them."""
    return {str(entry.row.pk): Portioned(entry.name, entry.profile, entry.volume_ml, partial(say, entry)) for entry in entries}
