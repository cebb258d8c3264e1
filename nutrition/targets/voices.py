"""What each voice says of one target, and which is in force: general guidance, the school, a
condition, an order."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Protocol

from nutrition.composition.amounts import DENSITY
from nutrition.composition.nutrients import NUTRIENT

GENERAL, SCHOOL, CONDITION, WISH, ORDER = range(5)
GENERAL_VOICE = "general guidance"
WHY_IN_FORCE = {
    SCHOOL: "a school stands over general guidance",
    CONDITION: "a condition stands over the school, general guidance and a choice",
    WISH: "the practitioner's choice stands over the school and general guidance, within what a "
    "condition sets",
    ORDER: "a clinician's order stands over all that is computed",
}


@dataclass(frozen=True)
class Voice:
    """Whose a bound is, and how much it weighs: GENERAL to ORDER. What `aims_only` is no limit that
    is never broken."""

    name: str
    rank: int
    aims_only: bool = False


GENERAL_GUIDANCE = Voice(GENERAL_VOICE, GENERAL)


@dataclass(frozen=True, kw_only=True)
class Target:
    """One target of the day. `low` and `high` bound the band, either may be open (None). In the
    key's unit. Each bound knows whose it is; `voice` is whose the target as a whole is."""

    key: str
    low: float | None
    aim: float
    high: float | None
    unit: str
    source: str
    reason: str
    voice: str = GENERAL_VOICE
    rank: int = GENERAL
    low_by: Voice = GENERAL_GUIDANCE
    high_by: Voice = GENERAL_GUIDANCE

    @property
    def firm_low(self) -> bool:
        """Whether the least is never broken: an order sets it."""
        return self.low is not None and self.low_by.rank == ORDER

    @property
    def firm_high(self) -> bool:
        """Whether the most is never broken: an order sets it, or a condition that does not only
        aim."""
        by = self.high_by
        return self.high is not None and by.rank in (CONDITION, ORDER) and not by.aims_only

    def scaled(self, by: float) -> Target:
        """The same target for a share of the day [0 to 1]; what is a ratio is the same for any."""
        if self.key == DENSITY:
            return self
        low, high = (None if value is None else value * by for value in (self.low, self.high))
        return replace(self, low=low, aim=self.aim * by, high=high)


@dataclass(frozen=True, kw_only=True)
class Statement:
    """One voice on one target. An `aim` of None leaves the aim of the voices below, moved into this
    band.

    `replaces`: nothing of the voices below is kept, whether or not it fits. `priority` orders
    conditions among themselves. What is told `beside` is never in force: another source that the
    one in force parts from. What `aims_only` is in force, and its bounds are no limits that are
    never broken.
    """

    key: str
    low: float | None
    aim: float | None
    high: float | None
    source: str
    reason: str
    rank: int = GENERAL
    voice: str = GENERAL_VOICE
    replaces: bool = False
    priority: int = 0
    beside: bool = False
    aims_only: bool = False

    @property
    def by(self) -> Voice:
        return Voice(self.voice, self.rank, self.aims_only)


@dataclass(frozen=True, kw_only=True)
class Disagreement:
    """Two voices that cannot both be followed: each with its numbers, which one is in force, and
    why."""

    key: str
    about: str
    in_force: str
    in_force_says: str
    other: str
    other_says: str
    why: str

    @property
    def words(self) -> str:
        voices = f"{self.in_force} says {self.in_force_says}; {self.other} says {self.other_says}"
        return f"{self.about}: {voices}. In force: {self.in_force}, because {self.why}."


def _number(key: str, value: float) -> str:
    decimals = NUTRIENT[key].decimals if abs(value) < 10 else 0
    return f"{value:,.{decimals}f}"


def band_words(key: str, low: float | None, high: float | None) -> str:
    """ "96\u2013140 g", "at least 96 g", "at most 2,300 mg", or "no band" """
    unit = NUTRIENT[key].unit
    if low is not None and high is not None:
        joint = " to " if low < 0 else "\u2013"
        return f"{_number(key, low)}{joint}{_number(key, high)} {unit}"
    if low is not None:
        return f"at least {_number(key, low)} {unit}"
    return "no band" if high is None else f"at most {_number(key, high)} {unit}"


class Band(Protocol):
    """Bounds and an aim for one quantity: of a target, or of an aim for a meal. In its unit."""

    @property
    def key(self) -> str: ...
    @property
    def low(self) -> float | None: ...
    @property
    def aim(self) -> float: ...
    @property
    def high(self) -> float | None: ...


def target_words(target: Band) -> str:
    """ "at least 96 g, aim 106" """
    return (
        f"{band_words(target.key, target.low, target.high)}, aim {_number(target.key, target.aim)}"
    )


def _inside(aim: float, low: float | None, high: float | None) -> bool:
    slack = 1e-9 * max(1.0, abs(aim))
    return (low is None or aim >= low - slack) and (high is None or aim <= high + slack)


def _clamp(aim: float, low: float | None, high: float | None) -> float:
    return min(
        max(aim, low if low is not None else aim),
        high if high is not None else max(aim, low if low is not None else aim),
    )


def _target(
    statement: Statement,
    low: float | None,
    aim: float,
    high: float | None,
    low_by: Voice | None = None,
    high_by: Voice | None = None,
) -> Target:
    """What a statement makes, its bounds its own but for those that are said to be another's."""
    return Target(
        key=statement.key,
        low=low,
        aim=aim,
        high=high,
        unit=NUTRIENT[statement.key].unit,
        source=statement.source,
        reason=statement.reason,
        voice=statement.voice,
        rank=statement.rank,
        low_by=low_by or statement.by,
        high_by=high_by or statement.by,
    )


