"""Changes of one line, and of two, that close the gap to the targets: less of it, without it, another form, another food, thinned."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations

from nutrition import household
from nutrition.balance import SLACK, Aim
from nutrition.foods import Food, food_table
from nutrition.nutrients import NUTRIENT
from nutrition.profile import Profile
from nutrition.quantities import amount_of
from nutrition.substitutions import NOTHING_REFUSED, Refusals, for_food

LESS = ((0.75, "a quarter less"), (2 / 3, "a third less"), (0.5, "half the"))
THIN_SHARES = (0.25, 0.5)
THINNERS = ("water", "lemon-juice", "orange-juice", "soy-milk-unsweetened")
# How much each kind of change is felt, before how much of the dish it moves. Common practice, no source.
FELT = {"form": 0.02, "less": 0.1, "thin": 0.15, "instead": 0.25, "out": 0.4}
# A change must close at least this share of the gap; a pair this much more than the better of its two alone.
LEAST_CLOSED, PAIR_ADDS = 0.02, 0.1
MOST_SINGLES, MOST_PAIRED, MOST_SHOWN = 40, 14, 12
# Thinning is for a sauce that is rich: so many kcal to the gram or more.
RICH_KCAL_PER_G = 0.8


@dataclass(frozen=True)
class Line:
    """A line of a recipe, or a part of a bowl or a day: what it brings now, in what is looked at. [g] `food` is None for a dish."""

    id: str
    name: str
    food: Food | None
    grams: float
    profile: Profile


@dataclass(frozen=True)
class Step:
    """What is done to one line: its new food and grams [g], 0 to leave it out. `id` is empty for something added."""

    id: str
    kind: str
    food: Food | None
    grams: float
    words: str
    effect: str = ""
    fails: str = ""


@dataclass(frozen=True)
class Swap:
    """One change, of one line or two, with the gap before and after and every target that matters, before and after."""

    steps: tuple[Step, ...]
    before: float
    after: float
    felt: float
    totals: Mapping[str, tuple[float, float]]

    @property
    def closed(self) -> float:
        """The share of the gap that it closes [0 to 1]; below zero if it widens."""
        return 1.0 - self.after / self.before if self.before > 0 else 0.0

    @property
    def words(self) -> str:
        return "; ".join(step.words for step in self.steps)


def gap(aims: Iterable[Aim], totals: Mapping[str, float]) -> float:
    """The weighted misses, each over its aim: the sum (2) of nutrition.balance."""
    return sum(aim.weight * abs(aim.miss(totals[aim.key])) / aim.per for aim in aims)


def totals_of(aims: Iterable[Aim], profile: Profile) -> dict[str, float]:
    """What a profile brings of every aim. In each key's unit."""
    return {aim.key: amount_of(profile, aim.key).amount for aim in aims}


def _measure(food: Food, grams: float) -> str:
    said = household.spoken(food, grams)
    return f"{said.words} ({grams:.0f} g)" if said else f"{grams:.0f} g"


def _lower(name: str) -> str:
    return name[:1].lower() + name[1:]


def single_steps(line: Line, refusals: Refusals) -> list[Step]:
    """What can be done to one line: less of it, leave it out, and for a food another form or another food that fits its use."""
    name = _lower(line.name)
    out = []
    for share, words in LESS:
        grams = line.grams * share
        measure = _measure(line.food, grams) if line.food else f"{grams:.0f} g"
        out.append(Step(line.id, "less", line.food, grams, f"{words} {name}: {measure}"))
    out.append(Step(line.id, "out", line.food, 0.0, f"without {name}"))
    for row in for_food(line.food) if line.food else []:
        if refusals.why_not(row.to):
            continue
        grams = line.grams * row.ratio
        kind = "form" if row.use == "another form" else "instead"
        words = f"{_lower(row.to.name)} instead of {name}: {_measure(row.to, grams)}"
        out.append(Step(line.id, kind, row.to, grams, words, row.effect, row.fails))
    return out


def thin_steps(grams: float, refusals: Refusals) -> list[Step]:
    """Water, citrus or milk added to a sauce of so many grams, which is then spooned on in the same amount as before. [g]"""
    out = []
    for slug in THINNERS:
        food = food_table()[slug]
        if refusals.why_not(food):
            continue
        for share in THIN_SHARES:
            words = f"thin it with {_measure(food, grams * share)} {_lower(food.name)}"
            out.append(Step("", "thin", food, grams * share, words, "covers the same bowl with less of everything else", "a dip"))
    return out


@dataclass(frozen=True)
class _Tried:
    step: Step
    change: Profile
    felt: float


def _felt(step: Step, line: Line | None, total_g: float) -> float:
    """How much of a change it is: its kind, and how much of the dish it moves."""
    if line is None:
        return FELT[step.kind]
    moved = max(abs(line.grams - step.grams), line.grams if step.kind in ("instead", "form") else 0.0)
    return FELT[step.kind] * (1.0 + moved / total_g if total_g > 0 else 1.0)


