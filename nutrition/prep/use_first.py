"""What in the house is near its end, and what was thrown away."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from nutrition.composition.foods import Food

# What ends within so many days is used first. Common practice, no source. [days]
NEAR_DAYS = 2
# What was opened and has no date of its own is used within so many days, by where it stands. Common
# practice, no source. [days]
OPENED_DAYS = {"refrigerator": 5, "shelf": 30, "freezer": 60}


# What stands in the refrigerator, raw or bought cold. Common practice, no source.
COLD_GROUPS = frozenset(
    {"vegetable", "leafy green", "mushroom", "fresh herb", "soy", "plant yogurt", "seitan"}
    | {"fermented vegetable", "plant milk"}
)
_DRY = re.compile(r"dry|dried|canned|flour|powder|mince|potato|onion|garlic|squash|pumpkin")


def usual_place(food: Food) -> str:
    """Where a food usually stands: "shelf", "refrigerator" or "freezer"."""
    if "frozen" in food.slug:
        return "freezer"
    cold = food.group in COLD_GROUPS or food.state == "cooked"
    return "refrigerator" if cold and not _DRY.search(food.slug) else "shelf"


@dataclass(frozen=True, kw_only=True)
class InTheHouse:
    """Something that is there: a food or a dish by its key, its name, how much [g], in how many
    containers of so much each, where, until when."""

    key: str
    name: str
    grams: float
    place: str
    count: int = 1
    use_by: date | None = None
    opened: date | None = None

    @property
    def ends(self) -> date | None:
        """The last day: the date on it, or that since it was opened, whichever comes first."""
        since = self.opened + timedelta(days=OPENED_DAYS[self.place]) if self.opened else None
        known = [one for one in (self.use_by, since) if one is not None]
        return min(known, default=None)


@dataclass(frozen=True, kw_only=True)
class UseFirst:
    """Something to be used first: how many days are left, below zero for over."""

    what: InTheHouse
    days: int

    @property
    def over(self) -> bool:
        return self.days < 0

    @property
    def words(self) -> str:
        """ "ends today", "2 days left", "over since 1 day: look at it and smell it, or throw it
        away" """
        if self.days == 0:
            return "ends today"
        count = f"{abs(self.days)} day{'s' if abs(self.days) > 1 else ''}"
        return f"{count} left" if self.days > 0 else f"over for {count}: thrown away when in doubt"


def use_first(there: Iterable[InTheHouse], today: date) -> list[UseFirst]:
    """What is near its end or over it, the nearest first."""
    out = [
        UseFirst(what=one, days=(one.ends - today).days)
        for one in there
        if one.ends is not None and (one.ends - today).days <= NEAR_DAYS
    ]
    return sorted(out, key=lambda one: (one.days, one.what.name))


@dataclass(frozen=True, kw_only=True)
class Waste:
    """What was thrown away in a month: how much [g], what it cost, and how many times the cost is
    not known."""

    month: date
    grams: float
    cost: float
    without_cost: int


def waste_by_month(thrown: Sequence[tuple[date, float, float | None]]) -> list[Waste]:
    """What was thrown away by month, the last first: each by its date, weight [g] and cost."""
    months = sorted({day.replace(day=1) for day, _grams, _cost in thrown}, reverse=True)
    out = []
    for month in months:
        own = [row for row in thrown if row[0].replace(day=1) == month]
        out.append(
            Waste(
                month=month,
                grams=sum(grams for _day, grams, _cost in own),
                cost=sum(cost for _day, _grams, cost in own if cost is not None),
                without_cost=sum(1 for _day, _grams, cost in own if cost is None),
            )
        )
    return out
