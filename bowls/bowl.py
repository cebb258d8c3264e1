"""A bowl reckoned: its parts, what each brings, how full it is, what it is made of."""

from __future__ import annotations

from dataclasses import dataclass, replace

from bowls.models import Bowl, BowlPart
from nutrition import household
from nutrition.amounts import read_amount, read_batch_amount
from nutrition.bowl import Ingredient, kinds_of_protein, star_of, vegetables_in
from nutrition.foods import Food, food_table
from nutrition.household import Spoken
from nutrition.lines import Line
from nutrition.profile import Profile
from recipes.facts import facts_of, room_ml


@dataclass(frozen=True)
class Part:
    """One part of a bowl with everything that is shown of it."""

    row: BowlPart
    name: str
    profile: Profile
    volume_ml: float
    measure: Spoken | None
    step_g: float
    foods: list[Ingredient]
    unresolved: int
    star: bool = False
    number: int = 0

    @property
    def pk(self) -> int:
        return int(self.row.pk)


@dataclass(frozen=True)
class Reckoned:
    bowl: Bowl
    parts: list[Part]
    profile: Profile

    @property
    def volume_ml(self) -> float:
        return sum(part.volume_ml for part in self.parts)

    @property
    def ingredients(self) -> list[Ingredient]:
        return [ingredient for part in self.parts for ingredient in part.foods]

    @property
    def vegetables(self) -> list[str]:
        return vegetables_in(self.ingredients)

    @property
    def proteins(self) -> list[tuple[str, float]]:
        return kinds_of_protein(self.ingredients)

    @property
    def foods(self) -> list[Food]:
        return [ingredient.food for ingredient in self.ingredients]

    def share(self, part: Part, key: str) -> float | None:
        """The part's share of a nutrient of the bowl [0 to 1]; None where the part's own is unknown."""
        total, own = self.profile[key].amount, part.profile[key]
        if own.known <= 0 or total <= 0:
            return None
        return own.amount / total


# A dish without a known volume is taken as water. [mL/g]
DISH_ML_PER_G = 1.0


def _food_part(row: BowlPart, food: Food) -> Part:
    profile = food.profile(row.grams, row.low_g, row.high_g)
    volume = food.volume_ml(row.grams) or row.grams * DISH_ML_PER_G
    measure = household.spoken(food, row.grams)
    step = household.step_g(food)
    return Part(row, food.name, profile, volume, measure, step, [Ingredient(food, row.grams)], 0)


def _recipe_part(row: BowlPart) -> Part:
    recipe = row.recipe
    facts = facts_of(recipe)
    share = row.grams / facts.batch.grams if facts.batch.grams > 0 else 0.0
    whole = room_ml(recipe, facts)
    volume = whole * share if whole else row.grams * DISH_ML_PER_G
    measure = household.by_volume(volume, row.grams)
    foods = [Ingredient(food, grams * facts.recipe.servings * share) for food, grams in facts.foods()]
    step = max(round(facts.serving.grams / 4 / 5) * 5, 5)
    return Part(row, recipe.title, facts.batch * share, volume, measure, float(step), foods, len(facts.unresolved))


def reckon_part(row: BowlPart) -> Part | None:
    """One part by itself; None if its food has left the table."""
    if row.recipe_id:
        return _recipe_part(row)
    return _food_part(row, food_table()[row.food]) if row.food in food_table() else None


def reckon_bowl(bowl: Bowl) -> Reckoned:
    """Add the parts up. Parts whose food has left the table are skipped: the table's slugs are stable."""
    reckoned = [reckon_part(row) for row in bowl.parts.select_related("recipe__practice")]
    parts = [part for part in reckoned if part is not None]
    chosen = star_of([(part.row.role, part.volume_ml, part.row.star) for part in parts])
    shown = [replace(part, star=i == chosen, number=i + 1) for i, part in enumerate(parts)]
    return Reckoned(bowl, shown, Profile.total(part.profile for part in shown))


def amount_for(row: BowlPart, text: str) -> Line:
    """What was typed as an amount of this part. Raises UnreadableAmount."""
    if row.recipe_id:
        facts = facts_of(row.recipe)
        volume = room_ml(row.recipe, facts)
        return read_batch_amount(text, facts.serving.grams, volume / facts.recipe.servings if volume else None, row.bowl.practice.measures)
    return read_amount(text, food_table()[row.food], row.bowl.practice.measures)
