"""What of a week is soaked and cooked before anything else is: the beans of its pots, and those of
its plates, which the shopping buys dry."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.prep.soaking import BEANS_KEEP, KIDNEY_BOIL_MIN, FromDry, from_dry
from week.models import Week, WeekEntry
from week.pots import Pot


@dataclass(frozen=True, kw_only=True)
class CookedFirst:
    """Beans that are cooked by themselves on a day, or go dry into a pot: what they are for."""

    beans: FromDry
    on: date
    into: str

    @property
    def soak_on(self) -> date:
        """The evening on which they are put into water."""
        return self.on - timedelta(days=1)

    @property
    def words(self) -> str:
        """What is done with them, in a sentence."""
        dry, least, most = self.beans.dry, *self.beans.minutes
        name = dry.name.split(",")[0].lower()
        if not self.beans.cooked_g:
            return f"{name}: {self.beans.dry_g:.0f} g dry, into {self.into}"
        hard = (
            f"boil {KIDNEY_BOIL_MIN:g} minutes in fresh water, then "
            if self.beans.boiled_hard
            else ""
        )
        return (
            f"{name}: {self.beans.dry_g:.0f} g dry, {hard}simmer {least} to {most} minutes in "
            f"fresh water until tender; {self.beans.cooked_g:.0f} g cooked, for {self.into}"
        )


def cooked_first(week: Week, pots: Iterable[Pot], rows: Iterable[WeekEntry]) -> list[CookedFirst]:
    """All of it by day: for each pot, and for what stands on the plates."""
    out = []
    for pot in pots:
        foods = [part.times(pot.cooked.made) for part in pot.facts.foods()]
        for beans in from_dry(foods):
            out.append(CookedFirst(beans=beans, on=pot.cooked_on, into=pot.name))
    out += _for_the_plates(week, plates_of(rows))
    return sorted(out, key=lambda one: (one.on, one.into))


def plates_of(rows: Iterable[WeekEntry]) -> list[tuple[WeekEntry, list[Ingredient]]]:
    """What stands in a week that is no recipe: foods, and what is in bowls besides recipes."""
    out = []
    for row in rows:
        foods = []
        if row.food and row.food in food_table():
            foods = [Ingredient(food_table()[row.food], row.amount)]
        elif row.bowl is not None:
            foods = [
                Ingredient(food_table()[part.food], part.grams * row.amount)
                for part in row.bowl.parts.all()
                if part.recipe_id is None and part.food in food_table()
            ]
        out.append((row, foods))
    return out


def _for_the_plates(
    week: Week, plates: Sequence[tuple[WeekEntry, Sequence[Ingredient]]]
) -> list[CookedFirst]:
    """Plain beans of the plates: cooked on the first day of those that they keep for."""
    by_food: dict[str, list[tuple[int, FromDry]]] = {}
    for row, foods in plates:
        for beans in from_dry(foods):
            by_food.setdefault(beans.dry.slug, []).append((row.day, beans))
    out = []
    for some in by_food.values():
        some.sort(key=lambda one: one[0])
        while some:
            first = some[0][0]
            now = [beans for day, beans in some if day <= first + BEANS_KEEP]
            some = [one for one in some if one[0] > first + BEANS_KEEP]
            beans = FromDry(
                dry=now[0].dry,
                dry_g=sum(one.dry_g for one in now),
                cooked_g=sum(one.cooked_g for one in now),
            )
            out.append(CookedFirst(beans=beans, on=week.date_of(first), into="the plates"))
    return out
