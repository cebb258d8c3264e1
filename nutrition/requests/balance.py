"""Portions to be balanced: parts, targets, and whom it is for."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated

from annotated_types import Ge, Gt, Le, Len

from nutrition.composition.amounts import DENSITY, amount_of
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import KEYS, NUTRIENT
from nutrition.composition.portion import Portion, room_ml
from nutrition.portions.part_role import role_of
from nutrition.portions.problem import BadProblem, Problem, Room
from nutrition.portions.served_to import served_to
from nutrition.portions.serving_limits import limits_around
from nutrition.portions.serving_rules import servable
from nutrition.portions.stomach_room import rooms_of
from nutrition.requests.dishes import Load, RecipeIn, food_named
from nutrition.requests.fields import OneOf, Plannable, Word
from nutrition.requests.meals import Eaten, Meals, read_meals
from nutrition.requests.person import PersonGiven
from nutrition.requests.planned_person import planned_for
from nutrition.requests.structure import Structure, decoded
from nutrition.safety.gate import OPEN, Gate
from nutrition.targets.aim import Aim
from nutrition.targets.aims import (
    ALL,
    UNPLANNED,
    aims_for,
    upper_levels,
    with_upper_levels,
    within_upper_levels,
)
from nutrition.targets.body import is_thin_or_frail, must_gain
from nutrition.targets.day import DayTargets
from nutrition.targets.macronutrient_fit import ENOUGH, KCAL_PER_G
from nutrition.targets.meals import MealTarget, likely_meal
from nutrition.targets.reference_intakes import reference_intakes
from nutrition.targets.watched_targets import watched_keys

WHOLE_DAY = "day"
# Beyond this the solver's whole numbers would not hold what a target is multiplied to.
MOST_WEIGHT = 1e4
# A problem without a person keeps to the upper levels of adults.
ADULT = ("female", 30.0)


class PartGiven(Structure):
    """A food or a recipe, how much of it there is [g], and between what it may be served."""

    id: Word = ""
    food: str | None = None
    recipe: RecipeIn | None = None
    role: str = ""
    grams: Annotated[Plannable, Ge(0)] | None = None
    min_grams: Annotated[Plannable, Ge(0)] | None = None
    max_grams: Plannable | None = None
    step_grams: Annotated[Plannable, Gt(0)] | None = None
    locked: bool = False
    star: bool = False

    @property
    def exact(self) -> bool:
        """Whether it is portioned as stated, by the sums alone."""
        return self.locked or None not in (self.min_grams, self.max_grams, self.step_grams)

    def _whole(self, key: str, field: str, load: Load) -> Portion:
        """A hundred grams of the food, or the batch of the recipe."""
        if self.food is not None:
            food = food_named(self.food, f"{field}.food", BadProblem)
            return Portion(
                key=key,
                name=food.name,
                role=self.role or food.role,
                grams=100.0,
                profile=food.profile(100.0),
                volume_ml=room_ml(food.volume_ml(100.0), 100.0),
                foods=(Ingredient(food, 100.0),),
                food=food,
            )
        if self.recipe is None:
            raise BadProblem(field, f"{field} needs a food or a recipe")
        facts = self.recipe.reckoned(f"{field}.recipe", load, BadProblem)
        title, foods = facts.recipe.title or key, tuple(facts.batch_foods())
        return Portion(
            key=key,
            name=title,
            role=role_of(title, foods, facts.batch, self.role),
            grams=facts.batch.grams,
            profile=facts.batch,
            volume_ml=room_ml(facts.volume_ml, facts.batch.grams),
            foods=foods,
        )

    def portion(self, at: int, load: Load, gate: Gate) -> Portion:
        """As the solver takes it, within what the gate lets be served. Raises BadProblem."""
        field = f"parts[{at}]"
        whole = self._whole(self.id or f"part-{at + 1}", field, load)
        grams = next((one for one in (self.grams, self.min_grams) if one is not None), 0.0)
        served = servable(whole.food, whole.role)
        if self.step_grams is not None:
            served = replace(served, step_g=self.step_grams, goes=False)
        usual = limits_around(served, grams, self.min_grams, self.max_grams, self.star)
        first = usual.least if self.min_grams is None else self.min_grams
        last = usual.most if self.max_grams is None else self.max_grams
        if last < first:
            raise BadProblem(f"{field}.min_grams", f"{field}: min_grams is over max_grams")
        # what is not there yet is looked at as a helping of it
        amount = grams if grams > 0 else whole.grams
        some = [one.times(amount / whole.grams) for one in whole.foods]
        limit = gate.limit(some, amount, whole.food is None)
        ceiling = limit.most if limit.most < amount - 1e-9 or not limit.bars else grams
        most = 0.0 if limit.stops else ceiling
        if not self.locked:
            first, last = min(first, most), min(last, most)
        limits = replace(
            usual,
            least=first,
            most=last,
            step=usual.step,
            ceiling=min(usual.ceiling, max(most, 0.0)),
            held=" ".join(bar.why for bar in limit.bars),
        )
        return replace(whole, grams=grams, limits=limits, locked=self.locked, star=self.star)


class AimGiven(Structure):
    """A target in its unit: a band, an aim, or both; what is `hard` is never broken."""

    min: Plannable | None = None
    aim: Plannable | None = None
    max: Plannable | None = None
    weight: Annotated[Plannable, Le(MOST_WEIGHT)] = 1.0
    hard: bool = False

    def as_aim(self, key: str) -> Aim:
        """Raises BadProblem."""
        field = f"targets.{key}"
        stated = {"min": self.min, "aim": self.aim, "max": self.max}
        for name, value in stated.items():
            if value is not None and value < 0 and key != "pral_meq":
                raise BadProblem(f"{field}.{name}", f"{field}.{name} is below zero")
        aim = self.aim
        if aim is None:
            # without an aim of its own a band aims at its middle, a bound at itself
            bounds = [value for value in (self.min, self.max) if value is not None]
            if not bounds:
                raise BadProblem(field, f"{field} needs min, aim or max")
            aim = sum(bounds) / len(bounds)
        elif (self.min is not None and aim < self.min) or (self.max is not None and aim > self.max):
            raise BadProblem(f"{field}.aim", f"{field}.aim of {aim:g} lies outside its min and max")
        return Aim(
            key=key,
            low=self.min,
            aim=aim,
            high=self.max,
            weight=self.weight,
            firm_low=self.hard,
            firm_high=self.hard,
        )


class BalanceAsked(Structure):
    """Parts and targets by key; with a person their gate holds, and where no targets are given
    theirs for the `meal`. `day` is what else is eaten."""

    parts: Annotated[list[PartGiven], Len(1)]
    targets: Annotated[dict[Annotated[str, OneOf(lambda: NUTRIENT)], AimGiven], Len(1)] | None = (
        None
    )
    vessel_ml: Annotated[Plannable, Gt(0)] | None = None
    person: PersonGiven | None = None
    meal: str | None = None
    day: Meals | None = None


@dataclass(frozen=True, kw_only=True)
class _Whose:
    """The targets of the person it is for, their gate, the meal it is, and how that is known."""

    day: DayTargets | None = None
    gate: Gate = OPEN
    meal: MealTarget | None = None
    judged_as: str = ""


def _whose(asked: BalanceAsked) -> _Whose:
    if asked.person is None:
        return _Whose()
    who = planned_for(asked.person, BadProblem)
    day, gate = who.day, who.gate
    if asked.meal is None:
        return _Whose(day=day, gate=gate)
    if asked.meal == WHOLE_DAY:
        return _Whose(day=day, gate=gate, judged_as="the whole day")
    meals = {meal.key: meal for meal in day.meals}
    if asked.meal not in meals:
        raise BadProblem("meal", f"meal is one of {', '.join([*meals, WHOLE_DAY])}")
    meal = meals[asked.meal]
    return _Whose(day=day, gate=gate, meal=meal, judged_as=f"{meal.name.lower()}, as said")


def _judged(whose: _Whose, parts: Sequence[Portion]) -> _Whose:
    """With the meal that the energy of the parts is nearest to, where none was said."""
    if whose.day is None or whose.judged_as:
        return whose
    kcal = sum(part.amount("energy_kcal") * part.grams for part in parts)
    meal = likely_meal(whose.day.meals, kcal)
    said = f"{meal.name.lower()}: its energy is nearest" if meal else "the whole day"
    return replace(whose, meal=meal, judged_as=said)


def _fit_together(aims: Sequence[Aim]) -> None:
    """Raises BadProblem for leasts that bring more energy than may be."""
    by_key = {aim.key: aim for aim in aims}
    most = by_key["energy_kcal"].high if "energy_kcal" in by_key else None
    asked = sum((by_key[key].low or 0.0) * per for key, per in KCAL_PER_G.items() if key in by_key)
    if most is not None and asked > most * ENOUGH:
        raise BadProblem(
            "targets",
            f"the least of protein, carbohydrate and fat comes to {asked:.0f} kcal, more than the "
            f"{most:g} kcal that may be: change one of them",
        )


def _eaten_besides(asked: BalanceAsked) -> Eaten | None:
    """What else is eaten that day. Raises BadProblem for a line that is not read: what it brings
    would be missing."""
    if asked.day is None:
        return None
    eaten = read_meals(asked.day.values())
    for line, why in (*eaten.refused, *eaten.unresolved):
        raise BadProblem("day", f"day: “{line}” is not read: {why}")
    return eaten


def _aims(asked: BalanceAsked, whose: _Whose, rest_is_known: bool) -> tuple[Aim, ...]:
    """The targets that were given, and those of the person: all of them where none were given,
    else what of theirs is never broken."""
    wanted = tuple(given.as_aim(key) for key, given in (asked.targets or {}).items())
    _fit_together(wanted)
    day, meal = whose.day, whose.meal
    if day is None:
        return wanted
    theirs = aims_for(
        day,
        watched_keys(day.person, day.school),
        1.0 if meal is None else meal.share,
        meal,
        ALL if rest_is_known else UNPLANNED,
    )
    named = {aim.key for aim in wanted}
    more = [aim for aim in theirs if aim.key not in named]
    if asked.targets is not None:
        more = [aim for aim in more if aim.firm_high or aim.firm_low]
    return (*wanted, *more)


def _uppers(day: DayTargets | None) -> dict[str, float]:
    if day is not None:
        return upper_levels(day)
    rows = reference_intakes(*ADULT).items()
    return {key: row.upper for key, row in rows if row.upper is not None}


def _base(aims: Sequence[Aim], eaten: Eaten, meal: MealTarget | None) -> dict[str, float]:
    """What the rest of the day brings toward each target: all of it toward the day's, nothing
    toward what is asked of this meal. In each key's unit."""
    of_meal = {aim.key for aim in aims if not aim.of_day} if meal is not None else set()
    keys = {*KEYS, *NUTRIENT} - {DENSITY}
    return {
        key: amount_of(eaten.profile, key).amount
        for key in keys
        if key not in of_meal and NUTRIENT[key].group != "indices"
    }


