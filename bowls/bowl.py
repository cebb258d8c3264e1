"""A bowl reckoned: its parts, what each brings, how full it is, what it is made of."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from bowls.models import Bowl, BowlPart
from nutrition.composition.foods import Food, food_table
from nutrition.composition.portion import Ingredient, star_of
from nutrition.composition.profile import Profile
from nutrition.insight.make_up import kinds_of_protein, vegetables_in
from nutrition.recipe.reckoning import Facts
from nutrition.written import household
from nutrition.written.household import Spoken
from nutrition.written.matching import Line
from nutrition.written.typed_amounts import read_amount, read_batch_amount
from recipes.facts import facts_of, facts_of_kept, room_ml, with_parts


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
        """The part's share of a nutrient of the bowl [0 to 1]; None where the part's own is
        unknown."""
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


def _recipe_part(row: BowlPart, title: str, role: str, facts: Facts) -> Part:
    share = row.grams / facts.batch.grams if facts.batch.grams > 0 else 0.0
    whole = room_ml(role, facts)
    volume = whole * share if whole else row.grams * DISH_ML_PER_G
    measure = household.by_volume(volume, row.grams)
    foods = [part.times(share) for part in facts.batch_foods()]
    step = max(round(facts.serving.grams / 4 / 5) * 5, 5)
    return Part(
        row, title, facts.batch * share, volume, measure, float(step), foods, len(facts.unresolved)
    )


def reckon_part(row: BowlPart) -> Part | None:
    """One part by itself; None if its food has left the table."""
    if row.recipe_id:
        return _recipe_part(row, row.recipe.title, row.recipe.role, facts_of(row.recipe))
    return _food_part(row, food_table()[row.food]) if row.food in food_table() else None


def reckon_bowl(bowl: Bowl) -> Reckoned:
    """Add the parts up. Parts whose food has left the table are skipped: the table's slugs are
    stable."""
    return _reckoned(bowl, [reckon_part(row) for row in bowl.parts.select_related("recipe")])


def _reckoned(bowl: Bowl, found: Iterable[Part | None]) -> Reckoned:
    parts = [part for part in found if part is not None]
    chosen = star_of([(part.row.role, part.volume_ml, part.row.star) for part in parts])
    shown = [replace(part, star=i == chosen, number=i + 1) for i, part in enumerate(parts)]
    return Reckoned(bowl, shown, Profile.total(part.profile for part in shown))


PART_KEPT = ("role", "food", "grams", "low_g", "high_g", "basis", "place", "star")


def kept_bowl(bowl: Bowl) -> dict:
    """Everything that makes the bowl what it is, the recipes in it among that, as it is kept with a
    planned day."""
    parts = []
    for row in bowl.parts.select_related("recipe"):
        recipe = with_parts(row.recipe.kept()) if row.recipe_id else None
        parts.append({name: getattr(row, name) for name in PART_KEPT} | {"recipe": recipe})
    return {"title": bowl.name, "vessel_ml": bowl.vessel_ml, "bowl": parts}


def reckon_kept(kept: dict) -> Reckoned:
    """A bowl as it was kept, whatever became of it and its recipes since."""
    bowl = Bowl(name=kept["title"], vessel_ml=kept["vessel_ml"])
    found = []
    for place, part in enumerate(kept["bowl"]):
        row = BowlPart(pk=place, **{name: part[name] for name in PART_KEPT})
        if part["recipe"] is not None:
            found.append(
                _recipe_part(
                    row,
                    part["recipe"]["title"],
                    part["recipe"]["role"],
                    facts_of_kept(part["recipe"]),
                )
            )
        elif row.food in food_table():
            found.append(_food_part(row, food_table()[row.food]))
    return _reckoned(bowl, found)


def amount_for(row: BowlPart, text: str) -> Line:
    """What was typed as an amount of this part. Raises UnreadableAmount."""
    if row.recipe_id:
        facts = facts_of(row.recipe)
        volume = room_ml(row.recipe.role, facts)
        return read_batch_amount(
            text,
            facts.serving.grams,
            volume / facts.recipe.servings if volume else None,
            row.bowl.practice.measures,
        )
    return read_amount(text, food_table()[row.food], row.bowl.practice.measures)
