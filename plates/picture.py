"""Plates as rounds at one scale, and foods on the density ladder."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from nutrition.composition.portion import Dish
from nutrition.insight.density_ladder import Rung
from nutrition.insight.indices import DENSITY_BANDS
from webkit.drawing.dishes import dish_round

# The fullest plate leaves a little of the vessel free.
FULLEST = 0.9


def rounds(plates: Sequence[Dish], key: str) -> list[dict[str, object]]:
    """Every plate drawn in the same vessel, so that the area of the food stands for its volume; the
    rim by `key`."""
    vessel = max((plate.volume_ml for plate in plates), default=0.0) / FULLEST
    return [dish_round(plate, key, vessel) for plate in plates]


LEAST, MOST = 0.1, 9.5
TOP, BOTTOM, HEIGHT_OF_LABEL = 24.0, 14.0, 22.0


@dataclass(frozen=True)
class OnLadder:
    """A rung with where it stands and where its label fits."""

    rung: Rung
    y: float
    label_y: float
    ours: bool


@dataclass(frozen=True)
class Band:
    name: str
    top: float
    bottom: float

    @property
    def height(self) -> float:
        return self.bottom - self.top

    @property
    def middle(self) -> float:
        return (self.top + self.bottom) / 2


@dataclass(frozen=True)
class LadderDrawing:
    height: float
    rungs: list[OnLadder]
    bands: list[Band]
    ticks: list[tuple[float, str, str]]


def ladder_drawing(rungs: Sequence[Rung], ours: Sequence[str]) -> LadderDrawing:
    """A scale of kcal per gram, each doubling the same height; labels pushed apart where rungs
    stand close."""
    height = max(420.0, TOP + BOTTOM + HEIGHT_OF_LABEL * (len(rungs) + 1))

    def y(density: float) -> float:
        at = math.log(min(max(density, LEAST), MOST) / LEAST) / math.log(MOST / LEAST)
        return round(height - BOTTOM - at * (height - TOP - BOTTOM), 1)

    edges = [LEAST, *(edge for edge, _name in DENSITY_BANDS), MOST]
    names = [*(name for _edge, name in DENSITY_BANDS), "high"]
    bands = [Band(name, y(edges[i + 1]), y(edges[i])) for i, name in enumerate(names)]
    ticks = [
        (y(value), f"{value:g}", f"{value * 453.592:,.0f}")
        for value in (0.1, 0.2, 0.4, 0.6, 1.0, 1.6, 2.5, 4.0, 6.0, 9.0)
    ]
    places = _apart([y(rung.density) for rung in rungs], height)
    return LadderDrawing(
        height,
        [
            OnLadder(rung, y(rung.density), at, rung.plate.key in ours)
            for rung, at in zip(rungs, places, strict=True)
        ],
        bands,
        ticks,
    )


def _apart(places: Sequence[float], height: float) -> list[float]:
    """Places at least a label's height from each other, as near to where they were as fits. From
    the top down."""
    out: list[float] = []
    for at in places:
        out.append(max(at, out[-1] + HEIGHT_OF_LABEL) if out else max(at, TOP))
    over = out[-1] - (height - BOTTOM) if out else 0.0
    if over > 0:
        limit = height - BOTTOM
        for i in range(len(out) - 1, -1, -1):
            out[i] = min(out[i], limit)
            limit = out[i] - HEIGHT_OF_LABEL
    return [round(at, 1) for at in out]
