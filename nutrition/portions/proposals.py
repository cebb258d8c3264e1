"""Up to three answers to one problem: the best single change, the best pair, then all that earns
its move. Each with what changed, what limits it, and what it does for the person in a sentence."""

# Whole: the three proposals are found, judged and said by the same rules.

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Vector
from nutrition.composition.unknown_amounts import WORTH_SAYING, Unknown, names_unknown
from nutrition.portions.judge import Judge, Ways
from nutrition.portions.less_in_a_dish import LineCut, cut_of
from nutrition.portions.problem import STOMACH, Grid, Problem, name_of, npt_ints
from nutrition.portions.smallest_changes import best_of_all, best_pair, best_single
from nutrition.portions.solver import Answer, answer_from
from nutrition.portions.work import Work
from nutrition.targets.aim import SLACK, Aim
from nutrition.written.wording import uncapitalized

ALLOWED = "what is allowed"
ONE, TWO, MORE, MUST = "One change", "Two changes", "Several changes", "What must change"
# One more change must close this share of the miss more than fewer do; what closes less is not
# offered; and only where so much more is closed may a part shrink or grow that should not first.
CLOSES_MORE, LEAST_CLOSED, WORTH_BREAKING = 0.08, 0.08, 0.1
CLEARED, WHOLLY = 1e-6, 0.995
# Less of a line in a dish is said before the dish is made smaller where it leaves no more than so
# much of the miss more. Common practice, no source. [share]
AS_GOOD = 0.15


@dataclass(frozen=True, kw_only=True)
class PortionChange:
    """A part's portion before and after [g], and what keeps it from going further."""

    id: str
    name: str
    before: float
    after: float
    limited_by: str

    @property
    def by(self) -> float:
        return self.after - self.before


@dataclass(frozen=True, kw_only=True)
class Proposal:
    """An answer with its name and its changes, largest first; the share of the miss it closes [0 to
    1], and what it does for the person and what that costs. `because` names the mosts for which
    vegetables are made smaller; `cut` is what is less in a dish."""

    name: str
    answer: Answer
    changes: tuple[PortionChange, ...]
    closes: float
    sentence: str
    because: tuple[str, ...] = ()
    cut: LineCut | None = None


def limited_by(grid: Grid, steps: npt_ints, at: int, direction: int) -> str:
    """What one step more in this direction would run into, in words."""
    if direction > 0 and steps[at] >= grid.steps[at]:
        return "its largest portion"
    if direction < 0 and steps[at] <= 0:
        return "its smallest portion"
    further = steps.copy()
    further[at] += direction
    broken = [name for name in grid.broken(further) if name not in grid.broken(steps)]
    if broken:
        return name_of(broken[0]).lower()
    here, there = grid.totals(steps), grid.totals(further)

    def missed(totals: Vector) -> Vector:
        return np.asarray(
            np.nan_to_num(np.maximum(grid.low - totals, 0.0))
            + np.nan_to_num(np.maximum(totals - grid.high, 0.0))
        )

    worse = grid.weight * (missed(there) - missed(here))
    if len(worse) and worse.max() > SLACK:
        return name_of(grid.soft[int(worse.argmax())].aim.key).lower()
    return "nothing: it is enough"


def _changes(
    grid: Grid, portions: Mapping[str, float], steps: npt_ints
) -> tuple[PortionChange, ...]:
    out = []
    for at, part in enumerate(grid.free):
        after = portions[part.key]
        if abs(after - part.grams) < 0.05:
            continue
        forced = part.limits.most < part.grams and after >= part.limits.most - 1e-6
        why = ALLOWED if forced else limited_by(grid, steps, at, 1 if after > part.grams else -1)
        out.append(
            PortionChange(
                id=part.key, name=part.name, before=part.grams, after=after, limited_by=why
            )
        )
    out += [
        PortionChange(
            id=part.key,
            name=part.name,
            before=part.grams,
            after=grams,
            limited_by=ALLOWED,
        )
        for part, grams in grid.fixed
        if abs(grams - part.grams) >= 0.05
    ]
    return tuple(sorted(out, key=lambda change: -abs(change.by)))


