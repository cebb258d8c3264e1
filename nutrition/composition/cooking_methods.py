"""Ways of cooking: what people call them, and what each does to a food by the tables: weight by
yield, nutrients by retention, what leaches into water that is poured off."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from nutrition.composition.errors import CoreError
from nutrition.composition.foods import Food, food_table
from nutrition.composition.nutrients import KEYS
from nutrition.composition.profile import INDEX, Profile, Vector
from nutrition.composition.tables import csv_rows

# Names people write, and how each is reckoned: by which weight change, by which retention, and what
# becomes of the water.
METHOD_WORDS: dict[str, tuple[str, ...]] = {
    "boiled_drained": (
        "boiled, drained",
        "boiled and drained",
        "blanched",
        "parboiled",
        "cooked and drained",
    ),
    "boiled": ("boiled", "cooked", "cooked until tender"),
    "boiled_kept": (
        "boiled, water kept",
        "boiled with the water kept",
        "cooked in broth",
        "absorbed",
        "cooked until absorbed",
    ),
    "simmered": ("simmered", "stewed", "braised", "soup", "stew"),
    "steamed": ("steamed",),
    "pressure_cooked": ("pressure-cooked", "pressure cooked"),
    "baked": ("baked",),
    "roasted": ("roasted", "grilled", "toasted"),
    "air_fried": ("air-fried", "air fried"),
    "pan_fried_dry": ("pan-fried", "pan-fried dry", "dry-fried", "seared"),
    "pan_fried_water": ("pan-fried in water", "steam-fried", "water-sauteed"),
    "pan_fried_oil": ("pan-fried in oil", "sauteed", "stir-fried", "fried"),
    "microwaved": ("microwaved",),
    "soaked": ("soaked", "soaked and poured off", "rehydrated"),
    "sprouted": ("sprouted",),
    "blended": ("blended", "pureed", "mashed"),
    "squeezed": ("squeezed", "wrung out", "pressed"),
    "soaked_squeezed": ("soaked and squeezed", "rehydrated and squeezed"),
    "wilted": ("wilted",),
    "double_boiled": ("double-boiled", "boiled twice", "double boiled"),
    "rinsed": ("rinsed", "rinsed and drained", "washed"),
    "strained": ("blended and strained", "strained", "squeezed through a cloth", "nut milk"),
    "marinated": ("marinated",),
    "dehydrated": ("dehydrated", "dried", "oven-dried", "dried in the oven", "sun-dried"),
    "caramelized": ("caramelized", "caramelised"),
    "reduced": ("reduced", "cooked down", "boiled down", "thickened by simmering"),
    "raw": ("raw", "no cooking", "uncooked"),
}
YIELD_OF = {
    "boiled_drained": "boiled",
    "boiled_kept": "boiled",
    "simmered": "boiled",
    "pressure_cooked": "boiled",
    "double_boiled": "boiled",
    "baked": "roasted",
    "air_fried": "roasted",
    "pan_fried_dry": "pan_fried",
    "pan_fried_water": "pan_fried",
    "pan_fried_oil": "pan_fried",
    "wilted": "pan_fried",
}
_RETENTION_OF = {
    "simmered": "boiled_kept",
    "pressure_cooked": "boiled_kept",
    "baked": "roasted",
    "air_fried": "roasted",
    "pan_fried_dry": "pan_fried",
    "pan_fried_water": "pan_fried",
    "pan_fried_oil": "pan_fried",
    "sprouted": "soaked",
    "wilted": "pan_fried",
    "dehydrated": "roasted",
    "caramelized": "pan_fried",
    "reduced": "boiled_kept",
}
# The liquid of the recipe stays in the dish, and what is dry takes it up: the whole weighs what
# went in, less steam.
WATER_KEPT = frozenset({"boiled_kept", "simmered", "pressure_cooked"})
# Poured off with what it took along.
WATER_POURED_OFF = frozenset(
    {"boiled_drained", "double_boiled", "soaked", "soaked_squeezed", "sprouted"}
)
# Share of the whole that leaves as steam: best, least, most [0 to 1]. Common practice, no source.
STEAM = {
    "simmered": (0.10, 0.03, 0.20),
    "boiled_kept": (0.05, 0.02, 0.12),
    "pressure_cooked": (0.02, 0.0, 0.05),
}
# Salt in water that is poured off: the share that stays in the food. Common practice, no source.
SALT_LEFT = 0.2
RETENTION_SPREAD = 0.10
# What leaches into water that is poured off depends on the cut and the minutes: raw and boiled rows
# of vegetables differ from 0.4 to 1.0. Common practice, no source.
LEACHED_SPREAD = 0.25
# Share of alcohol left: stirred in and simmered half an hour, baked 25 minutes unstirred. USDA
# Table of Nutrient Retention Factors, Release 6, from memory.
ALCOHOL_LEFT = {
    "simmered": 0.35,
    "boiled_kept": 0.35,
    "pressure_cooked": 0.40,
    "baked": 0.45,
    "roasted": 0.45,
    "pan_fried_oil": 0.75,
}
UNCOOKED_STATES = ("raw", "dry", "frozen")
# These take up water in the pot.
TAKE_UP_WATER = frozenset({"grain", "pasta", "legume", "soy"})


class UnknownMethod(CoreError):
    """No way of cooking of that name; the message lists some."""


@dataclass(frozen=True, kw_only=True)
class Cooked:
    """A food after cooking: what is in it, its weight with its range [g], and what was assumed, in
    words. `heated`: it went through the pot, the oven or the pan."""

    profile: Profile
    grams: float
    low: float
    high: float
    assumed: tuple[str, ...] = ()
    heated: bool = False


@dataclass(frozen=True)
class Yield:
    """Grams after cooking from one gram before, with its range and source."""

    factor: float
    low: float
    high: float
    source: str


def read_method(text: str) -> str:
    """The code of a way of cooking from a cook's words. Raises UnknownMethod."""
    said = re.sub(r"\s+", " ", text.strip().lower().replace("é", "e"))
    for code, names in METHOD_WORDS.items():
        if said == code or said.replace(" ", "_") == code or said in names:
            return code
    raise UnknownMethod(
        f"“{text.strip()}” is no way of cooking that is known here: "
        f"{', '.join(names[0] for names in METHOD_WORDS.values())}"
    )


