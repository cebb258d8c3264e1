"""The library of kitchen substitutions, from data/substitutions.csv. Common practice, no source;
written down from memory."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from nutrition.composition.foods import Food, food_table, shipped_foods
from nutrition.composition.tables import csv_rows
from nutrition.safety.gate import OPEN, Gate

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


MOST_LIKE = 6


def stand_ins(food: Food, gate: Gate = OPEN, most: int = 3) -> list[tuple[Food, float]]:
    """What may take a food's place at the table, with the grams for each gram: what the library
    knows first, else foods of its kind and state that are most like it in protein and energy. None
    that the gate holds back."""
    out = [(row.to, row.ratio) for row in for_food(food) if not gate.why_not(row.to)]
    # a grain for a grain, where the library knows one
    out = [row for row in out if row[0].group == food.group] or out
    if len(out) < most:
        known = {one.slug for one, _ratio in out} | {food.slug}
        kind = [
            one
            for one in shipped_foods()
            if one.group == food.group and one.state == food.state and one.slug not in known
        ]
        kind.sort(key=lambda one: _unlike(food, one))
        like = (one for one in kind[: MOST_LIKE * 2] if not gate.why_not(one))
        out += [(one, 1.0) for one, _n in zip(like, range(most - len(out)), strict=False)]
    return out[:most]


def _unlike(one: Food, other: Food) -> float:
    """How unlike two foods are in energy and protein, each over a usual amount."""
    far = 0.0
    for key, usual in (("energy_kcal", 200.0), ("protein_g", 10.0), ("fat_g", 10.0)):
        far += abs((one.per_100_g(key) or 0.0) - (other.per_100_g(key) or 0.0)) / usual
    return far


# Uses of a substitution that are the same food in another form, or another seasoning.
FORMS = (ANOTHER_FORM, "salt", "savor", "sharpness")


def other_forms(food: Food, gate: Gate = OPEN) -> list[tuple[Food, float]]:
    """Other forms of a food, and seasonings in its place, that the gate lets through, with the
    grams for each gram."""
    return [
        (row.to, row.ratio)
        for row in for_food(food)
        if row.use in FORMS and not gate.why_not(row.to)
    ]


def _another(food: Food) -> Substitution:
    """The same kind of food, of another make."""
    return Substitution(
        to=food, ratio=1.0, use=ANOTHER_FORM, effect="the same kind, by its own label", fails=""
    )
