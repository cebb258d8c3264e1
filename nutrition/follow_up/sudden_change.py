"""Weight that moves too fast to be fat: water that gathers in a weak heart, between dialyses or in
the belly; and weight that is lost though nobody planned it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import date

from nutrition.follow_up.weigh_in import Weighed
from nutrition.targets.body import bmi
from nutrition.targets.conditions import in_play
from nutrition.targets.energy_plan import pace_in_force
from nutrition.targets.person import Person
from nutrition.targets.schools import School

# Water in heart failure: so much within so many days is asked about at once, from the lowest on the
# same scale; from the smaller on it is weighed again. AHA/ACC/HFSA 2022 and ESC 2021,
# from memory. [d], [kg]
HEART = ((1, 1.4), (3, 2.0), (7, 2.3))
HEART_AGAIN = ((1, 1.0), (14, 2.3))
# Between dialyses, of the weight after the last one. EBPG guideline (2007), from memory. [%], [d]
DIALYSIS_MUCH, DIALYSIS_TOO_MUCH, DIALYSIS_DAYS = 4.0, 4.5, 4
# Water in the belly. Common practice, no source. [d], [kg]
BELLY = ((1, 1.0), (7, 2.0))
# A weigh-in older than this says nothing of today. [d]
NEW_DAYS, NEW_LOSS_DAYS = 14, 45
# Loss that nobody planned: more than so much within so many days; and within half a year where the
# body is thin. NICE guideline CG32 and GLIM (2019), from memory. [d], [%], [kg/m^2]
UNPLANNED = ((31, 5.0), (92, 7.5), (183, 10.0))
THIN_BMI, THIN_LOSS, HALF_A_YEAR = 20.0, 5.0, 183
# A loss that was planned runs well past it at so many times the plan. Common practice, no source.
PAST_THE_PLAN = 1.5
ASK, AGAIN, NOTHING = 2.0, 1.0, 0.0


@dataclass(frozen=True)
class Signs:
    """What the cautions look at in the weigh-ins, and the same in words."""

    numbers: dict[str, float] = field(default_factory=dict)
    words: dict[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Moved:
    """A change between two weigh-ins: by how much [kg], over how many days, from and to what."""

    kg: float
    days: int
    before: float
    now: float

    @property
    def percent(self) -> float:
        return abs(self.kg) / self.before * 100.0

    @property
    def said(self) -> str:
        """ "2.6 kg in 5 days, from 81 to 83.6 kg" """
        days = "a day" if self.days == 1 else f"{self.days} days"
        return f"{abs(self.kg):.1f} kg in {days}, from {self.before:.4g} to {self.now:.4g} kg"


def rise(weighed: Sequence[Weighed], days: int) -> Moved | None:
    """What was gained within so many days up to the newest weigh-in, from the lowest on its scale;
    None where nothing was."""
    found = _against(weighed, days, lowest=True)
    return found if found is not None and found.kg > 0 else None


def fall(weighed: Sequence[Weighed], days: int) -> Moved | None:
    """What was lost within so many days up to the newest weigh-in, from the highest on its scale;
    None where nothing was."""
    found = _against(weighed, days, lowest=False)
    return found if found is not None and found.kg < 0 else None


def _against(weighed: Sequence[Weighed], days: int, lowest: bool) -> Moved | None:
    rows = sorted(weighed, key=lambda one: one.on)
    newest = rows[-1] if rows else None
    before = [
        one
        for one in rows[:-1]
        if newest is not None
        and 0 < (newest.on - one.on).days <= days
        and one.scale == newest.scale
    ]
    if newest is None or not before:
        return None
    sign = 1.0 if lowest else -1.0
    return _moved(min(before, key=lambda one: (sign * one.kg, one.on)), newest)


def _moved(before: Weighed, now: Weighed) -> Moved:
    return Moved(now.kg - before.kg, (now.on - before.on).days, before.kg, now.kg)


def weight_signs(
    person: Person, school: School | None, weighed: Sequence[Weighed], today: date
) -> Signs:
    """What of the weigh-ins is a danger for this person."""
    rows = sorted((one for one in weighed if one.on <= today), key=lambda one: one.on)
    if not rows:
        return Signs()
    numbers: dict[str, float] = {}
    words: dict[str, str] = {}
    have, old = in_play(person.conditions, person.age_years), (today - rows[-1].on).days
    if old <= NEW_DAYS:
        for level, name, found in _water(have, rows):
            numbers[name] = level
            words[f"{name}_said"] = found.said
    if old <= NEW_LOSS_DAYS:
        lost = _unplanned(person, school, rows)
        if lost is not None:
            numbers["unplanned_loss_percent"] = lost.percent
            words["unplanned_loss_said"] = lost.said
    return Signs(numbers, words)


def _water(have: frozenset[str], rows: Sequence[Weighed]) -> list[tuple[float, str, Moved]]:
    out = []
    if "heart_failure" in have:
        out += _first(rows, "heart_water", HEART, HEART_AGAIN)
    if "liver_disease" in have:
        out += _first(rows, "belly_water", BELLY, ())
    if "dialysis" in have and "peritoneal_dialysis" not in have:
        found = rise(rows, DIALYSIS_DAYS)
        if found is not None and found.percent > DIALYSIS_MUCH:
            level = ASK if found.percent > DIALYSIS_TOO_MUCH else AGAIN
            out.append((level, "dialysis_water", found))
    return out


def _first(
    rows: Sequence[Weighed],
    name: str,
    lines: Sequence[tuple[int, float]],
    again: Sequence[tuple[int, float]],
) -> list[tuple[float, str, Moved]]:
    """The first line that is passed, a day's by more than it; or else one that asks for another
    weigh-in."""
    for days, kg in lines:
        found = rise(rows, days)
        if found is not None and found.kg > kg - 1e-9 + (1e-6 if days == 1 else 0.0):
            return [(ASK, name, found)]
    for days, kg in again:
        found = rise(rows, days)
        if found is not None and found.kg >= kg - 1e-9:
            return [(AGAIN, name, found)]
    return []


def _unplanned(person: Person, school: School | None, rows: Sequence[Weighed]) -> Moved | None:
    """A loss that nobody planned and that is a sign of illness; None for none."""
    lines = list(UNPLANNED)
    if bmi(rows[-1].kg, person.height_cm) < THIN_BMI:
        lines.append((HALF_A_YEAR, THIN_LOSS))
    for days, percent in lines:
        found = fall(rows, days)
        if found is None or found.percent <= percent:
            continue
        if person.goal == "lose" and not _past_the_plan(person, school, found):
            continue
        return found
    return None


def _past_the_plan(person: Person, school: School | None, found: Moved) -> bool:
    pace, _whose = pace_in_force(person, school)
    return abs(found.kg) > PAST_THE_PLAN * pace * found.days / 7.0
