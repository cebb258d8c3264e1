"""The weeks that were found, as they are kept with the week until one is taken, and as they are
told."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from clients.plan.cautions import situation_of
from clients.plan.gate import gate_of
from clients.plan.strip import in_one_line, strip
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Profile
from nutrition.composition.supplements import per_day
from nutrition.planning.additions import is_added, words_of
from nutrition.planning.bounds import Missed, eaten_on, meals_on
from nutrition.planning.candidates import asked_of_week
from nutrition.planning.obstacles import comes_from, would_help
from nutrition.planning.proposals import PlannedWeek
from nutrition.planning.rotation import missing
from nutrition.planning.score import pots_cooked
from nutrition.planning.week import Choice
from nutrition.planning.week import Week as Problem
from nutrition.planning.words import (
    TITLES,
    gave_way_words,
    gives_words,
    missing_words,
    proved_words,
    starved_words,
    stops_words,
)
from nutrition.requests.week_answer import help_words
from nutrition.targets.meals import MEAL_NAMES
from webkit import figures
from week.favorites import offers
from week.models import Week
from week.problem import Plans, Posed, plan_for


@dataclass(frozen=True, kw_only=True)
class Told:
    """One proposal for the page: what it is made for and gives up, what stands in its days, what is
    cooked, what was added, what each day misses and why, and what would help. On `days_inside` of
    them something is eaten and every watched target is inside. A `draft` is no plan yet, and one
    that `stops` is not taken."""

    number: int
    title: str
    draft: bool
    stops: str
    gives: str
    proved: str
    pots: str
    facts: list[tuple[str, str]]
    days: list[DayTold]
    added: list[str]
    gave_way: list[str]
    asks: list[str]
    missing: list[tuple[str, str, str]]
    week: list[str]
    helps: list[str]

    @property
    def days_inside(self) -> int:
        return sum(one.inside for one in self.days)


@dataclass(frozen=True, kw_only=True)
class DayTold:
    """A day of a proposal: its meals in words, where it stands, and what is said of it."""

    name: str
    meals: list[list[str]]
    line: str
    said: list[str]
    inside: bool


def as_kept(
    week: Week, posed: Posed, found: Sequence[PlannedWeek], looking: bool = False
) -> list[dict[str, Any]]:
    """What was found as plain data: what stands in each slot, and all that is told of it. While the
    search is still `looking` nothing is said of what it gives up, or what would help."""
    return [_kept(week, posed, found, at, looking) for at in range(len(found))]


def _kept(
    week: Week, posed: Posed, found: Sequence[PlannedWeek], at: int, looking: bool
) -> dict[str, Any]:
    problem, one = posed.problem, found[at]
    helps = [] if looking else would_help(problem, one.planned, posed.helpers)
    return {
        "planned": {
            key: [choice.candidate, choice.count]
            for key, choice in one.planned.items()
            if choice is not None
        },
        "number": at,
        "title": TITLES[one.name],
        "draft": one.draft,
        "stops": stops_words(week.client.person().conditions) if one.starved else "",
        "gives": "" if looking else gives_words(found, at),
        "proved": "" if looking else proved_words(one.planning),
        "pots": _pot_words(problem, one),
        "facts": _facts(week, posed, one),
        "days": _days(week, posed, one),
        "added": _added(week, problem, one),
        "gave_way": gave_way_words(problem, one.gave_way),
        "missing": [] if looking or at else _missing(week, posed),
        "asks": _asks(week, problem, one),
        "week": [_limit_words(problem, one, miss) for miss in one.missed if miss.day is None],
        "helps": [help_words(help, week.start) for help in helps],
    }


def _asks(week: Week, problem: Problem, one: PlannedWeek) -> list[str]:
    """What the page of the week would stop and ask about, for all its days together."""
    taken = week.client.supplements_taken()
    days = [meals_on(problem, one.planned, day) for day in problem.planned_days]
    return asked_of_week(situation_of(plan_for(week)), days, per_day(taken), taken)


def _missing(week: Week, posed: Posed) -> list[list[str]]:
    """How many dishes of which kind are missing, each with the kind and what could be kept for
    it."""
    few, plan = missing(posed.problem), plan_for(week)
    out = []
    for one, words in zip(few, missing_words(few), strict=True):
        known = [key for key, thing in posed.things.items() if one.kind in thing.kinds]
        some = offers(week.client, one.kind, plan, gate_of(plan), known) if plan.day else []
        out.append([words, one.kind, ", ".join(thing.name for thing in some)])
    return out


def _days(week: Week, posed: Posed, one: PlannedWeek) -> list[dict[str, Any]]:
    problem, plans = posed.problem, Plans(week)
    taken = per_day(week.client.supplements_taken())
    out = []
    for day in range(problem.days):
        eaten = eaten_on(problem, one.planned, day)
        whole = Profile.total([*(thing.profile * count for thing, count in eaten), taken])
        rows = strip(plans.on(week.date_of(day)), whole) if eaten else []
        # what the line says already is not said again
        said = [
            _limit_words(problem, one, miss)
            for miss in one.missed
            if miss.day == day and (miss.bound.firm or not miss.bound.least)
        ]
        said += list(one.planning.warned.get(day, ()))
        said += [starved_words(one.starved[day])] if day in one.starved else []
        out.append(
            {
                "name": _date_words(week, day),
                "meals": _meals(problem, one, day),
                "line": in_one_line(rows) if eaten else "nothing planned",
                "said": said,
                "inside": bool(eaten) and not said and not any(row.missed for row in rows),
            }
        )
    return out


def _date_words(week: Week, day: int) -> str:
    date = week.date_of(day)
    return f"{date:%a %b} {date.day}"


def _meals(problem: Problem, one: PlannedWeek, day: int) -> list[list[str]]:
    """The meals of a day, each with its dishes in words."""
    out: dict[str, list[str]] = {}
    for slot in problem.slots_of(day):
        choice = one.planned.get(slot.key)
        if choice is not None:
            added = " (added)" if is_added(slot.kind) else ""
            out.setdefault(slot.meal, []).append(f"{_choice_words(problem, choice)}{added}")
    return [[MEAL_NAMES[key], ", ".join(out[key])] for key in MEAL_NAMES if key in out]


def _choice_words(problem: Problem, choice: Choice) -> str:
    name = problem.by_key[choice.candidate].name
    return name if choice.count == 1 else f"{name} ×{choice.count:g}"


def _pot_words(problem: Problem, one: PlannedWeek) -> str:
    left: dict[tuple[str, bool], float] = {}
    for pot in one.pots:
        key = pot.prepared.name, pot.prepared.freezes
        left[key] = left.get(key, 0.0) + pot.left
    off = sum(1 for pot in one.pots if pot.prepared.cooks and pot.day not in problem.cook_days)
    words = [f"{off} of them not on a cook's day"] if off else ["all on the cook's days"]
    words += [
        f"{figures.digits(servings, 1)} servings of {name} left over"
        + (", to be frozen" if freezes else ", not eaten")
        for (name, freezes), servings in left.items()
        if servings > 0.01
    ]
    return "; ".join([f"{pots_cooked(one.pots)} pots", *words])


def _facts(week: Week, posed: Posed, one: PlannedWeek) -> list[list[str]]:
    """What the weeks are compared by: pots, dishes, plants, and the average day on each target that
    is watched."""
    problem = posed.problem
    there = [
        (slot, problem.by_key[choice.candidate])
        for slot in problem.slots
        if (choice := one.planned.get(slot.key)) is not None
    ]
    plants = frozenset().union(*(thing.plants for _slot, thing in there))
    days = [day for day in problem.planned_days if eaten_on(problem, one.planned, day)]
    taken = per_day(week.client.supplements_taken())
    eaten = [
        thing.profile * count
        for day in days
        for thing, count in eaten_on(problem, one.planned, day)
    ]
    mean = Profile.total(eaten) * (1.0 / max(len(days), 1)) + taken
    out = [
        ["Pots cooked", str(pots_cooked(one.pots))],
        ["Different dishes", str(len({thing.key for slot, thing in there if slot.varies}))],
        ["Plants", str(len(plants))],
    ]
    rows = strip(plan_for(week), mean) if days else []
    return [*out, *([row.name, f"{row.short} {row.said}".strip()] for row in rows)]


def _added(week: Week, problem: Problem, one: PlannedWeek) -> list[str]:
    """What was put in besides, the same on several days said once."""
    days: dict[str, list[str]] = {}
    for slot in problem.slots:
        choice = one.planned.get(slot.key)
        if choice is None or not is_added(slot.kind):
            continue
        why = words_of(choice.candidate)
        said = f"{_choice_words(problem, choice)} to {MEAL_NAMES[slot.meal].lower()}"
        said += f", {why}" if why else ""
        days.setdefault(said, []).append(f"{week.date_of(slot.day):%a}")
    return [f"{said} ({', '.join(some)})" for said, some in days.items()]


def _limit_words(problem: Problem, one: PlannedWeek, miss: Missed) -> str:
    """ "Sodium over by 120 mg, most of it from Bean and barley soup (41 %)" """
    nutrient = NUTRIENT[miss.bound.aim.key]
    side = "under" if miss.bound.least else "over"
    by = miss.by
    if miss.bound.minus:
        # a density is told by its own unit: over the weight it is referred to
        by = miss.by / problem.density_g
    words = f"{nutrient.name} {side} by {figures.digits(by, nutrient.decimals)} {nutrient.unit}"
    if miss.bound.firm:
        words += ", a limit that is never broken: no week keeps it"
    sources = comes_from(problem, one.planned, miss)
    if sources:
        first = sources[0]
        words += f"; most of it from {first.name} ({first.share:.0%})"
    return words


def told(week: Week) -> list[Told]:
    """The proposals that were found last; those that were kept before they could be compared are
    not there."""
    return [
        Told(
            **{
                name: row[name]
                for name in (
                    *("number", "title", "draft", "stops", "gives", "proved", "pots"),
                    *("added", "gave_way", "asks", "week", "helps"),
                )
            },
            missing=[(words, kind, names) for words, kind, names in row["missing"]],
            facts=[(name, value) for name, value in row["facts"]],
            days=[DayTold(**day) for day in row["days"]],
        )
        for row in week.proposals
        if "asks" in row
    ]


def compared(found: Sequence[Told]) -> list[tuple[str, list[str]]]:
    """The weeks side by side: a row for each thing that they are compared by."""
    names = dict.fromkeys(name for one in found for name, _value in one.facts)
    return [(name, [dict(one.facts).get(name, "") for one in found]) for name in names]


def planned_in(row: dict[str, Any]) -> dict[str, Choice]:
    """What stands in the slots of a proposal as it was kept."""
    return {
        key: Choice(candidate=candidate, count=float(count))
        for key, (candidate, count) in row["planned"].items()
    }
