"""The whole-food view of a recipe: added oil, salt, sugar, refined flour and animal products,
counted line by line."""

from __future__ import annotations

import re
from dataclasses import dataclass

from nutrition.composition.food_classes import classes_of, kinds_within
from nutrition.composition.foods import Food
from nutrition.labels.item_list import items_in, statements
from nutrition.recipe.reckoning import Facts
from nutrition.targets.schools import School
from nutrition.written.line import Line

# What is looked for: heading, kind of food, and the nutrient that says how much of it there is.
LOOKED_FOR = (
    ("Added oil", "oil", "energy_kcal"),
    ("Added salt", "added salt", "sodium_mg"),
    ("Added sugar", "added sugar", "added_sugars_g"),
    ("Refined flour or grain", "refined grain", "energy_kcal"),
)


@dataclass(frozen=True)
class Brought:
    """A line that brings it, in words, with what it brings to one serving; None where that is
    unknown."""

    text: str
    name: str
    amount: float | None


@dataclass(frozen=True, kw_only=True)
class Found:
    """One thing looked for: the lines that bring it, the sum per serving in the unit of `key`, and
    what the school says of it."""

    heading: str
    key: str
    parts: tuple[Brought, ...]
    total: float
    stance: str

    @property
    def against_the_school(self) -> bool:
        return bool(self.parts) and self.stance == "avoid"


def _stance(school: School | None, kind: str) -> str:
    return (
        next((row.stance for row in school.foods if row.food_class == kind), "") if school else ""
    )


def _is_animal(line: Line) -> bool:
    if line.food is not None:
        return line.food.comparator
    return bool(line.animal)


def _counted(food: Food) -> frozenset[str]:
    """The kinds that a food counts as: of a package of the practice's own also what is inside."""
    return kinds_within(food) if food.own else classes_of(food)


# Of oil inside a package every gram is fat; of flour inside it nobody knows the energy. [kcal/g]
KCAL_PER_G_OIL = 8.84


def _brought(food: Food, kind: str, key: str, amount: float) -> float | None:
    """What a food brings of it: all of its own, or, where it is one of several in a package, as
    much as the list says by its share; None where that is not known. In the unit of `key`."""
    if food.per_100_g(key) is None:
        return None
    if not food.own or kind not in ("oil", "refined grain"):
        return amount
    whole = food.per_100_g("energy_kcal") or 0.0
    shares = [
        item.percent
        for one in items_in(statements(food.listed)[0])
        for item in one.walk()
        if item.percent is not None and kind == "oil" and re.search(r"\boil\b", item.name, re.I)
    ]
    if not shares or whole <= 0:
        return None
    return amount * sum(shares) * KCAL_PER_G_OIL / whole


def whole_food(facts: Facts, school: School | None = None) -> list[Found]:
    """What was added that a whole-food kitchen counts, by line and per serving, animal products
    last.

    A line that could not be settled is read for animal products by its words.
    """
    out = []
    for heading, kind, key in LOOKED_FOR:
        parts = []
        for line, cooked in facts.rows:
            if line.food is None or cooked is None or kind not in _counted(line.food):
                continue
            amount = cooked.profile[key].amount / facts.recipe.servings
            parts.append(Brought(line.text, line.food.name, _brought(line.food, kind, key, amount)))
        total = sum(part.amount or 0.0 for part in parts)
        out.append(
            Found(
                heading=heading,
                key=key,
                parts=tuple(parts),
                total=total,
                stance=_stance(school, kind),
            )
        )
    animals = tuple(
        Brought(line.text, line.food.name if line.food else line.text, None)
        for line in facts.lines
        if _is_animal(line)
    )
    out.append(Found(heading="Animal products", key="", parts=animals, total=0.0, stance="avoid"))
    return out
