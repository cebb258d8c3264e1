"""Reference intakes of an adult by sex, age and life stage, from data/reference_intakes.csv."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.tables import csv_rows

# At 18 the values of 14 to 18 hold.
AGE_GROUPS = (71, 51, 31, 19, 14)
SPAN = {14: "14 to 18", 19: "19 to 30", 31: "31 to 50", 51: "51 to 70", 71: "over 70"}
# What a plant-only diet asks for: iron from plants is taken up less, and phytate holds zinc back.
# References: National Academies, Dietary Reference Intakes (2001): iron x 1.8, zinc up to x 1.5.
VEGAN_FACTOR = {"iron_mg": 1.8, "zinc_mg": 1.5}
PREGNANT_OVER_30 = {"magnesium_mg": 360.0}
LACTATING_OVER_30 = {"magnesium_mg": 320.0}
PREGNANT_UPPER = {"phosphorus_mg": 3500.0}
SOURCE = "National Academies, Dietary Reference Intakes"


@dataclass(frozen=True, kw_only=True)
class Reference:
    """One reference intake per day: RDA or AI, and the upper level where there is one for food. In
    the key's unit."""

    key: str
    kind: str
    value: float
    upper: float | None
    source: str
    group: str


def age_group(age_years: float) -> int:
    """The first year of the age group: 14, 19, 31, 51 or 71."""
    return next((first for first in AGE_GROUPS if age_years >= first), AGE_GROUPS[-1])


def group_words(sex: str, age_years: float, life_stage: str) -> str:
    """ "women of 51 to 70", "pregnancy, 31 to 50" """
    first = age_group(age_years)
    span = SPAN[first]
    who = {"male": "men", "female": "women"}[sex]
    if life_stage.startswith("pregnant"):
        return f"pregnancy, {span}"
    if life_stage.startswith("lactating"):
        return f"nursing, {span}"
    return f"{who} {span}" if first == 71 else f"{who} of {span}"


STAGES = {"pregnant": PREGNANT_OVER_30, "lactating": LACTATING_OVER_30}
COLUMNS = (
    *("key", "kind", "source"),
    *(f"{sex}_{first}" for sex in ("male", "female") for first in reversed(AGE_GROUPS)),
    *("pregnant_14", "pregnant", "lactating_14", "lactating"),
    *("upper_14", "upper", "upper_51", "upper_71"),
)


@lru_cache(maxsize=1)
def _rows() -> tuple[dict[str, str], ...]:
    return tuple(csv_rows("reference_intakes.csv", COLUMNS))


def _value(row: dict[str, str], sex: str, first: int, life_stage: str) -> float:
    stage = life_stage.split("_")[0]
    if stage not in STAGES:
        return float(row[f"{sex}_{first}"])
    if first > 19 and row["key"] in STAGES[stage]:
        return STAGES[stage][row["key"]]
    return float(row[f"{stage}_14" if first == 14 else stage])


def reference_intakes(
    sex: str, age_years: float, life_stage: str = "adult"
) -> dict[str, Reference]:
    """The day's reference intakes by nutrient key. [each key's unit per day]

    Upper levels that hold for supplements or preformed vitamins only (magnesium, folate, niacin,
    vitamins A and E) are left out: food does not reach them.

    References: National Academies, Dietary Reference Intakes, 1997 to 2019; the values are from
    memory.
    """
    first = age_group(age_years)
    words = group_words(sex, age_years, life_stage)
    out = {}
    for row in _rows():
        key = row["key"]
        stated = row[{14: "upper_14", 51: "upper_51", 71: "upper_71"}.get(first, "upper")]
        upper = float(stated) if stated else None
        if life_stage.startswith("pregnant"):
            upper = PREGNANT_UPPER.get(key, upper)
        out[key] = Reference(
            key=key,
            kind=row["kind"],
            value=_value(row, sex, first, life_stage),
            upper=upper,
            source=f"{SOURCE}, {row['source'].removeprefix('DRI ')}",
            group=words,
        )
    return out
