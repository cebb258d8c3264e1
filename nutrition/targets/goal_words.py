"""A goal of one's own for a meal, as it is typed: "25 g protein, at most 450 kcal"."""

from __future__ import annotations

import difflib
import re
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from nutrition.composition.amounts import DENSITY
from nutrition.composition.errors import CoreError
from nutrition.composition.label_units import KJ_PER_KCAL, SALT_PER_SODIUM
from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets.aim import Aim
from nutrition.targets.scope import BOTH, LEAST, scopes

# What a goal of one's own weighs, as much as energy and protein do. Common practice, no source.
WEIGHT = 3.0
# What is named without a side and counts on both is met within so much. Common practice, no
# source. [share]
ABOUT = 0.05
MOST_GOALS, LIKE = 8, 0.75
TO_MG = {"g": 1000.0, "mg": 1.0, "µg": 0.001}
UNITS = {
    **dict.fromkeys(("g", "gram", "grams"), "g"),
    **dict.fromkeys(("kcal", "cal", "calorie", "calories"), "kcal"),
    **dict.fromkeys(("µg", "ug", "mcg"), "µg"),
    "mg": "mg",
    "kj": "kJ",
    "kcal/g": "kcal/g",
}
OTHER_NAMES = {
    **dict.fromkeys(("carb", "carbohydrates"), "carbohydrate_g"),
    **dict.fromkeys(("calorie", "kcal"), "energy_kcal"),
    **dict.fromkeys(("sat fat", "saturated"), "saturated_fat_g"),
    **dict.fromkeys(("density", "calorie density"), DENSITY),
    "fibre": "fiber_g",
    "sugar": "sugars_g",
    "omega-3": "ala_g",
    "phosphate": "phosphorus_mg",
    "b12": "vitamin_b12_ug",
    "b6": "vitamin_b6_mg",
}
SALT = "salt"
HIGHS = (
    r"\b(at most|up to|no more than|not more than|not over|maximum|max|under|below|less than)\b"
    r"|<=|≤|<"
)
LOWS = (
    r"\b(at least|no less than|not less than|not under|minimum|min|from|over|above|more than)\b"
    r"|>=|≥|>"
)
ABOUTS = r"\b(about|around|exactly)\b|~"
SIDES = (("high", HIGHS), ("low", LOWS), ("about", ABOUTS))
_NUMBER = r"\d+(?:[.,]\d+)?"
_AMOUNT = re.compile(rf"({_NUMBER})(?:\s*(?:-|–|to)\s*({_NUMBER}))?\s*(kcal/g|[a-zµ]+)?")


class UnreadGoal(CoreError):
    """A piece of a goal that is not read, in words that say what would be."""

    def __init__(self, message: str) -> None:
        super().__init__(message, "goal")


@dataclass(frozen=True)
class Wanted:
    """What is wanted of a key: between a least and a most, None for an open one. In its unit."""

    key: str
    low: float | None
    high: float | None

    @property
    def words(self) -> str:
        nutrient = NUTRIENT[self.key]
        name, said = nutrient.name[:1].lower() + nutrient.name[1:], nutrient.said
        if self.low is not None and self.high is not None:
            return f"{name} {said(self.low)} to {said(self.high)}"
        side, value = ("at least", self.low) if self.low is not None else ("at most", self.high)
        return f"{name} {side} {said(value or 0.0)}"


def read_goal(text: str) -> tuple[Wanted, ...]:
    """What is wanted, in the order it is typed; nothing for nothing. Raises UnreadGoal."""
    said = text.lower().replace("μ", "µ")
    pieces = [one.strip() for one in re.split(r";|,(?!\d)|\band\b|\n|\+", said) if one.strip()]
    if len(pieces) > MOST_GOALS:
        raise UnreadGoal(f"No more than {MOST_GOALS} at once.")
    out = [_read(piece) for piece in pieces]
    keys = [one.key for one in out]
    twice = next((one for one in keys if keys.count(one) > 1), None)
    if twice is not None:
        raise UnreadGoal(f"{NUTRIENT[twice].name} stands there twice: write it once.")
    return tuple(out)


def _read(piece: str) -> Wanted:
    rest, side = piece.replace(":", " "), ""
    for name, pattern in SIDES:
        if re.search(pattern, rest):
            rest, side = re.sub(pattern, " ", rest), side or name
    amounts = list(_AMOUNT.finditer(rest))
    # a vitamin's own number is no amount
    found = next((one for one in amounts if not re.search(r"[a-z]$", rest[: one.start()])), None)
    if found is None or len(amounts) > 2:
        raise UnreadGoal(f"“{piece}” is not read: write it like “25 g protein, at most 450 kcal”.")
    unit = UNITS.get(found[3] or "", "")
    words = [rest[: found.start()], "" if unit else found[3] or "", rest[found.end() :]]
    name = re.sub(r"^of\b|\.$", "", " ".join(" ".join(words).split())).strip()
    key, factor = _key(name, unit, piece)
    ends = [_number(one) * factor for one in (found[1], found[2]) if one]
    if len(ends) == 2 and ends[0] > ends[1]:
        raise UnreadGoal(f"“{piece}”: the least is over the most.")
    return Wanted(key, *ends) if len(ends) == 2 else _sided(key, ends[0], side)


