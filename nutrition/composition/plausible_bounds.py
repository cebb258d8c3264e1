"""The largest plausible value of a nutrient for a kind of food: what stands for an amount that
nobody knows."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

import numpy as np

from nutrition.composition.profile import Vector

Kind = tuple[str, str]
# The upper end of a kind is where all but so many of its foods lie below; a kind with fewer known
# values than this has none of its own, and the whole table's stands in, if the nutrient is known
# for so much of it. Common practice, no source. [%], [1], [share]
UPPER_PERCENT, LEAST_KNOWN, KNOWN_ENOUGH = 95.0, 4, 0.5
EVERY: Kind = ("", "")


def uppers_by_kind(foods: Iterable[tuple[str, str, Vector]]) -> Mapping[Kind, Vector]:
    """By group and state, by group alone, and for all foods: the upper end of each nutrient, NaN
    where too few are known. `foods` are groups, states and values per 100 g."""
    rows: dict[Kind, list[Vector]] = {}
    for group, state, values in foods:
        for kind in ((group, state), (group, ""), EVERY):
            rows.setdefault(kind, []).append(values)
    out = {kind: _upper(np.array(found)) for kind, found in rows.items()}
    if EVERY in rows:
        every = np.array(rows[EVERY])
        known = (~np.isnan(every)).mean(axis=0)
        out[EVERY] = np.where(known >= KNOWN_ENOUGH, out[EVERY], np.nan)
    return out


def upper_of(kinds: Mapping[Kind, Vector], group: str, state: str) -> Vector:
    """The upper ends that hold for a food: of its group and state, its group, or all. Per 100 g;
    NaN where too little is known of a nutrient to say."""
    out = kinds[EVERY]
    for kind in ((group, ""), (group, state)):
        found = kinds.get(kind)
        if found is not None:
            out = np.where(np.isnan(found), out, found)
    return out


def _upper(values: Vector) -> Vector:
    """The percentile of each column's known values, between neighbors as numpy's own: of thousands
    of columns at once."""
    known = (~np.isnan(values)).sum(axis=0)
    ordered = np.sort(values, axis=0)  # what is unknown comes last
    at = np.maximum(known - 1, 0) * (UPPER_PERCENT / 100.0)
    below = np.floor(at).astype(int)
    above = np.minimum(below + 1, np.maximum(known - 1, 0))
    columns = np.arange(values.shape[1])
    low, high = ordered[below, columns], ordered[above, columns]
    return np.where(known >= LEAST_KNOWN, low + (high - low) * (at - below), np.nan)
