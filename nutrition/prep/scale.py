"""A scale as it behaves: it settles, drifts, is set to zero, and says when too much lies on it. For
the simulated one that ships, and for what a reading means."""

from __future__ import annotations

import random
from collections import deque
from dataclasses import dataclass

# How long a reading takes to come within a third of what is there, and how many readings of how
# far apart within one step of the display make it steady. Common practice, no source. [s]
SETTLES_S, STEADY_READINGS, READ_EVERY_S = 0.25, 5, 0.1


@dataclass(frozen=True, kw_only=True)
class ScaleKind:
    """What a scale can: its name, the most that may lie on it, the step of its display, how far its
    readings scatter [g], and how far it drifts. [g/min]"""

    name: str
    capacity_g: float
    step_g: float
    noise_g: float
    drift_g_per_min: float


KITCHEN = ScaleKind(
    name="simulated kitchen scale", capacity_g=5000.0, step_g=1.0, noise_g=0.3, drift_g_per_min=0.6
)
BODY = ScaleKind(
    name="simulated body scale",
    capacity_g=180_000.0,
    step_g=100.0,
    noise_g=30.0,
    drift_g_per_min=0.0,
)


@dataclass(frozen=True)
class Reading:
    """What a scale shows [g], whether it is steady, and whether too much lies on it; then the
    weight is not known."""

    grams: float
    stable: bool
    overload: bool


class SimulatedScale:
    """A scale that is read at moments of its own clock. [s] The same seed gives the same
    readings."""

    def __init__(self, kind: ScaleKind = KITCHEN, seed: int = 1) -> None:
        self.kind = kind
        self._random = random.Random(seed)  # noqa: S311  it is no secret
        self._load = 0.0
        self._felt = 0.0
        self._zero = 0.0
        self._at = 0.0
        self._last: deque[float] = deque(maxlen=STEADY_READINGS)

    def put(self, grams: float) -> None:
        """So much more lies on it, or less; never less than nothing. [g]"""
        self._load = max(self._load + grams, 0.0)

    def lay(self, grams: float) -> None:
        """So much lies on it in all. [g]"""
        self._load = max(grams, 0.0)

    def tare(self) -> None:
        """What lies on it now is nothing."""
        self._zero = self._shown()
        self._last.clear()

    def read(self, at: float) -> Reading:
        """What it shows at a moment, not before the last one. [s]"""
        passed = max(at - self._at, 0.0)
        self._at = at
        share = 1.0 - 0.33 ** (passed / SETTLES_S)
        self._felt += (self._load - self._felt) * share
        if self._load > self.kind.capacity_g:
            self._last.clear()
            return Reading(0.0, False, True)
        scatter = self._random.uniform(-self.kind.noise_g, self.kind.noise_g)
        shown = self._stepped(self._shown() - self._zero + scatter)
        self._last.append(shown)
        steady = len(self._last) == STEADY_READINGS
        steady = steady and max(self._last) - min(self._last) <= self.kind.step_g
        return Reading(shown, steady, False)

    def _shown(self) -> float:
        return self._felt + self.kind.drift_g_per_min * self._at / 60.0

    def _stepped(self, grams: float) -> float:
        step = self.kind.step_g
        return round(grams / step) * step


@dataclass(frozen=True)
class Act:
    """A line of a script: at which moment [s] what is done, with how much. [g]"""

    at: float
    do: str
    grams: float = 0.0


ACTS = ("put", "lay", "tare", "lose", "back")


def script_in(text: str) -> list[Act]:
    """A script, a line each: "1.5 put 120", "3 tare", "8 lose", "10 back". Raises ValueError naming
    the line."""
    out = []
    for number, line in enumerate(text.splitlines(), 1):
        words = line.partition("#")[0].split()
        if not words:
            continue
        try:
            act = Act(float(words[0]), words[1], float(words[2]) if len(words) > 2 else 0.0)
        except (ValueError, IndexError):
            raise ValueError(f"line {number}: “{line.strip()}” is no act: 1.5 put 120") from None
        if act.do not in ACTS:
            raise ValueError(f"line {number}: “{act.do}” is none of {', '.join(ACTS)}")
        out.append(act)
    return sorted(out, key=lambda act: act.at)
