"""What was planned of a week, as plain data and as a page of text."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, timedelta

from pydantic import Field

from nutrition.composition.foods import food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.nutrients import NUTRIENT
from nutrition.planning.additions import is_added, words_of
from nutrition.planning.obstacles import Help, collides, comes_from, would_help
from nutrition.planning.proposals import PlannedWeek, weeks
from nutrition.planning.rotation import empty_kinds, missing
from nutrition.planning.words import (
    TITLES,
    gave_way_words,
    gives_words,
    missing_words,
    proved_words,
    starved_words,
)
from nutrition.portions.work import Work
from nutrition.requests.structure import Told, rounded
from nutrition.requests.week import AskedWeek
from nutrition.targets.meals import MEAL_NAMES

SIGNIFICANT = 6


class SlotTold(Told):
    """What stands in a slot, none where nothing fits, and how many of its portions."""

    slot: str
    dish: str | None
    name: str
    count: float
    pinned: bool


class WeekdayTold(Told):
    """A day by its place from 0, with the slots of its meals."""

    day: int
    weekday: str
    meals: dict[str, list[SlotTold]]


class PotTold(Told):
    """A cooking: when, how many servings, and on which days they are eaten, by the day's place."""

    dish: str
    name: str
    cooked: int
    weekday: str
    servings: float
    eaten: dict[str, float]
    frozen: dict[str, float]
    left: float
    keeps_until: int
    off_day: bool


class SourceTold(Told):
    """A dish that brings a share of what is missed."""

    name: str
    share: float


class WeekMissTold(Told):
    """A target that a day misses, or the week where no day is named; below zero for too little."""

    day: int | None
    nutrient: str
    total: float
    by: float
    hard: bool
    source: list[SourceTold] = Field(alias="from")


class HelpTold(Told):
    """A change that would help; `closes` is its share of what is missed."""

    kind: str
    id: str
    days: list[int]
    count: float
    closes: float
    text: str


class AddedTold(Told):
    """What is put in besides, because energy or protein was missing: on which day, to which meal,
    and what it is there."""

    day: int
    meal: str
    dish: str
    name: str
    count: float
    text: str


class PlannedTold(Told):
    """A planned week: what it is made for, how sure it is the best, its days, what was added, what
    is cooked, what is missed, which rules gave way, and what it gives up for what. A `draft` is no
    plan: a day of it starves, by so many kcal under its least, or its page would warn."""

    made_for: str
    title: str
    draft: bool
    starved: dict[str, float]
    proved: bool
    proved_text: str
    proved_of: list[str]
    missed: float
    stopped: bool
    gives_up: str
    gave_way: list[str]
    days: list[WeekdayTold]
    added: list[AddedTold]
    pots: list[PotTold]
    misses: list[WeekMissTold]
    colliding: list[str]
    would_help: list[HelpTold]
    warned: dict[str, list[str]]


class LeftOutTold(Told):
    """A dish that may not be served, and why."""

    dish: str
    why: str


class WeekAnswer(Told):
    """The weeks that were found, the nearest first, the kinds of slot that nothing can stand in,
    and how many dishes of which kind a week that keeps its rotation needs more."""

    weeks: list[PlannedTold]
    left_out: list[LeftOutTold]
    empty: list[str]
    missing: dict[str, int]
    missing_text: list[str]


def _round(value: float) -> float:
    return rounded(value, SIGNIFICANT)


def _servings(by_day: Sequence[tuple[int, float]]) -> dict[str, float]:
    return {str(day): _round(servings) for day, servings in by_day}


def solve(asked: AskedWeek, seconds: float | None = None) -> WeekAnswer:
    """The weeks that come nearest, within some seconds where they are given."""
    found = weeks(asked.week, asked.most, Work.within(seconds))
    few = missing(asked.week)
    return WeekAnswer(
        weeks=[_week(asked, found, at) for at in range(len(found))],
        left_out=[LeftOutTold(dish=name, why=why) for name, why in asked.left_out],
        empty=empty_kinds(asked.week),
        missing={one.kind: one.more for one in few},
        missing_text=missing_words(few),
    )


def _day_words(asked: AskedWeek, day: int) -> str:
    return f"{asked.start + timedelta(days=day):%A}"


def _day(asked: AskedWeek, one: PlannedWeek, day: int) -> WeekdayTold:
    meals: dict[str, list[SlotTold]] = {}
    for slot in asked.week.slots_of(day):
        choice = one.planned.get(slot.key)
        if slot.optional:
            continue
        meals.setdefault(slot.meal, []).append(
            SlotTold(
                slot=slot.kind,
                dish=choice.candidate if choice else None,
                name=asked.week.by_key[choice.candidate].name if choice else "",
                count=choice.count if choice else 0.0,
                pinned=slot.pinned,
            )
        )
    return WeekdayTold(day=day, weekday=_day_words(asked, day), meals=meals)


def _added(asked: AskedWeek, one: PlannedWeek) -> list[AddedTold]:
    return [
        AddedTold(
            day=slot.day,
            meal=slot.meal,
            dish=choice.candidate,
            name=asked.week.by_key[choice.candidate].name,
            count=choice.count,
            text=words_of(choice.candidate),
        )
        for slot in asked.week.slots
        if is_added(slot.kind) and (choice := one.planned.get(slot.key)) is not None
    ]


