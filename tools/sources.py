"""Read the two open data sets into our nutrient keys, per 100 g."""

from __future__ import annotations

import csv
import re
import statistics
import tomllib
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache
from pathlib import Path

Row = dict[str, float]

TYPES = {
    "sr": "sr_legacy_food",
    "fnd": "foundation_food",
    "fndds": "survey_fndds_food",
    "label": "branded_food",
}

# Several columns of the source can hold the same thing; the first that has a value counts.
COLUMNS: dict[str, tuple[str, ...]] = {
    "energy_kcal": ("Energy",),
    "protein_g": ("Protein",),
    "fat_g": ("Total fat",),
    "saturated_fat_g": ("Fatty acids, total saturated",),
    "ala_g": ("ALA",),
    "epa_g": ("EPA",),
    "dha_g": ("DHA",),
    "carbohydrate_g": ("Carbohydrate",),
    "fiber_g": ("Fiber", "Fiber (AOAC 2011.25)"),
    "sugars_g": ("Total Sugars", "Sugars, Total"),
    "calcium_mg": ("Calcium",),
    "iron_mg": ("Iron",),
    "magnesium_mg": ("Magnesium",),
    "phosphorus_mg": ("Phosphorus",),
    "potassium_mg": ("Potassium",),
    "sodium_mg": ("Sodium",),
    "zinc_mg": ("Zinc",),
    "copper_mg": ("Copper",),
    "manganese_mg": ("Manganese",),
    "selenium_ug": ("Selenium",),
    "iodine_ug": ("Iodine",),
    "vitamin_a_rae_ug": ("Vitamin A, RAE",),
    "vitamin_c_mg": ("Vitamin C",),
    "vitamin_d_ug": ("Vitamin D (D2 + D3)",),
    "vitamin_e_mg": ("Vitamin E",),
    "vitamin_k_ug": ("Vitamin K1",),
    "thiamin_mg": ("Thiamin",),
    "riboflavin_mg": ("Riboflavin",),
    "niacin_mg": ("Niacin",),
    "vitamin_b6_mg": ("Vitamin B-6",),
    "vitamin_b12_ug": ("Vitamin B-12",),
    "pantothenic_acid_mg": ("Pantothenic acid",),
    "folate_ug": ("Folate, total",),
    "choline_mg": ("Choline",),
}

# Nutrients a package must declare; the rest of a label is too patchy to take a median of.
LABEL_KEYS = (
    "energy_kcal",
    "protein_g",
    "fat_g",
    "saturated_fat_g",
    "carbohydrate_g",
    "fiber_g",
    "sugars_g",
    "sodium_mg",
    "potassium_mg",
    "calcium_mg",
    "iron_mg",
)
FORTIFIED_KEYS = (
    "vitamin_b12_ug",
    "vitamin_d_ug",
    "thiamin_mg",
    "riboflavin_mg",
    "niacin_mg",
    "vitamin_b6_mg",
)
MACROS = ("protein_g", "fat_g", "saturated_fat_g", "carbohydrate_g", "fiber_g", "sugars_g")
SMALL_SERVING_G = 30.0

