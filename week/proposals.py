"""The weeks that were found, as they are kept with the week until one is taken, and as they are
told."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from clients.plan.strip import in_one_line, strip
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Profile
from nutrition.composition.supplements import per_day
from nutrition.planning.obstacles import comes_from, would_help
from nutrition.planning.proposals import PlannedWeek
from nutrition.planning.score import Missed, eaten_on
from nutrition.planning.week import Choice
from nutrition.requests.week_answer import help_words
from webkit import figures
from week.models import Week
from week.problem import Plans, Posed


@dataclass(frozen=True, kw_only=True)
class Told:
    """One proposal for the page: by its number, what is proved, what each day misses and why, and
    what would help. On `days_inside` of them something is eaten and every watched target is
    inside."""

    number: int
    proved: str
    pots: str
    differs: int
    days: list[tuple[str, str, list[str]]]
    days_inside: int
    week: list[str]
    helps: list[str]
    dishes: list[tuple[str, str]]


def proved_words(one: PlannedWeek) -> str:
    """What is proved of a proposal, in words."""
    planning = one.planning
    if planning.stopped:
        return "Stopped before the search was over: the best until then."
    if planning.proved:
        return "Proved: no week is better by its limits, pots, targets, cook's days and variety."
    if planning.within <= 1e-9:
        return "No week comes nearer to the targets; cook's days and variety are the best found."
    return (
        f"The best found. No week comes nearer to the targets by more than "
        f"{planning.within:.0%} of one aim a day."
    )


def as_kept(week: Week, posed: Posed, found: Sequence[PlannedWeek]) -> list[dict[str, Any]]:
    """What was found as plain data: what stands in each slot, and all that is told of it."""
    return [_kept(week, posed, at, one) for at, one in enumerate(found)]


def _kept(week: Week, posed: Posed, at: int, one: PlannedWeek) -> dict[str, Any]:
    problem = posed.problem
    plans = Plans(week)
    taken = per_day(week.client.supplements_taken())
    days = []
    for day in range(problem.days):
        eaten = eaten_on(problem, one.planned, day)
        whole = Profile.total([*(thing.profile * count for thing, count in eaten), taken])
        rows = strip(plans.on(week.date_of(day)), whole) if eaten else []
        line = in_one_line(rows) if eaten else "nothing planned"
        # what the line says already is not said again
        said = [
            _limit_words(problem, one, miss)
            for miss in one.missed
            if miss.day == day and (miss.bound.firm or not miss.bound.least)
        ]
        said += list(one.planning.warned.get(day, ()))
        inside = bool(eaten) and not said and not any(row.missed for row in rows)
        days.append([f"{week.date_of(day):%a %b} {week.date_of(day).day}", line, said, inside])
    dishes: dict[str, list[str]] = {}
    for slot in problem.slots:
        choice = one.planned.get(slot.key)
        if choice is not None:
            name = problem.by_key[choice.candidate].name
            dishes.setdefault(slot.kind, []).append(name)
    left = [pot for pot in one.pots if pot.left > 0.01]
    off = sum(1 for pot in one.pots if pot.prepared.cooks and pot.day not in problem.cook_days)
    count = sum(1 for pot in one.pots if pot.prepared.cooks)
    words = [f"{count} pots"]
    words += [f"{off} of them not on a cook's day"] if off else ["all on the cook's days"]
    words += [
        f"{figures.digits(pot.left, 1)} servings of {pot.prepared.name} left over"
        + (", to be frozen" if pot.prepared.freezes else ", not eaten")
        for pot in left
    ]
    return {
        "planned": {
            key: [choice.candidate, choice.count]
            for key, choice in one.planned.items()
            if choice is not None
        },
        "number": at,
        "proved": proved_words(one),
        "pots": "; ".join(words),
        "differs": one.differs,
        "days": days,
        "week": [_limit_words(problem, one, miss) for miss in one.missed if miss.day is None],
        "helps": [
            help_words(help, week.start) for help in would_help(problem, one.planned, posed.helpers)
        ],
        "dishes": [[kind, ", ".join(dict.fromkeys(names))] for kind, names in dishes.items()],
    }


def _limit_words(problem: Any, one: PlannedWeek, miss: Missed) -> str:
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
    """The proposals that were found last."""
    return [
        Told(
            number=row["number"],
            proved=row["proved"],
            pots=row["pots"],
            differs=row["differs"],
            days=[(name, line, said) for name, line, said, *_inside in row["days"]],
            # what was kept before this was kept with it does not count
            days_inside=sum(1 for _name, _line, _said, *inside in row["days"] if inside == [True]),
            week=row["week"],
            helps=row["helps"],
            dishes=[(kind, names) for kind, names in row["dishes"]],
        )
        for row in week.proposals
    ]


def planned_in(row: dict[str, Any]) -> dict[str, Choice]:
    """What stands in the slots of a proposal as it was kept."""
    return {
        key: Choice(candidate=candidate, count=float(count))
        for key, (candidate, count) in row["planned"].items()
    }
