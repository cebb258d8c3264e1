"""Where one number of a command's answer comes from, as plain data."""

from __future__ import annotations

from collections.abc import Mapping

from nutrition.composition.amounts import DENSITY
from nutrition.composition.foods import Food
from nutrition.composition.profile import Profile
from nutrition.insight.derivation import as_data, of_dish, of_food
from nutrition.portions.problem import Problem
from nutrition.requests.day import DayAnswer


def of_answer(problem: Problem, portions: Mapping[str, float], key: str) -> dict[str, object]:
    """A total of a balance problem with these portions, by key [g]; what is eaten besides is told
    as a number alone. Raises KeyError for a key that nothing is reckoned of."""
    eaten = [part.times(part.share(portions.get(part.key, part.grams))) for part in problem.parts]
    whole = of_dish("the portions", Profile.total(one.profile for one in eaten), eaten, key)
    out = as_data(whole)
    besides = 0.0 if key == DENSITY else problem.base.get(key, 0.0)
    return out | ({"besides": besides} if besides else {})


def of_row(food: Food, key: str) -> dict[str, object]:
    """A number of a food, per 100 g."""
    return as_data(of_food(food, 100.0, key))


def of_target(answer: DayAnswer, key: str) -> dict[str, object]:
    """A target as a day's report tells it, with what disagrees. Raises KeyError where the day has
    no such target."""
    against = [one.data() for one in answer.disagreements if one.key == key]
    return {"target": answer.targets[key].data(), "disagreements": against}
