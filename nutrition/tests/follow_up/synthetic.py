"""Made weigh-ins whose truth is known: a line that may turn, what mornings differ by, water, a
weekly rhythm, a cheap scale, gaps, odd mornings."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

from nutrition.follow_up.weigh_in import Weighed

START = date(2025, 3, 3)


@dataclass(frozen=True)
class Made:
    """Weigh-ins, the true weight of each day from the first on [kg], and the day it stopped falling
    on, if it did."""

    weighed: list[Weighed]
    truth: list[float]
    pace: float
    stopped: date | None

    @property
    def today(self) -> date:
        return START + timedelta(days=len(self.truth) - 1)

    def true_pace(self, days: int) -> float:
        """What the pace over the last days was. [kg/week]"""
        return (self.truth[-1] - self.truth[-1 - days]) / days * 7.0


def made(seed: int, kind: str, days: int = 98, pace: float | None = None) -> Made:
    """One series. `kind`: "plain", "gaps", "odd", "water" or "plateau"."""
    chance = np.random.default_rng(seed)
    pace = float(-chance.uniform(0.3, 0.9)) if pace is None else pace
    step, noise = int(chance.choice([1, 2, 3])), float(chance.uniform(0.15, 0.55))
    water, fades = float(chance.uniform(0.0, 0.5)), float(chance.uniform(2.0, 6.0))
    rhythm, cheap = float(chance.uniform(0.0, 0.4)), bool(chance.random() < 0.2)
    stops = days - int(chance.integers(30, 43)) if kind == "plateau" else None
    begins = int(days * chance.uniform(0.3, 0.6))
    kg, held, truth, rows = float(chance.uniform(72, 115)), 0.0, [], []
    for day in range(days + 1):
        truth.append(kg)
        keeps = np.exp(-1.0 / fades)
        held = keeps * held + water * np.sqrt(1 - keeps * keeps) * chance.normal()
        more = held + noise * chance.normal() + (rhythm if day % 7 in (5, 6) else 0.0)
        if kind == "odd" and chance.random() < 0.07:
            more += float(chance.choice([-1, 1]) * chance.uniform(2.0, 5.0))
        if kind == "water" and days - 11 < day < days - 1:
            more += 1.2 * (1.0 - abs(day - (days - 6)) / 5.0)
        left_out = kind == "gaps" and (begins <= day < begins + 14 or chance.random() < 0.3)
        if day == days or (day % step == 0 and not left_out):
            shown = round((kg + more) * 2) / 2 if cheap else round(kg + more, 1)
            rows.append(Weighed(START + timedelta(days=day), shown))
        kg += (0.0 if stops is not None and day >= stops else pace) / 7.0
    stopped = START + timedelta(days=stops) if stops is not None else None
    return Made(rows, truth, pace, stopped)