def ranked(
    lines: Sequence[Line],
    aims: Sequence[Aim],
    refusals: Refusals = NOTHING_REFUSED,
    profile_of: Callable[[Line, Step], Profile] | None = None,
    base: Profile | None = None,
) -> list[Swap]:
    """Changes that close the gap of the lines' sum, with `base` eaten besides: most closed first, then the least felt.

    `profile_of` gives what a changed line brings, where that is not simply its new food raw: a cooked recipe, for instance.
    """
    whole = Profile.total(line.profile for line in lines)
    whole = whole + base if base is not None else whole
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
        for step in single_steps(line, refusals)
    ]

    def swap(*parts: _Tried) -> Swap:
        after = totals_of(aims, Profile.total([whole, *(part.change for part in parts)]))
        shown = {key: (before_totals[key], after[key]) for key in after}
        return Swap(tuple(part.step for part in parts), before, gap(aims, after), sum(part.felt for part in parts), shown)

    singles = sorted(((swap(one), one) for one in tried), key=lambda pair: _rank(pair[0]))
    singles = [pair for pair in singles if pair[0].closed >= LEAST_CLOSED][:MOST_SINGLES]
    found = _best_of_each([one for one, _tried in singles])
    pairs = []
    for (first, a), (second, b) in combinations(singles[:MOST_PAIRED], 2):
        if a.step.id != b.step.id:
            both = swap(a, b)
            if both.closed >= max(first.closed, second.closed) + PAIR_ADDS:
                pairs.append(both)
    return sorted([*found, *_best_of_each(sorted(pairs, key=_rank))], key=_rank)[:MOST_SHOWN]


def _rank(swap: Swap) -> tuple[float, float]:
    return -round(swap.closed, 2), swap.felt


def _best_of_each(swaps: Sequence[Swap]) -> list[Swap]:
    """Of the same kinds of change of the same lines only the two that do most."""
    kept: dict[tuple[tuple[str, str], ...], int] = {}
    out = []
    for swap in swaps:
        at = tuple(sorted((step.id, step.kind) for step in swap.steps))
        kept[at] = kept.get(at, 0) + 1
        if kept[at] <= 2:
            out.append(swap)
    return out


def plain_profile(line: Line, step: Step) -> Profile:
    """What a changed line brings: its own in proportion, or the new food's."""
    if step.grams <= 0:
        return Profile.empty()
    if step.food is None or (line.food is not None and step.food.slug == line.food.slug):
        return line.profile * (step.grams / line.grams)
    return step.food.profile(step.grams)


def thinned(serving: Profile, aims: Sequence[Aim], refusals: Refusals, servings: float) -> list[Swap]:
    """Thinning a sauce of `servings`, the serving's weight staying what it is. Steps are for the whole batch. [g]"""
    before_totals = totals_of(aims, serving)
    before = gap(aims, before_totals)
    if before <= SLACK or serving.grams <= 0 or serving["energy_kcal"].amount < RICH_KCAL_PER_G * serving.grams:
        return []
    out = []
    for step in thin_steps(serving.grams * servings, refusals):
        assert step.food is not None
        batch = serving * servings + step.food.profile(step.grams)
        after = totals_of(aims, batch * (serving.grams / batch.grams))
        swap = Swap((step,), before, gap(aims, after), FELT["thin"], {key: (before_totals[key], after[key]) for key in after})
        if swap.closed >= LEAST_CLOSED:
            out.append(swap)
    return sorted(out, key=_rank)


@dataclass(frozen=True)
class Filler:
    """A food that fills a shortfall: so many grams of it, at so many kcal. [g], [kcal]"""

    food: Food
    grams: float
    kcal: float
    favorite: bool

    @property
    def measure(self) -> str:
        return _measure(self.food, self.grams)


# More of one food than this to fill a gap is no help. [g]
MOST_FILLER_G = 300.0


def complement(
    key: str, short: float, favorites: Sequence[Food], others: Sequence[Food], refusals: Refusals, most: int = 6
) -> list[Filler]:  # fmt: skip
    """Foods that bring `short` of a nutrient [its unit] for the fewest calories: the client's favorites before the others."""
    out = []
    seen: set[str] = set()
    for favorite, foods in ((True, favorites), (False, others)):
        for food in foods:
            per_100 = food.per_100_g(key)
            if not per_100 or food.slug in seen or refusals.why_not(food):
                continue
            seen.add(food.slug)
            grams = short / per_100 * 100.0
            if grams <= MOST_FILLER_G:
                out.append(Filler(food, grams, (food.per_100_g("energy_kcal") or 0.0) * grams / 100.0, favorite))
    return sorted(out, key=lambda filler: (not filler.favorite, filler.kcal))[:most]


def reason(swap: Swap, aims: Sequence[Aim]) -> str:
    """Why a change was made, for a version: "half the tamari: sodium 820 to 480 mg"."""
    per = {aim.key: aim.per for aim in aims}
    moved = sorted(swap.totals, key=lambda key: -abs(swap.totals[key][1] - swap.totals[key][0]) / per[key])
    by_key = {aim.key: aim for aim in aims}
    helped = [key for key in moved if abs(by_key[key].miss(swap.totals[key][1])) < abs(by_key[key].miss(swap.totals[key][0]))]
    if not helped:
        return swap.words
    key = helped[0]
    places = NUTRIENT[key].decimals
    first, last = (f"{value:,.{places}f}" for value in swap.totals[key])
    return f"{swap.words}: {NUTRIENT[key].name.lower()} {first} to {last} {NUTRIENT[key].unit}"
