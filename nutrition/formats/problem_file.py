"""A balance problem as plain data, read from JSON."""

from __future__ import annotations

import difflib
import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from typing import Any

from nutrition.composition.amounts import DENSITY, amount_of
from nutrition.composition.food_names import food_names
from nutrition.composition.foods import Food, food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import KEYS, NUTRIENT
from nutrition.composition.portion import Limits, Portion, room_ml
from nutrition.formats.caution_file import Eaten, read_meals
from nutrition.formats.day_file import read_asked
from nutrition.formats.recipe_files import read_recipe
from nutrition.portions.problem import BadProblem, Problem
from nutrition.portions.serving_limits import limits_around
from nutrition.portions.serving_rules import servable
from nutrition.recipe.model import Recipe, UnreadableRecipe
from nutrition.recipe.reckoning import Facts, reckon
from nutrition.safety.gate import OPEN, Gate, avoided_kinds
from nutrition.safety.situations import planned_situation
from nutrition.targets.aim import Aim
from nutrition.targets.aims import (
    ALL,
    UNPLANNED,
    aims_for,
    upper_levels,
    with_upper_levels,
    within_upper_levels,
)
from nutrition.targets.body import must_gain
from nutrition.targets.day import DayTargets, day_targets
from nutrition.targets.macronutrient_fit import ENOUGH, KCAL_PER_G
from nutrition.targets.meals import MealTarget, likely_meal
from nutrition.targets.orders import LEAST_BY_HAND, MOST_BY_HAND
from nutrition.targets.person import OutOfRange
from nutrition.targets.reference_intakes import reference_intakes
from nutrition.targets.watched_targets import watched_keys
from nutrition.written.naming import name_food

WHOLE_DAY = "day"
# A part with all of these is portioned as stated, by the sums alone.
EXACT = ("min_grams", "max_grams", "step_grams")
# Beyond this the solver's whole numbers would not hold what a target is multiplied to.
MOST_WEIGHT = 1e4
# A problem without a person keeps to the upper levels of adults.
ADULT = ("female", 30.0)


def _number(
    data: Mapping[str, Any], name: str, field: str, default: float | None = None
) -> float | None:
    value = data.get(name)
    if value is None:
        return default
    if isinstance(value, bool) or not isinstance(value, int | float) or not abs(value) < math.inf:
        raise BadProblem(field, f"{field} is a number, not {value!r}")
    if value and not LEAST_BY_HAND <= abs(value) <= MOST_BY_HAND:
        raise BadProblem(
            field,
            f"{field} is no number to plan with: give 0, or {LEAST_BY_HAND:g} to "
            f"{MOST_BY_HAND:,.0f}",
        )
    return float(value)


def _food(phrase: object, field: str) -> Food:
    """The food of that slug, or the one food that the words mean without a doubt."""
    if not isinstance(phrase, str):
        raise BadProblem(field, f"{field}: a food is a name, not {phrase!r}")
    own = food_table().usable(phrase)
    if own is not None:
        return own
    named = name_food(phrase, food_names())
    if named.food is not None and named.sure:
        return named.food
    if named.animal:
        why = f"“{named.why}” is from an animal"
    else:
        why = named.why or f"“{phrase}” wants a look: {'; '.join(named.notes)}"
    near = ", ".join(match.food.slug for match in named.candidates[:3])
    raise BadProblem(field, f"{field}: {why}" + (f" (near: {near})" if near else ""))


def _recipe(given: object, field: str, load: Callable[[str], str]) -> Facts:
    """A recipe as lines, as text, as `{"lines": [...], "servings": n, "batch_grams": g}`, or by the
    name of its file."""
    try:
        if isinstance(given, dict):
            lines = given.get("lines")
            if not isinstance(lines, list) or not lines:
                raise BadProblem(field, f"{field}: a recipe needs its lines")
            servings, batch = (
                _number(given, "servings", f"{field}.servings", 1.0),
                _number(given, "batch_grams", f"{field}.batch_grams"),
            )
            return reckon(
                Recipe(tuple(str(line) for line in lines), servings=servings or 1.0, batch_g=batch)
            )
        if isinstance(given, list):
            return reckon(Recipe(tuple(str(line) for line in given)))
        if isinstance(given, str):
            return reckon(read_recipe(given if "\n" in given else load(given)).recipe)
    except (UnreadableRecipe, ValueError) as error:
        if isinstance(error, BadProblem):
            raise
        raise BadProblem(field, f"{field}: {error}") from None
    raise BadProblem(field, f"{field}: a recipe is its lines or the name of its file")


