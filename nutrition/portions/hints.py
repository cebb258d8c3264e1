"""The single changes that would help where portions cannot meet the targets: what a person would
say first at the head, a looser target at the end.

Every hint was solved again before it is given: what it promises is what came out.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from nutrition.composition.amounts import DENSITY
from nutrition.composition.foods import Food
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Portion, food_portion
from nutrition.portions.obstacles import SOLVE_WORK, least_missed, total
from nutrition.portions.problem import Grid, Problem, name_of
from nutrition.portions.solver import SCALE, Answer, Model, total_of
from nutrition.portions.work import Work
from nutrition.targets.aim import SLACK, Aim
from nutrition.written.wording import uncapitalized

# A larger part is tried up to so many times its most, and up to so many times what a cook serves; a
# hint must take away at least this share of the misses.
LARGER, LARGER_SERVED, HELPS = 2.0, 1.5, 0.1
# Where no hard limit is broken a cook is not told of misses that come to less than this.
SHRUGGED_OFF = 0.02
# Misses that come to less than this, each over its aim, are none.
CLEARED = 1e-4
MOST_HINTS = 6


@dataclass(frozen=True, kw_only=True)
class Hint:
    """One change that would help. `kind`: "vessel" (a larger one), "less" (of a part than it may
    be), "instead" (another form of it), "larger" (a part's most), "add" (a food), "loosen" (a
    target); `to` is its new figure [g, mL or the key's unit], and `violation` what the misses then
    come to."""

    kind: str
    id: str
    to: float
    violation: float
    words: str

    @property
    def clears(self) -> bool:
        """Whether nothing is missed with it."""
        return self.violation < CLEARED


Instead = Callable[[Food], Sequence[tuple[Food, float]]]
# What a person would say first: less of what is too much, or a form of it with less, then more of
# what is there, something added, and a looser target last.
SAID_FIRST = ("vessel", "less", "instead", "larger", "add", "loosen")
# What takes the place of a part that must not be there is as much of it, or so much less.
STANDS_IN_SHARES = (1.0, 0.75, 0.5)
# Of so many parts that bring most of what is too much less is tried; to these shares of them.
MOST_LESS, LESS_SHARES = 3, (0.75, 0.5, 1 / 3, 0.25, 0.0)


def hints(
    problem: Problem,
    answer: Answer,
    pantry: Sequence[Portion] = (),
    instead: Instead | None = None,
    stand_in: Instead | None = None,
) -> list[Hint]:
    """The single changes that help most, each solved again, what a person would say first at the
    head and a looser target at the end.

    `pantry` are foods that may be added, with their sensible portions; `instead` gives other forms
    of a food that bring less of something, with grams for each gram, and `stand_in` what may take
    the place of one that must not be there.
    """
    before, room = _gap(problem, answer), _vessel(problem, answer)
    enough = SHRUGGED_OFF if problem.cooks and not _hard(problem, answer) else SLACK
    own = {part.key: part.grams for part in problem.parts}
    if problem.cooks:
        # one change on top of what is proposed, and nothing else moves
        problem = _as_answered(problem, answer)
    replaced = _replaced(problem, own, before, stand_in) if stand_in is not None else []
    if before <= enough:
        return [*room, *replaced]
    found = [
        *room,
        *_less(problem, answer, before, instead),
        *_larger(problem, answer, before, LARGER_SERVED if problem.cooks else LARGER),
        *_added(problem, before, pantry),
    ]
    by_help = sorted(
        found, key=lambda hint: (round(hint.violation, 3), SAID_FIRST.index(hint.kind))
    )
    kept = by_help[: MOST_HINTS - 1]
    # less of the part that brings it is said first wherever it helps at all
    kept.sort(key=lambda hint: (SAID_FIRST.index(hint.kind) > 2, round(hint.violation, 3)))
    loose = sorted(_loosened(problem, answer), key=lambda hint: round(hint.violation, 6))
    return [*replaced, *kept, *loose][:MOST_HINTS]


def _replaced(
    problem: Problem, own: Mapping[str, float], before: float, stand_in: Instead
) -> list[Hint]:
    """What may take the place of parts that must not be there, for each the first that a cook would
    name. `own` are the practitioner's portions. [g]"""
    out = []
    for part in problem.parts:
        gone = part.limits.most <= 0 < own[part.key]
        if not gone or part.locked or part.food is None:
            continue
        now = own[part.key]
        for share in STANDS_IN_SHARES:
            ways = (
                _instead(problem, part, now * share, food, ratio)
                for food, ratio in stand_in(part.food)
            )
            fits = next((one for one in ways if one.violation <= before + SHRUGGED_OFF), None)
            if fits is not None:
                out.append(fits)
                break
    return out


def _instead(asked: Problem, part: Portion, grams: float, food: Food, ratio: float) -> Hint:
    """A food in a part's place, at so many grams for each of its own. [g]"""
    grams *= ratio
    whole = food_portion(food, grams, key=part.key, role=part.role)
    other = replace(whole, locked=True, star=part.star)
    _steps, after = least_missed(asked.with_part(other))
    words = f"{uncapitalized(food.name)} instead of {uncapitalized(part.name)}, {grams:.3g} g"
    return Hint(kind="instead", id=part.key, to=grams, violation=after, words=words)


def _as_answered(problem: Problem, answer: Answer) -> Problem:
    """The problem with every part at its portion in the answer."""
    parts = []
    for part in problem.parts:
        grams = answer.portions[part.key]
        limits = replace(part.limits, least=grams, most=grams)
        parts.append(replace(part, grams=grams, limits=limits, star=False))
    return replace(problem, parts=tuple(parts))


def _vessel(problem: Problem, answer: Answer) -> list[Hint]:
    """A vessel that holds what there is, where this one does not. [mL]"""
    ml = sum(part.ml_per_gram * answer.portions[part.key] for part in problem.parts)
    if problem.vessel_ml is None or ml <= problem.vessel_ml * (1 + SLACK):
        return []
    free = replace(_as_answered(problem, answer), vessel_ml=None)
    to = math.ceil(ml / 50.0) * 50.0
    words = f"a larger bowl: {to:,.0f} mL instead of {problem.vessel_ml:,.0f} mL"
    return [Hint(kind="vessel", id="vessel", to=to, violation=least_missed(free)[1], words=words)]


def _less(problem: Problem, answer: Answer, before: float, instead: Instead | None) -> list[Hint]:
    """Less of the parts that bring most of what is too much, below what they may be; or another
    form of them."""
    out: list[Hint] = []
    asked = _soft(problem)
    tried: set[str] = set()
    for aim in problem.aims:
        if aim.miss(answer.totals[aim.key], answer.at_most[aim.key]) <= 0 or aim.key == DENSITY:
            continue
        bring = [
            (part.at_most(aim.key) * answer.portions[part.key], part)
            for part in problem.parts
            if answer.portions[part.key] > 0 and not part.locked
        ]
        for _amount, part in sorted(bring, key=lambda row: -row[0])[:MOST_LESS]:
            now = answer.portions[part.key]
            if part.key in tried or now > part.limits.least + part.limits.step:
                continue
            tried.add(part.key)
            hint = _less_of(asked, part, now, before)
            if hint is not None:
                out.append(hint)
            if instead is not None and part.food is not None:
                out += _other_forms(asked, part, now, before, instead(part.food))
    return out


def _less_of(asked: Problem, part: Portion, now: float, before: float) -> Hint | None:
    """The least change of a part that helps nearly as much as leaving it out."""
    found: list[tuple[float, float]] = []
    for share in LESS_SHARES:
        grams = round(now * share / part.limits.step) * part.limits.step
        if grams >= now:
            continue
        least = min(part.limits.least, grams)
        _steps, after = least_missed(
            asked.with_part(replace(part, grams=grams).within(least=least, most=max(grams, least)))
        )
        found.append((grams, after))
    helping = [(grams, after) for grams, after in found if after < before * (1 - HELPS)]
    if not helping:
        return None
    best = min(after for _grams, after in helping)
    grams, after = next(row for row in helping if row[1] <= best + 0.1 * (before - best))
    name = uncapitalized(part.name)
    words = f"less {name}: {grams:.3g} g instead of {now:.3g} g" if grams > 0 else f"without {name}"
    return Hint(kind="less", id=part.key, to=grams, violation=after, words=words)


def _other_forms(
    asked: Problem,
    part: Portion,
    now: float,
    before: float,
    forms: Sequence[tuple[Food, float]],
) -> list[Hint]:
    """The form that helps most."""
    ways = [_instead(asked, part, now, food, ratio) for food, ratio in forms]
    helping = [one for one in ways if one.violation < before * (1 - HELPS)]
    return [min(helping, key=lambda one: one.violation)] if helping else []


def _gap(problem: Problem, answer: Answer) -> float:
    """The misses of an answer, hard limits that are broken counted in."""
    return sum(
        aim.missed(answer.totals[aim.key], answer.at_most[aim.key])
        / aim.per
        * max(aim.weight, 1.0 if aim.firm else 0.0)
        for aim in problem.aims
    )


def _hard(problem: Problem, answer: Answer) -> bool:
    """Whether a limit that is never broken is broken."""
    return any(
        aim.firm and aim.missed(answer.totals[aim.key], answer.at_most[aim.key]) > 0
        for aim in problem.aims
    )


def _soft(problem: Problem) -> Problem:
    """Hard targets as loud wishes, so that a hint can be judged where they collide. A limit that is
    no wish stays hard."""

    def softer(aim: Aim) -> Aim:
        return aim.softened(max(aim.weight, 1.0)) if aim.firm and aim.weight else aim

    return replace(problem, aims=tuple(softer(aim) for aim in problem.aims))


def _larger(problem: Problem, answer: Answer, before: float, times: float) -> list[Hint]:
    out = []
    asked = problem if answer.status != "infeasible" else _soft(problem)
    for part in problem.parts:
        if part.locked or answer.portions[part.key] < part.limits.most - part.limits.step:
            continue
        wider = part.within(
            most=min(max(part.limits.most, part.limits.step) * times, part.limits.ceiling)
        )
        if wider.limits.most < part.limits.most + part.limits.step:
            continue
        steps, after = least_missed(asked.with_part(wider))
        if not after < before * (1 - HELPS):
            continue
        most = _smallest(asked.with_part(wider), part.key, after, steps)
        if most <= part.limits.most:
            continue
        _again, verified = least_missed(asked.with_part(part.within(most=most)))
        words = f"{part.name}: up to {most:.0f} g instead of {part.limits.most:.0f} g"
        out.append(Hint(kind="larger", id=part.key, to=most, violation=verified, words=words))
    return out


def _smallest(problem: Problem, part_id: str, violation: float, steps: Sequence[int]) -> float:
    """The smallest portion of a part with which the misses are no more than `violation`. [g]"""
    grid = Grid(problem)
    at = next(i for i, part in enumerate(grid.free) if part.key == part_id)
    model = Model(grid)
    if model.misses:
        model.model.add(total_of(model.misses) <= int(np.ceil(violation * SCALE)) + len(grid.free))
    _status, found, _value = model.solve(
        model.steps[at], Work.of(SOLVE_WORK), np.array(steps, dtype=np.int64)
    )
    return grid.free[at].at(int(found[at] if found is not None else steps[at]))


def _added(problem: Problem, before: float, pantry: Sequence[Portion]) -> list[Hint]:
    asked = _soft(problem)
    there = {part.key for part in problem.parts}
    there |= {part.food.slug for part in problem.parts if part.food is not None}
    tried = []
    for food in pantry:
        if food.key in there:
            continue
        steps, after = least_missed(asked.with_part(food), SOLVE_WORK / 2)
        if after < before * (1 - HELPS):
            tried.append((after, food, steps))
    out = []
    for after, food, steps in sorted(tried, key=lambda row: row[0])[:2]:
        grams = _smallest(asked.with_part(food), food.key, after, steps)
        if grams > 0:
            _again, verified = least_missed(
                asked.with_part(replace(food, grams=grams, locked=True))
            )
            out.append(
                Hint(
                    kind="add",
                    id=food.key,
                    to=grams,
                    violation=verified,
                    words=f"add {grams:.0f} g {uncapitalized(food.name)}",
                )
            )
    return out


def _loosened(problem: Problem, answer: Answer) -> list[Hint]:
    out = []
    for aim in problem.aims:
        by = aim.miss(answer.totals[aim.key], answer.at_most[aim.key])
        if not by or not aim.weight:
            continue
        # this target's own miss, as small as it can be while all the others are met as well as they
        # are
        others = replace(problem, aims=tuple(one for one in problem.aims if one.key != aim.key))
        _steps, rest = least_missed(others if answer.status != "infeasible" else _soft(others))
        if rest == float("inf"):
            continue
        heard = tuple(
            aim.softened(1.0) if one.key == aim.key else replace(one, weight=one.weight * 1000.0)
            for one in problem.aims
        )
        steps, _loud = least_missed(replace(problem, aims=heard))
        to = total(problem, steps, aim.key, largest=by > 0)
        loose = (
            replace(aim.softened(), low=min(to, aim.low)) if by < 0 and aim.low is not None else aim
        )
        loose = (
            replace(aim.softened(), high=max(to, aim.high))
            if by > 0 and aim.high is not None
            else loose
        )
        _again, verified = least_missed(
            problem.with_aim(loose)
            if answer.status != "infeasible"
            else _soft(problem.with_aim(loose))
        )
        side = "at least" if by < 0 else "at most"
        was = aim.low if by < 0 else aim.high
        firm = aim.firm_low if by < 0 else aim.firm_high
        note = "; only whoever set it can change it" if firm else ""
        words = (
            f"{name_of(aim.key)}: {side} {NUTRIENT[aim.key].said(to)} instead of "
            f"{NUTRIENT[aim.key].said(was or 0.0)}{note}"
        )
        out.append(Hint(kind="loosen", id=aim.key, to=to, violation=verified, words=words))
    return out
