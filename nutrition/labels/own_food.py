"""A label becomes a food: values per 100 g with the ranges its rounding allows, what it does not
print from the like kind, what its ingredient list says."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from nutrition.composition.allergens import ALLERGENS
from nutrition.composition.food_names import FoodNames
from nutrition.composition.foods import Food, FoodTable, HouseholdMeasure, nobody_knows
from nutrition.composition.plausible_bounds import upper_of
from nutrition.composition.profile import INDEX, Vector
from nutrition.labels.ingredients import Ingredients, read_ingredients
from nutrition.labels.label import Label, ReadLabel, read_label
from nutrition.labels.like_kind import PER_FAT, fill, none_added, peers_of
from nutrition.labels.tolerance import tolerated

# The parts of a list that decide what a food is for schools, conditions and cautions.
TAGGED = (
    *("oil", "added salt", "added sugar", "refined", "phosphate additive", "potassium additive"),
    *("sweetener", "polyol", "licorice", "caffeine", "alcohol", "grapefruit", "kelp"),
    *("sea vegetable", "brazil nut", "star fruit", "phenylalanine", "glutamate", "sulfite"),
    *("swelling fiber", "fermentable fiber", "coconut"),
)
NOT_ENTERED = "ingredients not entered"
# Ash of a food whose minerals are not all printed: usual, least, most. Common practice, no source.
# [g/100 g]
ASH = (1.5, 0.2, 4.0)
# What is not filled where something was added that brings it. Common practice, no source.
BROUGHT_BY = {
    "phosphate additive": ("phosphorus_mg",),
    "may phosphate": ("phosphorus_mg",),
    "potassium additive": ("potassium_mg",),
    "kelp": ("iodine_ug",),
}
BY_THE_WAY = ("firming", "preservative", "color")
GLUTEN_FREE = "gluten-free"


@dataclass(frozen=True, kw_only=True)
class OwnFood:
    """A food of a practice's own: the food, and the label and the list that it was made of."""

    food: Food
    label: ReadLabel
    ingredients: Ingredients
    like: Food | None


def own_food(slug: str, label: Label, table: FoodTable, names: FoodNames) -> OwnFood:
    """The food that a label makes, with this slug. `table` and `names` are the foods to fill from
    and to look ingredients up in.

    Raises BadLabel with what is wrong by field.
    """
    # Whole: what a label tells, then what is filled, in that order.
    read = read_label(label)
    listed = read_ingredients(label.ingredients, names)
    # nothing is filled from a kind that was only guessed: it is asked about first
    like = table.usable(label.like) if label.like and label.like_sure else None
    group = like.group if like else ""
    state = like.state if like else "ready"
    values, low, high = nobody_knows(), nobody_knows(), nobody_knows()
    for key, printed in read.per_100_g.items():
        at, one = INDEX[key], tolerated(label.kind, key, printed)
        values[at], low[at], high[at] = one.amount, one.low, one.high
    notes = [
        "copied from its label; ranges by its rounding and what the law tolerates (21 CFR 101.9)",
        *read.notes,
    ]
    if label.kind != "us":
        notes[0] = "copied from its label, per 100 g; ranges by what the law tolerates"
    _water(values, low, high)
    if listed.given:
        for key in none_added(group, listed.fortified) if like is not None else ():
            if np.isnan(values[INDEX[key]]):
                values[INDEX[key]] = low[INDEX[key]] = high[INDEX[key]] = 0.0
        if not {"added sugar", "starch sweetener"} & set(listed.classes):
            at = INDEX["added_sugars_g"]
            if np.isnan(values[at]):
                values[at] = low[at] = high[at] = 0.0
    leave = _left_unknown(listed, like)
    if like is not None:
        peers, kind = peers_of(table, group, state)
        filled = fill(values, low, high, peers, like, leave)
        values, low, high = filled.values, filled.low, filled.high
        if filled.keys:
            notes.append(f"{len(filled.keys)} values that it does not print from {kind}")
    if read.fiber_left_out:
        _add_fiber(values, low, high)
        _water(values, low, high)
    upper = upper_of(table.uppers, group, state)
    for key in leave:
        upper[INDEX[key]] = np.nan
    return OwnFood(
        food=Food(
            slug=slug,
            name=label.name.strip(),
            group="comparator" if listed.animals else group or "package",
            role=like.role if like else "topping",
            state=state,
            allergens=_allergens(label, listed),
            tags=_tags(listed),
            source="the practice's own, from its label",
            source_description=f"{label.name.strip()}, {read.serving_g.amount:g} g a serving",
            notes="; ".join(notes),
            values=values,
            low=low,
            high=high,
            measures=(*read.measures, *_other_measures(read, like)),
            upper=upper,
            like=like.slug if like else "",
            may_contain=_may_contain(listed),
            own=True,
            listed=label.ingredients,
        ),
        label=read,
        ingredients=listed,
        like=like,
    )


