"""A week to be planned as plain data: read from JSON, and what was planned written back."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from datetime import date
from typing import Any

from nutrition.composition.drinks import beside_the_food
from nutrition.composition.food_names import food_names
from nutrition.composition.foods import Food, food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.portion import Portion, food_portion, room_ml
from nutrition.composition.profile import Profile
from nutrition.formats.day_file import Asked, read_asked
from nutrition.formats.recipe_files import read_recipe
from nutrition.planning.candidates import (
    LEAST_BATCH,
    OF_FOOD,
    OF_RECIPE,
    aims_of_days,
    candidate_of,
    known_share,
    page_check,
    week_base,
)
from nutrition.planning.kinds import KINDS, kinds_of_food, kinds_of_recipe
from nutrition.planning.proposals import MOST_WEEKS
from nutrition.planning.skeleton import (
    WEEKDAYS,
    BadSkeleton,
    Skeleton,
    days_of,
    from_data,
    skeleton_of_school,
    slots_of,
)
from nutrition.planning.week import BadWeek, Candidate, Choice, Prepared, Week
from nutrition.portions.staples import staples
from nutrition.prep.keeping import Keeping, is_heated, keeping_of
from nutrition.recipe.model import Recipe, UnreadableRecipe
from nutrition.recipe.reckoning import Facts, reckon
from nutrition.safety.gate import Gate, avoided_kinds
from nutrition.safety.situations import planned_situation
from nutrition.targets.day import day_targets
from nutrition.targets.person import OutOfRange
from nutrition.targets.watched_targets import watched_keys
from nutrition.written.naming import name_food

# A week without a date begins on a Monday.
A_MONDAY = date(2024, 1, 1)
MOST_BATCH = 4.0


@dataclass(frozen=True, kw_only=True)
class AskedWeek:
    """What a file asks for: the week, how many are wanted, the dishes that may not be served with
    why, and the foods that could help."""

    week: Week
    start: date
    most: int
    left_out: tuple[tuple[str, str], ...]
    helpers: tuple[Candidate, ...]


def _number(row: Mapping[str, Any], name: str, field: str, default: float) -> float:
    value = row.get(name, default)
    if isinstance(value, bool) or not isinstance(value, int | float) or not 0 < value < 1e5:
        raise BadWeek(field, f"{field}.{name} is a number above zero, not {value!r}")
    return float(value)


def _flag(row: Mapping[str, Any], name: str, default: bool) -> bool:
    return bool(row.get(name, default))


def _kinds(row: Mapping[str, Any], field: str, usual: frozenset[str]) -> frozenset[str]:
    stated = row.get("kinds")
    if stated is None:
        return usual
    if not isinstance(stated, list) or not all(one in KINDS for one in stated):
        raise BadWeek(f"{field}.kinds", f"{field}.kinds is a list of {', '.join(KINDS)}")
    return frozenset(stated)


def _food(phrase: object, field: str) -> Food:
    food = food_table().usable(str(phrase))
    if food is not None:
        return food
    named = name_food(str(phrase), food_names())
    if named.food is None or not named.sure:
        raise BadWeek(field, f"{field}: {named.why or f'“{phrase}” wants a look'}")
    return named.food


def _recipe(given: object, field: str, load: Callable[[str], str]) -> Facts:
    try:
        if isinstance(given, list):
            return reckon(Recipe(tuple(str(line) for line in given)))
        if isinstance(given, dict):
            stated = given.get("lines")
            if not isinstance(stated, list):
                raise BadWeek(f"{field}.lines", f"{field}.lines is a list of lines")
            lines = tuple(str(line) for line in stated)
            servings = _number(given, "servings", field, 1.0)
            title, method = str(given.get("title", "")), str(given.get("method", ""))
            return reckon(Recipe(lines, title=title, servings=servings, method=method))
        if isinstance(given, str):
            return reckon(read_recipe(given if "\n" in given else load(given)).recipe)
    except (UnreadableRecipe, ValueError) as error:
        if isinstance(error, BadWeek):
            raise
        raise BadWeek(field, f"{field}: {error}") from None
    raise BadWeek(field, f"{field}: a recipe is its lines or the name of its file")


@dataclass(frozen=True, kw_only=True)
class _Read:
    """A dish as it was read, before it is known what is asked of the days."""

    portion: Portion
    kinds: frozenset[str]
    counts: tuple[float, float, float]
    keeping: Keeping | None
    prepared: Prepared | None


def _dish(row: object, at: int, load: Callable[[str], str]) -> _Read:
    field = f"dishes[{at}]"
    if not isinstance(row, dict):
        raise BadWeek(field, f"{field} is not an object")
    key = str(row.get("id") or f"dish-{at + 1}")
    usual = OF_FOOD if "food" in row else OF_RECIPE
    least = _number(row, "least", field, usual[0])
    step = _number(row, "step", field, usual[2])
    most = _number(row, "most", field, max(usual[1], least))
    counts = least, most, step
    if "food" in row:
        food = _food(row["food"], f"{field}.food")
        grams = _number(row, "grams", field, first_helping_g(food))
        portion = beside_the_food(food_portion(food, grams, key=key))
        return _Read(
            portion=portion,
            kinds=_kinds(row, field, kinds_of_food(food)),
            counts=counts,
            keeping=None,
            prepared=None,
        )
    if "recipe" not in row:
        raise BadWeek(field, f"{field} needs a food or a recipe")
    facts = _recipe(row["recipe"], f"{field}.recipe", load)
    if facts.unresolved or facts.batch.grams <= 0:
        lines = ", ".join(f"“{line.text}” ({line.why})" for line in facts.unresolved)
        raise BadWeek(f"{field}.recipe", f"{field}.recipe cannot be counted: {lines or 'nothing'}")
    name, role = str(row.get("name") or facts.recipe.title or key), str(row.get("role", "dish"))
    foods = facts.foods()
    keeping = keeping_of(name, role, foods)
    days = row.get("keeps_days")
    if days is not None:
        keeping = replace(keeping, days=int(_number(row, "keeps_days", field, 1.0)))
    servings = facts.recipe.servings
    grams = facts.serving.grams
    room = facts.volume_ml / servings if facts.volume_ml else None
    prepared = Prepared(
        key=key,
        name=name,
        least=_number(row, "least_batch", field, LEAST_BATCH * servings),
        most=MOST_BATCH * servings,
        package=_number(row, "package", field, 1.0) if "package" in row else None,
        keeps=keeping.days,
        freezes=_flag(row, "freezes", keeping.freezes),
        cooks=_flag(row, "cooks", is_heated(foods)),
    )
    return _Read(
        portion=Portion(
            key=key,
            name=name,
            role=role,
            grams=grams,
            profile=facts.serving,
            volume_ml=room_ml(room, grams),
            foods=tuple(foods),
        ),
        kinds=_kinds(row, field, kinds_of_recipe(name, role, foods)),
        counts=counts,
        keeping=keeping,
        prepared=prepared,
    )


def _skeleton(data: Mapping[str, Any], asked: Asked) -> Skeleton:
    given = data.get("skeleton")
    if given is None:
        code = asked.school.code if asked.school else ""
        return skeleton_of_school(code, asked.person.meals)
    if not isinstance(given, dict):
        raise BadWeek("skeleton", "skeleton is an object with its days")
    if isinstance(given.get("days"), dict):
        # the same every day
        given = given | {"days": [{"meals": given["days"]}] * len(WEEKDAYS)}
    try:
        return from_data(given)
    except BadSkeleton as error:
        raise BadWeek(f"skeleton.{error.field}", f"skeleton: {error}") from None


def _start(data: Mapping[str, Any]) -> date:
    stated = data.get("start")
    if stated is None:
        return A_MONDAY
    try:
        return date.fromisoformat(str(stated))
    except ValueError:
        raise BadWeek("start", f"start is a date such as 2026-11-30, not {stated!r}") from None


def _pinned(week: Week, rows: object) -> Week:
    if not isinstance(rows, list):
        raise BadWeek("pinned", "pinned is a list")
    for at, row in enumerate(rows):
        field = f"pinned[{at}]"
        if not isinstance(row, dict):
            raise BadWeek(field, f"{field} is not an object")
        key = f"{row.get('day')}-{row.get('meal')}-{row.get('slot', 0)}"
        slot = next((one for one in week.slots if one.key == key), None)
        one = week.by_key.get(str(row.get("dish")))
        if slot is None:
            raise BadWeek(field, f"{field}: there is no slot {key} (day from 0, meal, slot from 0)")
        if one is None:
            raise BadWeek(
                field, f"{field}: there is no dish {row.get('dish')!r}, or it is left out"
            )
        count = _number(row, "count", field, one.usual)
        week = week.placed(key, Choice(candidate=one.key, count=count), True)
    return week


def read_week(data: object, load: Callable[[str], str]) -> AskedWeek:
    """The week of `{"person": {...}, "dishes": [...], "skeleton": {...}, "pinned": [...]}`; `load`
    reads a recipe's file by its name. Without a skeleton it is that of the person's school. What
    the person must not have is left out, with why. Raises BadWeek naming the field."""
    if not isinstance(data, dict):
        raise BadWeek("person", "a week is an object with a person and dishes")
    dishes = data.get("dishes")
    if not isinstance(dishes, list) or not dishes:
        raise BadWeek("dishes", "dishes: a list of at least one dish")
    try:
        asked = read_asked(data.get("person"))
        day = day_targets(asked.person, asked.school, asked.orders, asked.shares)
    except OutOfRange as error:
        raise BadWeek(f"person.{error.field}", f"person: {error}") from None
    of = planned_situation(day, asked.orders)
    gate = Gate(of, avoided_kinds(day.person.conditions, asked.school, day.person.age_years))
    skeleton, start = _skeleton(data, asked), _start(data)
    days, most = int(_number(data, "days", "days", 7)), int(_number(data, "weeks", "weeks", 1))
    if most > MOST_WEEKS:
        raise BadWeek("weeks", f"up to {MOST_WEEKS} weeks are planned")
    left_out, kept = [], []
    for at, row in enumerate(dishes):
        one = _dish(row, at, load)
        why = gate.why_not_dish(one.portion.foods)
        if why:
            left_out.append((one.portion.name, why))
        else:
            kept.append(one)
    if not kept:
        raise BadWeek("dishes", "nothing is left that may be served: " + left_out[0][1])
    watched = watched_keys(day.person, asked.school, asked.orders)
    plain = [
        candidate_of(one.portion, one.kinds, one.counts, (), keeping=one.keeping) for one in kept
    ]
    aims, over_week = aims_of_days(day, watched, known_share(plain, Profile.empty()))
    keys = [aim.key for aim in (*aims, *over_week)]
    candidates = tuple(
        candidate_of(
            one.portion,
            one.kinds,
            one.counts,
            keys,
            {one.prepared.key: 1.0} if one.prepared else None,
            one.keeping,
            at,
        )
        for at, one in enumerate(kept)
    )
    density = day.targets["kcal_per_gram"].aim if "kcal_per_gram" in day.targets else 1.0
    energy = day.targets["energy_kcal"].aim
    week = Week(
        days=days,
        slots=slots_of(skeleton, start, days),
        candidates=candidates,
        prepared=tuple(one.prepared for one in kept if one.prepared),
        aims=aims,
        over_week=over_week,
        base=week_base(Profile.empty(), keys),
        cook_days=days_of(skeleton.cooking, start, days),
        wishes=skeleton.wishes,
        density_g=energy / max(density, 0.3),
        check=page_check(of, gate, Profile.empty()),
    )
    helpers = tuple(
        candidate_of(food_portion(food, first_helping_g(food), key=food.slug), (), OF_FOOD, keys)
        for food in staples(gate)
        if not gate.why_not(food)
    )
    return AskedWeek(
        week=_pinned(week, data.get("pinned", [])),
        start=start,
        most=most,
        left_out=tuple(left_out),
        helpers=helpers,
    )
