"""A week to be planned: dishes, a skeleton, what is pinned, and whom it is for."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, replace
from datetime import date
from typing import Annotated

from annotated_types import Len

from nutrition.composition.dish_names import KINDS
from nutrition.composition.drinks import beside_the_food
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.portion import Portion, food_portion, room_ml
from nutrition.composition.profile import Profile
from nutrition.planning.additions import eats_between, places_for, with_additions
from nutrition.planning.candidates import (
    LARGE_FROM_KCAL,
    LEAST_BATCH,
    candidate_of,
    helpers_of,
    helpings_of,
    known_share,
    page_check,
    servings_for,
    shares_of_days,
    usual_day_g,
)
from nutrition.planning.held_against import held_against
from nutrition.planning.kinds import kinds_of_food, kinds_of_recipe
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
from nutrition.planning.week import (
    OVER_ALL,
    BadWeek,
    Candidate,
    Choice,
    Prepared,
    Week,
)
from nutrition.prep.keeping import Keeping, endangered, is_heated, keeping_of
from nutrition.prep.soaking import soaks
from nutrition.recipe.reckoning import Facts
from nutrition.requests.dishes import Load, RecipeIn, Size, food_named
from nutrition.requests.fields import OnDay, OneOf, Shorter, Word
from nutrition.requests.person import Asked, PersonGiven
from nutrition.requests.planned_person import planned_for
from nutrition.requests.structure import Structure, decoded
from nutrition.safety.amount_stops import stops_by_amount
from nutrition.safety.gate import OPEN, Gate
from nutrition.targets.watched_targets import watched_keys

# A week without a date begins on a Monday.
A_MONDAY = date(2024, 1, 1)
MOST_BATCH = 4.0


@dataclass(frozen=True, kw_only=True)
class AskedWeek:
    """What a file asks for: the week, how many are wanted, the dishes that may not be served with
    why, and the foods that could help."""

    week: Week
    start: date
    most: int
    left_out: tuple[tuple[str, str], ...]
    helpers: tuple[Candidate, ...]
    gate: Gate = OPEN


@dataclass(frozen=True, kw_only=True)
class _Dish:
    """A dish before it is known what is asked of the days."""

    portion: Portion
    kinds: frozenset[str]
    counts: tuple[float, float, float]
    keeping: Keeping | None = None
    prepared: Prepared | None = None

    def candidate(self, keys: Collection[str], liked: int) -> Candidate:
        pots = {self.prepared.key: 1.0} if self.prepared else None
        return candidate_of(self.portion, self.kinds, self.counts, keys, pots, self.keeping, liked)


@dataclass(frozen=True)
class Eats:
    """Who eats: how a dish is counted for them, and whether an infection is a danger to them."""

    servings: tuple[float, float, float]
    endangered: bool


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
    soaks: bool | None = None

    def _counts(self, usual: tuple[float, float, float]) -> tuple[float, float, float]:
        least = self.least or usual[0]
        return least, self.most or max(usual[1], least), self.step or usual[2]

    def dish(self, at: int, load: Load, who: Eats) -> _Dish:
        """Raises BadWeek."""
        field = f"dishes[{at}]"
        key = self.id or f"dish-{at + 1}"
        if self.food is not None:
            food = food_named(self.food, f"{field}.food", BadWeek)
            portion = food_portion(food, self.grams or first_helping_g(food), key=key)
            kinds = kinds_of_food(food) if self.kinds is None else frozenset(self.kinds)
            return _Dish(
                portion=beside_the_food(portion),
                kinds=kinds,
                counts=self._counts(helpings_of(kinds)),
            )
        if self.recipe is None:
            raise BadWeek(field, f"{field} needs a food or a recipe")
        facts = self.recipe.reckoned(f"{field}.recipe", load, BadWeek)
        if facts.unresolved:
            lines = ", ".join(f"“{line.text}” ({line.why})" for line in facts.unresolved)
            raise BadWeek(f"{field}.recipe", f"{field}.recipe cannot be counted: {lines}")
        return self._cooked(key, facts, who)

    def _cooked(self, key: str, facts: Facts, who: Eats) -> _Dish:
        name, foods = self.name or facts.recipe.title or key, tuple(facts.foods())
        servings, grams = facts.recipe.servings, facts.serving.grams
        keeping = keeping_of(name, self.role, foods, who.endangered)
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
            soaks=soaks(foods) if self.soaks is None else self.soaks,
        )
        usual = kinds_of_recipe(name, self.role, foods)
        return _Dish(
            portion=portion,
            kinds=usual if self.kinds is None else frozenset(self.kinds),
            counts=self._counts(who.servings),
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
    and shopped; how many favorites of a kind there are; and what is wished for: how often the same
    dish comes at a meal and `over_all`, as days in a row and times a week."""

    days: Annotated[list[WeekdayGiven], Shorter(_same_every_day, SAME)]
    eaters: list[EaterGiven] = []
    cooking: list[int] = []
    shopping: list[int] = []
    limits: dict[str, int] = {}
    in_a_row: int = 2
    turns: dict[str, list[int]] = {}
    over_all: list[int] = [OVER_ALL.in_a_row, OVER_ALL.a_week]
    plants: int = 0
    colors: int = 0
    proteins: int = 0
    flask: bool = False