def _week(asked: AskedWeek, found: Sequence[PlannedWeek], at: int) -> PlannedTold:
    one = found[at]
    week, planning = asked.week, one.planning
    misses = []
    for miss in one.missed:
        sources = comes_from(week, one.planned, miss)
        told = {
            "day": miss.day,
            "nutrient": miss.bound.aim.key,
            "total": _round(miss.total),
            "by": _round(-miss.by if miss.bound.least else miss.by),
            "hard": miss.bound.firm,
            "from": [{"name": dish.name, "share": _round(dish.share)} for dish in sources],
        }
        misses.append(WeekMissTold.model_validate(told))
    return PlannedTold(
        made_for=one.name,
        title=TITLES[one.name],
        draft=one.draft,
        starved={str(day): _round(kcal) for day, kcal in one.starved.items()},
        proved=planning.best,
        proved_text=proved_words(planning),
        proved_of=list(planning.proved),
        missed=_round(planning.score.missed),
        stopped=planning.stopped,
        gives_up=gives_words(found, at),
        gave_way=gave_way_words(week, one.gave_way),
        added=_added(asked, one),
        days=[_day(asked, one, day) for day in range(week.days)],
        pots=[
            PotTold(
                dish=pot.prepared.key,
                name=pot.prepared.name,
                cooked=pot.day,
                weekday=_day_words(asked, pot.day),
                servings=_round(pot.made),
                eaten=_servings(pot.eaten),
                frozen=_servings(pot.frozen),
                left=_round(pot.left),
                keeps_until=pot.last_day,
                off_day=pot.prepared.cooks and pot.day not in week.cook_days,
            )
            for pot in one.pots
        ],
        misses=misses,
        colliding=sorted({miss.bound.aim.key for miss in collides(week, one.planned)}),
        would_help=[
            HelpTold(
                kind=help.kind,
                id=help.key,
                days=list(help.days),
                count=_round(help.count),
                closes=_round(help.closes),
                text=help_words(help, asked.start),
            )
            for help in would_help(week, one.planned, asked.helpers)
        ],
        warned={str(day): list(said) for day, said in planning.warned.items()},
    )


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
        said = nutrient.said(help.count)
        return f"{nutrient.name}: {side} {said} would have to be allowed, {days}"
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


def _slot_words(row: SlotTold) -> str:
    name = row.name or f"nothing fits: {row.slot}"
    times = f" x{row.count:g}" if row.count not in (0.0, 1.0) else ""
    return f"{name}{times}{' (pinned)' if row.pinned else ''}"


def _pot_words(asked: AskedWeek, pot: PotTold) -> str:
    eaten = ", ".join(
        f"{_day_words(asked, int(day))[:3]} {servings:g}" + (" frozen" if day in pot.frozen else "")
        for day, servings in pot.eaten.items()
    )
    left = f"; {pot.left:g} left over" if pot.left > 0.01 else ""
    off = " (not a cook's day)" if pot.off_day else ""
    return f"  {pot.weekday[:3]}{off} {pot.servings:g} servings of {pot.name}: {eaten}{left}"


def _miss_words(asked: AskedWeek, miss: WeekMissTold) -> str:
    nutrient = NUTRIENT[miss.nutrient]
    when = "the week" if miss.day is None else _day_words(asked, miss.day)
    side = "under" if miss.by < 0 else "over"
    by = nutrient.said(abs(miss.by))
    return f"  {when}: {nutrient.name.lower()} {side} by {by}{', a hard limit' * miss.hard}"


def _added_words(asked: AskedWeek, row: AddedTold) -> str:
    food = food_table().get(row.dish.removeprefix("food-"))
    grams = f" {first_helping_g(food) * row.count:.0f} g" if food else ""
    meal = MEAL_NAMES.get(row.meal, row.meal).lower()
    return f"  {_day_words(asked, row.day)[:3]}, {meal}: {row.name}{grams}, {row.text}"


def as_text(asked: AskedWeek, answer: WeekAnswer) -> str:
    """What is planned as a page of text."""
    out = []
    for week in answer.weeks:
        out += [week.title, *([week.gives_up] if len(answer.weeks) > 1 else []), week.proved_text]
        for key, kcal in week.starved.items():
            out.append(f"{_day_words(asked, int(key))}: {starved_words(kcal)}")
        for day in week.days:
            out.append(day.weekday)
            for meal, rows in day.meals.items():
                dishes = ", ".join(_slot_words(row) for row in rows)
                out.append(f"  {MEAL_NAMES.get(meal, meal):14} {dishes}")
        if week.added:
            out += ["Added, where energy or protein was missing"]
            out += [_added_words(asked, row) for row in week.added]
        out += ["To cook", *(_pot_words(asked, pot) for pot in week.pots)]
        out += [_miss_words(asked, miss) for miss in week.misses]
        out += [f"  Gave way: {words}" for words in week.gave_way]
        out += [f"  Would help: {row.text}" for row in week.would_help]
        for key, said in week.warned.items():
            out += [f"  {_day_words(asked, int(key))}: {words}" for words in said]
    out += [f"Left out: {row.dish}: {row.why}" for row in answer.left_out]
    out += [f"Nothing may stand for “{kind}”: add a dish of that kind." for kind in answer.empty]
    out += [f"Missing: {words}." for words in answer.missing_text]
    return "\n".join(out)
