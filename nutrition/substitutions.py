"""The library of kitchen substitutions, from data/substitutions.csv. Common practice, no source;
written down from memory."""

from __future__ import annotations

import csv
from dataclasses import dataclass
from functools import lru_cache

from nutrition.foods import DATA, Food, food_table


@dataclass(frozen=True)
class Substitution:
    """`to` in place of a food: `ratio` grams for each gram, what it is used for, what it does, and
    where it fails."""

    to: Food
    ratio: float
    use: str
    effect: str
    fails: str


@lru_cache(maxsize=1)
def library() -> dict[str, tuple[Substitution, ...]]:
    """Substitutions by the slug they stand in for, or by "group:" and a group. Raises KeyError for
    a food the table lacks."""
    out: dict[str, list[Substitution]] = {}
    with (DATA / "substitutions.csv").open(newline="", encoding="utf-8") as file:
        for row in csv.DictReader(file):
            made = Substitution(
                food_table()[row["to"]],
                float(row["ratio"]),
                row["use"],
                row["effect"],
                row["fails"],
            )
            for name in row["from"].split("|"):
                out.setdefault(name, []).append(made)
    return {name: tuple(rows) for name, rows in out.items()}


def for_food(food: Food) -> list[Substitution]:
    """What may stand in for a food: by name first, then by its group."""
    rows = [*library().get(food.slug, ()), *library().get(f"group:{food.group}", ())]
    return [row for row in rows if row.to.slug != food.slug]
