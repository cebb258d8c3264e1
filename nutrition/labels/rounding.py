"""How labels round, and the range of true values behind what is printed."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.tables import csv_rows

# Up to so much the printed value goes in such steps; under the least it may print zero. 21 CFR
# 101.9(c). In the key's unit.
_FAT = (0.5, ((5.0, 0.5), (math.inf, 1.0)))
_WHOLE_GRAMS = (0.5, ((math.inf, 1.0),))
_STEPS: dict[str, tuple[float, tuple[tuple[float, float], ...]]] = {
    "energy_kcal": (5.0, ((50.0, 5.0), (math.inf, 10.0))),
    "fat_g": _FAT,
    "saturated_fat_g": _FAT,
    "monounsaturated_fat_g": _FAT,
    "polyunsaturated_fat_g": _FAT,
    "sodium_mg": (5.0, ((140.0, 5.0), (math.inf, 10.0))),
    "carbohydrate_g": _WHOLE_GRAMS,
    "fiber_g": _WHOLE_GRAMS,
    "sugars_g": _WHOLE_GRAMS,
    "added_sugars_g": _WHOLE_GRAMS,
    "protein_g": _WHOLE_GRAMS,
}
# Percent daily values of vitamins and minerals go in steps of 2 up to 10, of 5 up to 50, of 10
# above; less than 2 may be printed as zero. 21 CFR 101.9(c)(8)(iii). [% of the daily value]
_PERCENT_STEPS = ((10.0, 2.0), (50.0, 5.0), (math.inf, 10.0))
_PERCENT_ZERO = 2.0
# Under the first number the value prints as zero, under the second in tenths, above in whole grams.
# European Commission guidance on tolerances (December 2012), from memory. [g]
_EUROPE_GRAMS = (0.5, 10.0)
_EUROPE_SATURATED = (0.1, 10.0)
# Salt as sodium: what is as good as none, and where hundredths of a gram become tenths. [mg]
_EUROPE_SODIUM, _MG_SODIUM_PER_G_SALT = (5.0, 400.0), 400.0
GRAMS_KEYS = frozenset({"fat_g", "carbohydrate_g", "fiber_g", "sugars_g", "protein_g"})


@dataclass(frozen=True)
class Printed:
    """An amount from a label, with the range that rounding can hide. In the key's unit."""

    amount: float
    low: float
    high: float

    def times(self, factor: float) -> Printed:
        return Printed(self.amount * factor, self.low * factor, self.high * factor)


@dataclass(frozen=True, kw_only=True)
class OnLabels:
    """A nutrient as labels print it: its daily value and the step of its amount, in the key's unit;
    None where there is none, or the rule has steps of its own."""

    key: str
    daily_value: float | None
    step: float | None
    decimals: int
    on_every_label: bool


@lru_cache(maxsize=1)
def label_values() -> dict[str, OnLabels]:
    """What labels print, from data/label_values.csv, in their order."""
    columns = ("key", "daily_value", "step", "decimals", "on_every_label", "source")
    return {
        row["key"]: OnLabels(
            key=row["key"],
            daily_value=float(row["daily_value"]) if row["daily_value"] else None,
            step=float(row["step"]) if row["step"] else None,
            decimals=int(row["decimals"]),
            on_every_label=bool(row["on_every_label"]),
        )
        for row in csv_rows("label_values.csv", columns)
    }


KEYS_ON_LABELS = tuple(_STEPS)


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
    """The range of true values that print like this. In the key's unit. Raises KeyError for what
    labels do not print, ValueError below zero.

    A zero of a vitamin or mineral hides up to 2 % of its daily value.

    References: 21 CFR 101.9(c).
    """
    if printed < 0:
        raise ValueError("a label has nothing below zero")
    if key not in _STEPS:
        row = label_values()[key]
        step, least = row.step or 0.0, (row.daily_value or 0.0) * _PERCENT_ZERO / 100.0
        if printed == 0:
            return Printed(0.0, 0.0, least or step)
        return Printed(printed, max(printed - step / 2, 0.0), printed + step / 2)
    least, steps = _STEPS[key]
    if printed == 0:
        return Printed(0.0, 0.0, least)
    return _within(printed, least, steps)


def _within(printed: float, least: float, steps: tuple[tuple[float, float], ...]) -> Printed:
    # just under an edge the finer step holds, just over it the coarser one
    half_down = next(step for upto, step in steps if printed <= upto or math.isinf(upto)) / 2
    half_up = next(step for upto, step in steps if printed < upto or math.isinf(upto)) / 2
    return Printed(printed, max(printed - half_down, least), printed + half_up)


def hidden_by_percent(key: str, percent: float) -> Printed:
    """The amounts that print as this percentage of the daily value. In the key's unit. Raises
    KeyError for a nutrient without a daily value, ValueError below zero.

    References: 21 CFR 101.9(c)(8)(iii).
    """
    daily = label_values()[key].daily_value
    if daily is None:
        raise KeyError(key)
    if percent < 0:
        raise ValueError("a label has nothing below zero")
    if percent == 0:
        return Printed(0.0, 0.0, daily * _PERCENT_ZERO / 100.0)
    steps: tuple[tuple[float, float], ...] = _PERCENT_STEPS
    if key in _STEPS:
        # the percentages of fat, sodium and the like are in whole numbers: 101.9(d)(7)(ii)
        steps = ((math.inf, 1.0),)
    return _within(percent, 0.0, steps).times(daily / 100.0)


def hidden_by_less_than(printed: float) -> Printed:
    """ "Less than 1 g": from half of it to the whole. In the key's unit.

    References: 21 CFR 101.9(c)(6) and (7).
    """
    return Printed(printed * 0.75, printed * 0.5, printed)


def hidden_in_europe(key: str, printed: float) -> Printed:
    """The range of true values per 100 g that print like this on a European or British label. In
    the key's unit. Raises ValueError below zero.

    References: European Commission, guidance on tolerances for nutrient values (December 2012),
    table 4, from memory.
    """
    if printed < 0:
        raise ValueError("a label has nothing below zero")
    if key == "energy_kcal":
        return Printed(printed, max(printed - 0.5, 0.0), printed + 0.5)
    if key == "sodium_mg":
        least, coarse = _EUROPE_SODIUM
        step = (0.01 if printed < coarse else 0.1) * _MG_SODIUM_PER_G_SALT
    elif key in GRAMS_KEYS or key.endswith("_fat_g"):
        least, whole = _EUROPE_GRAMS if key in GRAMS_KEYS else _EUROPE_SATURATED
        step = 0.1 if printed < whole else 1.0
    else:
        # vitamins and minerals: two or three figures that count
        least, step = 0.0, 10.0 ** (math.floor(math.log10(printed)) - 1) if printed > 0 else 0.0
    if printed == 0:
        return Printed(0.0, 0.0, least)
    return Printed(printed, max(printed - step / 2, 0.0), printed + step / 2)
