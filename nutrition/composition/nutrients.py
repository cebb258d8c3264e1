"""Which nutrients there are, their units, order and display decimals."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, kw_only=True)
class Nutrient:
    """One nutrient of the table: `key` ends in its unit, `decimals` is for display only."""

    key: str
    name: str
    unit: str
    group: str
    decimals: int

    def said(self, value: float) -> str:
        """An amount of it with its unit: "1,200 mg"."""
        return f"{value:,.{self.decimals}f} {self.unit}"


def _read(group: str, lines: str) -> list[Nutrient]:
    out = []
    for line in lines.strip().splitlines():
        key, name, unit, decimals = (part.strip() for part in line.split("|"))
        out.append(Nutrient(key=key, name=name, unit=unit, group=group, decimals=int(decimals)))
    return out


NUTRIENTS: tuple[Nutrient, ...] = tuple(
    _read(
        "main",
        """
        energy_kcal | Energy | kcal | 0
        water_g | Water | g | 0
        protein_g | Protein | g | 1
        fat_g | Fat | g | 1
        saturated_fat_g | Saturated fat | g | 1
        monounsaturated_fat_g | Monounsaturated fat | g | 1
        polyunsaturated_fat_g | Polyunsaturated fat | g | 1
        linoleic_g | Linoleic acid (omega-6) | g | 2
        ala_g | Alpha-linolenic acid (omega-3) | g | 2
        epa_g | EPA | g | 3
        dha_g | DHA | g | 3
        carbohydrate_g | Carbohydrate | g | 1
        fiber_g | Fiber | g | 1
        sugars_g | Sugars | g | 1
        added_sugars_g | Added sugars | g | 1
        """,
    )
    + _read(
        "minerals",
        """
        calcium_mg | Calcium | mg | 0
        iron_mg | Iron | mg | 1
        magnesium_mg | Magnesium | mg | 0
        phosphorus_mg | Phosphorus | mg | 0
        potassium_mg | Potassium | mg | 0
        sodium_mg | Sodium | mg | 0
        zinc_mg | Zinc | mg | 1
        copper_mg | Copper | mg | 2
        manganese_mg | Manganese | mg | 2
        selenium_ug | Selenium | µg | 1
        iodine_ug | Iodine | µg | 0
        """,
    )
    + _read(
        "vitamins",
        """
        vitamin_a_rae_ug | Vitamin A (RAE) | µg | 0
        vitamin_c_mg | Vitamin C | mg | 0
        vitamin_d_ug | Vitamin D | µg | 1
        vitamin_e_mg | Vitamin E | mg | 1
        vitamin_k_ug | Vitamin K | µg | 0
        thiamin_mg | Thiamin (B1) | mg | 2
        riboflavin_mg | Riboflavin (B2) | mg | 2
        niacin_mg | Niacin (B3) | mg | 1
        vitamin_b6_mg | Vitamin B6 | mg | 2
        vitamin_b12_ug | Vitamin B12 | µg | 1
        pantothenic_acid_mg | Pantothenic acid | mg | 1
        folate_ug | Folate | µg | 0
        choline_mg | Choline | mg | 0
        """,
    )
    + _read(
        "amino acids",
        """
        histidine_g | Histidine | g | 2
        isoleucine_g | Isoleucine | g | 2
        leucine_g | Leucine | g | 2
        lysine_g | Lysine | g | 2
        methionine_g | Methionine | g | 2
        cystine_g | Cystine | g | 2
        phenylalanine_g | Phenylalanine | g | 2
        tyrosine_g | Tyrosine | g | 2
        threonine_g | Threonine | g | 2
        tryptophan_g | Tryptophan | g | 2
        valine_g | Valine | g | 2
        """,
    )
    + _read(
        "other",
        """
        phytate_mg | Phytate | mg | 0
        oxalate_mg | Oxalate | mg | 0
        """,
    )
)

# What has a target of its own though no food row carries it: sums of amino acids that stand in for
# each other, and indices.
DERIVED: tuple[Nutrient, ...] = tuple(
    _read(
        "amino acids",
        """
        methionine_cystine_g | Methionine with cystine | g | 2
        phenylalanine_tyrosine_g | Phenylalanine with tyrosine | g | 2
        """,
    )
    + _read(
        "indices",
        """
        kcal_per_gram | Calorie density | kcal/g | 2
        pral_meq | Acid load (PRAL) | mEq | 0
        """,
    )
)
SUMS: dict[str, tuple[str, ...]] = {
    "methionine_cystine_g": ("methionine_g", "cystine_g"),
    "phenylalanine_tyrosine_g": ("phenylalanine_g", "tyrosine_g"),
}

NUTRIENT: dict[str, Nutrient] = {n.key: n for n in (*NUTRIENTS, *DERIVED)}
KEYS: tuple[str, ...] = tuple(n.key for n in NUTRIENTS)
AMINO_ACIDS: tuple[str, ...] = tuple(n.key for n in NUTRIENTS if n.group == "amino acids")
