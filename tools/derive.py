"""The steps that make a derived value of the food table: rinsed, drained, salted, dried. Each
returns the row it was given, changed, and a note for the food's row."""

from __future__ import annotations

from sources import Row

# What the first source adds to a vegetable cooked "with salt", mg sodium per 100 g: its seven pairs
# of rows with and without salt differ by 235 or 236.
SALT_ADDED_MG = 236.0

# Ash from the five large minerals (g ash per g mineral), fitted to the 200 plant foods of the
# second source, which gives both: median miss 0.15 g per 100 g, 95 in 100 within 1.2 g. Sodium as
# table salt.
ASH_PER_MINERAL = {
    "potassium_mg": 2.06e-3,
    "sodium_mg": 2.54e-3,
    "calcium_mg": 2.60e-3,
    "magnesium_mg": 2.22e-3,
    "phosphorus_mg": 1.54e-3,
}

# Grams of cooked food from a gram of dry, from pairs of rows in the first source (protein dry /
# protein cooked): beans and lentils 2.4 to 2.7, whole grains 2.6 to 3.4, pasta 2.2 to 2.5. By
# group; single foods below.
COOKED_PER_DRY = {"legume": 2.5, "grain": 2.8, "pasta": 2.3, "soy": 2.5}
COOKED_PER_DRY_OF = {
    "rolled-oats-dry": 5.5,
    "steel-cut-oats-dry": 4.5,
    "soy-mince-dry": 3.0,
    "tapioca-pearls-dry": 3.0,
    "red-lentils-dry": 2.9,
    "split-mung-beans-dry": 2.9,
    "black-rice-dry": 2.5,
    "red-rice-dry": 2.7,
    "lupini-beans-dry": 2.3,
    "fonio-dry": 3.3,
}
LOST_IN_COOKING = (
    "vitamin_c_mg",
    "thiamin_mg",
    "folate_ug",
    "pantothenic_acid_mg",
    "vitamin_b6_mg",
    "riboflavin_mg",
)

# Duyff, Mount and Jones 2011 (from memory): sodium of canned beans falls by 36 % when drained, 41 %
# when rinsed too.
# Of potassium the rinse takes a little too: chickpeas 126 to 109 mg, kidney beans 250 to 234 mg,
# from memory of US government composition data, SR Legacy.
RINSED_TO_DRAINED_POTASSIUM = 0.9
RINSED_TO_DRAINED_SODIUM = (1 - 0.41) / (1 - 0.36)


def ash_g(row: Row) -> float:
    """Ash per 100 g, from the minerals that are known. [g]"""
    return sum(factor * row.get(key, 0.0) for key, factor in ASH_PER_MINERAL.items())


def water_by_difference(row: Row) -> float | None:
    """Water per 100 g where the source has none: what is left after protein, fat, carbohydrate and
    ash. [g]"""
    parts = [row.get(key) for key in ("protein_g", "fat_g", "carbohydrate_g")]
    if any(part is None for part in parts) or "potassium_mg" not in row:
        return None
    water = 100.0 - sum(part or 0.0 for part in parts) - ash_g(row)
    return max(water, 0.0) if water > -3.0 else None


# From this share of the parts' weight on, a nutrient that is known of them is known of the whole.
KNOWN_OF_PARTS = 0.9


def without_added_salt(row: Row) -> str:
    row["sodium_mg"] = max(row["sodium_mg"] - SALT_ADDED_MG, 0.0)
    return f"sodium less the {SALT_ADDED_MG:.0f} mg of salt the source adds"


# What margarine, butter and oil bring besides fat, taken from the plant itself where it is known.
OF_THE_FAT = (
    "saturated_fat_g",
    "monounsaturated_fat_g",
    "polyunsaturated_fat_g",
    "linoleic_g",
    "ala_g",
    "epa_g",
    "dha_g",
)
WITH_THE_FAT = (
    "vitamin_a_rae_ug",
    "vitamin_d_ug",
    "vitamin_e_mg",
    "vitamin_k_ug",
    "vitamin_b12_ug",
)


