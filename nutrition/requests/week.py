"""A week to be planned: dishes, a skeleton, what is pinned, and whom it is for."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date
from typing import Annotated

from annotated_types import Len

from nutrition.composition.drinks import beside_the_food
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.portion import Portion, food_portion, room_ml
from nutrition.composition.profile import Profile
from nutrition.planning.candidates import (
    LEAST_BATCH,
    OF_FOOD,
    OF_RECIPE,
    aims_of_days,
    candidate_of,
    known_share,
    page_check,
    week_base,
)
from nutrition.planning.kinds import KINDS, kinds_of_food, kinds_of_recipe
from nutrition.planning.proposals import MOST_WEEKS
from nutrition.planning.skeleton import (
    WEEKDAYS,
    BadSkeleton,
    Skeleton,
    days_of,
    from_data,
    skeleton_of_school,
    slots_of,
)
from nutrition.planning.week import BadWeek, Candidate, Choice, Prepared, Week
from nutrition.portions.staples import staples
from nutrition.prep.keeping import Keeping, is_heated, keeping_of
from nutrition.recipe.reckoning import Facts
from nutrition.requests.dishes import Load, RecipeIn, Size, food_named
from nutrition.requests.fields import OnDay, OneOf, Shorter, Word
from nutrition.requests.person import Asked, PersonGiven
from nutrition.requests.planned_person import planned_for
from nutrition.requests.structure import Structure, decoded
from nutrition.safety.gate import Gate
from nutrition.targets.day import DayTargets
from nutrition.targets.watched_targets import watched_keys

# A week without a date begins on a Monday.
A_MONDAY = date(2024, 1, 1)
MOST_BATCH = 4.0
# Aims are not spread over less than so much energy a gram. [kcal/g]
LEAST_DENSITY = 0.3


@dataclass(frozen=True, kw_only=True)
class AskedWeek:
    """What a file asks for: the week, how many are wanted, the dishes that may not be served with
    why, and the foods that could help."""

    week: Week
    start: date
    most: int
    left_out: tuple[tuple[str, str], ...]
    helpers: tuple[Candidate, ...]


@dataclass(frozen=True, kw_only=True)
class _Dish:
    """A dish before it is known what is asked of the days."""

    portion: Portion
    kinds: frozenset[str]
    counts: tuple[float, float, float]
    keeping: Keeping | None = None
    prepared: Prepared | None = None

    def candidate(self, keys: list[str], liked: int) -> Candidate:
        pots = {self.prepared.key: 1.0} if self.prepared else None
        return candidate_of(self.portion, self.kinds, self.counts, keys, pots, self.keeping, liked)


class DishGiven(Structure):
    """A food or a recipe, for which kinds of slot it is, and in how many of its portions it is
    served; of a recipe besides how long it keeps [days] and how little of it is cooked."""

    id: Word = ""
    name: str = ""
    food: str | None = None
    grams: Size | None = None
    recipe: RecipeIn | None = None
    role: str = "dish"
    kinds: list[Annotated[str, OneOf(lambda: KINDS)]] | None = None
    least: Size | None = None
    most: Size | None = None
    step: Size | None = None
    keeps_days: Size | None = None
    least_batch: Size | None = None
    package: Size | None = None
    freezes: bool | None = None
    cooks: bool | None = None

    def _counts(self, usual: tuple[float, float, float]) -> tuple[float, float, float]:
        least = self.least or usual[0]
        return least, self.most or max(usual[1], least), self.step or usual[2]

    def dish(self, at: int, load: Load) -> _Dish:
        """Raises BadWeek."""
        field = f"dishes[{at}]"
        key = self.id or f"dish-{at + 1}"
        if self.food is not None:
            food = food_named(self.food, f"{field}.food", BadWeek)
            portion = food_portion(food, self.grams or first_helping_g(food), key=key)
            kinds = kinds_of_food(food) if self.kinds is None else frozenset(self.kinds)
            return _Dish(
                portion=beside_the_food(portion), kinds=kinds, counts=self._counts(OF_FOOD)
            )
        if self.recipe is None:
            raise BadWeek(field, f"{field} needs a food or a recipe")
        facts = self.recipe.reckoned(f"{field}.recipe", load, BadWeek)
        if facts.unresolved:
            lines = ", ".join(f"“{line.text}” ({line.why})" for line in facts.unresolved)
            raise BadWeek(f"{field}.recipe", f"{field}.recipe cannot be counted: {lines}")
        return self._cooked(key, facts)

    def _cooked(self, key: str, facts: Facts) -> _Dish:
        name, foods = self.name or facts.recipe.title or key, tuple(facts.foods())
        servings, grams = facts.recipe.servings, facts.serving.grams
        keeping = keeping_of(name, self.role, foods)
        if self.keeps_days is not None:
            keeping = replace(keeping, days=int(self.keeps_days))
        room = facts.volume_ml / servings if facts.volume_ml else None
        portion = Portion(
            key=key,
            name=name,
            role=self.role,
            grams=grams,
            profile=facts.serving,
            volume_ml=room_ml(room, grams),
            foods=foods,
        )
        prepared = Prepared(
            key=key,
            name=name,
            least=self.least_batch or LEAST_BATCH * servings,
            most=MOST_BATCH * servings,
            package=self.package,
            keeps=keeping.days,
            freezes=keeping.freezes if self.freezes is None else self.freezes,
            cooks=is_heated(foods) if self.cooks is None else self.cooks,
        )
        usual = kinds_of_recipe(name, self.role, foods)
        return _Dish(
            portion=portion,
            kinds=usual if self.kinds is None else frozenset(self.kinds),
            counts=self._counts(OF_RECIPE),
            keeping=keeping,
            prepared=prepared,
        )


class PinnedGiven(Structure):
    """A dish in its place: day and slot are counted from 0."""

    day: int
    meal: str
    slot: int = 0
    dish: Word
    count: Size | None = None

    def placed_in(self, week: Week, at: int) -> Week:
        """The week with it in its place. Raises BadWeek."""
        field, key = f"pinned[{at}]", f"{self.day}-{self.meal}-{self.slot}"
        if key not in {slot.key for slot in week.slots}:
            raise BadWeek(field, f"{field}: there is no slot {key} (day from 0, meal, slot from 0)")
        one = week.by_key.get(self.dish)
        if one is None:
            raise BadWeek(field, f"{field}: there is no dish {self.dish!r}, or it is left out")
        return week.placed(key, Choice(candidate=one.key, count=self.count or one.usual), True)


class WeekdayGiven(Structure):
    """The slots of each meal in words, such as "bowl, fruit x2"; meals that are packed or eaten
    away."""

    meals: dict[str, str] = {}
    packed: list[str] = []
    away: list[str] = []


class EaterGiven(Structure):
    """Somebody who eats along: their portion as a share of the client's, and at which meals."""

    name: str
    share: float
    meals: list[str] = []