YIELD_COLUMNS = ("what", "methods", "factor", "low", "high", "source")


@lru_cache(maxsize=1)
def yield_table() -> tuple[tuple[tuple[str, ...], frozenset[str], Yield], ...]:
    return tuple(
        (
            tuple(row["what"].split("|")),
            frozenset(row["methods"].split("|")),
            Yield(float(row["factor"]), float(row["low"]), float(row["high"]), row["source"]),
        )
        for row in csv_rows("yields.csv", YIELD_COLUMNS)
    )


def yield_of(food: Food, method: str) -> Yield | None:
    """The weight after cooking over the weight before, for a food that is still uncooked; the first
    row that fits. None if unknown.

    References: USDA Agriculture Handbook 102 (1975) and package directions, from memory; each row
    of data/yields.csv says which.
    """
    wanted = YIELD_OF.get(method, method)
    for names, methods, factor in yield_table():
        if wanted in methods and any(
            name.removeprefix("group:") == food.group
            if name.startswith("group:")
            else re.match(name, food.kind_slug)
            for name in names
        ):
            return factor
    return None


@lru_cache(maxsize=1)
def retentions() -> dict[tuple[str, str], Vector]:
    out: dict[tuple[str, str], Vector] = {}
    for row in csv_rows("retention.csv", ("groups", "methods"), KEYS):
        kept = np.ones(len(KEYS))
        for key, value in row.items():
            if key in INDEX and value:
                kept[INDEX[key]] = float(value)
        for group in row["groups"].split("|"):
            for method in row["methods"].split("|"):
                out[group, method] = kept
    return out


