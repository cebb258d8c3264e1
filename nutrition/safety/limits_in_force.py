"""What is in force is watched, whether or not anybody looks at it: orders, the limits of
conditions, and upper levels, against what a day, a dish or the tablets bring."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass

from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import NUTRIENT
from nutrition.safety.contributions import brought_by, most_of_it
from nutrition.safety.upper_levels import UpperLevel, upper_levels
from nutrition.targets.day import DayTargets
from nutrition.targets.voices import ORDER, Target
from nutrition.written.wording import uncapitalized

# Passed by so much of it an order is far beyond what was meant; passed by no more than so much a
# condition's limit is a matter of the scale. Common practice, no source. [share of it]
FAR, NEARLY = 1.5, 1.1
# Water is limited as what is drunk: that of solid food stands beside it.
FLUID = "water_g"
# An amount that weighs more when it is passed: the heart stops without a sign.
GRAVE = ("potassium_mg",)
# What a condition says of the day's energy is no danger of its own.
NOT_WATCHED = ("energy_kcal",)
# Whose age is not known is taken for an adult. [years]
ADULT_YEARS = 40.0
STOP, CAUTION, NOTE = "stop and ask", "caution", "note"


@dataclass(frozen=True, kw_only=True)
class Limit:
    """A bound in force: its nutrient, the most and the least of a day, whose it is, and whether an
    order set it. In the key's unit."""

    key: str
    most: float | None
    least: float | None
    whose: str
    ordered: bool
    why: str
    source: str


@dataclass(frozen=True, kw_only=True)
class Passed:
    """A bound that is passed, as a caution says it."""

    code: str
    level: str
    text: str
    why: str
    refer_to: str
    source: str
    because: str
    names: tuple[str, ...]


def limits_of(day: DayTargets) -> tuple[Limit, ...]:
    """The orders and the limits of conditions among the targets in force."""
    return tuple(
        found
        for key, target in day.targets.items()
        if key in NUTRIENT and (found := _limit(target)) is not None
    )


def _limit(target: Target) -> Limit | None:
    ordered = target.rank == ORDER
    by_condition = target.firm_high and target.key not in NOT_WATCHED
    most = target.high if (ordered and target.high_by.rank == ORDER) or by_condition else None
    least = target.low if target.firm_low else None
    if most is None and least is None:
        return None
    by = target.high_by if most is not None else target.low_by
    return Limit(
        key=target.key,
        most=most,
        least=least,
        whose=by.name,
        ordered=by.rank == ORDER,
        why=target.reason or "It is what was ordered.",
        source=target.source,
    )


def passed_limits(
    limits: Sequence[Limit],
    numbers: Mapping[str, float],
    foods: Sequence[Ingredient] | None,
    said: Collection[str],
) -> Iterator[Passed]:
    """The limits that a day passes, or foods alone where no day is looked at; what a rule of its
    own has `said` already, by nutrient, is left to it."""
    whole_day = numbers.get("whole_day", 0.0) > 0
    for one in limits:
        if one.key in said:
            continue
        amount = _amount(one.key, numbers, foods, whole_day)
        if amount is None:
            continue
        if one.most is not None and amount > one.most * (1 + 1e-9):
            names = () if whole_day else tuple(most_of_it(one.key, foods or ()))
            yield _over(one, amount, "The day has" if whole_day else "This alone has", names)
        every_meal = numbers.get("day_meals", 0.0) >= numbers.get("meals", 1.0)
        if one.least is not None and whole_day and every_meal and amount < one.least * (1 - 1e-9):
            yield _under(one, amount)


def _amount(
    key: str,
    numbers: Mapping[str, float],
    foods: Sequence[Ingredient] | None,
    whole_day: bool,
) -> float | None:
    if whole_day:
        return numbers.get("day_fluid_ml" if key == FLUID else f"day_{key}")
    if foods is None:
        return None
    if key == FLUID:
        return numbers.get("fluid_ml")
    return sum(brought_by(part, key) for part in foods)


def _figure(key: str, value: float) -> str:
    if key == FLUID:
        return f"{value:,.0f} mL of fluid (drinks, soup, ice and the like)"
    nutrient = NUTRIENT[key]
    decimals = nutrient.decimals if value < 10 else 0
    return f"{value:,.{decimals}f} {nutrient.unit} of {uncapitalized(nutrient.name)}"


def _bound(key: str, value: float) -> str:
    unit = "mL" if key == FLUID else NUTRIENT[key].unit
    return f"{value:,.{0 if value >= 10 else 1}f} {unit}"


def _over(one: Limit, amount: float, begins: str, names: tuple[str, ...]) -> Passed:
    most = one.most or 0.0
    far = amount > FAR * most
    if one.ordered:
        level = STOP if far or one.key in GRAVE else CAUTION
    else:
        level = NOTE if amount <= NEARLY * most else CAUTION
    whose = "is the most by" if one.ordered else "is the most with"
    beside = " Water in solid food is not counted in it." if one.key == FLUID else ""
    return Passed(
        code=f"over_{one.key}",
        level=level,
        text=f"{begins} {_figure(one.key, amount)}; {_bound(one.key, most)} {whose} "
        f"{one.whose}.{beside}",
        why=one.why,
        refer_to="the clinician who gave the order" if one.ordered else "the treating clinician",
        source=one.source,
        because=_figure(one.key, amount),
        names=names,
    )


def _under(one: Limit, amount: float) -> Passed:
    least = one.least or 0.0
    return Passed(
        code=f"under_{one.key}",
        level=CAUTION,
        text=f"All meals are planned, and the day has {_figure(one.key, amount)}; "
        f"{_bound(one.key, least)} is the least by {one.whose}.",
        why=one.why,
        refer_to="the clinician who gave the order",
        source=one.source,
        because=_figure(one.key, amount),
        names=(),
    )


def passed_uppers(
    life_stage: str,
    have: Collection[str],
    numbers: Mapping[str, float],
    said: Collection[str],
) -> Iterator[Passed]:
    """The upper levels that tablets pass, or a day with its tablets."""
    age = numbers.get("age_years", ADULT_YEARS)
    for key, row in upper_levels().items():
        most, taken = row.most_for(age, life_stage), numbers.get(f"tablet_{key}", 0.0)
        whole = numbers.get(f"day_{key}", 0.0) if row.of_all else 0.0
        if taken > most * (1 + 1e-9) and row.holds_for(have):
            grave = row.stop_from is not None and taken >= row.stop_from
            yield _upper(row, "Tablets bring", taken, most, STOP if grave else CAUTION, "tablet")
        elif whole > most * (1 + 1e-9) and key not in said:
            yield _upper(row, "The day has", whole, most, CAUTION, "day")


def _upper(
    row: UpperLevel, begins: str, amount: float, most: float, level: str, what: str
) -> Passed:
    much = " a day" if what == "tablet" else ""
    return Passed(
        code=f"{what}_upper_{row.key}",
        level=level,
        text=f"{begins} {_figure(row.key, amount)}{much}, over the upper level of "
        f"{_bound(row.key, most)}.",
        why=row.why,
        refer_to=row.refer_to,
        source=row.source,
        because=_figure(row.key, amount),
        names=(),
    )