# code of the second data set -> our key and the factor from its unit (g per 100 g; energy in kJ)
SECOND: dict[str, tuple[str, float]] = {
    "enerc": ("energy_kcal", 1 / 4.184),
    "water": ("water_g", 1.0),
    "protcnt": ("protein_g", 1.0),
    "fatce": ("fat_g", 1.0),
    "fasat": ("saturated_fat_g", 1.0),
    "fams": ("monounsaturated_fat_g", 1.0),
    "fapu": ("polyunsaturated_fat_g", 1.0),
    "f18d2cn6": ("linoleic_g", 1.0),
    "f18d3n3": ("ala_g", 1.0),
    "fibtg": ("fiber_g", 1.0),
    "fsugar": ("sugars_g", 1.0),
    "ca": ("calcium_mg", 1e3),
    "fe": ("iron_mg", 1e3),
    "mg": ("magnesium_mg", 1e3),
    "p": ("phosphorus_mg", 1e3),
    "k": ("potassium_mg", 1e3),
    "na": ("sodium_mg", 1e3),
    "zn": ("zinc_mg", 1e3),
    "cu": ("copper_mg", 1e3),
    "mn": ("manganese_mg", 1e3),
    "se": ("selenium_ug", 1e6),
    "vitc": ("vitamin_c_mg", 1e3),
    "tocpha": ("vitamin_e_mg", 1e3),
    "vitk1": ("vitamin_k_ug", 1e6),
    "thia": ("thiamin_mg", 1e3),
    "ribf": ("riboflavin_mg", 1e3),
    "nia": ("niacin_mg", 1e3),
    "pantac": ("pantothenic_acid_mg", 1e3),
    "vitb6c": ("vitamin_b6_mg", 1e3),
    "folsum": ("folate_ug", 1e6),
    # one twelfth of the beta-carotene equivalents is the retinol activity (DRI 2001)
    "cartbeq": ("vitamin_a_rae_ug", 1e6 / 12),
    "his": ("histidine_g", 1.0),
    "ile": ("isoleucine_g", 1.0),
    "leu": ("leucine_g", 1.0),
    "lys": ("lysine_g", 1.0),
    "met": ("methionine_g", 1.0),
    "cys": ("cystine_g", 1.0),
    "phe": ("phenylalanine_g", 1.0),
    "tyr": ("tyrosine_g", 1.0),
    "thr": ("threonine_g", 1.0),
    "trp": ("tryptophan_g", 1.0),
    "val": ("valine_g", 1.0),
    "phytac": ("phytate_mg", 1e3),
    "oxalt": ("oxalate_mg", 1e3),
}


class FirstSource:
    """Government composition data: `find(kind, description)` gives one row per 100 g."""

    def __init__(self, path: Path) -> None:
        kinds = {value: key for key, value in TYPES.items()}
        self.rows: dict[tuple[str, str], dict[str, str]] = {}
        self.labels: list[dict[str, str]] = []
        with path.open(newline="", encoding="utf-8") as file:
            for record in csv.DictReader(file):
                kind = kinds.get(record["data_type"])
                if kind is None:
                    continue
                if kind == "label":
                    self.labels.append(record)
                    continue
                # a description can occur twice: the fuller record counts
                key = (kind, record["foodName"])
                old = self.rows.get(key)
                if old is None or int(record["number_of_nutrients"]) > int(
                    old["number_of_nutrients"]
                ):
                    self.rows[key] = record

    def find(self, kind: str, description: str) -> dict[str, str]:
        return self.rows[kind, description]

    def matching(self, kind: str, pattern: re.Pattern[str]) -> Iterator[dict[str, str]]:
        for (row_kind, description), record in sorted(self.rows.items()):
            if row_kind == kind and pattern.search(description):
                yield record


@dataclass(frozen=True)
class Remembered:
    """Values per 100 g written down from memory, with their ranges where those are wide, and what
    they are of."""

    values: Row
    low: Row
    high: Row
    of: str


def from_memory(path: Path) -> dict[str, Remembered]:
    """Values by slug. A value is "key amount" or "key amount low-high"."""
    out: dict[str, Remembered] = {}
    with path.open(newline="", encoding="utf-8") as file:
        for record in csv.DictReader(file):
            row = Remembered({}, {}, {}, record["of"])
            for pair in record["values"].split("; "):
                key, amount, *span = pair.split()
                row.values[key] = float(amount)
                for ends in span:
                    least, _dash, most = ends.partition("-")
                    row.low[key], row.high[key] = float(least), float(most)
            out[record["slug"]] = row
    return out


def remembered_donors(path: Path) -> dict[str, Remembered]:
    """Plants whose amino and fatty acids were written down from memory of a published table, with
    the protein and fat they go with, by name. [g per 100 g]"""
    with path.open(newline="", encoding="utf-8") as file:
        return {
            record.pop("name"): Remembered(
                of=record.pop("of"),
                values={key: float(value) for key, value in record.items() if value},
                low={},
                high={},
            )
            for record in csv.DictReader(file)
        }


def nutrients_of(record: dict[str, str]) -> Row:
    """The record's values per 100 g in our keys; what is empty stays absent."""
    out: Row = {}
    for key, columns in COLUMNS.items():
        for column in columns:
            text = record.get(column, "")
            if text:
                out[key] = float(text)
                break
    return out


