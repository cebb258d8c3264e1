"""How much work an answer may take. Work is counted, not timed, so that the same question has the
same answer on any machine; the clock is the last resort, and an answer that it cut short says so.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from time import perf_counter

# What about a second does on the machine that it was measured on (two cores, 2026): numbers looked
# at while steps are tried, and units of work as CP-SAT counts them.
CELLS_PER_SECOND, UNITS_PER_SECOND = 2e7, 0.12
# The clock stops what takes so many times what it should, and never sooner than this. [s]
LATE, LATE_SECONDS = 8.0, 2.0
LEAST_UNITS = 0.001
# Of the seconds that somebody gives so much is work; the rest is a slower machine's.
FITS_WITHIN = 0.6


@dataclass(kw_only=True)
class Work:
    """Work to be spent, in seconds of the machine that it was measured on. [s]

    `stop` is the moment of the clock at which everything ends; `stopped` says that it came to that.
    """

    size: float
    stop: float
    spent: float = 0.0
    stopped: bool = field(default=False)

    @classmethod
    def of(cls, size: float, seconds: float | None = None) -> Work:
        """Work of a size [s], and the seconds after which the clock stops it. [s]"""
        late = max(size * LATE, LATE_SECONDS) if seconds is None else seconds
        return cls(size=size, stop=perf_counter() + late)

    @classmethod
    def within(cls, seconds: float | None) -> Work | None:
        """Work for who gives the seconds, and so means the clock [s]; None for who gives none."""
        return None if seconds is None else cls.of(seconds * FITS_WITHIN, seconds)

    @property
    def left(self) -> float:
        """What is left to spend. [s]"""
        return max(self.size - self.spent, 0.0)

    def share(self, share: float) -> Work:
        """A part of what is left, under the same clock; settle it with `settle`."""
        return Work(size=self.left * share, stop=self.stop)

    def settle(self, part: Work) -> None:
        """What a part spent is spent here too."""
        self.spent += part.spent
        self.stopped = self.stopped or part.stopped

    def looked_at(self, cells: int) -> bool:
        """Spend so many numbers looked at; whether there is work left."""
        self.spent += cells / CELLS_PER_SECOND
        if perf_counter() > self.stop:
            self.stopped = True
        return self.spent < self.size and not self.stopped

    def solved(self, units: float) -> None:
        """Spend what the solver counted."""
        self.spent += units / UNITS_PER_SECOND

    def units(self) -> float:
        """What is left, as the solver counts it."""
        return max(self.left * UNITS_PER_SECOND, LEAST_UNITS)

    def seconds(self) -> float:
        """What is left of the clock. [s]"""
        return max(self.stop - perf_counter(), 0.005)
