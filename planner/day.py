"""A day reckoned: entries, meals and the whole."""

from dataclasses import dataclass, field

from bowls.bowl import Part, Reckoned, reckon_bowl, reckon_kept
from nutrition.composition.foods import ROLES, food_table
from nutrition.composition.portion import Ingredient
from nutrition.composition.profile import Profile
from nutrition.composition.supplements import Supplement, per_day
from nutrition.recipe.reckoning import Facts
from nutrition.safety.situations import PlannedDay
from nutrition.targets.meals import MAIN_MEALS
from nutrition.written import household
from planner.models import MEALS, Day, DayEntry
from recipes.facts import facts_of, facts_of_kept, room_ml
from roundpantry import show


@dataclass(frozen=True, kw_only=True)
class Entry:
    row: DayEntry
    name: str
    kind: str
    profile: Profile
    said: str
    role: str
    volume_ml: float
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
    def supplements_profile(self) -> Profile:
        """What the supplements bring to the day."""
        return per_day(self.supplements)

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


def count_words(row: DayEntry, amount: float) -> str:
    """So many bowls or servings in words: "1 1/2 servings"."""
    one = "bowl" if row.bowl_id else "serving"
    _value, words = household.fraction(amount)
    return f"{words} {one if amount <= 1 else f'{one}s'}"


def _main_role(ingredients: list[Ingredient]) -> str:
    """The role that most of it has: what a bowl is drawn as among other things."""
    grams: dict[str, float] = {}
    for one in ingredients:
        if one.food.role in ROLES:
            grams[one.food.role] = grams.get(one.food.role, 0.0) + one.grams
    return max(grams, key=lambda role: grams[role], default="base")


def _part_words(part: Part, amount: float) -> str:
    """ "Dill barley, 2 1/4 cups (260 g)" """
    grams = part.profile.grams * amount
    measure = part.measure if amount == 1 else household.by_volume(part.volume_ml * amount, grams)
    return (
        f"{part.name}, {measure.words} ({show.grams(grams)})"
        if measure
        else f"{part.name}, {show.grams(grams)}"
    )


def _bowl_entry(row: DayEntry, reckoned: Reckoned) -> Entry:
    scaled = [part.times(row.amount) for part in reckoned.ingredients]
    parts = [_part_words(part, row.amount) for part in reckoned.parts]
    profile, volume = reckoned.profile * row.amount, reckoned.volume_ml * row.amount
    return Entry(
        row=row,
        name=reckoned.bowl.name,
        kind="bowl",
        profile=profile,
        said=count_words(row, row.amount),
        role=_main_role(scaled),
        volume_ml=volume,
        ingredients=scaled,
        parts=parts,
    )


def _recipe_entry(row: DayEntry, title: str, role: str, facts: Facts) -> Entry:
    scaled = [part.times(row.amount) for part in facts.foods()]
    profile = facts.serving * row.amount
    volume = (room_ml(role, facts) or facts.batch.grams) / facts.recipe.servings * row.amount
    role = role if role in ROLES else _main_role(scaled)
    return Entry(
        row=row,
        name=title,
        kind="recipe",
        profile=profile,
        said=count_words(row, row.amount),
        role=role,
        volume_ml=volume,
        ingredients=scaled,
    )


def entry_now(row: DayEntry) -> Entry:
    """An entry with its bowl or recipe as it is now."""
    if row.bowl_id:
        return _bowl_entry(row, reckon_bowl(row.bowl))
    return _recipe_entry(row, row.recipe.title, row.recipe.role, facts_of(row.recipe))


def _entry(row: DayEntry) -> Entry | None:
    """An entry as it was planned; None for a food that has left the table."""
    if row.planned_id:
        kept = row.planned.data
        if "bowl" in kept:
            return _bowl_entry(row, reckon_kept(kept))
        return _recipe_entry(row, kept["title"], kept["role"], facts_of_kept(kept))
    if not row.food:
        return entry_now(row)
    if row.food not in food_table():
        return None
    food = food_table()[row.food]
    measure = household.spoken(food, row.amount)
    profile = food.profile(row.amount, row.low_g, row.high_g)
    role, volume = (
        food.role if food.role in ROLES else "topping",
        food.volume_ml(row.amount) or row.amount,
    )
    return Entry(
        row=row,
        name=food.name,
        kind="food",
        profile=profile,
        said=measure.words if measure else "",
        role=role,
        volume_ml=volume,
        ingredients=[Ingredient(food, row.amount)],
    )


def reckon_day(day: Day) -> ReckonedDay:
    """Entries, meals and the whole with the supplements the client takes."""
    found = [_entry(row) for row in day.entries.select_related("bowl", "recipe", "planned")]
    entries = [entry for entry in found if entry is not None]
    meals = [
        Meal(key, name, [entry for entry in entries if entry.row.meal == key])
        for key, name in MEALS
    ]
    taken = day.client.supplements_taken()
    food = Profile.total(entry.profile for entry in entries)
    # supplements count toward a day that has food in it
    return ReckonedDay(day, meals, food + per_day(taken) if entries else food, taken)
