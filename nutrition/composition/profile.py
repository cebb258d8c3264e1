"""Profile: amounts of every nutrient with their ranges, and how much of them is unknown.

The unknown is not zero. Every sum remembers over how many grams, and how many lines, a nutrient's
value is known.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from nutrition.composition.nutrients import KEYS

# From this share on something is as good as wholly known, and from this on mostly. [0 to 1]
WHOLLY, MOSTLY = 0.99, 0.5
# All but a crumb of the weight is known; or what is not could add no more than a crumb. [share]
ALL_BUT_A_CRUMB, CRUMB = 0.995, 0.01


class Known:
    """What says which share of it is known. [0 to 1]"""

    known: float

    @property
    def wholly_known(self) -> bool:
        return self.known >= WHOLLY

    @property
    def mostly_known(self) -> bool:
        return self.known > MOSTLY


Vector = npt.NDArray[np.float64]
INDEX: dict[str, int] = {key: i for i, key in enumerate(KEYS)}


@dataclass(frozen=True, kw_only=True)
class Amount:
    """An amount with its range. `known` is the share of the grams whose value is known [0 to 1].

    Where `known` is below 1, or lines are `missing` (nobody knows what or how much they are), the
    amount is "at least": what is unknown can only add to it, at most `could_add`.
    """

    amount: float
    low: float
    high: float
    known: float
    unknown_lines: int = 0
    lines: int = 0
    missing: int = 0
    could_add: float = math.inf

    @property
    def complete(self) -> bool:
        """Whether nothing worth speaking of is unknown: no line without its grams, and all but a
        crumb is known, or what is not could add no more than a crumb."""
        crumb = self.known > ALL_BUT_A_CRUMB or self.could_add <= CRUMB * self.amount
        return crumb and not self.missing


def _times(could_add: Vector, factor: float) -> Vector:
    """What could be added by so many times as much: what nobody can say stays unsaid, though it is
    taken away."""
    if not factor:
        return np.zeros(len(KEYS))
    return np.where(
        np.isinf(could_add), np.inf, np.where(np.isinf(could_add), 0, could_add) * factor
    )


class Profile:
    """Nutrients of some weight of food. Immutable; profiles add, and scale by a number.

    Ranges of what is added go in quadrature: the errors of two lines are taken as independent.
    """

    __slots__ = (
        "amounts",
        "down2",
        "up2",
        "known_g",
        "known_lines",
        "could_add",
        "grams",
        "grams_down2",
        "grams_up2",
        "lines",
        "missing",
        "drunk_g",
        "drunk_kcal",
    )

    def __init__(
        self,
        amounts: Vector,
        down2: Vector,
        up2: Vector,
        known_g: Vector,
        known_lines: Vector,
        grams: float,
        grams_down2: float,
        grams_up2: float,
        lines: int,
        missing: int = 0,
        could_add: Vector | None = None,
        drunk: tuple[float, float] = (0.0, 0.0),
    ) -> None:
        """`drunk` is what of it is drunk beside the food: its weight and energy. [g], [kcal]"""
        self.could_add = np.zeros(len(KEYS)) if could_add is None else could_add
        self.amounts, self.down2, self.up2 = amounts, down2, up2
        self.known_g, self.known_lines = known_g, known_lines
        self.grams, self.grams_down2, self.grams_up2 = grams, grams_down2, grams_up2
        self.lines, self.missing = lines, missing
        self.drunk_g, self.drunk_kcal = drunk

    @classmethod
    def empty(cls) -> Profile:
        zero = np.zeros(len(KEYS))
        return cls(zero, zero, zero, zero, zero, 0.0, 0.0, 0.0, 0)

    @classmethod
    def unsettled(cls) -> Profile:
        """A line of which neither food nor grams are known: it adds nothing but the knowledge that
        it is there."""
        zero = np.zeros(len(KEYS))
        return cls(zero, zero, zero, zero, zero, 0.0, 0.0, 0.0, 1, 1)

    @classmethod
    def of(
        cls,
        per_100_g: Vector,
        low: Vector,
        high: Vector,
        grams: float,
        grams_low: float,
        grams_high: float,
        upper: Vector | None = None,
    ) -> Profile:
        """One line: values per 100 g with their spread (NaN where absent), and a weight with its
        range [g]. `upper` is the largest plausible of what is absent, NaN where nobody can say."""
        known = ~np.isnan(per_100_g)
        value = np.where(known, per_100_g, 0.0) / 100.0
        down = np.where(known, per_100_g - low, 0.0) / 100.0 * grams
        up = np.where(known, high - per_100_g, 0.0) / 100.0 * grams
        weight_down, weight_up = grams - grams_low, grams_high - grams
        most = np.full(len(KEYS), np.nan) if upper is None else upper
        most = np.where(np.isnan(most), np.inf if grams > 0 else 0.0, most * grams / 100.0)
        return cls(
            value * grams,
            (value * weight_down) ** 2 + down**2,
            (value * weight_up) ** 2 + up**2,
            known * grams,
            known.astype(np.float64),
            grams,
            weight_down**2,
            weight_up**2,
            1,
            could_add=np.where(known, 0.0, most),
        )

    @classmethod
    def total(cls, parts: Iterable[Profile]) -> Profile:
        out = cls.empty()
        for part in parts:
            out = out + part
        return out

    def __add__(self, other: Profile) -> Profile:
        return Profile(
            self.amounts + other.amounts,
            self.down2 + other.down2,
            self.up2 + other.up2,
            self.known_g + other.known_g,
            self.known_lines + other.known_lines,
            self.grams + other.grams,
            self.grams_down2 + other.grams_down2,
            self.grams_up2 + other.grams_up2,
            self.lines + other.lines,
            self.missing + other.missing,
            self.could_add + other.could_add,
            (self.drunk_g + other.drunk_g, self.drunk_kcal + other.drunk_kcal),
        )

    def as_drunk(self) -> Profile:
        """The same, drunk beside the food: a calorie density is said without it."""
        return Profile(
            self.amounts,
            self.down2,
            self.up2,
            self.known_g,
            self.known_lines,
            self.grams,
            self.grams_down2,
            self.grams_up2,
            self.lines,
            self.missing,
            self.could_add,
            (self.grams, float(self.amounts[INDEX["energy_kcal"]])),
        )

    @property
    def only_drunk(self) -> bool:
        """Whether there is nothing in it but what is drunk."""
        return 0 < self.drunk_g >= self.grams - 1e-9

    def off_by(self, share: float) -> Profile:
        """The same, of which there may be more or less by so much of it [0 to 1] besides."""
        wide = (self.amounts * share) ** 2
        return Profile(
            self.amounts,
            self.down2 + wide,
            self.up2 + wide,
            self.known_g,
            self.known_lines,
            self.grams,
            self.grams_down2 + (self.grams * share) ** 2,
            self.grams_up2 + (self.grams * share) ** 2,
            self.lines,
            self.missing,
            self.could_add,
            (self.drunk_g, self.drunk_kcal),
        )

    def __mul__(self, factor: float) -> Profile:
        square = factor * factor
        return Profile(
            self.amounts * factor,
            self.down2 * square,
            self.up2 * square,
            self.known_g * factor,
            self.known_lines,
            self.grams * factor,
            self.grams_down2 * square,
            self.grams_up2 * square,
            self.lines,
            self.missing,
            _times(self.could_add, factor),
            (self.drunk_g * factor, self.drunk_kcal * factor),
        )

    def weighing(self, grams: float) -> Profile:
        """The same nutrients in a batch that was weighed at `grams`: measured beats computed.
        [g]"""
        if self.grams <= 0:
            return self
        share = grams / self.grams
        return Profile(
            self.amounts,
            self.down2,
            self.up2,
            self.known_g * share,
            self.known_lines,
            grams,
            0.0,
            0.0,
            self.lines,
            self.missing,
            self.could_add,
        )

    def __getitem__(self, key: str) -> Amount:
        i = INDEX[key]
        amount = float(self.amounts[i])
        known = float(self.known_g[i]) / self.grams if self.grams > 0 else 0.0
        return Amount(
            amount=amount,
            low=max(amount - float(np.sqrt(self.down2[i])), 0.0),
            high=amount + float(np.sqrt(self.up2[i])),
            known=min(known, 1.0),
            unknown_lines=self.lines - round(float(self.known_lines[i])),
            lines=self.lines,
            missing=self.missing,
            could_add=float(self.could_add[i]),
        )

    @property
    def weight(self) -> Amount:
        return Amount(
            amount=self.grams,
            low=max(self.grams - self.grams_down2**0.5, 0.0),
            high=self.grams + self.grams_up2**0.5,
            known=1.0 if self.grams > 0 else 0.0,
            unknown_lines=0,
            lines=self.lines,
        )