def without_added_fat(row: Row, donor: Row, name: str) -> str:
    """The survey cooks some vegetables and beans in fat without saying so; take it off at 9 kcal/g
    and bring the rest to 100 g.

    The plant's own fat, its fatty acids and fat-soluble vitamins are taken per gram of protein from
    the same plant. Raises ValueError where there is no added fat to take off.
    """
    ratio = row["protein_g"] / donor["protein_g"]
    own = donor["fat_g"] * ratio
    added = row["fat_g"] - own
    if added < 1.0:
        raise ValueError(f"{name}: {added:.1f} g of fat more than its own is nothing to take off")
    row["energy_kcal"] -= 9.0 * added
    row["fat_g"] = own
    for key in (*OF_THE_FAT, *WITH_THE_FAT):
        row.pop(key, None)
        if key in donor:
            row[key] = donor[key] * ratio
    row.pop("water_g", None)
    for key in row:
        row[key] *= 100.0 / (100.0 - added)
    return (
        f"{added:.1f} g of added fat taken off; fat, its acids and vitamins A, E and K per "
        f"g protein from {name}"
    )


def sodium_from(row: Row, donor: Row, name: str) -> str:
    """The source salts its cooked dishes; the plant's own sodium is taken per gram of protein."""
    if "sodium_mg" in donor and donor.get("protein_g"):
        row["sodium_mg"] = donor["sodium_mg"] * row["protein_g"] / donor["protein_g"]
    else:
        row.pop("sodium_mg", None)
    return f"sodium per g protein from {name}"


def fill_from(row: Row, donor: Row, name: str) -> str:
    """What a label does not state, taken from the same plant per gram of protein."""
    if not donor.get("protein_g"):
        raise ValueError(f"{name} has no protein to borrow by")
    ratio = row["protein_g"] / donor["protein_g"]
    filled = []
    for key in (
        "calcium_mg",
        "iron_mg",
        "magnesium_mg",
        "phosphorus_mg",
        "potassium_mg",
        "zinc_mg",
        "copper_mg",
        "manganese_mg",
        "selenium_ug",
    ):
        if key not in row and key in donor:
            row[key] = donor[key] * ratio
            filled.append(key.rsplit("_", 1)[0])
    return f"{', '.join(filled)} per g protein from {name}" if filled else ""


def parts_of(description: str) -> list[tuple[str, float]]:
    """The parts of "almonds 25; cashews 20", each with its grams in 100 g of the food."""
    pairs = (part.strip().rsplit(" ", 1) for part in description.split(";"))
    return [(slug, float(grams)) for slug, grams in pairs]


def of_parts(parts: list[tuple[str, Row, float]]) -> Row:
    """The sum of named parts, in grams per 100 g of the food; what is not known of a part that
    weighs in is not known of the whole. What is left to 100 g is water, or was water that went."""
    out: Row = {}
    total = sum(grams for _slug, _row, grams in parts)
    keys = {key for _slug, row, _grams in parts for key in row}
    for key in sorted(keys):
        known = sum(grams for _slug, row, grams in parts if key in row)
        if known >= KNOWN_OF_PARTS * total:
            out[key] = sum(row.get(key, 0.0) * grams for _slug, row, grams in parts) / 100.0
    if "water_g" in out:
        out["water_g"] = max(out["water_g"] + 100.0 - total, 0.0)
    return out


def cooked_from(donor: Row, slug: str, group: str, factor: str) -> tuple[Row, str]:
    """Cooked in water that is all taken up: the dry row spread over the cooked weight, `factor`
    grams of it from one where that is given; heat-sensitive vitamins unknown."""
    name = slug
    grams = float(factor) if factor else COOKED_PER_DRY_OF.get(slug, COOKED_PER_DRY[group])
    row = {
        key: value / grams
        for key, value in donor.items()
        if key not in LOST_IN_COOKING and key != "water_g"
    }
    return (
        row,
        f"computed from {name}: 1 g dry gives {grams:g} g cooked; heat-sensitive vitamins unknown",
    )


