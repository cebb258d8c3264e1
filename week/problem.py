"""A client's week as the planning sees it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date

from django.utils import timezone

from clients.plan.cautions import situation_of
from clients.plan.gate import gate_of
from clients.plan.in_force import Plan, plan_of, plan_over
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.supplements import per_day
from nutrition.planning.additions import (
    ADDED_PLACE,
    eats_between,
    places_for,
    with_additions,
)
from nutrition.planning.candidates import (
    LARGE_FROM_KCAL,
    WHOLE,
    candidate_of,
    helpers_of,
    known_share,
    page_check,
    shares_of_days,
    usual_day_g,
)
from nutrition.planning.held_against import held_against
from nutrition.planning.skeleton import Skeleton, days_of, from_data, slots_of
from nutrition.planning.week import (
    DAY_BEFORE,
    DAYS_OF_A_WEEK,
    EVENING_BEFORE,
    Candidate,
    Choice,
    Slot,
)
from nutrition.planning.week import Week as Problem
from nutrition.portions.serving_limits import MOST_AT_ONCE_ML
from nutrition.prep.keeping import endangered
from nutrition.safety.amount_stops import stops_by_amount
from nutrition.targets.gastric import stomach_ml
from planner.planned_copies import is_out
from week.dishes import OUT, Thing, out_of, prepared_of, recipes_in, things_of
from week.favorites import for_planning, without_school
from week.models import Week, WeekEntry
from week.places import USED_FIRST

# What is put into the week besides its slots.
BESIDES = "besides"
# What stands in the house stands so many places before what is liked best.
FIRST = 5


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


def pose(week: Week, additions: bool = True) -> Posed:
    """What there is to plan: favorites and what stands in the week already, through the client's
    gate, against the days' targets; with `additions` also what may be put in where energy or
    protein is missing. Only where the client's targets are known."""
    # Whole: one problem, a field a line.
    plan, skeleton = plan_for(week), skeleton_in(week)
    assert plan.day is not None
    gate = gate_of(plan)
    slots = list(slots_of(skeleton, week.start, week.days))
    kcal = plan.day["energy_kcal"].aim
    kinds = [kind for kind in skeleton.kinds if any(slot.kind == kind for slot in slots)]
    turns = skeleton, week.start.toordinal() // DAYS_OF_A_WEEK
    things, order = for_planning(week.client, kinds, plan, gate, turns)
    # a favorite stands in the slots that it was kept for, and in no others that it would fit
    by_key = {
        one.key: replace(
            one, kinds=frozenset(kind for kind, keys in order.items() if one.key in keys)
        )
        for one in things
    }
    entries = list(week.entries.select_related("recipe", "bowl", "planned"))
    # what was added is added anew, or not
    entries = [one for one in entries if one.place != ADDED_PLACE or one.locked]
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
    plain = [candidate_of(one.portion, one.kinds, OUT, ()) for one in by_key.values()]
    watched, known = [row.target.key for row in plan.watched], known_share(plain, taken)
    shares = shares_of_days(skeleton, plan.meals, week.start, week.days)
    for entry in entries:
        # a meal that is eaten out counts by its guess
        if is_out(entry) and shares[entry.day] < WHOLE and _away(week, entry, skeleton):
            shares[entry.day] += sum(meal.share for meal in plan.meals if meal.key == entry.meal)
    days = sorted({slot.day for slot in slots})
    stops = stops_by_amount(gate.situation)
    held = held_against(plan.day, watched, known, shares, days, stops, taken)
    keys = held.keys
    recipes = recipes_in(by_key.values())
    person = plan.day.person
    at_once = stomach_ml(person.conditions, person.surgery_months) or MOST_AT_ONCE_ML
    ranks = {key: at for some in order.values() for at, key in enumerate(some)}
    for pk in USED_FIRST.first(week.client) or ():
        # what stands in the house is liked before all else
        ranks[f"recipe-{pk}"] = -FIRST
    candidates = tuple(
        candidate_of(
            replace(one.portion, key=one.key),
            one.kinds,
            one.counts_for(kcal),
            keys,
            {str(pk): servings for pk, servings in one.parts.items() if pk in recipes},
            one.keeping,
            ranks.get(one.key, len(order)),
            at_once,
        )
        for one in by_key.values()
    )
    if additions:
        candidates = with_additions(candidates, gate, keys, kcal >= LARGE_FROM_KCAL)
        taken_places = {slot.key for slot in slots}
        slots += [
            one
            for one in places_for(slots, eats_between(len(plan.meals)))
            if one.key not in taken_places
        ]
    in_danger = endangered(person)
    # what was kept in spite of the school was the practitioner's to keep
    school = plan.school.name if plan.school else ""
    problem = Problem(
        days=week.days,
        slots=tuple(slots),
        candidates=candidates,
        prepared=tuple(prepared_of(recipe, in_danger) for recipe in recipes.values()),
        aims=held.aims,
        aims_on_day=held.on_day,
        over_week=held.over_week,
        base=held.base,
        base_grams=0.0,
        cook_days=days_of(skeleton.cooking, week.start, week.days),
        first_evening=_first_evening(week),
        wishes=skeleton.wishes,
        density_g=usual_day_g(plan.day),
        check=page_check(situation_of(plan), without_school(gate, school), taken),
    )
    return Posed(problem=problem, things=by_key, helpers=helpers_of(gate, keys))


def _away(week: Week, entry: WeekEntry, skeleton: Skeleton) -> bool:
    """Whether a meal is one that the skeleton does not plan."""
    weekday = skeleton.days[week.date_of(entry.day).weekday()]
    return entry.meal in weekday.away or not weekday.meals.get(entry.meal)


def _first_evening(week: Week) -> int:
    """The first evening on which something can be soaked, counted from the first day: tonight, or
    the evening before one may begin to cook."""
    tonight = (timezone.localdate() - week.start).days
    return min(max(tonight, EVENING_BEFORE), DAY_BEFORE)


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
