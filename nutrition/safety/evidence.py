"""What a caution says it stands because of: the foods, and the numbers that its rule compared, in
words."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from nutrition.composition.nutrients import NUTRIENT
from nutrition.written.wording import uncapitalized

# What a rule compares and nobody needs to read: switches, and lines that its text has already.
_UNSAID = (
    *("blood_", "logged_", "whole_day", "potassium_holders", "day_meals", "meals", "soft_"),
    *("low_carbohydrate", "hardly_any", "protein_least", "stomach_", "surgery_", "heart_water"),
    *("belly_water", "dialysis_water", "vitamin_k_swing", "vitamin_k_alone", "allergies_by_word"),
    *("outside_equation", "refeeding", "floored", "gain_known", "weight_before_missing"),
)
_PLAIN_NUMBERS = {
    "meal_most_ml": ("largest meal", "mL"),
    "meal_most_fast_sugar_g": ("most sugar without fiber in a meal", "g"),
    "vitamin_k_habit_ug": ("vitamin K of a usual day", "µg"),
    "energy_available": ("energy left for a kg of fat-free mass", "kcal"),
    "unplanned_loss_percent": ("weight lost", "%"),
    "caffeine_mg": ("caffeine", "mg"),
    "fast_sugar_g": ("sugar without fiber", "g"),
    "vitamin_k2_ug": ("vitamin K2", "µg"),
    "iodine_likely_ug": ("likely iodine", "µg"),
}


def because_of(
    compared: Iterable[str], names: Sequence[str], numbers: Mapping[str, float]
) -> tuple[str, ...]:
    """The foods, and the numbers that were `compared`, by name, in words."""
    out = list(names)
    for side in compared:
        value = numbers.get(side)
        if value is None or side.startswith(_UNSAID):
            continue
        begins, _line, key = side.partition("_")
        if side in _PLAIN_NUMBERS:
            name, unit = _PLAIN_NUMBERS[side]
        elif begins == "g":
            name, unit = key, "g"
        elif key.removeprefix("most_") in NUTRIENT:
            nutrient = NUTRIENT[key.removeprefix("most_")]
            name = f"{uncapitalized(nutrient.name)} of the {begins}"
            unit = nutrient.unit
        else:
            name, unit = side.replace("_", " "), ""
        figure = f"{value:,.0f}" if abs(value) >= 100 else f"{value:.3g}"
        out.append(f"{name} {figure} {unit}".strip())
    return tuple(dict.fromkeys(out))
