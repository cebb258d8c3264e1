"""Up to three different weeks, each with what it is better and worse at than the first."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace

from nutrition.planning.cooking import Cooked, cookings
from nutrition.planning.score import Missed, misses
from nutrition.planning.search import (
    Planning,
    Progress,
    Tell,
    free_slots,
    never_stop,
    plan,
)
from nutrition.planning.week import Planned, Week
from nutrition.portions.work import Work

MOST_WEEKS = 3
# Another week has something else in this share of its free slots. Common practice, no source.
DIFFERENT = 0.25
# ... and is offered only if it misses no more than this beyond the first, in weighted shares of an
# aim a day.
MISSED_MORE = 1.0
# What another week may take. [s, as work is counted]
OTHER_WORK = 3.5


@dataclass(frozen=True, kw_only=True)
class PlannedWeek:
    """A week that is offered, with its pots and what its days miss. `differs` is in how many slots
    it has something else than the first."""

    planning: Planning
    pots: tuple[Cooked, ...]
    missed: tuple[Missed, ...]
    differs: int = 0

    @property
    def planned(self) -> Planned:
        return self.planning.planned


def weeks(
    week: Week, most: int = MOST_WEEKS, work: Work | None = None, tell: Tell = never_stop
) -> list[PlannedWeek]:
    """Up to so many weeks, the best first; none where nothing can be planned. What is placed counts
    for the first alone: the others do without what those before are made of most, and stay with
    what is pinned."""
    told = _Listening(tell)
    first = plan(week, work, told)
    if first is None:
        return []
    out = [_offered(week, first, [])]
    enough = len(free_slots(week)) * DIFFERENT
    loose = replace(
        week, slots=tuple(one if one.pinned else replace(one, placed=None) for one in week.slots)
    )
    while len(out) < most and not told.stopped and not first.stopped:
        other = _without_the_usual(loose, [one.planned for one in out])
        found = plan(other, Work.of(OTHER_WORK), told) if other is not None else None
        if found is None or found.warned or found.score.hard > first.score.hard:
            break
        if found.score.missed > first.score.missed + MISSED_MORE:
            break
        offered = _offered(week, found, out)
        if offered.differs < enough:
            break
        out.append(offered)
    return out


def _without_the_usual(week: Week, before: Sequence[Planned]) -> Week | None:
    """The week without the dish of each kind that the weeks before have most of, where there are
    others; None where there is nothing else anywhere."""
    gone: dict[str, set[str]] = {}
    for kind in dict.fromkeys(slot.kind for slot in week.slots if not slot.pinned):
        there = [one.key for one in week.candidates if kind in one.kinds]
        used = Counter(
            choice.candidate
            for planned in before
            for slot in week.slots
            if slot.kind == kind and (choice := planned.get(slot.key)) is not None
        )
        usual = [key for key, _count in used.most_common(len(before)) if key in there]
        gone[kind] = set(usual[: max(len(there) - 1, 0)])
    if not any(gone.values()):
        return None
    return replace(
        week,
        candidates=tuple(
            replace(
                one,
                kinds=frozenset(kind for kind in one.kinds if one.key not in gone.get(kind, ())),
            )
            for one in week.candidates
        ),
    )


class _Listening:
    """Hears of each better week, and remembers that it was told to stop."""

    def __init__(self, tell: Tell) -> None:
        self.tell, self.stopped = tell, False

    def __call__(self, progress: Progress) -> bool:
        self.stopped = self.tell(progress) or self.stopped
        return self.stopped


def _offered(week: Week, planning: Planning, before: Sequence[PlannedWeek]) -> PlannedWeek:
    pots = cookings(week, planning.planned) or []
    differs = 0
    if before:
        first = before[0].planned
        differs = sum(
            1 for slot in week.slots if _what(first, slot.key) != _what(planning.planned, slot.key)
        )
    return PlannedWeek(
        planning=planning,
        pots=tuple(pots),
        missed=tuple(misses(week, planning.planned)),
        differs=differs,
    )


def _what(planned: Planned, slot: str) -> str:
    choice = planned.get(slot)
    return choice.candidate if choice else ""
