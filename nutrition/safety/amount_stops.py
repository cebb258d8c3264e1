"""From how much of a nutrient on, in what is looked at together, a person is stopped: what a plan
keeps under before anybody is asked."""

from __future__ import annotations

from nutrition.safety.caution_rules import LEVELS
from nutrition.safety.cautions import Situation, rules_for
from nutrition.safety.known_numbers import numbers_at_hand

IN_THE_FOOD = "food_"


def stops_by_amount(situation: Situation) -> dict[str, float]:
    """The most of each nutrient that no rule stops for this person, by key, where a rule stops from
    an amount on and asks nothing else of the food. In each key's unit."""
    out: dict[str, float] = {}
    numbers = numbers_at_hand(situation.conditions, situation.allergies, situation.numbers, None)
    for rule in rules_for(situation):
        if rule.level != LEVELS[0] or not rule.names_no_food:
            continue
        of_food = [one for one in rule.number if one.left.startswith(IN_THE_FOOD)]
        others = [one for one in rule.number if one not in of_food]
        if len(of_food) != 1 or of_food[0].sign != ">" or not of_food[0].fixed:
            continue
        if all(one.holds(numbers) for one in others):
            key = of_food[0].left.removeprefix(IN_THE_FOOD)
            out[key] = min(float(of_food[0].right), out.get(key, float("inf")))
    return out
