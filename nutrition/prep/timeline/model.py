"""The timeline as a problem for the solver: each task an interval, each hand, burner, shelf and
blender taken once at a time."""

# Whole: one model for the solver; its parts share its variables.

from __future__ import annotations

from dataclasses import dataclass, field
from itertools import combinations
from typing import Any

from nutrition.prep.steps.task import Task, followers
from nutrition.prep.timeline.kitchen import Session, ToCook
from nutrition.prep.timeline.pieces import (
    TAKEN_OFF,
    TAKEN_OUT,
    Shape,
    most_wait,
    shapes_of,
    with_ends,
)

DAY = 1440
# What stands overnight is begun in the evening, what stands through a day in the morning as well.
# Common practice, no source. [min of the day]
EVENING, MORNING = (19 * 60, 21 * 60), (7 * 60, 9 * 60 + 30)
# So many days before the beginning is looked back.
DAYS_BACK = 6
# From so long on it is the night and not the day that something stands. [min]
NIGHT_MIN = 480
# An oven that is cold takes so long, and so long to another heat. Common practice, no source. [min]
PREHEAT_MIN, REHEAT_MIN = 15, 10
# Of four minutes of work one more is needed to wipe, look and walk, two at the most. Common
# practice, no source. [min]
AIR_EACH, AIR_MOST = 4, 2
# A blender is washed by hand. Common practice, no source. [min]
WASH_MIN = 3
# So late at the most, where lateness is allowed. [min]
MOST_LATE = 8 * 60


@dataclass(kw_only=True)
class Variables:
    """The variables of one task: its start, end and length, the shape it runs in, whether its dish
    is cooked, and the heat of the oven."""

    dish: ToCook
    task: Task
    shapes: list[Shape]
    start: Any
    length: Any
    end: Any
    interval: Any
    chosen: list[Any]
    present: Any
    celsius: Any = None
    hands: list[tuple[Any, int, Any]] = field(default_factory=list)
    oven: Any = None
    washed: Any = None
    late: bool = False

    @property
    def key(self) -> tuple[str, int]:
        return self.dish.key, self.task.number


