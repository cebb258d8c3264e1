"""Pregnancy: how much weight is to be gained, by the body mass index before it, and what twins
ask for."""

from __future__ import annotations

from dataclasses import dataclass

from nutrition.targets.body import bmi
from nutrition.targets.person import TWINS, Person

# From (kg/m²) on: name, gain in all with one child [kg], with twins [kg], gain a week in the second
# and third trimester [kg/week], energy laid down [kcal/day]. Nothing is published for twins under
# 18.5. The energy is that of the Dietary Reference Intakes for Energy (2023). From memory.
BANDS = (
    (30.0, "obese", (5.0, 9.0), (11.0, 19.0), (0.17, 0.27), -50.0),
    (25.0, "overweight", (7.0, 11.5), (14.0, 23.0), (0.23, 0.33), 150.0),
    (18.5, "normal", (11.5, 16.0), (17.0, 25.0), (0.35, 0.50), 200.0),
    (0.0, "underweight", (12.5, 18.0), None, (0.44, 0.58), 300.0),
)
# A second child asks for so much more energy. Common practice, no source. [kcal/day]
TWIN_KCAL = 300.0
# With twins, from the second trimester on. Dietary Reference Intakes (2005), from memory. [g/day]
TWIN_PROTEIN_G = 50.0 - 25.0


@dataclass(frozen=True, kw_only=True)
class GestationalGain:
    """How much is to be gained in the whole pregnancy [kg] and each week of its second and third
    trimester [kg/week]; None where nothing is published."""

    band: str
    bmi_before: float
    low_kg: float | None
    high_kg: float | None
    weekly_low_kg: float
    weekly_high_kg: float
    so_far_kg: float
    twins: bool

    @property
    def words(self) -> str:
        """The gain advised, and what is gained so far."""
        who = "twins" if self.twins else "one child"
        begin = f"BMI before pregnancy {self.bmi_before:.1f} ({self.band}), {who}: "
        if self.low_kg is None:
            gain = "no gain is published: ask the obstetrician"
        else:
            gain = f"{self.low_kg:g} to {self.high_kg:g} kg in all"
            if not self.twins:
                weekly = f"{self.weekly_low_kg:g} to {self.weekly_high_kg:g} kg"
                gain += f", {weekly} a week from the second trimester on"
        return (
            f"{begin}{gain}; {self.so_far_kg:+.1f} kg so far. National Academies, Weight Gain "
            f"During Pregnancy (2009), from memory."
        )


def band_of(index: float) -> tuple[str, float]:
    """The band of a body mass index before pregnancy, and the energy laid down a day with one
    child. [kcal/day] from [kg/m²]"""
    row = next(row for row in BANDS if index >= row[0])
    return row[1], row[5]


def gestational_gain(person: Person) -> GestationalGain | None:
    """The gain advised; None where the weight before pregnancy is not known.

    References: National Academies, Weight Gain During Pregnancy (2009), from memory.
    """
    before = person.weight_before_kg
    if not person.pregnant or before is None:
        return None
    index = bmi(before, person.height_cm)
    _from, name, one, two, weekly, _kcal = next(row for row in BANDS if index >= row[0])
    twins = TWINS in person.conditions
    gain = two if twins else one
    return GestationalGain(
        band=name,
        bmi_before=index,
        low_kg=gain[0] if gain else None,
        high_kg=gain[1] if gain else None,
        weekly_low_kg=weekly[0],
        weekly_high_kg=weekly[1],
        so_far_kg=person.weight_kg - before,
        twins=twins,
    )
