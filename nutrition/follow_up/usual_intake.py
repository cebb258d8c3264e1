"""What a client eats as a rule of something that a medicine is set to."""

from __future__ import annotations

from collections.abc import Sequence

from nutrition.composition.amounts import amount_of
from nutrition.follow_up.intake import LoggedDay, whole_days

# The habit is the mean of so many days back, where at least so many of them were logged whole.
# Common practice, no source. [d]
HABIT_DAYS, LEAST_LOGGED = 14, 3
WATCHED_WITH = {"warfarin": "vitamin_k_ug"}


def habit_numbers(days: Sequence[LoggedDay]) -> dict[str, float]:
    """What a day brings as a rule of what medicines are set to, by the cautions' names; nothing
    where too few whole days were logged. [the key's unit per day]"""
    whole = whole_days(days)
    if len(whole) < LEAST_LOGGED:
        return {}
    out = {}
    for key in WATCHED_WITH.values():
        mean = sum(amount_of(day.profile, key).amount for day in whole) / len(whole)
        name, _line, unit = key.rpartition("_")
        out[f"{name}_habit_{unit}"] = mean
    return out
