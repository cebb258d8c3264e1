"""What can stand in a week: recipes, bowls and foods by the key that the planning knows them by."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from django.db.models import Q

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from clients.models import Client
from nutrition.composition.drinks import beside_the_food
from nutrition.composition.foods import Food, food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.portion import Portion, food_portion
from nutrition.composition.restaurant_meal import eaten_out
from nutrition.planning.candidates import LEAST_BATCH, helpings_of, servings_for
from nutrition.planning.kinds import KINDS_OF_BOWL, kinds_of_food, kinds_of_recipe
from nutrition.planning.week import MOST_POTS, Prepared
from nutrition.prep.keeping import Keeping, is_heated, keeping_of
from nutrition.prep.soaking import soaks
from planner.day import bowl_portion
from planner.models import Eaten
from planner.planned_copies import guess_of
from recipes.dishes import batch_portion
from recipes.facts import facts_of
from recipes.models import Recipe
from recipes.ownership import open_to
from webkit.request_values import key_in

# A meal eaten out is one meal.
OUT = (1.0, 1.0, 1.0)


@dataclass(frozen=True, kw_only=True)
class Thing:
    """A recipe, a bowl or a food as it may stand in a slot: one of it as a portion, the kinds of
    slot, the recipes it takes servings of, and how the shortest of them keeps. What is `unsettled`
    holds lines that nobody counted, and is not planned with."""

    key: str
    portion: Portion
    kinds: frozenset[str]
    parts: dict[int, float]
    keeping: Keeping | None
    recipe: Recipe | None = None
    bowl: Bowl | None = None
    food: Food | None = None
    unsettled: bool = False

    @property
    def name(self) -> str:
        return self.portion.name

    def counts_for(self, kcal: float) -> tuple[float, float, float]:
        """How it is counted for who plans for so much energy a day [kcal]: least, most, step."""
        if self.food is not None:
            return helpings_of(self.kinds)
        return servings_for(kcal) if self.recipe or self.bowl else OUT


def of_recipe(recipe: Recipe) -> Thing | None:
    """A serving of a recipe; None for one that weighs nothing."""
    facts = facts_of(recipe)
    if facts.batch.grams <= 0:
        return None
    foods = facts.foods()
    portion = batch_portion(
        recipe.title, recipe.role, facts, facts.serving.grams, f"recipe-{recipe.pk}"
    )
    return Thing(
        key=f"recipe-{recipe.pk}",
        portion=portion,
        kinds=kinds_of_recipe(recipe.title, recipe.role, foods),
        parts={recipe.pk: 1.0},
        keeping=keeping_of(recipe.title, recipe.role, foods),
        recipe=recipe,
        unsettled=bool(facts.unresolved),
    )


def of_bowl(bowl: Bowl) -> Thing | None:
    """A bowl, with the servings of recipes that it takes."""
    reckoned = reckon_bowl(bowl)
    if reckoned.profile.grams <= 0:
        return None
    parts: dict[int, float] = {}
    keeping: Keeping | None = None
    for part in reckoned.parts:
        recipe = part.row.recipe
        if recipe is None:
            continue
        facts = facts_of(recipe)
        if facts.serving.grams > 0:
            share = part.row.grams / facts.serving.grams
            parts[recipe.pk] = parts.get(recipe.pk, 0.0) + share
        own = keeping_of(recipe.title, recipe.role, facts.foods())
        keeping = own if keeping is None or own.days < keeping.days else keeping
    return Thing(
        key=f"bowl-{bowl.pk}",
        portion=bowl_portion(reckoned, f"bowl-{bowl.pk}"),
        kinds=KINDS_OF_BOWL,
        parts=parts,
        keeping=replace(keeping, cold=True) if keeping else None,
        bowl=bowl,
        unsettled=any(part.unresolved for part in reckoned.parts),
    )


def of_food(slug: str) -> Thing | None:
    """A helping of a food; None for one that the table no longer has."""
    food = food_table().usable(slug)
    if food is None:
        return None
    grams = first_helping_g(food)
    return Thing(
        key=f"food-{food.slug}",
        portion=beside_the_food(food_portion(food, grams, key=f"food-{food.slug}")),
        kinds=kinds_of_food(food),
        parts={},
        keeping=None,
        food=food,
    )


def out_of(entry: Eaten) -> Thing:
    """A meal eaten out, which stands where it was put and nowhere else."""
    guess, key = guess_of(entry), f"out-{entry.planned_id}"
    return Thing(
        key=key,
        portion=eaten_out(key, guess.words, guess.kcal, guess.low, guess.high),
        kinds=frozenset({f"only {key}"}),
        parts={},
        keeping=None,
    )


def things_of(keys: Iterable[str], client: Client | None = None) -> dict[str, Thing]:
    """The things of these keys, among what may be planned for a client; what is gone is not
    there."""
    wanted = list(dict.fromkeys(keys))
    named = [(key, *key.partition("-")[::2]) for key in wanted]
    pks = {
        kind: [pk for _key, its, name in named if its == kind and (pk := key_in(name)) is not None]
        for kind in ("recipe", "bowl")
    }
    found: list[Thing | None] = [of_food(name) for _key, kind, name in named if kind == "food"]
    if pks["recipe"]:
        found += map(of_recipe, open_to(client).filter(pk__in=pks["recipe"]))
    if pks["bowl"]:
        rows = bowls_open_to(client).filter(pk__in=pks["bowl"])
        found += map(of_bowl, rows.prefetch_related("parts__recipe"))
    by_key = {one.key: one for one in found if one is not None}
    return {key: by_key[key] for key in wanted if key in by_key}


def thing_of(key: str, client: Client | None = None) -> Thing | None:
    """The thing of a key, among what may be planned for a client; None where it is gone."""
    return things_of([key], client).get(key)


def bowls_open_to(client: Client | None):
    """The bowls that may be planned for a client: everybody's, and their own."""
    whose = Q(client=None) | Q(client=client) if client else Q(client=None)
    return Bowl.objects.filter(whose, archived=None).select_related("practice")


def prepared_of(recipe: Recipe, in_danger: bool = False) -> Prepared:
    """A recipe as something that is cooked in batches, for who may be in danger of an infection."""
    facts = facts_of(recipe)
    foods = facts.foods()
    keeping = keeping_of(recipe.title, recipe.role, foods, in_danger)
    servings = facts.recipe.servings
    return Prepared(
        key=str(recipe.pk),
        name=recipe.title,
        least=servings * LEAST_BATCH if servings > 1 else 0.0,
        most=servings * MOST_POTS,
        keeps=keeping.days,
        freezes=keeping.freezes,
        cooks=is_heated(foods),
        soaks=soaks(foods),
    )


def recipes_in(things: Iterable[Thing]) -> dict[int, Recipe]:
    """Every recipe that some things take servings of, by its key."""
    wanted = {pk for one in things for pk in one.parts}
    return {row.pk: row for row in Recipe.with_removed.filter(pk__in=wanted)}
