"""The change that lets a dish in that somebody must not have: no oil in the pan, beans cooked from
dry for canned, no salt, another food for one that is held back."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nutrition.composition.foods import Food, food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.recipe.part import PartFood
from nutrition.safety.gate import Gate
from nutrition.swaps.library import for_food
from nutrition.written.line import Line
from nutrition.written.wording import uncapitalized

# Instead of oil so much water goes into the pan. Common practice, no source.
WATER_FOR_OIL = "2 tbsp water"
# What is left out without anything in its place, and so little of anything else. Common practice,
# no source. [share of the dish]
LEFT_OUT, A_LITTLE = ("salt",), 0.05


# A change that leaves less of a serving's energy than this makes another dish of it. Common
# practice, no source. [share]
STILL_A_MEAL = 0.5


@dataclass(frozen=True, kw_only=True)
class LineInstead:
    """A line by its place, what is written instead, nothing where it is left out, and what that is
    in words."""

    at: int
    text: str
    words: str


def let_in(lines: Sequence[Line], servings: float, gate: Gate) -> list[LineInstead] | None:
    """The lines to be written otherwise so that nothing in a recipe is held back by itself; None
    where one has nothing that could take its place. Amounts that only count together are not looked
    at: ask the gate about what comes out."""
    out = []
    whole = sum(line.grams or 0.0 for line in lines)
    for at, line in enumerate(lines):
        if line.food is None or line.grams is None:
            continue
        if isinstance(line.food, PartFood):
            if gate.bars(line.food.foods_in(line.grams / servings)):
                # a part recipe is changed where it is written
                return None
            continue
        if not gate.bars([Ingredient(line.food, line.grams / servings)]):
            continue
        little = line.grams <= A_LITTLE * whole
        instead = _instead(at, line.food, line.grams, gate, little)
        if instead is None:
            return None
        out.append(instead)
    return out


def _instead(at: int, food: Food, grams: float, gate: Gate, little: bool) -> LineInstead | None:
    if food.group == "oil":
        return LineInstead(at=at, text=WATER_FOR_OIL, words="no oil in the pan")
    if food.group in LEFT_OUT:
        return LineInstead(at=at, text="", words=f"no {uncapitalized(food.name)}")
    cooked = _cooked_from_dry(food)
    if cooked is not None and not gate.why_not(cooked):
        text = f"{grams:.0f} g {uncapitalized(cooked.name)}"
        return LineInstead(at=at, text=text, words=f"{_plain(cooked)} cooked from dry for canned")
    # only what cooks put in its place: a food that is merely like it is another dish
    for row in for_food(food):
        if not gate.why_not(row.to):
            text = f"{grams * row.ratio:.0f} g {uncapitalized(row.to.name)}"
            words = f"{_plain(row.to)} for {_plain(food)}"
            return LineInstead(at=at, text=text, words=words)
    return LineInstead(at=at, text="", words=f"no {_plain(food)}") if little else None


def _cooked_from_dry(food: Food) -> Food | None:
    """The same, cooked at home, of what comes in a can; None for what does not."""
    stem, canned, _rest = food.slug.partition("-canned")
    return food_table().get(f"{stem}-cooked") if canned else None


def _plain(food: Food) -> str:
    return uncapitalized(food.name.split(",")[0])


def is_the_same_dish(before_kcal: float, after_kcal: float) -> bool:
    """Whether so much of a serving's energy is left after a change that it is still that dish.
    [kcal]"""
    return after_kcal >= STILL_A_MEAL * before_kcal