def as_a_cook_would(problem: Problem, shrink: bool = False, grow: bool = False) -> Problem:
    """The problem with parts that keep their size not smaller than they are, unless they may
    `shrink`, and those that come last not larger, unless they may `grow` or the client eats
    little."""
    grow = grow or problem.eats_little
    parts = []
    for part in problem.parts:
        limits = part.limits
        if limits.keeps and not shrink and not part.locked and limits.most >= part.grams:
            limits = replace(limits, least=max(limits.least, part.grams))
        if limits.last and not grow and not part.locked and limits.least <= part.grams:
            limits = replace(limits, most=min(limits.most, part.grams))
        parts.append(part if limits is part.limits else replace(part, limits=limits))
    return replace(problem, parts=tuple(parts))


@dataclass(frozen=True, kw_only=True)
class _Found:
    """What came out for one set of parts that may move: the judge, the best change of one part and
    of two, and the best of all."""

    judge: Judge
    one: Ways | None
    two: Ways | None
    way: Ways
    proved: bool

    @property
    def left(self) -> float:
        """What is still missed or broken."""
        return self.judge.left(self.way)

    @property
    def over(self) -> tuple[str, ...]:
        """The mosts that are passed, by name."""
        answer = _answer(self.judge, self.way, "feasible")
        named = [
            name_of(aim.key)
            for aim in self.judge.problem.aims
            if aim.miss(answer.totals[aim.key], answer.at_most[aim.key]) > 0
        ]
        rows = self.judge.breaks(self.way)
        return tuple(dict.fromkeys([*named, *(name_of(name) for name in rows)]))


def _look(problem: Problem, work: Work | None) -> _Found:
    judge = Judge(problem)
    parts = len(judge.grid.free)
    way = np.zeros(parts, dtype=np.int64)
    if not parts or judge.gap <= CLEARED:
        return _Found(judge=judge, one=None, two=None, way=way, proved=True)
    one, two = best_single(judge), best_pair(judge)
    begins = [found for found in (way, one, two) if found is not None]
    begin = min(begins, key=lambda found: float(judge.cost(found[None, :])[0]))
    best, proved = best_of_all(judge, begin, work)
    return _Found(judge=judge, one=one, two=two, way=best, proved=proved)


def _allowed_to(problem: Problem, work: Work | None) -> tuple[_Found, tuple[str, ...]]:
    """The best of all portions as a cook would serve them: vegetables not smaller, what is rich not
    larger, unless that closes much more; and the mosts for which vegetables are smaller."""
    best = _look(as_a_cook_would(problem), work)
    because: tuple[str, ...] = ()
    grown = False
    last = not problem.eats_little and any(part.limits.last for part in problem.parts)
    if last and best.left > CLEARED:
        other = _look(as_a_cook_would(problem, grow=True), work)
        if other.left < best.left - WORTH_BREAKING * max(best.judge.gap, CLEARED):
            best, grown = other, True
    over = best.over if best.left > CLEARED else ()
    if over and any(part.limits.keeps for part in problem.parts):
        other = _look(as_a_cook_would(problem, shrink=True, grow=grown), work)
        fewer = set(other.over) < set(over) or other.left < best.left - WORTH_BREAKING * max(
            best.judge.gap, CLEARED
        )
        if fewer and other.left < best.left:
            best, because = other, over
    return best, because


def _answer(judge: Judge, way: Ways, status: str) -> Answer:
    grid = judge.grid
    found = answer_from(grid, np.asarray(judge.begin + way), status)
    # a bowl that is too small is no limit of the person's
    if any(name in NUTRIENT for name in judge.breaks(way)):
        found = replace(found, status="infeasible")
    return found


@dataclass(frozen=True)
class Balanced:
    """What is proposed, the problem with the parts that may move for it, and as it was `asked`:
    what stands in the way is looked for in those. `gap` is what was missed before anything."""

    told: tuple[Proposal, ...]
    problem: Problem
    asked: Problem
    gap: float

    @property
    def answer(self) -> Answer:
        """The last of what is proposed, or the portions as they are."""
        return self.told[-1].answer if self.told else unchanged(self.problem)


def proposals(problem: Problem, work: Work | None = None) -> list[Proposal]:
    """What is proposed; see `balanced`."""
    return list(balanced(problem, work).told)


def balanced(problem: Problem, work: Work | None = None) -> Balanced:
    """The best single change, the best pair, then the whole, each only where it closes more than
    fewer changes do. Nothing where nothing is missed and nothing must change."""
    if problem.cooks:
        problem = problem.with_what_may_go()
    hopeful = problem.without_hopeless_limits()
    best, because = _allowed_to(hopeful, work)
    gap = best.judge.gap
    found = cut_of(hopeful) if gap > CLEARED and problem.cooks else None
    if found is not None:
        lessened, cut = found
        other, why = _allowed_to(lessened, work)
        if other.left <= best.left + AS_GOOD * gap:
            told = _told(other, why, cut, gap)
            return Balanced(tuple(told), other.judge.problem, lessened, gap)
    return Balanced(tuple(_told(best, because)), best.judge.problem, problem, gap)