# Water of a dry bean or grain. Common practice, no source. [g per 100 g]
DRY_WATER_G = 9.0


def dried(cooked: Row, factor: float) -> tuple[Row, str]:
    """The dry bean from the source's row of it cooked at home, where no dry row was measured:
    `factor` grams cooked hold what one gram dry does. What heat destroys is unknown, and so is
    sodium, which the source salts."""
    row = {
        key: value * factor
        for key, value in cooked.items()
        if key not in LOST_IN_COOKING and key not in ("water_g", "sodium_mg")
    }
    row["water_g"] = DRY_WATER_G
    return row, f"computed from the row cooked from dry: 1 g gives {factor:g} g cooked"


# What a gram of canned, drained beans holds against a gram cooked at home: dry matter, and of what
# leaches into the can's water the share that stays besides. Ratios of the measured pairs of
# chickpeas, kidney and pinto beans, from memory of US government composition data, SR Legacy.
CANNED_DRY_MATTER = 0.87
CANNED_LEFT = {
    "potassium_mg": 0.66,
    "phosphorus_mg": 0.82,
    "magnesium_mg": 0.82,
    "iron_mg": 0.87,
    "zinc_mg": 0.87,
    "copper_mg": 0.85,
    "folate_ug": 0.35,
    "thiamin_mg": 0.45,
    "riboflavin_mg": 0.6,
    "niacin_mg": 0.6,
    "vitamin_b6_mg": 0.5,
    "pantothenic_acid_mg": 0.6,
    "vitamin_c_mg": 0.3,
}
# Of canned, drained beans with salt, the middle of the measured ones. [mg per 100 g]
CANNED_SODIUM_MG = {"": 240.0, "reduced": 130.0, "no-salt": 10.0}


def canned_from(donor: Row, name: str, salt: str) -> tuple[Row, str]:
    """A canned, drained bean from the one cooked at home, where no canned row was measured. `salt`
    is a key of CANNED_SODIUM_MG. Raises KeyError."""
    row = {
        key: value * CANNED_DRY_MATTER * CANNED_LEFT.get(key, 1.0)
        for key, value in donor.items()
        if key != "water_g"
    }
    row["water_g"] = 100.0 - CANNED_DRY_MATTER * (100.0 - donor.get("water_g", 65.0))
    row["sodium_mg"] = CANNED_SODIUM_MG[salt]
    return row, f"computed from {name}: dry matter x {CANNED_DRY_MATTER:g}, minerals leached"


def rinsed_from(donor: Row, name: str) -> tuple[Row, str]:
    row = dict(donor)
    row["sodium_mg"] = donor["sodium_mg"] * RINSED_TO_DRAINED_SODIUM
    row["potassium_mg"] = donor["potassium_mg"] * RINSED_TO_DRAINED_POTASSIUM
    return (
        row,
        f"computed from {name}: sodium x {RINSED_TO_DRAINED_SODIUM:.2f} for the rinse (Duyff 2011, "
        f"from memory)",
    )


def hydrate(row: Row, water_percent: float) -> str:
    """The source gives this bean at 0 % moisture; bring it to the water of a dry bean. [g per 100
    g]"""
    for key in list(row):
        row[key] *= 1 - water_percent / 100.0
    row["water_g"] = water_percent
    return f"source row at 0 % moisture, brought to {water_percent:g} % water"


def pure_mineral(row: Row) -> str:
    """A salt has no energy, protein, fat or carbohydrate, whether or not anyone measured it."""
    for key in (
        "energy_kcal",
        "protein_g",
        "fat_g",
        "saturated_fat_g",
        "carbohydrate_g",
        "fiber_g",
        "sugars_g",
    ):
        row.setdefault(key, 0.0)
    return ""
