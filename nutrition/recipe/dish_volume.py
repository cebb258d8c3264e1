"""The room of a dish in a cup, from its weight as it is eaten and its kind: never from the cups of
the raw lines. What a cook measured stands over it."""

from __future__ import annotations

import re
import tomllib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.cooking_methods import Cooked
from nutrition.composition.foods import ML_PER_CUP, Food, ready_to_eat
from nutrition.composition.tables import DATA, needs, only
from nutrition.written.line import Line

# What brings loose water into a dish.
LIQUIDS = frozenset({"drink", "broth", "plant milk", "fruit juice"})
WET = re.compile(r"^tomato.*(canned|passata|puree|sauce)|soup")
EATEN = ("cooked", "ready", "canned")


@dataclass(frozen=True)
class DishVolume:
    """What a milliliter of a dish weighs [g/mL], by which kind and why."""

    g_per_ml: float
    kind: str
    source: str


@dataclass(frozen=True)
class _Kind:
    name: str
    words: re.Pattern[str]
    volume: DishVolume


@dataclass(frozen=True)
class _Foods:
    groups: frozenset[str]
    states: frozenset[str]
    g_per_ml: float


@dataclass(frozen=True)
class _Table:
    wet_from: float
    packs_to: float
    kinds: tuple[_Kind, ...]
    foods: tuple[_Foods, ...]

    def named(self, title: str) -> DishVolume | None:
        return next((one.volume for one in self.kinds if one.words.search(title)), None)

    def soup(self) -> DishVolume:
        return next(one.volume for one in self.kinds if one.name == "soup or stew")


@lru_cache(maxsize=1)
def _table() -> _Table:
    """data/dish_volume.toml. Raises BadTable for a key that nothing reads."""
    name = "dish_volume.toml"
    data = tomllib.loads((DATA / name).read_text(encoding="utf-8"))
    only(data, ("mix", "kind", "food"), name)
    only(data["mix"], ("wet_from", "packs_to"), f"{name}, mix")
    kinds = []
    for row in data["kind"]:
        needs(row, ("name", "words", "g_per_ml", "source"), f"{name}, kind")
        only(row, ("name", "words", "g_per_ml", "source"), f"{name}, kind")
        words = re.compile(rf"\b(?:{row['words']})\b", re.I)
        volume = DishVolume(float(row["g_per_ml"]), row["name"], row["source"])
        kinds.append(_Kind(row["name"], words, volume))
    foods = []
    for row in data["food"]:
        needs(row, ("groups", "g_per_ml", "source"), f"{name}, food")
        only(row, ("groups", "states", "g_per_ml", "source"), f"{name}, food")
        groups, states = (
            frozenset(filter(None, row.get(key, "").split("|"))) for key in ("groups", "states")
        )
        foods.append(_Foods(groups, states, float(row["g_per_ml"])))
    return _Table(**data["mix"], kinds=tuple(kinds), foods=tuple(foods))


def eaten_g_per_ml(food: Food, heated: bool) -> float:
    """What a milliliter of a food weighs as it is eaten: by its own cup where the row is ready to
    eat, else by its kind. [g/mL] `heated`: it went through the pot, the oven or the pan."""
    eaten = ready_to_eat(food) if heated or food.state == "dry" else food
    own = eaten.cup
    if own is not None and eaten.state.startswith(EATEN) and eaten.group != "leafy green":
        return own.grams / ML_PER_CUP
    state = "cooked" if heated else eaten.state
    return next(
        row.g_per_ml
        for row in _table().foods
        if (not row.groups or eaten.group in row.groups) and (not row.states or state in row.states)
    )


def dish_volume(
    title: str, rows: Sequence[tuple[Line, Cooked | None]], loose: float
) -> DishVolume | None:
    """What a milliliter of a dish weighs: by the kind that its title names, as a soup where so much
    of it is loose liquid, else by its foods as they are eaten. None where none of it is settled, or
    it is eaten in pieces.

    `loose` is the share of its liquids that dry goods do not take up. [0 to 1]
    """
    table = _table()
    held = [
        (line.food, done)
        for line, done in rows
        if line.food is not None and done is not None and done.grams > 0
    ]
    weight = sum(done.grams for _food, done in held)
    named = table.named(title)
    if not held or (named is not None and named.g_per_ml <= 0):
        return None
    if named is not None:
        return named
    wet = sum(
        done.grams * loose
        for food, done in held
        if food.group in LIQUIDS or WET.search(food.kind_slug)
    )
    if len(held) > 1 and wet >= table.wet_from * weight:
        return table.soup()
    room = sum(done.grams / eaten_g_per_ml(food, done.heated) for food, done in held)
    packed = table.packs_to if len(held) > 1 else 1.0
    return DishVolume(weight / (room * packed), "", "by its foods as they are eaten")