class Model:
    """Variables and rules of a session; `late`: dishes may be ready after their time, all by the
    same. `whole`: every dish must be cooked."""

    def __init__(self, session: Session, *, late: bool = False, whole: bool = True) -> None:
        from ortools.sat.python import cp_model

        self.cp = cp_model
        self.session = session
        self.model = cp_model.CpModel()
        self.begin = session.earliest
        self.end = session.ready_at + (MOST_LATE if late else 0)
        self.lateness = self.model.new_int_var(0, MOST_LATE if late else 0, "late")
        self.present: dict[str, Any] = {}
        self.tasks: dict[tuple[str, int], Variables] = {}
        self.own: dict[str, list[Variables]] = {}
        self._before: dict[str, set[int]] = {}
        for dish in session.dishes:
            present = self.model.new_bool_var(f"{dish.key} is cooked")
            if whole:
                self.model.add(present == 1)
            self.present[dish.key] = present
            self._dish(dish, present)
        self._burners()
        self._ovens()
        self._blenders()
        # last, for washing up is work of the hands too
        self._hands()
        self.first = self.model.new_int_var(self.begin, self.end, "first")
        for one in self.tasks.values():
            if not self.is_before(one):
                self.model.add(self.first <= one.start).only_enforce_if(one.present)

        if whole:
            self._as_long_as_the_work()

    def _as_long_as_the_work(self) -> None:
        """The hands are not done sooner than their work takes: what the solver need not find
        out."""
        day = [one for one in self.tasks.values() if not self.is_before(one)]
        work = sum(length + air(length) for one in day for _at, length, _hand in one.hands)
        work -= sum(WASH_MIN + air(WASH_MIN) for one in day if one.task.place == "blender")
        cooks = self.session.kitchen.cooks
        if not self.session.fixed:
            length = self.session.ready_at + self.lateness - self.first
            self.model.add(length * cooks >= work - cooks * AIR_MOST)

    def is_before(self, one: Variables) -> bool:
        """Whether a task is of the evening before, or earlier."""
        return one.task.number in self._before[one.dish.key]

    def _dish(self, dish: ToCook, present: Any) -> None:
        tasks = with_ends(dish.work.tasks)
        self._before[dish.key] = _before_the_day(tasks)
        own: list[Variables] = []
        for task in tasks:
            own.append(self._task(dish, task, present))
        for one in own:
            self._follows(one, own)
        after = followers(tasks)
        for one in own:
            if not after[one.task.number]:
                self._is_ready(one)
        self.own[dish.key] = own

    def _task(self, dish: ToCook, task: Task, present: Any) -> Variables:
        key = (dish.key, task.number)
        name = f"{dish.key} {task.number}"
        fixed = self.session.fixed.get(key)
        shapes = shapes_of(task)
        if fixed is not None:
            hands = tuple(
                (at, length) for at, length in shapes[0].hands if at + length <= fixed.minutes
            )
            shapes = [Shape(celsius=shapes[0].celsius, minutes=fixed.minutes, hands=hands)]
        start = self.model.new_int_var_from_domain(self._window(dish, task, key), f"{name} start")
        length = self.model.new_int_var_from_domain(
            self.cp.Domain.from_values([one.minutes for one in shapes]), f"{name} length"
        )
        end = self.model.new_int_var(self.begin - DAYS_BACK * DAY, self.end + DAY, f"{name} end")
        interval = self.model.new_optional_interval_var(start, length, end, present, name)
        chosen = [self.model.new_bool_var(f"{name} at {one.celsius}") for one in shapes]
        self.model.add_exactly_one(chosen)
        one = Variables(
            dish=dish,
            task=task,
            shapes=shapes,
            start=start,
            length=length,
            end=end,
            interval=interval,
            chosen=chosen,
            present=present,
        )
        for choice, shape in zip(chosen, shapes, strict=True):
            self.model.add(length == shape.minutes).only_enforce_if(choice)
        if task.place == "oven":
            one.celsius = self.model.new_int_var_from_domain(
                self.cp.Domain.from_values([shape.celsius for shape in shapes]), f"{name} heat"
            )
            for choice, shape in zip(chosen, shapes, strict=True):
                self.model.add(one.celsius == shape.celsius).only_enforce_if(choice)
        self._own_hands(one, name)
        self.tasks[key] = one
        return one

    def _own_hands(self, one: Variables, name: str) -> None:
        """When within it the hands are needed, by how it runs."""
        for at in range(len(one.shapes[0].hands)):
            length = one.shapes[0].hands[at][1]
            offsets = [shape.hands[at][0] for shape in one.shapes]
            if len(set(offsets)) == 1:
                begin = one.start + offsets[0]
            else:
                offset = self.model.new_int_var(min(offsets), max(offsets), f"{name} hand {at}")
                for choice, value in zip(one.chosen, offsets, strict=True):
                    self.model.add(offset == value).only_enforce_if(choice)
                begin = self.model.new_int_var(
                    self.begin - DAYS_BACK * DAY, self.end, f"{name} at {at}"
                )
                self.model.add(begin == one.start + offset)
            interval = self.model.new_optional_fixed_size_interval_var(
                begin, length + air(length), one.present, f"{name} hands {at}"
            )
            one.hands.append((begin, length, interval))

    def _window(self, dish: ToCook, task: Task, key: tuple[str, int]) -> Any:
        """When a task may begin. [min]"""
        fixed, pinned = self.session.fixed.get(key), self.session.pinned.get(key)
        if fixed is not None:
            return self.cp.Domain.from_values([fixed.start])
        least = self.begin if self.session.now is None else max(self.begin, self.session.now)
        if pinned is not None:
            return self.cp.Domain.from_values([pinned])
        if task.number not in self._before[dish.key]:
            oven = PREHEAT_MIN if task.place == "oven" and not self.session.fixed else 0
            least = min(least + oven, self.end)
            return self.cp.Domain(least, self.end)
        windows = [EVENING] if task.alone.usual >= NIGHT_MIN else [EVENING, MORNING]
        if task.after:
            windows = [EVENING, MORNING]
        spans = []
        for back in range(DAYS_BACK + 1):
            for low, high in windows:
                begin, end = low - back * DAY, high - back * DAY
                if self.session.now is not None:
                    begin = max(begin, self.session.now)
                if begin <= end and begin < dish.ready_at:
                    spans.append([begin, end])
        if not spans:
            spans = [[self.end + 1, self.end + 1]]
        return self.cp.Domain.from_intervals(sorted(spans))

    def _follows(self, one: Variables, own: list[Variables]) -> None:
        """After what it needs, and before that is spoiled. What is done is as it is."""
        if one.key in self.session.fixed:
            return
        for number in one.task.after:
            other = own[number]
            self.model.add(one.start >= other.end).only_enforce_if(one.present)
            wait = most_wait(other.task)
            tight = one.task.gap is not None and (
                other.task.place == one.task.place or one.task.kind in (TAKEN_OUT, TAKEN_OFF)
            )
            if tight:
                wait = min(wait, round(one.task.gap or 0.0))
            if other.key not in self.session.fixed:
                self.model.add(one.start <= other.end + wait).only_enforce_if(one.present)

    def _is_ready(self, one: Variables) -> None:
        """Ready in time, and not before it would be spoiled."""
        if one.key in self.session.fixed:
            return
        self.model.add(one.end <= one.dish.ready_at + self.lateness).only_enforce_if(one.present)
        work = one.dish.work
        at_once = one.task.hot or (work.strict and not one.task.overnight)
        if not one.dish.stored and at_once:
            self.model.add(one.end >= one.dish.ready_at - round(work.waits)).only_enforce_if(
                one.present
            )

    def _hands(self) -> None:
        """One thing at a time for each cook."""
        # what was done was done by hands that were there
        parts = [
            part
            for one in self.tasks.values()
            if one.key not in self.session.fixed
            for part in one.hands
        ]
        if self.session.kitchen.cooks == 1:
            self.model.add_no_overlap([interval for _begin, _length, interval in parts])
        else:
            self.model.add_cumulative(
                [interval for _begin, _length, interval in parts],
                [1] * len(parts),
                self.session.kitchen.cooks,
            )

    def _at(self, place: str) -> list[Variables]:
        """The tasks of a place, without those that are over there."""
        return [
            one for one in self.tasks.values() if one.task.place == place and not self._is_over(one)
        ]

    def _is_over(self, one: Variables) -> bool:
        fixed, now = self.session.fixed.get(one.key), self.session.now
        return fixed is not None and now is not None and fixed.start + fixed.minutes <= now

    def _burners(self) -> None:
        used = self._at("burner")
        count = self.session.kitchen.burners
        self.model.add_cumulative([one.interval for one in used], [1] * len(used), count)

    def _ovens(self) -> None:
        """Trays in an oven at one time share its heat, and there is a shelf for each."""
        trays, kitchen = self._at("oven"), self.session.kitchen
        if trays and not kitchen.ovens:
            for one in trays:
                self.model.add(one.present == 0)
            return
        for one in trays:
            one.oven = self.model.new_int_var(0, max(kitchen.ovens - 1, 0), "oven")
        for at in range(kitchen.ovens):
            inside = []
            for one in trays:
                here = self.model.new_bool_var("here")
                self.model.add(one.oven == at).only_enforce_if(here)
                self.model.add(one.oven != at).only_enforce_if(here.negated())
                both = self.model.new_bool_var("here and cooked")
                self.model.add_bool_and([here, one.present]).only_enforce_if(both)
                self.model.add_bool_or([here.negated(), one.present.negated(), both])
                inside.append(
                    self.model.new_optional_interval_var(
                        one.start, one.length, one.end, both, "tray"
                    )
                )
            taken = [min(one.task.trays, kitchen.shelves) for one in trays]
            self.model.add_cumulative(inside, taken, kitchen.shelves)
        together: dict[tuple[str, int], list[tuple[Variables, Any]]] = {}
        for one, other in combinations(trays, 2):
            if one.dish is not other.dish or not self._in_turn(one, other):
                with_it = self._share(one, other)
                together.setdefault(one.key, []).append((other, with_it))
                together.setdefault(other.key, []).append((one, with_it))
        for one in trays:
            self._only_to_share(one, together.get(one.key, []))

    def _in_turn(self, one: Variables, other: Variables) -> bool:
        """Whether it is one tray at two heats."""
        return one.task.number in other.task.after or other.task.number in one.task.after

    def _only_to_share(self, one: Variables, others: list[tuple[Variables, Any]]) -> None:
        """Another heat than the written one only with a tray that was written for it, or for one
        beyond it."""
        written = one.shapes[0].celsius
        for choice, shape in zip(one.chosen[1:], one.shapes[1:], strict=True):
            up = shape.celsius > written
            reasons = [
                with_it
                for other, with_it in others
                if (
                    other.shapes[0].celsius >= shape.celsius
                    if up
                    else other.shapes[0].celsius <= shape.celsius
                )
            ]
            self.model.add_bool_or([*reasons, choice.negated()])

    def _share(self, one: Variables, other: Variables) -> Any:
        """Two trays: one after the other, or at one heat, or in two ovens; and whether they are in
        one oven at one time."""
        first, second, same, apart = (
            self.model.new_bool_var(name) for name in ("first", "second", "same", "apart")
        )
        ways = [first, second, same]
        if self.session.kitchen.ovens > 1:
            ways.append(apart)
            self.model.add(one.oven != other.oven).only_enforce_if(apart)
        self.model.add_bool_or([*ways, one.present.negated(), other.present.negated()])
        self.model.add(other.start >= one.end + REHEAT_MIN).only_enforce_if(first)
        self.model.add(one.start >= other.end + REHEAT_MIN).only_enforce_if(second)
        self.model.add(one.celsius == other.celsius).only_enforce_if(same)
        with_it = self.model.new_bool_var("together")
        self.model.add_implication(with_it, same)
        self.model.add_bool_and([one.present, other.present]).only_enforce_if(with_it)
        self.model.add(one.oven == other.oven).only_enforce_if(with_it)
        self.model.add(one.start < other.end).only_enforce_if(with_it)
        self.model.add(other.start < one.end).only_enforce_if(with_it)
        return with_it

    def _blenders(self) -> None:
        """One thing in a blender at a time, and it is washed between sweet and savory."""
        used, kitchen = self._at("blender"), self.session.kitchen
        if used and not kitchen.blenders:
            for one in used:
                self.model.add(one.present == 0)
            return
        for one in used:
            one.washed = self.model.new_bool_var("washed")
            wash = self.model.new_optional_fixed_size_interval_var(
                one.start - WASH_MIN, WASH_MIN, one.washed, "wash"
            )
            one.hands.append((one.start - WASH_MIN, WASH_MIN, wash))
            self.model.add_implication(one.washed, one.present)
        stands = []
        for at in range(kitchen.blenders):
            arcs, here_of = [], []
            for i, one in enumerate(used):
                here = self.model.new_bool_var(f"blender {at}")
                here_of.append(here)
                arcs.append((i + 1, i + 1, here.negated()))
                arcs.append((0, i + 1, self.model.new_bool_var("first")))
                arcs.append((i + 1, 0, self.model.new_bool_var("last")))
                for j, other in enumerate(used):
                    if i == j:
                        continue
                    arc = self.model.new_bool_var("then")
                    arcs.append((i + 1, j + 1, arc))
                    differs = one.task.sweet != other.task.sweet
                    gap = WASH_MIN if differs else 0
                    self.model.add(other.start >= one.end + gap).only_enforce_if(arc)
                    if differs:
                        self.model.add_implication(arc, other.washed)
            empty = self.model.new_bool_var("no use")
            arcs.append((0, 0, empty))
            if used:
                self.model.add_circuit(arcs)
            stands.append(here_of)
        for i, one in enumerate(used):
            self.model.add(sum(row[i] for row in stands) == 1).only_enforce_if(one.present)
            self.model.add(sum(row[i] for row in stands) == 0).only_enforce_if(
                one.present.negated()
            )

    # what counts, in words: see solving.py

    def hot_waits(self) -> Any:
        """How long what is hot waits until it is eaten, or used. [min]"""
        terms = []
        for own in self.own.values():
            after = followers([one.task for one in own])
            for one in own:
                if not one.task.hot:
                    continue
                terms += [self._wait(one, own[at].start) for at in after[one.task.number]]
                if not after[one.task.number] and not one.dish.stored:
                    terms.append(self._wait(one, one.dish.ready_at + self.lateness))
        return sum(terms)

    def _wait(self, one: Variables, until: Any) -> Any:
        """A wait that counts only where the dish is cooked. [min]"""
        wait = self.model.new_int_var(0, self.end - self.begin + DAY, "wait")
        self.model.add(wait >= until - one.end).only_enforce_if(one.present)
        return wait

    def length(self) -> Any:
        """From the first work of the day until all is ready. [min]"""
        return self.session.ready_at + self.lateness - self.first

    def heats(self) -> Any:
        """How many heats the oven is set to, and how often a blender is washed."""
        trays, terms = self._at("oven"), []
        for heat in sorted({shape.celsius for one in trays for shape in one.shapes}):
            used = self.model.new_bool_var(f"{heat} used")
            for one in trays:
                for choice, shape in zip(one.chosen, one.shapes, strict=True):
                    if shape.celsius == heat:
                        self.model.add_bool_or([choice.negated(), one.present.negated(), used])
            terms.append(used)
        terms += [one.washed for one in self._at("blender") if one.washed is not None]
        return sum(terms)

    def freshness(self) -> Any:
        """How long parts wait for one another, and how far trays are from the heat that was
        written; and what stands overnight is begun late in the evening. [min]"""
        terms = []
        for own in self.own.values():
            for one in own:
                terms += [self._wait(own[number], one.start) for number in one.task.after]
                for choice, shape in zip(one.chosen[1:], one.shapes[1:], strict=True):
                    terms.append(abs(shape.celsius - one.shapes[0].celsius) * choice)
        return sum(terms)


def air(hands: int) -> int:
    """What is left free after so much work. [min]"""
    return min(-(-hands // AIR_EACH), AIR_MOST) if hands > 1 else 0


def _before_the_day(tasks: list[Task]) -> set[int]:
    """The tasks that stand overnight, and what must be done before them."""
    out = {task.number for task in tasks if task.overnight}
    waiting = list(out)
    while waiting:
        for number in tasks[waiting.pop()].after:
            if number not in out:
                out.add(number)
                waiting.append(number)
    return out
