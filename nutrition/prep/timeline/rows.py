"""From what the solver found to steps with times: what is done within a task, what is heated and
washed in between, which cook does it and on which burner or shelf."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

from nutrition.prep.steps.task import Task, followers
from nutrition.prep.timeline.kitchen import ToCook
from nutrition.prep.timeline.model import PREHEAT_MIN, REHEAT_MIN, WASH_MIN
from nutrition.prep.timeline.pieces import Shape, hands_of, whole
from nutrition.prep.timeline.schedule import Row, by_time


@dataclass(frozen=True, kw_only=True)
class Placed:
    """A task with its time, the shape it runs in, its oven, and whether the blender is washed
    before it. [min]"""

    dish: ToCook
    task: Task
    start: int
    shape: Shape
    oven: int = 0
    washed: bool = False

    @property
    def end(self) -> int:
        return self.start + self.shape.minutes


def rows_of(placed: Iterable[Placed], kitchen_cooks: int) -> tuple[Row, ...]:
    """All steps of a timeline by time."""
    every = list(placed)
    out: list[Row] = []
    starts = {(one.dish.key, one.task.number): one.start for one in every}
    by_dish: dict[str, list[Task]] = {}
    for one in every:
        by_dish.setdefault(one.dish.key, []).append(one.task)
    after = {key: followers(sorted(own, key=lambda t: t.number)) for key, own in by_dish.items()}
    for one in every:
        out += _steps(one, starts, after[one.dish.key][one.task.number])
        if one.washed:
            out.append(_wash(one))
    out += _heated(every)
    return _laned(_by_cook(by_time(out), kitchen_cooks))


def _base(one: Placed, part: int, text: str, start: int, end: int, hands: int) -> Row:
    task = one.task
    return Row(
        dish=one.dish.key,
        name=one.dish.name,
        task=task.number,
        part=part,
        text=text,
        start=start,
        end=end,
        hands=hands,
        place=task.place,
        celsius=one.shape.celsius or None,
        washed_before=one.washed and part == 0,
        kind=task.kind,
        notes=(*task.notes, *_another_heat(one)) if part == 0 else (),
        lines=task.lines,
    )


def _another_heat(one: Placed) -> tuple[str, ...]:
    """What is said where a tray is baked at another heat than was written."""
    written = one.task.heat.celsius if one.task.heat else 0
    if not written or one.shape.celsius == written:
        return ()
    more = one.shape.minutes - hands_of(one.task) - whole(one.task.alone.usual)
    changed = f"{more} min longer" if more > 0 else f"{-more} min shorter"
    return (f"{changed}: at {one.shape.celsius} °C instead of {written} °C, to share the oven",)


def _steps(one: Placed, starts: Mapping[tuple[str, int], int], after: list[int]) -> list[Row]:
    """A task as its steps: put on, come to the boil, and each thing that is done within it."""
    task, end = one.task, one.end
    if task.overnight:
        used = min((starts[one.dish.key, number] for number in after), default=end)
        longest = one.start + hands_of(task) + whole(task.alone.usual)
        end = max(min(used, longest), end) if after else end
    hands = hands_of(task)
    boils = one.start + hands + whole(task.boil.usual)
    cuts = [one.start + at for at, _length in one.shape.hands if at > 0]
    out: list[Row] = []
    stop = cuts[0] if cuts else end
    if task.boil.usual > 0:
        out.append(_base(one, 0, f"{task.text}: bring to the boil", one.start, boils, hands))
        out.append(_base(one, 1, task.text, boils, max(stop, boils), 0))
    else:
        out.append(_base(one, 0, task.text, one.start, stop, hands))
    lengths = {one.start + at: length for at, length in one.shape.hands}
    for number, at in enumerate(cuts):
        stop = cuts[number + 1] if number + 1 < len(cuts) else end
        out.append(_base(one, len(out), task.events[number].text, at, stop, lengths[at]))
    return out


def _wash(one: Placed) -> Row:
    row = _base(one, 0, "Wash the blender", one.start - WASH_MIN, one.start, WASH_MIN)
    return replace(row, place="sink", kind="wash", part=-1, notes=(), washed_before=False, lines=())


def _heated(placed: Iterable[Placed]) -> list[Row]:
    """When the oven is turned to what."""
    out = []
    trays = sorted((one for one in placed if one.task.place == "oven"), key=lambda one: one.start)
    now: dict[int, tuple[int, int]] = {}
    for one in trays:
        heat, last_end = now.get(one.oven, (0, 0))
        if one.shape.celsius != heat:
            lead = REHEAT_MIN if heat else PREHEAT_MIN
            start = one.start - lead
            words = f"Heat the oven to {one.shape.celsius} °C"
            if heat:
                start = min(max(last_end, start - 20), start)
                words = f"Turn the oven to {one.shape.celsius} °C"
            out.append(
                Row(
                    dish="",
                    name="",
                    task=-1,
                    part=0,
                    text=words,
                    start=start,
                    end=one.start,
                    hands=0,
                    place="oven",
                    celsius=one.shape.celsius,
                    kind="preheat",
                )
            )
        now[one.oven] = (one.shape.celsius, max(last_end, one.end))
    return out


def _by_cook(rows: tuple[Row, ...], cooks: int) -> tuple[Row, ...]:
    """Which cook does what: whoever is free first."""
    free = [-(10**9)] * max(cooks, 1)
    out = []
    for row in rows:
        if not row.hands:
            out.append(row)
            continue
        cook = next((at for at, until in enumerate(free) if until <= row.start), 0)
        free[cook] = row.start + row.hands
        out.append(replace(row, cook=cook))
    return tuple(out)


def _laned(rows: tuple[Row, ...]) -> tuple[Row, ...]:
    """On which burner, shelf or blender: a task stays where it is, and takes the first that is
    free."""
    free: dict[str, list[int]] = {}
    lane_of: dict[tuple[str, int], int] = {}
    ends: dict[tuple[str, int], int] = {}
    for row in rows:
        key = (row.dish, row.task)
        ends[key] = max(ends.get(key, row.end), row.end)
    out = []
    for row in rows:
        key = (row.dish, row.task)
        if row.place not in ("burner", "oven", "blender") or row.kind == "preheat":
            out.append(row)
            continue
        if key not in lane_of:
            lanes = free.setdefault(row.place, [])
            lane = next((at for at, until in enumerate(lanes) if until <= row.start), len(lanes))
            if lane == len(lanes):
                lanes.append(0)
            lanes[lane] = ends[key]
            lane_of[key] = lane
        out.append(replace(row, lane=lane_of[key]))
    return tuple(out)
