"""A pot that was weighed: how it is divided, what it came to, and what recipes learn of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median

# A pot so near to what was reckoned is as reckoned. Common practice, no source. [share]
AS_RECKONED = 0.05
# Containers are filled to so many grams. [g]
STEP_G = 5.0


@dataclass(frozen=True, kw_only=True)
class CameOut:
    """What a pot came to: its weight, what was reckoned of it [g], by which share it is off, how
    many servings of the reckoned size it holds, and how many are then missing or over."""

    grams: float
    reckoned_g: float
    off: float
    servings: float
    over: float

    @property
    def as_reckoned(self) -> bool:
        return abs(self.off) <= AS_RECKONED + 1e-9

    @property
    def words(self) -> str:
        """What to say of it."""
        if self.as_reckoned:
            return f"{self.grams:,.0f} g, as reckoned."
        share = f"{abs(self.off):.0%} {'more' if self.off > 0 else 'less'} than reckoned"
        if self.over < 0:
            return f"{self.grams:,.0f} g, {share}: {-self.over:.1f} servings are missing."
        return f"{self.grams:,.0f} g, {share}: {self.over:.1f} servings over."


def came_out(grams: float, serving_g: float, servings: float) -> CameOut:
    """A pot of so many grams, reckoned as so many servings of a size. [g] Raises ValueError for
    nothing."""
    if not (grams > 0 and serving_g > 0 and servings > 0):
        raise ValueError("A pot and its servings weigh more than nothing.")
    reckoned = serving_g * servings
    return CameOut(
        grams=grams,
        reckoned_g=reckoned,
        off=grams / reckoned - 1.0,
        servings=grams / serving_g,
        over=grams / serving_g - servings,
    )


def divided(grams: float, count: int) -> float:
    """What goes into each of so many containers, in steps that a scale is read to: the last takes
    what that leaves. [g] Raises ValueError for none."""
    if count < 1 or not grams > 0:
        raise ValueError("At least one container, and something to put into it.")
    return max(grams / count // STEP_G * STEP_G, min(grams / count, STEP_G))


def learned(measured: Sequence[float]) -> float | None:
    """What was measured each time, as one: the median; None for nothing measured."""
    return median(measured) if measured else None
