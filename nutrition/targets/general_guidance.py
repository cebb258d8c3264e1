"""What is recommended to anybody: protein, fiber, sodium, shares of the energy, reference intakes,
amino acids."""

from __future__ import annotations

from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets import energy
from nutrition.targets.amino_needs import needs_g
from nutrition.targets.body import WeightUsed
from nutrition.targets.person import LIFE_STAGE_WORDS, TWINS, Person
from nutrition.targets.pregnancy import TWIN_PROTEIN_G
from nutrition.targets.reference_intakes import SOURCE, VEGAN_FACTOR, Reference, reference_intakes
from nutrition.targets.voices import CONDITION, Statement

PROTEIN_G_PER_KG = {
    "hold": (0.8, f"RDA for adults, {SOURCE} (2005)"),
    "lose": (1.2, "common practice, no source"),
    "gain": (1.2, "common practice, no source"),
    "muscle": (1.6, "within 1.4 to 2.0 g/kg, ISSN position stand (2017)"),
}
PROTEIN_LIFE_STAGE_G_PER_KG = {"pregnant": 1.1, "lactating": 1.3}
# For who trains hard or does heavy work most days. [g/kg]
PROTEIN_VERY_ACTIVE = (1.2, 2.0)
PROTEIN_VERY_ACTIVE_SOURCE = (
    "1.2 to 2.0 g/kg, American College of Sports Medicine, Academy of Nutrition and Dietetics and "
    "Dietitians of Canada (2016), from memory"
)


# RDA at 14 to 18 years. Dietary Reference Intakes (2005), from memory. [g/kg]
PROTEIN_AT_18_G_PER_KG = 0.85


FIBER_G_PER_1000_KCAL = 14.0


SODIUM_CDRR_MG = 2300.0
SODIUM_AI_MG = 1500.0
# Share of the day's energy, least and most, and kcal per gram: acceptable macronutrient
# distribution ranges (2005).
AMDR = {
    "protein_g": (0.10, 0.35, 4.0),
    "fat_g": (0.20, 0.35, 9.0),
    "carbohydrate_g": (0.45, 0.65, 4.0),
}
SATURATED_MOST, ADDED_SUGARS_MOST = 0.10, 0.10


def amdr_g(key: str, kcal: float) -> tuple[float, float]:
    """Least and most of protein, fat or carbohydrate by its share of the energy. [g/day] from
    [kcal/day]

    References: National Academies, Dietary Reference Intakes (2005), acceptable macronutrient
    distribution ranges: protein 10 to 35 %, fat 20 to 35 %, carbohydrate 45 to 65 % of the energy.
    """
    low, high, per_g = AMDR[key]
    return low * kcal / per_g, high * kcal / per_g


def _protein(person: Person, weight: WeightUsed, kcal: float) -> list[Statement]:
    per_kg, source = PROTEIN_G_PER_KG[person.goal]
    trains = person.activity == "very_active"
    if trains and per_kg < PROTEIN_VERY_ACTIVE[0]:
        per_kg, source = PROTEIN_VERY_ACTIVE[0], PROTEIN_VERY_ACTIVE_SOURCE
    if person.age_years < energy.ADULT_FROM_YEARS and per_kg < PROTEIN_AT_18_G_PER_KG:
        per_kg, source = PROTEIN_AT_18_G_PER_KG, f"RDA at 14 to 18, {SOURCE} (2005), from memory"
    protein = per_kg * weight.kg
    most = max(amdr_g("protein_g", kcal)[1], protein * 1.1)
    reason = (
        f"{per_kg:g} g per kg x {weight.kg:.4g} kg = {protein:.0f} g at least ({weight.reason}); a "
        f"tenth more as the aim; at most 35 % of the energy."
    )
    if trains:
        most = max(most, PROTEIN_VERY_ACTIVE[1] * weight.kg)
        reason += f" Up to {PROTEIN_VERY_ACTIVE[1]:g} g per kg serve who trains hard."
    out = [
        Statement(
            key="protein_g",
            low=protein,
            aim=protein * 1.1,
            high=most,
            source=source,
            reason=reason,
        )
    ]
    stage = PROTEIN_LIFE_STAGE_G_PER_KG.get(person.life_stage.split("_")[0], 0.0)
    if stage > 0:
        least = stage * weight.kg
        words = f"{stage:g} g per kg x {weight.kg:.4g} kg = {least:.0f} g at least"
        if TWINS in person.conditions and person.life_stage in energy.GESTATION_WEEK:
            least += TWIN_PROTEIN_G
            words += f", {TWIN_PROTEIN_G:.0f} g for the second child: {least:.0f} g"
        words += f" ({weight.reason})."
        source = f"RDA for {LIFE_STAGE_WORDS[person.life_stage]}, {SOURCE} (2005), from memory"
        voice = "pregnancy" if person.pregnant else "nursing"
        out.append(
            Statement(
                key="protein_g",
                rank=CONDITION,
                voice=voice,
                low=least,
                aim=None,
                high=None,
                source=source,
                reason=words,
                priority=40,
            )
        )
    return out


