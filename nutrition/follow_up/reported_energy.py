"""Energy that was written down, against what the body shows: Goldberg's cut-off, and the intake
that the trend of weight stands for."""

from __future__ import annotations

import math
from dataclasses import dataclass

from nutrition.follow_up.trend import Pace
from nutrition.targets import energy
from nutrition.targets.body import weight_used
from nutrition.targets.energy_plan import energy_need
from nutrition.targets.person import Person
from nutrition.targets.weight_forecast import KCAL_PER_KG_STATIC, WEEK_DAYS

# Variation within a person of what is eaten from day to day, of resting energy as it is predicted,
# and of activity between people. [%] Black, Int J Obes 24:1119 (2000).
CV_INTAKE, CV_RESTING, CV_ACTIVITY = 23.0, 8.5, 15.0
# How far an energy requirement lies off for one person, one standard deviation. [share] Common
# practice, no source.
NEED_SD = 0.08
# Energy of a kilogram lost or gained differs between people and weeks. [share] Common practice.
KILOGRAM_SD = 0.1


def goldberg_cut_off(
    activity_level: float,
    days: int,
    *,
    cv_intake: float = CV_INTAKE,
    cv_resting: float = CV_RESTING,
    cv_activity: float = CV_ACTIVITY,
    sds: float = 2.0,
) -> tuple[float, float]:
    """Least and most of energy written down over resting energy that one person may plausibly show
    on average over `days`. [-] from the physical activity level [-], days [d].

    Raises ValueError for fewer than one day.

    References: Goldberg et al., Eur J Clin Nutr 45:569 (1991); Black, Int J Obes 24:1119 (2000).
    """
    if days < 1:
        raise ValueError("at least one day")
    s = math.sqrt(cv_intake**2 / days + cv_resting**2 + cv_activity**2)
    spread = math.exp(sds * s / 100.0)
    return activity_level / spread, activity_level * spread


@dataclass(frozen=True)
class Implied:
    """Intake that a pace of weight stands for, with its 95 % range, and what holds the weight.
    [kcal/day]"""

    kcal: float
    low: float
    high: float
    need: float


def implied_intake(person: Person, pace: Pace) -> Implied:
    """What must have been eaten for the weight to move so: what holds it, and 7700 kcal for each
    kilogram. [kcal/day]

    Common practice, no source, for the kilogram; Dietary Reference Intakes (2023) for the need.
    """
    need, _words, _source = energy_need(person, weight_used(person).kg)
    from_body = pace.kg_per_week * KCAL_PER_KG_STATIC / WEEK_DAYS
    half = 1.96 * NEED_SD * need
    of_pace = pace.half * KCAL_PER_KG_STATIC / WEEK_DAYS
    wide = math.hypot(half, of_pace, 1.96 * KILOGRAM_SD * from_body)
    kcal = need + from_body
    return Implied(kcal, kcal - wide, kcal + wide, need)


@dataclass(frozen=True, kw_only=True)
class Reported:
    """Whether what was written down can be what was eaten. [kcal/day]

    `ratio` is of resting energy, between `least` and `most` by Goldberg; `implied` is by the trend.
    """

    kcal: float
    days: int
    resting: float
    level: float
    least: float
    most: float
    implied: Implied | None

    @property
    def ratio(self) -> float:
        return self.kcal / self.resting

    @property
    def far_under(self) -> bool:
        """Under the cut-off, or, where the trend is known, under what it implies."""
        by_trend = self.implied is not None and self.kcal < self.implied.low
        return (
            self.ratio < self.least
            and (self.implied is None or by_trend)
            or (by_trend and self.implied is not None and self.kcal < 0.8 * self.implied.kcal)
        )

    @property
    def words(self) -> str:
        """The arithmetic, in words for the practitioner."""
        text = (
            f"{self.kcal:,.0f} kcal a day over {self.days} logged days, resting energy "
            f"{self.resting:,.0f} kcal: {self.ratio:.2f}, where Goldberg's cut-off for {self.days} "
            f"days at an activity level of {self.level:g} is {self.least:.2f}."
        )
        if self.implied is not None:
            one = self.implied
            text += (
                f" The trend of weight stands for {one.kcal:,.0f} kcal a day "
                f"({one.low:,.0f} to {one.high:,.0f})."
            )
        return text


def reported(person: Person, kcal: float, days: int, pace: Pace | None) -> Reported | None:
    """What was written down, judged; None for less than three days, in pregnancy or while nursing.
    [kcal/day], [d]"""
    if days < 3 or person.pregnant or person.nursing or kcal <= 0:
        return None
    resting = energy.mifflin_st_jeor(
        person.sex, person.weight_kg, person.height_cm, person.age_years
    )
    level = energy.ACTIVITY_FACTOR[person.activity]
    least, most = goldberg_cut_off(level, days)
    return Reported(
        kcal=kcal,
        days=days,
        resting=resting,
        level=level,
        least=least,
        most=most,
        implied=implied_intake(person, pace) if pace else None,
    )
