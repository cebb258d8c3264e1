"""Beans that are bought dry: what stands in water from the evening before, and what is cooked by
itself before it goes into a dish."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from nutrition.composition.cooking_methods import before_cooking
from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient

# Dry beans and peas are soaked overnight; lentils, mung beans and what is split cook within the
# hour without it. Common practice, no source.
SOAKED = re.compile(r"(?!.*(?:lentil|split|dal|mung)).*(?:beans?|peas|gram)(?:-|$)")
LEGUMES = ("legume", "soy")
# Raw kidney beans poison: they soak at least so long, and boil so long in fresh water. FDA, Bad Bug
# Book. [min]
KIDNEY, KIDNEY_SOAK_MIN, KIDNEY_BOIL_MIN = re.compile(r".*kidney-bean"), 300.0, 30.0
# How long beans simmer, and what is quicker. Common practice, no source. [min]
SIMMERED_MIN, QUICKER_MIN = (60, 90), (20, 40)

# Plain cooked beans keep so many days after the one on which they are cooked. FoodSafety.gov,
# leftovers 3 to 4 days, from memory. [days]
BEANS_KEEP = 3


@dataclass(frozen=True, kw_only=True)
class FromDry:
    """Legumes that are bought dry: how much of them dry, what that gives cooked where they are
    cooked by themselves, 0 where they go into the pot dry. [g]"""

    dry: Food
    dry_g: float
    cooked_g: float = 0.0

    @property
    def soaked(self) -> bool:
        return SOAKED.match(self.dry.kind_slug) is not None

    @property
    def boiled_hard(self) -> bool:
        return KIDNEY.match(self.dry.kind_slug) is not None

    @property
    def minutes(self) -> tuple[int, int]:
        """How long they simmer, at the least and the most. [min]"""
        return SIMMERED_MIN if self.soaked else QUICKER_MIN


def from_dry(foods: Iterable[Ingredient]) -> list[FromDry]:
    """The legumes of a dish that are bought dry: written dry, or cooked, which the shopping buys
    dry. The same ones together. [g]"""
    dry: dict[str, FromDry] = {}
    for one in foods:
        if one.food.group not in LEGUMES or one.grams <= 0:
            continue
        found = _from_dry(one.food, one.grams)
        if found is None:
            continue
        known = dry.get(found.dry.slug)
        dry[found.dry.slug] = FromDry(
            dry=found.dry,
            dry_g=found.dry_g + (known.dry_g if known else 0.0),
            cooked_g=found.cooked_g + (known.cooked_g if known else 0.0),
        )
    return list(dry.values())


def _from_dry(food: Food, grams: float) -> FromDry | None:
    if food.state == "dry" and SOAKED.match(food.kind_slug):
        return FromDry(dry=food, dry_g=grams)
    before = before_cooking(food, grams)
    if before is None or before[0].state != "dry":
        return None
    return FromDry(dry=before[0], dry_g=before[1], cooked_g=grams)


def soaks(foods: Sequence[Ingredient]) -> bool:
    """Whether something in a dish is soaked the evening before it is cooked."""
    return any(one.soaked for one in from_dry(foods))
