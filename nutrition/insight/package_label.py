"""What a package's label says and hides: its rounding rules, the range behind a printed value, and
package arithmetic."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

# Up to so much the printed value goes in such steps; under the least it may print zero. 21 CFR
# 101.9(c). In the key's unit.
_STEPS: dict[str, tuple[float, tuple[tuple[float, float], ...]]] = {
    "energy_kcal": (5.0, ((50.0, 5.0), (math.inf, 10.0))),
    "fat_g": (0.5, ((5.0, 0.5), (math.inf, 1.0))),
    "saturated_fat_g": (0.5, ((5.0, 0.5), (math.inf, 1.0))),
    "sodium_mg": (5.0, ((140.0, 5.0), (math.inf, 10.0))),
    "carbohydrate_g": (0.5, ((math.inf, 1.0),)),
    "fiber_g": (0.5, ((math.inf, 1.0),)),
    "sugars_g": (0.5, ((math.inf, 1.0),)),
    "added_sugars_g": (0.5, ((math.inf, 1.0),)),
    "protein_g": (0.5, ((math.inf, 1.0),)),
}
KEYS_ON_LABELS = tuple(_STEPS)


@dataclass(frozen=True)
class Printed:
    """An amount from a label, with the range that rounding can hide. In the key's unit."""

    amount: float
    low: float
    high: float


def rounded(key: str, value: float) -> float:
    """The value as a label prints it. In the key's unit. Raises KeyError for a nutrient without a
    rule here, ValueError below zero.

    "Less than 1 g" is printed for 0.5 to 1 g of carbohydrate, fiber, sugars and protein; here it is
    1.

    References: 21 CFR 101.9(c).
    """
    if value < 0:
        raise ValueError("a label has nothing below zero")
    least, steps = _STEPS[key]
    if value < least:
        return 0.0
    step = next(step for upto, step in steps if value <= upto or math.isinf(upto))
    return math.floor(value / step + 0.5) * step


def hidden_by(key: str, printed: float) -> Printed:
    """The range of true values that print like this. In the key's unit. Raises KeyError, ValueError
    below zero.

    References: 21 CFR 101.9(c).
    """
    if printed < 0:
        raise ValueError("a label has nothing below zero")
    least, steps = _STEPS[key]
    if printed == 0:
        return Printed(0.0, 0.0, least)
    # just under an edge the finer step holds, just over it the coarser one
    half_down = next(step for upto, step in steps if printed <= upto or math.isinf(upto)) / 2
    half_up = next(step for upto, step in steps if printed < upto or math.isinf(upto)) / 2
    return Printed(printed, max(printed - half_down, least), printed + half_up)


def portion_of_package(
    per_serving: Mapping[str, float], servings: float, package_share: float
) -> dict[str, Printed]:
    """What a share of a package brings [share of it, 0 to 1 or more], from the label's values for
    one of its `servings`.

    A package of two and a half servings at 18 g of protein is 45 g, and half of it 22.5 g. Raises
    ValueError for no servings or less than nothing.
    """
    if not servings > 0 or not package_share > 0:
        raise ValueError("servings and the share of the package are above zero")
    times = servings * package_share
    out = {}
    for key, printed in per_serving.items():
        one = hidden_by(key, printed)
        out[key] = Printed(one.amount * times, one.low * times, one.high * times)
    return out
