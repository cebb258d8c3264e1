"""The best week within some work, by an order of what counts: a first one that keeps the rotation,
then a few days or one meal at a time made better, sum by sum; and what is proved of it."""

# Whole: one search; its steps share the best week so far and the work that is left.

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from nutrition.planning.construction import constructed
from nutrition.planning.day_warnings import Warnings, warnings_of
from nutrition.planning.model import Found, Model
from nutrition.planning.orders import NEAREST, Order, Stage
from nutrition.planning.score import Score, score
from nutrition.planning.week import Planned, Week
from nutrition.portions.work import Work

# What a week may take, its first one, its dishes in other portions, a step of it, and a call of the
# solver whatever it does. [s, as work is counted]
WEEK_WORK, FIRST_WORK, SAME_WORK, STEP_WORK, CALL_WORK = 10.0, 1.0, 1.0, 0.25, 0.05
# ... and one that is planned already, and only changes. [s, as work is counted]
AGAIN_WORK = 1.5
# Sums for which something may be added, where the dishes alone are not enough.
LEAST_WITHOUT = frozenset({"starved", "leading"})
# The share of what is left that each stage may take, dishes alone, and proving it.
STAGE, ALONE, PROOF = 0.5, 0.2, 0.4
# Of more choices than this nothing is proved.
MOST_TO_PROVE = 600
# A sum that comes after another may grow to twice what it is and so much.
ROOM = 100
# So often a first week whose own pages would warn is mended, and a part of the week looked at again
# where what was found for it would be warned of.
MENDED, WARNED_AGAIN = 8, 4


@dataclass(frozen=True, kw_only=True)
class Progress:
    """How far the search is [0 to 1], and the best week until now by an order."""

    share: float
    planned: Planned
    score: Score
    improving: str
    order: Order


@dataclass(frozen=True, kw_only=True)
class Planning:
    """What the search found. `proved` are the sums of which it is proved that no week is better by
    them, and by all before them: all of them where the whole week is. `stopped`: it was stopped, or
    the clock cut it short. `warned` are the days whose page would still warn, by day."""

    planned: Planned
    score: Score
    order: Order = NEAREST
    proved: tuple[str, ...] = ()
    stopped: bool = False
    warned: Mapping[int, Sequence[str]] = field(default_factory=dict)

    @property
    def best(self) -> bool:
        """Whether no week is better by what counts, but for what is a matter of taste."""
        return set(self.proved) >= set(self.order.levels) - set(self.order.open)


Tell = Callable[[Progress], bool]


def never_stop(_progress: Progress) -> bool:
    """Nobody stops it."""
    return False


def plan(
    week: Week,
    work: Work | None = None,
    tell: Tell = never_stop,
    order: Order = NEAREST,
    start: Planned | None = None,
    within: Mapping[str, int] | None = None,
) -> Planning | None:
    """The best week by an order within some work, from `start` on where there is one, of those
    whose sums are `within` some bounds; None where nothing that may stand in a slot can be cooked
    in time. `tell` hears of each better week, and stops the search by answering True."""
    if work is None:
        again = all(slot.placed for slot in week.slots if not slot.optional)
        work = Work.of(AGAIN_WORK if again else WEEK_WORK)
    search = _Search(week, work, tell, order)
    for level, most in (within or {}).items():
        search.model.hold(level, most)
    found = search.run(start)
    return None if found is None else _cleared(week, found)


def _cleared(week: Week, found: Planning) -> Planning:
    """The same without what its days would still be warned of: better an empty place than that.
    What is pinned stays, and is told; so is a day of which too little is the matter."""
    planned, warnings = dict(found.planned), Warnings(week)
    for day in found.warned:
        free = [slot.key for slot in week.slots_of(day) if not slot.pinned]
        while warnings.too_much(planned, day) and any(planned[key] for key in free):
            # the one without which least is said; of equals the last of the day
            there = [key for key in reversed(free) if planned[key] is not None]
            said = {key: len(warnings.on({**planned, key: None}, day)) for key in there}
            planned[min(there, key=lambda key: said[key])] = None
    if planned == found.planned:
        return found
    scored = score(week, planned)
    assert scored is not None
    return replace(
        found, planned=planned, score=scored, proved=(), warned=warnings_of(week, planned)
    )