def _says(key: str, low: float | None, high: float | None, aim: float) -> str:
    words = band_words(key, low, high)
    return f"about {_number(key, aim)} {NUTRIENT[key].unit}" if words == "no band" else words


def _over(below: Target, above: Statement) -> Target:
    """`above` laid over what is in force so far."""
    by_hand = above.rank in (WISH, ORDER)
    stands_alone = above.replaces or by_hand
    wanted = below.aim if above.aim is None else above.aim
    if not stands_alone and above.high is None and above.low is not None:
        # "at least": more, as the voice below wants it, is welcome
        wanted = max(wanted, below.aim)
    if not stands_alone and above.low is None and above.high is not None:
        wanted = min(wanted, below.aim)
    aim = _clamp(wanted, above.low, above.high)
    if by_hand:
        # a bound that was not set by hand stays, as long as it fits
        keeps_low = above.low is None and below.low is not None and below.low <= aim
        keeps_high = above.high is None and below.high is not None and below.high >= aim
        return _target(
            above,
            below.low if keeps_low else above.low,
            aim,
            below.high if keeps_high else above.high,
            below.low_by if keeps_low else None,
            below.high_by if keeps_high else None,
        )
    if stands_alone or not _inside(aim, below.low, below.high):
        return _target(above, above.low, aim, above.high)
    low = max((value for value in (above.low, below.low) if value is not None), default=None)
    high = min((value for value in (above.high, below.high) if value is not None), default=None)
    # where both say the same, the bound is the higher voice's as well
    low_by = above.by if low == above.low else below.low_by
    high_by = above.by if high == above.high else below.high_by
    if (low, aim, high) == (below.low, below.aim, below.high):
        return replace(below, low_by=low_by, high_by=high_by)
    merged = _target(above, low, aim, high, low_by, high_by)
    if (low, high) != (above.low, above.high):
        kept = (
            f"Kept within what {below.voice} says: {band_words(below.key, below.low, below.high)}."
        )
        merged = replace(merged, reason=f"{above.reason} {kept}")
    return merged


def _within(below: Target, condition: Target, wish: Statement) -> Target:
    """A wish where a condition has spoken: it may ask for less room than the condition leaves,
    never for more."""
    low = max((value for value in (wish.low, condition.low) if value is not None), default=None)
    high = min((value for value in (wish.high, condition.high) if value is not None), default=None)
    aim = _clamp(below.aim if wish.aim is None else wish.aim, low, high)
    if (low is not None and high is not None and low > high) or not _inside(
        aim, condition.low, condition.high
    ):
        return below
    # where a condition has set a bound, a narrower one that is wished for is as firm as it
    low_by, high_by = (
        Voice(wish.voice, WISH if bound is None else CONDITION, bound is not None and by.aims_only)
        for bound, by in ((condition.low, condition.low_by), (condition.high, condition.high_by))
    )
    return _target(wish, low, aim, high, low_by, high_by)


def _laid_over(ordered: Sequence[Statement]) -> tuple[Target, Statement]:
    """What is in force of statements in their order, and the voice that it is."""
    first = ordered[0]
    aim = next((value for value in (first.aim, first.low, first.high) if value is not None), None)
    if aim is None:
        raise ValueError(f"{first.key}: a statement without any number")
    target, winner = _target(first, first.low, aim, first.high), first
    spoken = [
        statement
        for statement in ordered
        if statement.rank == CONDITION and (statement.low, statement.high) != (None, None)
    ]
    for statement in ordered[1:]:
        wished = statement.rank == WISH and bool(spoken)
        before, target = (
            target,
            _within(target, _laid_over(spoken)[0], statement)
            if wished
            else _over(target, statement),
        )
        if target.voice == statement.voice and target is not before:
            winner = statement
    return target, winner


def settle(statements: Sequence[Statement]) -> tuple[Target, Target, list[Disagreement]]:
    """The target in force, the one that was computed (with nothing set by hand), and the voices it
    disagrees with.

    Higher ranks are laid over lower ones. Where the aim of the higher fits the band of the lower,
    the band narrows to both; where it does not, the higher replaces the lower. A voice whose band
    the aim in force leaves disagrees. The first statement needs a number. Raises ValueError if it
    has none.
    """
    ordered = sorted(statements, key=lambda statement: (statement.rank, statement.priority))
    told = [statement for statement in ordered if not statement.beside]
    target, winner = _laid_over(told)
    computed = [statement for statement in told if statement.rank not in (WISH, ORDER)]
    return (
        target,
        _laid_over(computed)[0] if computed else target,
        [
            _disagreement(target, winner, other)
            for other in ordered
            if other is not winner and not _inside(target.aim, other.low, other.high)
        ],
    )


def _disagreement(target: Target, winner: Statement, other: Statement) -> Disagreement:
    why = WHY_IN_FORCE.get(winner.rank, "")
    if winner.rank == other.rank == CONDITION:
        why = "the graver condition comes first; ask the treating clinician which number holds"
    if other.beside:
        why = f"two sources part here: {winner.reason} Ask the treating clinician which one holds"
    aim = next(
        (value for value in (other.aim, other.low, other.high) if value is not None), target.aim
    )
    return Disagreement(
        key=target.key,
        about=NUTRIENT[target.key].name,
        in_force=winner.voice,
        in_force_says=_says(target.key, target.low, target.high, target.aim),
        other=other.voice,
        other_says=_says(target.key, other.low, other.high, aim),
        why=why,
    )
