"""The whole-food view of a recipe: added oil, salt, sugar, refined flour and animal products,
counted line by line."""

from __future__ import annotations

from dataclasses import dataclass

from nutrition.composition.food_classes import classes_of
from nutrition.recipe.reckoning import Facts
from nutrition.targets.schools import School
from nutrition.written.matching import Line

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


def whole_food(facts: Facts, school: School | None = None) -> list[Found]:
    """What was added that a whole-food kitchen counts, by line and per serving, animal products
    last.

    A line that could not be settled is read for animal products by its words.
    """
    out = []
    for heading, kind, key in LOOKED_FOR:
        parts = []
        for line, cooked in facts.rows:
            if line.food is None or cooked is None or kind not in classes_of(line.food):
                continue
            known = line.food.per_100_g(key) is not None
            parts.append(
                Brought(
                    line.text,
                    line.food.name,
                    cooked.profile[key].amount / facts.recipe.servings if known else None,
                )
            )
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
