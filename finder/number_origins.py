"""What a number on a page is of, by its key: "bowl-3", "day-9", "meal-9.lunch", "recipe-3",
"food-kale-raw"."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from django.http import Http404
from django.shortcuts import get_object_or_404

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from nutrition.composition.amounts import amount_of
from nutrition.composition.foods import Food, food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.portion import Portion
from nutrition.insight.derivation import Derived, of_dish, of_food, of_recipe
from nutrition.recipe.reckoning import Facts
from planner.day import Meal, ReckonedDay, reckon_day
from planner.models import Day
from recipes.facts import facts_of, facts_of_kept
from recipes.models import Recipe
from webkit.request_values import key_in


def _pk(text: str) -> int:
    pk = key_in(text)
    if pk is None:
        raise Http404("no such number")
    return pk


def _of_bowl(pk: int, key: str) -> Derived:
    reckoned = reckon_bowl(get_object_or_404(Bowl.with_removed, pk=pk))
    recipes = {str(part.pk): part.row.recipe for part in reckoned.parts}

    def facts(portion: Portion) -> Facts | None:
        recipe = recipes.get(portion.key)
        return facts_of(recipe) if recipe is not None else None

    dish = reckoned.dish
    return of_dish(dish.name, dish.profile, dish.portions, key, facts)


def _day(pk: int) -> ReckonedDay:
    return reckon_day(get_object_or_404(Day.with_removed.select_related("client"), pk=pk))


def _meal(day: ReckonedDay, key: str) -> Meal | None:
    return next((one for one in day.meals if one.key == key), None)


def _dated(day: ReckonedDay) -> str:
    return f"{day.day.date:%A, %B} {day.day.date.day}"


def _of_day(pk: int, key: str, meal: str = "") -> Derived:
    reckoned = _day(pk)
    entries = {
        str(entry.row.pk): entry for entry in reckoned.entries if meal in ("", entry.row.meal)
    }

    def facts(portion: Portion) -> Facts | None:
        row = entries[portion.key].row
        if row.planned is not None and "bowl" not in row.planned.data:
            return facts_of_kept(row.planned.data)
        return facts_of(row.recipe) if row.recipe and row.planned is None else None

    found = _meal(reckoned, meal)
    portions = [entry.portion for entry in entries.values()]
    if found is not None:
        return of_dish(found.name, found.profile, portions, key, facts)
    derived = of_dish(_dated(reckoned), reckoned.profile, portions, key, facts)
    taken = reckoned.supplements_profile
    if not entries or amount_of(taken, key).amount == 0:
        return derived
    said = tuple(one.words for one in reckoned.supplements)
    tablets = Derived(
        name="Supplements", key=key, amount=amount_of(taken, key), factors=said, basis="label"
    )
    return replace(derived, steps=(*derived.steps, tablets))


def foods_of(of: str) -> tuple[str, list[tuple[Food, float]]]:
    """The foods that a score is of, as they are eaten, with their grams [g], and the name of the
    whole. Raises Http404 for what is not there."""
    kind, _dash, rest = of.partition("-")
    if kind == "bowl":
        bowl = reckon_bowl(get_object_or_404(Bowl.with_removed, pk=_pk(rest)))
        return bowl.dish.name, _eaten(bowl.ingredients)
    if kind == "recipe":
        recipe: Recipe = get_object_or_404(Recipe.with_removed, pk=_pk(rest))
        return recipe.title, _eaten(facts_of(recipe).foods())
    if kind in ("day", "meal"):
        pk, _dot, key = rest.partition(".")
        day = _day(_pk(pk))
        meal = _meal(day, key)
        return (meal.name if meal else _dated(day)), _eaten((meal or day).ingredients)
    raise Http404("no such number")


def _eaten(ingredients: Iterable[Ingredient]) -> list[tuple[Food, float]]:
    return [(one.left, one.grams) for one in ingredients]


def derived(of: str, key: str) -> Derived:
    """Where a number comes from. Raises Http404 for what is not there."""
    kind, _dash, rest = of.partition("-")
    try:
        if kind == "bowl":
            return _of_bowl(_pk(rest), key)
        if kind == "day":
            return _of_day(_pk(rest), key)
        if kind == "meal":
            pk, _dot, meal = rest.partition(".")
            return _of_day(_pk(pk), key, meal)
        if kind == "recipe":
            recipe: Recipe = get_object_or_404(Recipe.with_removed, pk=_pk(rest))
            return of_recipe(facts_of(recipe), key)
        if kind == "food" and rest in food_table():
            return of_food(food_table()[rest], 100.0, key)
    except KeyError:
        raise Http404("nothing is reckoned of that") from None
    raise Http404("no such number")