class _Search:
    def __init__(self, week: Week, work: Work, tell: Tell, order: Order) -> None:
        self.week, self.work, self.tell, self.order = week, work, tell, order
        self.model = Model(week)
        self.forbidden: set[frozenset[tuple[str, float]]] = set()
        self.warnings = Warnings(week)
        self.stopped = False
        self.best: tuple[int, Score, Planned] | None = None
        # of all variables of the model, for the best week
        self.values: tuple[int, ...] = ()

    def run(self, start: Planned | None) -> Planning | None:
        self._begin(start)
        if self.best is None:
            return None
        proved: list[str] = []
        for stage in self.order.stages:
            if self.stopped or self.work.left <= 0:
                break
            # what is added is thought of only where the dishes alone are not enough
            plain = not LEAST_WITHOUT.isdisjoint(stage.levels) and not self._at_zero(stage)
            done = self._stage(stage, without=True) if plain else False
            done = done or self._stage(stage)
            if done and len(proved) == self._before(stage) and not self.forbidden:
                proved += stage.levels
            for level in stage.levels:
                self.model.hold(level, self._value(level))
        return Planning(
            planned=self.best[2],
            score=self.best[1],
            order=self.order,
            proved=tuple(proved),
            stopped=self.stopped or self.work.stopped,
            warned=warnings_of(self.week, self.best[2]),
        )

    def _before(self, stage: Stage) -> int:
        """How many sums come before a stage."""
        return self.order.levels.index(stage.levels[0])

    def _found(self, found: Found, improving: str) -> bool:
        """Keep what a call of the solver found, if it is better."""
        if not self._better(found.planned, improving):
            return False
        self.values = found.values
        return True

    def _better(self, planned: Planned | None, improving: str) -> bool:
        """Keep a week if it is better than the best until now: fewer days that their pages would
        warn of, or a better score."""
        if planned is None:
            return False
        found = score(self.week, planned)
        if found is None:
            return False
        warned = self._warned(planned)
        mine = (warned, found.by(self.order.levels))
        if self.best is not None and mine >= (self.best[0], self.best[1].by(self.order.levels)):
            return False
        self.best = warned, found, planned
        share = min(self.work.spent / self.work.size, 1.0)
        progress = Progress(
            share=share, planned=planned, score=found, improving=improving, order=self.order
        )
        if self.tell(progress):
            self.stopped = True
        return True

    def _warned(self, planned: Planned) -> int:
        """How many days their pages would warn of; what is behind it is not planned together
        again."""
        days = self.warnings.of(planned)
        for day in days:
            together = self.warnings.cause(planned, day)
            said = frozenset(together.items())
            if said and said not in self.forbidden:
                self.forbidden.add(said)
                self.model.forbid(together)
        return len(days)

    def _solve(
        self, objective: Any, size: float, fixed: Planned | None = None, portions: bool = False
    ) -> Found:
        """One call of the solver with so much work, from the best week until now."""
        part = Work(size=min(size, self.work.left), stop=self.work.stop)
        found = self.model.solve(objective, part, self.values, fixed, portions)
        self.work.settle(part)
        self.work.spent += CALL_WORK
        return found

    def _value(self, level: str) -> int:
        assert self.best is not None
        return int(getattr(self.best[1], level))

    def _begin(self, start: Planned | None) -> None:
        """A week to begin with: what was found before, what is placed already, or any that keeps
        the rotation."""
        own = {slot.key: slot.placed for slot in self.week.slots}
        if start is not None:
            self._better(start, "a first week")
        elif all(own[slot.key] for slot in self.week.slots if not slot.optional):
            self._better(own, "what is there")
        else:
            self._better(constructed(self.week), "a first week")
        objective = 1000 * self.model.levels["pattern"] + self.model.levels["added"]
        if self.best is not None:
            # the same week, with the pots that the model cooks for it
            self.values = self._solve(objective, FIRST_WORK, self.best[2]).values
        tries = 0
        while (self.best is None or self.best[0]) and tries < MENDED and self.work.left > 0:
            before = len(self.forbidden)
            found = self._solve(objective, FIRST_WORK)
            kept = self._found(found, "a first week")
            if found.planned is None or (not kept and len(self.forbidden) == before):
                return
            tries += 1

    def _stage(self, stage: Stage, without: bool = False) -> bool:
        """Make the sums of a stage smaller, a part of the week at a time, and then try to prove it;
        whether nothing is smaller. `without` leaves what is optional as it is."""
        assert self.best is not None
        objective = self._objective(stage)
        until = self.work.left * (1.0 - (ALONE if without else STAGE))
        optional = {slot.key for slot in self.week.slots if slot.optional}
        kept = optional if without else set()
        parts = [free for part in parts_of(self.week) if (free := set(part) - kept)]
        at, in_vain, again = 0, 0, 0
        if stage == self.order.stages[0] and not self._at_zero(stage):
            # where a rule must give way a look at the whole says so sooner than all its parts
            whole = self._solve(objective, FIRST_WORK)
            self._found(whole, stage.words)
            if whole.status == "optimal":
                return True
        # the same dishes in other portions, and what is added to them, cost next to nothing
        same = {key: one for key, one in self.best[2].items() if without or key not in optional}
        found = self._solve(objective, SAME_WORK, same, portions=True)
        self._found(found, stage.words)
        while in_vain < len(parts) and self.work.left > until and not self.stopped:
            if self._at_zero(stage):
                return True
            free = parts[at % len(parts)]
            fixed = {key: one for key, one in self.best[2].items() if key not in free}
            before = len(self.forbidden)
            found = self._solve(objective, STEP_WORK, fixed)
            better = self._found(found, stage.words)
            if not better and len(self.forbidden) > before and again < WARNED_AGAIN:
                # a page would have warned of it: the same part, now that this is known
                again += 1
                continue
            in_vain, again = 0 if better else in_vain + 1, 0
            at += 1
        hopeless = without or self.stopped or len(self.model.stands) > MOST_TO_PROVE
        if self._at_zero(stage) or hopeless:
            return self._at_zero(stage)
        found = self._solve(objective, self.work.left * PROOF)
        self._found(found, stage.words)
        return found.status == "optimal" or self._at_zero(stage)

    def _at_zero(self, stage: Stage) -> bool:
        """Whether the sums of a stage are as small as sums can be."""
        return not any(self._value(level) for level in stage.levels)

    def _objective(self, stage: Stage) -> Any:
        """The sums as one, each of them before all that come after it, which are not let grow far
        beyond what they are now; of equal weeks the one that moves least."""
        out, weight = 0, 1
        levels = stage.levels if "moved" in self._until(stage) else (*stage.levels, "moved")
        for level in reversed(levels):
            if self.model.terms[level]:
                out = out + weight * self.model.levels[level]
                weight *= 2 * self._value(level) + ROOM + 1
        return out

    def _until(self, stage: Stage) -> tuple[str, ...]:
        """The sums of a stage and all before it."""
        return self.order.levels[: self._before(stage) + len(stage.levels)]


def parts_of(week: Week) -> Iterator[Collection[str]]:
    """Parts of a week that are made better at a time: one kind of slot all week, two days
    in a row, the days between two cookings, one meal all week, two days that are apart."""
    days = week.planned_days
    keys = {day: {slot.key for slot in week.slots_of(day)} for day in days}
    for meal, kind in dict.fromkeys((slot.meal, slot.kind) for slot in week.slots):
        yield {slot.key for slot in week.slots if (slot.meal, slot.kind) == (meal, kind)}
    for one, other in zip(days, days[1:], strict=False):
        yield keys[one] | keys[other]
    for group in between(week):
        if len(group) > 2:
            yield {slot.key for slot in week.slots if slot.day in group}
    for meal in dict.fromkeys(slot.meal for slot in week.slots):
        yield {slot.key for slot in week.slots if slot.meal == meal}
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
