"""A bowl built on a scale: what was taken against what was planned."""

from __future__ import annotations

from dataclasses import dataclass

# So far from the plan is worth a word: so many grams, and so much of it. Common practice, no
# source. [g], [share]
WORTH_G, WORTH_SHARE = 5.0, 0.10


@dataclass(frozen=True, kw_only=True)
class Taken:
    """What was taken of a part and what was planned. [g]"""

    name: str
    planned_g: float
    taken_g: float

    @property
    def over_g(self) -> float:
        return self.taken_g - self.planned_g

    @property
    def differs(self) -> bool:
        """Whether it is far enough from the plan to be worth a word."""
        return abs(self.over_g) >= max(WORTH_G, WORTH_SHARE * self.planned_g) - 1e-9

    @property
    def words(self) -> str:
        """ "8 g more walnuts than planned" """
        more = "more" if self.over_g > 0 else "less"
        return f"{abs(self.over_g):.0f} g {more} {self.name.lower()} than planned"