def _part(row: object, at: int, load: Callable[[str], str], gate: Gate) -> Portion:
    if not isinstance(row, dict):
        raise BadProblem(f"parts[{at}]", f"parts[{at}] is not an object")
    field = f"parts[{at}]"
    name = str(row.get("id") or f"part-{at + 1}")
    if "food" in row:
        food = _food(row["food"], f"{field}.food")
        profile, said, role = food.profile(100.0), food.name, food.role
        foods, dish = [Ingredient(food, 100.0)], False
        ml = room_ml(food.volume_ml(100.0), 100.0) / 100.0
    elif "recipe" in row:
        facts = _recipe(row["recipe"], f"{field}.recipe", load)
        if facts.batch.grams <= 0:
            raise BadProblem(
                f"{field}.recipe", f"{field}.recipe weighs nothing: none of its lines could be read"
            )
        profile, said, role = facts.batch, facts.recipe.title or name, "dish"
        foods, dish = facts.batch_foods(), True
        ml = room_ml(facts.volume_ml, facts.batch.grams) / facts.batch.grams
    else:
        raise BadProblem(field, f"{field} needs a food or a recipe")
    role = str(row.get("role") or role)
    least, most = (
        _number(row, "min_grams", f"{field}.min_grams"),
        _number(row, "max_grams", f"{field}.max_grams"),
    )
    grams = _number(row, "grams", f"{field}.grams", least if least is not None else 0.0) or 0.0
    if grams < 0:
        raise BadProblem(f"{field}.grams", f"{field}.grams is below zero")
    served = servable(None if dish else foods[0].food, role)
    stated_step = _number(row, "step_grams", f"{field}.step_grams", served.step_g)
    if stated_step is None or not stated_step > 0:
        raise BadProblem(f"{field}.step_grams", f"{field}.step_grams must be above zero")
    star = bool(row.get("star", False))
    usual = limits_around(replace(served, step_g=stated_step), grams, least, most, star)
    first = usual.least if least is None else least
    last = usual.most if most is None else most
    if first < 0 or last < first:
        raise BadProblem(
            f"{field}.min_grams", f"{field}: min_grams must be zero or more and not over max_grams"
        )
    locked = bool(row.get("locked", False))
    # what is not there yet is looked at as a helping of it
    amount = grams if grams > 0 else profile.grams
    some = [one.times(amount / profile.grams) for one in foods]
    limit = gate.limit(some, amount, dish)
    ceiling = limit.most if limit.most < amount - 1e-9 or not limit.bars else max(grams, 0.0)
    most = 0.0 if limit.stops else ceiling
    if not locked:
        first, last = min(first, most), min(last, most)
    limits = Limits(
        least=first,
        most=last,
        step=stated_step,
        ceiling=max(most, 0.0),
        held=" ".join(bar.why for bar in limit.bars),
        keeps=usual.keeps,
        last=usual.last,
    )
    return Portion(
        key=name,
        name=said,
        role=role,
        grams=grams,
        profile=profile,
        volume_ml=ml * profile.grams,
        foods=foods,
        food=None if dish else foods[0].food,
        limits=limits,
        locked=locked,
        star=star,
    )


def _aim(key: str, row: object) -> Aim:
    field = f"targets.{key}"
    if key not in NUTRIENT:
        near = difflib.get_close_matches(key, list(NUTRIENT), 3)
        raise BadProblem(
            field, f"{field} is not known" + (f" (near: {', '.join(near)})" if near else "")
        )
    if not isinstance(row, dict):
        raise BadProblem(field, f"{field} is not an object")
    low, high = _number(row, "min", f"{field}.min"), _number(row, "max", f"{field}.max")
    aim = _number(row, "aim", f"{field}.aim")
    for name, value in (("min", low), ("aim", aim), ("max", high)):
        if value is not None and value < 0 and key != "pral_meq":
            raise BadProblem(f"{field}.{name}", f"{field}.{name} is below zero")
    if aim is None:
        # without an aim of its own a band aims at its middle, a bound at itself
        bounds = [value for value in (low, high) if value is not None]
        if not bounds:
            raise BadProblem(field, f"{field} needs min, aim or max")
        aim = sum(bounds) / len(bounds)
    elif (low is not None and aim < low) or (high is not None and aim > high):
        raise BadProblem(f"{field}.aim", f"{field}.aim of {aim:g} lies outside its min and max")
    weight = _number(row, "weight", f"{field}.weight", 1.0)
    if weight is not None and weight > MOST_WEIGHT:
        raise BadProblem(f"{field}.weight", f"{field}.weight is at most {MOST_WEIGHT:g}")
    return Aim(
        key=key,
        low=low,
        aim=aim,
        high=high,
        weight=1.0 if weight is None else weight,
        firm_low=bool(row.get("hard", False)),
        firm_high=bool(row.get("hard", False)),
    )


def _together(aims: Sequence[Aim]) -> None:
    """Raises BadProblem for leasts that bring more energy than may be."""
    by_key = {aim.key: aim for aim in aims}
    most = by_key["energy_kcal"].high if "energy_kcal" in by_key else None
    asked = sum((by_key[key].low or 0.0) * per for key, per in KCAL_PER_G.items() if key in by_key)
    if most is not None and asked > most * ENOUGH:
        raise BadProblem(
            "targets",
            f"the least of protein, carbohydrate and fat comes to {asked:.0f} kcal, more than the "
            f"{most:g} kcal that may be: change one of them",
        )


