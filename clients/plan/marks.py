"""What is found for a client, marked with what is to be known of it before it is added."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from nutrition.composition.food_mosts import most_of
from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient
from nutrition.safety.gate import Bar, Gate


@dataclass(frozen=True)
class Marked:
    """Something that was found, whether it is to be asked about first, and why."""

    it: Any
    stops: bool
    why: str
    # what an amount that was typed before its name comes to
    said: str = ""

    @property
    def id(self) -> str:
        """Something to refer to it by within a page."""
        return (
            self.it.slug
            if isinstance(self.it, Food)
            else f"{type(self.it).__name__.lower()}-{self.it.pk}"
        )


def _marked(it: Any, bars: Sequence[Bar]) -> Marked:
    return Marked(it, any(bar.stops for bar in bars), " ".join(bar.why for bar in bars[:2]))


def marked_food(gate: Gate, food: Food) -> Marked:
    own = most_of(food)
    if own is not None and own.most_g <= 0:
        return Marked(food, True, f"{own.why}.")
    return _marked(food, gate.of(food))


def marked_dish(gate: Gate, dish: Any, foods: Sequence[Ingredient]) -> Marked:
    return _marked(dish, gate.bars(foods))
