"""Up to three different weeks, each with what it is better and worse at than the first."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from nutrition.planning.cooking import Cooked, cookings
from nutrition.planning.score import Missed, misses
from nutrition.planning.search import (
    AGAIN_WORK,
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
DIFFERENT = 0.35
# ... and is offered only if it misses no more mouthfuls a day than this beyond the first.
MISSED_MORE = 0.25


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
    for the first alone: the others are to be different."""
    told = _Listening(tell)
    first = plan(week, work, told)
    if first is None:
        return []
    out = [_offered(week, first, [])]
    apart = max(round(len(free_slots(week)) * DIFFERENT), 1)
    loose = replace(
        week, slots=tuple(one if one.pinned else replace(one, placed=None) for one in week.slots)
    )
    while len(out) < most and not told.stopped and not first.stopped:
        found = plan(
            loose, Work.of(AGAIN_WORK), told, [one.planned for one in out], differ_by=apart
        )
        if found is None or found.warned or found.score.hard > first.score.hard:
            break
        if found.score.missed > first.score.missed + MISSED_MORE:
            break
        out.append(_offered(week, found, out))
    return out


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
