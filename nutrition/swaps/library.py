"""The library of kitchen substitutions, from data/substitutions.csv. Common practice, no source;
written down from memory."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from nutrition.composition.foods import Food, food_table, shipped_foods
from nutrition.composition.tables import csv_rows

# A use that says: the same food, otherwise made.
ANOTHER_FORM = "another form"


@dataclass(frozen=True, kw_only=True)
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
    """Substitutions among the shipped foods, by the slug they stand in for, or by "group:" and a
    group. Raises KeyError for a food the table lacks."""
    out: dict[str, list[Substitution]] = {}
    for row in csv_rows("substitutions.csv", ("from", "to", "ratio", "use", "effect", "fails")):
        made = Substitution(
            to=shipped_foods()[row["to"]],
            ratio=float(row["ratio"]),
            use=row["use"],
            effect=row["effect"],
            fails=row["fails"],
        )
        for name in row["from"].split("|"):
            out.setdefault(name, []).append(made)
    return {name: tuple(rows) for name, rows in out.items()}


def for_food(food: Food) -> list[Substitution]:
    """What may stand in for a food: by name first, then by its group; with each of them the
    practice's own foods that are like it, and those that are like the food itself."""
    rows = [*library().get(food.kind_slug, ()), *library().get(f"group:{food.group}", ())]
    table = food_table()
    out = [_another(own) for own in table.own_like(food.kind_slug)]
    if food.like in table:
        out.append(_another(table[food.like]))
    for row in rows:
        out.append(replace(row, to=table[row.to.slug]))
        out += [replace(row, to=own) for own in table.own_like(row.to.slug)]
    return [row for row in out if row.to.slug != food.slug]


def _another(food: Food) -> Substitution:
    """The same kind of food, of another make."""
    return Substitution(
        to=food, ratio=1.0, use=ANOTHER_FORM, effect="the same kind, by its own label", fails=""
    )
