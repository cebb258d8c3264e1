"""The allergens a client may choose, other words for them, and where they turn up in foods."""

from __future__ import annotations

import difflib
from collections.abc import Iterable
from typing import Protocol

from nutrition.composition.errors import CoreError

ALLERGENS = (
    "soy",
    "gluten",
    "wheat",
    "tree nuts",
    "peanut",
    "sesame",
    "mustard",
    "celery",
    "lupin",
    "sulfites",
    "coconut",
    "milk",
    "egg",
    "fish",
    "shellfish",
)
# What people say for them. A word that may mean two is taken for both.
OTHER_WORDS: dict[str, tuple[str, ...]] = {
    "soya": ("soy",),
    "soybean": ("soy",),
    "tofu": ("soy",),
    "edamame": ("soy",),
    "nut": ("tree nuts", "peanut"),
    "all nut": ("tree nuts", "peanut"),
    "tree nut": ("tree nuts",),
    "treenut": ("tree nuts",),
    "almond": ("tree nuts",),
    "walnut": ("tree nuts",),
    "cashew": ("tree nuts",),
    "hazelnut": ("tree nuts",),
    "pecan": ("tree nuts",),
    "pistachio": ("tree nuts",),
    "macadamia": ("tree nuts",),
    "brazil nut": ("tree nuts",),
    "pine nut": ("tree nuts",),
    "groundnut": ("peanut",),
    "sesame seed": ("sesame",),
    "tahini": ("sesame",),
    "mustard seed": ("mustard",),
    "celeriac": ("celery",),
    "celery root": ("celery",),
    "lupine": ("lupin",),
    "lupini": ("lupin",),
    "lupini bean": ("lupin",),
    "sulphite": ("sulfites",),
    "sulfite": ("sulfites",),
    "sulfur dioxide": ("sulfites",),
    "sulphur dioxide": ("sulfites",),
    "dairy": ("milk",),
    "lactose": ("milk",),
    "casein": ("milk",),
    "whey": ("milk",),
    "cow milk": ("milk",),
    "cow's milk": ("milk",),
    "crustacean": ("shellfish",),
    "mollusc": ("shellfish",),
    "mollusk": ("shellfish",),
    "shrimp": ("shellfish",),
    "prawn": ("shellfish",),
    "crab": ("shellfish",),
    "seafood": ("fish", "shellfish"),
    "barley": ("gluten",),
    "rye": ("gluten",),
    "cereals containing gluten": ("gluten", "wheat"),
    "spelt": ("wheat",),
    "semolina": ("wheat",),
}


class UnknownAllergen(CoreError):
    """A word that is no allergen here: taken as it is, it would look like protection."""


def allergens_named(word: str) -> tuple[str, ...]:
    """The allergens that a word means. Raises UnknownAllergen, naming the nearest."""
    said = " ".join(word.lower().replace("-", " ").split())
    for name in (said, said.removesuffix("allergy").strip()):
        for one in (name, f"{name}s", name.removesuffix("s"), name.removesuffix("es")):
            if one in ALLERGENS:
                return (one,)
            if one in OTHER_WORDS:
                return OTHER_WORDS[one]
    near = difflib.get_close_matches(said, [*ALLERGENS, *OTHER_WORDS], 1, 0.75)
    meant = (
        f"did you mean {' and '.join(OTHER_WORDS.get(near[0], (near[0],)))}?"
        if near
        else f"choose {', '.join(ALLERGENS)}; other foods are left out by disliking them."
    )
    raise UnknownAllergen(f"There is no allergen “{word}” here: {meant}", "allergies")


class Marked(Protocol):
    """A food as it is marked."""

    @property
    def name(self) -> str: ...
    @property
    def allergens(self) -> tuple[str, ...]: ...


def found_in(foods: Iterable[Marked], refused: Iterable[str]) -> dict[str, list[str]]:
    """Each refused allergen that is there, with the names of the foods that hold it."""
    wanted = set(refused)
    out: dict[str, list[str]] = {}
    for food in foods:
        for allergen in food.allergens:
            if allergen in wanted and food.name not in out.setdefault(allergen, []):
                out[allergen].append(food.name)
    return {allergen: names for allergen, names in out.items() if names}
