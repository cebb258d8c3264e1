"""Up to three weeks that really differ: nearest to the targets, least cooking, most variety; each
with what it gives up for what."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from nutrition.planning.bounds import Missed, misses, starved_days
from nutrition.planning.cooking import Cooked, cookings
from nutrition.planning.orders import LEAST_COOKING, MOST_VARIETY, NEAREST, Order
from nutrition.planning.rotation import Broken, broken
from nutrition.planning.score import score
from nutrition.planning.search import Planning, Progress, Tell, never_stop, plan
from nutrition.planning.trades import Trade, trades
from nutrition.planning.week import Planned, Week
from nutrition.portions.work import Work

MOST_WEEKS = 3
# What another week may take. [s, as work is counted]
OTHER_WORK = 3.0
# ... and by how many fiftieths of an aim a day its energy and protein may be further off. Common
# practice, no source.
FURTHER = 4
# Another week is offered only if it has less to cook, or more different dishes, than those before.
BY_WHAT = {LEAST_COOKING.name: ("off", "pots"), MOST_VARIETY.name: ("again",)}


@dataclass(frozen=True, kw_only=True)
class PlannedWeek:
    """A week that is offered, with its pots, what its days miss and the rules that gave way.
    `starved` are the days that are no plan, with what is missing of their least energy [kcal].
    `gives` is how it differs from the first. `also` is what else it is the best for, by name: no
    other week was found that is better at it."""

    planning: Planning
    pots: tuple[Cooked, ...]
    missed: tuple[Missed, ...]
    starved: Mapping[int, float]
    gave_way: tuple[Broken, ...] = ()
    gives: tuple[Trade, ...] = ()
    also: tuple[str, ...] = ()

    @property
    def planned(self) -> Planned:
        return self.planning.planned

    @property
    def name(self) -> str:
        """What it was made for."""
        return self.planning.order.name

    @property
    def draft(self) -> bool:
        """Whether it is no plan yet: a day of it starves, or its page would warn."""
        return bool(self.starved or self.planning.warned)


def weeks(
    week: Week, most: int = MOST_WEEKS, work: Work | None = None, tell: Tell = never_stop
) -> list[PlannedWeek]:
    """Up to so many weeks, the nearest first; none where nothing can be planned. What is placed
    counts for the nearest alone, what is pinned for all."""
    told = _Listening(tell)
    first = plan(week, work, told)
    if first is None:
        return []
    loose = replace(
        week, slots=tuple(one if one.pinned else replace(one, placed=None) for one in week.slots)
    )
    others = []
    for order in (LEAST_COOKING, MOST_VARIETY)[: most - 1]:
        if told.stopped or first.stopped:
            break
        bound = {"leading": first.score.leading + FURTHER}
        found = plan(loose, Work.of(OTHER_WORK), told, order, first.planned, bound)
        others += [] if found is None else [found]
    first = _nearest(week, [first, *others])
    out, also = [offered(week, first)], []
    for found in others:
        if _is_another(found.order, found, out):
            out.append(offered(week, found))
        elif found.score.hard <= first.score.hard:
            also.append(found.order.name)
    return _compared(week, out, tuple(also))


def _nearest(week: Week, found: Sequence[Planning]) -> Planning:
    """The nearest of some weeks: one that was made for something else may have come nearer still,
    and then nothing is proved of it."""
    first = found[0]
    for one in found[1:]:
        scored = score(week, one.planned)
        if scored is None or len(one.warned) > len(first.warned):
            continue
        if scored.by(NEAREST.levels) < first.score.by(NEAREST.levels):
            first = replace(one, score=scored, order=NEAREST, proved=())
    return first


def _is_another(order: Order, found: Planning, before: Sequence[PlannedWeek]) -> bool:
    """Whether it is better at what it was made for than all before, and no worse by what people
    are safe with or would eat."""
    first, what = before[0].planning, BY_WHAT[order.name]
    if len(found.warned) > len(first.warned):
        return False
    # what people would not eat gladly or be safe with is no price for it
    people = ("hard", "pattern", "starved")
    if found.score.by(people) > first.score.by(people):
        return False
    return all(found.score.by(what) < one.planning.score.by(what) for one in before)


def _compared(week: Week, found: list[PlannedWeek], also: tuple[str, ...]) -> list[PlannedWeek]:
    first = replace(found[0], also=also)
    others = [
        replace(
            one, gives=tuple(trades(week, (one.planned, one.pots), (first.planned, first.pots)))
        )
        for one in found[1:]
    ]
    return [first, *others]


class _Listening:
    """Hears of each better week, and remembers that it was told to stop."""

    def __init__(self, tell: Tell) -> None:
        self.tell, self.stopped = tell, False

    def __call__(self, progress: Progress) -> bool:
        self.stopped = self.tell(progress) or self.stopped
        return self.stopped


def offered(week: Week, planning: Planning) -> PlannedWeek:
    """A week with what is told of it."""
    planned = planning.planned
    return PlannedWeek(
        planning=planning,
        pots=tuple(cookings(week, planned) or []),
        missed=tuple(misses(week, planned)),
        gave_way=tuple(broken(week, planned)),
        starved=starved_days(week, planned),
    )
