"""What in a record is no success and belongs to the cautions: a loss too fast, a weight that is too
low, and logging that looks like a struggle with eating."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, timedelta

from nutrition.follow_up.intake import LoggedDay, whole_days
from nutrition.targets import energy
from nutrition.targets.person import Person

# A whole day under this share of resting energy is very little; one over this share of the need
# after one or before it swings. Common practice, no source.
VERY_LITTLE, VERY_MUCH = 0.6, 1.8
LOOKED_BACK_DAYS = 21


def record_numbers(person: Person, logged: Sequence[LoggedDay], today: date) -> dict[str, float]:
    """What the cautions look at in what was logged lately: days of very little, and swings between
    very little and very much."""
    since = today - timedelta(days=LOOKED_BACK_DAYS)
    days = [day for day in whole_days(logged) if day.on >= since]
    if not days:
        return {}
    resting = energy.mifflin_st_jeor(
        person.sex, person.weight_kg, person.height_cm, person.age_years
    )
    little = [day.on for day in days if day.kcal < VERY_LITTLE * resting]
    much = [
        day.on
        for day in days
        if day.kcal > VERY_MUCH * resting * energy.ACTIVITY_FACTOR[person.activity]
    ]
    swings = sum(1 for on in much if any(abs((on - other).days) <= 2 for other in little))
    return {
        "logged_days": float(len(days)),
        "logged_very_little": float(len(little)),
        "logged_swings": float(swings),
        "logged_least_kcal": min(day.kcal for day in days),
    }
