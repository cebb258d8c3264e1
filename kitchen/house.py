"""What is in a client's house: foods and cooked dishes with where they stand and until when, what
is used first, and what was thrown away."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from django.db import transaction
from django.utils import timezone

from clients.models import Client
from kitchen.models import Box, Thrown
from nutrition.composition.foods import food_table
from nutrition.prep.buying import as_bought
from nutrition.prep.use_first import InTheHouse, UseFirst, Waste, use_first, waste_by_month
from recipes.facts import facts_of
from shopping.lists import prices
from shopping.models import Package, Stock
from week.models import Week


@dataclass(frozen=True, kw_only=True)
class StockShown:
    """A food of the house as its row shows it."""

    row: Stock
    name: str
    ends: date | None


def _of_stock(row: Stock) -> InTheHouse:
    food = food_table().get(row.food)
    return InTheHouse(
        key=f"stock-{row.pk}",
        name=food.name if food else row.food,
        grams=row.grams,
        place=row.place,
        use_by=row.use_by,
        opened=row.opened,
    )


@dataclass(frozen=True)
class Containers:
    """Containers of a dish that hold the same, stand together and are good as long: those that are
    eaten first at the top."""

    boxes: tuple[Box, ...]

    @property
    def first(self) -> Box:
        return self.boxes[0]

    @property
    def count(self) -> int:
        return len(self.boxes)

    @property
    def days(self) -> list[date]:
        """The days that they are for."""
        return [box.eaten_on for box in self.boxes if box.eaten_on is not None]

    def there(self) -> InTheHouse:
        return InTheHouse(
            key=f"box-{self.first.pk}",
            name=self.first.recipe.title,
            grams=self.first.grams,
            count=self.count,
            place=self.first.place,
            use_by=self.first.use_by,
        )


def stock_shown(client: Client) -> list[StockShown]:
    """The foods of the house by where they stand."""
    rows = Stock.objects.filter(client=client).order_by("place", "food")
    return [StockShown(row=row, name=(one := _of_stock(row)).name, ends=one.ends) for row in rows]


def containers_there(client: Client) -> list[Containers]:
    """The containers that are still there, those that end first at the top."""
    together: dict[tuple[object, ...], list[Box]] = defaultdict(list)
    for row in Box.objects.filter(client=client, gone="").select_related("recipe"):
        key = (row.recipe_id, round(row.grams), row.place, row.use_by, row.cooked)
        together[key].append(row)
    late = date.max
    return [
        Containers(tuple(sorted(rows, key=lambda row: (row.eaten_on or late, row.pk))))
        for rows in together.values()
    ]


def first_of(client: Client, today: date) -> list[UseFirst]:
    """What is near its end, foods and dishes together."""
    there = [_of_stock(row) for row in Stock.objects.filter(client=client)]
    there += [one.there() for one in containers_there(client)]
    return use_first(there, today)


def waste_of(client: Client) -> list[Waste]:
    """What was thrown away, by month."""
    rows = Thrown.objects.filter(client=client)
    return waste_by_month(
        [(row.on, row.grams, None if row.cost is None else float(row.cost)) for row in rows]
    )


def throw_stock(row: Stock, today: date) -> None:
    """A food thrown away, with what it had cost by the practice's price. [g]"""
    food, sold = food_table().get(row.food), Package.objects.filter(food=row.food).first()
    cost = None
    if sold is not None and sold.price is not None and sold.grams > 0:
        cost = (Decimal(row.grams / sold.grams) * sold.price).quantize(Decimal("0.01"))
    with transaction.atomic():
        Thrown.objects.create(
            client=row.client,
            name=food.name if food else row.food,
            grams=row.grams,
            cost=cost,
            on=today,
        )
        row.delete()


def box_gone(box: Box, how: str, today: date) -> None:
    """A container eaten or thrown away; what was thrown away is counted with what its foods had
    cost, where all of them have a price."""
    with transaction.atomic():
        box.gone, box.gone_on = how, today
        box.save()
        if how == "thrown":
            Thrown.objects.create(
                client=box.client,
                name=box.recipe.title,
                grams=box.grams,
                cost=cost_of(box),
                on=today,
            )


def cost_of(box: Box) -> Decimal | None:
    """What a container's foods had cost by the practice's prices; None where one is missing."""
    facts, known = facts_of(box.recipe), prices()
    packages = {row.food: row.grams for row in Package.objects.all()}
    total = 0.0
    share = box.servings / facts.recipe.servings if facts.recipe.servings else 0.0
    for one in facts.batch_foods():
        bought = as_bought(one.food, one.grams * share)
        slug = bought.food.slug
        if slug == "water":
            continue
        if slug not in known or not packages.get(slug):
            return None
        total += bought.whole_g / packages[slug] * known[slug]
    return Decimal(total).quantize(Decimal("0.01"))


def for_week(week: Week) -> Mapping[int, float]:
    """What of the freezer may be eaten in a week, in servings by recipe: for the first week that is
    not over, what no week was cooked for."""
    today = timezone.localdate()
    rows = Week.objects.filter(client=week.client, archived=None).order_by("start")
    first = next((row for row in rows if row.last >= today), None)
    if first is None or first.pk != week.pk:
        return {}
    out: dict[int, float] = defaultdict(float)
    boxes = Box.objects.filter(client=week.client, gone="", place="freezer", use_by__gte=week.start)
    for box in boxes.exclude(session__week=week):
        if box.eaten_on is None or box.eaten_on < week.start:
            out[box.recipe_id] += box.servings
    return dict(out)


def wants_using(client: Client) -> set[int]:
    """The recipes of which something stands in the freezer or is near its end."""
    return {row.recipe_id for row in Box.objects.filter(client=client, gone="", eaten_on=None)}