def _eaten_besides(data: Mapping[str, Any]) -> Eaten | None:
    """What else is eaten that day. Raises BadProblem for a line that is not read: what it brings
    would be missing."""
    given = data.get("day")
    if given is None:
        return None
    try:
        eaten = read_meals(given)
    except OutOfRange as error:
        raise BadProblem("day", str(error)) from None
    for line, why in (*eaten.refused, *eaten.unresolved):
        raise BadProblem("day", f"day: “{line}” is not read: {why}")
    return eaten


def _of_person(data: Mapping[str, Any]) -> tuple[DayTargets, Gate, MealTarget | None, str]:
    """The targets of the person it is for, their gate, the meal it is, and how that is known."""
    try:
        asked = read_asked(data["person"])
        day = day_targets(asked.person, asked.school, asked.orders, asked.shares)
    except OutOfRange as error:
        raise BadProblem(f"person.{error.field}", f"person: {error}") from None
    school = asked.school
    gate = Gate(
        planned_situation(day, asked.orders),
        avoided_kinds(day.person.conditions, school, day.person.age_years),
    )
    named = data.get("meal")
    keys = [meal.key for meal in day.meals]
    if named == WHOLE_DAY:
        return day, gate, None, "the whole day"
    if named is not None:
        meal = next((one for one in day.meals if one.key == named), None)
        if meal is None:
            raise BadProblem("meal", f"meal is one of {', '.join([*keys, WHOLE_DAY])}")
        return day, gate, meal, f"{meal.name.lower()}, as said"
    return day, gate, None, ""


def read_problem(data: object, load: Callable[[str], str]) -> Problem:
    """The problem of `{"parts": [...], "targets": {...}, "vessel_ml": n}`. `load` reads a recipe's
    file by its name.

    With a `person` (as for targets) their gate holds, and without `targets` of its own theirs for
    the `meal`; `day` is what else is eaten. Unless every part has a least, a most and a step of its
    own and nobody is named, the portions are changed as a cook would. Raises BadProblem naming the
    field.
    """
    if not isinstance(data, dict):
        raise BadProblem("parts", "a problem is an object with parts and targets")
    parts, aims = data.get("parts"), data.get("targets")
    if not isinstance(parts, list) or not parts:
        raise BadProblem("parts", "parts: a list of at least one part")
    if (not isinstance(aims, dict) or not aims) and ("person" not in data or aims is not None):
        raise BadProblem("targets", "targets: an object with at least one target")
    vessel = _number(data, "vessel_ml", "vessel_ml")
    if vessel is not None and not vessel > 0:
        raise BadProblem("vessel_ml", "vessel_ml must be above zero")
    eaten = _eaten_besides(data)
    gate, day, meal, judged_as = OPEN, None, None, ""
    if "person" in data:
        day, gate, meal, judged_as = _of_person(data)
    read = tuple(_part(row, at, load, gate) for at, row in enumerate(parts))
    if day is not None and not judged_as:
        kcal = sum(part.amount("energy_kcal") * part.grams for part in read)
        meal = likely_meal(day.meals, kcal)
        judged_as = f"{meal.name.lower()}: its energy is nearest" if meal else "the whole day"
    stated = isinstance(aims, dict)
    wanted = tuple(_aim(str(key), row) for key, row in (aims or {}).items())
    _together(wanted)
    if day is not None:
        rest = UNPLANNED if eaten is None else ALL
        share = 1.0 if meal is None else meal.share
        theirs = aims_for(day, watched_keys(day.person, day.school), share, meal, rest)
        named = {aim.key for aim in wanted}
        wanted = (
            *wanted,
            *(
                aim
                for aim in theirs
                if aim.key not in named and (not stated or aim.firm_high or aim.firm_low)
            ),
        )
        upper = upper_levels(day)
    else:
        upper = {
            key: row.upper
            for key, row in reference_intakes(*ADULT).items()
            if row.upper is not None
        }
    exact = "person" not in data and all(
        isinstance(row, dict)
        and (row.get("locked") or all(row.get(name) is not None for name in EXACT))
        for row in parts
    )
    base = {} if eaten is None else _base(wanted, eaten, meal)
    whole = meal is None and eaten is not None
    return Problem(
        parts=read,
        aims=within_upper_levels(with_upper_levels(wanted, upper), base),
        base=base,
        base_grams=eaten.profile.grams if eaten is not None and whole else 0.0,
        vessel_ml=vessel,
        cooks=not exact,
        eats_little=day is not None and must_gain(day.person),
        gate=gate,
        judged_as=judged_as,
    )


def _base(aims: Sequence[Aim], eaten: Eaten, meal: MealTarget | None) -> dict[str, float]:
    """What the rest of the day brings toward each target: all of it toward the day's, nothing
    toward what is asked of this meal. In each key's unit."""
    of_meal = {aim.key for aim in aims if not aim.of_day} if meal is not None else set()
    keys = {*KEYS, *NUTRIENT} - {DENSITY}
    return {
        key: amount_of(eaten.profile, key).amount
        for key in keys
        if key not in of_meal and NUTRIENT[key].group != "indices"
    }
