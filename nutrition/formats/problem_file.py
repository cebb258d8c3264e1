"""A balance problem as plain data: read from JSON, and its answer written back."""

from __future__ import annotations

import difflib
import math
from collections.abc import Callable, Mapping
from typing import Any

from nutrition.composition.food_names import food_names
from nutrition.composition.foods import Food, food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Limits, Portion, room_ml
from nutrition.formats.recipe_files import read_recipe
from nutrition.portions.obstacles import closest, colliding, hints, misses
from nutrition.portions.problem import BadProblem, Problem, name_of
from nutrition.portions.sensible import limits_around
from nutrition.portions.solver import Answer, balance
from nutrition.portions.staples import staple_portions
from nutrition.portions.work import Work
from nutrition.recipe.model import Recipe, UnreadableRecipe
from nutrition.recipe.reckoning import Facts, reckon
from nutrition.safety.gate import OPEN
from nutrition.targets.aim import Aim
from nutrition.targets.aims import with_upper_levels
from nutrition.targets.day import LEAST_BY_HAND, MOST_BY_HAND
from nutrition.targets.reference_intakes import reference_intakes
from nutrition.written import household
from nutrition.written.naming import name_food

SIGNIFICANT = 9
# Beyond this the solver's whole numbers would not hold what a target is multiplied to.
MOST_WEIGHT = 1e4
# A problem without a person keeps to the upper levels of adults.
ADULT = ("female", 30.0)
# Of an amount that is partly unknown less than this share of its aim is not worth a word.
WORTH_SAYING = 0.01
# Of the seconds that are given so much is work; the rest is a slower machine's.
FITS_WITHIN = 0.6
STOPPED = "the clock ended the search: asked again it may find other portions"


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


