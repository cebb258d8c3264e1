"""What the page of each day of a planned week would warn of, and what is behind it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from nutrition.planning.bounds import meals_on
from nutrition.planning.week import Choice, Meals, Planned, Week

# What a page says of a day that is too small it does not say of one so many times as large.
MANY_TIMES = 8

_Key = frozenset[tuple[str, str, float]]


class Warnings:
    """What the pages of days would warn of; days that are alike are looked at once."""

    def __init__(self, week: Week) -> None:
        self.week = week
        self.known: dict[_Key, Mapping[str, str]] = {}

    def _on(self, meals: Meals) -> Mapping[str, str]:
        counts: dict[tuple[str, str], float] = {}
        for meal, some in meals.items():
            for one, count in some:
                counts[meal, one.key] = counts.get((meal, one.key), 0.0) + count
        key = frozenset((meal, name, count) for (meal, name), count in counts.items())
        if key not in self.known:
            self.known[key] = self.week.check(meals)
        return self.known[key]

    def on(self, planned: Planned, day: int) -> Mapping[str, str]:
        """What the page of a day would warn of, by code."""
        return self._on(meals_on(self.week, planned, day))

    def of(self, planned: Planned) -> list[int]:
        """The days that would be warned of, but for what is pinned alone."""
        return [day for day in self.week.planned_days if self._own(planned, day)]

    def _own(self, planned: Planned, day: int) -> list[str]:
        """What a day is warned of that is not what is pinned alone."""
        said = self.on(planned, day)
        pinned = {slot.key: slot.placed for slot in self.week.slots_of(day) if slot.pinned}
        by_pins = self.on(pinned, day) if said and any(pinned.values()) else {}
        return [code for code in said if code not in by_pins]

    def _too_little(self, planned: Planned, day: int) -> set[str]:
        """What would not be said of many times as much: too little is the matter there."""
        more = {
            key: Choice(candidate=one.candidate, count=MANY_TIMES * one.count) if one else None
            for key, one in planned.items()
        }
        return set(self.on(planned, day)) - set(self.on(more, day))

    def too_much(self, planned: Planned, day: int) -> list[str]:
        """What a day is warned of that taking something away can mend."""
        return [
            code for code in self._own(planned, day) if code not in self._too_little(planned, day)
        ]

    def cause(self, planned: Planned, day: int) -> dict[str, float]:
        """The fewest things of a day that its page warns of together, each with the servings from
        which on; all of them, in any servings, where too little is the matter."""
        here = {slot.key: planned.get(slot.key) for slot in self.week.slots_of(day)}
        code = next(iter(self.too_much(planned, day)), None)
        for key in list(here) if code is not None else ():
            fewer = {**here, key: None}
            if code in self.on(fewer, day):
                here = fewer
        out: dict[str, float] = {}
        for choice in here.values():
            if choice is not None:
                count = choice.count if code is not None else 0.0
                out[choice.candidate] = min(count, out.get(choice.candidate, count))
        return out


def warnings_of(week: Week, planned: Planned) -> dict[int, Sequence[str]]:
    """What the page of each day would warn of, in words, by day."""
    found = {day: week.check(meals_on(week, planned, day)) for day in week.planned_days}
    return {day: list(said.values()) for day, said in found.items() if said}