class WeekAsked(Structure):
    """A person, dishes, the skeleton of the week (that of the person's school where none is given)
    and what is pinned; `weeks` is how many different ones are wanted. `additions`: bread, beans or
    a snack may be put in where energy or protein is missing."""

    person: PersonGiven
    dishes: Annotated[list[DishGiven], Len(1)]
    skeleton: SkeletonGiven | None = None
    start: OnDay = A_MONDAY
    days: Size = 7
    weeks: Size = 1
    pinned: list[PinnedGiven] = []
    additions: bool = True

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
    asked: WeekAsked, load: Load, gate: Gate, who: Eats
) -> tuple[list[_Dish], tuple[tuple[str, str], ...]]:
    """The dishes that may be served, and those that may not with why. Raises BadWeek."""
    kept, left_out = [], []
    for at, given in enumerate(asked.dishes):
        dish = given.dish(at, load, who)
        why = gate.why_not_dish(dish.portion.foods)
        if why:
            left_out.append((dish.portion.name, why))
        else:
            kept.append(dish)
    if not kept:
        raise BadWeek("dishes", "nothing is left that may be served: " + left_out[0][1])
    return kept, tuple(left_out)


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
    eats = Eats(servings_for(day["energy_kcal"].aim), endangered(day.person))
    kept, left_out = _kept(data, load, gate, eats)
    known = known_share([dish.candidate([], 0) for dish in kept], Profile.empty())
    watched = watched_keys(day.person, asked.school, asked.orders)
    shares = shares_of_days(skeleton, day.meals, data.start, days)
    slots = slots_of(skeleton, data.start, days)
    held = held_against(
        day,
        watched,
        known,
        shares,
        sorted({slot.day for slot in slots}),
        stops_by_amount(gate.situation),
        Profile.empty(),
    )
    candidates = tuple(dish.candidate(held.keys, at) for at, dish in enumerate(kept))
    if data.additions:
        large = day["energy_kcal"].aim >= LARGE_FROM_KCAL
        candidates = with_additions(candidates, gate, held.keys, large)
        slots = (*slots, *places_for(slots, eats_between(len(day.meals))))
    week = Week(
        days=days,
        slots=slots,
        candidates=candidates,
        prepared=tuple(dish.prepared for dish in kept if dish.prepared),
        aims=held.aims,
        aims_on_day=held.on_day,
        over_week=held.over_week,
        base=held.base,
        cook_days=days_of(skeleton.cooking, data.start, days),
        wishes=skeleton.wishes,
        density_g=usual_day_g(day),
        check=page_check(who.situation, gate, Profile.empty()),
    )
    for at, pin in enumerate(data.pinned):
        week = pin.placed_in(week, at)
    return AskedWeek(
        week=week,
        start=data.start,
        most=int(data.weeks),
        left_out=left_out,
        helpers=helpers_of(gate, held.keys),
        gate=gate,
    )
