"""Two packages side by side: what is more of what, per 100 g, per serving and per 100 kcal, as far
as their rounding lets one say."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from nutrition.labels.label import ReadLabel
from nutrition.labels.rounding import Printed, label_values


@dataclass(frozen=True, kw_only=True)
class Row:
    """One nutrient of two packages, in its unit; None where a label does not print it. `more` is 0
    or 1 for the package that has surely more, None where rounding hides which."""

    key: str
    one: Printed | None
    other: Printed | None
    more: int | None


def _per_100_kcal(read: ReadLabel) -> dict[str, Printed]:
    energy = read.per_100_g["energy_kcal"]
    if energy.low <= 0:
        return {}
    return {
        key: Printed(
            value.amount / energy.amount * 100.0,
            value.low / energy.high * 100.0,
            value.high / energy.low * 100.0,
        )
        for key, value in read.per_100_g.items()
    }


Values = Callable[[ReadLabel], Mapping[str, Printed]]
BASES: dict[str, tuple[str, Values]] = {
    "serving": ("a serving", lambda read: read.per_serving),
    "100g": ("100 g", lambda read: read.per_100_g),
    "100kcal": ("100 kcal", _per_100_kcal),
}


def beside(one: ReadLabel, other: ReadLabel, base: str = "100g") -> list[Row]:
    """What two labels print, row by row. Raises KeyError for a base that is not one of BASES."""
    _words, values = BASES[base]
    mine, theirs = values(one), values(other)
    return [
        Row(
            key=key,
            one=mine.get(key),
            other=theirs.get(key),
            more=_more(mine.get(key), theirs.get(key)),
        )
        for key in label_values()
        if key in mine or key in theirs
    ]


def _more(one: Printed | None, other: Printed | None) -> int | None:
    if one is None or other is None:
        return None
    if one.low > other.high:
        return 0
    return 1 if other.low > one.high else None
