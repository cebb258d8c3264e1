"""How a part is served to somebody: what kidneys, a small stomach, a body that must gain, or blood
sugar change of what a cook would serve anybody."""

from __future__ import annotations

import math
from dataclasses import replace

from nutrition.composition.food_classes import classes_of
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.portion import Limits, Portion
from nutrition.portions.staples import KIDNEYS, WARFARIN, moves_the_dose
from nutrition.safety.gate import AVOIDED, Gate

# What brings more potassium than this and is no bean and no grain is taken down before those where
# the kidneys set the limits. Common practice, no source. [mg in 100 g]
MUCH_POTASSIUM_MG = 250.0
NOT_BY_POTASSIUM = ("base", "protein")
# With diabetes one starch is not made larger than what holds so much carbohydrate, [g], and what is
# starch by so much of its weight is one. Common practice, no source. [share]
MOST_STARCH_G, MOSTLY_STARCH = 60.0, 0.5
BLOOD_SUGAR = frozenset({"diabetes", "gestational_diabetes"})
FAST_SUGAR, ALCOHOL = "fast sugar", "alcohol"
SMALL_STOMACH = "gastric_surgery"
# What holds at least this much is made larger where little can be eaten. Common practice, no
# source. [kcal/g]
RICH_KCAL_PER_G = 2.0
# After gastric surgery what gets so much of its energy from protein keeps its place, and of the
# rest so much may be left. Common practice, no source. [share]
OF_PROTEIN, LEFT, KCAL_PER_G_PROTEIN = 0.2, 0.25, 4.0
# With diabetes what is sweet without its fiber is no more on a plate than what holds so much sugar.
# Common practice, no source. [g]
MOST_FAST_SUGAR_G = 10.0
REFINED = "refined grain"
STARCHES = frozenset({"any grain", "flour products", "starchy vegetables"})


def served_to(portion: Portion, gate: Gate, richer: bool = False) -> Portion:
    """A part within what this person is served of it. `richer`: their food is made richer, and
    not larger, as it is with a small stomach. What is locked stays as it is."""
    if portion.locked:
        return portion
    conditions, limits = gate.situation.conditions, portion.limits
    if not KIDNEYS.isdisjoint(conditions) and _much_potassium(portion):
        limits = replace(limits, keeps=False, first=True)
    if not BLOOD_SUGAR.isdisjoint(conditions) and _is_starch(portion):
        holds = portion.amount("carbohydrate_g")
        most = MOST_STARCH_G / holds if holds > 0 else limits.most
        # a white one is made smaller where it is larger, and what is eaten of a whole one stays
        now = limits.least if _is_refined(portion) else max(portion.grams, limits.least)
        limits = _no_more_than(portion, limits, max(most, now))
    if WARFARIN in conditions and moves_the_dose(portion.amount("vitamin_k_ug"), portion.role):
        now = max(portion.grams, limits.least)
        limits = replace(limits, keeps=True, most=min(limits.most, now))
    if (richer or SMALL_STOMACH in conditions) and not _is_rich(portion):
        limits = replace(limits, most=min(limits.most, max(portion.grams, limits.least)))
    if not BLOOD_SUGAR.isdisjoint(conditions) and _is_fast_sugar(portion):
        limits = _little_sugar(portion, limits)
    if SMALL_STOMACH in conditions:
        limits = _protein_first(portion, limits)
    if limits.first and portion.food is not None:
        limits = _unwarned(portion, limits, gate)
    if limits is portion.limits:
        return portion
    return replace(portion, limits=replace(limits, ceiling=min(limits.ceiling, limits.most)))


def _is_alcohol(portion: Portion) -> bool:
    return portion.food is not None and ALCOHOL in classes_of(portion.food)


def _is_fast_sugar(portion: Portion) -> bool:
    return portion.food is not None and FAST_SUGAR in classes_of(portion.food)


def _little_sugar(portion: Portion, limits: Limits) -> Limits:
    """A spoon of jam, half a glass of juice."""
    grams = portion.amount("sugars_g") * portion.grams
    if grams <= MOST_FAST_SUGAR_G or portion.grams <= 0:
        return limits
    most = limits.on_step(MOST_FAST_SUGAR_G / grams * portion.grams)
    why = limits.held or f"{portion.name}: {grams:.0f} g of sugar without its fiber, with diabetes."
    return replace(limits, most=min(limits.most, most), held=why)


def _protein_first(portion: Portion, limits: Limits) -> Limits:
    """In a small stomach protein keeps its place, and all else gives up most of its own."""
    of_protein = portion.amount("protein_g") * KCAL_PER_G_PROTEIN
    if portion.role == "protein" or of_protein >= OF_PROTEIN * portion.amount("energy_kcal") > 0:
        return replace(limits, keeps=True)
    further = max(math.floor((limits.least - LEFT * portion.grams) / limits.step + 1e-9), 0)
    return replace(limits, least=limits.least - further * limits.step)


def _unwarned(portion: Portion, limits: Limits, gate: Gate) -> Limits:
    """What is taken down before anything else is served as far as nothing is said against it: a
    glass of juice with diabetes, oil where a school does without."""
    now = portion.foods_in(portion.grams)
    bars = gate.bars(now) if portion.grams > 0 else ()
    # a label that is to be read is no reason to leave it out
    goes = _is_fast_sugar(portion) or _is_alcohol(portion)
    if not any(goes or bar.by_amount or bar.code.startswith(AVOIDED) for bar in bars):
        return limits
    most = limits.on_step(gate.share_without_a_word(now) * portion.grams)
    why = limits.held or " ".join(bar.why for bar in bars)
    return replace(limits, most=min(limits.most, most), held=why)


def _much_potassium(portion: Portion) -> bool:
    mg = portion.amount("potassium_mg") * 100.0
    return portion.role not in NOT_BY_POTASSIUM and mg >= MUCH_POTASSIUM_MG


def _is_refined(portion: Portion) -> bool:
    return portion.food is not None and REFINED in classes_of(portion.food)


def _no_more_than(portion: Portion, limits: Limits, most: float) -> Limits:
    """The limits with another most, on a step where the part must be smaller than it is."""
    if most >= portion.grams:
        return replace(limits, most=min(limits.most, most))
    why = (
        limits.held or f"{portion.name}: no more than {MOST_STARCH_G:.0f} g of carbohydrate of it."
    )
    return replace(limits, most=limits.on_step(most), held=why)


def _is_starch(portion: Portion) -> bool:
    grams = sum(one.grams for one in portion.foods)
    starch = sum(one.grams for one in portion.foods if _starchy(one))
    return portion.role == "base" or (grams > 0 and starch >= MOSTLY_STARCH * grams)


def _starchy(one: Ingredient) -> bool:
    return not STARCHES.isdisjoint(classes_of(one.food))


def _is_rich(portion: Portion) -> bool:
    return portion.amount("energy_kcal") >= RICH_KCAL_PER_G
