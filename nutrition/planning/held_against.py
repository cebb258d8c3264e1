"""What the days of a week are held against, whoever asks for the week."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass
from statistics import fmean

from nutrition.composition.profile import Profile
from nutrition.planning.candidates import (
    WHOLE,
    aims_of_day,
    aims_of_week,
    on_the_plate,
    week_base,
)
from nutrition.targets.aim import Aim
from nutrition.targets.day import DayTargets


@dataclass(frozen=True, kw_only=True)
class HeldAgainst:
    """The aims of a whole day, of each day that is planned in part, and of the average day; what is
    taken besides each day counts in `base`. In each key's unit."""

    aims: tuple[Aim, ...]
    on_day: Mapping[int, tuple[Aim, ...]]
    over_week: tuple[Aim, ...]
    base: Mapping[str, float]
    keys: tuple[str, ...]


def held_against(
    day: DayTargets,
    watched: Collection[str],
    known: Callable[[str], float],
    shares: Mapping[int, float],
    planned: Collection[int],
    stops: Mapping[str, float],
    taken: Profile,
) -> HeldAgainst:
    """The aims of a week of which `shares` of the days are planned [0 to 1], something of the
    `planned` ones; `taken` are tablets. What is `known` [0 to 1], and from what the page `stops`,
    as for a day."""
    each = aims_of_day(day, watched, known, stops=stops)
    average = fmean([shares[at] for at in planned]) if planned else 1.0
    over_week = aims_of_week(day, watched, known, average)
    keys = tuple(aim.key for aim in (*each, *over_week))
    base = week_base(taken, keys)
    return HeldAgainst(
        # an upper level that a tablet passes by itself is no matter of the plate
        aims=on_the_plate(each, base),
        on_day={
            at: on_the_plate(aims_of_day(day, watched, known, share, stops), base)
            for at, share in shares.items()
            if 0 < share < WHOLE
        },
        over_week=over_week,
        base=base,
        keys=keys,
    )
