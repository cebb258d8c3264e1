"""The claims on the front of a package held to their definitions, from data/label_claims.toml."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.tables import BadTable, toml_rows
from nutrition.labels.ingredients import Ingredients
from nutrition.labels.label import ReadLabel
from nutrition.labels.regional_claims import (
    AMOUNTS,
    BY_NUTRIENT,
    BY_REGION,
    OF_THEIR_OWN,
    by_region,
)
from nutrition.labels.rounding import Printed, label_values
from nutrition.labels.verdicts import FAILS, HOLDS, OPEN
from nutrition.written.wording import uncapitalized

# A serving so small is held to the limits per 50 g too. [g]
SMALL_SERVING, SMALL_BASE = 30.0, 50.0
_LIMITS = ("most", "under", "most_percent", "energy_percent")
_KEYS = (
    *_LIMITS,
    *BY_REGION,
    *("said", "small", "none_of", "compares", "also", "undefined", "nutrient", "discloses"),
    *("no_allergen", "no_oats", "no_animals", "anywhere", "one_of", "source"),
)
# Which table of claims is whose law, by the kind of label.
_TABLES = {
    "us": "label_claims.toml",
    "europe": "label_claims_europe.toml",
    "australia": "label_claims_australia.toml",
    "india": "label_claims_india.toml",
}
_KCAL_PER_G_FAT = 9.0
REGION_WORDS = {
    "us": "the United States",
    "europe": "the European Union",
    "australia": "Australia and New Zealand",
    "india": "India",
}
# How nutrients are called on the front of a package.
_CALLED = {
    "protein": "protein_g",
    "fiber": "fiber_g",
    "fibre": "fiber_g",
    "calcium": "calcium_mg",
    "iron": "iron_mg",
    "potassium": "potassium_mg",
    "magnesium": "magnesium_mg",
    "zinc": "zinc_mg",
    "selenium": "selenium_ug",
    "iodine": "iodine_ug",
    "vitamin a": "vitamin_a_rae_ug",
    "vitamin c": "vitamin_c_mg",
    "vitamin d": "vitamin_d_ug",
    "vitamin e": "vitamin_e_mg",
    "vitamin k": "vitamin_k_ug",
    "vitamin b12": "vitamin_b12_ug",
    "b12": "vitamin_b12_ug",
    "vitamin b6": "vitamin_b6_mg",
    "folate": "folate_ug",
    "folic acid": "folate_ug",
    "riboflavin": "riboflavin_mg",
    "thiamin": "thiamin_mg",
    "niacin": "niacin_mg",
    "phosphorus": "phosphorus_mg",
    "choline": "choline_mg",
}


@dataclass(frozen=True, kw_only=True)
class Verdict:
    """A claim, what it is taken as, whether it holds, and why, with the rule's source."""

    claim: str
    taken_as: str
    holds: str
    why: str
    source: str


@lru_cache(maxsize=8)
def claim_rules(kind: str = "us") -> dict[str, Mapping[str, Any]]:
    """The rules of the region that a kind of label is of, and those that are nobody's law. Raises
    BadTable for one that cannot be read."""
    table = _TABLES[kind]
    rows = toml_rows(table, _KEYS, ("said", "source"))
    for name, row in rows.items():
        try:
            re.compile(row["said"])
        except re.error:
            raise BadTable(f"{table}, {name}: no expression", "said") from None
        for key in {key for limit in (*_LIMITS, *AMOUNTS) for key in row.get(limit, {})}:
            if key not in label_values():
                raise BadTable(f"{table}, {name}: labels print no {key}", key)
    if kind == "us":
        return rows
    everywhere = {name: row for name, row in claim_rules().items() if row.get("anywhere")}
    return rows | everywhere


def held(claims: str, read: ReadLabel, listed: Ingredients) -> list[Verdict]:
    """Each claim, between commas, semicolons or lines, held to every definition that it falls
    under; one that falls under none says so."""
    out, kind = [], read.label.kind
    for claim in re.split(r"[,;\n\u2022]+", claims):
        claim = " ".join(claim.split())[:80]
        if not claim:
            continue
        verdicts = list(_verdicts(claim, read, listed))
        out += verdicts or [
            Verdict(
                claim=claim,
                taken_as="",
                holds=OPEN,
                why=f"no definition of it is known here in the law of {REGION_WORDS[kind]}: the "
                f"words alone promise nothing",
                source="",
            )
        ]
    return out


def _verdicts(claim: str, read: ReadLabel, listed: Ingredients) -> Iterator[Verdict]:
    said, told = claim.lower(), set()
    for name, row in claim_rules(read.label.kind).items():
        match = re.search(row["said"], said)
        if match is None:
            continue
        of_nutrient = not BY_NUTRIENT.isdisjoint(row)
        key = _nutrient(match) if of_nutrient else ""
        if (of_nutrient and not key) or (key in OF_THEIR_OWN and read.label.kind != "us"):
            continue
        # "excellent source" is judged by its own rule, and not by that of a good source as well
        once = row.get("one_of", ""), key
        if once[0] and once in told:
            continue
        told.add(once)
        findings = list(_findings(row, key, read, listed))
        said_so = {one for one, _why in findings}
        worst = next((one for one in (FAILS, OPEN, HOLDS) if one in said_so), OPEN)
        why = "; ".join(text for one, text in findings if one == worst)
        if row.get("also") and worst == HOLDS:
            why += f"; {row['also']}"
        yield Verdict(claim=claim, taken_as=name, holds=worst, why=why, source=row["source"])


