"""What is cooked for a week: each pot with its ribbon from the day it is cooked through the days it
is eaten, its containers and their labels, the rounded recipe, and the hot pot's caution."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from functools import cached_property

from nutrition.planning.cooking import Cooked, cook
from nutrition.planning.skeleton import Skeleton, days_of
from nutrition.planning.week import DAY_BEFORE
from nutrition.prep.batches import (
    Container,
    Label,
    MealEaten,
    batch_for,
    label_of,
    portioned,
)
from nutrition.prep.cooling import FLASK, Cooling, cooling_of
from nutrition.prep.keeping import Keeping, endangered, keeping_of
from nutrition.recipe.reckoning import Facts
from nutrition.recipe.scaling import Scaled
from recipes.facts import facts_of, serving_room_ml
from recipes.models import Recipe
from week.dishes import prepared_of
from week.models import Week, WeekEntry
from week.places import IN_THE_HOUSE

# So much of a serving more or less is the same. [share of a serving]
CRUMB_SERVING = 0.05


@dataclass(frozen=True, kw_only=True)
class Eating:
    """What is eaten of a recipe on a day: in which dish, by whom, so many servings each."""

    day: int
    on: date
    meal: str
    dish: str
    people: tuple[tuple[str, float], ...]
    packed: bool = False

    @property
    def servings(self) -> float:
        return sum(share for _name, share in self.people)

    @property
    def words(self) -> str:
        """ "2 servings", or "Osk 2, Jory 1.2" """
        if len(self.people) == 1:
            share = self.people[0][1]
            return f"{share:.3g} serving{'' if share == 1 else 's'}"
        return ", ".join(f"{name} {share:.3g}" for name, share in self.people)


@dataclass(frozen=True, kw_only=True)
class Pot:
    """One cooking of a recipe. `eatings` are the dishes that it goes into, in turn."""

    week: Week
    recipe: Recipe
    cooked: Cooked
    keeping: Keeping
    eatings: tuple[Eating, ...]
    off_day: bool

    @property
    def key(self) -> str:
        return f"{self.recipe.pk}-{self.cooked.day}"

    @property
    def name(self) -> str:
        return self.recipe.title

    @property
    def cooked_on(self) -> date:
        return self.week.date_of(self.cooked.day)

    @property
    def eat_by(self) -> date:
        return self.cooked_on + timedelta(days=self.keeping.days)

    @cached_property
    def facts(self) -> Facts:
        return facts_of(self.recipe)

    @property
    def serving_g(self) -> float:
        return self.facts.serving.grams

    @property
    def serving_ml(self) -> float:
        return serving_room_ml(self.recipe.role, self.facts)

    @property
    def frozen_days(self) -> set[int]:
        return {day for day, _servings in self.cooked.frozen}

    @property
    def frozen_dates(self) -> list[date]:
        return [self.week.date_of(day) for day in sorted(self.frozen_days)]

    @property
    def eat_by_words(self) -> str:
        """Until when it is eaten from the refrigerator; empty where nothing of it stands there:
        eaten from the pot, or all of it frozen."""
        chilled = [one for one in self.containers if not one.frozen]
        return f"eat by {self.eat_by:%A}" if chilled and self.keeping.days else ""

    @property
    def left_words(self) -> str:
        """What nobody eats of it this week, and where it goes; empty for nothing."""
        left = self.cooked.left
        if left < 0.05:
            return ""
        goes = (
            "frozen for another week" if self.keeping.freezes else "nobody eats it: cook less of it"
        )
        return f"{left:.1f} servings left over: {goes}."

    @cached_property
    def scaled(self) -> Scaled | None:
        """The recipe for this pot; None for one that no kitchen makes."""
        try:
            return batch_for(self.facts, self.cooked.made)
        except ValueError:
            return None

    @property
    def flask(self) -> Cooling | None:
        """What to mind where it is carried hot; None where it is not."""
        packed = any(one.packed for one in self.eatings)
        return FLASK if packed and not self.keeping.cold else None

    @property
    def cooling(self) -> Cooling | None:
        return cooling_of(self.serving_ml * self.cooked.made, self.cooked.prepared.cooks)

    @cached_property
    def containers(self) -> list[Container]:
        """A meal of one person in each. What is eaten on the day it is cooked, at home, needs
        none."""
        eaten = [
            MealEaten(on=one.on, people=dict(one.people), packed=one.packed)
            for one in self.eatings
            if one.day != self.cooked.day or one.packed
        ]
        at_once = sum(
            one.servings for one in self.eatings if one.day == self.cooked.day and not one.packed
        )
        return portioned(
            self.cooked.made - at_once,
            self.serving_g,
            self.serving_ml,
            self.cooked_on,
            self.keeping,
            eaten,
            self.week.container_ml,
        )

    def labels(self, keys: Sequence[str]) -> list[Label]:
        """A label for every container, with the numbers that matter."""
        per_gram = self.facts.per_100_g * 0.01
        return [
            label_of(self.name, self.cooked_on, one, per_gram, keys, self.keeping)
            for one in self.containers
        ]

    @property
    def title(self) -> str:
        """All of it in a line: "Bean soup: cooked Sunday, 6 servings; 4 containers of 380 g" """
        made = f"{self.cooked.made:.3g} servings"
        return f"{self.name}: cooked {self.cooked_on:%A}, {made}; {self.container_words}"

    @property
    def container_words(self) -> str:
        """ "4 containers of 380 g, 2 of them frozen" """
        count = len(self.containers)
        if not count:
            return "eaten from the pot"
        sizes = sorted({round(one.grams / 5) * 5 for one in self.containers})
        grams = f"{sizes[0]:g}" if len(sizes) == 1 else f"{sizes[0]:g} to {sizes[-1]:g}"
        frozen = sum(one.frozen for one in self.containers)
        words = f"{count} container{'s' if count > 1 else ''} of {grams} g"
        if frozen == count:
            return f"{words}, frozen"
        return f"{words}, {frozen} of them frozen" if frozen else words

    @property
    def starts(self) -> int:
        """The column of its ribbon's beginning: 1 for the day before the first."""
        return self.cooked.day - DAY_BEFORE + 1

    @property
    def ends(self) -> int:
        """The column after its ribbon's end."""
        last = max((day for day, _servings in self.cooked.eaten), default=self.cooked.day)
        return last - DAY_BEFORE + 2

    @property
    def cells(self) -> list[tuple[int, str, float]]:
        """For each day of its ribbon: the column, what happens ("cooked", "eaten", "frozen",
        "kept"), and how many servings."""
        eaten = dict(self.cooked.eaten)
        out = []
        for at, day in enumerate(range(self.cooked.day, self.ends + DAY_BEFORE - 1)):
            servings = eaten.get(day, 0.0)
            state = "frozen" if day in self.frozen_days else "eaten" if servings else "kept"
            if day == self.cooked.day:
                state = "cooked"
            out.append((at + 1, state, servings))
        return out


