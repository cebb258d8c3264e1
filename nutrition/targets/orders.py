"""What a clinician orders and a practitioner chooses: checked, and laid over all else."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets.energy_plan import ENERGY_BAND
from nutrition.targets.person import OutOfRange
from nutrition.targets.voices import ORDER, WISH, Statement

# No body lives on less or more than this, by anybody's order. Common practice, no source.
# [kcal/day]
ENERGY_BY_HAND = (450.0, 8000.0)
# What a number set by hand may be besides zero, in any unit: beyond these nothing is eaten, and no
# solver holds them.
LEAST_BY_HAND, MOST_BY_HAND = 1e-4, 1e6
BY_ORDER, BY_CHOICE = "a clinician's order", "the practitioner's choice"


@dataclass(frozen=True, kw_only=True)
class Order:
    """A number set by hand: a clinician's order ("order"), or the practitioner's own choice
    ("choice"), a wish that stays within what a condition sets. In the key's unit. An `aim` of None
    leaves the computed one, moved into the bounds.

    `by` gave it; the `license` is the clinician's, without which there is no order.
    """

    key: str
    low: float | None
    aim: float | None
    high: float | None
    kind: str
    reason: str
    by: str = ""
    license: str = ""

    @property
    def stated(self) -> list[float]:
        """The numbers that were set, the least first."""
        return [one for one in (self.low, self.aim, self.high) if one is not None]


def check_order(order: Order) -> None:
    """Raises OutOfRange, naming "low", "aim" or "high", for numbers that cannot be, are in the
    wrong order, or none at all."""
    name = NUTRIENT[order.key].name
    numbers = {
        field: value
        for field in ("low", "aim", "high")
        if (value := getattr(order, field)) is not None
    }
    if not numbers:
        raise OutOfRange("low", f"{name}: give a least, an aim or a most.")
    for field, value in numbers.items():
        if not math.isfinite(value) or abs(value) > MOST_BY_HAND or 0 < abs(value) < LEAST_BY_HAND:
            raise OutOfRange(field, f"{name}: {value:g} is no number to plan with.")
        if value < 0 and order.key != "pral_meq":
            raise OutOfRange(field, f"{name}: a target cannot be below zero.")
        least, most = ENERGY_BY_HAND
        if order.key == "energy_kcal" and not least <= value <= most:
            raise OutOfRange(
                field, f"No body lives on {value:g} kcal a day: give {least:g} to {most:g} kcal."
            )
    given = list(numbers.items())
    words = {"low": "least", "aim": "aim", "high": "most"}
    for (lower, less), (higher, more) in pairwise(given):
        if less > more and lower == "low":
            raise OutOfRange(
                "low", f"{name}: the least of {less:g} is above the {words[higher]} of {more:g}."
            )
        if less > more:
            raise OutOfRange("high", f"{name}: the most of {more:g} is below the aim of {less:g}.")


def by_hand(orders: Iterable[Order], least_kcal: float) -> list[Statement]:
    """What was set by hand. Energy that only a clinician may plan is held at the least. [kcal]"""
    out = []
    for order in orders:
        low, aim, high, reason = order.low, order.aim, order.high, order.reason
        if order.key == "energy_kcal" and order.kind != "order":
            low, aim, high = (
                None if value is None else max(value, least_kcal) for value in (low, aim, high)
            )
            if (low, aim, high) != (order.low, order.aim, order.high):
                reason = (
                    f"{reason} Held at {least_kcal:.0f} kcal: less is a clinician's order."
                ).strip()
        if order.key == "energy_kcal" and aim is not None and low is None and high is None:
            # an aim of energy alone has the usual band around it, not that of another amount
            low, high = aim * (1 - ENERGY_BAND), aim * (1 + ENERGY_BAND)
            if order.kind != "order":
                low = max(low, min(least_kcal, aim))
        kind, rank = (BY_ORDER, ORDER) if order.kind == "order" else (BY_CHOICE, WISH)
        who = ", ".join(part for part in (order.by, order.license) if part)
        voice = f"{kind} ({who})" if who else kind
        out.append(
            Statement(
                key=order.key,
                rank=rank,
                voice=voice,
                low=low,
                aim=aim,
                high=high,
                source=kind,
                reason=reason,
            )
        )
    return out
