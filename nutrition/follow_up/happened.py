"""What happened when: marks on the line of weight, and what of it holds water for a while."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta


@dataclass(frozen=True)
class Kind:
    """A kind of happening: what it is called, how much water it may hold or lose [kg], and for how
    long after it [d]. Common practice, no source, for both."""

    name: str
    water_kg: float = 0.0
    days: int = 0


KINDS = {
    "holiday": Kind("holiday or feast", 0.5, 5),
    "illness": Kind("illness", 1.0, 14),
    "salt": Kind("salty days", 1.0, 5),
    "exercise": Kind("new exercise", 1.0, 28),
    "cycle": Kind("before the period", 1.0, 6),
    "medicine": Kind("new medicine or dose", 1.5, 28),
    "scale": Kind("another scale"),
    "hour": Kind("weighed at another hour"),
    "travel": Kind("travel", 0.5, 5),
    "stress": Kind("a hard time", 0.0, 0),
    "other": Kind("something else"),
}


@dataclass(frozen=True)
class Happened:
    """Something that happened to the client, from a day on, to another if it lasted."""

    kind: str
    start: date
    end: date
    words: str = ""

    def __post_init__(self) -> None:
        if self.kind not in KINDS:
            raise ValueError(f"no such happening: {self.kind}")

    @property
    def name(self) -> str:
        return KINDS[self.kind].name

    def holds_water_on(self, on: date) -> bool:
        """Whether it may still hold water on a day."""
        kind = KINDS[self.kind]
        return kind.water_kg > 0 and self.start <= on <= self.end + timedelta(days=kind.days)