def eatings_of(
    week: Week, entries: Sequence[WeekEntry], skeleton: Skeleton
) -> dict[int, list[Eating]]:
    """What is eaten of each recipe, by its key, in the order of the days."""
    out: dict[int, list[Eating]] = {}
    for entry in entries:
        weekday = skeleton.days[week.date_of(entry.day).weekday()]
        packed = entry.meal in weekday.packed
        others = [] if packed else [one for one in skeleton.eaters if one.eats(entry.meal)]
        for pk, servings, dish in _servings(entry):
            people = (
                (week.client.name.partition(" ")[0], servings),
                *((one.name, servings * one.share) for one in others),
            )
            out.setdefault(pk, []).append(
                Eating(
                    day=entry.day,
                    on=week.date_of(entry.day),
                    meal=entry.get_meal_display().lower(),
                    dish=dish,
                    people=people,
                    packed=packed,
                )
            )
    for rows in out.values():
        rows.sort(key=lambda one: one.day)
    return out


def _servings(entry: WeekEntry) -> list[tuple[int, float, str]]:
    """The recipes that something in the week takes servings of: key, servings, the dish."""
    if entry.recipe is not None:
        return [(entry.recipe.pk, entry.amount, entry.recipe.title)]
    if entry.bowl is None:
        return []
    out = []
    for part in entry.bowl.parts.all():
        if part.recipe is None:
            continue
        grams = facts_of(part.recipe).serving.grams
        if grams > 0:
            out.append((part.recipe.pk, part.grams / grams * entry.amount, entry.bowl.name))
    return out


@dataclass(frozen=True, kw_only=True)
class Thawed:
    """A dish of the week that stands cooked in the house: no pot is cooked for it. `thaw_on` is the
    evening on which it goes from the freezer into the refrigerator."""

    recipe_id: int
    name: str
    eating: Eating

    @property
    def thaw_on(self) -> date:
        return self.eating.on - timedelta(days=1)


def from_the_house(
    week: Week, eatings: Mapping[int, Sequence[Eating]]
) -> tuple[dict[int, list[Eating]], list[Thawed]]:
    """What is left to be cooked for, and what is eaten of what stands in the house: the first meals
    of a recipe that it serves whole."""
    house = IN_THE_HOUSE.first(week) or {}
    names = dict(Recipe.with_removed.filter(pk__in=set(house)).values_list("pk", "title"))
    rest, thawed = {}, []
    for pk, rows in eatings.items():
        there, own = house.get(pk, 0.0), []
        for one in rows:
            if one.servings <= there + CRUMB_SERVING:
                there -= one.servings
                thawed.append(Thawed(recipe_id=pk, name=names.get(pk, ""), eating=one))
            else:
                own.append(one)
        if own:
            rest[pk] = own
    return rest, sorted(thawed, key=lambda one: one.eating.day)


def pots_of(week: Week, entries: Sequence[WeekEntry], skeleton: Skeleton) -> list[Pot]:
    """Everything that is cooked for a week, by day. What nobody can eat in time makes a pot of its
    own on the day it is eaten."""
    eatings, _thawed = from_the_house(week, eatings_of(week, entries, skeleton))
    recipes = {row.pk: row for row in Recipe.with_removed.filter(pk__in=eatings)}
    cooking = days_of(skeleton.cooking, week.start, week.days)
    in_danger, out = endangered(week.client.person()), []
    for pk, rows in eatings.items():
        recipe = recipes.get(pk)
        if recipe is None or facts_of(recipe).batch.grams <= 0:
            continue
        prepared = prepared_of(recipe, in_danger)
        eaten = [0.0] * week.days
        for one in rows:
            eaten[one.day] += one.servings
        foods = facts_of(recipe).foods()
        keeping = keeping_of(recipe.title, recipe.role, foods, in_danger)
        cooked = cook(prepared, tuple(round(one, 2) for one in eaten), cooking)
        for pot in cooked or ():
            days = {day for day, _servings in pot.eaten}
            out.append(
                Pot(
                    week=week,
                    recipe=recipe,
                    cooked=pot,
                    keeping=keeping,
                    eatings=tuple(one for one in rows if one.day in days),
                    off_day=prepared.cooks and pot.day not in cooking,
                )
            )
    return sorted(out, key=lambda one: (one.cooked.day, not one.cooked.prepared.cooks, one.name))
