"""How much of a day has something in it."""

from __future__ import annotations

from clients.plan.in_force import Plan
from nutrition.targets.meals import Filled, filled_share
from planner.day import ReckonedDay


def filled(day: ReckonedDay, plan: Plan) -> Filled:
    """The share of the day that the meals with something in them are."""
    assert plan.day is not None
    full = {
        meal.key for meal in day.meals if any(entry.profile.grams > 0 for entry in meal.entries)
    }
    return filled_share(plan.day.meals, full)
