"""Conditions, medicines, histories and texture limits, from data/conditions.toml."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, fields
from functools import lru_cache

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.tables import BadTable, needs, toml_rows
from nutrition.targets.adjustments import BadRow, FoodStance, Shift, read_shift, read_stance

KIND_WORDS = {
    "condition": "Conditions",
    "medicine": "Medicines",
    "history": "History",
    "texture": "Texture",
}


@dataclass(frozen=True, kw_only=True)
class Condition:
    """What a condition or medicine changes: targets, foods, what is watched; and to whom to turn.

    The head of data/conditions.toml says what the flags mean. `meal_protein_g_per_kg` and
    `meal_protein_most_g` are the least of protein at a meal. [g/kg], [g]
    """

    code: str
    name: str
    kind: str
    refer_to: str
    targets: tuple[Shift, ...] = ()
    foods: tuple[FoodStance, ...] = ()
    watched: tuple[str, ...] = ()
    limits_protein: bool = False
    lifts_protein_limit: bool = False
    each_meal: bool = False
    from_years: float | None = None
    meal_protein_g_per_kg: float | None = None
    meal_protein_most_g: float | None = None
    meal_protein_reason: str = ""
    counting_harms: bool = False


@lru_cache(maxsize=1)
def conditions() -> dict[str, Condition]:
    """All conditions by code, in the order of the data. A row `like` another has its numbers, and
    its own over them. Raises BadTable for a row that cannot be read, or names what is not there."""
    known = ("like", *(one.name for one in fields(Condition) if one.name != "code"))
    data = toml_rows("conditions.toml", known, ("name",))
    out: dict[str, Condition] = {}
    for code, row in data.items():
        where = f"conditions.toml, {code}"
        if row.get("like", code) not in data:
            raise BadTable(f"{where}: there is no condition “{row['like']}”", "like")
        merged = data.get(row.get("like", ""), {}) | row
        base = data.get(row.get("like", ""), {})
        needs(merged, ("kind", "refer_to"), where)
        try:
            shifts = [*base.get("targets", ()), *row.get("targets", ())]
            merged["targets"] = tuple(read_shift(shift) for shift in shifts)
            stances = [*base.get("foods", ()), *row.get("foods", ())]
            merged["foods"] = tuple(read_stance(stance) for stance in stances)
        except BadRow as error:
            raise BadTable(f"{where}: {error}", code) from None
        for shift in merged["targets"]:
            for name in (*shift.needs, *shift.void_with):
                if name not in data:
                    raise BadTable(f"{where}: there is no condition “{name}”", name)
        merged["watched"] = tuple(merged.get("watched", ()))
        for key in merged["watched"]:
            if key not in NUTRIENT:
                raise BadTable(f"{where}: there is no target “{key}” to watch", key)
        merged.pop("like", None)
        out[code] = Condition(code=code, **merged)
    return out


def those(codes: Iterable[str]) -> list[Condition]:
    """The conditions of these codes; unknown codes are left out."""
    return [conditions()[code] for code in codes if code in conditions()]


def limits_protein(codes: Iterable[str]) -> bool:
    """Whether one of these limits protein, and none lifts that limit."""
    found = those(codes)
    lifted = any(one.lifts_protein_limit for one in found)
    return not lifted and any(one.limits_protein for one in found)


def in_play(codes: Iterable[str], age_years: float) -> frozenset[str]:
    """The codes, and those that age brings by itself. Unknown codes are left out. [years]"""
    known = {code for code in codes if code in conditions()}
    by_age = {
        code
        for code, one in conditions().items()
        if one.from_years is not None and age_years > one.from_years
    }
    return frozenset(known | by_age)
