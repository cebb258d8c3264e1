"""How far an amount can be off, by how it was measured: one rule for whatever is measured."""

from __future__ import annotations

DISH_MEASURE = "measure of a dish"
# Shares of the amount; a cup or a serving of a dish strays further than a cup of one food. Common
# practice, no source.
BASIS_SPREAD = {
    "weighed": 0.02,
    "label": 0.04,
    "leveled measure": 0.06,
    DISH_MEASURE: 0.12,
    "counted": 0.0,
    "by eye": 0.35,
}


def basis_range(grams: float, basis: str) -> tuple[float, float]:
    """The least and the most that an amount may weigh, by how it was measured. [g]

    Raises KeyError for a basis that is not known.
    """
    spread = grams * BASIS_SPREAD[basis]
    return grams - spread, grams + spread
