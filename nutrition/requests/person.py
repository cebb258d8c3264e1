"""A person as plain data, with their school and what was ordered for them."""

from __future__ import annotations

import difflib
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated

from nutrition.composition.allergens import UnknownAllergen
from nutrition.composition.allergies import allergies_named
from nutrition.composition.nutrients import NUTRIENT
from nutrition.requests.fields import OneOf, Shorter
from nutrition.requests.structure import Refuse, Structure, decoded
from nutrition.targets.conditions import conditions
from nutrition.targets.day import DayTargets, day_targets
from nutrition.targets.orders import Order, check_order
from nutrition.targets.person import (
    ACTIVITY_WORDS,
    FORMULA_WORDS,
    GOAL_WORDS,
    LIFE_STAGE_WORDS,
    MEAL_PATTERN_WORDS,
    SEXES,
    WEIGHT_BASIS_WORDS,
    OutOfRange,
    Person,
)
from nutrition.targets.schools import School, schools

# The names that orders have for what the targets call low, aim and high.
ORDER_FIELDS = {"low": "min", "aim": "aim", "high": "max"}


@dataclass(frozen=True, kw_only=True)
class Asked:
    """What a file asks for."""

    person: Person
    school: School | None
    orders: tuple[Order, ...]
    shares: Mapping[str, float] | None
    ignored: tuple[str, ...]

    def day(self) -> DayTargets:
        """The day's targets. Raises OutOfRange."""
        return day_targets(self.person, self.school, self.orders, self.shares)


def _near_condition(word: str, known: list[str]) -> str:
    """There is no such condition, and the one whose name speaks of the word, as of a medicine of
    that kind, or whose code is most like it."""
    said = word.replace("_", " ").lower()
    named = [code for code, one in conditions().items() if said in one.name.lower()]
    near = next(iter(named or difflib.get_close_matches(word, known, 1, 0.6)), "")
    return f": there is no condition “{word}”" + (f": did you mean {near}?" if near else "")


def _goal(given: object) -> object:
    return {"kind": given} if isinstance(given, str) else given


def _pattern(given: object) -> object:
    plain = f"{given}" if isinstance(given, int) and not isinstance(given, bool) else given
    return "3_snacks" if plain in ("3_and_snacks", "3+snacks") else plain


class GoalGiven(Structure):
    """What is wanted of the weight."""

    kind: Annotated[str, OneOf(lambda: GOAL_WORDS)]
    target_weight_kg: float | None = None
    pace_kg_per_week: float | None = None

    def pace(self) -> float | None:
        """The pace as a size: a loss may be written with its sign. [kg a week]"""
        pace = self.pace_kg_per_week
        return -pace if pace is not None and pace < 0 and self.kind == "lose" else pace


class OrderGiven(Structure):
    """A number set by hand. Without the license of who gave it, it is a wish and no order."""

    key: Annotated[str, OneOf(lambda: NUTRIENT)]
    min: float | None = None
    aim: float | None = None
    max: float | None = None
    reason: str = ""
    by: str = ""
    license: str = ""

    def order(self, at: int) -> Order:
        """Raises OutOfRange naming the field of the one at this place."""
        by, license = self.by.strip(), self.license.strip()
        order = Order(
            key=self.key,
            low=self.min,
            aim=self.aim,
            high=self.max,
            kind="order" if by and license else "choice",
            reason=self.reason,
            by=by,
            license=license,
        )
        try:
            check_order(order)
        except OutOfRange as error:
            field = f"orders[{at}].{ORDER_FIELDS[error.field]}"
            raise OutOfRange(field, f"{field}: {error}") from None
        return order


class PersonGiven(Structure):
    """Who it is for: weights in kg, heights in cm, energy in kcal."""

    sex: Annotated[str, OneOf(lambda: SEXES)]
    age_years: float
    height_cm: float
    weight_kg: float
    activity: Annotated[str, OneOf(lambda: ACTIVITY_WORDS)] = "low_active"
    life_stage: Annotated[str, OneOf(lambda: LIFE_STAGE_WORDS)] | None = None
    goal: Annotated[GoalGiven, Shorter(_goal, {"type": "string"})] = GoalGiven(kind="hold")
    school: Annotated[str, OneOf(schools)] | None = None
    conditions: list[
        Annotated[str, OneOf(lambda: {**conditions(), **LIFE_STAGE_WORDS}, _near_condition)]
    ] = []
    allergies: list[str] = []
    meals: Annotated[
        str, OneOf(lambda: MEAL_PATTERN_WORDS), Shorter(_pattern, {"type": "integer"})
    ] = "3"
    meal_shares: dict[str, float] | None = None
    energy_formula: Annotated[str, OneOf(lambda: FORMULA_WORDS)] = "dri_2023"
    kcal_per_kg: float | None = None
    measured_kcal: float | None = None
    weight_basis: Annotated[str, OneOf(lambda: WEIGHT_BASIS_WORDS)] = "auto"
    vegan_iron: bool = True
    vegan_zinc: bool = True
    weight_before_kg: float | None = None
    surgery_months: float | None = None
    fat_free_kg: float | None = None
    orders: list[OrderGiven] = []

    def _stage(self) -> str:
        """The life stage, which may stand among the conditions."""
        named = [code for code in self.conditions if code in LIFE_STAGE_WORDS]
        if len(named) > 1:
            raise OutOfRange("conditions", f"{' and '.join(named)} do not go together.")
        if named and self.life_stage not in (None, named[0]):
            raise OutOfRange(
                "life_stage",
                f"life_stage is {self.life_stage}, and the conditions say {named[0]}.",
            )
        return self.life_stage or next(iter(named), "adult")

    def asked(self) -> Asked:
        """What is asked for. Raises OutOfRange naming the field that is not possible."""
        stage = self._stage()
        try:
            # one that matches no table is kept by its word, and says so
            allergies = {one for name in self.allergies for one in allergies_named(name)}
        except UnknownAllergen as error:
            raise OutOfRange("allergies", str(error)) from None
        person = Person(
            sex=self.sex,
            age_years=self.age_years,
            height_cm=self.height_cm,
            weight_kg=self.weight_kg,
            activity=self.activity,
            goal=self.goal.kind,
            life_stage=stage,
            formula=self.energy_formula,
            conditions=frozenset(self.conditions) - set(LIFE_STAGE_WORDS),
            allergies=frozenset(allergies),
            target_weight_kg=self.goal.target_weight_kg,
            pace_kg_per_week=self.goal.pace(),
            weight_basis=self.weight_basis,
            kcal_per_kg=self.kcal_per_kg,
            measured_kcal=self.measured_kcal,
            vegan_iron=self.vegan_iron,
            vegan_zinc=self.vegan_zinc,
            weight_before_kg=self.weight_before_kg,
            surgery_months=self.surgery_months,
            fat_free_kg=self.fat_free_kg,
            meals=self.meals,
        )
        return Asked(
            person=person,
            school=None if self.school is None else schools()[self.school],
            orders=tuple(order.order(at) for at, order in enumerate(self.orders)),
            shares=self.meal_shares,
            ignored=self.ignored,
        )

    def asked_within(self, field: str, refuse: Refuse = OutOfRange) -> Asked:
        """What is asked for where the person stands in a field. Raises what `refuse` makes."""
        try:
            return self.asked()
        except OutOfRange as error:
            raise refuse(f"{field}.{error.field}", f"{field}: {error}") from None


def read_asked(given: object) -> Asked:
    """Raises OutOfRange naming the field that is missing, of the wrong kind, or not possible."""
    return decoded(PersonGiven, given, OutOfRange).asked()
