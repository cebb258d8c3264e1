"""Every week tried, where there are few: what the search is held against."""

from __future__ import annotations

from itertools import product
from math import prod

from nutrition.planning.orders import NEAREST, Order
from nutrition.planning.score import Score, score
from nutrition.planning.week import Choice, Planned, Week

# So many weeks are tried at most.
MOST_WEEKS = 300_000


def can_try_all(week: Week) -> bool:
    """Whether there are few enough weeks to try them all."""
    sizes = (max(len(week.choices(slot)) + slot.optional, 1) for slot in week.slots)
    return prod(sizes) <= MOST_WEEKS


def best_of_all(week: Week, order: Order = NEAREST) -> tuple[Planned, Score] | None:
    """The first of the best weeks among all by an order; None where nothing can be cooked in
    time."""
    best: tuple[Planned, Score] | None = None
    keys = [slot.key for slot in week.slots]
    each: list[list[Choice | None]] = [
        [*week.choices(slot), None] if slot.optional else [*week.choices(slot)] or [None]
        for slot in week.slots
    ]
    for choices in product(*each):
        planned: Planned = dict(zip(keys, choices, strict=True))
        found = score(week, planned)
        if found is not None and (
            best is None or found.by(order.levels) < best[1].by(order.levels)
        ):
            best = planned, found
    return best
