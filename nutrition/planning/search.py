"""The best week within some work: one that repeats itself between the cook's days to begin with,
then a few days or one meal at a time made better, sum by sum; and what is proved of it."""

# Whole: one search; its steps share the best week so far and the work that is left.

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from nutrition.planning.model import Found, Model
from nutrition.planning.score import (
    PER_AIM,
    Score,
    besides,
    bounds_of,
    brings,
    eaten_on,
    mouthfuls,
    score,
)
from nutrition.planning.week import Choice, Planned, Slot, Week
from nutrition.portions.work import Work

# What a week may take, a step of it, and a call of the solver whatever it does. [s, as work is
# counted]
WEEK_WORK, DAY_WORK, STEP_WORK, CALL_WORK = 5.0, 2.5, 0.3, 0.1
# ... and one that is planned already, and only changes. [s, as work is counted]
AGAIN_WORK = 1.5
# The share of what is left that the days by themselves may take, each stage, and proving it.
ALONE, STAGE, PROOF = 0.5, 0.6, 0.4
# Of more choices than this nothing is proved beyond what each day by itself says.
MOST_TO_PROVE = 400
# A hard limit comes before all that a day misses.
FIRST = 10**8
# A sum that comes after another may grow to twice what it is and so much.
ROOM = 100
# So often days whose own pages would warn are mended, each time with so much more work.
MENDED, MORE = 8, 0.25


@dataclass(frozen=True, kw_only=True)
class Progress:
    """How far the search is [0 to 1], and the best week until now."""

    share: float
    planned: Planned
    score: Score
    improving: str


@dataclass(frozen=True, kw_only=True)
class Planning:
    """What the search found. `proved`: no week is better by what counts before pots and portions.
    `least_missed` is what no week misses less than, in weighted shares of an aim a day. `stopped`:
    it was stopped, or the clock cut it short. `warned` are the days whose page would still warn, by
    day."""

    planned: Planned
    score: Score
    proved: bool
    least_missed: float
    stopped: bool = False
    warned: Mapping[int, Sequence[str]] = field(default_factory=dict)

    @property
    def within(self) -> float:
        """By how much a better week could miss less, in weighted shares of an aim a day."""
        return 0.0 if self.proved else max(self.score.missed - self.least_missed, 0.0)


@dataclass(frozen=True)
class Stage:
    """Sums that are made smaller together, in their order; `counted` are those that a week is
    proved by: the last of all only tells equal weeks apart."""

    levels: tuple[str, ...]
    counted: tuple[str, ...]
    words: str

    @property
    def missed(self) -> bool:
        """Whether it is what the days miss."""
        return self.levels == ("mouthfuls",)

    def objective(self, model: Model, now: Score) -> Any:
        """The sums as one, each of them before all that come after it, which are not let grow far
        beyond what they are now."""
        moved = 1 + 2 * len(model.week.slots)
        if self.missed:
            # of equal weeks the one that moves least
            return moved * model.missed + model.levels["moved"]
        most = {level: 2 * getattr(now, level) + ROOM for level in self.levels}
        out, weight = 0, 1
        for level in reversed(self.levels):
            if model.terms[level]:
                out = out + weight * model.levels[level]
                weight *= most[level] + 1
        return out if "moved" in self.levels else moved * out + model.levels["moved"]


STAGES = (
    Stage(("hard", "thrown"), ("hard", "thrown"), "limits, and nothing thrown away"),
    Stage(("mouthfuls",), ("mouthfuls",), "the days' targets"),
    Stage(
        ("frozen", "off", "moved", "same", "rest"),
        ("frozen", "off", "moved", "same"),
        "cooking days, variety and portions",
    ),
)

Tell = Callable[[Progress], bool]


def never_stop(_progress: Progress) -> bool:
    """Nobody stops it."""
    return False


