"""Consistency of composition rows: does a food's energy, mass and make-up hang together?

Every row of the table is held against these; the rows that fail for a good reason are named, with
the reason, in data/exceptions.csv.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping

ATWATER_SHARE = 0.15
ATWATER_FLOOR_KCAL = 8.0
MASS_LOW_G, MASS_HIGH_G = 94.0, 106.0


def atwater_kcal(row: Mapping[str, float]) -> float | None:
    """Energy per 100 g by the general factors 4, 4, 9 with fiber at 2. [kcal]

    Carbohydrate is total by difference, so the fiber in it counts 2 and the rest 4.

    References: FAO Food and Nutrition Paper 77 (2003), general Atwater factors and 2 kcal/g for
    fiber.
    """
    try:
        protein, fat, carbohydrate = row["protein_g"], row["fat_g"], row["carbohydrate_g"]
    except KeyError:
        return None
    fiber = row.get("fiber_g", 0.0)
    return 4 * protein + 9 * fat + 4 * (carbohydrate - fiber) + 2 * fiber


def faults(row: Mapping[str, float]) -> Iterator[tuple[str, str]]:
    """The checks this row of values per 100 g fails, each with what was seen."""
    energy, expected = row.get("energy_kcal"), atwater_kcal(row)
    if energy is not None and expected is not None:
        off = abs(energy - expected)
        if off > ATWATER_SHARE * max(energy, expected) and off > ATWATER_FLOOR_KCAL:
            yield "energy", f"{energy:.0f} kcal stated, {expected:.0f} by 4-4-9-2"
    parts = [row.get(key) for key in ("water_g", "protein_g", "fat_g", "carbohydrate_g")]
    if all(part is not None for part in parts):
        total = sum(part or 0.0 for part in parts)
        # the minerals are part of the 100 g too: salt is nearly all ash
        total += (
            sum(row.get(key, 0.0) for key in ("potassium_mg", "sodium_mg", "calcium_mg"))
            / 1000.0
            * 2.4
        )
        if not MASS_LOW_G <= total <= MASS_HIGH_G:
            yield "mass", f"water, protein, fat, carbohydrate and minerals come to {total:.0f} g"
    if row.get("saturated_fat_g", 0.0) > row.get("fat_g", 1e9) * 1.02 + 0.05:
        yield "saturated", f"saturated {row['saturated_fat_g']:.2f} g of {row['fat_g']:.2f} g fat"
    if "carbohydrate_g" in row:
        inside = row.get("sugars_g", 0.0) + row.get("fiber_g", 0.0)
        if inside > row["carbohydrate_g"] * 1.05 + 0.5:
            yield (
                "carbohydrate",
                f"sugars and fiber {inside:.1f} g of {row['carbohydrate_g']:.1f} g",
            )
