"""What a client takes besides food: dose, form and how often, counted toward the day."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from nutrition.composition.nutrients import KEYS, NUTRIENT
from nutrition.composition.profile import INDEX, Profile


def _figures(value: float) -> str:
    """A dose spread over the days, to no more figures than mean something."""
    return f"{value:.0f}" if value >= 100 else f"{value:.2g}" if value >= 1 else f"{value:.1g}"


@dataclass(frozen=True)
class Supplement:
    """A tablet, drop or capsule: `dose` of one nutrient in its unit, the form, and how many times a
    week it is taken."""

    key: str
    dose: float
    form: str
    per_week: float

    @property
    def per_day(self) -> float:
        """The dose spread over the week. [the key's unit per day]"""
        return self.dose * self.per_week / 7.0

    @property
    def words(self) -> str:
        """ "Vitamin B12 1000 µg (cyanocobalamin), 2 times a week: 286 µg a day" """
        nutrient = NUTRIENT[self.key]
        often = {7.0: "every day", 14.0: "twice a day", 1.0: "once a week"}.get(
            self.per_week, f"{self.per_week:g} times a week"
        )
        form = f" ({self.form})" if self.form else ""
        day = "" if self.per_week == 7 else f": {_figures(self.per_day)} {nutrient.unit} a day"
        return f"{nutrient.name} {self.dose:g} {nutrient.unit}{form}, {often}{day}"


def per_day(supplements: Iterable[Supplement]) -> Profile:
    """What the supplements add to a day. It weighs nothing, and leaves what is unknown of the food
    as unknown as it is."""
    amounts = np.zeros(len(KEYS))
    for supplement in supplements:
        amounts[INDEX[supplement.key]] += supplement.per_day
    zero = np.zeros(len(KEYS))
    return Profile(amounts, zero, zero, zero, zero, 0.0, 0.0, 0.0, 0)
