"""Rows of data that schools and conditions have in common: numbers laid over a target, and what
they say of foods."""

from __future__ import annotations

from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass
from typing import Any

from nutrition.composition.errors import CoreError
from nutrition.composition.food_classes import food_classes
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.tables import BadTable, only
from nutrition.targets.voices import Statement

PER = ("day", "kg", "1000 kcal", "percent of energy")
STANCES = ("avoid", "limit", "favor")
KCAL_PER_G = {
    "protein_g": 4.0,
    "carbohydrate_g": 4.0,
    "sugars_g": 4.0,
    "added_sugars_g": 4.0,
} | dict.fromkeys(
    (
        "fat_g",
        "saturated_fat_g",
        "monounsaturated_fat_g",
        "polyunsaturated_fat_g",
        "linoleic_g",
        "ala_g",
    ),
    9.0,
)
NUMBER_WORDS = {"low": "the least", "aim": "the aim", "high": "the most"}
COMMON_PRACTICE = "common practice"


def is_published(source: str) -> bool:
    """Whether a published source stands behind all of a line, and no part of it is common
    practice."""
    return COMMON_PRACTICE not in source


class BadRow(CoreError):
    """A row of a school or condition that cannot be used; the message names what is wrong in it."""


@dataclass(frozen=True, kw_only=True)
class Shift:
    """Numbers laid over one target, per day, per kg of the weight used, per 1000 kcal, or as a
    share of the energy [%]."""

    key: str
    per: str
    low: float | None
    aim: float | None
    high: float | None
    reason: str
    source: str
    needs: tuple[str, ...] = ()
    any_of: tuple[str, ...] = ()
    void_with: tuple[str, ...] = ()
    replaces: bool = False
    priority: int = 0
    voice: str = ""
    beside: bool = False
    firm_with: tuple[str, ...] = ()

    @property
    def published(self) -> bool:
        """Whether a source is named for it, rather than common practice."""
        return is_published(self.source)

    def holds(self, conditions: Set[str]) -> bool:
        return (
            set(self.needs) <= conditions
            and (not self.any_of or not conditions.isdisjoint(self.any_of))
            and conditions.isdisjoint(self.void_with)
        )

    def statement(
        self, rank: int, voice: str, kg: float, kcal: float, have: Set[str] = frozenset()
    ) -> Statement:
        """The shift for a body of `kg` [kg] on `kcal` [kcal/day], in the target's unit, with its
        arithmetic. Its bounds only aim where it needs one of `firm_with` to be firm and none is
        among what the person has."""
        if self.per == "kg":
            factor, arithmetic = kg, f" x {kg:.1f} kg"
        elif self.per == "1000 kcal":
            factor, arithmetic = kcal / 1000.0, f" x {kcal:.0f} / 1000 kcal"
        elif self.per == "percent of energy":
            factor = kcal / 100.0 / KCAL_PER_G[self.key]
            arithmetic = f" % of {kcal:.0f} kcal at {KCAL_PER_G[self.key]:g} kcal/g"
        else:
            factor, arithmetic = 1.0, ""
        low, aim, high = (
            None if value is None else value * factor for value in (self.low, self.aim, self.high)
        )
        stated = [f"{value:g}" for value in (self.low, self.high) if value is not None]
        worked = (
            f" ({' to '.join(stated)}{arithmetic} = {self._result(low, high)})"
            if arithmetic and stated
            else ""
        )
        return Statement(
            key=self.key,
            rank=rank,
            voice=f"{voice} ({self.voice})" if self.voice else voice,
            low=low,
            aim=aim,
            high=high,
            source=self.source,
            reason=f"{self.reason}{worked}",
            replaces=self.replaces,
            priority=self.priority,
            beside=self.beside,
            aims_only=bool(self.firm_with) and have.isdisjoint(self.firm_with),
        )

    def _result(self, low: float | None, high: float | None) -> str:
        unit = NUTRIENT[self.key].unit
        return f"{' to '.join(f'{value:.0f}' for value in (low, high) if value is not None)} {unit}"


@dataclass(frozen=True)
class FoodStance:
    """What a school or a condition says of a class of foods: avoid, limit or favor."""

    food_class: str
    stance: str
    reason: str
    source: str

    @property
    def published(self) -> bool:
        return is_published(self.source)


def _text(row: Mapping[str, Any], name: str) -> str:
    value = row.get(name, "")
    if not isinstance(value, str) or not value.strip():
        raise BadRow(f"a row needs its {name}")
    return value.strip()


def _number(row: Mapping[str, Any], name: str) -> float | None:
    value = row.get(name)
    if value is None or value == "":
        return None
    try:
        return float(value)
    except (TypeError, ValueError):
        raise BadRow(f"{NUMBER_WORDS[name]} is a number, not “{value}”") from None


SHIFT_KEYS = (
    *("key", "per", "low", "aim", "high", "reason", "source"),
    *("with", "any_of", "without", "replaces", "priority", "voice", "beside"),
    "firm_with",
)


def _only(row: Mapping[str, Any], known: Sequence[str]) -> None:
    try:
        only(row, known, str(row.get("key") or row.get("class") or "a row"))
    except BadTable as error:
        raise BadRow(str(error), error.field) from None


def read_shift(row: Mapping[str, Any]) -> Shift:
    """Raises BadRow for an unknown target, no number, an unordered band, or no reason or source."""
    _only(row, SHIFT_KEYS)
    key, per = _text(row, "key"), row.get("per", "day")
    if key not in NUTRIENT:
        raise BadRow(f"there is no target “{key}”")
    if per not in PER or (per == "percent of energy" and key not in KCAL_PER_G):
        raise BadRow(f"{NUTRIENT[key].name} cannot be given per {per}")
    low, aim, high = (_number(row, name) for name in ("low", "aim", "high"))
    if low is None and aim is None and high is None:
        raise BadRow(f"{NUTRIENT[key].name} needs a least, an aim or a most")
    in_order = [value for value in (low, aim, high) if value is not None]
    if in_order != sorted(in_order):
        raise BadRow(
            f"{NUTRIENT[key].name}: the least, the aim and the most do not stand in that order"
        )
    return Shift(
        key=key,
        per=per,
        low=low,
        aim=aim,
        high=high,
        reason=_text(row, "reason"),
        source=_text(row, "source"),
        needs=tuple(row.get("with", ())),
        any_of=tuple(row.get("any_of", ())),
        void_with=tuple(row.get("without", ())),
        replaces=bool(row.get("replaces", False)),
        priority=int(row.get("priority", 0)),
        voice=str(row.get("voice", "")),
        beside=bool(row.get("beside", False)),
        firm_with=tuple(row.get("firm_with", ())),
    )


def read_stance(row: Mapping[str, Any]) -> FoodStance:
    """Raises BadRow for an unknown class of foods or stance, or no reason or source."""
    _only(row, ("class", "stance", "reason", "source"))
    name, stance = _text(row, "class"), _text(row, "stance")
    if name not in food_classes():
        raise BadRow(f"there is no kind of food “{name}”")
    if stance not in STANCES:
        raise BadRow(f"a stance is avoid, limit or favor, not “{stance}”")
    return FoodStance(name, stance, _text(row, "reason"), _text(row, "source"))
