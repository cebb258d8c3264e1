"""What a serving, a bowl or a day tells beyond its nutrients. Each index is one small function."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from nutrition.composition.amounts import DENSITY, PRAL_FACTORS, amount_of
from nutrition.composition.food_classes import classes_of
from nutrition.composition.foods import Food
from nutrition.composition.profile import Known, Profile

GRAMS_PER_POUND = 453.59237
PROTEIN_KCAL_PER_G = 4.0
# Upper edges of the bands of calorie density. [kcal/g] From memory.
DENSITY_BANDS = ((0.6, "very low"), (1.6, "low"), (4.0, "medium"))
# Share of phosphorus absorbed: best, least, most [0 to 1]. Kalantar-Zadeh et al. (2010), from
# memory.
PHOSPHORUS_ABSORBED = {
    "plant": (0.50, 0.40, 0.60),
    "animal": (0.60, 0.40, 0.70),
    "additive": (0.95, 0.90, 1.00),
}
# Non-heme iron taken up by stores [mg]: percent with nothing to help it, and the factor of the
# logarithm.
# the stores that those who watch are taken to have, of the three that were tabled. [mg]
IRON_STORES_MG = 500
IRON_UPTAKE = {0: (5.0, 26.8), 250: (4.0, 14.296), 500: (3.0, 8.93)}
MOST_ENHANCING = 75.0
PHYTATE_G_PER_MOL, ZINC_G_PER_MOL = 660.04, 65.38
PHYTATE_ZINC_BANDS = ((5.0, "good zinc uptake"), (15.0, "moderate zinc uptake"))


@dataclass(frozen=True)
class Index(Known):
    """An index and the share of the grams over which everything it needs is known [0 to 1]."""

    value: float
    known: float


def kcal_per_gram(profile: Profile) -> float | None:
    """Calorie density of the food, without what is drunk beside it. [kcal/g] None for no weight."""
    return amount_of(profile, DENSITY).amount if profile.grams > 0 else None


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


def pral(
    protein_g: float,
    phosphorus_mg: float,
    potassium_mg: float,
    magnesium_mg: float,
    calcium_mg: float,
) -> float:
    """Potential renal acid load. [mEq]

    References: Remer and Manz, J Am Diet Assoc 95:791 (1995): 0.49 protein + 0.037 P - 0.021 K -
    0.026 Mg - 0.013 Ca.
    """
    values = protein_g, phosphorus_mg, potassium_mg, magnesium_mg, calcium_mg
    return sum(factor * value for factor, value in zip(PRAL_FACTORS.values(), values, strict=True))


def acid_load(profile: Profile) -> Index:
    """Potential renal acid load of what is known, and the least known share of its five parts.
    [mEq]"""
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


def density_band(density: float) -> str:
    """ "very low", "low", "medium" or "high" calorie density. From [kcal/g]

    References: Rolls, The Volumetrics Eating Plan (2005): under 0.6, 0.6 to 1.5, 1.6 to 3.9, 4 to 9
    kcal/g; from memory.
    """
    return next((name for edge, name in DENSITY_BANDS if density < edge), "high")


@dataclass(frozen=True, kw_only=True)
class Absorbed(Known):
    """Phosphorus that is likely taken up, with its range, the total it comes from [mg], and the
    share of the grams known [0 to 1]."""

    amount: float
    low: float
    high: float
    total: float
    known: float


def absorbed_phosphorus(foods: Iterable[tuple[Food, float]]) -> Absorbed:
    """What is taken up of the phosphorus of foods and their grams [g]: about half from plants,
    nearly all of additives. [mg]

    A food that may hold phosphate additives has the additive's share as the upper end of its range.

    References: Kalantar-Zadeh et al., Clin J Am Soc Nephrol 5:519 (2010), from memory; the half
    from plants is also common practice.
    """
    best = low = high = total = weight = known = 0.0
    for food, grams in foods:
        weight += grams
        per_100 = food.per_100_g("phosphorus_mg")
        if per_100 is None:
            continue
        known += grams
        milligrams = per_100 * grams / 100.0
        kinds = classes_of(food)
        kind = (
            "additive"
            if "phosphate additive" in kinds
            else "animal"
            if food.comparator
            else "plant"
        )
        likely, least, most = PHOSPHORUS_ABSORBED[kind]
        if "may hold phosphate additives" in kinds:
            most = PHOSPHORUS_ABSORBED["additive"][2]
        best, low, high = (
            best + likely * milligrams,
            low + least * milligrams,
            high + most * milligrams,
        )
        total += milligrams
    return Absorbed(
        amount=best, low=low, high=high, total=total, known=known / weight if weight > 0 else 0.0
    )


def monsen_balintfy(enhancing: float, stores_mg: int = IRON_STORES_MG) -> float:
    """Share of non-heme iron taken up. [%] from enhancing factors (mg vitamin C plus g meat, here
    vitamin C alone) and iron stores of 0, 250 or 500 [mg].

    Holds for one meal; over 75 enhancing factors nothing is added. Phytate, tea and calcium are not
    in it and lower it. Raises KeyError for other stores, ValueError for less than nothing.

    References: Monsen and Balintfy, J Am Diet Assoc 80:307 (1982); for 500 mg stores: 3 + 8.93
    ln((EF + 100) / 100).
    """
    if enhancing < 0:
        raise ValueError("enhancing factors cannot be below zero")
    least, factor = IRON_UPTAKE[stores_mg]
    return least + factor * math.log((min(enhancing, MOST_ENHANCING) + 100.0) / 100.0)


def iron_taken_up(profile: Profile, stores_mg: int = IRON_STORES_MG) -> tuple[float, float]:
    """Share [%] and amount [mg] of a plant meal's iron that is taken up, by its vitamin C."""
    percent = monsen_balintfy(profile["vitamin_c_mg"].amount, stores_mg)
    return percent, percent / 100.0 * profile["iron_mg"].amount


def phytate_zinc_ratio(profile: Profile) -> Index | None:
    """Molar ratio of phytate to zinc, and the share of the grams over which both are known [0 to
    1]. None without zinc.

    References: World Health Organization, Trace Elements in Human Nutrition (1996): under 5 good, 5
    to 15 moderate, over 15 poor uptake; from memory.
    """
    phytate, zinc = profile["phytate_mg"], profile["zinc_mg"]
    if zinc.amount <= 1e-9 or phytate.known <= 0:
        return None
    ratio = (phytate.amount / PHYTATE_G_PER_MOL) / (zinc.amount / ZINC_G_PER_MOL)
    return Index(ratio, min(phytate.known, zinc.known))


def zinc_uptake_words(ratio: float) -> str:
    return next((words for edge, words in PHYTATE_ZINC_BANDS if ratio < edge), "poor zinc uptake")


def omega_ratio(profile: Profile) -> Index | None:
    """Omega-6 to omega-3: linoleic acid over ALA, EPA and DHA. None without omega-3. No target:
    common practice is 4 or less."""
    omega_3 = [profile[key] for key in ("ala_g", "epa_g", "dha_g")]
    total = sum(part.amount for part in omega_3)
    linoleic = profile["linoleic_g"]
    return (
        Index(linoleic.amount / total, min(linoleic.known, omega_3[0].known)) if total > 0 else None
    )
