"""What can be compared, by its key: "food-kale-raw", "recipe-3", "version-7", "bowl-2", "day-9"."""

from __future__ import annotations

from dataclasses import replace

from bowls.bowl import reckon_bowl
from bowls.models import Bowl, BowlPart
from clients.models import Client
from nutrition.composition.drinks import beside_the_food
from nutrition.composition.foods import ROLES, Food, food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.portion import Dish, Portion, food_portion
from nutrition.written.finding import find_foods
from nutrition.written.typed_amounts import read_amount, read_batch_amount
from planner.day import reckon_day
from planner.models import Day, DayEntry
from plates.models import OldDish
from recipes.dishes import serving_dish
from recipes.facts import facts_of
from recipes.models import Recipe, RecipeVersion
from webkit.request_values import key_in, number_in

MOST_FOUND = 5
# How many times as much, or how little, a plate may be asked for.
TIMES = (0.05, 20.0)
DAYS_LOOKED_AT = 14
# Seasoning is no food to fill up on.
SEASONING = {"spice", "fresh herb", "dried herb", "salt", "vinegar", "leavener", "condiment"}


def _role(role: str) -> str:
    return role if role in ROLES else "topping"


def _drawn(dish: Dish) -> Dish:
    """The dish with roles that can be drawn."""
    portions = tuple(replace(one, role=_role(one.role), star=False) for one in dish.portions)
    return replace(dish, portions=portions)


def food_plate(food: Food) -> Dish:
    kind = "animal food, to compare with" if food.comparator else "food"
    portion = food_portion(food, first_helping_g(food))
    return _drawn(Dish.of(f"food-{food.slug}", food.name, [portion], kind))


def _recipe_plate(key: str, name: str, kind: str, recipe: Recipe) -> Dish | None:
    facts = facts_of(recipe)
    if facts.batch.grams <= 0:
        return None
    return _drawn(serving_dish(key, name, kind, recipe.role, facts))


def _bowl_plate(bowl: Bowl) -> Dish | None:
    dish = reckon_bowl(bowl).dish
    return _drawn(dish) if dish.portions else None


def _day_plate(day: Day) -> Dish | None:
    reckoned = reckon_day(day)
    portions = [entry.portion for entry in reckoned.entries]
    if not portions:
        return None
    if reckoned.supplements:
        portions.append(
            Portion(
                key="supplements",
                name="Supplements",
                role="topping",
                grams=0.0,
                profile=reckoned.supplements_profile,
                volume_ml=0.0,
            )
        )
    name = f"{day.date:%A, %B} {day.date.day}, {day.client.name}"
    return replace(Dish.of(f"day-{day.pk}", name, portions, "day"), profile=reckoned.profile)


def old_plate(dish: OldDish) -> Dish | None:
    """A dish of an old habit; None while there is nothing in it."""
    portions = [
        beside_the_food(
            food_portion(
                food_table()[part["food"]], part["grams"], part["low"], part["high"], str(at)
            )
        )
        for at, part in enumerate(dish.parts)
        if part["food"] in food_table()
    ]
    if not portions:
        return None
    return _drawn(Dish.of(f"was-{dish.pk}", dish.name, portions, "what was eaten before"))


def scaled(plate: Dish, amount: str, system: str = "us") -> Dish:
    """So much of a plate: "1.5" times what is served, "250 g", "1 tbsp" or "1/2 cup" of it. Raises
    UnreadableAmount."""
    times = number_in(amount.strip(), TIMES)
    if times is not None:
        return plate.times(times)
    if plate.profile.grams <= 0:
        return plate
    only = plate.portions[0].food if len(plate.portions) == 1 else None
    if only is not None:
        grams = read_amount(amount, only, system).grams or 0.0
    else:
        line = read_batch_amount(amount, plate.profile.grams, plate.volume_ml, system)
        grams = line.grams or 0.0
    return plate.times(grams / plate.profile.grams)