def _told(
    best: _Found, because: tuple[str, ...], cut: LineCut | None = None, gap: float | None = None
) -> list[Proposal]:
    """What is proposed of what was found; with a `cut` that comes first, and all is measured by the
    `gap` that there was before it."""
    judge = best.judge
    gap = judge.gap if gap is None else gap
    nothing = np.zeros(len(judge.grid.free), dtype=np.int64)
    out: list[Proposal] = []
    if judge.forced():
        must = proposal_of(MUST, judge, nothing, True, because, 0.0)
        out.append(replace(must, sentence=_must(judge)))
    closed = 0.0
    if cut is not None:
        closed = _closes(judge, nothing, gap)
        less = proposal_of(ONE, judge, nothing, False, (), closed)
        out.append(replace(less, sentence=_less(cut, judge), cut=cut))
    if judge.gap <= CLEARED or not len(judge.grid.free):
        return out
    for name, found, proved in (
        (ONE, best.one, True),
        (TWO, best.two, False),
        (MORE, best.way, best.proved),
    ):
        if found is None or not found.any():
            continue
        closes = _closes(judge, found, gap)
        few = int((found != 0).sum()) + (cut is not None)
        if name == MORE or cut is not None:
            name = {1: ONE, 2: TWO}.get(few, MORE)
        enough = closes >= max(LEAST_CLOSED, closed + (CLOSES_MORE if closed else 0.0))
        # what clears all that is left is worth one change more
        enough = enough or 0.0 < closed < WHOLLY < closes
        if enough and not any(_same(judge, found, told) for told in out if not told.cut or few > 1):
            one = proposal_of(name, judge, found, proved and cut is None, because, closes)
            with_it = f"{cut.said} " if cut else ""
            out.append(replace(one, sentence=with_it + one.sentence, cut=cut))
            closed = closes
    return _named_apart(out)


def _less(cut: LineCut, judge: Judge) -> str:
    """What less of a line does, and what is left to do."""
    aim = next(aim for aim in judge.aims if aim.key == cut.key)
    answer = answer_from(judge.grid, judge.begin, "feasible")
    left = _now(aim, aim.miss(answer.totals[aim.key], answer.at_most[aim.key]))
    return f"{cut.words[:1].upper()}{cut.words[1:]}{left}."


def _named_apart(found: Sequence[Proposal]) -> list[Proposal]:
    """Of two with the same name the one that closes more."""
    by_name = {one.name: one for one in found}
    return [one for one in found if by_name[one.name] is one]


def unchanged(problem: Problem) -> Answer:
    """The portions as they are, or the nearest that are allowed."""
    judge = Judge(problem)
    return _answer(judge, np.zeros(len(judge.grid.free), dtype=np.int64), "optimal")


def _closes(judge: Judge, way: Ways, gap: float) -> float:
    """The share of the miss that a way closes. [0 to 1]"""
    return 1.0 - judge.left(way) / gap if gap > 0 else 0.0


def _same(judge: Judge, way: Ways, told: Proposal) -> bool:
    portions = judge.portions(way)
    return all(abs(portions[key] - told.answer.portions[key]) < 0.05 for key in portions)


def proposal_of(
    name: str, judge: Judge, way: Ways, proved: bool, because: tuple[str, ...], closes: float
) -> Proposal:
    """A way with its name, its changes and what it does."""
    answer = _answer(judge, way, "optimal" if proved else "feasible")
    changes = _changes(judge.grid, answer.portions, np.asarray(judge.begin + way))
    smaller = {
        part.key
        for part in judge.grid.free
        if part.limits.keeps
        and part.role != "protein"
        and answer.portions[part.key] < part.grams - 0.05
    }
    return Proposal(
        name=name,
        answer=answer,
        changes=changes,
        closes=closes,
        sentence=_sentence(judge, way, answer, changes),
        because=because if smaller else (),
    )


