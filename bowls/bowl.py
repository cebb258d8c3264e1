"""A bowl reckoned: its parts, what each brings, how full it is, what it is made of."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from bowls.models import Bowl, BowlPart
from nutrition.composition.foods import Food, food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.portion import Dish, Portion, food_portion, star_of
from nutrition.composition.profile import Profile
from nutrition.insight.make_up import kinds_of_protein, vegetables_in
from nutrition.recipe.reckoning import Facts
from nutrition.written import household
from nutrition.written.household import Spoken
from nutrition.written.line import Line
from nutrition.written.typed_amounts import read_amount, read_batch_amount
from recipes.dishes import OfPortion, batch_portion
from recipes.facts import facts_of, facts_of_kept, room_of, with_parts


@dataclass(frozen=True, kw_only=True)
class Part(OfPortion):
    """A row of a bowl with the portion that it is, and what its form needs."""

    row: BowlPart
    portion: Portion
    measure: Spoken | None
    step_g: float
    unresolved: int = 0
    number: int = 0

    @property
    def pk(self) -> int:
        return int(self.row.pk)


@dataclass(frozen=True)
class Reckoned:
    bowl: Bowl
    parts: list[Part]
    dish: Dish

    @property
    def profile(self) -> Profile:
        return self.dish.profile

    @property
    def volume_ml(self) -> float:
        return self.dish.volume_ml

    @property
    def ingredients(self) -> list[Ingredient]:
        return self.dish.foods

    @property
    def unread(self) -> tuple[str, ...]:
        """The lines of its recipes that nobody could read."""
        return tuple(line for part in self.parts for line in part.unread)

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
        return self.dish.share(part.portion, key)


def _as_row(portion: Portion, row: BowlPart) -> Portion:
    return replace(portion, key=str(row.pk), role=row.role, locked=row.locked, star=row.star)


def _food_part(row: BowlPart, food: Food, system: str) -> Part:
    portion = _as_row(food_portion(food, row.grams, row.low_g, row.high_g), row)
    return Part(
        row=row,
        portion=portion,
        measure=household.measure_of(portion, row.grams, system),
        step_g=household.step_g(food),
    )


def _recipe_part(row: BowlPart, title: str, role: str, facts: Facts, system: str) -> Part:
    portion = batch_portion(title, role, facts, row.grams)
    return Part(
        row=row,
        portion=_as_row(portion, row),
        measure=household.measure_of(portion, row.grams, system),
        step_g=float(max(round(facts.serving.grams / 4 / 5) * 5, 5)),
        unresolved=len(facts.unresolved),
    )


def system_of(bowl: Bowl) -> str:
    """Whose cups and spoons a bowl is said in."""
    return bowl.practice.measures if bowl.practice_id else "us"


def reckon_part(row: BowlPart) -> Part | None:
    """One part by itself; None if its food has left the table."""
    system = system_of(row.bowl)
    recipe = row.recipe
    if recipe is not None:
        return _recipe_part(row, recipe.title, recipe.role, facts_of(recipe), system)
    return _food_part(row, food_table()[row.food], system) if row.food in food_table() else None


def rows_of(bowl: Bowl) -> list[BowlPart]:
    """The bowl's rows with their recipes; those that a list fetched for all its bowls at once."""
    fetched = "parts" in getattr(bowl, "_prefetched_objects_cache", {})
    return list(bowl.parts.all() if fetched else bowl.parts.select_related("recipe"))


def reckon_bowl(bowl: Bowl) -> Reckoned:
    """Add the parts up. Parts whose food has left the table are skipped: the table's slugs are
    stable."""
    return reckon_rows(bowl, rows_of(bowl))


def reckon_rows(bowl: Bowl, rows: Sequence[BowlPart]) -> Reckoned:
    """The bowl as it would be of these rows: while it is built, some of them weigh what lies on the
    scale."""
    for row in rows:
        row.bowl = bowl
    return _reckoned(bowl, [reckon_part(row) for row in rows])


def _reckoned(bowl: Bowl, found: Iterable[Part | None]) -> Reckoned:
    parts = [part for part in found if part is not None]
    chosen = star_of([part.portion for part in parts])
    shown = [
        replace(part, portion=replace(part.portion, star=i == chosen), number=i + 1)
        for i, part in enumerate(parts)
    ]
    dish = Dish.of(f"bowl-{bowl.pk}", bowl.name, [part.portion for part in shown], "bowl")
    return Reckoned(bowl, shown, dish)


PART_KEPT = ("role", "food", "grams", "low_g", "high_g", "basis", "place", "star")


def kept_bowl(bowl: Bowl) -> dict:
    """Everything that makes the bowl what it is, the recipes in it among that, as it is kept with a
    planned day."""
    parts = []
    for row in rows_of(bowl):
        recipe = with_parts(row.recipe.kept()) if row.recipe else None
        parts.append({name: getattr(row, name) for name in PART_KEPT} | {"recipe": recipe})
    return {"title": bowl.name, "vessel_ml": bowl.vessel_ml, "bowl": parts}


def reckon_kept(kept: dict, system: str) -> Reckoned:
    """A bowl as it was kept, whatever became of it and its recipes since."""
    bowl = Bowl(name=kept["title"], vessel_ml=kept["vessel_ml"])
    found = []
    for place, part in enumerate(kept["bowl"]):
        row = BowlPart(pk=place, **{name: part[name] for name in PART_KEPT})
        recipe = part["recipe"]
        if recipe is not None:
            facts = facts_of_kept(recipe)
            found.append(_recipe_part(row, recipe["title"], recipe["role"], facts, system))
        elif row.food in food_table():
            found.append(_food_part(row, food_table()[row.food], system))
    return _reckoned(bowl, found)


def amount_for(row: BowlPart, text: str) -> Line:
    """What was typed as an amount of this part. Raises UnreadableAmount."""
    system = system_of(row.bowl)
    if row.recipe is not None:
        facts = facts_of(row.recipe)
        volume = room_of(row.recipe.role, facts)
        share = volume / facts.recipe.servings if volume else None
        return read_batch_amount(text, facts.serving.grams, share, system)
    return read_amount(text, food_table()[row.food], system)
