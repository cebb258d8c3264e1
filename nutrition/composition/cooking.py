"""Through the kitchen: what a food weighs and keeps after it was boiled, steamed, roasted, fried,
soaked or squeezed."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from nutrition.composition.errors import CoreError
from nutrition.composition.food_classes import classes_of
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
_YIELD_OF = {
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
def _yields() -> tuple[tuple[tuple[str, ...], frozenset[str], Yield], ...]:
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
    wanted = _YIELD_OF.get(method, method)
    for names, methods, factor in _yields():
        if wanted in methods and any(
            name.removeprefix("group:") == food.group
            if name.startswith("group:")
            else re.match(name, food.kind_slug)
            for name in names
        ):
            return factor
    return None


@lru_cache(maxsize=1)
def _retentions() -> dict[tuple[str, str], Vector]:
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
    kept = _retentions().get((food.group, _RETENTION_OF.get(method, method)))
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


# Weighed against the dry food, so what came before it has no weight of its own.
_FROM_DRY = frozenset({"boiled", "soaked_squeezed"})
_SOAKS = frozenset({"soaked", "sprouted"})


def _in_turn(food: Food, methods: Sequence[str]) -> tuple[Yield | None, Vector | None]:
    """What several methods in a row do to the weight and to what is in a food: the yields and what
    each leaves multiplied, a soak before the pot counted once."""
    factor, kept = None, None
    for at, method in enumerate(methods):
        left = retention_of(food, method)
        if left is not None:
            kept = left if kept is None else kept * left
        own = None if method in WATER_KEPT else yield_of(food, method)
        after = {_YIELD_OF.get(one, one) for one in methods[at + 1 :]}
        if own is None or (method in _SOAKS and after & _FROM_DRY):
            continue
        factor = (
            own
            if factor is None
            else Yield(
                factor.factor * own.factor,
                factor.low * own.low,
                factor.high * own.high,
                f"{factor.source}; {own.source}",
            )
        )
    return factor, kept


def cook_in_turn(
    food: Food, grams: float, low: float, high: float, methods: Sequence[str]
) -> Cooked:
    """A food through several methods in a row: soaked, then squeezed; soaked, then boiled. [g]"""
    done = tuple(method for method in methods if method)
    if "soaked" in done and done[-1] == "squeezed":
        done = (*(method for method in done[:-1] if method != "soaked"), "soaked_squeezed")
    if len(done) < 2 or food.state not in UNCOOKED_STATES:
        return cook(food, grams, low, high, done[-1] if done else "")
    factor, kept = _in_turn(food, done)
    return _changed(food, (grams, low, high), factor or Yield(1.0, 1.0, 1.0, ""), kept)


# Rinsing what lies in brine or salt: the share of sodium and of potassium that stays; best, least,
# most. Common practice, no source.
RINSED_SODIUM, RINSED_POTASSIUM = (0.65, 0.4, 0.9), (0.85, 0.7, 1.0)
# Of what is blended with water and strained so much passes the cloth: of protein and fat, of fiber,
# of all else; best, least, most. Common practice, no source.
PASSES, PASSES_FIBER, PASSES_OTHER = (0.45, 0.30, 0.60), (0.08, 0.02, 0.2), (0.45, 0.25, 0.65)
# The weight that passes with it, and of the water. Common practice, no source.
PASSES_WEIGHT, PASSES_WATER = (0.45, 0.3, 0.6), (0.93, 0.85, 0.98)
STRAINED_GROUPS = frozenset({"nut", "seed", "grain", "soy", "legume"})


def _shares(
    fixed: dict[str, tuple[float, float, float]], other: tuple[float, float, float]
) -> tuple[Vector, Vector, Vector]:
    """What is left of each nutrient: best, least, most."""
    out = tuple(np.full(len(KEYS), share) for share in other)
    for key, shares in fixed.items():
        for vector, share in zip(out, shares, strict=True):
            vector[INDEX[key]] = share
    return out[0], out[1], out[2]


def _left_of(
    food: Food,
    weight: tuple[float, float, float],
    grams: tuple[float, float, float],
    shares: tuple[Vector, Vector, Vector],
    said: str,
) -> Cooked:
    """A food of which shares are left, and so much weight. [g]"""
    best, least, most = shares
    before, low, high = weight
    profile = Profile.of(
        food.values * best, food.low * least, food.high * most, before, low, high, food.upper
    )
    return Cooked(
        profile=profile.weighing(grams[0]),
        grams=grams[0],
        low=grams[1],
        high=grams[2],
        assumed=(said,),
    )


def _rinsed(food: Food, grams: float, low: float, high: float) -> Cooked:
    kept = {"sodium_mg": RINSED_SODIUM, "potassium_mg": RINSED_POTASSIUM}
    said = f"rinsed: {RINSED_SODIUM[0]:.0%} of the sodium taken to stay"
    return _left_of(
        food, (grams, low, high), (grams, low, high), _shares(kept, (1.0, 1.0, 1.0)), said
    )


def _strained(food: Food, grams: float, low: float, high: float) -> Cooked:
    """What passes the cloth of a nut milk; the water passes but for what the pulp holds."""
    whole = (1.0, 1.0, 1.0)
    if food.slug == "water":
        shares, weight = _shares({}, whole), PASSES_WATER
    elif food.group in STRAINED_GROUPS:
        shares = _shares(
            {"protein_g": PASSES, "fat_g": PASSES, "fiber_g": PASSES_FIBER}, PASSES_OTHER
        )
        weight = PASSES_WEIGHT
    else:
        return Cooked(profile=food.profile(grams, low, high), grams=grams, low=low, high=high)
    best, least, most = weight
    said = f"strained: about {best:.0%} of it passes the cloth, {least:.0%} to {most:.0%}"
    after = (grams * best, low * least, high * most)
    return _left_of(food, (grams, low, high), after, shares, said)


def cook(
    food: Food, grams: float, low: float, high: float, method: str, takes_up: float = 0.0
) -> Cooked:
    """A food cooked by itself: dry goods grow, vegetables shrink, and what is poured off takes its
    share along. [g]

    With the water kept the food weighs what went into the pot: the water is a line of its own, and
    steam leaves the whole; `takes_up` is the share of the water it needs that no line brings
    [0 to 1]. A food that is cooked, canned or ready already stays as it is.
    """
    plain = food.profile(grams, low, high)
    method = resolved(food, method)
    if method in ("", "raw", "blended"):
        return Cooked(profile=plain, grams=grams, low=low, high=high)
    if method == "rinsed":
        return _rinsed(food, grams, low, high)
    if method == "strained":
        return _strained(food, grams, low, high)
    if method == "reduced" and (factor := yield_of(food, method)):
        return _changed(food, (grams, low, high), factor, None)
    if food.slug == "water":
        gone = method in WATER_POURED_OFF or method in (
            "steamed",
            "pan_fried_water",
            "pan_fried_dry",
        )
        return (
            Cooked(
                profile=Profile.empty(),
                grams=0.0,
                low=0.0,
                high=0.0,
                assumed=("poured off or gone as steam",),
            )
            if gone
            else Cooked(profile=plain, grams=grams, low=low, high=high)
        )
    if "alcohol" in classes_of(food) and method in ALCOHOL_LEFT:
        return _without_alcohol(food, grams, low, high, ALCOHOL_LEFT[method])
    if food.group == "salt" and method in WATER_POURED_OFF:
        left = plain * SALT_LEFT
        return Cooked(
            profile=left,
            grams=left.grams,
            low=0.0,
            high=grams,
            assumed=(f"salted water poured off: {SALT_LEFT:.0%} of the salt taken to stay",),
        )
    if food.state not in UNCOOKED_STATES:
        return Cooked(
            profile=plain,
            grams=grams,
            low=low,
            high=high,
            assumed=("cooked already: taken as it is",)
            if food.state in ("cooked", "canned")
            else (),
        )
    factor = yield_of(food, method)
    if method in WATER_KEPT:
        factor = _grown(factor, takes_up) if factor and takes_up > 0 else None
    kept = retention_of(food, method)
    if factor is None and kept is None:
        return Cooked(profile=plain, grams=grams, low=low, high=high)
    leaches = LEACHED_SPREAD if method in WATER_POURED_OFF else RETENTION_SPREAD
    return _changed(food, (grams, low, high), factor or Yield(1.0, 1.0, 1.0, ""), kept, leaches)


def _grown(factor: Yield, share: float) -> Yield:
    """A yield of which only a share of the water is taken up. [0 to 1]"""
    return Yield(
        1.0 + (factor.factor - 1.0) * share,
        1.0 + (factor.low - 1.0) * share,
        1.0 + (factor.high - 1.0) * share,
        f"no water is among the lines: it takes up what it needs; {factor.source}",
    )


def water_needed(food: Food, grams: float, method: str) -> float:
    """The water that dry goods take up in a pot whose water is kept. [g] from [g]"""
    if food.state != "dry" or food.group not in TAKE_UP_WATER or method not in WATER_KEPT:
        return 0.0
    factor = yield_of(food, method)
    return grams * (factor.factor - 1.0) if factor else 0.0


def _without_alcohol(food: Food, grams: float, low: float, high: float, left: float) -> Cooked:
    """What heat leaves of the energy that is not protein, fat or carbohydrate: alcohol at 7
    kcal/g."""
    plain = food.profile(grams, low, high)
    other = (
        4.0 * (plain["protein_g"].amount + plain["carbohydrate_g"].amount)
        + 9.0 * plain["fat_g"].amount
    )
    alcohol = max(plain["energy_kcal"].amount - other, 0.0)
    values = plain.amounts.copy()
    values[INDEX["energy_kcal"]] -= alcohol * (1.0 - left)
    gone = alcohol * (1.0 - left) / 7.0
    cooked = Profile(
        values,
        plain.down2,
        plain.up2,
        plain.known_g,
        plain.known_lines,
        plain.grams,
        plain.grams_down2,
        plain.grams_up2,
        1,
        could_add=plain.could_add,
    )
    stays = 1.0 - gone / grams if grams > 0 else 1.0
    return Cooked(
        profile=cooked.weighing(grams - gone),
        grams=grams * stays,
        low=low * stays,
        high=high * stays,
        assumed=(f"{left:.0%} of the alcohol stays",),
    )


# These leach into water that is poured off.
_LEACHES = [INDEX[key] for key in ("potassium_mg", "sodium_mg", "vitamin_c_mg", "folate_ug")]


def _changed(
    food: Food,
    weight: tuple[float, float, float],
    factor: Yield,
    kept: Vector | None,
    leaches: float = RETENTION_SPREAD,
) -> Cooked:
    grams, low, high = weight
    cooked = grams * factor.factor
    values, least, most = food.values.copy(), food.low.copy(), food.high.copy()
    if kept is not None:
        heat = kept < 1.0
        values, least, most = values * kept, least * kept, most * kept
        spread = np.where(heat, RETENTION_SPREAD, 0.0)
        spread[_LEACHES] = np.where(heat[_LEACHES], leaches, 0.0)
        least, most = (
            least * (1 - spread),
            most * np.minimum(1 + spread, np.where(kept > 0, 1 / np.maximum(kept, 1e-9), 1.0)),
        )
    water = INDEX["water_g"]
    if not np.isnan(values[water]):
        # what is gained or lost is water
        values[water] = least[water] = most[water] = max(
            food.values[water] + (factor.factor - 1.0) * 100.0, 0.0
        )
    profile = (
        Profile.of(values, least, most, grams, low, high, food.upper).weighing(cooked)
        if grams > 0
        else Profile.empty()
    )
    assumed = (
        (f"{grams:.0f} g weigh {cooked:.0f} g cooked ({factor.source})",) if factor.source else ()
    )
    return Cooked(
        profile=profile,
        grams=cooked,
        low=low * factor.low,
        high=high * factor.high,
        assumed=assumed,
    )


def check_tables() -> None:
    """Reads the tables of yields and of what is left. Raises BadTable."""
    _yields()
    _retentions()