def plate_for(asked: str, system: str = "us") -> Dish | None:
    """The plate of a key, "bowl-3", or of so much of it, "bowl-3~250 g"; None for what is not
    there, or has nothing in it yet. Raises UnreadableAmount."""
    key, _tilde, amount = asked.partition("~")
    plate = _plate(key)
    if plate is None or not amount:
        return plate
    return replace(scaled(plate, amount, system), key=asked)


def _plate(key: str) -> Dish | None:
    kind, _dash, rest = key.partition("-")
    if kind == "food":
        return food_plate(food_table()[rest]) if rest in food_table() else None
    pk = key_in(rest)
    if pk is None:
        return None
    if kind == "recipe":
        recipe = Recipe.objects.filter(pk=pk).first()
        return _recipe_plate(key, recipe.title, "recipe, one serving", recipe) if recipe else None
    if kind == "version":
        version = RecipeVersion.objects.filter(pk=pk).select_related("recipe__practice").first()
        if version is None:
            return None
        name = f"{version.data['title']}, version {version.number}"
        return _recipe_plate(key, name, version.why, version.as_recipe())
    if kind == "was":
        old = OldDish.objects.filter(pk=pk).first()
        return old_plate(old) if old else None
    if kind == "bowl":
        bowl = Bowl.objects.filter(pk=pk).first()
        return _bowl_plate(bowl) if bowl else None
    day = Day.objects.filter(pk=pk).select_related("client").first() if kind == "day" else None
    return _day_plate(day) if day else None


def found(query: str, client: Client | None) -> list[tuple[str, str, str]]:
    """Key, name and kind of what can be compared, for what was typed: bowls, recipes and their
    versions, days, foods."""
    out = [
        (f"bowl-{bowl.pk}", bowl.name, "bowl")
        for bowl in Bowl.objects.filter(name__icontains=query)[:MOST_FOUND]
    ]
    mine = OldDish.objects.filter(name__icontains=query)
    if client is not None:
        mine = mine.filter(client=client) | mine.filter(client=None)
    out += [(f"was-{dish.pk}", dish.name, "what was eaten before") for dish in mine[:MOST_FOUND]]
    for recipe in Recipe.objects.filter(title__icontains=query)[:MOST_FOUND]:
        out.append((f"recipe-{recipe.pk}", recipe.title, "recipe"))
        out += [
            (f"version-{row.pk}", f"{row.data['title']}, version {row.number}", row.why)
            for row in recipe.versions.all()[:MOST_FOUND]
        ]
    if client is not None and query.lower() in "days":
        out += [
            (f"day-{day.pk}", f"{day.date:%A, %B} {day.date.day}", "day")
            for day in client.days.all()[:MOST_FOUND]
        ]
    foods = [
        match.food for match in find_foods(query, MOST_FOUND + 2, typing=True, comparators=True)
    ]
    return out + [
        (f"food-{food.slug}", food.name, "animal food" if food.comparator else "food")
        for food in foods
    ]


def _key(row: DayEntry | BowlPart) -> str:
    """The key of what an entry or a part is."""
    # a part has a bowl as well: the one it is in
    if isinstance(row, DayEntry) and row.bowl_id:
        return f"bowl-{row.bowl_id}"
    return f"recipe-{row.recipe_id}" if row.recipe_id else f"food-{row.food}"


def usual_foods(client: Client) -> list[Dish]:
    """The foods and dishes of the client's latest planned days and of their bowls, each once."""
    entries: list[DayEntry] = [
        row for day in client.days.all()[:DAYS_LOOKED_AT] for row in day.entries.all()
    ]
    parts: list[BowlPart] = [row for bowl in client.bowl_set.all() for row in bowl.parts.all()]
    keys = dict.fromkeys(_key(row) for row in [*entries, *parts])  # type: ignore[arg-type]
    return [
        plate for key in keys if not _is_seasoning(key) and (plate := plate_for(key)) is not None
    ]


def _is_seasoning(key: str) -> bool:
    kind, _dash, slug = key.partition("-")
    return kind == "food" and slug in food_table() and food_table()[slug].group in SEASONING
