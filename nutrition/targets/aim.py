"""A target as portions are held against it: its bounds, its weight, and which of
its bounds are never broken."""

from __future__ import annotations

from dataclasses import dataclass, replace

from nutrition.targets.voices import ORDER, Target

# A limit counts as kept when it is missed by less than this share of its aim.
SLACK = 1e-7


@dataclass(frozen=True, kw_only=True)
class Aim:
    """A target: `low` and `high` bound it (None: open), a firm one is never broken, and `ordered`
    says that a clinician's order set one. `of_day`: what the rest of the day brings counts toward
    it. In the key's unit."""

    key: str
    low: float | None
    aim: float
    high: float | None
    weight: float = 1.0
    firm_low: bool = False
    firm_high: bool = False
    ordered: bool = False
    of_day: bool = False

    @classmethod
    def of(cls, target: Target, weight: float) -> Aim:
        """A target, of a day or scaled to a meal, with what it weighs. Its bounds are as firm as
        whoever set them makes them."""
        return cls(
            key=target.key,
            low=target.low,
            aim=target.aim,
            high=target.high,
            weight=weight,
            firm_low=target.firm_low,
            firm_high=target.firm_high,
            ordered=target.rank == ORDER,
        )

    @property
    def firm(self) -> bool:
        """Whether one of its bounds is never broken."""
        return self.firm_low or self.firm_high

    def softened(self, weight: float | None = None) -> Aim:
        """The same with bounds that may be missed, and another weight if one is given."""
        return replace(
            self,
            firm_low=False,
            firm_high=False,
            weight=self.weight if weight is None else weight,
        )

    @property
    def per(self) -> float:
        """What a miss is divided by: the aim, or, where that is zero, the wider bound, or 1."""
        return abs(self.aim) or max(abs(self.low or 0.0), abs(self.high or 0.0)) or 1.0

    def miss(self, total: float, at_most: float | None = None) -> float:
        """By how much a total is under the least (below zero) or over the most (above zero). In the
        key's unit.

        `at_most` is the total with what is unknown at its largest: for a most it counts, for a
        least it does not.
        """
        most = total if at_most is None else at_most
        if self.high is not None and most > self.high + SLACK * self.per:
            return most - self.high
        if self.low is not None and total < self.low - SLACK * self.per:
            return total - self.low
        return 0.0

    def missed(self, total: float, at_most: float | None = None) -> float:
        """What is short of the least and what is beyond the most, together. In the key's unit."""
        most = total if at_most is None else at_most
        over = (
            most - self.high
            if self.high is not None and most > self.high + SLACK * self.per
            else 0.0
        )
        return over + (
            self.low - total
            if self.low is not None and total < self.low - SLACK * self.per
            else 0.0
        )