def _number(said: str) -> float:
    """A number; "1,500" is a thousand and a half, and "1.500" is asked about."""
    if re.fullmatch(r"\d{1,3},\d{3}", said):
        return float(said.replace(",", ""))
    if re.fullmatch(r"[1-9]\d{0,2}\.\d{3}", said):
        raise UnreadGoal(f"{said}: is that {said.replace('.', '')}, or {float(said):g}?")
    return float(said.replace(",", "."))


def _sided(key: str, value: float, side: str) -> Wanted:
    """One number: on the side that is named, or on the one that counts of it."""
    counts = scopes()[key].side
    if side == "about" or (not side and counts == BOTH and key != DENSITY):
        return Wanted(key, value * (1.0 - ABOUT), value * (1.0 + ABOUT))
    if side == "low" or (not side and counts == LEAST):
        return Wanted(key, value, None)
    return Wanted(key, None, value)


def _key(name: str, unit: str, piece: str) -> tuple[str, float]:
    """The key that is meant, and what its unit is of the one that was typed."""
    if unit == "kcal/g":
        return DENSITY, 1.0
    if unit in ("kcal", "kJ") and name in ("", "energy", "calories"):
        return "energy_kcal", 1.0 if unit == "kcal" else 1.0 / KJ_PER_KCAL
    if not name:
        raise UnreadGoal(f"“{piece}”: of what? Name it, as in “25 g protein”.")
    if name == SALT and unit in TO_MG:
        return "sodium_mg", TO_MG[unit] / SALT_PER_SODIUM
    key = names().get(name) or names().get(name.removesuffix("s"))
    if key is None:
        near = difflib.get_close_matches(name, names(), 1, LIKE)
        ask = f" Did you mean {near[0]}?" if near else ""
        raise UnreadGoal(f"There is no target called “{name}”.{ask}")
    own = NUTRIENT[key].unit
    if not unit and own in ("kcal", "kcal/g"):
        return key, 1.0
    if unit == own:
        return key, 1.0
    if unit in TO_MG and own in TO_MG:
        return key, TO_MG[unit] / TO_MG[own]
    asked = f"in {own}" if own else "as a plain number"
    raise UnreadGoal(f"“{piece}”: {NUTRIENT[key].name.lower()} is given {asked}.")


@lru_cache(maxsize=1)
def names() -> Mapping[str, str]:
    """What a target may be called, in lower case, with its key."""
    own = {row.name.lower().split(" (")[0]: key for key, row in NUTRIENT.items()}
    return own | OTHER_NAMES


def with_goal(aims: Sequence[Aim], wanted: Collection[Wanted]) -> tuple[Aim, ...]:
    """The aims with what is wanted in the place of theirs; what is never broken of theirs stays.
    Raises UnreadGoal for what does not fit with that."""
    by_key = {one.key: one for one in wanted}
    out = []
    for aim in aims:
        own = by_key.pop(aim.key, None)
        out.append(aim if own is None else _within(aim, own))
    return (*out, *(_aim(one) for one in by_key.values()))


def _aim(one: Wanted) -> Aim:
    bounds = [end for end in (one.low, one.high) if end is not None]
    return Aim(
        key=one.key, low=one.low, aim=sum(bounds) / len(bounds), high=one.high, weight=WEIGHT
    )


def _within(aim: Aim, one: Wanted) -> Aim:
    high = aim.high if aim.firm_high else None
    low = aim.low if aim.firm_low else None
    name, unit = NUTRIENT[aim.key].name, NUTRIENT[aim.key].unit
    if high is not None and one.low is not None and one.low > high:
        raise UnreadGoal(f"{name}: no more than {high:,.4g} {unit} may be, whatever is wished for.")
    if low is not None and one.high is not None and one.high < low:
        raise UnreadGoal(f"{name}: no less than {low:,.4g} {unit} may be, whatever is wished for.")
    highs = [end for end in (one.high, high) if end is not None]
    lows = [end for end in (one.low, low) if end is not None]
    made = _aim(Wanted(aim.key, max(lows, default=None), min(highs, default=None)))
    return replace(
        made, firm_low=aim.firm_low, firm_high=aim.firm_high, ordered=aim.ordered, of_day=False
    )