def _nutrient(match: re.Match[str]) -> str:
    groups = match.groupdict()
    what = (groups.get("what") or groups.get("what2") or "").strip()
    found = [name for name in _CALLED if re.search(rf"\b{name}\b", what)]
    return _CALLED[max(found, key=len)] if found else ""


def _findings(
    row: Mapping[str, Any], key: str, read: ReadLabel, listed: Ingredients
) -> Iterator[tuple[str, str]]:
    if row.get("undefined"):
        yield FAILS, row["undefined"]
    if row.get("compares"):
        yield OPEN, f"asks for {row['compares']}: look for it on the package"
    if key and "nutrient" in row:
        yield _share_of_day(key, float(row["nutrient"]), read)
    yield from by_region(row, key, read)
    for limit in _LIMITS:
        for name, number in row.get(limit, {}).items():
            verdict, why = _limit(limit, name, float(number), read, bool(row.get("small")))
            if row.get("discloses") and verdict == FAILS:
                yield OPEN, f"{why}; {row['discloses']}"
            else:
                yield verdict, why
    yield from _in_the_list(row, listed)


def _in_the_list(row: Mapping[str, Any], listed: Ingredients) -> Iterator[tuple[str, str]]:
    if not ({"none_of", "no_allergen", "no_animals"} & set(row)):
        return
    if not listed.given:
        yield OPEN, "its ingredient list is not entered"
        return
    if listed.unread:
        # what nobody could read may be anything
        unread = ", ".join(listed.unread[:3])
        yield OPEN, f"“{unread}” could not be read: what it is of cannot be told"
    for kind in row.get("none_of", ()):
        names = listed.classes.get(kind, ())
        if names:
            yield FAILS, f"{kind}: {', '.join(names)}"
        else:
            yield HOLDS, f"no {kind} in its list"
    for allergen in row.get("no_allergen", ()):
        names = listed.allergens.get(allergen, ())
        if allergen == "gluten" and listed.gluten_of_oats_alone and not row.get("no_oats"):
            yield OPEN, f"{', '.join(names)}: oats must have been kept apart from wheat"
        elif names:
            yield FAILS, f"{allergen}: {', '.join(names)}"
        else:
            yield HOLDS, f"no {allergen} in its list"
    if row.get("no_animals"):
        found = [name for names in listed.animals.values() for name in names]
        perhaps = listed.classes.get("may animal", ())
        if found:
            yield FAILS, f"from animals: {', '.join(found)}"
        elif perhaps:
            yield OPEN, f"may be from animals: {', '.join(perhaps)}; the maker knows"
        else:
            yield HOLDS, "nothing from animals in its list"


def _share_of_day(key: str, least: float, read: ReadLabel) -> tuple[str, str]:
    name, daily = uncapitalized(NUTRIENT[key].name), label_values()[key].daily_value
    one = read.per_serving.get(key)
    if one is None or daily is None:
        return OPEN, f"the label's {name} is not entered"
    percent = one.amount / daily * 100.0
    said = f"{percent:.0f} % of the daily value of {name} a serving; it takes {least:g} %"
    if key == "protein_g":
        # the percentage of protein counts its quality, which the label need not print
        verdict = OPEN if percent >= least else FAILS
        return verdict, f"{said}, reckoned by the protein's quality"
    return (HOLDS if percent >= least else FAILS), said


def _limit(limit: str, key: str, number: float, read: ReadLabel, small: bool) -> tuple[str, str]:
    name, unit = uncapitalized(NUTRIENT[key].name), NUTRIENT[key].unit
    one = read.per_serving.get(key)
    if one is None:
        return OPEN, f"the label's {name} is not entered"
    if limit == "energy_percent":
        energy = read.per_serving["energy_kcal"].amount
        share = one.amount * _KCAL_PER_G_FAT / energy * 100.0 if energy > 0 else 0.0
        return (
            HOLDS if share <= number else FAILS,
            f"{share:.0f} % of its calories are {name}; at most {number:g} %",
        )
    if limit == "most_percent":
        number = (label_values()[key].daily_value or 0.0) * number / 100.0
    base = "a serving"
    if small and read.serving_g.amount <= SMALL_SERVING:
        one, base = one.times(SMALL_BASE / read.serving_g.amount), "50 g, as its serving is small"
    strict = limit == "under"
    said = (
        f"{one.amount:.3g} {unit} {name} in {base}; "
        f"{'less than' if strict else 'at most'} {number:g} {unit}"
    )
    if _within(one, number, strict):
        return HOLDS, said
    if (one.low < number) if strict else (one.low <= number):
        return OPEN, f"{said}: what is printed may hide either"
    return FAILS, said


def _within(one: Printed, number: float, strict: bool) -> bool:
    """Whether what is printed keeps to the limit; a zero may be printed only where the rule of
    “free” holds."""
    return one.amount < number if strict else one.amount <= number + 1e-9
