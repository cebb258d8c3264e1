"""A batch: one cooking of a recipe, made for the servings that a week needs, put into containers of
a stated size, each with its label."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from nutrition.composition.profile import Profile
from nutrition.prep.keeping import Keeping
from nutrition.recipe.reckoning import Facts
from nutrition.recipe.scaling import LEAST, MOST, Scaled, scale

# A container is not filled to the brim. Common practice, no source. [share]
FILLED = 0.9
# ... and one that is frozen leaves room to swell. Common practice, no source. [share]
FILLED_FROZEN = 0.85
# A container of half a liter and a little: a lunch. Common practice, no source. [mL]
USUAL_CONTAINER_ML = 600.0
# What is left of a serving after dividing that is nobody's. [share of a serving]
CRUMB = 0.01


@dataclass(frozen=True, kw_only=True)
class Container:
    """One container of a batch: so many servings, grams [g] and milliliters [mL]; on which day it
    is eaten (None for what is left over), whether it is frozen, and the last day to eat it."""

    servings: float
    grams: float
    volume_ml: float
    eaten_on: date | None
    frozen: bool
    eat_by: date
    whose: str = ""


@dataclass(frozen=True, kw_only=True)
class Label:
    """What stands on a container: the dish, when it was cooked, the last day to eat it, its weight,
    the numbers that matter, and how it is eaten. [g]"""

    dish: str
    cooked: date
    eat_by: date
    frozen: bool
    grams: float
    numbers: tuple[tuple[str, float], ...]
    serve: str
    thaw: date | None = None
    whose: str = ""


# What several eat at home from one container holds so much. Common practice, no source. [mL]
SHARED_ML = 2000.0


@dataclass(frozen=True, kw_only=True)
class MealEaten:
    """What is eaten of a batch at a meal: on which day, how many servings by whom, and whether it
    is packed: then each has a container of their own."""

    on: date
    people: Mapping[str, float]
    packed: bool = False

    @property
    def parts(self) -> list[tuple[str, float]]:
        """Who shares a container, and how many servings: at home all who eat together."""
        if self.packed or len(self.people) < 2:
            return list(self.people.items())
        return [(", ".join(self.people), sum(self.people.values()))]


def portioned(
    servings: float,
    serving_g: float,
    serving_ml: float,
    cooked: date,
    keeping: Keeping,
    eaten: Sequence[MealEaten],
    container_ml: float,
    freeze_first: int = 0,
) -> list[Container]:
    """The containers of a batch: a packed meal of one person in each, a meal at home in one for all
    who eat it, or in as many as it needs; what is left over at the end. [g], [mL]

    What is eaten after it keeps is frozen, and so are the `freeze_first` last ones, where the cook
    wants more of it frozen. Raises ValueError for a day after it keeps where the dish does not
    freeze, or for a container of no size.
    """
    if not container_ml > 0:
        raise ValueError("a container holds more than nothing")
    last = cooked + timedelta(days=keeping.days)
    out: list[Container] = []
    for meal in eaten:
        day, late = meal.on, meal.on > last
        if late and not keeping.freezes:
            raise ValueError(
                f"it keeps until {last:%A} and does not freeze: {day:%A} is too late for it"
            )
        alone = meal.packed or len(meal.people) < 2
        holds = container_ml if alone else max(container_ml, SHARED_ML)
        for whose, share in meal.parts:
            out += _filled(share, serving_g, serving_ml, day, late, cooked, keeping, holds, whose)
    for at in range(len(out) - min(freeze_first, len(out)), len(out)):
        if keeping.freezes:
            out[at] = _frozen(out[at], cooked, keeping)
    rest = servings - sum(one.servings for one in out)
    if rest > CRUMB:
        out += _filled(
            rest, serving_g, serving_ml, None, keeping.freezes, cooked, keeping, container_ml, ""
        )
    return out


def _filled(
    share: float,
    serving_g: float,
    serving_ml: float,
    day: date | None,
    frozen: bool,
    cooked: date,
    keeping: Keeping,
    container_ml: float,
    whose: str,
) -> list[Container]:
    """So much of it in as few containers as hold it, all filled alike."""
    room = container_ml * (FILLED_FROZEN if frozen else FILLED)
    count = max(math.ceil(share * serving_ml / room - 1e-6), 1)
    one = Container(
        servings=share / count,
        grams=share * serving_g / count,
        volume_ml=share * serving_ml / count,
        eaten_on=day,
        frozen=frozen,
        eat_by=_eat_by(cooked, keeping, frozen),
        whose=whose,
    )
    return [one] * count


def _frozen(one: Container, cooked: date, keeping: Keeping) -> Container:
    return Container(
        servings=one.servings,
        grams=one.grams,
        volume_ml=one.volume_ml,
        eaten_on=one.eaten_on,
        frozen=True,
        eat_by=_eat_by(cooked, keeping, True),
        whose=one.whose,
    )


def _eat_by(cooked: date, keeping: Keeping, frozen: bool) -> date:
    days = 30 * keeping.frozen_months if frozen else keeping.days
    return cooked + timedelta(days=days)


def label_of(
    dish: str,
    cooked: date,
    container: Container,
    per_gram: Profile,
    keys: Sequence[str],
    keeping: Keeping,
) -> Label:
    """The label of a container; `per_gram` is what a gram of the dish brings, `keys` the numbers
    that stand on it. What is frozen is thawed in the refrigerator the night before."""
    eaten = container.eaten_on
    return Label(
        dish=dish,
        cooked=cooked,
        eat_by=container.eat_by,
        frozen=container.frozen,
        grams=container.grams,
        numbers=tuple((key, per_gram[key].amount * container.grams) for key in keys),
        serve="good cold" if keeping.cold else "reheat until it steams all through",
        thaw=eaten - timedelta(days=1) if container.frozen and eaten else None,
        whose=container.whose,
    )


def batch_for(facts: Facts, servings: float) -> Scaled:
    """The recipe made for so many servings, in measures that a cook uses, with what the rounding
    does. Raises ValueError for a pot that no kitchen makes."""
    factor = servings / facts.recipe.servings
    if not LEAST <= factor <= MOST:
        raise ValueError(f"{factor:.2g} times the recipe is outside {LEAST:g} to {MOST:g}")
    return scale(facts, factor, servings)
