"""What a bowl is made of: its vegetables and its kinds of protein."""

from __future__ import annotations

from collections.abc import Sequence

from nutrition.composition.ingredient import Ingredient, plain_name

VEGETABLE_GROUPS = {
    "vegetable",
    "leafy green",
    "starchy vegetable",
    "mushroom",
    "sea vegetable",
    "fermented vegetable",
}


# Enough to be seen and tasted: less of it is seasoning. Common practice, no source. [g]
VEGETABLE_MIN_G = 5.0


PROTEIN_MIN_SHARE = 0.01


def vegetables_in(ingredients: Sequence[Ingredient]) -> list[str]:
    """Names of the distinct vegetables, mushrooms and sea vegetables there is enough of to
    count."""
    grams: dict[str, float] = {}
    for ingredient in ingredients:
        if ingredient.food.group in VEGETABLE_GROUPS and ingredient.food.role != "sauce":
            name = plain_name(ingredient.food)
            grams[name] = grams.get(name, 0.0) + ingredient.grams
    return sorted(name for name, amount in grams.items() if amount >= VEGETABLE_MIN_G)


def kinds_of_protein(ingredients: Sequence[Ingredient]) -> list[tuple[str, float]]:
    """Grams of protein by food, most first; foods that bring under a hundredth are gathered as "the
    rest". [g]"""
    grams: dict[str, float] = {}
    for ingredient in ingredients:
        value = ingredient.left.per_100_g("protein_g")
        if value:
            name = plain_name(ingredient.food)
            grams[name] = grams.get(name, 0.0) + value * ingredient.grams / 100.0
    total = sum(grams.values())
    kinds = sorted(
        ((name, amount) for name, amount in grams.items() if amount >= PROTEIN_MIN_SHARE * total),
        key=lambda row: -row[1],
    )
    rest = total - sum(amount for _name, amount in kinds)
    return [*kinds, ("the rest", rest)] if rest > 0.05 else kinds
