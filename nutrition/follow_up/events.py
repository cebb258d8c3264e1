"""What happened when: marks on the line of weight, and what of it holds water for a while."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta


@dataclass(frozen=True)
class Kind:
    """A kind of happening: what it is called, how much water it may hold or lose [kg], for how long
    after it [d], and what that means for the scale. Common practice, no source, for both."""

    name: str
    water_kg: float = 0.0
    days: int = 0
    does: str = ""

    @property
    def words(self) -> str:
        """ "creatine: about 1.5 kg of water in the muscles; looked past for 28 days after it" """
        parts = [self.does] if self.does else []
        if self.water_kg:
            parts.append(f"about {self.water_kg:g} kg, for up to {self.days} days after it")
        return f"{self.name}: {'; '.join(parts)}" if parts else self.name


KINDS = {
    "holiday": Kind("holiday or feast", 0.5, 5),
    "illness": Kind("illness", 1.0, 14),
    "salt": Kind("salty days", 1.0, 5),
    "exercise": Kind("new exercise", 1.0, 28, "sore muscles hold water"),
    "creatine": Kind("creatine", 1.5, 28, "it holds water in the muscles while it is taken"),
    "cycle": Kind("before the period", 1.0, 6, "water comes before it and goes with it"),
    "medicine": Kind("new medicine or dose", 1.5, 28),
    "steroids": Kind(
        "cortisone or another steroid", 2.0, 21, "it holds salt and water, and makes hungry"
    ),
    "bowels": Kind("constipation", 1.0, 7, "what stays in the bowel is weighed"),
    "scale": Kind("another scale", 0.0, 0, "two scales differ by up to a kilogram"),
    "hour": Kind("weighed at another hour", 0.0, 0, "evenings weigh up to a kilogram more"),
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

    @property
    def told(self) -> str:
        """What it is, what it does to the scale, and for how long."""
        return KINDS[self.kind].words

    def holds_water_on(self, on: date) -> bool:
        """Whether it may still hold water on a day."""
        kind = KINDS[self.kind]
        return kind.water_kg > 0 and self.start <= on <= self.end + timedelta(days=kind.days)
