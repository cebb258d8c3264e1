"""The amount of anything that can have a target: a nutrient, a sum of them, or an index, each with
its range."""

from __future__ import annotations

from collections.abc import Iterable

from nutrition.composition.nutrients import SUMS
from nutrition.composition.profile import Amount, Profile

DENSITY = "kcal_per_gram"
# Remer and Manz: mEq per gram of protein and per milligram of mineral.
PRAL_FACTORS = {
    "protein_g": 0.49,
    "phosphorus_mg": 0.037,
    "potassium_mg": -0.021,
    "magnesium_mg": -0.026,
    "calcium_mg": -0.013,
}


def amount_of(profile: Profile, key: str) -> Amount:
    """The amount of a nutrient, of a sum in SUMS, of "kcal_per_gram" [kcal/g] or "pral_meq" [mEq];
    range in quadrature. The density is of the food, without what is drunk beside it.

    Raises KeyError for another key.
    """
    if key in SUMS:
        return _weighted((profile[part], 1.0) for part in SUMS[key])
    if key == "pral_meq":
        return _weighted(
            ((profile[part], factor) for part, factor in PRAL_FACTORS.items()), below_zero=True
        )
    if key == DENSITY:
        energy, grams, drunk = profile["energy_kcal"], profile.grams or float("inf"), 0.0
        if not profile.only_drunk:
            # what is drunk beside it fills nobody: it is said by itself
            grams, drunk = grams - profile.drunk_g, profile.drunk_kcal
        return Amount(
            amount=(energy.amount - drunk) / grams,
            low=max(energy.low - drunk, 0.0) / grams,
            high=(energy.high - drunk) / grams,
            known=energy.known,
            unknown_lines=energy.unknown_lines,
            lines=energy.lines,
            missing=energy.missing,
            could_add=energy.could_add / grams,
        )
    return profile[key]


def _weighted(parts: Iterable[tuple[Amount, float]], below_zero: bool = False) -> Amount:
    value = down = up = could_add = 0.0
    amounts = []
    for part, factor in parts:
        amounts.append(part)
        value += part.amount * factor
        could_add += part.could_add * abs(factor)
        less, more = (part.amount - part.low) * factor, (part.high - part.amount) * factor
        if factor < 0:
            less, more = -more, -less
        down, up = down + less**2, up + more**2
    low = value - down**0.5
    return Amount(
        amount=value,
        low=low if below_zero else max(low, 0.0),
        high=value + up**0.5,
        known=min(part.known for part in amounts),
        unknown_lines=max(part.unknown_lines for part in amounts),
        lines=amounts[0].lines,
        missing=amounts[0].missing,
        could_add=could_add,
    )
