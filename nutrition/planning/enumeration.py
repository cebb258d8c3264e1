"""Every week tried, where there are few: what the search is held against."""

from __future__ import annotations

from itertools import product
from math import prod

from nutrition.planning.score import Score, score
from nutrition.planning.week import Choice, Planned, Week

# So many weeks are tried at most.
MOST_WEEKS = 300_000


def can_try_all(week: Week) -> bool:
    """Whether there are few enough weeks to try them all."""
    return prod(max(len(week.choices(slot)), 1) for slot in week.slots) <= MOST_WEEKS


def best_of_all(week: Week) -> tuple[Planned, Score] | None:
    """The first of the best weeks among all; None where nothing can be cooked in time."""
    best: tuple[Planned, Score] | None = None
    keys = [slot.key for slot in week.slots]
    each: list[list[Choice | None]] = [[*week.choices(slot)] or [None] for slot in week.slots]
    for choices in product(*each):
        planned: Planned = dict(zip(keys, choices, strict=True))
        found = score(week, planned)
        if found is not None and (best is None or found < best[1]):
            best = planned, found
    return best
