"""Say grams in a measure a cook can use: "1 1/4 cups", "2 tbsp", "3 medium"."""

from __future__ import annotations

from dataclasses import dataclass

from nutrition.foods import ML_PER_CUP, Food

FRACTIONS = ((0.0, ""), (0.25, "1/4"), (1 / 3, "1/3"), (0.5, "1/2"), (2 / 3, "2/3"), (0.75, "3/4"), (1.0, ""))
SPOON_FRACTIONS = ((0.0, ""), (0.25, "1/4"), (0.5, "1/2"), (0.75, "3/4"), (1.0, ""))
COUNTED = ("medium", "slice", "clove", "sheet", "leaf", "piece", "block")
TBSP_PER_CUP, TSP_PER_CUP = 16.0, 48.0
COUNT_FIT = 0.12


@dataclass(frozen=True)
class Spoken:
    """An amount in words, and the grams those words stand for. [g]"""

    words: str
    grams: float


def fraction(value: float, steps: tuple[tuple[float, str], ...] = FRACTIONS) -> tuple[float, str]:
    """The nearest amount a measuring set can give, as number and words: 1.3 is (1.333, "1 1/3")."""
    whole = int(value)
    part, words = min(steps, key=lambda step: abs(step[0] - (value - whole)))
    if part == 1.0:
        whole, part, words = whole + 1, 0.0, ""
    said = " ".join(text for text in (str(whole) if whole or not words else "", words) if text)
    return whole + part, said


def spoken(food: Food, grams: float) -> Spoken | None:
    """The household measure nearest to `grams` of a food; None when no measure of it is known. [g]"""
    if grams <= 0:
        return None
    for measure in COUNTED:
        portion = next((row for row in food.portions if row.measure == measure), None)
        if portion is None or grams < portion.grams * 0.4:
            continue
        count, words = fraction(grams / portion.grams, ((0.0, ""), (0.5, "1/2"), (1.0, "")))
        if count > 0 and count <= 12 and abs(count * portion.grams - grams) <= COUNT_FIT * grams:
            plural = measure + ("s" if count > 1 and measure not in ("medium", "leaf") else "")
            return Spoken(f"{words} {'leaves' if measure == 'leaf' and count > 1 else plural}", count * portion.grams)
    for measure, most in (("tsp", 3.0), ("tbsp", 4.0)):
        # a spoon that was weighed for itself, before a share of a cup
        spoon = next((row for row in food.portions if row.measure == measure and not row.form), None)
        if spoon is not None and 0.12 <= grams / spoon.grams < most:
            value, words = fraction(max(grams / spoon.grams, 0.25), SPOON_FRACTIONS)
            return Spoken(f"{words} {measure}", spoon.grams * value)
    return by_volume(grams / food.cup.grams * ML_PER_CUP, grams) if food.cup else None


def by_volume(volume_ml: float, grams: float) -> Spoken | None:
    """A volume in cups, tablespoons or teaspoons, with the grams of that rounded measure. [mL], [g]"""
    cups = volume_ml / ML_PER_CUP
    if cups >= 0.22:
        value, words = fraction(cups)
        unit = "cup" if value <= 1 else "cups"
        return Spoken(f"{words} {unit}", grams * value / cups)
    if cups * TBSP_PER_CUP >= 0.9:
        value, words = fraction(cups * TBSP_PER_CUP, SPOON_FRACTIONS)
        return Spoken(f"{words} tbsp", grams * value / (cups * TBSP_PER_CUP))
    spoons = cups * TSP_PER_CUP
    if spoons >= 0.12:
        value, words = fraction(max(spoons, 0.25), SPOON_FRACTIONS)
        return Spoken(f"{words} tsp", grams * value / spoons)
    return Spoken("a pinch", grams) if spoons > 0 else None


def step_g(food: Food) -> float:
    """The kitchen-sized step for changing a portion of it: a piece, a quarter cup, or a tablespoon. [g]"""
    for measure in ("slice", "sheet", "piece"):
        portion = next((row for row in food.portions if row.measure == measure), None)
        if portion is not None and portion.grams >= 2:
            return portion.grams
    if food.cup is None:
        return 5.0
    spoon = food.role in ("sauce", "topping")
    return food.cup.grams / (TBSP_PER_CUP if spoon else 4.0)