def plan(
    week: Week,
    work: Work | None = None,
    tell: Tell = never_stop,
) -> Planning | None:
    """The best week within some work; None where nothing that may stand in a slot can be cooked in
    time. `tell` hears of each better week, and stops the search by answering True."""
    if work is None:
        again = all(slot.placed for slot in week.slots)
        work = Work.of(AGAIN_WORK if again else WEEK_WORK)
    found = _Search(week, work, tell).run()
    return None if found is None else _cleared(week, found)


def _cleared(week: Week, found: Planning) -> Planning:
    """The same without what its days would still be warned of: better an empty place than that.
    What is pinned stays, and is told."""
    planned = dict(found.planned)
    for day in found.warned:
        free = [slot.key for slot in week.slots_of(day) if not slot.pinned]
        while week.check(eaten_on(week, planned, day)) and any(planned[key] for key in free):
            # the one without which least is said; of equals the last of the day
            planned[_worst(week, planned, day, free)] = None
    if planned == found.planned:
        return found
    scored = score(week, planned)
    assert scored is not None
    return replace(
        found,
        planned=planned,
        score=scored,
        proved=False,
        warned=warnings_of(week, planned),
    )


def _worst(week: Week, planned: Planned, day: int, free: Sequence[str]) -> str:
    """The slot without which least is warned of on a day."""

    def said(key: str) -> int:
        return len(week.check(eaten_on(week, {**planned, key: None}, day)))

    there = [key for key in reversed(free) if planned[key] is not None]
    return min(there, key=said)


