"""So much of something to eat, and what is made of it: the one shape for a line of a recipe, a part
of a bowl, an entry of a day, and for the dish that they make up."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from nutrition.composition.amounts import DENSITY, amount_of
from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.profile import Profile
from nutrition.composition.unknown_amounts import unknown_at_most

# What has no known volume is taken as water. [mL/g]
ML_PER_G = 1.0
LEAST_SHARE, MOST_SHARE = 0.01, 0.95
# Never the star, however much of it there is.
NEVER_STAR = ("base", "sauce", "topping")


def room_ml(volume_ml: float | None, grams: float) -> float:
    """The room that so much takes: its volume, or, where that is not known, a milliliter for each
    gram. [mL] from [mL], [g]"""
    return volume_ml if volume_ml else grams * ML_PER_G


@dataclass(frozen=True, kw_only=True)
class Limits:
    """What a portion may weigh: from `least` to `most` in steps; `ceiling` is the portion that no
    hint goes beyond, `held` says why it may not be larger. [g]

    What `keeps` is not made smaller unless a most that is named requires it; what comes `last` is
    not made larger first; what is `first` is made smaller before anything that is not. Bounds that
    are `stated` are the practitioner's.
    """

    least: float
    most: float
    step: float
    ceiling: float = math.inf
    held: str = ""
    keeps: bool = False
    last: bool = False
    first: bool = False
    stated: bool = False

    def on_step(self, most: float) -> float:
        """The largest portion on a step that is no more than `most`; the least where there is none.
        [g]"""
        steps = math.floor((most - self.least) / self.step + 1e-9)
        return self.least + max(steps, 0) * self.step


AS_IT_IS = Limits(least=0.0, most=0.0, step=1.0)


@dataclass(frozen=True, kw_only=True)
class Portion:
    """So much of something to eat: `grams` of a food, or of a dish, for which `food` is None. [g]

    `profile`, `foods` and `volume_ml` [mL] are of `profile.grams` of it, which is as much as there
    is of it or, for what is only offered, some weight. A locked portion stays as it is. What is
    counted has its `unit` ("serving", "bowl") and what one weighs; `said` is the portion as a cook
    says it. What is `poured` is measured by the cup where it is no food with measures of its own;
    what is not is counted or weighed. `unread` are lines of it that nobody could read.
    """

    key: str
    name: str
    role: str
    grams: float
    profile: Profile
    volume_ml: float
    foods: Sequence[Ingredient] = ()
    food: Food | None = None
    limits: Limits = AS_IT_IS
    locked: bool = False
    star: bool = False
    said: str = ""
    unit: str = ""
    unit_g: float = 1.0
    poured: bool = True
    unread: tuple[str, ...] = ()

    @property
    def ml_per_gram(self) -> float:
        """The room that a gram takes. [mL/g]"""
        return self.volume_ml / self.profile.grams if self.profile.grams > 0 else ML_PER_G

    @property
    def choices(self) -> int:
        """How many steps above the least are allowed."""
        limits = self.limits
        if self.locked:
            return 0
        return int(math.floor((limits.most - limits.least) / limits.step + 1e-9))

    def at(self, steps: int) -> float:
        """The portion so many steps above the least. [g]"""
        return self.grams if self.locked else self.limits.least + steps * self.limits.step

    def share(self, grams: float) -> float:
        """So many grams as a share of what `profile` is of."""
        return grams / self.profile.grams if self.profile.grams > 0 else 0.0

    def foods_in(self, grams: float) -> list[Ingredient]:
        """The foods in so many grams of it. [g]"""
        share = self.share(grams)
        return [one.times(share) for one in self.foods]

    def amount(self, key: str) -> float:
        """What one gram brings of a target's key. In the key's unit per gram."""
        grams = self.profile.grams
        return amount_of(self.profile, key).amount / grams if grams > 0 else 0.0

    @property
    def is_food(self) -> float:
        """1, or 0 for what is drunk beside the food: what of it a calorie density is of."""
        return 0.0 if self.profile.only_drunk else 1.0

    def toward(self, key: str) -> float:
        """What one gram brings toward a target's key: for a calorie density the energy of what is
        food. In the key's unit per gram, or [kcal/g]."""
        known = self._toward
        if key not in known:
            of_food = self.amount("energy_kcal") * self.is_food if key == DENSITY else None
            known[key] = self.amount(key) if of_food is None else of_food
        return known[key]

    @cached_property
    def _toward(self) -> dict[str, float]:
        """What was asked of one gram, by key: solving asks many times."""
        return {}

    @cached_property
    def unknown(self) -> Mapping[str, float]:
        """What a gram could bring at most of what nobody knows of its foods, by key. In the key's
        unit per gram."""
        grams = self.profile.grams
        if grams <= 0:
            return {}
        return {key: value / grams for key, value in unknown_at_most(list(self.foods)).items()}

    def at_most(self, key: str) -> float:
        """What one gram brings of a key with what is unknown of it at its largest. In the key's
        unit per gram."""
        return self.amount(key) + self.unknown.get(key, 0.0)

    def within(self, **limits: object) -> Portion:
        """The same with other limits."""
        return replace(self, limits=replace(self.limits, **limits))  # type: ignore[arg-type]

    def times(self, factor: float) -> Portion:
        """So many times as much of it."""
        return replace(
            self,
            grams=self.grams * factor,
            profile=self.profile * factor,
            volume_ml=self.volume_ml * factor,
            foods=tuple(one.times(factor) for one in self.foods),
            said=self.said if factor == 1 else "",
        )


