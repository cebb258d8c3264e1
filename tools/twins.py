"""Rows of one food in several states held against each other, per gram of dry matter: dry and
cooked, cooked and canned, raw and frozen. What does not hold is listed with its reason."""

from __future__ import annotations

import csv
from collections.abc import Iterator
from pathlib import Path

from nutrition.composition.foods import Food, food_table

EXCEPTIONS = Path(__file__).resolve().parent / "twin_exceptions.csv"
KEYS = ("energy_kcal", "protein_g", "potassium_mg", "phosphorus_mg", "iron_mg")
# How much of it there may be, per gram of dry matter, in the second of a pair against the first:
# least and most by nutrient. Energy and protein stay; minerals leach into water that is poured off
# and differ from soil to soil. Common practice, no source.
BOUNDS: dict[str, dict[str, tuple[float, float]]] = {
    "cooked": {
        "energy_kcal": (0.85, 1.15),
        "protein_g": (0.82, 1.22),
        "potassium_mg": (0.55, 1.20),
        "phosphorus_mg": (0.65, 1.25),
        "iron_mg": (0.60, 1.40),
    },
    "canned": {
        "energy_kcal": (0.85, 1.15),
        "protein_g": (0.80, 1.22),
        "potassium_mg": (0.35, 0.95),
        "phosphorus_mg": (0.50, 1.10),
        "iron_mg": (0.55, 1.40),
    },
    "frozen": {
        "energy_kcal": (0.82, 1.18),
        "protein_g": (0.78, 1.25),
        "potassium_mg": (0.40, 1.25),
        "phosphorus_mg": (0.65, 1.30),
        "iron_mg": (0.55, 1.60),
    },
}
# The states of a pair: what the first ends with, what the second ends with, and which bounds hold.
PAIRS = (
    ("-dry", "-cooked", "cooked"),
    ("-raw", "-cooked", "cooked"),
    ("-cooked", "-canned-drained", "canned"),
    ("-raw", "-frozen", "frozen"),
)


def dry_matter(food: Food) -> float | None:
    """What is not water. [g per 100 g] None where the water is not known."""
    water = food.per_100_g("water_g")
    return None if water is None or water > 99.0 else 100.0 - water


def twins() -> Iterator[tuple[Food, Food, str]]:
    """Two states of one food, and by which bounds they are held."""
    table = food_table()
    for food in table:
        for first, second, kind in PAIRS:
            other = f"{food.slug.removesuffix(first)}{second}"
            if food.slug.endswith(first) and other in table:
                yield food, table[other], kind


def misses(first: Food, second: Food, kind: str) -> dict[str, float]:
    """By nutrient, how much the second has of what the first has per gram of dry matter, where that
    is out of bounds."""
    dry, other = dry_matter(first), dry_matter(second)
    out: dict[str, float] = {}
    if dry is None or other is None:
        return out
    for key in KEYS:
        a, b = first.per_100_g(key), second.per_100_g(key)
        if a is None or b is None or not a:
            continue
        ratio = (b / other) / (a / dry)
        least, most = BOUNDS[kind][key]
        if not least <= ratio <= most:
            out[key] = ratio
    return out


def listed() -> dict[tuple[str, str], dict[str, str]]:
    """The pairs that are known not to hold, by their slugs."""
    with EXCEPTIONS.open(newline="", encoding="utf-8") as file:
        return {(row["first"], row["second"]): row for row in csv.DictReader(file)}


def said(found: dict[str, float]) -> str:
    """Misses in words: "iron 1.82, potassium 0.41"."""
    return ", ".join(f"{key.rsplit('_', 1)[0]} {ratio:.2f}" for key, ratio in found.items())
