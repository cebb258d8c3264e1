"""A timeline that was found, as plain data and as a page of text."""

from __future__ import annotations

import math
from datetime import date

from nutrition.portions.work import Work
from nutrition.prep.timeline.clock import moment
from nutrition.prep.timeline.schedule import Row, Timeline
from nutrition.prep.timeline.solving import WORDS, timeline
from nutrition.requests.structure import Told
from nutrition.requests.timeline import AskedTimeline


class StepTold(Told):
    """A step: of which dish (none for what is of the whole kitchen), its words, when it begins and
    ends, how long the hands are needed from its beginning [min], where, at which heat of the oven
    [degrees Celsius], whether the blender is washed before it; its kind of work, and what is to be
    known of it."""

    dish: str
    text: str
    start: str
    end: str
    hands_minutes: int
    place: str
    celsius: int | None
    washed_before: bool
    kind: str
    notes: list[str]


class MissingTold(Told):
    """A dish that does not fit, and why."""

    dish: str
    name: str
    why: str


class HelpWithTimeTold(Told):
    """A change with which it would fit."""

    kind: str
    text: str
    minutes: int
    dish: str


class TimelineAnswer(Told):
    """The steps in the order of their times, when each dish is ready, what does not fit and what
    would help; whether nothing is better by what counts, and if not within how many minutes; and
    which parts of the steps were not understood, by dish. Times of another day carry their date."""

    date: str
    steps: list[StepTold]
    ready: dict[str, str]
    does_not_fit: list[MissingTold]
    would_help: list[HelpWithTimeTold]
    proved: bool
    within: float | None
    within_of: dict[str, float | None]
    not_understood: dict[str, list[str]]


def _step(row: Row, day: date) -> StepTold:
    return StepTold(
        dish=row.dish,
        text=row.text,
        start=moment(row.start, day),
        end=moment(row.end, day),
        hands_minutes=row.hands,
        place=row.place,
        celsius=row.celsius,
        washed_before=row.washed_before,
        kind=row.kind,
        notes=list(row.notes),
    )


def _gap(value: float) -> float | None:
    return None if math.isinf(value) else value


def told(asked: AskedTimeline, found: Timeline) -> TimelineAnswer:
    """A timeline as plain data."""
    day = asked.day
    gaps = {WORDS[stage]: _gap(value) for stage, value in found.within.items()}
    known = [value for value in gaps.values() if value is not None]
    return TimelineAnswer(
        date=day.isoformat(),
        steps=[_step(row, day) for row in found.rows],
        ready={key: moment(at, day) for key, at in found.ready.items()},
        does_not_fit=[MissingTold.model_validate(one) for one in found.missing],
        would_help=[HelpWithTimeTold.model_validate(one) for one in found.helps],
        proved=found.proved,
        within=0.0 if found.proved else (max(known) if known else None),
        within_of=gaps,
        not_understood={
            dish.key: list(dish.work.unread) for dish in asked.session.dishes if dish.work.unread
        },
    )


def solve(asked: AskedTimeline, seconds: float | None = None) -> TimelineAnswer:
    """The best timeline within some seconds."""
    return told(asked, timeline(asked.session, Work.within(seconds)))


def as_text(asked: AskedTimeline, answer: TimelineAnswer) -> str:
    """A timeline as a page of text: what is done in the order of work."""
    names = {dish.key: dish.name for dish in asked.session.dishes}
    out = [
        f"Ready on {answer.date}: " + ", ".join(f"{names[k]} {v}" for k, v in answer.ready.items())
    ]
    day = ""
    for step in answer.steps:
        own, _space, hour = step.start.rpartition(" ")
        if own != day:
            out += ["", own or answer.date]
            day = own
        heat = f" at {step.celsius} °C" if step.celsius else ""
        hands = f", {step.hands_minutes} min by hand" if step.hands_minutes else ""
        name = f"{names.get(step.dish, '')}: " if step.dish else ""
        end = step.end.rpartition(" ")[2]
        out.append(f"{hour}-{end}  {name}{step.text} ({step.place}{heat}{hands})")
        out += [f"             {note}" for note in step.notes]
    for missing in answer.does_not_fit:
        out += ["", f"Does not fit: {missing.name}. {missing.why}"]
    out += [f"Would help: {one.text}." for one in answer.would_help]
    for key, words in answer.not_understood.items():
        out.append(f"Not understood in {names[key]}: {'; '.join(words)}")
    out += ["", _proof(answer)]
    return "\n".join(out)


def _proof(answer: TimelineAnswer) -> str:
    if answer.proved:
        return "Proved: no other order is better by what counts."
    gaps = ", ".join(
        f"{words}: {'not known' if gap is None else f'up to {gap:g} fewer'}"
        for words, gap in answer.within_of.items()
    )
    return f"The best found; not proved. {gaps}".rstrip()
