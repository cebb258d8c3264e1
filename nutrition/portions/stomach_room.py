"""What the meals of somebody with a small stomach may take."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from nutrition.composition.food_classes import classes_of
from nutrition.composition.portion import Portion
from nutrition.portions.problem import Room
from nutrition.targets.day import DayTargets
from nutrition.targets.gastric import stomach_ml


def is_drunk(portion: Portion) -> bool:
    """Whether it is a drink, which is taken apart from the meal."""
    return portion.food is not None and "drinks" in classes_of(portion.food)


def rooms_of(day: DayTargets, meals: Iterable[Sequence[Portion]]) -> tuple[Room, ...]:
    """The room that each of these meals has, drinks apart; none for a stomach of the usual size."""
    ml = stomach_ml(day.person.conditions, day.person.surgery_months)
    if ml is None:
        return ()
    eaten = (frozenset(one.key for one in meal if not is_drunk(one)) for meal in meals)
    return tuple(Room(ids, ml) for ids in eaten if ids)