def food_portion(
    food: Food,
    grams: float,
    low: float | None = None,
    high: float | None = None,
    key: str = "",
    role: str = "",
) -> Portion:
    """So much of one food, with the range of its weight. [g]"""
    return Portion(
        key=key or food.slug,
        name=food.name,
        role=role or food.role,
        grams=grams,
        profile=food.profile(grams, low, high),
        volume_ml=room_ml(food.volume_ml(grams), grams),
        foods=(Ingredient(food, grams),),
        food=food,
    )


@dataclass(frozen=True, kw_only=True)
class Dish:
    """What is eaten as one: a food, a serving of a recipe, a bowl, a meal, a day. `profile` is all
    of it, what a batch lost or took up in cooking counted in. [mL]"""

    key: str
    name: str
    portions: tuple[Portion, ...]
    profile: Profile
    volume_ml: float
    kind: str = ""

    @classmethod
    def of(cls, key: str, name: str, portions: Iterable[Portion], kind: str = "") -> Dish:
        """A dish that is the sum of its portions."""
        held = tuple(portions)
        return cls(
            key=key,
            name=name,
            portions=held,
            profile=Profile.total(one.profile for one in held),
            volume_ml=sum(one.volume_ml for one in held),
            kind=kind,
        )

    @property
    def foods(self) -> list[Ingredient]:
        """Every food in it with its grams. [g]"""
        return [food for portion in self.portions for food in portion.foods]

    @property
    def grams(self) -> float:
        return self.profile.grams

    def share(self, portion: Portion, key: str) -> float | None:
        """A portion's share of a nutrient of the dish [0 to 1]; None where the portion's own is
        unknown."""
        total, own = amount_of(self.profile, key).amount, amount_of(portion.profile, key)
        return own.amount / total if own.known > 0 and total > 0 else None

    def times(self, factor: float) -> Dish:
        """So many times as much of it."""
        return replace(
            self,
            portions=tuple(one.times(factor) for one in self.portions),
            profile=self.profile * factor,
            volume_ml=self.volume_ml * factor,
        )


def star_of(portions: Sequence[Portion]) -> int | None:
    """Which portion is the star: the chosen one, or the largest that is not the base; None for
    none."""
    for i, portion in enumerate(portions):
        if portion.star:
            return i
    others = [
        (portion.volume_ml, -i)
        for i, portion in enumerate(portions)
        if portion.role not in NEVER_STAR
    ]
    return -max(others)[1] if others else None


def grams_for_share(share: float, grams: float, volume_ml: float, others_ml: float) -> float | None:
    """Grams that give a part this share [0 to 1] of the bowl's volume while the others stay. [g]

    The part now weighs `grams` and takes `volume_ml`, the others take `others_ml`. None for a share
    out of reach.
    """
    if not LEAST_SHARE <= share <= MOST_SHARE or others_ml <= 0:
        return None
    return others_ml * share / (1 - share) * grams / volume_ml
