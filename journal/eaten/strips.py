"""The last days in a row: what is known of each."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from clients.models import Client
from nutrition.composition.profile import Amount
from nutrition.follow_up.intake import LoggedDay as Known

WHOLE, PART, NOTHING = "logged", "in part", "not logged"


@dataclass(frozen=True)
class DayBack:
    """A day: what is known of it, its energy where all of it is, and whether it was planned."""

    on: date
    state: str
    kcal: Amount | None
    planned: bool


def days_back(client: Client, today: date, days: int, logged: Sequence[Known]) -> list[DayBack]:
    """The last days, the newest first. One that nobody logged is unknown."""
    known = {day.on: day for day in logged}
    since = today - timedelta(days=days - 1)
    planned = set(client.days.filter(date__range=(since, today)).values_list("date", flat=True))
    out = []
    for ago in range(days):
        on = today - timedelta(days=ago)
        day = known.get(on)
        state = NOTHING if day is None or not (day.eaten or day.whole) else PART
        state = WHOLE if day is not None and day.whole else state
        kcal = day.profile["energy_kcal"] if day is not None and state != NOTHING else None
        out.append(DayBack(on, state, kcal, on in planned))
    return out
