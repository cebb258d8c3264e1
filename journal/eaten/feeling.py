"""How the client felt, beside what was eaten: so that "hungry in twenty minutes" meets the starch
that was left out."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from journal.models import FELT, Felt
from nutrition.composition.amounts import DENSITY, amount_of
from nutrition.follow_up.feeling import hunger_words
from nutrition.follow_up.intake import LoggedDay as Known


@dataclass(frozen=True, kw_only=True)
class OnADay:
    """A day: how it felt, and what of the food goes with it, where that day was logged."""

    on: date
    felt: dict[str, int | None]
    density: float | None
    fiber_g: float | None
    protein_g: float | None


@dataclass(frozen=True)
class Feeling:
    days: list[OnADay]
    words: list[str]


def beside_food(rows: Sequence[Felt], logged: Sequence[Known]) -> Feeling | None:
    """The days on which somebody said how they felt, newest first; None without one."""
    if not rows:
        return None
    known = {day.on: day for day in logged if day.whole}
    out = []
    for row in sorted(rows, key=lambda one: one.date, reverse=True):
        day = known.get(row.date)
        profile = day.profile if day else None
        out.append(
            OnADay(
                on=row.date,
                felt={name: getattr(row, name) for name in FELT},
                density=amount_of(profile, DENSITY).amount if profile else None,
                fiber_g=profile["fiber_g"].amount if profile else None,
                protein_g=profile["protein_g"].amount if profile else None,
            )
        )
    pairs = [
        (one.felt["hunger"], known[one.on])
        for one in out
        if one.felt["hunger"] is not None and one.on in known
    ]
    return Feeling(out, hunger_words([(float(hunger or 0), day) for hunger, day in pairs]))
