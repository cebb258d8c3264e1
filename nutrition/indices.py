"""What a serving, a bowl or a day tells beyond its nutrients. Each index is one small function."""

from __future__ import annotations

from dataclasses import dataclass

from nutrition.profile import Profile

GRAMS_PER_POUND = 453.59237
# Remer and Manz: mEq per gram of protein and per milligram of mineral.
PRAL_FACTORS = {
    "protein_g": 0.49,
    "phosphorus_mg": 0.037,
    "potassium_mg": -0.021,
    "magnesium_mg": -0.026,
    "calcium_mg": -0.013,
}
PROTEIN_KCAL_PER_G = 4.0


@dataclass(frozen=True)
class Index:
    """An index and the share of the grams over which everything it needs is known [0 to 1]."""

    value: float
    known: float


def kcal_per_gram(profile: Profile) -> float | None:
    """Calorie density. [kcal/g] None for no weight."""
    return profile["energy_kcal"].amount / profile.grams if profile.grams > 0 else None


def kcal_per_pound(profile: Profile) -> float | None:
    """Calorie density as coaches speak of it. [kcal/lb]"""
    density = kcal_per_gram(profile)
    return None if density is None else density * GRAMS_PER_POUND


def protein_per_100_kcal(profile: Profile) -> float | None:
    """Protein for the calories it comes with. [g per 100 kcal] None for a food without energy."""
    energy = profile["energy_kcal"].amount
    return profile["protein_g"].amount / energy * 100.0 if energy > 0 else None


def protein_energy_percent(profile: Profile) -> float | None:
    """Share of the energy that protein brings, at 4 kcal/g. [% of kcal]

    References: FAO Food and Nutrition Paper 77 (2003), general Atwater factors.
    """
    energy = profile["energy_kcal"].amount
    return profile["protein_g"].amount * PROTEIN_KCAL_PER_G / energy * 100.0 if energy > 0 else None


def pral(protein_g: float, phosphorus_mg: float, potassium_mg: float, magnesium_mg: float, calcium_mg: float) -> float:
    """Potential renal acid load. [mEq]

    References: Remer and Manz, J Am Diet Assoc 95:791 (1995): 0.49 protein + 0.037 P - 0.021 K - 0.026 Mg - 0.013 Ca.
    """
    values = protein_g, phosphorus_mg, potassium_mg, magnesium_mg, calcium_mg
    return sum(factor * value for factor, value in zip(PRAL_FACTORS.values(), values, strict=True))


def acid_load(profile: Profile) -> Index:
    """Potential renal acid load of what is known, and the least known share of its five parts. [mEq]"""
    parts = [profile[key] for key in PRAL_FACTORS]
    return Index(pral(*(part.amount for part in parts)), min(part.known for part in parts))


def all_indices(profile: Profile) -> dict[str, float | None]:
    """The five indices by key, as they are printed and exported."""
    return {
        "kcal_per_gram": kcal_per_gram(profile),
        "kcal_per_pound": kcal_per_pound(profile),
        "protein_per_100_kcal": protein_per_100_kcal(profile),
        "protein_energy_percent": protein_energy_percent(profile),
        "pral_meq": acid_load(profile).value,
    }
