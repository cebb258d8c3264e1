"""What a part of a meal is, where nobody said: by what it is called, or else by what is in it. A
sauce may shrink to nothing, a soup is no dressing."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from nutrition.composition.amounts import amount_of
from nutrition.composition.dish_names import named_by
from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.profile import Profile

# The role of what has no other.
NOBODY_SAID = "dish"
# What a name that tells a kind of dish makes of it.
ROLE_OF_KIND = {
    "dressing": "sauce",
    "topping": "topping",
    "grain": "base",
    "bread": "base",
    "beans": "protein",
    "vegetable": "vegetable",
    "greens": "greens",
    "fruit": "fruit",
}
# Where so much of the weight is water or broth it is a soup, and no sauce, whatever else it holds.
# Common practice, no source. [share]
SOUP = 0.4
# What is saltier than any dish is a sauce [mg in 100 g], and so is what is mostly sour, salty or
# sweet by weight, or gets most of its energy from oil and the like and has much of it. Common
# practice, no source. [share], [kcal/g]
SALTIER, SEASONING, OF_FAT, RICH = 700.0, 0.5, 0.5, 1.2
# So much of the weight makes it what that is. Common practice, no source. [share]
MOSTLY = 0.6
SEASONINGS = ("condiment", "vinegar", "sweetener", "salt", "fruit juice", "plant yogurt")
FATS = ("oil", "nut butter")
CRUNCHES = ("nut", "seed")
MOSTLY_OF = (
    ("base", ("grain", "pasta", "starchy vegetable", "bread", "flour")),
    ("protein", ("legume", "soy", "seitan")),
    ("greens", ("leafy green",)),
    ("vegetable", ("vegetable", "leafy green", "mushroom", "fermented vegetable")),
    ("fruit", ("fruit", "dried fruit")),
)


def role_of(name: str, foods: Sequence[Ingredient], profile: Profile, said: str = "") -> str:
    """The role of a part that is called so and holds these foods, which bring `profile`: the one
    that was `said`, where that is one."""
    if said and said != NOBODY_SAID:
        return said
    named = named_by(name, NOBODY_SAID) or frozenset()
    if named & {"soup", "main", "bowl", "breakfast", "salad"}:
        return NOBODY_SAID
    told = next((role for kind, role in ROLE_OF_KIND.items() if kind in named), "")
    return told or _by_what_is_in_it(foods, profile)


def _by_what_is_in_it(foods: Sequence[Ingredient], profile: Profile) -> str:
    if profile.grams <= 0:
        return NOBODY_SAID
    sodium = amount_of(profile, "sodium_mg").amount * 100.0 / profile.grams
    if _share(foods, _is_wet) >= SOUP and sodium < SALTIER:
        return NOBODY_SAID
    solid = [one for one in foods if one.food.slug != "water"]
    if _is_sauce(solid, profile, sodium):
        return "sauce"
    if _share(solid, _of(CRUNCHES)) >= MOSTLY:
        return "topping"
    roles = (role for role, groups in MOSTLY_OF if _share(solid, _of(groups)) >= MOSTLY)
    return next(roles, NOBODY_SAID)


def _is_sauce(solid: Sequence[Ingredient], profile: Profile, sodium: float) -> bool:
    if sodium >= SALTIER or _share(solid, _of(SEASONINGS)) >= SEASONING:
        return True
    kcal = [(one.food.per_100_g("energy_kcal") or 0.0) * one.grams for one in solid]
    fat = sum(some for one, some in zip(solid, kcal, strict=True) if one.food.group in FATS)
    rich = amount_of(profile, "energy_kcal").amount / profile.grams >= RICH
    return rich and fat >= OF_FAT * sum(kcal)


def _is_wet(food: Food) -> bool:
    return food.group == "broth" or food.slug == "water"


def _of(groups: Sequence[str]) -> Callable[[Food], bool]:
    return lambda food: food.group in groups


def _share(foods: Sequence[Ingredient], some: Callable[[Food], bool]) -> float:
    """What some of the foods weigh of all. [share]"""
    grams = sum(one.grams for one in foods)
    return sum(one.grams for one in foods if some(one.food)) / grams if grams > 0 else 0.0
