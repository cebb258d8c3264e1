"""A client's week as the planning sees it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date

from clients.plan.cautions import situation_of
from clients.plan.gate import gate_of
from clients.plan.in_force import Plan, plan_of, plan_over
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.portion import food_portion
from nutrition.composition.supplements import per_day
from nutrition.planning.candidates import (
    OF_FOOD,
    aims_of_days,
    candidate_of,
    known_share,
    page_check,
    week_base,
)
from nutrition.planning.skeleton import Skeleton, days_of, from_data, slots_of
from nutrition.planning.week import Candidate, Choice, Slot
from nutrition.planning.week import Week as Problem
from nutrition.portions.serving_limits import MOST_AT_ONCE_ML
from nutrition.portions.staples import staples
from nutrition.targets.aims import within_upper_levels
from nutrition.targets.gastric import stomach_ml
from planner.planned_copies import is_out
from week.dishes import Thing, out_of, prepared_of, recipes_in, things_of
from week.favorites import for_planning, without_school
from week.models import Week, WeekEntry

# What is put into the week besides its slots.
BESIDES = "besides"


def plan_for(week: Week) -> Plan:
    """The targets that the week was begun for, with every order and hard limit that holds on one of
    its days."""
    return plan_over(week.client, week.made_for, week.start, week.last)


class Plans:
    """What holds on each day of a week, asked once for each version of the targets."""

    def __init__(self, week: Week) -> None:
        self.week = week
        rows = week.client.target_versions.order_by("-number")
        self._effects = list(rows.values_list("pk", "takes_effect"))
        self._known: dict[int | None, Plan] = {}

    def on(self, day: date) -> Plan:
        """What holds on one of its days."""
        in_force = next((pk for pk, effect in self._effects if effect <= day), None)
        if in_force not in self._known:
            self._known[in_force] = plan_of(self.week.client, self.week.made_for, day)
        return self._known[in_force]


def skeleton_in(week: Week) -> Skeleton:
    """How the week was when it was begun."""
    return from_data(week.skeleton)


@dataclass(frozen=True, kw_only=True)
class Posed:
    """The problem, the things by key, and the foods that could help."""

    problem: Problem
    things: dict[str, Thing]
    helpers: tuple[Candidate, ...]


def choice_of(entry: WeekEntry, thing: Thing | None) -> Choice | None:
    """What stands in a slot as the planning counts it: a food by its helpings."""
    if thing is None:
        return None
    if entry.food and thing.food is not None:
        helping = first_helping_g(thing.food)
        return Choice(candidate=thing.key, count=round(entry.amount / helping, 4))
    return Choice(candidate=thing.key, count=entry.amount)


def pose(week: Week) -> Posed:
    """What there is to plan: favorites and what stands in the week already, through the client's
    gate, against the days' targets. Only where the client's targets are known."""
    # Whole: one problem, a field a line.
    plan, skeleton = plan_for(week), skeleton_in(week)
    assert plan.day is not None
    gate = gate_of(plan)
    slots = list(slots_of(skeleton, week.start, week.days))
    kinds = [kind for kind in skeleton.kinds if any(slot.kind == kind for slot in slots)]
    things, order = for_planning(week.client, kinds, plan, gate)
    # a favorite stands in the slots that it was kept for, and in no others that it would fit
    by_key = {
        one.key: replace(
            one, kinds=frozenset(kind for kind, keys in order.items() if one.key in keys)
        )
        for one in things
    }
    entries = list(week.entries.select_related("recipe", "bowl", "planned"))
    besides = [one.key for one in entries if not is_out(one) and one.key not in by_key]
    standing = things_of(besides, week.client)
    for entry in entries:
        if is_out(entry):
            by_key[entry.key] = out_of(entry)
        elif entry.key in standing:
            # what stands there may stay where it was put, and is chosen nowhere else
            by_key[entry.key] = replace(standing[entry.key], kinds=frozenset({f"only {entry.key}"}))
    slots = _placed(slots, entries, by_key, skeleton)
    taken = per_day(week.client.supplements_taken())
    plain = [candidate_of(one.portion, one.kinds, one.counts, ()) for one in by_key.values()]
    watched = [row.target.key for row in plan.watched]
    aims, over_week = aims_of_days(plan.day, watched, known_share(plain, taken))
    keys = [aim.key for aim in (*aims, *over_week)]
    base = week_base(taken, keys)
    recipes = recipes_in(by_key.values())
    person = plan.day.person
    at_once = stomach_ml(person.conditions, person.surgery_months) or MOST_AT_ONCE_ML
    ranks = {key: at for some in order.values() for at, key in enumerate(some)}
    candidates = tuple(
        candidate_of(
            replace(one.portion, key=one.key),
            one.kinds,
            one.counts,
            keys,
            {str(pk): servings for pk, servings in one.parts.items() if pk in recipes},
            one.keeping,
            ranks.get(one.key, len(order)),
            at_once,
        )
        for one in by_key.values()
    )
    # what was kept in spite of the school was the practitioner's to keep
    school = plan.school.name if plan.school else ""
    density = plan.day.targets.get("kcal_per_gram")
    problem = Problem(
        days=week.days,
        slots=tuple(slots),
        candidates=candidates,
        prepared=tuple(prepared_of(recipe) for recipe in recipes.values()),
        # an upper level that a tablet passes by itself is no matter of the plate
        aims=within_upper_levels(aims, base),
        over_week=over_week,
        base=base,
        base_grams=0.0,
        cook_days=days_of(skeleton.cooking, week.start, week.days),
        wishes=skeleton.wishes,
        density_g=plan.day["energy_kcal"].aim / max(density.aim if density else 1.0, 0.3),
        check=page_check(situation_of(plan), without_school(gate, school), taken),
    )
    helpers = tuple(
        candidate_of(food_portion(food, first_helping_g(food), key=food.slug), (), OF_FOOD, keys)
        for food in staples(gate)
        if not gate.why_not(food)
    )
    return Posed(problem=problem, things=by_key, helpers=helpers)


def _placed(
    slots: list[Slot], entries: list[WeekEntry], things: dict[str, Thing], skeleton: Skeleton
) -> list[Slot]:
    """The slots with what stands in them; what stands beside them is a slot of its own, pinned."""
    by_key = {slot.key: at for at, slot in enumerate(slots)}
    for entry in entries:
        choice = choice_of(entry, things.get(entry.key))
        if choice is None:
            continue
        if entry.slot in by_key:
            at = by_key[entry.slot]
            # a meal eaten out is what it is
            pinned = entry.locked or is_out(entry)
            slots[at] = replace(slots[at], placed=choice, pinned=pinned)
            continue
        slots.append(
            Slot(
                key=entry.slot,
                day=entry.day,
                meal=entry.meal,
                kind=BESIDES,
                eaters=skeleton.portions_of(entry.meal),
                placed=choice,
                pinned=True,
            )
        )
    return slots
