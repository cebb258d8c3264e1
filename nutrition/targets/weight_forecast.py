"""How a lasting change of intake moves body weight: the linearized dynamic model, and the static
rule beside it."""

from __future__ import annotations

import math
from dataclasses import dataclass

KCAL_PER_KG_STATIC = 7700.0
KCAL_PER_DAY_PER_KG = 24.0
HALF_LIFE_DAYS = 365.0
WEEK_DAYS = 7.0


def static_change(kcal_per_day: float, days: float) -> float:
    """Change of weight if every 7700 kcal were a kilogram for ever. [kg] from [kcal/day] and [days]

    Common practice, no source. It leaves out that a lighter body needs less, and so promises too
    much.
    """
    return kcal_per_day * days / KCAL_PER_KG_STATIC


def static_kcal(kg_per_week: float) -> float:
    """The change of intake that the static rule asks for a pace. [kcal/day] from [kg/week]"""
    return kg_per_week * KCAL_PER_KG_STATIC / WEEK_DAYS


def eventual_change(kcal_per_day: float) -> float:
    """Where weight comes to rest after a lasting change of intake. [kg] from [kcal/day]

    References: Hall et al., Lancet 378:826 (2011): about 24 kcal/day (100 kJ) for each kilogram in
    the end.
    """
    return kcal_per_day / KCAL_PER_DAY_PER_KG


def dynamic_change(kcal_per_day: float, days: float) -> float:
    """Change of weight by the linearized model: half of the eventual change after a year. [kg] from
    [kcal/day], [days]

    References: Hall et al., Lancet 378:826 (2011), for adults; half in about one year, 95 % in
    about three (the exponential through the first reaches 88 % after three).
    """
    return eventual_change(kcal_per_day) * (1.0 - math.pow(0.5, days / HALF_LIFE_DAYS))


def days_to_change(kcal_per_day: float, kg: float) -> float | None:
    """Days until the linearized model has moved weight by `kg` (signed as the change). None if it
    never gets there."""
    end = eventual_change(kcal_per_day)
    share = kg / end if end else math.inf
    if share >= 1.0 or share < 0.0:
        return None
    return -HALF_LIFE_DAYS * math.log2(1.0 - share)


@dataclass(frozen=True, kw_only=True)
class Forecast:
    """Weight ahead at one lasting change of intake. [kg], [kcal/day], [weeks]; weeks None: it never
    gets there.

    `stops_kg` is where it is planned to end, at the goal or at the least weight: nothing is
    forecast beyond it. None without one.
    """

    kcal_per_day: float
    weight_kg: float
    points: tuple[tuple[int, float, float], ...]
    eventual_kg: float
    target_kg: float | None
    dynamic_weeks: float | None
    static_weeks: float | None
    stops_kg: float | None = None

    @property
    def words(self) -> str:
        """Both forecasts and why they part."""
        after = {weeks: (dynamic, static) for weeks, dynamic, static in self.points}
        half, year = after[26], after[52]
        text = (
            f"With {self.kcal_per_day:+.0f} kcal a day kept up, the dynamic model expects "
            f"{half[0]:.1f} kg in half a year and {year[0]:.1f} kg in a year. The rule of 7700 "
            f"kcal per kg would say {half[1]:.1f} and {year[1]:.1f} kg: it forgets that a "
            f"{'lighter body needs less' if self.kcal_per_day < 0 else 'heavier body needs more'}, "
            f"so that the change slows down."
        )
        if self.stops_kg is None:
            return f"{text} It comes to rest near {self.eventual_kg:.1f} kg."
        if self.stops_kg != self.target_kg:
            return (
                f"{text} Nothing is forecast beyond {self.stops_kg:.1f} kg: it is the "
                f"{'least' if self.kcal_per_day < 0 else 'greatest'} weight that is planned for."
            )
        weeks = (
            "never at this intake alone"
            if self.dynamic_weeks is None
            else f"in about {self.dynamic_weeks:.0f} weeks"
        )
        by_rule = "" if self.static_weeks is None else f" (by the rule: {self.static_weeks:.0f})"
        return (
            f"{text} {self.target_kg:g} kg is reached {weeks}{by_rule}; nothing is forecast "
            f"beyond it."
        )


def forecast(
    weight_kg: float,
    kcal_per_day: float,
    target_kg: float | None = None,
    least_kg: float | None = None,
    greatest_kg: float | None = None,
) -> Forecast | None:
    """Both models side by side after 4, 12, 26, 52 and 104 weeks. [kg] from [kg], [kcal/day]

    Neither goes past the target, nor, for a loss, under the least weight, nor, for a gain, over the
    greatest. None for a change that begins there.
    """
    loses = kcal_per_day < 0
    if loses and least_kg is not None and weight_kg <= least_kg:
        return None
    if not loses and greatest_kg is not None and weight_kg >= greatest_kg:
        return None
    ahead = (
        target_kg
        if target_kg is not None and (target_kg < weight_kg) == loses and target_kg != weight_kg
        else None
    )
    ends = [kg for kg in (ahead, least_kg if loses else greatest_kg) if kg is not None]
    stops = (max(ends) if loses else min(ends)) if ends else None

    def held(kg: float) -> float:
        return kg if stops is None else max(kg, stops) if loses else min(kg, stops)

    points = tuple(
        (
            weeks,
            held(weight_kg + dynamic_change(kcal_per_day, weeks * WEEK_DAYS)),
            held(weight_kg + static_change(kcal_per_day, weeks * WEEK_DAYS)),
        )
        for weeks in (4, 12, 26, 52, 104)
    )
    dynamic = static = None
    if target_kg is not None and target_kg == stops:
        away = target_kg - weight_kg
        days = days_to_change(kcal_per_day, away)
        dynamic = None if days is None else days / WEEK_DAYS
        # with nothing eaten more or less no time leads there
        weekly = static_change(kcal_per_day, WEEK_DAYS)
        static = away / weekly if weekly else None
    eventual = held(weight_kg + eventual_change(kcal_per_day))
    return Forecast(
        kcal_per_day=kcal_per_day,
        weight_kg=weight_kg,
        points=points,
        eventual_kg=eventual,
        target_kg=target_kg,
        dynamic_weeks=dynamic,
        static_weeks=static,
        stops_kg=stops,
    )
