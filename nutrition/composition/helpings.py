"""What a first helping of a food is: by its role, its kind, its piece."""

from __future__ import annotations

from nutrition.composition.food_mosts import most_of
from nutrition.composition.foods import Food

# What a first helping is, by role. Common practice, no source. [g]
FIRST_HELPING_G = {
    "base": 150.0,
    "vegetable": 90.0,
    "greens": 40.0,
    "protein": 120.0,
    "sauce": 30.0,
    "topping": 10.0,
}


# A helping of what has neither a kind nor a role of its own. Common practice, no source. [g]
OTHER_HELPING_G = 100.0
# What a first helping is by kind of food: a teaspoon of oil, a pinch of salt, a spoon of seeds, a
# handful of nuts. Common practice, no source. [g]
HELPING_GROUP_G: dict[str, float] = {
    "oil": 4.5,
    "sweetener": 7.0,
    "salt": 0.3,
    "spice": 0.5,
    "dried herb": 0.5,
    "fresh herb": 4.0,
    "nut": 30.0,
    "seed": 10.0,
    "nut butter": 16.0,
    "dried fruit": 30.0,
    "bread": 40.0,
    "condiment": 15.0,
    "sea vegetable": 2.0,
    "leavener": 1.0,
    "cocoa": 5.0,
    "yeast": 5.0,
    "vinegar": 15.0,
    "fermented vegetable": 30.0,
    "flour": 30.0,
    "mushroom": 70.0,
    "vegetable": 80.0,
    "starchy vegetable": 150.0,
    "legume": 90.0,
    "soy": 100.0,
    "seitan": 80.0,
    "grain": 150.0,
    "pasta": 140.0,
    "fruit": 120.0,
    "fruit juice": 120.0,
    "plant milk": 240.0,
    "plant yogurt": 170.0,
    "drink": 240.0,
    "broth": 240.0,
    "leafy green": 80.0,
    "supplement": 1.0,
    "protein powder": 25.0,
}


# What is weighed dry is much less of a helping; raw leaves are a cup. Common practice, no source.
# [g]
HELPING_DRY_G: dict[str, float] = {
    "grain": 45.0,
    "pasta": 60.0,
    "legume": 45.0,
    "soy": 30.0,
    "seitan": 25.0,
    "mushroom": 5.0,
    "vegetable": 10.0,
    "fruit": 10.0,
    "fresh herb": 0.5,
    "nut": 15.0,
    "broth": 5.0,
    "drink": 2.0,
    "plant milk": 10.0,
}


HELPING_CUP_LEAVES_G = 30.0


# Used by the pinch or the spoon, whatever their kind, told by how the slug begins. Common practice,
# no source. [g]
HELPING_OF_G: dict[str, float] = {
    "lemon-zest": 2.0,
    "orange-zest": 2.0,
    "lemon-juice": 15.0,
    "lime-juice": 15.0,
    "garlic": 3.0,
    "ginger": 3.0,
    "psyllium": 5.0,
    "kelp": 0.5,
    "chili-pepper": 5.0,
    "hot-chili": 5.0,
    "horseradish": 5.0,
    "wasabi": 3.0,
    "sun-dried": 15.0,
    "tomatoes-sun-dried": 15.0,
    "tomato-paste": 15.0,
    "coconut-cream": 30.0,
    "coconut-milk-canned": 60.0,
    "wheat-bran": 10.0,
    "oat-bran": 20.0,
    "rice-bran": 10.0,
    "corn-bran": 10.0,
    "popcorn": 24.0,
    "puffed": 15.0,
    "amaranth-puffed": 15.0,
    "quinoa-puffed": 15.0,
    "wheat-puffed": 15.0,
    "whole-wheat-berries-puffed": 15.0,
    "rice-puffed": 15.0,
    "millet-puffed": 15.0,
    "corn-nuts": 20.0,
    "potato-chips": 28.0,
    "plantain-chips": 28.0,
    "roasted-chickpeas": 28.0,
    "vegan-bacon-bits": 7.0,
    "vegan-butter": 10.0,
    "gin": 45.0,
    "vodka": 45.0,
    "whiskey": 45.0,
    "rum": 45.0,
    "sake": 60.0,
    "sherry": 60.0,
}


# A ready cereal is light and dry: by the energy of it, as no cooked grain has so much. Common
# practice, no source. [kcal per 100 g], [g]
CEREAL_FROM_KCAL, CEREAL_HELPING_G = 300.0, 40.0


# One whole piece is a helping of these, where its weight is known and is no more than so many of
# the usual helping.
BY_PIECE, MOST_OF_USUAL = {"fruit": ("medium",), "bread": ("slice", "piece", "medium")}, 2.5


def first_helping_g(food: Food) -> float:
    """What a food enters a bowl or a meal with, by its kind: one piece or slice, a cup of leaves, a
    spoon, a pinch. [g]

    Never more than the food's own most, where it has one above nothing.
    """
    usual = HELPING_GROUP_G.get(food.group, FIRST_HELPING_G.get(food.role, OTHER_HELPING_G))
    if food.state == "dry":
        usual = HELPING_DRY_G.get(food.group, usual)
    elif food.group == "leafy green" and food.state == "raw":
        usual = min(food.cup.grams, HELPING_CUP_LEAVES_G) if food.cup else HELPING_CUP_LEAVES_G
    if food.group == "grain" and (food.per_100_g("energy_kcal") or 0.0) > CEREAL_FROM_KCAL:
        usual = min(usual, CEREAL_HELPING_G)
    for measure in BY_PIECE.get(food.group, ()):
        piece = next((row.grams for row in food.measures if row.measure == measure), None)
        if piece is not None and piece <= MOST_OF_USUAL * usual:
            usual = piece
            break
    usual = next(
        (
            grams
            for begins, grams in HELPING_OF_G.items()
            if f"{food.kind_slug}-".startswith(f"{begins}-")
        ),
        usual,
    )
    if food.own:
        # what its label calls a serving
        usual = next((row.grams for row in food.measures if row.measure == "serving"), usual)
    own = most_of(food)
    return min(usual, own.most_g) if own is not None and own.most_g > 0 else usual