def second_source(path: Path) -> dict[str, Row]:
    """Name -> values per 100 g. A zero means "not found or not sought" there, so it is left
    absent."""
    out: dict[str, Row] = {}
    with path.open(newline="", encoding="utf-8") as file:
        for record in csv.DictReader(file):
            plain = {column.split("; ")[-1]: value for column, value in record.items()}
            row: Row = {}
            for code, (key, factor) in SECOND.items():
                value = float(plain[code] or 0) * factor
                if value > 0:
                    row[key] = value
            # its carbohydrate is the available part; ours is total, as in the first source
            row["carbohydrate_g"] = float(plain["choavldf"] or 0) + row.get("fiber_g", 0.0)
            out[plain["name"]] = row
    return out


def label_records(labels: list[dict[str, str]], kind: dict[str, object]) -> list[dict[str, str]]:
    match = re.compile(str(kind["match"]))
    exclude = re.compile(str(kind["except"])) if "except" in kind else None
    category = re.compile(str(kind["category"])) if "category" in kind else None
    low, high = kind["energy"]  # type: ignore[misc]
    out = []
    for record in labels:
        name = record["foodName"].lower()
        if not match.search(name) or (exclude and exclude.search(name)):
            continue
        if category and not category.search(record["food_category"]):
            continue
        if not record["Energy"] or not low <= float(record["Energy"]) <= high:
            continue
        b12 = float(record["Vitamin B-12"] or 0)
        if b12 < float(kind.get("vitamin_b12_ug_min", 0)) or b12 > float(
            kind.get("vitamin_b12_ug_max", 1e9)
        ):  # type: ignore[arg-type]
            continue
        out.append(record)
    return out


def label_median(
    records: list[dict[str, str]], fortified: bool, none: list[str]
) -> tuple[Row, Row, Row]:
    """Median, lower and upper tenth, per 100 g of the label records of a kind.

    A zero on a label can be a rounded-away amount (21 CFR 101.9(c)): a mineral or vitamin printed
    as zero, or a macronutrient printed as zero on a serving under 30 g, is unknown, not zero. Where
    more than three in ten records are unknown in this way, or fewer than three have a value, the
    kind's value is absent.
    """
    middle: Row = {}
    low: Row = {}
    high: Row = {}
    rows = [(nutrients_of(record), float(record["portion_gram_weight"] or 0)) for record in records]
    for key in LABEL_KEYS + (FORTIFIED_KEYS if fortified else ()):
        values, hidden = [], 0
        for row, serving in rows:
            if key not in row:
                continue
            zero = row[key] == 0
            if (
                zero
                and key in MACROS
                and serving < SMALL_SERVING_G
                or zero
                and key not in MACROS
                and key not in ("energy_kcal", "sodium_mg")
            ):
                hidden += 1
            else:
                values.append(row[key])
        minerals = key not in MACROS
        if len(values) < 3 or (not minerals and hidden > 0.3 * (hidden + len(values))):
            continue
        if minerals and hidden > len(values):
            continue
        tenths = statistics.quantiles(values, n=10, method="inclusive")
        low[key], middle[key], high[key] = tenths[0], statistics.median(values), tenths[-1]
    for key in none:
        low[key] = middle[key] = high[key] = 0.0
    return middle, low, high


# What looks ahead for words in any order, and does nothing else.
_AHEAD = re.compile(r"(?:\(\?=(?:[^()]|\([^()]*\))*\))+")


def of_any_kind(kinds: dict[str, dict[str, object]]) -> Callable[[str], bool]:
    """Whether a lower-cased name is one of any kind, to read the many labels once."""
    # one that looks ahead from the start sees all that it would see from anywhere else
    patterns = [
        re.compile(f"\\A{match}" if _AHEAD.fullmatch(match) else match)
        for match in dict.fromkeys(str(kind["match"]) for kind in kinds.values())
    ]

    @cache
    def wanted(name: str) -> bool:
        return any(pattern.search(name) for pattern in patterns)

    return wanted


def label_kinds(path: Path) -> dict[str, dict[str, object]]:
    return tomllib.loads(path.read_text(encoding="utf-8"))
