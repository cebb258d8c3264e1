"""One change of a dish, of one line or more: what is done, and what it does to the targets."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from nutrition.composition.amounts import amount_of
from nutrition.composition.foods import Food
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Profile
from nutrition.targets.aim import SLACK, Aim
from nutrition.written import household


@dataclass(frozen=True, kw_only=True)
class Step:
    """What is done to one line: its new food or dish and grams [g], 0 to leave it out. `id` is
    empty for something added.

    `measure` says the grams as a cook would; it is empty where only the scale can. What `guts` a
    dish takes out what it is made of.
    """

    id: str
    kind: str
    food: Food | None
    grams: float
    words: str
    effect: str = ""
    fails: str = ""
    measure: str = ""
    dish: Portion | None = None
    guts: bool = False


@dataclass(frozen=True, kw_only=True)
class Swap:
    """One change, of one line or two, with the gap before and after and every target that matters,
    before and after."""

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

    def breaks(self, aims: Iterable[Aim]) -> bool:
        """Whether it takes a target further beyond a limit that is never broken."""
        for aim in aims:
            before, after = (aim.miss(value) for value in self.totals[aim.key])
            further = abs(after) > abs(before) + SLACK * aim.per and after * before >= 0
            if further and (aim.firm_high if after > 0 else aim.firm_low):
                return True
        return False

    def helps(self, aims: Iterable[Aim]) -> str:
        """The key of the target whose miss it takes most from, each over its aim and weighted;
        empty if none."""

        def taken(aim: Aim) -> float:
            before, after = self.totals[aim.key]
            return aim.weight * (abs(aim.miss(before)) - abs(aim.miss(after))) / aim.per

        best = max(aims, key=taken, default=None)
        return best.key if best is not None and taken(best) > 0 else ""


def gap(aims: Iterable[Aim], totals: Mapping[str, float]) -> float:
    """The weighted misses, each over its aim: the sum (2) of nutrition.portions."""
    return sum(aim.weight * abs(aim.miss(totals[aim.key])) / aim.per for aim in aims)


def totals_of(aims: Iterable[Aim], profile: Profile) -> dict[str, float]:
    """What a profile brings of every aim. In each key's unit."""
    return {aim.key: amount_of(profile, aim.key).amount for aim in aims}


# A kitchen measure is used where it is this near to the grams that were reckoned. [share]
MEASURE_FIT = 0.2


def kitchen(food: Food, grams: float, system: str = "us") -> tuple[float, str]:
    """The grams that a kitchen measure gives near to `grams`, and that measure; the grams as they
    are where none is near. [g]"""
    said = household.spoken(food, grams, system)
    if said is None or abs(said.grams - grams) > MEASURE_FIT * grams:
        return grams, ""
    return said.grams, said.words


def weight_words(grams: float, measure: str) -> str:
    weight = f"{grams:.1f} g" if grams < 10 else f"{grams:.0f} g"
    return f"{measure} ({weight})" if measure else weight


# How much of what a change closes must outweigh how much it is felt. Common practice, no source.
FELT_COUNTS = 0.4


def rank(swap: Swap) -> tuple[bool, float, float]:
    """The order of swaps: what leaves the dish a dish first, then most closed for what is felt of
    it."""
    guts = any(step.guts for step in swap.steps)
    return guts, -round(swap.closed - FELT_COUNTS * swap.felt, 2), swap.felt


def reason(swap: Swap, aims: Sequence[Aim]) -> str:
    """Why a change was made, for a version: "half the tamari: sodium 820 to 480 mg"."""
    per = {aim.key: aim.per for aim in aims}
    moved = sorted(
        swap.totals, key=lambda key: -abs(swap.totals[key][1] - swap.totals[key][0]) / per[key]
    )
    by_key = {aim.key: aim for aim in aims}
    helped = [
        key
        for key in moved
        if abs(by_key[key].miss(swap.totals[key][1])) < abs(by_key[key].miss(swap.totals[key][0]))
    ]
    if not helped:
        return swap.words
    key = helped[0]
    places = NUTRIENT[key].decimals
    first, last = (f"{value:,.{places}f}" for value in swap.totals[key])
    return f"{swap.words}: {NUTRIENT[key].name.lower()} {first} to {last} {NUTRIENT[key].unit}"
