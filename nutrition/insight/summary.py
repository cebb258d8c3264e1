"""What a serving, a bowl or a day tells: all indices of some foods at once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Amount, Profile
from nutrition.insight import indices
from nutrition.insight.glycemic import GlycemicLoad, glycemic_load, load_band
from nutrition.insight.indices import IRON_STORES_MG, Absorbed, Index
from nutrition.insight.make_up import vegetables_in
from nutrition.insight.protein_quality import MixtureScore, amino_acid_score
from nutrition.insight.variety import colors_in, distinct_plants, plate_shares, vegetable_half
from nutrition.targets.schools import PlatePart, School

# What a meal of those who train should bring, within 0.7 to 3 g. ISSN position stand (2017). [g]
LEUCINE_MEAL_G = 2.5


@dataclass(frozen=True, kw_only=True)
class Tells:
    """The indices of some foods; None where there is nothing to say."""

    density: float | None
    band: str
    drunk_g: float
    drunk_kcal: float
    phosphorus: Absorbed
    amino: MixtureScore | None
    leucine: Amount
    iron_percent: float
    iron_mg: float
    phytate_zinc: Index | None
    omega: Index | None
    glycemic: GlycemicLoad | None
    vegetables: list[str]
    colors: list[str]
    plants: list[str]
    vegetable_half: float | None
    plate: list[tuple[PlatePart, float]]
    leucine_meal_g: float = LEUCINE_MEAL_G
    iron_stores_mg: int = IRON_STORES_MG

    @property
    def limiting(self) -> str:
        """The name of the amino acid that is shortest, empty where none is known."""
        return (
            NUTRIENT[self.amino.limiting].name.lower() if self.amino and self.amino.limiting else ""
        )

    @property
    def zinc_words(self) -> str:
        return indices.zinc_uptake_words(self.phytate_zinc.value) if self.phytate_zinc else ""

    @property
    def load_band(self) -> str:
        return load_band(self.glycemic.load) if self.glycemic else ""


def tell(
    profile: Profile, ingredients: Sequence[Ingredient], school: School | None = None
) -> Tells:
    """Everything the foods tell. `profile` is their total; the school's plate is judged where there
    is a school."""
    foods = [(part.left, part.grams) for part in ingredients]
    density = indices.kcal_per_gram(profile)
    percent, taken_up = indices.iron_taken_up(profile)
    return Tells(
        density=density,
        band="" if density is None else indices.density_band(density),
        drunk_g=0.0 if profile.only_drunk else profile.drunk_g,
        drunk_kcal=profile.drunk_kcal,
        phosphorus=indices.absorbed_phosphorus(foods),
        amino=amino_acid_score(foods),
        leucine=profile["leucine_g"],
        iron_percent=percent,
        iron_mg=taken_up,
        phytate_zinc=indices.phytate_zinc_ratio(profile),
        omega=indices.omega_ratio(profile),
        glycemic=glycemic_load(foods),
        vegetables=vegetables_in(ingredients),
        colors=colors_in(ingredients),
        plants=distinct_plants(ingredients),
        vegetable_half=vegetable_half(ingredients),
        plate=plate_shares(ingredients, school.plate) if school else [],
    )
