"""A day reckoned: entries, meals and the whole."""

from dataclasses import dataclass, field

from bowls.bowl import Part, reckon_bowl
from nutrition import household
from nutrition.bowl import Ingredient
from nutrition.foods import food_table
from nutrition.meals import MAIN_MEALS
from nutrition.profile import Profile
from nutrition.situations import PlannedDay
from nutrition.supplements import Supplement, per_day
from planner.models import MEALS, Day, DayEntry
from recipes.facts import facts_of
from roundpantry import show


@dataclass(frozen=True)
class Entry:
    row: DayEntry
    name: str
    kind: str
    profile: Profile
    said: str
    ingredients: list[Ingredient] = field(default_factory=list)
    parts: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class Meal:
    key: str
    name: str
    entries: list[Entry]

    @property
    def profile(self) -> Profile:
        return Profile.total(entry.profile for entry in self.entries)

    @property
    def ingredients(self) -> list[Ingredient]:
        return [ingredient for entry in self.entries for ingredient in entry.ingredients]


@dataclass(frozen=True)
class ReckonedDay:
    day: Day
    meals: list[Meal]
    profile: Profile
    supplements: list[Supplement]

    @property
    def ingredients(self) -> list[Ingredient]:
        return [ingredient for meal in self.meals for ingredient in meal.ingredients]

    @property
    def main_meals(self) -> int:
        """How many of the main meals have something in them."""
        return sum(1 for meal in self.meals if meal.key in MAIN_MEALS and meal.entries)

    def planned(self) -> PlannedDay:
        """The day as the cautions look at it."""
        return PlannedDay(self.profile, self.ingredients, self.main_meals)


def _count(amount: float, one: str, many: str) -> str:
    _value, words = household.fraction(amount)
    return f"{words} {one if amount <= 1 else many}"


def _part_words(part: Part, amount: float) -> str:
    """ "Dill barley, 2 1/4 cups (260 g)" """
    grams = part.profile.grams * amount
    measure = part.measure if amount == 1 else household.by_volume(part.volume_ml * amount, grams)
    return f"{part.name}, {measure.words} ({show.grams(grams)})" if measure else f"{part.name}, {show.grams(grams)}"


def _entry(row: DayEntry) -> Entry:
    if row.bowl_id:
        reckoned = reckon_bowl(row.bowl)
        scaled = [Ingredient(part.food, part.grams * row.amount) for part in reckoned.ingredients]
        parts = [_part_words(part, row.amount) for part in reckoned.parts]
        return Entry(row, row.bowl.name, "bowl", reckoned.profile * row.amount, _count(row.amount, "bowl", "bowls"), scaled, parts)
    if row.recipe_id:
        facts = facts_of(row.recipe)
        scaled = [Ingredient(food, grams * row.amount) for food, grams in facts.foods()]
        return Entry(row, row.recipe.title, "recipe", facts.serving * row.amount, _count(row.amount, "serving", "servings"), scaled)
    food = food_table()[row.food]
    measure = household.spoken(food, row.amount)
    profile = food.profile(row.amount, row.low_g, row.high_g)
    return Entry(row, food.name, "food", profile, measure.words if measure else "", [Ingredient(food, row.amount)])


def reckon_day(day: Day) -> ReckonedDay:
    """Entries, meals and the whole with the supplements the client takes."""
    entries = [_entry(row) for row in day.entries.select_related("bowl", "recipe")]
    meals = [Meal(key, name, [entry for entry in entries if entry.row.meal == key]) for key, name in MEALS]
    taken = day.client.supplements_taken()
    food = Profile.total(entry.profile for entry in entries)
    # supplements count toward a day that has food in it
    return ReckonedDay(day, meals, food + per_day(taken) if entries else food, taken)
