"""Oven heats as a cook writes them, in degrees Celsius, as ovens are marked."""

from __future__ import annotations

import re
from dataclasses import dataclass

from nutrition.recipe.method_steps import GAS_MARK_F

# Ovens are set in steps of so many degrees. Common practice, no source. [degrees Celsius]
STEP_C = 10
# Nothing is baked below or above these. Common practice, no source. [degrees Celsius]
LEAST_C, MOST_C = 50, 260
# What an oven is called without a number. Common practice, no source. [degrees Celsius]
CALLED = (
    (re.compile(r"\b(?:very low|cool) oven\b", re.I), 120),
    (re.compile(r"\b(?:low|slow) oven\b", re.I), 150),
    (re.compile(r"\b(?:moderate|medium) oven\b", re.I), 180),
    (re.compile(r"\bvery hot oven\b", re.I), 230),
    (re.compile(r"\bhot oven\b", re.I), 220),
)
_NUMBERED = re.compile(r"(?<![\d.])(\d{2,3})\s*(?:°|º|degrees?|deg\.?)?\s*([FC])\b", re.I)
_DEGREES = re.compile(r"(?<![\d.])(\d{2,3})\s*(?:°|º|degrees?\b)", re.I)
_BARE = re.compile(r"\b(?:at|to) (\d{3})\b(?!\s*(?:g\b|ml|m[lL]|gram|kcal|min|rpm|watt|W\b))", re.I)
_GAS = re.compile(r"\bgas(?: mark)? ([1-9])\b", re.I)


@dataclass(frozen=True, kw_only=True)
class Heat:
    """An oven's heat as it is set, and which others will do with another time. [degrees Celsius]
    `written`: the cook gave it."""

    celsius: int
    spread: int
    written: bool

    @property
    def choices(self) -> tuple[int, ...]:
        """The heats that will do. [degrees Celsius]"""
        around = range(self.celsius - self.spread, self.celsius + self.spread + 1, STEP_C)
        return tuple(one for one in around if LEAST_C <= one <= MOST_C)


def as_set(celsius: float) -> int:
    """A heat as an oven is set to it: to the nearest ten, as cooks pair them (350 °F is 180 °C).
    [degrees Celsius]"""
    return round(celsius / STEP_C) * STEP_C


def celsius_of(fahrenheit: float) -> float:
    """[degrees Celsius] of [degrees Fahrenheit]."""
    return (fahrenheit - 32.0) * 5.0 / 9.0


def heat_in(text: str) -> int | None:
    """The oven's heat that a clause states [degrees Celsius]; None where it states none. Of two
    scales Celsius counts."""
    found = _NUMBERED.findall(text)
    for value, scale in sorted(found, key=lambda one: one[1].upper()):
        celsius = float(value) if scale.upper() == "C" else celsius_of(float(value))
        if LEAST_C <= celsius <= MOST_C:
            return as_set(celsius)
    # a number of no oven that names its scale is not one of the other scale
    bare = () if found else (*_DEGREES.findall(text), *_BARE.findall(text))
    for value in bare:
        celsius = float(value) if float(value) <= MOST_C else celsius_of(float(value))
        if LEAST_C <= celsius <= MOST_C:
            return as_set(celsius)
    for mark in _GAS.findall(text):
        if mark in GAS_MARK_F:
            return as_set(celsius_of(GAS_MARK_F[mark]))
    return next((heat for pattern, heat in CALLED if pattern.search(text)), None)