def _rooms(whose: _Whose, parts: Sequence[Portion]) -> tuple[Room, ...]:
    """The room that one meal has after gastric surgery; a whole day has it many times."""
    return rooms_of(whose.day, [parts]) if whose.day is not None and whose.meal is not None else ()


def read_problem(given: object, load: Load) -> Problem:
    """The problem of `{"parts": [...], "targets": {...}, "vessel_ml": n}`. `load` reads a recipe's
    file by its name.

    Unless every part has a least, a most and a step of its own and nobody is named, the portions
    are changed as a cook would. Raises BadProblem naming the field.
    """
    asked = decoded(BalanceAsked, given, BadProblem)
    if asked.targets is None and asked.person is None:
        raise BadProblem("targets", "targets are missing: give some, or a person who has theirs")
    eaten = _eaten_besides(asked)
    whose = _whose(asked)
    parts = tuple(one.portion(at, load, whose.gate) for at, one in enumerate(asked.parts))
    whose = _judged(whose, parts)
    richer = whose.day is not None and is_thin_or_frail(whose.day.person)
    if whose.day is not None:
        served = zip(asked.parts, parts, strict=True)
        # who stated between what a part may be is taken at their word
        parts = tuple(
            part if given.exact else served_to(part, whose.gate, richer) for given, part in served
        )
    aims = _aims(asked, whose, eaten is not None)
    base = {} if eaten is None else _base(aims, eaten, whose.meal)
    whole = eaten is not None and whose.meal is None
    return Problem(
        parts=parts,
        aims=within_upper_levels(with_upper_levels(aims, _uppers(whose.day)), base),
        base=base,
        base_grams=eaten.profile.grams if eaten is not None and whole else 0.0,
        vessel_ml=asked.vessel_ml,
        rooms=_rooms(whose, parts),
        cooks=asked.person is not None or not all(part.exact for part in asked.parts),
        eats_little=whose.day is not None and must_gain(whose.day.person),
        gate=whose.gate,
        richer=richer,
        judged_as=whose.judged_as,
        meal="" if whose.meal is None else whose.meal.key,
    )
