"""In which order the sums of a week count: for the week that comes nearest to the targets, for the
one with the least cooking, and for the one with the most variety. What nobody would be safe with
or would not eat stands first in all of them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property


@dataclass(frozen=True)
class Stage:
    """Sums that are made smaller together, in their order, and what that is in words."""

    levels: tuple[str, ...]
    words: str


@dataclass(frozen=True)
class Order:
    """What a week is made for, by its name, and the stages in their order; the sums of the last
    stage that are only a matter of taste are `open`: a better week by them is no better week."""

    name: str
    stages: tuple[Stage, ...]
    open: tuple[str, ...] = ("rest",)

    @cached_property
    def levels(self) -> tuple[str, ...]:
        """All its sums, in their order."""
        return tuple(level for stage in self.stages for level in stage.levels)


PEOPLE = Stage(("hard", "pattern"), "limits and rotation")
FED = Stage(("starved",), "energy on every day")
LEADING = Stage(("leading", "added"), "energy and protein")
AVERAGES = Stage(("watched",), "the averages of the targets")

NEAREST = Order(
    "nearest",
    (
        PEOPLE,
        FED,
        LEADING,
        AVERAGES,
        Stage(("off", "waste", "moved", "variety", "rest"), "cooking, variety and portions"),
    ),
)
LEAST_COOKING = Order(
    "least cooking",
    (
        PEOPLE,
        FED,
        Stage(("off", "pots", "waste"), "cooking"),
        LEADING,
        AVERAGES,
        Stage(("moved", "variety", "rest"), "variety and portions"),
    ),
)
MOST_VARIETY = Order(
    "most variety",
    (
        PEOPLE,
        FED,
        Stage(("again", "variety"), "different dishes"),
        LEADING,
        AVERAGES,
        Stage(("off", "waste", "moved", "rest"), "cooking and portions"),
    ),
)
ORDERS = (NEAREST, LEAST_COOKING, MOST_VARIETY)