# Boiled, these take up the water they are given; the others are boiled in plenty and drained.
# Common practice, no source.
ABSORBS = re.compile(
    r".*(oat|rice|quinoa|millet|bulgur|couscous|amaranth|teff|fonio|polenta|cornmeal|grits|farina"
    r"|buckwheat|kaniwa|semolina|porridge|red-lentil|split-mung|urad|moong)"
)
BOILED, COOKED, STEAMED = "boiled", "cooked", "steamed"


def absorbs(food: Food) -> bool:
    """Whether it takes up the water it is boiled in."""
    return food.state == "dry" and ABSORBS.match(food.kind_slug) is not None


def boiled_with(method: str, foods: Iterable[Food]) -> str:
    """What "boiled" is of a pot of these: with one that takes its water up the water is kept, else
    it is poured off. Any other method as it is."""
    if method != BOILED:
        return method
    return "boiled_kept" if any(map(absorbs, foods)) else "boiled_drained"


def resolved(food: Food, method: str) -> str:
    """A code with a bare "boiled" put as what it is of this food."""
    return as_cooked(food, method) if method == BOILED else method


def as_cooked(food: Food, word: str) -> str:
    """The code of what a cook's bare "cooked" or "boiled" does with a food: what takes up its water
    keeps it, what is boiled in plenty is drained, a vegetable that is just cooked is steamed. Any
    other word for a method as `read_method` reads it."""
    if word not in (BOILED, COOKED, "prepared"):
        return read_method(word)
    if absorbs(food):
        return "boiled_kept"
    plenty = word == BOILED or food.group in ("pasta", "legume", "grain", "starchy vegetable")
    return "boiled_drained" if plenty else STEAMED


def retention_of(food: Food, method: str) -> Vector | None:
    """The share of each nutrient that is left, in the order of KEYS [0 to 1]; None where no table
    speaks of the food.

    References: USDA Table of Nutrient Retention Factors, Release 6 (2007), from memory;
    double-boiled potato: Burrowes and Ramer (2008), from memory.
    """
    kept = retentions().get((food.group, _RETENTION_OF.get(method, method)))
    own = leached_of(food) if method == "boiled_drained" and kept is not None else None
    if kept is None or own is None:
        return kept
    kept = kept.copy()
    for key, share in own.items():
        kept[INDEX[key]] = share
    return kept


LEACHED_KEYS = ("potassium_mg", "phosphorus_mg")


@lru_cache(maxsize=1)
def _leached() -> tuple[tuple[re.Pattern[str], dict[str, float]], ...]:
    return tuple(
        (re.compile(row["what"]), {key: float(row[key]) for key in LEACHED_KEYS})
        for row in csv_rows("leached.csv", ("what", *LEACHED_KEYS, "source"))
    )


def leached_of(food: Food) -> dict[str, float] | None:
    """The share of potassium and phosphorus that a vegetable keeps when it is boiled in plenty of
    water and drained [0 to 1], by its own raw and boiled rows; None where there is no such pair.

    References: US government composition data, SR Legacy; each row of data/leached.csv says which.
    """
    return next((row for words, row in _leached() if words.match(food.kind_slug)), None)


def raw_for_cooked(food: Food, cooked_g: float, method: str) -> float | None:
    """How much of an uncooked food gives so much cooked. [g] from [g]; None where the yield is
    unknown."""
    factor = yield_of(food, method)
    return cooked_g / factor.factor if factor else None


def before_cooking(food: Food, grams: float) -> tuple[Food, float] | None:
    """The dry or raw food that a cooked one comes from, and how much of it. [g] from [g]; None
    where the table has no such pair."""
    if food.state != "cooked":
        return None
    stem = food.slug.removesuffix("-cooked")
    for state in UNCOOKED_STATES:
        twin = food_table().usable(f"{stem}-{state}")
        raw_g = raw_for_cooked(twin, grams, "boiled_drained") if twin else None
        if twin and raw_g:
            return twin, raw_g
    return None