class _Search:
    def __init__(self, week: Week, work: Work, tell: Tell) -> None:
        self.week, self.work, self.tell = week, work, tell
        self.forbidden: list[frozenset[str]] = []
        alone = each_day_alone(week, work)
        self.least, self.least_hard, self.alone = alone.missed, alone.hard, alone.planned
        self.stopped = False
        self.best: tuple[Score, Planned] | None = None

    def _model(self) -> Model:
        model = Model(self.week)
        for keys in self.forbidden:
            model.forbid(keys)
        return model

    def run(self) -> Planning | None:
        answer: Planning | None = None
        for _ in range(MENDED):
            proved = self._search()
            if self.best is None:
                # without what its pages warn of there is no week: the one that was found says so
                return answer
            warned = warnings_of(self.week, self.best[1])
            answer = self._answer(proved and not self.forbidden, warned)
            together = [self._cause(day) for day in warned] if not self.stopped else []
            new = [keys for keys in together if keys and keys not in self.forbidden]
            if not new or self.work.left <= 0:
                return answer
            self.forbidden += new
            self.best = None
            self.work.size += self.work.size * MORE
        return answer

    def _answer(self, proved: bool, warned: Mapping[int, Sequence[str]]) -> Planning:
        assert self.best is not None
        return Planning(
            planned=self.best[1],
            score=self.best[0],
            proved=proved,
            least_missed=self.least,
            stopped=self.stopped or self.work.stopped,
            warned=warned,
        )

    def _cause(self, day: int) -> frozenset[str]:
        """The fewest things of a day that its page warns of together; nothing where one pinned
        alone does."""
        assert self.best is not None
        eaten = eaten_on(self.week, self.best[1], day)
        kept = list(eaten)
        for one in eaten:
            fewer = [other for other in kept if other is not one]
            if self.week.check(fewer):
                kept = fewer
        pinned = {
            slot.placed.candidate
            for slot in self.week.slots_of(day)
            if slot.pinned and slot.placed is not None
        }
        keys = frozenset(one.key for one, _count in kept)
        return frozenset() if keys <= pinned else keys

    def _better(self, planned: Planned | None, improving: str) -> bool:
        """Keep a week if it is better than the best until now."""
        if planned is None:
            return False
        found = score(self.week, planned)
        if found is None or (self.best is not None and not found < self.best[0]):
            return False
        self.best = found, planned
        share = min(self.work.spent / self.work.size, 1.0)
        if self.tell(Progress(share=share, planned=planned, score=found, improving=improving)):
            self.stopped = True
        return True

    def _solve(
        self, model: Model, objective: Any, size: float, fixed: Planned | None = None
    ) -> Found:
        """One call of the solver with so much work, from the best week until now."""
        part = Work(size=min(size, self.work.left), stop=self.work.stop)
        found = model.solve(objective, part, self.best[1] if self.best else None, fixed)
        self.work.settle(part)
        self.work.spent += CALL_WORK
        return found

    def _search(self) -> bool:
        """Look for the best week; whether it is proved."""
        self._begin()
        if self.best is None:
            return False
        model, proved = self._model(), True
        for stage in STAGES:
            if self.stopped or self.work.left <= 0:
                return False
            done = self._stage(model, stage)
            proved = proved and done
            for level in stage.levels:
                model.hold(level, self._value(level))
        return proved

    def _value(self, level: str) -> int:
        assert self.best is not None
        return int(getattr(self.best[0], level))

    def _at_bound(self, stage: Stage) -> bool:
        """Whether the sums of a stage are as small as they can be, whatever the week."""
        return all(self._value(level) <= self._bound(level) for level in stage.counted)

    def _bound(self, level: str) -> int:
        if level == "hard":
            return self.least_hard
        days = max(len({slot.day for slot in self.week.slots}), 1)
        return mouthfuls(self.least * days, days) if level == "mouthfuls" else 0

    def _begin(self) -> None:
        """A week to begin with: what is placed already, or every day as good as it can be by
        itself, which repeats itself where the days are alike."""
        own = {slot.key: slot.placed for slot in self.week.slots}
        if all(own.values()) and self._may_stand(own):
            self._better(own, "what is there")
            return
        model = self._model()
        fixed = {key: own.get(key) or one for key, one in self.alone.items()}
        if self._may_stand(fixed):
            self._better(fixed, "a first week")
        if self.best is None:
            self._better(self._solve(model, 0, self.work.left / 2).planned, "a first week")

    def _may_stand(self, planned: Planned) -> bool:
        """Whether a week is none that was excluded."""
        eaten = (eaten_on(self.week, planned, day) for day in range(self.week.days))
        days = [{one.key for one, _count in some} for some in eaten]
        return not any(keys <= day for keys in self.forbidden for day in days)

    def _stage(self, model: Model, stage: Stage) -> bool:
        """Make the sums of a stage smaller, a part of the week at a time, and then try to prove it;
        whether nothing is smaller."""
        assert self.best is not None
        objective = stage.objective(model, self.best[0])
        until = self.work.left * (1.0 - STAGE)
        parts = list(parts_of(self.week))
        at, in_vain = 0, 0
        while in_vain < len(parts) and self.work.left > until and not self.stopped:
            if stage.counted == stage.levels and self._at_bound(stage):
                return True
            free = parts[at % len(parts)]
            fixed = {key: one for key, one in self.best[1].items() if key not in free}
            found = self._solve(model, objective, STEP_WORK, fixed)
            in_vain = 0 if self._better(found.planned, stage.words) else in_vain + 1
            at += 1
        if self._at_bound(stage) or self.stopped or len(model.stands) > MOST_TO_PROVE:
            return self._at_bound(stage)
        found = self._solve(model, objective, self.work.left * PROOF)
        self._better(found.planned, stage.words)
        if found.planned is not None and stage.missed:
            days = max(len({slot.day for slot in self.week.slots}), 1)
            bound = found.bound / (1 + 2 * len(self.week.slots))
            self.least = max(self.least, bound / PER_AIM / days)
        return found.status == "optimal" or self._at_bound(stage)


def free_slots(week: Week) -> list[Slot]:
    """The slots that are not pinned and have something to choose."""
    return [slot for slot in week.slots if not slot.pinned and len(week.choices(slot)) > 1]


