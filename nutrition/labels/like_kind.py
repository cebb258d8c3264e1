"""What labels do not print, filled from foods of the like kind, each value with its range; or
left unknown."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from nutrition.composition.foods import Food, FoodTable
from nutrition.composition.nutrients import AMINO_ACIDS, KEYS
from nutrition.composition.profile import INDEX, Vector

# From so many foods of the kind on, their middle and their spread say something. Common practice,
# no source.
LEAST_FOODS = 4
LOW_PERCENT, HIGH_PERCENT = 10.0, 90.0
# However alike the foods of a kind are, another one may be so far from them. [share]
LEAST_SPREAD = 0.15
# What is taken over per gram of something that labels print; all else goes per gram of dry matter.
PER_FAT = (
    *("monounsaturated_fat_g", "polyunsaturated_fat_g", "linoleic_g", "ala_g", "saturated_fat_g"),
    *("vitamin_e_mg",),
)
PER_PROTEIN = AMINO_ACIDS
# Never filled: what makers add or a single ingredient decides.
NEVER = frozenset(
    {
        *("energy_kcal", "water_g", "protein_g", "fat_g", "carbohydrate_g", "sodium_mg"),
        *("added_sugars_g", "epa_g", "dha_g", "vitamin_b12_ug", "vitamin_d_ug", "iodine_ug"),
    }
)
# Plants have none of these unless they are added. References: common practice, no source.
NONE_IN_PLANTS = ("vitamin_b12_ug", "vitamin_d_ug", "epa_g", "dha_g")
# Groups of which some do have some: dried mushrooms, fermented beans, yeasts and seaweeds.
BUT = frozenset({"mushroom", "sea vegetable", "yeast", "soy", "supplement", "comparator", "drink"})


@dataclass(frozen=True, kw_only=True)
class Filled:
    """Values per 100 g with their ranges, in the order of KEYS, NaN where unknown; `keys` says
    which were filled."""

    values: Vector
    low: Vector
    high: Vector
    keys: tuple[str, ...]


# Between two foods of one kind energy differs by no more than so many times, and each large part by
# no more than so much of the weight, or so much of itself. Common practice, no source. [g/100 g]
SAME_ENERGY, SAME_PART_G, SAME_PART = 1.8, 6.0, 0.6
_PARTS = ("protein_g", "fat_g", "carbohydrate_g")


def fits(printed: Mapping[str, float], like: Food) -> bool:
    """Whether what a label prints per 100 g could be of a kind with a food: a burger is no seitan,
    a sauce of tomatoes no raw tomato. What neither knows is not held against it."""
    mine, theirs = printed.get("energy_kcal"), like.per_100_g("energy_kcal")
    if mine is not None and theirs is not None:
        less, more = sorted((mine, theirs))
        if more > less * SAME_ENERGY and more - less > 15.0:
            return False
    for key in _PARTS:
        mine, theirs = printed.get(key), like.per_100_g(key)
        if mine is None or theirs is None:
            continue
        if abs(mine - theirs) > max(SAME_PART_G, SAME_PART * max(mine, theirs)):
            return False
    return True


def peers_of(table: FoodTable, group: str, state: str) -> tuple[list[Food], str]:
    """The foods that show what a kind is like, measured rows only, and the kind in words."""
    rows = [
        food
        for food in table
        if food.group == group
        and not food.own
        and not food.comparator
        and "fortified" not in food.tags
        and not food.source.startswith("computed")
    ]
    same = [food for food in rows if food.state == state]
    if len(same) >= LEAST_FOODS:
        return same, f"{len(same)} foods of the kind {group}, {state}"
    return rows, f"{len(rows)} foods of the kind {group}"


def fill(
    known: Vector,
    low: Vector,
    high: Vector,
    peers: Sequence[Food],
    like: Food | None,
    leave: Collection[str] = (),
) -> Filled:
    """Fill what is NaN in `known` from the peers, and from `like`, the one food that it is most
    like; `leave` names what stays unknown. `low` and `high` are the ranges of what is known.

    Amino acids go per gram of protein, fatty acids per gram of fat, the rest per gram of dry
    matter. The range holds the middle eight tenths of the kind, and the like food.
    """
    values, low, high = known.copy(), low.copy(), high.copy()
    done = []
    for key in KEYS:
        at = INDEX[key]
        if not np.isnan(values[at]) or key in NEVER or key in leave:
            continue
        per = _base(key)
        mine = _amount(known, per)
        found = [ratio for food in peers if (ratio := _ratio(food, key, per)) is not None]
        own = _ratio(like, key, per) if like is not None else None
        if mine is None or len(found) < LEAST_FOODS:
            continue
        least, middle, most = np.percentile(found, [LOW_PERCENT, 50.0, HIGH_PERCENT])
        middle = middle if own is None else own
        values[at] = middle * mine
        low[at] = min(least, middle * (1 - LEAST_SPREAD)) * mine
        high[at] = max(most, middle * (1 + LEAST_SPREAD)) * mine
        done.append(key)
    return Filled(values=values, low=low, high=high, keys=tuple(done))


def none_added(group: str, fortified: Iterable[str]) -> tuple[str, ...]:
    """Of what plants lack, the nutrients that a food with a full ingredient list lacks too."""
    return () if group in BUT else tuple(key for key in NONE_IN_PLANTS if key not in fortified)


def _base(key: str) -> str:
    if key in PER_PROTEIN:
        return "protein_g"
    return "fat_g" if key in PER_FAT else "dry"


def _amount(values: Vector, per: str) -> float | None:
    value = 100.0 - values[INDEX["water_g"]] if per == "dry" else values[INDEX[per]]
    return None if np.isnan(value) else float(value)


def _ratio(food: Food, key: str, per: str) -> float | None:
    value, base = food.values[INDEX[key]], _amount(food.values, per)
    if np.isnan(value) or base is None or base <= 0.05:
        return None
    return float(value) / base