def _sentence(judge: Judge, way: Ways, answer: Answer, changes: Sequence[PortionChange]) -> str:
    """What it does for the person, and what it costs."""
    before = answer_from(judge.grid, judge.begin, "feasible")
    gains, costs = [], []
    for aim in judge.aims:
        was, now = before.totals[aim.key], answer.totals[aim.key]
        miss_was = aim.miss(was, before.at_most[aim.key])
        miss_now = aim.miss(now, answer.at_most[aim.key])
        by = now - was
        if abs(by) < WORTH_SAYING * aim.per:
            continue
        nutrient = NUTRIENT[aim.key]
        said = f"{nutrient.said(abs(by))} {'more' if by > 0 else 'less'}"
        said += f" {uncapitalized(nutrient.name)}"
        if abs(miss_now) < abs(miss_was):
            gains.append((abs(miss_was) - abs(miss_now), f"{said}{_now(aim, miss_now)}", aim))
        elif abs(miss_now) > abs(miss_was):
            costs.append(f"{said}{_now(aim, miss_now)}")
    gains.sort(key=lambda row: -row[0] * row[2].weight / row[2].per)
    better = [name for name in judge.breaks(way * 0) if name not in judge.breaks(way)]
    room = ["it fits the bowl"] if "vessel" in better else []
    room += ["it fits what a small stomach holds"] if STOMACH in better else []
    kept = [
        name_of(aim.key).lower()
        for aim in judge.aims
        if aim.high is not None
        and not aim.miss(answer.totals[aim.key], answer.at_most[aim.key])
        and not any(row[2].key == aim.key for row in gains)
        and aim.key != "energy_kcal"
    ]
    words = [", ".join([*(row[1] for row in gains[:3]), *room]) or "no target is nearer"]
    added = [f"{one.after:.0f} g {uncapitalized(one.name)}" for one in changes if one.before <= 0]
    if added:
        words.insert(0, f"With {_listed(added)}:")
    energy = judge.energy_at
    if energy is not None and not any(row[2].key == "energy_kcal" for row in gains):
        by = answer.totals["energy_kcal"] - before.totals["energy_kcal"]
        words.append(
            "at the same calories"
            if abs(by) < 15
            else f"for {by:+,.0f} kcal".replace("+", "")
            if by > 0
            else f"and {abs(by):,.0f} kcal less"
        )
    out = " ".join(words)
    if kept:
        out += f"; {', '.join(kept[:2])} {'stay' if len(kept[:2]) > 1 else 'stays'} inside"
    costs += [
        f"{abs(one.by):.0f} g less {uncapitalized(one.name)}"
        if one.after >= 0.4
        else f"no {uncapitalized(one.name)}"
        for one in [change for change in changes if change.by < 0][:2]
    ]
    if costs:
        out += f"; it costs {_listed(costs)}"
    return f"{out[:1].upper()}{out[1:]}."


def _listed(words: Sequence[str]) -> str:
    return f"{', '.join(words[:-1])} and {words[-1]}" if len(words) > 1 else words[0]


def _must(judge: Judge) -> str:
    """What cannot stay as it is, and why."""
    forced, names = judge.forced(), []
    for part in judge.problem.parts:
        if part.key in forced:
            to = forced[part.key]
            name = uncapitalized(part.name)
            said = f"no {name}" if to < 0.4 else f"{to:.3g} g {name}"
            why = part.limits.held.rstrip(".")
            names.append(f"{said} ({why})" if why else said)
    return f"It may hold {'; '.join(names)}."


def _now(aim: Aim, miss: float) -> str:
    if not miss:
        return ""
    nutrient = NUTRIENT[aim.key]
    side = "under" if miss < 0 else "over"
    return f" (still {side} by {nutrient.said(abs(miss))})"


def partly_unknown(answer: Answer, problem: Problem) -> list[Aim]:
    """The targets with a most of which so much is unknown that it is worth saying."""
    return [
        aim
        for aim in problem.aims
        if aim.high is not None
        and aim.weight
        and answer.at_most[aim.key] - answer.totals[aim.key] >= WORTH_SAYING * aim.per
    ]


def unknown_of(answer: Answer, problem: Problem) -> list[Unknown]:
    """What is not known of each target with a most, where it is worth saying: in which foods, and
    between what it then lies."""
    out = []
    for aim in partly_unknown(answer, problem):
        names = dict.fromkeys(
            name
            for part in problem.parts
            if answer.portions.get(part.key, 0.0) > 0
            for name in names_unknown(part.foods, aim.key)
        )
        span = answer.totals[aim.key], answer.at_most[aim.key]
        out.append(Unknown(aim.key, tuple(names), span))
    return out
