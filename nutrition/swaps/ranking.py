"""Changes of one line, and of two, that close the gap to the targets: less of it, without it,
another form, another food, thinned."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations

from nutrition.composition.foods import food_table
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Profile
from nutrition.safety.gate import OPEN, Gate
from nutrition.swaps.library import ANOTHER_FORM, for_food
from nutrition.swaps.swap import Step, Swap, gap, kitchen, rank, totals_of, weight_words
from nutrition.targets.aim import SLACK, Aim
from nutrition.written.wording import uncapitalized

LESS = ((0.75, "a quarter less"), (2 / 3, "a third less"), (0.5, "half the"))
THIN_SHARES = (0.25, 0.5)
THINNERS = ("water", "lemon-juice", "orange-juice", "soy-milk-unsweetened")
# How much each kind of change is felt, before how much of the dish it moves. Common practice, no
# source.
FELT = {"form": 0.02, "less": 0.1, "thin": 0.15, "instead": 0.25, "out": 0.4}
# A dish without one of these is another dish: that is offered last.
MADE_OF = ("base", "protein", "vegetable", "greens", "dish")
# A change must close at least this share of the gap; a pair this much more than the better of its
# two alone.
LEAST_CLOSED, PAIR_ADDS = 0.02, 0.1
MOST_SINGLES, MOST_PAIRED, MOST_SHOWN, MOST_PAIRS_SHOWN = 40, 14, 14, 6
# Thinning is for a sauce that is rich: so many kcal to the gram or more.
RICH_KCAL_PER_G = 0.8


def _less(line: Portion, system: str) -> list[Step]:
    out: list[Step] = []
    for share, words in LESS:
        grams, measure = (
            kitchen(line.food, line.grams * share, system)
            if line.food
            else (line.grams * share, "")
        )
        # two shares can come to the same spoon, and a small pinch to no less than there is
        if grams < line.grams * 0.9 and all(
            abs(grams - step.grams) > 0.02 * line.grams for step in out
        ):
            how = words if abs(grams - line.grams * share) <= 0.05 * line.grams else "less"
            said = f"{how} {uncapitalized(line.name)}: {weight_words(grams, measure)}"
            out.append(
                Step(
                    id=line.key,
                    kind="less",
                    food=line.food,
                    grams=grams,
                    words=said,
                    measure=measure,
                )
            )
    return out


def single_steps(
    line: Portion, gate: Gate, dishes: Sequence[Portion] = (), system: str = "us"
) -> list[Step]:
    """What can be done to one line: less of it, leave it out, another form or food that fits its
    use, another dish of its kind."""
    name = uncapitalized(line.name)
    out = [
        *_less(line, system),
        Step(
            id=line.key,
            kind="out",
            food=line.food,
            grams=0.0,
            words=f"without {name}",
            guts=line.role in MADE_OF,
        ),
    ]
    for row in for_food(line.food) if line.food else []:
        if gate.why_not(row.to):
            continue
        grams, measure = kitchen(row.to, line.grams * row.ratio, system)
        kind = "form" if row.use == ANOTHER_FORM else "instead"
        words = f"{uncapitalized(row.to.name)} instead of {name}: {weight_words(grams, measure)}"
        out.append(
            Step(
                id=line.key,
                kind=kind,
                food=row.to,
                grams=grams,
                words=words,
                effect=row.effect,
                fails=row.fails,
                measure=measure,
            )
        )
    for dish in dishes:
        words = (
            f"{uncapitalized(dish.name)} instead of {name}: {weight_words(dish.grams, dish.said)}"
        )
        out.append(
            Step(
                id=line.key,
                kind="instead",
                food=None,
                grams=dish.grams,
                words=words,
                measure=dish.said,
                dish=dish,
            )
        )
    return out


def thin_steps(grams: float, gate: Gate, system: str = "us") -> list[Step]:
    """Water, citrus or milk added to a sauce of so many grams, which is then spooned on in the same
    amount as before. [g]"""
    out = []
    for slug in THINNERS:
        food = food_table()[slug]
        if gate.why_not(food):
            continue
        for share in THIN_SHARES:
            added, measure = kitchen(food, grams * share, system)
            words = f"thin it with {weight_words(added, measure)} {uncapitalized(food.name)}"
            effect = "covers the same bowl with less of everything else"
            out.append(
                Step(
                    id="",
                    kind="thin",
                    food=food,
                    grams=added,
                    words=words,
                    effect=effect,
                    fails="a dip: it must not run",
                    measure=measure,
                )
            )
    return out


@dataclass(frozen=True)
class _Tried:
    step: Step
    change: Profile
    felt: float


def _felt(step: Step, line: Portion | None, total_g: float) -> float:
    """How much of a change it is: its kind, and how much of the dish it moves."""
    if line is None:
        return FELT[step.kind]
    moved = max(
        abs(line.grams - step.grams), line.grams if step.kind in ("instead", "form") else 0.0
    )
    return FELT[step.kind] * (1.0 + moved / total_g if total_g > 0 else 1.0)


def ranked(
    lines: Sequence[Portion],
    aims: Sequence[Aim],
    gate: Gate = OPEN,
    profile_of: Callable[[Portion, Step], Profile] | None = None,
    whole: Profile | None = None,
    dishes: Mapping[str, Sequence[Portion]] | None = None,
    system: str = "us",
) -> list[Swap]:
    """Changes that close the gap of `whole`, of which the lines are all or a part: most closed
    first, then the least felt.

    `dishes` may take a line's place, by its key. `profile_of` gives what a changed line brings,
    where that is not simply its new food raw: a cooked recipe, for instance. Cups and spoons are
    those of `system`.
    """
    whole = Profile.total(line.profile for line in lines) if whole is None else whole
    before_totals = totals_of(aims, whole)
    before = gap(aims, before_totals)
    if before <= SLACK:
        return []
    total_g = sum(line.grams for line in lines)
    bring = profile_of or plain_profile
    tried = [
        _Tried(step, bring(line, step) + line.profile * -1.0, _felt(step, line, total_g))
        for line in lines
        if line.grams > 0
        for step in single_steps(line, gate, (dishes or {}).get(line.key, ()), system)
    ]

    def swap(*parts: _Tried) -> Swap:
        after = totals_of(aims, Profile.total([whole, *(part.change for part in parts)]))
        shown = {key: (before_totals[key], after[key]) for key in after}
        return Swap(
            steps=tuple(part.step for part in parts),
            before=before,
            after=gap(aims, after),
            felt=sum(part.felt for part in parts),
            totals=shown,
        )

    singles = sorted(((swap(one), one) for one in tried), key=lambda pair: rank(pair[0]))
    singles = [
        pair for pair in singles if pair[0].closed >= LEAST_CLOSED and not pair[0].breaks(aims)
    ][:MOST_SINGLES]
    found = _best_of_each([one for one, _tried in singles])
    pairs = []
    for (first, a), (second, b) in combinations(singles[:MOST_PAIRED], 2):
        if a.step.id != b.step.id:
            both = swap(a, b)
            if both.closed >= max(first.closed, second.closed) + PAIR_ADDS and not both.breaks(
                aims
            ):
                pairs.append(both)
    paired = _best_of_each(sorted(pairs, key=rank))[:MOST_PAIRS_SHOWN]
    return sorted([*found[:MOST_SHOWN], *paired], key=rank)


def _best_of_each(swaps: Sequence[Swap]) -> list[Swap]:
    """Of the same kinds of change of the same lines only those that do most: two other foods, one
    amount less."""
    kept: dict[tuple[tuple[str, str], ...], int] = {}
    out = []
    for swap in swaps:
        at = tuple(sorted((step.id, step.kind) for step in swap.steps))
        kept[at] = kept.get(at, 0) + 1
        if kept[at] <= (1 if any(kind == "less" for _id, kind in at) else 2):
            out.append(swap)
    return out


def plain_profile(line: Portion, step: Step) -> Profile:
    """What a changed line brings: its own in proportion, the other dish's, or the new food's as it
    is."""
    if step.grams <= 0:
        return Profile.empty()
    if step.dish is not None:
        return step.dish.profile
    if step.food is None or (line.food is not None and step.food.slug == line.food.slug):
        return line.profile * (step.grams / line.grams)
    return step.food.profile(step.grams)


def thinned(
    serving: Profile, aims: Sequence[Aim], gate: Gate, servings: float, system: str = "us"
) -> list[Swap]:
    """Thinning a sauce of `servings`, the serving's weight staying what it is. Steps are for the
    whole batch. [g]"""
    before_totals = totals_of(aims, serving)
    before = gap(aims, before_totals)
    if (
        before <= SLACK
        or serving.grams <= 0
        or serving["energy_kcal"].amount < RICH_KCAL_PER_G * serving.grams
    ):
        return []
    out = []
    for step in thin_steps(serving.grams * servings, gate, system):
        assert step.food is not None
        batch = serving * servings + step.food.profile(step.grams)
        after = totals_of(aims, batch * (serving.grams / batch.grams))
        swap = Swap(
            steps=(step,),
            before=before,
            after=gap(aims, after),
            felt=FELT["thin"],
            totals={key: (before_totals[key], after[key]) for key in after},
        )
        if swap.closed >= LEAST_CLOSED and not swap.breaks(aims):
            out.append(swap)
    return sorted(out, key=rank)
