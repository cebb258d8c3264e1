"""The kinds of slot that a week has, and which of them a recipe, a bowl or a food can stand in: by
what it is called, from data/dish_kinds.toml, or else by what is in it."""

from __future__ import annotations

from collections.abc import Collection, Sequence

from nutrition.composition.dish_names import named_by
from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient
from nutrition.prep.keeping import is_heated

# Where the same thing every day is what the client wants; what may come twice on a day; and foods
# that are no dish, and go by no rotation. Common practice, no source.
STAYS = frozenset(("fruit", "milk", "bread", "seeds", "dressing", "topping", "shake"))
REPEATS = frozenset(("milk", "bread", "dressing", "topping"))
PLAIN = frozenset(("grain", "bread", "milk"))
# A salad is a whole salad, a bowl a bowl, fruit a whole piece or cup. Common practice, no source.
# [servings]
LEAST_OF_KIND = {"salad": 1.0, "bowl": 1.0, "greens": 1.0, "fruit": 1.0}
# What a recipe in a role can stand for.
BY_ROLE = {
    "base": ("grain",),
    "vegetable": ("vegetable",),
    "greens": ("greens",),
    "protein": ("beans", "main"),
    "sauce": ("dressing",),
    "topping": ("topping",),
    "dish": ("main",),
}
BY_GROUP = {
    "fruit": "fruit",
    "dried fruit": "fruit",
    "plant milk": "milk",
    "plant yogurt": "milk",
    "nut": "seeds",
    "seed": "seeds",
    "bread": "bread",
    "grain": "grain",
    "starchy vegetable": "grain",
    "legume": "beans",
    "soy": "beans",
    "vegetable": "vegetable",
    "leafy green": "greens",
    "mushroom": "vegetable",
}


SIDES = ("vegetable", "greens", "topping", "base")
# So much of a dish that nobody gave a role makes it a side: of vegetables as light as these, of
# grain and the like. Common practice, no source. [share], [kcal/g]
MOSTLY, NOTHING_ELSE, LIGHT = 0.7, 0.8, 0.7
VEGETABLES = ("vegetable", "leafy green", "mushroom", "fresh herb", "fermented vegetable")
STARCHES = ("grain", "starchy vegetable", "pasta")


def kinds_of_recipe(name: str, role: str, foods: Sequence[Ingredient]) -> frozenset[str]:
    """The slots that a recipe can stand in, by its name, its role in a bowl, and whether it is
    cooked; a dish that nobody gave a role by what most of it is."""
    named = named_by(name, role)
    if named is not None:
        # what is served as a part of a bowl may be that part too
        if named == frozenset(BY_ROLE["sauce"]) and is_heated(foods):
            return frozenset(BY_ROLE["topping"])
        own = set(BY_ROLE[role]) if role in SIDES else set()
        return named | (own if "salad" in named else set())
    if role == "greens" and not is_heated(foods):
        return frozenset({"salad", "greens"})
    if role == "dish":
        return _by_what_is_in_it(foods)
    return frozenset(BY_ROLE.get(role, ("main",)))


def _by_what_is_in_it(foods: Sequence[Ingredient]) -> frozenset[str]:
    """A dish without a role or a telling name: a side where nearly all of it is vegetables or a
    starch, else a main."""
    solid = [one for one in foods if one.food.slug != "water"]
    grams = sum(one.grams for one in solid)
    if not grams:
        return frozenset(BY_ROLE["dish"])
    kcal = sum((one.food.per_100_g("energy_kcal") or 0.0) * one.grams / 100.0 for one in solid)
    light = kcal / grams < LIGHT
    if light and _share(solid, VEGETABLES) >= MOSTLY:
        return frozenset({"vegetable"} if is_heated(solid) else {"vegetable", "salad"})
    if _share(solid, STARCHES) >= NOTHING_ELSE:
        return frozenset({"grain"})
    return frozenset(BY_ROLE["dish"])


def _share(foods: Sequence[Ingredient], groups: Collection[str]) -> float:
    """What foods of some groups weigh of all. [share]"""
    some = sum(one.grams for one in foods if one.food.group in groups)
    return some / sum(one.grams for one in foods)


def kinds_of_food(food: Food) -> frozenset[str]:
    """The slots that a food can stand in by itself; none for what is only an ingredient."""
    if food.state == "dry" and food.group in ("grain", "legume", "soy"):
        return frozenset()
    kind = BY_GROUP.get(food.group)
    if not kind:
        return frozenset()
    between = food.group in OUT_OF_HAND or food.slug in USUAL_FOODS["snack"]
    return frozenset({kind, "snack"} if between else {kind})


# What stands in for a kind of which there is nothing at all. Common practice, no source.
STANDS_IN = {"bowl": "main", "snack": "fruit", "shake": "milk", "beans": "main"}
# What is eaten between meals as it is.
OUT_OF_HAND = ("fruit", "dried fruit", "nut")
# A bowl is a meal.
KINDS_OF_BOWL = frozenset({"bowl", "main"})


# Foods that are offered for a kind where a client has no favorites yet. Common practice, no source.
USUAL_FOODS = {
    "snack": ("walnuts", "almonds", "apple-with-skin-raw", "edamame-cooked"),
    "fruit": (
        "apple-with-skin-raw",
        "pear-raw",
        "orange-raw",
        "blueberries-raw",
        "strawberries-raw",
        "banana-raw",
        "kiwi-green-raw",
    ),
    "milk": ("soy-milk-unsweetened", "oat-milk-fortified", "hemp-milk-unsweetened"),
    "seeds": (
        "walnuts",
        "pumpkin-seeds",
        "flaxseed-ground",
        "hemp-seeds-hulled",
        "sunflower-seeds",
        "chia-seeds",
        "almonds",
    ),
    "bread": ("rye-bread", "whole-wheat-bread", "sourdough-bread", "pumpernickel-bread"),
    "grain": (
        "barley-hulled-cooked",
        "buckwheat-roasted-cooked",
        "brown-rice-cooked",
        "millet-cooked",
    ),
    "beans": ("white-beans-cooked", "adzuki-beans-cooked", "lentils-cooked", "tofu-firm"),
    "vegetable": ("broccoli-cooked", "carrots-cooked", "cauliflower-cooked", "green-beans-cooked"),
    "greens": ("kale-cooked", "spinach-cooked", "swiss-chard-cooked", "collards-cooked"),
}
