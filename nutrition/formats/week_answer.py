"""What was planned of a week, as plain data and as a page of text."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date, timedelta
from typing import Any

from nutrition.composition.foods import food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.nutrients import NUTRIENT
from nutrition.formats.week_file import AskedWeek
from nutrition.planning.obstacles import Help, collides, comes_from, would_help
from nutrition.planning.proposals import PlannedWeek, weeks
from nutrition.portions.work import Work
from nutrition.targets.meals import MEAL_NAMES

SIGNIFICANT = 6
# Of the seconds that are given so much is work; the rest is a slower machine's.
FITS_WITHIN = 0.6


def _round(value: float) -> float:
    return float(f"{value:.{SIGNIFICANT}g}")


def solve(asked: AskedWeek, seconds: float | None = None) -> dict[str, Any]:
    """What is planned, as JSON-ready data; the keys are the command's published ones."""
    work = None if seconds is None else Work.of(seconds * FITS_WITHIN, seconds)
    found = weeks(asked.week, asked.most, work)
    return {
        "weeks": [_week(asked, one) for one in found],
        "left_out": [{"dish": name, "why": why} for name, why in asked.left_out],
        "empty": sorted({slot.kind for slot in asked.week.slots if not asked.week.choices(slot)}),
    }


def _day_words(asked: AskedWeek, day: int) -> str:
    return f"{asked.start + timedelta(days=day):%A}"


def _week(asked: AskedWeek, one: PlannedWeek) -> dict[str, Any]:
    week, planning = asked.week, one.planning
    names = week.by_key
    days = []
    for day in range(week.days):
        meals: dict[str, list[dict[str, Any]]] = {}
        for slot in week.slots_of(day):
            choice = one.planned.get(slot.key)
            meals.setdefault(slot.meal, []).append(
                {
                    "slot": slot.kind,
                    "dish": choice.candidate if choice else None,
                    "name": names[choice.candidate].name if choice else "",
                    "count": choice.count if choice else 0.0,
                    "pinned": slot.pinned,
                }
            )
        days.append({"day": day, "weekday": _day_words(asked, day), "meals": meals})
    return {
        "proved": planning.proved,
        "within": _round(planning.within),
        "missed": _round(planning.score.missed),
        "stopped": planning.stopped,
        "days": days,
        "pots": [
            {
                "dish": pot.prepared.key,
                "name": pot.prepared.name,
                "cooked": pot.day,
                "weekday": _day_words(asked, pot.day),
                "servings": _round(pot.made),
                "eaten": {str(day): _round(servings) for day, servings in pot.eaten},
                "frozen": {str(day): _round(servings) for day, servings in pot.frozen},
                "left": _round(pot.left),
                "keeps_until": pot.last_day,
                "off_day": pot.prepared.cooks and pot.day not in week.cook_days,
            }
            for pot in one.pots
        ],
        "misses": [
            {
                "day": miss.day,
                "nutrient": miss.bound.aim.key,
                "total": _round(miss.total),
                "by": _round(-miss.by if miss.bound.least else miss.by),
                "hard": miss.bound.firm,
                "from": [
                    {"name": source.name, "share": _round(source.share)}
                    for source in comes_from(week, one.planned, miss)
                ],
            }
            for miss in one.missed
        ],
        "colliding": sorted({miss.bound.aim.key for miss in collides(week, one.planned)}),
        "would_help": [
            {
                "kind": help.kind,
                "id": help.key,
                "days": list(help.days),
                "count": _round(help.count),
                "closes": _round(help.closes),
                "text": help_words(help, asked.start),
            }
            for help in would_help(week, one.planned, asked.helpers)
        ],
        "warned": {str(day): list(said) for day, said in planning.warned.items()},
    }


