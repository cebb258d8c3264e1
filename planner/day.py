"""A day reckoned: entries, meals and the whole."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from threading import Lock
from typing import Any

from cachetools import LRUCache, cached
from django.db.models import QuerySet
from django.template.defaultfilters import floatformat

from bowls.bowl import Part, Reckoned, reckon_bowl, reckon_kept
from nutrition.composition.drinks import beside_the_food
from nutrition.composition.foods import ROLES, food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.portion import Dish, Portion, food_portion
from nutrition.composition.profile import Profile
from nutrition.composition.restaurant_meal import eaten_out
from nutrition.composition.supplements import Supplement, per_day
from nutrition.recipe.reckoning import Facts
from nutrition.safety.meal_size import meal_sizes
from nutrition.safety.situations import PlannedDay
from nutrition.targets.meals import MAIN_MEALS
from nutrition.written import household
from planner.models import MEALS, Day, DayEntry, Eaten
from planner.planned_copies import guess_of
from recipes.dishes import OfPortion, batch_portion
from recipes.facts import facts_of, facts_of_kept
from webkit import figures


@dataclass(frozen=True, kw_only=True)
class Entry(OfPortion):
    """A row of a day with the portion that it is; `parts` say what a bowl holds."""

    row: Any
    portion: Portion
    kind: str
    parts: list[str] = field(default_factory=list)

    @property
    def typed(self) -> str:
        """The amount as it stands in its field: grams of a food, a count of anything else."""
        amount = self.row.amount
        if self.kind == "out":
            guess = guess_of(self.row)
            return "" if guess.kcal is None else f"{guess.kcal:,.0f} kcal"
        return figures.grams(amount) if self.kind == "food" else floatformat(amount, -2)


@dataclass(frozen=True)
class Meal:
    key: str
    name: str
    entries: list[Entry]

    @property
    def dish(self) -> Dish:
        """The meal as it is eaten."""
        return Dish.of(self.key, self.name, [entry.portion for entry in self.entries], "meal")

    @property
    def profile(self) -> Profile:
        return self.dish.profile

    @property
    def ingredients(self) -> list[Ingredient]:
        return self.dish.foods


@dataclass(frozen=True)
class ReckonedDay:
    day: Day
    meals: list[Meal]
    profile: Profile
    supplements: list[Supplement]

    @property
    def supplements_profile(self) -> Profile:
        """What the supplements bring to the day."""
        return per_day(self.supplements)

    @property
    def ingredients(self) -> list[Ingredient]:
        return [ingredient for meal in self.meals for ingredient in meal.ingredients]

    @property
    def entries(self) -> list[Entry]:
        return [entry for meal in self.meals for entry in meal.entries]

    @property
    def unread(self) -> tuple[str, ...]:
        """The lines of its dishes that nobody could read, and what was eaten out."""
        return tuple(line for entry in self.entries for line in entry.unread)

    @property
    def main_meals(self) -> int:
        """How many of the main meals have something in them."""
        return sum(1 for meal in self.meals if meal.key in MAIN_MEALS and meal.entries)

    def planned(self) -> PlannedDay:
        """The day as the cautions look at it."""
        mains = [
            meal.profile["carbohydrate_g"].amount
            for meal in self.meals
            if meal.key in MAIN_MEALS and meal.entries
        ]
        return PlannedDay(
            profile=self.profile,
            foods=self.ingredients,
            main_meals=self.main_meals,
            least_meal_carbohydrate_g=min(mains, default=None),
            lines=self.unread,
            **meal_sizes([meal.ingredients for meal in self.meals]),
        )


def _main_role(ingredients: Sequence[Ingredient]) -> str:
    """The role that most of it has: what a bowl is drawn as among other things."""
    grams: dict[str, float] = {}
    for one in ingredients:
        if one.food.role in ROLES:
            grams[one.food.role] = grams.get(one.food.role, 0.0) + one.grams
    return max(grams, key=lambda role: grams[role], default="base")


def _part_words(part: Part, amount: float, system: str) -> str:
    """ "Dill barley, 2 1/4 cups (260 g)" """
    grams = part.profile.grams * amount
    measure = household.measure_of(part.portion, grams, system)
    return (
        f"{part.name}, {measure.words} ({figures.grams(grams)})"
        if measure
        else f"{part.name}, {figures.grams(grams)}"
    )


def _counted(row: Eaten, portion: Portion, unit: str) -> Portion:
    """So many of a bowl or a serving."""
    return replace(
        portion.times(row.amount),
        key=str(row.pk),
        locked=row.locked,
        unit=unit,
        unit_g=portion.grams,
        said=household.count_words(row.amount, unit),
    )


def bowl_portion(reckoned: Reckoned, key: str = "") -> Portion:
    """A whole bowl as one thing to eat."""
    return Portion(
        key=key,
        name=reckoned.bowl.name,
        role=_main_role(reckoned.ingredients),
        grams=reckoned.profile.grams,
        profile=reckoned.profile,
        volume_ml=reckoned.volume_ml,
        foods=tuple(reckoned.ingredients),
        said=household.count_words(1.0, "bowl"),
        unit="bowl",
        unit_g=reckoned.profile.grams,
        unread=reckoned.unread,
    )


def _bowl_entry(row: Eaten, reckoned: Reckoned, system: str) -> Entry:
    return Entry(
        row=row,
        portion=_counted(row, bowl_portion(reckoned), "bowl"),
        kind="bowl",
        parts=[_part_words(part, row.amount, system) for part in reckoned.parts],
    )


def _recipe_entry(row: Eaten, title: str, role: str, facts: Facts) -> Entry:
    portion = batch_portion(title, role, facts, facts.serving.grams)
    drawn = role if role in ROLES else _main_role(portion.foods)
    counted = _counted(row, replace(portion, role=drawn), "serving")
    return Entry(row=row, portion=counted, kind="recipe")


def _out_entry(row: Eaten) -> Entry:
    """A meal eaten out: words, a guess of its energy, the rest unknown."""
    guess = guess_of(row)
    portion = eaten_out(str(row.pk), guess.words, guess.kcal, guess.low, guess.high)
    said = guess.said if row.amount == 1 else f"{row.amount:.2g} of it, {guess.said}"
    counted = replace(
        portion.times(row.amount), key=str(row.pk), locked=True, said=said, unread=(guess.words,)
    )
    return Entry(row=row, portion=counted, kind="out")


def portion_of_food(row: Eaten) -> Portion:
    """The food of a row by its grams; a drink counts as drunk beside the rest."""
    food = food_table()[row.food]
    role = food.role if food.role in ROLES else "topping"
    return beside_the_food(food_portion(food, row.amount, row.low_g, row.high_g, str(row.pk), role))


def entry_now(row: Eaten, system: str) -> Entry:
    """Something eaten with its bowl or recipe as it is now, in the cups and spoons of a system."""
    if row.bowl is not None:
        return _bowl_entry(row, reckon_bowl(row.bowl), system)
    recipe = row.recipe
    assert recipe is not None
    return _recipe_entry(row, recipe.title, recipe.role, facts_of(recipe))


def entry_of(row: Eaten, system: str) -> Entry | None:
    """Something eaten as it was planned; None for a food that has left the table."""
    if row.planned is not None:
        kept = row.planned.data
        if "out" in kept:
            return _out_entry(row)
        if "bowl" in kept:
            return _bowl_entry(row, reckon_kept(kept, system), system)
        return _recipe_entry(row, kept["title"], kept["role"], facts_of_kept(kept))
    if not row.food:
        return entry_now(row, system)
    if row.food not in food_table():
        return None
    portion = portion_of_food(row)
    said = household.say(portion, row.amount, system)
    return Entry(row=row, portion=replace(portion, locked=row.locked, said=said), kind="food")


# So many days stay at hand as the cautions look at them.
KEPT_DAYS = 512


# What of a row decides what is eaten by it.
STATE = ("pk", "meal", "food", "amount", "low_g", "high_g", "bowl_id", "recipe_id", "planned_id")


def states_by_day(rows: QuerySet, fields: Sequence[str]) -> dict[int, list[tuple[Any, ...]]]:
    """The states of the rows of days, without making records of them."""
    out: dict[int, list[tuple[Any, ...]]] = {}
    for day, *state in rows.values_list("day_id", *fields):
        out.setdefault(day, []).append(tuple(state))
    return out


def planned_days(days: Sequence[Day], supplements: Sequence[Supplement]) -> list[PlannedDay]:
    """Other days of a client who takes these, as the cautions look at them; cheap to ask again for
    those that did not change."""
    states = states_by_day(DayEntry.objects.filter(day__in=[day.pk for day in days]), STATE)
    taken = tuple((one.key, one.dose, one.per_week) for one in supplements)
    return [_planned_of(day, tuple(states.get(day.pk, ())), taken) for day in days]


def _planned_of(day: Day, entries: tuple[Any, ...], taken: tuple[Any, ...]) -> PlannedDay:
    # what was planned before it was kept with the day follows what became of it since
    if any(not row[2] and row[8] is None for row in entries):
        return reckon_day(day).planned()
    key = (day.pk, day.practice_id, entries, taken, food_table().key)
    return _planned(key, day)


@cached(LRUCache(KEPT_DAYS), key=lambda key, day: key, lock=Lock())
def _planned(key: tuple[Any, ...], day: Day) -> PlannedDay:
    """A day in a state that the key tells from every other."""
    return reckon_day(day).planned()


def reckon_day(day: Day) -> ReckonedDay:
    """Entries, meals and the whole with the supplements the client takes."""
    rows = list(day.entries.select_related("bowl__practice", "recipe", "planned"))
    for row in rows:
        row.day = day
    found = [entry_of(row, day.practice.measures) for row in rows]
    entries = [entry for entry in found if entry is not None]
    meals = [
        Meal(key, name, [entry for entry in entries if entry.row.meal == key])
        for key, name in MEALS
    ]
    taken = day.client.supplements_taken()
    food = Profile.total(entry.profile for entry in entries)
    # supplements count toward a day that has food in it
    return ReckonedDay(day, meals, food + per_day(taken) if entries else food, taken)
