"""A line with its food and grams, and what the cook decided for it."""

from __future__ import annotations

from dataclasses import dataclass

from nutrition.composition.food_search import Match
from nutrition.composition.foods import Food
from nutrition.written.basis import basis_range


@dataclass(frozen=True, kw_only=True)
class Line:
    """A line with its food and grams, or the reason it has none. `low` and `high` bound the grams.
    [g]

    `ask` is the question to put to the cook and `twin` the food that answers it with yes; `chosen`
    and `typed` say that the cook settled the food or the grams. `sure` says that the food wants no
    look, `several` are the lines to write instead where one amount stands for several foods,
    `animal` is the animal food that was named, `steps` are the methods named in the line, and
    `phrase` the words for its food. `bought` is what it weighed with what is
    not eaten of it, where that was weighed. [g]
    """

    text: str
    food: Food | None = None
    grams: float | None = None
    low: float | None = None
    high: float | None = None
    basis: str = ""
    assumed: tuple[str, ...] = ()
    ask: str = ""
    why: str = ""
    candidates: tuple[Match, ...] = ()
    twin: str = ""
    chosen: bool = False
    typed: bool = False
    sure: bool = False
    several: tuple[str, ...] = ()
    animal: str = ""
    steps: tuple[str, ...] = ()
    phrase: str = ""
    bought: float | None = None

    @property
    def resolved(self) -> bool:
        return self.food is not None and self.grams is not None


@dataclass(frozen=True)
class Choice:
    """What the cook decided for a line: another food, the grams on the scale, or both."""

    food: str | None = None
    grams: float | None = None


def by_own_weight(text: str, food: Food, grams: float) -> Line:
    """A line whose weight the cook typed in. [g]"""
    low, high = basis_range(grams, "weighed")
    return Line(text=text, food=food, grams=grams, low=low, high=high, basis="weighed", typed=True)