def help_words(help: Help, start: date) -> str:
    """What would help, as a sentence."""
    days = _days_words(help.days, start)
    if help.kind == "add":
        food = food_table().get(help.key)
        grams = f"{first_helping_g(food) * help.count:.0f} g " if food else f"{help.count:g} "
        return f"{grams}{help.name} besides, {days}: closes {help.closes:.0%} of what is missed"
    if help.kind == "allow" and help.bound is not None:
        nutrient = NUTRIENT[help.key]
        side = "at least" if help.bound.least else "at most"
        return (
            f"{nutrient.name}: {side} {help.count:,.{nutrient.decimals}f} {nutrient.unit} would "
            f"have to be allowed, {days}"
        )
    if help.kind == "let go":
        return f"{help.name} is pinned, {days}: let go, {help.closes:.0%} of what is missed closes"
    return (
        f"{help.kind} of {help.name}, {help.count:g} {days}: closes {help.closes:.0%} of what is "
        "missed"
    )


def _days_words(days: Sequence[int], start: date) -> str:
    names = [f"{start + timedelta(days=day):%A}" for day in days]
    if len(names) >= 7:
        return "every day"
    return (
        "on " + (" and ".join([", ".join(names[:-1]), names[-1]]) if len(names) > 1 else names[0])
        if names
        else "over the week"
    )


def proved_words(data: Mapping[str, Any]) -> str:
    """What is proved of a week, in words."""
    if data["proved"]:
        return (
            "Proved: no week is better by its limits, its pots, its targets, the cook's days and "
            "the variety."
        )
    if data["within"] <= 1e-9:
        return "No week comes nearer to the targets; of cook's days and variety the best found."
    return (
        f"The best found; no week comes nearer to the targets by more than {data['within']:.1%} of "
        "an aim a day."
    )


def as_text(asked: AskedWeek, data: Mapping[str, Any]) -> str:
    """What is planned as a page of text."""
    out = []
    for at, week in enumerate(data["weeks"]):
        if len(data["weeks"]) > 1:
            out.append(f"Week {at + 1}")
        out.append(proved_words(week))
        for day in week["days"]:
            out.append(day["weekday"])
            for meal, rows in day["meals"].items():
                said = ", ".join(
                    f"{row['name'] or 'nothing fits: ' + row['slot']}"
                    + (f" x{row['count']:g}" if row["count"] not in (0.0, 1.0) else "")
                    + (" (pinned)" if row["pinned"] else "")
                    for row in rows
                )
                out.append(f"  {MEAL_NAMES.get(meal, meal):14} {said}")
        out.append("To cook")
        for pot in week["pots"]:
            eaten = ", ".join(
                f"{_day_words(asked, int(day))[:3]} {servings:g}"
                + (" frozen" if day in pot["frozen"] else "")
                for day, servings in pot["eaten"].items()
            )
            left = f"; {pot['left']:g} left over" if pot["left"] > 0.01 else ""
            off = " (not a cook's day)" if pot["off_day"] else ""
            out.append(
                f"  {pot['weekday'][:3]}{off} {pot['servings']:g} servings of {pot['name']}: "
                f"{eaten}{left}"
            )
        for miss in week["misses"]:
            nutrient = NUTRIENT[miss["nutrient"]]
            when = "the week" if miss["day"] is None else _day_words(asked, miss["day"])
            side = "under" if miss["by"] < 0 else "over"
            by = f"{abs(miss['by']):,.{nutrient.decimals}f} {nutrient.unit}"
            hard = ", a hard limit" if miss["hard"] else ""
            out.append(f"  {when}: {nutrient.name.lower()} {side} by {by}{hard}")
        out += [f"  Would help: {row['text']}" for row in week["would_help"]]
        for day, said in week["warned"].items():
            out += [f"  {_day_words(asked, int(day))}: {words}" for words in said]
    out += [f"Left out: {row['dish']}: {row['why']}" for row in data["left_out"]]
    out += [f"Nothing may stand for “{kind}”: add a dish of that kind." for kind in data["empty"]]
    return "\n".join(out)