def _left_unknown(listed: Ingredients, like: Food | None) -> set[str]:
    """What is not filled from the kind, because something in the list brings it."""
    out = set(listed.fortified)
    for kind, keys in BROUGHT_BY.items():
        if kind in listed.classes:
            out |= set(keys)
    if "oil" in listed.classes and like is not None and "oil" not in like.tags:
        out |= set(PER_FAT)
    return out


def _add_fiber(values: Vector, low: Vector, high: Vector) -> None:
    """Carbohydrate with its fiber, as the table has it, where the label gives neither together."""
    fiber, carbohydrate = INDEX["fiber_g"], INDEX["carbohydrate_g"]
    if not np.isnan(values[fiber]):
        for side in (values, low, high):
            side[carbohydrate] += side[fiber]


def _water(values: Vector, low: Vector, high: Vector) -> None:
    """Water by difference, where the large parts are printed. [g/100 g]"""
    at = [INDEX[key] for key in ("protein_g", "fat_g", "carbohydrate_g")]
    if np.isnan(values[at]).any():
        return
    water, (ash, ash_low, ash_high) = INDEX["water_g"], ASH
    values[water] = max(100.0 - values[at].sum() - ash, 0.0)
    low[water] = max(100.0 - high[at].sum() - ash_high, 0.0)
    high[water] = max(100.0 - low[at].sum() - ash_low, 0.0)
    low[water] = min(low[water], values[water])
    high[water] = max(high[water], values[water])


def _allergens(label: Label, listed: Ingredients) -> tuple[str, ...]:
    found = set(listed.allergens)
    if listed.gluten_of_oats_alone and GLUTEN_FREE in label.claims.lower().replace(
        "gluten free", GLUTEN_FREE
    ):
        # 21 CFR 101.91 holds the claim to less than 20 mg/kg
        found.discard("gluten")
    return tuple(name for name in ALLERGENS if name in found)


def _may_contain(listed: Ingredients) -> tuple[str, ...]:
    """What it may contain; without a list nobody can say of any."""
    if not listed.given:
        return tuple(ALLERGENS)
    return tuple(name for name in ALLERGENS if name in listed.may_contain)


def _tags(listed: Ingredients) -> tuple[str, ...]:
    out = [name for name in TAGGED if name in listed.classes]
    # what sets tofu, keeps the color or colors fortifies by the way
    by_the_way = {name for kind in BY_THE_WAY for name in listed.classes.get(kind, ())}
    if any(set(names) - by_the_way for names in listed.fortified.values()):
        out.append("fortified")
    if {"tree nuts", "peanut"} & set(listed.allergens):
        out.append("nuts in it")
    if "may phosphate" in listed.classes:
        out.append("may hold phosphate")
    if listed.animals:
        out.append("animal")
    return (*out,) if listed.given else (NOT_ENTERED,)


def _other_measures(read: ReadLabel, like: Food | None) -> Iterator[HouseholdMeasure]:
    """Household measures of the food it is like, where the label gives none of that sort: a cup is
    a cup of the like food, within a wider range."""
    mine = {row.measure for row in read.measures}
    volumes = {"cup", "tbsp", "tsp"}
    if like is None or mine & volumes:
        return
    for row in like.measures:
        if row.measure in volumes:
            yield replace(
                row,
                low=min(row.low, row.grams * 0.8),
                high=max(row.high, row.grams * 1.25),
                source=f"by kind, as of {like.name.lower()}",
            )
