"""Allergens the food table marks, and where they turn up in a list of foods."""

from collections.abc import Iterable

from nutrition.composition.foods import Food

ALLERGENS = (
    "soy",
    "gluten",
    "tree nuts",
    "peanut",
    "sesame",
    "mustard",
    "celery",
    "lupin",
    "milk",
    "egg",
)


def found_in(foods: Iterable[Food], refused: Iterable[str]) -> dict[str, list[str]]:
    """Each refused allergen that is there, with the names of the foods that hold it."""
    wanted = set(refused)
    out: dict[str, list[str]] = {}
    for food in foods:
        for allergen in food.allergens:
            if allergen in wanted and food.name not in out.setdefault(allergen, []):
                out[allergen].append(food.name)
    return {allergen: names for allergen, names in out.items() if names}
