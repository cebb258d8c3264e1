"""Read an amount someone types for a known food: "80", "80 g", "1/2 cup", "2 tbsp", "1 medium"."""

from __future__ import annotations

import re
from dataclasses import replace

from nutrition.composition.errors import CoreError
from nutrition.composition.foods import Food
from nutrition.written import units
from nutrition.written.basis import DISH_MEASURE, basis_range
from nutrition.written.grammar import Reading, read
from nutrition.written.line import Line
from nutrition.written.weighing import CannotWeigh, weigh

_BARE = re.compile(r"^\s*\d+(?:[.,]\d+)?\s*$")
MAX_GRAMS = 5000.0


def leveled_range(grams: float) -> tuple[float, float]:
    """The least and the most that a leveled measure of so much weighs. [g]"""
    return basis_range(grams, "leveled measure")


class UnreadableAmount(CoreError):
    """The amount cannot be used; the message says why."""


def _reading(text: str, examples: str) -> Reading:
    """The amount alone, without a food. Raises UnreadableAmount."""
    if _BARE.match(text):
        text = f"{text.strip().replace(',', '.')} g"
    reading = read(text)
    if not reading.terms or reading.phrase or text.strip().startswith(("-", "\u2212")):
        raise UnreadableAmount(f"“{text}” is not an amount. Write grams, or {examples}.")
    return reading


def read_amount(text: str, food: Food, system: str = "us") -> Line:
    """The amount in grams, with its range and basis; cups and spoons are those of `system`. A bare
    number is grams.

    Raises UnreadableAmount.
    """
    reading = _reading(text, "a measure such as 1/2 cup or 2 tbsp")
    try:
        weighed = weigh(replace(reading, system=system), food)
    except CannotWeigh as error:
        why = str(error)
        raise UnreadableAmount(f"{why[0].upper()}{why[1:]}. Write it in grams.") from None
    return _checked(replace(weighed, food=food))


def read_batch_amount(
    text: str, serving_g: float, volume_ml: float | None, system: str = "us"
) -> Line:
    """The amount of a dish: grams, servings ("1 1/2 servings"), or a volume where the dish's own is
    known.

    `serving_g` is the weight of a serving [g], `volume_ml` its volume [mL]. Raises
    UnreadableAmount.
    """
    match = re.match(r"^(.*?)\s*servings?\s*$", text, re.I)
    term = _reading(
        f"{match[1]} pieces" if match else text, "servings, or a measure such as 1/2 cup"
    ).terms[0]
    if match:
        each, basis = serving_g, "leveled measure"
    elif (per_gram := units.grams(term.unit)) is not None:
        each, basis = per_gram, "weighed"
    elif (volume := units.milliliters(term.unit, system)) is not None and volume_ml:
        each, basis = serving_g / volume_ml * volume, "leveled measure"
    else:
        raise UnreadableAmount(
            f"“{text}” cannot be weighed for this dish. Write it in grams or servings."
        )
    grams = term.best * each
    low, high = basis_range(grams, basis if basis == "weighed" else DISH_MEASURE)
    return _checked(Line(text="", food=None, grams=grams, low=low, high=high, basis=basis))


def _checked(line: Line) -> Line:
    grams = line.grams or 0.0
    if not 0 < grams <= MAX_GRAMS:
        raise UnreadableAmount(f"{grams:g} g is outside 0 to {MAX_GRAMS:g} g.")
    return line