def _shares_of_energy(kcal: float, carbohydrate: Reference) -> list[Statement]:
    fat, carbs = amdr_g("fat_g", kcal), amdr_g("carbohydrate_g", kcal)
    saturated, sugars = SATURATED_MOST * kcal / 9.0, ADDED_SUGARS_MOST * kcal / 4.0
    guidelines = "Dietary Guidelines for Americans 2020-2025"

    def general(
        key: str, low: float | None, aim: float, high: float, source: str, reason: str
    ) -> Statement:
        return Statement(
            key=key,
            low=low,
            aim=aim,
            high=high,
            source=source,
            reason=reason,
        )

    return [
        general(
            "fat_g",
            fat[0],
            sum(fat) / 2,
            fat[1],
            f"AMDR, {SOURCE} (2005)",
            f"20 to 35 % of {kcal:.0f} kcal at 9 kcal/g = {fat[0]:.0f} to {fat[1]:.0f} g.",
        ),
        general(
            "saturated_fat_g",
            None,
            saturated / 2,
            saturated,
            guidelines,
            f"Under 10 % of {kcal:.0f} kcal at 9 kcal/g = {saturated:.0f} g.",
        ),
        general(
            "added_sugars_g",
            None,
            0.0,
            sugars,
            guidelines,
            f"Under 10 % of {kcal:.0f} kcal at 4 kcal/g = {sugars:.0f} g; none is needed.",
        ),
        general(
            "carbohydrate_g",
            max(carbs[0], carbohydrate.value),
            max(sum(carbs) / 2, carbohydrate.value),
            max(carbs[1], carbohydrate.value),
            f"AMDR, {SOURCE} (2005)",
            f"45 to 65 % of {kcal:.0f} kcal at 4 kcal/g = {carbs[0]:.0f} to {carbs[1]:.0f} g; RDA "
            f"{carbohydrate.value:g} g.",
        ),
    ]


def _reference(person: Person, row: Reference) -> Statement:
    unit = NUTRIENT[row.key].unit
    most = f", at most {row.upper:g} {unit}" if row.upper else ""
    reason, source, value = (
        f"{row.kind} for {row.group}: {row.value:g} {unit}{most}.",
        f"{row.source}, from memory",
        row.value,
    )
    if (row.key == "iron_mg" and person.vegan_iron) or (row.key == "zinc_mg" and person.vegan_zinc):
        factor = VEGAN_FACTOR[row.key]
        value = row.value * factor
        reason = (
            f"{row.kind} for {row.group}: {row.value:g} {unit} x {factor:g} on plants "
            f"alone = {value:.3g} {unit}{most}; without the factor it is {row.value:g} {unit}."
        )
    low, aim, upper = value, value, row.upper
    if upper is not None and value > upper:
        reason += (
            f" That is above the upper level of {upper:g} {unit}, which stays: {row.value:g} "
            f"{unit} is the least, and the physician or midwife decides on a tablet."
        )
        low, aim = row.value, upper
    return Statement(
        key=row.key,
        low=low,
        aim=aim,
        high=upper,
        source=source,
        reason=reason,
    )


def general_guidance(person: Person, weight: WeightUsed, kcal: float) -> list[Statement]:
    fiber = FIBER_G_PER_1000_KCAL * kcal / 1000.0
    references = reference_intakes(person.sex, person.age_years, person.life_stage)
    out = [
        *_protein(person, weight, kcal),
        Statement(
            key="fiber_g",
            low=fiber,
            aim=fiber * 1.2,
            high=None,
            source=f"AI of 14 g per 1000 kcal, {SOURCE} (2005)",
            reason=f"14 g x {kcal:.0f} / 1000 kcal = {fiber:.0f} g at least.",
        ),
        Statement(
            key="sodium_mg",
            low=None,
            aim=SODIUM_AI_MG,
            high=SODIUM_CDRR_MG,
            source=f"AI and chronic disease risk reduction level, {SOURCE} (2019)",
            reason="1500 mg is adequate; above 2300 mg less is better.",
        ),
        *_shares_of_energy(kcal, references["carbohydrate_g"]),
        *(_reference(person, row) for row in references.values() if row.key != "carbohydrate_g"),
    ]
    for key, grams in needs_g(weight.kg).items():
        reason = (
            f"{grams / weight.kg * 1000:.0f} mg per kg x {weight.kg:.4g} kg = {grams:.2f} "
            f"g at least."
        )
        source = "WHO/FAO/UNU Technical Report 935 (2007), from memory"
        out.append(
            Statement(
                key=key,
                low=grams,
                aim=grams * 1.1,
                high=None,
                source=source,
                reason=reason,
            )
        )
    return out
