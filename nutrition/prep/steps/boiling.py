"""How long a pot takes to come to the boil."""

from __future__ import annotations

from collections.abc import Iterable

from nutrition.prep.steps.work_kinds import Span
from nutrition.written.line import Line

# To begin with, and for each kilogram in it, up to the most; at the least and the most of it so
# many times that. Common practice, no source. [min], [min/kg]
BEGINS, PER_KG, MOST = 3.0, 4.0, 20.0
SPREAD = (0.6, 1.0, 1.5)
# A steamer, whose water is little. Common practice, no source. [min]
STEAMER = Span(3.0, 5.0, 7.0)
# Pasta boils in so much water, and what is dry in so many times its weight, where none is written.
# Common practice, no source. [g], [g/g]
PASTA_WATER_G, DRY_WATER = 2500.0, 2.5


def in_the_pot(line: Line) -> float:
    """What a line weighs in the pot, with the water that nobody writes. [g]"""
    grams = line.grams or 0.0
    if line.food is None:
        return grams
    if line.food.group == "pasta" or "noodle" in line.food.slug:
        return grams + PASTA_WATER_G
    return grams * (1.0 + DRY_WATER) if line.food.state == "dry" else grams


def to_the_boil(lines: Iterable[Line]) -> Span:
    """How long so much takes to come to the boil. [min]"""
    kilograms = sum(in_the_pot(line) for line in lines) / 1000.0
    usual = min(BEGINS + PER_KG * kilograms, MOST)
    return Span(*(usual * share for share in SPREAD))
