"""Through the kitchen: what a food weighs and keeps after it was boiled, steamed, roasted, fried,
soaked or squeezed."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from nutrition.composition.cooking_methods import (
    ALCOHOL_LEFT,
    LEACHED_SPREAD,
    RETENTION_SPREAD,
    SALT_LEFT,
    TAKE_UP_WATER,
    UNCOOKED_STATES,
    WATER_KEPT,
    WATER_POURED_OFF,
    YIELD_OF,
    Cooked,
    Yield,
    resolved,
    retention_of,
    retentions,
    yield_of,
    yield_table,
)
from nutrition.composition.food_classes import classes_of
from nutrition.composition.foods import Food
from nutrition.composition.nutrients import KEYS
from nutrition.composition.profile import INDEX, Profile, Vector

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
        after = {YIELD_OF.get(one, one) for one in methods[at + 1 :]}
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
    # Whole: the steps of one cooking, in their order.
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
    yield_table()
    retentions()
