"""The shopping list of a week: what its pots and single foods need, less what the kitchen has."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date

from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import plain_name
from nutrition.planning.skeleton import days_of
from nutrition.prep.buying import as_bought
from nutrition.prep.shopping import STOCK_G, Item, Need, ShoppingList, shopping_list, trips_of
from shopping.models import Bought, Package
from shopping.stock import stock_of
from week.models import Week
from week.pots import Pot
from week.reckoning import ReckonedWeek, reckon_week

# A list on paper has so many columns, and the heading of a section takes so many of its lines.
COLUMNS, HEADING = 3, 2


@dataclass(frozen=True)
class Line:
    """A line as it is shown: the item, whether it is ticked, and with what words it was bought."""

    item: Item
    bought: Bought | None

    @property
    def key(self) -> str:
        return self.item.key

    @property
    def words(self) -> str:
        return self.bought.words if self.bought else self.item.words

    @property
    def name(self) -> str:
        """What is written on a list: the food without its state."""
        return plain_name(self.item.food)

    @property
    def said(self) -> list[str]:
        """What is said below the food: how it was reckoned, what it is for, what there is of it,
        and where the rest goes."""
        item = self.item
        own = item.dishes == (item.food.name,)
        rows = [item.how, "" if own else ", ".join(item.dishes)]
        rows += [f"{item.have_g:.0f} g are in the kitchen" if item.have_g >= 1 else ""]
        return [row for row in (*rows, item.left_words) if row]


@dataclass(frozen=True)
class Trip:
    """One shopping: on which date, its lines by section of the shop."""

    at: int
    date: date
    sections: list[tuple[str, list[Line]]]

    @property
    def count(self) -> int:
        return sum(len(lines) for _name, lines in self.sections)

    @property
    def columns(self) -> list[list[tuple[str, list[Line]]]]:
        """The sections in the columns of a sheet of paper, in their order, each about as long."""
        whole = sum(len(lines) + HEADING for _name, lines in self.sections)
        columns: list[list[tuple[str, list[Line]]]] = [[] for _ in range(COLUMNS)]
        before = 0
        for name, lines in self.sections:
            rows = len(lines) + HEADING
            # by its middle, so that a long one does not leave a column empty
            at = min(int((before + rows / 2) * COLUMNS / whole), COLUMNS - 1)
            columns[at].append((name, lines))
            before += rows
        return columns

    @property
    def ticked(self) -> int:
        return sum(1 for _name, lines in self.sections for line in lines if line.bought)


@dataclass(frozen=True, kw_only=True)
class WeekList:
    week: Week
    reckoned: ReckonedWeek
    whole: ShoppingList
    trips: list[Trip]
    cooked: set[str]

    @property
    def worth_stock(self) -> bool:
        """Whether enough is trimmed for a stock to be worth a word."""
        return self.whole.stock_g >= STOCK_G

    @property
    def servings(self) -> float:
        """How many meals of one person the week is. For the cost of a serving."""
        people = self.reckoned.skeleton
        return sum(
            people.portions_of(meal.key)
            for day in self.reckoned.days
            for meal in day.meals
            if any(place.entry for place in meal.places)
        )


def needs_of(reckoned: ReckonedWeek, cooked: Iterable[str] = ()) -> list[Need]:
    """What goes into every pot that is still to be cooked, and what is eaten by itself, for
    everybody who eats."""
    done = set(cooked)
    out = []
    for pot in reckoned.pots:
        if pot.key not in done:
            out += needs_of_pot(pot)
    for row in reckoned.rows:
        weekday = reckoned.skeleton.days[reckoned.week.date_of(row.day).weekday()]
        packed = row.meal in weekday.packed
        eaters = 1.0 if packed else reckoned.skeleton.portions_of(row.meal)
        if row.food and row.food in food_table():
            food = food_table()[row.food]
            out.append(Need(food, row.amount * eaters, row.day, food.name))
        if row.bowl is not None:
            for part in row.bowl.parts.all():
                if part.recipe is None and part.food in food_table():
                    grams = part.grams * row.amount * eaters
                    out.append(Need(food_table()[part.food], grams, row.day, row.bowl.name))
    return out


def needs_of_pot(pot: Pot) -> list[Need]:
    """What goes into a pot."""
    times = pot.cooked.made / pot.facts.recipe.servings
    return [
        Need(one.food, one.grams * times, pot.cooked.day, pot.name)
        for one in pot.facts.batch_foods()
    ]


def own_packages() -> dict[str, tuple[str, float]]:
    """How the practice's shop sells, by food."""
    return {row.food: (row.unit, row.grams) for row in Package.objects.all()}


def prices() -> dict[str, float]:
    """What a unit costs, by food, where that was entered."""
    rows = Package.objects.exclude(price=None)
    return {row.food: float(row.price or 0) for row in rows}


def list_of(week: Week) -> WeekList:
    """The list of a week as it stands. What was ticked stays on it, ticked, though it is in the
    kitchen now."""
    reckoned = reckon_week(week)
    ticked = {row.key: row for row in week.bought.all()}
    cooked = {row.key for row in week.cooked_pots.all()}
    have = stock_of(week.client)
    for row in ticked.values():
        have[row.food] = max(have.get(row.food, 0.0) - row.grams, 0.0)
    skeleton = reckoned.skeleton
    trips = trips_of(
        days_of(skeleton.shopping or skeleton.cooking, week.start, week.days),
        min((pot.cooked.day for pot in reckoned.pots), default=0),
    )
    found = shopping_list(needs_of(reckoned, cooked), trips, have, own_packages(), prices())
    shown = []
    for at in found.trips:
        sections = [
            (name, [Line(item, ticked.get(item.key)) for item in items if _shown(item, ticked)])
            for name, items in found.by_section(at)
        ]
        sections = [(name, lines) for name, lines in sections if lines]
        if sections:
            shown.append(Trip(at, week.date_of(at), sections))
    return WeekList(week=week, reckoned=reckoned, whole=found, trips=shown, cooked=cooked)


def _shown(item: Item, ticked: dict[str, Bought]) -> bool:
    return item.count > 0 or item.key in ticked


def taken_by(pot: Pot) -> dict[str, float]:
    """What a pot takes out of the kitchen, by food as it is bought. [g]"""
    out: dict[str, float] = {}
    for need in needs_of_pot(pot):
        bought = as_bought(need.food, need.grams)
        out[bought.food.slug] = out.get(bought.food.slug, 0.0) + bought.grams
    return out
