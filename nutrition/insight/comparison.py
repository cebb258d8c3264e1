"""Dishes side by side: brought to one basis, what differs between them, and which lines account for
it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from nutrition.composition.amounts import amount_of
from nutrition.composition.errors import CoreError
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Dish
from nutrition.composition.profile import Amount

SERVING, HUNDRED, CALORIES, PROTEIN = "serving", "100g", "calories", "protein"
SPOON, HUNDRED_KCAL = "tbsp", "100kcal"
BASES = {
    SERVING: "as served",
    SPOON: "per tablespoon",
    HUNDRED: "per 100 g",
    HUNDRED_KCAL: "per 100 kcal",
    CALORIES: "at equal calories",
    PROTEIN: "at equal protein",
}
# What each basis makes equal, how one says that a dish has none of it, and how much of it all have
# where that is not the most of theirs. [g], [kcal]
_EQUAL = {
    HUNDRED: ("weight", "weighs nothing", 100.0),
    SPOON: ("volume", "takes no room", None),
    HUNDRED_KCAL: ("energy_kcal", "has no calories", 100.0),
    CALORIES: ("energy_kcal", "has no calories", None),
    PROTEIN: ("protein_g", "has no protein", None),
}
# A level tablespoon of the US. [mL]
SPOON_ML = 14.787
# Compared where no client says what matters, and after what matters to one.
USUAL = (
    "energy_kcal",
    "protein_g",
    "fiber_g",
    "sodium_mg",
    "saturated_fat_g",
    "potassium_mg",
    "fat_g",
    "carbohydrate_g",
    "added_sugars_g",
    "calcium_mg",
    "iron_mg",
    "zinc_mg",
    "phosphorus_mg",
    "ala_g",
    "vitamin_c_mg",
    "folate_ug",
    "kcal_per_gram",
    "pral_meq",
)
# What a basis makes the same in every dish, so that there is nothing to compare.
SAME_IN = {CALORIES: "energy_kcal", PROTEIN: "protein_g", HUNDRED_KCAL: "energy_kcal"}
# A sum over the weight, not of the lines: no line brings a part of it.
NOT_OF_LINES = ("kcal_per_gram",)
MOST_LINES = 3
# A line that makes less of the difference than this is not named. [share]
LEAST_SHARE = 0.1
# What a heap of food looks like, by volume. Common practice, no source. [mL]
HEAPS = (
    (20.0, "a spoonful"),
    (60.0, "two to four spoonfuls"),
    (140.0, "a handful"),
    (260.0, "a teacup"),
    (450.0, "a soup cup"),
    (750.0, "a soup bowl"),
    (1200.0, "a deep bowl"),
    (2500.0, "a mixing bowl"),
)
LARGEST_HEAP = "more than a mixing bowl"


class NotComparable(CoreError):
    """A dish has nothing of what all are brought to, so it cannot be."""


def heap_words(volume_ml: float) -> str:
    """What so much food looks like: "a handful", "a mixing bowl". [mL]"""
    return next((words for edge, words in HEAPS if volume_ml < edge), LARGEST_HEAP)


def at_basis(
    plates: Sequence[Dish], basis: str, kcal: float | None = None, spoon_ml: float = SPOON_ML
) -> list[Dish]:
    """The dishes as served, per tablespoon of `spoon_ml` [mL], per 100 g or 100 kcal, or all
    brought to the calories or the protein of the one with most; to so many calories where a number
    is given. [kcal]

    Raises NotComparable for a dish with no weight, room, energy or protein, KeyError for a basis
    that is not known.
    """
    if basis == SERVING:
        return list(plates)
    of, none, much = _EQUAL[basis]

    def measure(plate: Dish) -> float:
        if of == "weight":
            return plate.profile.grams
        return plate.volume_ml if of == "volume" else plate.profile[of].amount

    for plate in plates:
        if measure(plate) <= 0:
            raise NotComparable(f"{plate.name} {none}: it cannot be brought to the others.")
    wanted = max((measure(plate) for plate in plates), default=0.0) if much is None else much
    if basis == SPOON:
        wanted = spoon_ml
    if basis == CALORIES and kcal is not None:
        wanted = kcal
    return [plate.times(wanted / measure(plate)) for plate in plates]


@dataclass(frozen=True)
class Accounts:
    """A line with what it adds to a difference. In the key's unit."""

    name: str
    by: float


@dataclass(frozen=True)
class Against:
    """One dish against the first: by how much more or less, how sure that is, and which lines
    account for it."""

    by: float
    low: float
    high: float
    lines: tuple[Accounts, ...]

    @property
    def sure(self) -> bool:
        """Whether the range of the difference leaves zero out."""
        return self.low > 0 or self.high < 0


@dataclass(frozen=True, kw_only=True)
class Difference:
    """One nutrient or index of all dishes. `weight` is the largest difference over the aim, by
    which they are ranked."""

    key: str
    amounts: tuple[Amount, ...]
    against: tuple[Against, ...]
    matters: bool
    weight: float

    @property
    def name(self) -> str:
        return NUTRIENT[self.key].name


def _accounts(first: Dish, other: Dish, key: str, by: float) -> tuple[Accounts, ...]:
    if key in NOT_OF_LINES or by == 0:
        return ()
    net: dict[str, float] = {}
    for plate, sign in ((other, 1.0), (first, -1.0)):
        for line in plate.portions:
            net[line.name] = net.get(line.name, 0.0) + sign * amount_of(line.profile, key).amount
    ranked = sorted(net.items(), key=lambda row: -row[1] if by > 0 else row[1])
    return tuple(
        Accounts(name, value) for name, value in ranked[:MOST_LINES] if value / by >= LEAST_SHARE
    )


def _against(first: Dish, other: Dish, key: str) -> Against:
    a, b = amount_of(first.profile, key), amount_of(other.profile, key)
    by = b.amount - a.amount
    down = ((b.amount - b.low) ** 2 + (a.high - a.amount) ** 2) ** 0.5
    up = ((b.high - b.amount) ** 2 + (a.amount - a.low) ** 2) ** 0.5
    return Against(by, by - down, by + up, _accounts(first, other, key, by))


def differences(
    plates: Sequence[Dish], aims: Mapping[str, float], matter: Sequence[str] = ()
) -> list[Difference]:
    """What differs, those that `matter` first, each group with the largest difference over the
    day's aim first.

    `aims` has the day's aim by key, in its unit; without one the largest of the amounts stands in
    its place. Keys that are unknown in every dish are left out.
    """
    out = []
    for key in dict.fromkeys((*matter, *USUAL)):
        amounts = tuple(amount_of(plate.profile, key) for plate in plates)
        if all(amount.known <= 0 for amount in amounts):
            continue
        against = tuple(_against(plates[0], other, key) for other in plates[1:])
        per = abs(aims.get(key, 0.0)) or max(abs(amount.amount) for amount in amounts) or 1.0
        weight = max((abs(one.by) for one in against), default=0.0) / per
        out.append(
            Difference(
                key=key, amounts=amounts, against=against, matters=key in matter, weight=weight
            )
        )
    return sorted(out, key=lambda row: (not row.matters, -row.weight))
