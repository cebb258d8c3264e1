"""The targets that a day is held against."""

from __future__ import annotations

from clients.plan.in_force import Plan, plan_of
from planner.models import Day


def plan_for(day: Day) -> Plan:
    """The targets the day was planned for."""
    return plan_of(day.client, day.made_for, day.date)