def _same_every_day(given: object) -> object:
    return [{"meals": given}] * len(WEEKDAYS) if isinstance(given, dict) else given


SAME = {"type": "object", "additionalProperties": {"type": "string"}}


class SkeletonGiven(Structure):
    """Seven days from Monday, or the meals of every day; the weekdays, from 0, on which is cooked
    and shopped; how many favorites of a kind there are; and what is wished for."""

    days: Annotated[list[WeekdayGiven], Shorter(_same_every_day, SAME)]
    eaters: list[EaterGiven] = []
    cooking: list[int] = []
    shopping: list[int] = []
    limits: dict[str, int] = {}
    in_a_row: int = 3
    plants: int = 0
    colors: int = 0
    flask: bool = False


class WeekAsked(Structure):
    """A person, dishes, the skeleton of the week (that of the person's school where none is given)
    and what is pinned; `weeks` is how many different ones are wanted."""

    person: PersonGiven
    dishes: Annotated[list[DishGiven], Len(1)]
    skeleton: SkeletonGiven | None = None
    start: OnDay = A_MONDAY
    days: Size = 7
    weeks: Size = 1
    pinned: list[PinnedGiven] = []

    def skeleton_for(self, asked: Asked) -> Skeleton:
        """Raises BadWeek."""
        if self.skeleton is None:
            code = asked.school.code if asked.school else ""
            return skeleton_of_school(code, asked.person.meals)
        try:
            return from_data(self.skeleton.model_dump(exclude_unset=True))
        except BadSkeleton as error:
            raise BadWeek(f"skeleton.{error.field}", f"skeleton: {error}") from None


def _kept(
    asked: WeekAsked, load: Load, gate: Gate
) -> tuple[list[_Dish], tuple[tuple[str, str], ...]]:
    """The dishes that may be served, and those that may not with why. Raises BadWeek."""
    kept, left_out = [], []
    for at, given in enumerate(asked.dishes):
        dish = given.dish(at, load)
        why = gate.why_not_dish(dish.portion.foods)
        if why:
            left_out.append((dish.portion.name, why))
        else:
            kept.append(dish)
    if not kept:
        raise BadWeek("dishes", "nothing is left that may be served: " + left_out[0][1])
    return kept, tuple(left_out)


def _helpers(gate: Gate, keys: list[str]) -> tuple[Candidate, ...]:
    return tuple(
        candidate_of(food_portion(food, first_helping_g(food), key=food.slug), (), OF_FOOD, keys)
        for food in staples(gate)
        if not gate.why_not(food)
    )


def _density_g(day: DayTargets) -> float:
    """What a day weighs at the density that is aimed at. [g]"""
    density = day.targets["kcal_per_gram"].aim if "kcal_per_gram" in day.targets else 1.0
    return day.targets["energy_kcal"].aim / max(density, LEAST_DENSITY)


def read_week(given: object, load: Load) -> AskedWeek:
    """The week of `{"person": {...}, "dishes": [...], "skeleton": {...}, "pinned": [...]}`; `load`
    reads a recipe's file by its name. What the person must not have is left out, with why. Raises
    BadWeek naming the field."""
    data = decoded(WeekAsked, given, BadWeek)
    who = planned_for(data.person, BadWeek)
    asked, day, gate = who.asked, who.day, who.gate
    skeleton, days = data.skeleton_for(asked), int(data.days)
    if data.weeks > MOST_WEEKS:
        raise BadWeek("weeks", f"up to {MOST_WEEKS} weeks are planned")
    kept, left_out = _kept(data, load, gate)
    known = known_share([dish.candidate([], 0) for dish in kept], Profile.empty())
    watched = watched_keys(day.person, asked.school, asked.orders)
    aims, over_week = aims_of_days(day, watched, known)
    keys = [aim.key for aim in (*aims, *over_week)]
    week = Week(
        days=days,
        slots=slots_of(skeleton, data.start, days),
        candidates=tuple(dish.candidate(keys, at) for at, dish in enumerate(kept)),
        prepared=tuple(dish.prepared for dish in kept if dish.prepared),
        aims=aims,
        over_week=over_week,
        base=week_base(Profile.empty(), keys),
        cook_days=days_of(skeleton.cooking, data.start, days),
        wishes=skeleton.wishes,
        density_g=_density_g(day),
        check=page_check(who.situation, gate, Profile.empty()),
    )
    for at, pin in enumerate(data.pinned):
        week = pin.placed_in(week, at)
    return AskedWeek(
        week=week,
        start=data.start,
        most=int(data.weeks),
        left_out=left_out,
        helpers=_helpers(gate, keys),
    )
