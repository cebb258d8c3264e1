"""The kinds of slot that a week has, and which of them a recipe, a bowl or a food can stand in."""

from __future__ import annotations

import re
from collections.abc import Sequence

from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient
from nutrition.prep.keeping import is_heated

# The kinds by their names, in the order of a menu.
KINDS = (
    *("breakfast", "grain", "bread", "soup", "salad", "main", "bowl", "beans"),
    *("vegetable", "greens", "dressing", "topping", "fruit", "milk", "shake", "seeds"),
)
# Where the same thing every day is what the client wants.
STAYS = frozenset(("fruit", "milk", "bread", "seeds", "dressing", "topping", "breakfast"))
BREAKFAST = re.compile(r"porridge|breakfast|oatmeal|muesli|granola|congee|\bwarm millet\b")
SOUP = re.compile(r"soup|stew|\bpot\b|broth|chowder|dal\b|curry|ragout")
SALAD = re.compile(r"salad|slaw")
SHAKE = re.compile(r"shake|smoothie")
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


def kinds_of_recipe(name: str, role: str, foods: Sequence[Ingredient]) -> frozenset[str]:
    """The slots that a recipe can stand in, by its name, its role in a bowl, and whether it is
    cooked."""
    said = name.lower()
    if SHAKE.search(said):
        return frozenset({"shake"})
    if BREAKFAST.search(said):
        return frozenset({"breakfast"})
    if role in ("dish", "protein") and SOUP.search(said):
        return frozenset({"soup", "main"} | ({"beans"} if role == "protein" else set()))
    if SALAD.search(said) or (role == "greens" and not is_heated(foods)):
        own = {"salad", *(BY_ROLE.get(role, ()) if role != "dish" else ())}
        return frozenset(own - {"main"})
    if re.search(r"cracker|\bbread\b|loaf|rolls?\b", said):
        return frozenset({"bread", "topping"})
    return frozenset(BY_ROLE.get(role, ("main",)))


def kinds_of_food(food: Food) -> frozenset[str]:
    """The slots that a food can stand in by itself; none for what is only an ingredient."""
    if food.state == "dry" and food.group in ("grain", "legume", "soy"):
        return frozenset()
    kind = BY_GROUP.get(food.group)
    return frozenset({kind}) if kind else frozenset()


# A bowl is a meal.
KINDS_OF_BOWL = frozenset({"bowl", "main"})


# Foods that are offered for a kind where a client has no favorites yet. Common practice, no source.
USUAL_FOODS = {
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
