"""One list for the week and the household: what goes into every pot and what is eaten by itself,
summed by food as it is bought, less what the kitchen has."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from nutrition.composition.foods import Food, food_table
from nutrition.prep.buying import SECTIONS, Bought, Sold, as_bought, sold, units_for

# What would remain of a package that is less than this share of it is not worth a word.
CRUMB = 0.03
# How a share of a package is said: from so much on. [share]
SHARES = ((0.7, "3/4"), (0.58, "2/3"), (0.42, "1/2"), (0.29, "1/3"), (0.2, "1/4"))
WHOLE = 0.95
# What is trimmed of less than this is not worth a word.
TRIMMED = 1.02


# Less than this is not in the kitchen. [g]
CRUMB_G = 0.5
# Fewer trimmings make no stock. Common practice, no source. [g]
STOCK_G = 50.0


@dataclass(frozen=True)
class Need:
    """So much of a food that goes into something on a day, counted from the first. [g]"""

    food: Food
    grams: float
    day: int
    dish: str


@dataclass(frozen=True, kw_only=True)
class Item:
    """One line of the list. `need_g` is what goes into the dishes and single foods, `have_g` what
    the kitchen has, `count` the units to buy, `left_g` what remains. [g] `trip` is which shopping
    it is bought on; `cost` None where no price is entered."""

    food: Food
    sold: Sold
    need_g: float
    have_g: float
    count: float
    left_g: float
    trip: int
    dishes: tuple[str, ...]
    days: tuple[int, ...]
    how: str = ""
    cost: float | None = None

    @property
    def key(self) -> str:
        """What the line is known by."""
        return f"{self.trip}:{self.food.slug}"

    @property
    def words(self) -> str:
        """ "2 cans", "450 g" """
        if self.sold.by_weight:
            return f"{self.count * self.sold.grams:.0f} g"
        return self.sold.words(self.count)

    @property
    def left_words(self) -> str:
        """What remains and where it goes; empty for nothing worth a word."""
        if self.left_g < CRUMB * self.sold.grams or not self.sold.rest:
            return ""
        share = self.left_g / self.sold.grams
        said = next((words for least, words in SHARES if share >= least), "")
        if self.sold.unit and not self.sold.by_weight and said and share < WHOLE:
            return f"about {said} {self.sold.unit} left ({self.left_g:.0f} g): {self.sold.rest}"
        return f"{self.left_g:.0f} g left: {self.sold.rest}"


@dataclass(frozen=True, kw_only=True)
class ShoppingList:
    """The list. `trips` are the days on which one shops; `stock_g` is what is cut off and goes into
    the stock [g]; `cost` is known only where every line has a price, `unpriced` counts those that
    have none."""

    items: tuple[Item, ...]
    trips: tuple[int, ...]
    stock_g: float
    have: tuple[tuple[Food, float], ...] = field(default=())

    @property
    def cost(self) -> float | None:
        """What it costs altogether; None where nothing has a price."""
        priced = [one.cost for one in self.items if one.cost is not None]
        return sum(priced) if priced else None

    @property
    def unpriced(self) -> int:
        return sum(1 for one in self.items if one.cost is None)

    def by_section(self, trip: int) -> list[tuple[str, list[Item]]]:
        """The lines of one shopping by section of the shop."""
        own = [one for one in self.items if one.trip == trip]
        rows = [(name, [one for one in own if one.sold.section == name]) for name in SECTIONS]
        return [(name, some) for name, some in rows if some]


def trip_for(day: int, fresh_days: int, trips: Sequence[int]) -> int:
    """On which shopping something is bought: the first, unless it would not keep until its day;
    then the latest before it."""
    before = [trip for trip in trips if trip <= day] or [trips[0]]
    if day - trips[0] <= fresh_days:
        return trips[0]
    return before[-1]


def shopping_list(
    needs: Iterable[Need],
    trips: Sequence[int],
    have: Mapping[str, float] | None = None,
    own: Mapping[str, tuple[str, float]] | None = None,
    prices: Mapping[str, float] | None = None,
) -> ShoppingList:
    """The list for what is needed; `have` is what the kitchen has, by slug [g], `own` the
    practice's packages, `prices` what a unit costs, by slug. Raises ValueError without a shopping
    day."""
    if not trips:
        raise ValueError("somebody has to shop on some day")
    ordered = sorted(trips)
    rows, stock_g = _rows(needs, ordered, own)
    kitchen, used = dict(have or {}), dict[str, float]()
    items: list[Item] = []
    for (trip, slug), some in sorted(rows.items()):
        food = some[0][1].food
        sold_as = sold(food, own)
        assert sold_as is not None
        needed = sum(_weight(bought, sold_as) for _need, bought in some)
        had = min(kitchen.get(slug, 0.0), needed)
        kitchen[slug] = kitchen.get(slug, 0.0) - had
        used[slug] = used.get(slug, 0.0) + had
        earlier = next((one for one in items if one.food.slug == slug), None)
        if earlier is not None and trip - earlier.trip <= sold_as.opened_days:
            # what remained of the first shopping is used before more is bought
            more = min(earlier.left_g, needed - had)
            items[items.index(earlier)] = replace(earlier, left_g=earlier.left_g - more)
            had += more
        count = units_for(sold_as, needed - had)
        price = (prices or {}).get(slug)
        items.append(
            Item(
                food=food,
                sold=sold_as,
                need_g=needed,
                have_g=had,
                count=count,
                left_g=count * sold_as.grams - (needed - had),
                trip=trip,
                dishes=tuple(dict.fromkeys(need.dish for need, _bought in some)),
                days=tuple(sorted({need.day for need, _bought in some})),
                how=_how([bought for _need, bought in some], sold_as),
                cost=None if price is None else price * count,
            )
        )
    return ShoppingList(
        items=tuple(whole_fruit(items)),
        trips=tuple(ordered),
        stock_g=stock_g,
        have=tuple((food_table()[slug], grams) for slug, grams in used.items() if grams > 0),
    )


# Of one fruit are taken its zest, its juice, and what is eaten of it.
FRUIT = re.compile(r"(lemon|lime|orange|grapefruit)-(zest|juice|.*raw)")


def whole_fruit(items: Sequence[Item]) -> list[Item]:
    """The same list with the juice, the zest and the eating of one fruit as one purchase: a fruit
    that is zested is pressed or eaten after."""
    out: list[Item] = []
    groups: dict[tuple[int, str], list[Item]] = {}
    for item in items:
        fruit = FRUIT.fullmatch(item.food.slug)
        if fruit and (item.sold.unit in ("", fruit[1])) and not item.sold.by_weight:
            groups.setdefault((item.trip, fruit[1]), []).append(item)
        out.append(item)
    for (_trip, name), some in groups.items():
        if len(some) > 1:
            out[out.index(some[0])] = _one_fruit(name, some)
            out = [item for item in out if item not in some[1:]]
    return out


def _one_fruit(name: str, some: Sequence[Item]) -> Item:
    """What is taken of a fruit as one line: as many as are pressed and eaten, or as are zested."""
    zested = sum(item.count for item in some if item.food.slug.endswith("-zest"))
    others = [item for item in some if not item.food.slug.endswith("-zest")]
    count = max(zested, sum(item.count for item in others))
    main = others[0] if others else some[0]
    uses = [
        f"the {'zest' if item.food.slug.endswith('-zest') else 'juice'} of {item.count:g}"
        if item.food.slug.endswith(("-zest", "-juice"))
        else f"{item.count:g} to eat"
        for item in some
        if item.count
    ]
    return replace(
        main,
        sold=replace(main.sold, unit=name),
        count=count,
        left_g=max(count * main.sold.grams - (main.need_g - main.have_g), 0.0),
        dishes=tuple(dict.fromkeys(dish for item in some for dish in item.dishes)),
        days=tuple(sorted({day for item in some for day in item.days})),
        how=", ".join(uses),
        cost=_together([item.cost for item in some], [item.count for item in some], count),
    )


def _together(costs: Sequence[float | None], counts: Sequence[float], count: float) -> float | None:
    """What so many of a fruit cost, by the price of those that have one."""
    priced = [cost / number for cost, number in zip(costs, counts, strict=True) if cost and number]
    return max(priced) * count if priced else None


def _rows(
    needs: Iterable[Need], trips: Sequence[int], own: Mapping[str, tuple[str, float]] | None
) -> tuple[dict[tuple[int, str], list[tuple[Need, Bought]]], float]:
    """What is needed by shopping day and food as it is bought, and what is cut off for the stock.
    [g]"""
    rows: dict[tuple[int, str], list[tuple[Need, Bought]]] = {}
    stock_g = 0.0
    for need in sorted(needs, key=lambda one: (one.day, one.food.slug, one.dish)):
        bought = as_bought(need.food, need.grams)
        slug, sold_as = bought.food.slug, sold(bought.food, own)
        if sold_as is not None:
            stock_g += bought.for_stock_g
            trip = trip_for(need.day, sold_as.fresh_days, trips)
            rows.setdefault((trip, slug), []).append((need, bought))
    return rows, stock_g


def _how(some: Sequence[Bought], sold_as: Sold) -> str:
    """How much dry for cooked, and how much whole for trimmed where it is weighed in the shop."""
    out = []
    cooked = [one for one in some if one.cooked_g]
    if cooked:
        raw_g = sum(one.grams for one in cooked)
        state = cooked[0].food.state
        out.append(f"{raw_g:.0f} g {state} for {sum(one.cooked_g for one in cooked):.0f} g cooked")
    grams, whole = sum(one.grams for one in some), sum(one.whole_g for one in some)
    if sold_as.by_weight and whole > grams * TRIMMED:
        out.append(f"{whole:.0f} g whole for {grams:.0f} g trimmed")
    return "; ".join(out)


def _weight(bought: Bought, sold_as: Sold) -> float:
    """What counts of it: sold by weight it is weighed whole; by the piece, can or bunch, what is
    used of it."""
    return bought.whole_g if sold_as.by_weight else bought.grams


def trips_of(days: Iterable[int], first_pot: int) -> list[int]:
    """The days on which one shops, of those on which one could: the last before the first pot, or
    on its day, and all after it. A pot earlier than any of them is shopped for on its day."""
    known = sorted(days)
    early = [day for day in known if day <= first_pot] or [min(first_pot, 0)]
    return sorted({max(early), *(day for day in known if day > first_pot)})
