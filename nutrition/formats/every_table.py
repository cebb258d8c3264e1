"""Every table of the data folder, read: what cannot be used is known at the start, not when a rule
does not fire."""

from __future__ import annotations

from nutrition.composition.animal_foods import animal_foods
from nutrition.composition.cooking import check_tables as cooking_tables
from nutrition.composition.dish_names import dish_kinds
from nutrition.composition.food_classes import food_classes
from nutrition.composition.food_mosts import food_mosts
from nutrition.composition.food_search import food_index
from nutrition.composition.foods import food_table
from nutrition.insight.glycemic import glycemic_index
from nutrition.insight.variety import color_of
from nutrition.planning.additions import additions
from nutrition.planning.skeleton import check_skeletons
from nutrition.planning.skeleton_words import skeleton_words
from nutrition.prep.buying import check_sold
from nutrition.prep.keeping import keeping_kinds
from nutrition.recipe.kitchen_notes import senses
from nutrition.safety.caution_rules import rules
from nutrition.swaps.library import library
from nutrition.targets.conditions import conditions
from nutrition.targets.reference_intakes import reference_intakes
from nutrition.targets.schools import schools


def read_every_table() -> None:
    """Raises CoreError for the first table that cannot be used, naming table, row and key."""
    food = next(iter(food_table()))
    food_index()
    animal_foods()
    food_classes()
    food_mosts()
    cooking_tables()
    conditions()
    schools()
    reference_intakes("female", 30.0)
    rules()
    senses()
    library()
    keeping_kinds()
    check_sold()
    additions()
    dish_kinds()
    skeleton_words()
    check_skeletons()
    glycemic_index(food.slug)
    color_of(food)