def parts_of(week: Week) -> Iterator[Collection[str]]:
    """Parts of a week that are made better at a time: one day, one kind of slot all week, two days
    in a row, the days between two cookings, two days that are apart."""
    days = sorted({slot.day for slot in week.slots})
    keys = {day: {slot.key for slot in week.slots_of(day)} for day in days}
    yield from keys.values()
    for meal, kind in dict.fromkeys((slot.meal, slot.kind) for slot in week.slots):
        yield {slot.key for slot in week.slots if (slot.meal, slot.kind) == (meal, kind)}
    for one, other in zip(days, days[1:], strict=False):
        yield keys[one] | keys[other]
    for group in between(week):
        if len(group) > 2:
            yield {slot.key for slot in week.slots if slot.day in group}
    for gap in (2, 3):
        for one, other in zip(days, days[gap:], strict=False):
            yield keys[one] | keys[other]


def between(week: Week) -> list[list[int]]:
    """The days of the week divided at the cook's days, none longer than what cooked food keeps."""
    longest = max((one.keeps for one in week.prepared if one.cooks), default=3) + 1
    groups: list[list[int]] = []
    for day in range(week.days):
        if not groups or day in week.cook_days or len(groups[-1]) >= longest:
            groups.append([])
        groups[-1].append(day)
    return groups


@dataclass(frozen=True, kw_only=True)
class Alone:
    """Each day by itself as good as it can be, cooking left out: what no week's hard limits are
    broken by less than, what no week misses less than, in weighted shares of an aim a day, and what
    stands in the slots then."""

    hard: int
    missed: float
    planned: dict[str, Choice | None]


def each_day_alone(week: Week, work: Work) -> Alone:
    """Each day by itself; days that are alike are looked at once."""
    known: dict[object, Found] = {}
    days = sorted({slot.day for slot in week.slots})
    hard, missed, planned = 0, 0.0, dict[str, Choice | None]()
    for day in days:
        slots = week.slots_of(day)
        alike = tuple(tuple(map(_as_key, week.choices(slot))) for slot in slots)
        if alike not in known:
            free = tuple(replace(one, placed=one.placed if one.pinned else None) for one in slots)
            model = Model(replace(week, slots=free, over_week=()), pots=False)
            part = Work(size=min(DAY_WORK, work.left * ALONE), stop=work.stop)
            found = model.solve(FIRST * model.levels["hard"] + model.missed, part)
            work.settle(part)
            work.spent += CALL_WORK
            known[alike] = replace(found, order=tuple(slot.key for slot in slots))
        found = known[alike]
        broken = max(found.bound, 0) // FIRST
        hard += broken
        # what is missed is bounded only where nothing can be broken less
        if broken == found.value // FIRST:
            missed += max(found.bound - broken * FIRST, 0) / PER_AIM
        for slot, key in zip(slots, found.order, strict=True):
            planned[slot.key] = (found.planned or {}).get(key)
    missed = missed / max(len(days), 1) + _short_whatever(week, days)
    return Alone(hard=hard, missed=missed, planned=planned)


def _short_whatever(week: Week, days: Sequence[int]) -> float:
    """What the week's averages are short of their leasts even with the most of each in every slot.
    In weighted shares of an aim a day."""
    candidates, out = week.by_key, 0.0
    for bound in bounds_of(week.over_week, week.density_g) if days else ():
        if bound.least:
            most = sum(
                max(
                    (
                        brings(candidates[choice.candidate], bound) * choice.count
                        for choice in week.choices(slot)
                    ),
                    default=0.0,
                )
                for slot in week.slots
            )
            mean = besides(week, bound) + most / len(days)
            out += bound.miss(mean) * bound.aim.weight
    return out


def _as_key(choice: Choice) -> tuple[str, float]:
    return choice.candidate, choice.count


def warnings_of(week: Week, planned: Planned) -> dict[int, Sequence[str]]:
    """What the page of each day would warn of, by day."""
    found = {
        day: week.check(eaten_on(week, planned, day))
        for day in sorted({slot.day for slot in week.slots})
    }
    return {day: said for day, said in found.items() if said}
