"""The allergens that labels must name, and other words for them."""

from __future__ import annotations

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


def spellings(said: str) -> tuple[str, ...]:
    """A word as a table may have it: itself, in the plural, in the singular."""
    return (said, f"{said}s", said.removesuffix("s"), said.removesuffix("es"))


def listed_named(said: str) -> tuple[str, ...]:
    """The allergens that labels must name which a word means; none for a word that means another.
    In small letters, hyphens as spaces."""
    for one in spellings(said):
        if one in ALLERGENS:
            return (one,)
        if one in OTHER_WORDS:
            return OTHER_WORDS[one]
    return ()
