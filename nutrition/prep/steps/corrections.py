"""What somebody put right of a step that was read."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any, get_args

from nutrition.prep.steps.heat import LEAST_C, MOST_C, Heat
from nutrition.prep.steps.task import DAY_MIN, Task
from nutrition.prep.steps.work_kinds import Place, Span, kind_named

# Nothing takes the hands longer, and nothing stands longer. [min]
MOST_HANDS, MOST_ALONE = 240.0, 7 * DAY_MIN
# What is put into an oven without a heat. Common practice, no source. [degrees Celsius]
USUAL_C = 180


@dataclass(frozen=True, kw_only=True)
class Correction:
    """What is right of a piece of work, by its words; None as it was read. [min], [degrees Celsius]
    `apart`: it does not wait for what stands before it; `no_work`: nothing is done."""

    hands: float | None = None
    alone: float | None = None
    place: Place | None = None
    celsius: int | None = None
    apart: bool | None = None
    no_work: bool = False


NOTHING = Correction()


def correction_in(data: object) -> Correction:
    """A correction as it was kept; what cannot be in it is as it was read. [min]"""
    given: dict[str, Any] = data if isinstance(data, dict) else {}
    celsius = _number(given.get("celsius"), LEAST_C, MOST_C)
    place, apart = given.get("place"), given.get("apart")
    return Correction(
        hands=_number(given.get("hands"), 0.0, MOST_HANDS),
        alone=_number(given.get("alone"), 0.0, MOST_ALONE),
        place=place if place in get_args(Place) else None,
        celsius=None if celsius is None else round(celsius),
        apart=apart if isinstance(apart, bool) else None,
        no_work=given.get("no_work") is True,
    )


def _number(value: object, least: float, most: float) -> float | None:
    if isinstance(value, bool) or not isinstance(value, int | float):
        return None
    return float(value) if least <= value <= most else None


def corrected(task: Task, right: Correction) -> Task:
    """A task as somebody put it right. [min]"""
    out = task
    if right.hands is not None:
        out = replace(out, hands=_exactly(right.hands))
    if right.alone is not None:
        events = tuple(one for one in out.events if one.before_end < right.alone)
        out = replace(out, alone=_exactly(right.alone), events=events)
    if right.place is not None:
        out = replace(out, place=right.place, heat=_heat(out, right.place))
    if right.celsius is not None and out.heat is not None:
        out = replace(out, heat=replace(out.heat, celsius=right.celsius, written=True))
    if out is task:
        return task
    return replace(out, sure=True, stated=True, notes=("put right by hand",))


def _exactly(minutes: float) -> Span:
    return Span(minutes, minutes, minutes)


def _heat(task: Task, place: Place) -> Heat | None:
    """The heat of what is put into the oven, none of what is not."""
    if place != "oven":
        return None
    kind = kind_named()[task.kind]
    return task.heat or Heat(celsius=kind.celsius or USUAL_C, spread=kind.spread, written=False)
