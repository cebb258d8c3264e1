"""What a hint would close better than the proposals is proposed: on top of the last of them one
more part larger than a cook would make it first, or something that is not there yet."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import replace

import numpy as np

from nutrition.composition.portion import Portion
from nutrition.portions.added_to_a_meal import that_fit
from nutrition.portions.judge import Judge
from nutrition.portions.problem import Problem, totals
from nutrition.portions.proposals import (
    CLEARED,
    CLOSES_MORE,
    MORE,
    ONE,
    TWO,
    WHOLLY,
    Balanced,
    proposal_of,
)
from nutrition.portions.smallest_changes import best_single

FURTHER = "A step further"
# What is judged as no meal and has so many parts is a day.
PARTS_OF_A_DAY = 7
# No more than so many changes on top of what is proposed of a meal; of a whole day, where each is
# worth half as much, so many; and of what is there no more than so many times its most. Common
# practice, no source.
MOST_FURTHER, MOST_OF_A_DAY, LARGER = 2, 4, 1.5


Allowed = Callable[[Problem, Mapping[str, float]], bool]


def furthered(
    found: Balanced, pantry: Sequence[Portion], may: Allowed = lambda problem, grams: True
) -> Balanced:
    """With one proposal more, where one change on top of the last closes enough of what is missed,
    or two do. `pantry` are foods that may be added, and `may` says of a problem's portions [g]
    whether they may be proposed: the change after the best takes the place of one that may not."""
    problem, answer, gap = found.problem, found.answer, found.gap
    closed = found.told[-1].closes if found.told else 0.0
    before, grams = closed, dict(answer.portions)
    moved: set[str] = set()
    of_day = not problem.meal and len(problem.parts) >= PARTS_OF_A_DAY
    worth = CLOSES_MORE / 2 if of_day else CLOSES_MORE
    for _ in range(MOST_OF_A_DAY if of_day else MOST_FURTHER):
        step = _that_may(problem, grams, pantry, moved, may)
        if step is None:
            break
        wider, after, left = step
        closes = 1.0 - left / gap if gap > CLEARED else 0.0
        # the little that is left is worth more of what is there, and nothing new
        new = len(wider.parts) > len(problem.parts)
        if closes < before + worth and (new or not before < WHOLLY < closes):
            break
        moved |= {key for key, one in after.items() if one != grams.get(key)}
        problem, grams, before = wider, after, closes
    if grams == answer.portions:
        return found
    judge = Judge(problem)
    way = judge.way_to(grams)
    last = found.told[-1] if found.told else None
    few = int((way != 0).sum())
    name = FURTHER if last is not None else {1: ONE, 2: TWO}.get(few, MORE)
    one = proposal_of(name, judge, way, False, last.because if last else (), before)
    if last is not None and last.cut is not None:
        one = replace(one, cut=last.cut, sentence=f"{last.cut.said} {one.sentence}")
    return replace(found, told=(*found.told, one), problem=problem)


def _that_may(
    problem: Problem,
    grams: dict[str, float],
    pantry: Sequence[Portion],
    stay: Collection[str],
    may: Allowed,
) -> tuple[Problem, dict[str, float], float] | None:
    """The best change that may be proposed; None where there is none."""
    barred: set[str] = set()
    while True:
        left = [food for food in pantry if food.key not in barred]
        step = _one_more(problem, grams, left, {*stay, *barred})
        if step is None or may(*step[:2]):
            return step
        barred |= {key for key, one in step[1].items() if one != grams.get(key)}


def _one_more(
    problem: Problem, grams: dict[str, float], pantry: Sequence[Portion], stay: Collection[str]
) -> tuple[Problem, dict[str, float], float] | None:
    """The problem with the one part that helps most as it may be then, all portions [g], and what
    is left of the miss; None where nothing helps or nothing is missed. What is
    to `stay` is not moved."""
    more = that_fit(problem, grams, pantry, _is_short(problem, grams))
    parts = [
        _wider(replace(part, locked=part.locked or part.key in stay), grams[part.key])
        for part in problem.parts
    ]
    asked = replace(problem, parts=tuple(parts))
    for food in more:
        asked = asked.with_part(food)
    judge = Judge(asked)
    way = best_single(judge) if judge.gap > CLEARED and len(judge.grid.free) else None
    if way is None or not way.any() or not judge.left(way) < judge.gap:
        return None
    after = judge.portions(way)
    moved = judge.grid.free[int(np.flatnonzero(way)[0])]
    own = next((part for part in problem.parts if part.key == moved.key), None)
    part = moved if own is None else _as_wide(own, after[own.key])
    wider = problem.with_part(part)
    kept = {part.key: after[part.key] for part in wider.parts}
    return wider, kept, _left(wider, kept)


def _is_short(problem: Problem, grams: dict[str, float]) -> bool:
    """Whether protein is missed."""
    known = totals(problem, grams)
    return any(aim.miss(known[aim.key]) < 0 for aim in problem.aims if aim.key == "protein_g")


def _left(problem: Problem, grams: dict[str, float]) -> float:
    judge = Judge(problem)
    return judge.left(judge.way_to(grams))


def _wider(part: Portion, grams: float) -> Portion:
    """A part from where it is now, up to what a hint would make of it; nothing gets smaller."""
    limits = part.limits
    if part.locked:
        return replace(part, grams=grams)
    most = max(min(limits.most * LARGER, limits.ceiling), grams)
    if limits.last or limits.stated:
        most = max(limits.most, grams)
    return replace(part, grams=grams, star=False, limits=replace(limits, least=grams, most=most))


def _as_wide(part: Portion, grams: float) -> Portion:
    return part.within(most=max(part.limits.most, grams))