def _part(row: object, at: int, load: Callable[[str], str]) -> Portion:
    if not isinstance(row, dict):
        raise BadProblem(f"parts[{at}]", f"parts[{at}] is not an object")
    field = f"parts[{at}]"
    name = str(row.get("id") or f"part-{at + 1}")
    if "food" in row:
        food = _food(row["food"], f"{field}.food")
        profile, said, role, group, step = (
            food.profile(100.0),
            food.name,
            food.role,
            food.group,
            household.step_g(food),
        )
        foods, dish = [Ingredient(food, 100.0)], False
        ml = room_ml(food.volume_ml(100.0), 100.0) / 100.0
    elif "recipe" in row:
        facts = _recipe(row["recipe"], f"{field}.recipe", load)
        if facts.batch.grams <= 0:
            raise BadProblem(
                f"{field}.recipe", f"{field}.recipe weighs nothing: none of its lines could be read"
            )
        profile, said, role, group = facts.batch, facts.recipe.title or name, "dish", ""
        foods, dish = facts.batch_foods(), True
        step = max(round(facts.serving.grams / 20) * 5.0, 5.0)
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
    stated_step = _number(row, "step_grams", f"{field}.step_grams", step)
    if stated_step is None or not stated_step > 0:
        raise BadProblem(f"{field}.step_grams", f"{field}.step_grams must be above zero")
    usual = limits_around(role, grams, stated_step, least, most, group)
    first = usual.least if least is None else least
    last = usual.most if most is None else most
    if first < 0 or last < first:
        raise BadProblem(
            f"{field}.min_grams", f"{field}: min_grams must be zero or more and not over max_grams"
        )
    locked = bool(row.get("locked", False))
    limit = OPEN.limit(foods, profile.grams, dish)
    most = (
        0.0
        if limit.stops
        else limit.most
        if limit.most < profile.grams - 1e-9 or not limit.bars
        else max(grams, 0.0)
    )
    if not locked:
        first, last = min(first, most), min(last, most)
    limits = Limits(
        least=first,
        most=last,
        step=stated_step,
        ceiling=max(most, 0.0),
        held=" ".join(bar.why for bar in limit.bars),
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
        star=bool(row.get("star", False)),
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


def read_problem(data: object, load: Callable[[str], str]) -> Problem:
    """The problem of `{"parts": [...], "targets": {...}, "vessel_ml": n}`. `load` reads a recipe's
    file by its name.

    Raises BadProblem naming the field.
    """
    if not isinstance(data, dict):
        raise BadProblem("parts", "a problem is an object with parts and targets")
    parts, aims = data.get("parts"), data.get("targets")
    if not isinstance(parts, list) or not parts:
        raise BadProblem("parts", "parts: a list of at least one part")
    if not isinstance(aims, dict) or not aims:
        raise BadProblem("targets", "targets: an object with at least one target")
    vessel = _number(data, "vessel_ml", "vessel_ml")
    if vessel is not None and not vessel > 0:
        raise BadProblem("vessel_ml", "vessel_ml must be above zero")
    read = tuple(_part(row, at, load) for at, row in enumerate(parts))
    wanted = tuple(_aim(str(key), row) for key, row in aims.items())
    upper = {
        key: row.upper for key, row in reference_intakes(*ADULT).items() if row.upper is not None
    }
    return Problem(parts=read, aims=with_upper_levels(wanted, upper), vessel_ml=vessel)


def _round(value: float) -> float:
    return float(f"{value:.{SIGNIFICANT}g}")


def solve(problem: Problem, seconds: float | None = None) -> dict[str, object]:
    """The answer as JSON-ready data; the keys are the command's published ones."""
    # who gives the seconds means the clock; the work is counted so that it fits within them
    work = None if seconds is None else Work.of(seconds * FITS_WITHIN, seconds)
    answer = balance(problem, work)
    missed = misses(problem, answer)
    named = colliding(problem) if answer.status == "infeasible" else []
    found = hints(problem, answer, staple_portions()) if missed or named else []
    return {
        "status": answer.status,
        **({"stopped": STOPPED} if answer.stopped else {}),
        "portions": {name: _round(grams) for name, grams in answer.portions.items()},
        "totals": {aim.key: _round(answer.totals[aim.key]) for aim in _shown(problem, answer)},
        "unknown": _unknown(problem, answer),
        "held": {part.key: part.limits.held for part in problem.parts if part.limits.held},
        "violation": _round(answer.violation),
        "deviation": _round(answer.deviation),
        "misses": [
            {"nutrient": miss.key, "by": _round(miss.by), "why": miss.why} for miss in missed
        ],
        "colliding": [_collision(problem, name) for name in named],
        "hints": [
            {
                "kind": hint.kind,
                "id": hint.id,
                "to": _round(hint.to),
                "violation": _round(hint.violation),
                "text": hint.words,
            }
            for hint in found
        ],
    }


def _shown(problem: Problem, answer: Answer) -> list[Aim]:
    """The targets that were asked for, and the upper levels that are passed."""
    return [
        aim
        for aim in problem.aims
        if aim.weight > 0 or aim.miss(answer.totals[aim.key], answer.at_most[aim.key])
    ]


def _unknown(problem: Problem, answer: Answer) -> list[dict[str, object]]:
    """Of each target with a most: what of it is not known, in which parts, and between what it then
    lies."""
    out: list[dict[str, object]] = []
    for aim in problem.aims:
        known, most = answer.totals[aim.key], answer.at_most[aim.key]
        if aim.high is None or not aim.weight or most - known < WORTH_SAYING * aim.per:
            continue
        names = [
            part.name
            for part in problem.parts
            if part.unknown.get(aim.key, 0.0) * answer.portions[part.key] > 0
        ]
        out.append({"nutrient": aim.key, "parts": names, "from": _round(known), "to": _round(most)})
    return out


def _collision(problem: Problem, name: str) -> dict[str, object]:
    reached = closest(problem, name)
    return {"limit": name, "closest": None if reached is None else _round(reached)}


def as_text(problem: Problem, data: Mapping[str, Any]) -> str:
    """The answer as a page of text."""
    words = {
        "optimal": "Proved: no portions come nearer.",
        "feasible": "The best found; not proved the best.",
        "infeasible": "The hard limits cannot all be kept. These portions come nearest.",
    }
    out = [words[data["status"]]]
    if "stopped" in data:
        out.append(f"{data['stopped'].capitalize()}.")
    for part in problem.parts:
        new = data["portions"][part.key]
        moved = f" ({new - part.grams:+.0f})" if abs(new - part.grams) >= 0.5 else ""
        out.append(f"{new:8.1f} g{moved:9}{'  locked' if part.locked else ''}  {part.name}")
        if part.limits.held:
            out.append(f"{'':10} {part.limits.held}")
    out.append("")
    most = {row["nutrient"]: row["to"] for row in data["unknown"]}
    for aim in problem.aims:
        if aim.key not in data["totals"]:
            continue
        places = NUTRIENT[aim.key].decimals
        total, miss = data["totals"][aim.key], aim.miss(data["totals"][aim.key], most.get(aim.key))
        stands = (
            "inside"
            if not miss
            else f"{'under' if miss < 0 else 'over'} by {abs(miss):,.{places}f}"
        )
        out.append(
            f"{name_of(aim.key):28}{total:>12,.{places}f} {NUTRIENT[aim.key].unit:8} {stands}"
        )
    out.append(
        f"Misses {data['violation']:.4f}, distances {data['deviation']:.4f} (each over its aim, "
        f"weighted)"
    )
    for row in data["unknown"]:
        span = " and ".join(
            f"{row[side]:,.{NUTRIENT[row['nutrient']].decimals}f}" for side in ("from", "to")
        )
        name, unit = name_of(row["nutrient"]), NUTRIENT[row["nutrient"]].unit
        out.append(f"{name} is unknown in {', '.join(row['parts'])}: in all between {span} {unit}")
    out += [f"{NUTRIENT[miss['nutrient']].name}: {miss['why']}" for miss in data["misses"]]
    if data["colliding"]:
        out.append(
            "Cannot all be kept: " + ", ".join(name_of(row["limit"]) for row in data["colliding"])
        )
    out += [
        f"Would help: {hint['text']} (misses then {hint['violation']:.4f})"
        for hint in data["hints"]
    ]
    return "\n".join(out)


__all__ = ["Answer", "as_text", "read_problem", "solve"]
