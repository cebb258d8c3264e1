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

    The head of data/conditions.toml says what the flags mean. One that is `part_of` another is a
    closer name for it; `brings` are others that come with it. `meal_protein_g_per_kg` and
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
    part_of: str = ""
    brings: tuple[str, ...] = ()
    one_of: str = ""
    holds_potassium: bool = False
    of_meal: tuple[str, ...] = ()
    doctor: str = ""
    carbohydrate_by_meal: bool = False
    group: str = ""


# What conditions are told apart by where clients are looked for, and what each is called.
GROUPS = {"kidney": "kidney", "diabetes": "diabetes", "heart": "heart and pressure"}
# What a row of numbers may need besides conditions: what is planned, and how a body is.
STATES = ("losing", "underweight", "pregnant", "nursing", "potassium_old", "phosphate_old")


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
            for name in (*shift.needs, *shift.any_of, *shift.void_with, *shift.firm_with):
                if name not in data and name not in STATES:
                    raise BadTable(f"{where}: there is no condition “{name}”", name)
        merged["watched"] = tuple(merged.get("watched", ()))
        merged["of_meal"] = tuple(merged.get("of_meal", ()))
        merged["brings"] = tuple(row.get("brings", ()))
        merged["part_of"] = row.get("part_of", "")
        for name in (*merged["brings"], merged["part_of"]):
            if name and name not in data:
                raise BadTable(f"{where}: there is no condition “{name}”", name)
        if merged.get("group", "") not in ("", *GROUPS):
            raise BadTable(f"{where}: there is no group “{merged['group']}”", "group")
        for key in (*merged["watched"], *merged["of_meal"]):
            if key not in NUTRIENT:
                raise BadTable(f"{where}: there is no target “{key}” to watch", key)
        merged.pop("like", None)
        out[code] = Condition(code=code, **merged)
    return out


def those(codes: Iterable[str]) -> list[Condition]:
    """The conditions of these codes; unknown codes are left out."""
    return [conditions()[code] for code in codes if code in conditions()]


def groups_of(codes: Iterable[str]) -> list[str]:
    """The groups that conditions of these codes are in, in their order."""
    found = {one.group for one in those(codes)}
    return [group for group in GROUPS if group in found]


def limits_protein(codes: Iterable[str]) -> bool:
    """Whether one of these limits protein, and none lifts that limit."""
    found = those(codes)
    lifted = any(one.lifts_protein_limit for one in found)
    return not lifted and any(one.limits_protein for one in found)


def in_play(codes: Iterable[str], age_years: float) -> frozenset[str]:
    """The codes, those that age brings by itself, and those that come with another: a stage is the
    disease as well. Unknown codes are left out. [years]"""
    known = {code for code in codes if code in conditions()}
    by_age = {
        code
        for code, one in conditions().items()
        if one.from_years is not None and age_years > one.from_years
    }
    out = known | by_age
    while True:
        more = {name for one in those(out) for name in (*one.brings, one.part_of) if name} - out
        if not more:
            return frozenset(out)
        out |= more


def speaking(codes: Iterable[str]) -> list[Condition]:
    """The conditions whose numbers and foods hold, in the order of the data: where there is a
    closer name for one, the closer one speaks for it."""
    found = set(codes)
    closer = {one.part_of for one in those(found)}
    return [one for code, one in conditions().items() if code in found and code not in closer]


def doctor_for(codes: Iterable[str]) -> str:
    """Whom a client turns to with these, in the client's words."""
    return next((one.doctor for one in speaking(codes) if one.doctor), "your doctor")


def holders_of_potassium(codes: Iterable[str]) -> int:
    """How many of these keep potassium in the body: a disease, a medicine."""
    return sum(one.holds_potassium for one in speaking(codes))


@lru_cache(maxsize=1)
def of_the_kidneys() -> frozenset[str]:
    """The codes of every stage of kidney disease, and of dialysis."""
    groups = ("stage of kidney disease", "kind of dialysis")
    return frozenset(code for code, one in conditions().items() if one.one_of in groups)


@lru_cache(maxsize=1)
def that_hold_potassium() -> frozenset[str]:
    """The codes of what keeps potassium in the body."""
    return frozenset(code for code, one in conditions().items() if one.holds_potassium)


# Dialysis is of failed kidneys: it goes with stage 5 and no other.
_NOT_ON_DIALYSIS = ("ckd_1", "ckd_2", "ckd_3", "ckd_3a", "ckd_3b", "ckd_4")


def clash(codes: Iterable[str]) -> str:
    """Which conditions cannot be true of one person, in words; empty if all can."""
    found = [one for code, one in conditions().items() if code in set(codes)]
    groups: dict[str, list[Condition]] = {}
    for one in found:
        if one.one_of:
            groups.setdefault(one.one_of, []).append(one)
    for what, rows in groups.items():
        # a stage with and without its letter is one stage, said twice
        apart = speaking(row.code for row in rows)
        if len(apart) > 1:
            return f"Only one {what} can be: {' and '.join(row.name for row in apart)}."
    dialysis = [one for one in found if one.one_of == "kind of dialysis"]
    early = [one for one in found if one.code in _NOT_ON_DIALYSIS]
    if dialysis and early:
        return f"{early[0].name} and {dialysis[0].name} do not go together."
    return ""
