"""The numbers at hand where something is to be said: those that are known, and those that the foods
give by themselves."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from functools import lru_cache

import numpy as np

from nutrition.composition.allergies import sees_no_more
from nutrition.composition.fluid import fluid_ml
from nutrition.composition.food_classes import classes_of, food_classes
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import KEYS
from nutrition.composition.other_substances import carried_by
from nutrition.composition.profile import INDEX
from nutrition.safety.fast_sugar import fast_sugar_g
from nutrition.targets.conditions import holders_of_potassium

# What of the foods in question themselves a rule may look at.
FOOD_NUMBERS = (
    *("sugars_g", "carbohydrate_g", "sodium_mg", "potassium_mg", "phosphorus_mg"),
    *("vitamin_k_ug", "protein_g", "oxalate_mg", "iron_mg", "calcium_mg"),
)


@lru_cache(maxsize=512)
def _holders(codes: frozenset[str]) -> float:
    return float(holders_of_potassium(codes))


def numbers_at_hand(
    conditions: frozenset[str],
    allergies: Collection[str],
    known: Mapping[str, float],
    foods: Sequence[Ingredient] | None,
) -> dict[str, float]:
    """The numbers that are known, and those that the foods give by themselves: grams of a kind,
    what they bring as far as it is known, and what no column holds. None for no foods."""
    by_word = [code for code in sorted(allergies) if sees_no_more(code)]
    numbers = {
        "potassium_holders": _holders(conditions),
        "whole_day": 0.0,
        "vitamin_k_habit_ug": 0.0,
        "heart_water": 0.0,
        "allergies_by_word": float(len(by_word)),
    }
    numbers |= known
    if foods is not None:
        total = sum(
            (np.nan_to_num(part.left.values) * part.grams / 100.0 for part in foods),
            np.zeros(len(KEYS)),
        )
        numbers |= {f"food_{key}": float(total[INDEX[key]]) for key in FOOD_NUMBERS}
        numbers |= carried_by(foods)
        numbers["fluid_ml"] = fluid_ml(foods)
        numbers["fast_sugar_g"] = sum(map(fast_sugar_g, foods))
        grams: dict[str, float] = {}
        for part in foods:
            for name in classes_of(part.food):
                grams[name] = grams.get(name, 0.0) + part.grams
        numbers |= {f"g_{name}": grams.get(name, 0.0) for name in food_classes()}
    return numbers | _against_the_habit(numbers) | _of_the_meals_planned(numbers)


# Under so much carbohydrate a day medicines that lower blood sugar, or hide ketones, are a danger;
# under the second hardly any dose fits. [g/day] Common practice, no source.
LOW_CARBOHYDRATE_G, HARDLY_ANY_G = 130.0, 50.0


def _of_the_meals_planned(numbers: Mapping[str, float]) -> dict[str, float]:
    """Lines of the day as far as its meals are planned: half a day is held to half of them."""
    planned, meals = numbers.get("day_meals", 0.0), numbers.get("meals", 0.0)
    share = min(planned / meals, 1.0) if meals > 0 else 1.0
    out = {
        "low_carbohydrate_g": LOW_CARBOHYDRATE_G * share,
        "hardly_any_carbohydrate_g": HARDLY_ANY_G * share,
    }
    if "protein_least_g" in numbers:
        out["protein_least_so_far_g"] = numbers["protein_least_g"] * share
    return out


def _against_the_habit(numbers: Mapping[str, float]) -> dict[str, float]:
    """How many times what is usual, or its inverse where that is more, a day's vitamin K is; and
    what is looked at alone."""
    habit = numbers["vitamin_k_habit_ug"]
    if habit <= 0:
        return {}
    out = {"vitamin_k_alone": numbers.get("food_vitamin_k_ug", 0.0) / habit}
    if "day_vitamin_k_ug" in numbers:
        times = max(numbers["day_vitamin_k_ug"], 1.0) / habit
        out["vitamin_k_swing"] = max(times, 1.0 / times)
    return out
