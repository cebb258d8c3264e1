"""What holds at once, whatever a day was planned for: orders and the limits that conditions set.
Softer targets stay as they were when the day was planned."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets.day import DayTargets
from nutrition.targets.voices import ORDER, Target, target_words


def is_hard(target: Target | None) -> bool:
    """Whether an order sets it, or one of its bounds is never broken: the most that a condition
    sets."""
    return target is not None and (target.rank == ORDER or target.firm_low or target.firm_high)


def hard_keys(planned: DayTargets, now: DayTargets) -> frozenset[str]:
    """The keys whose target of now holds at once: those that a hard limit bounds now, and those
    that one bounded when the day was planned and none does now."""
    keys = planned.targets.keys() | now.targets.keys()
    return frozenset(
        key
        for key in keys
        if is_hard(now.targets.get(key))
        or (is_hard(planned.targets.get(key)) and key in now.targets)
    )


def with_hard_limits(planned: DayTargets, now: DayTargets) -> DayTargets:
    """The targets that a day was planned for, with the orders and hard limits of `now` in them. The
    person is the one of now; meals are shared out anew where energy or protein moved."""
    keys = hard_keys(planned, now)
    targets = _taken_over(planned.targets, now.targets, keys)
    told = [row for row in planned.disagreements if row.key not in keys]
    told += [row for row in now.disagreements if row.key in keys]
    energy, protein = targets["energy_kcal"].aim, targets["protein_g"].aim
    least = {meal.key: meal.protein_min_g for meal in now.meals}
    of_protein = "protein_g" in keys
    meals = tuple(
        replace(
            meal,
            energy_kcal=energy * meal.share,
            protein_g=protein * meal.share,
            protein_min_g=least.get(meal.key) if of_protein else meal.protein_min_g,
        )
        for meal in planned.meals
    )
    return replace(
        planned,
        person=now.person,
        weight=now.weight if of_protein else planned.weight,
        energy=now.energy if "energy_kcal" in keys else planned.energy,
        targets=targets,
        computed=_taken_over(planned.computed, now.computed, keys),
        disagreements=tuple(told),
        meals=meals,
        gain=now.gain,
    )


def tightened(planned: DayTargets, later: DayTargets) -> DayTargets:
    """The same, with each most that `later` sets lower and each least that it sets higher, where
    they are hard: what is planned over several days keeps what begins among them."""
    keys = frozenset(
        key
        for key, target in later.targets.items()
        if is_hard(target) and _narrower(target, planned.targets.get(key))
    )
    return replace(planned, targets=_taken_over(planned.targets, later.targets, keys))


def _narrower(target: Target, than: Target | None) -> bool:
    if than is None:
        return True
    lower = target.firm_high and (than.high is None or (target.high or 0.0) < than.high)
    higher = target.firm_low and (than.low is None or (target.low or 0.0) > than.low)
    return lower or higher


def _taken_over(
    mine: Mapping[str, Target], theirs: Mapping[str, Target], keys: frozenset[str]
) -> dict[str, Target]:
    """`mine` in their order, with those of `keys` as `theirs` has them."""
    out = {key: theirs.get(key, target) if key in keys else target for key, target in mine.items()}
    out |= {key: theirs[key] for key in theirs if key in keys}
    return out


@dataclass(frozen=True)
class Moved:
    """A target that newer ones change: its key, and both in words."""

    key: str
    before: str
    after: str

    @property
    def name(self) -> str:
        return NUTRIENT[self.key].name


def moved(before: Mapping[str, Target], after: Mapping[str, Target]) -> list[Moved]:
    """The targets that differ as they are said, in the order of the newer ones."""
    out = []
    for key in dict.fromkeys([*after, *before]):
        said = [target_words(rows[key]) if key in rows else "none" for rows in (before, after)]
        if said[0] != said[1]:
            out.append(Moved(key, *said))
    return out
