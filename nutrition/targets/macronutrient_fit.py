"""Whether the numbers of a day can stand beside each other: what the macronutrients bring must fit
into the energy."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets.person import OutOfRange
from nutrition.targets.voices import SCHOOL, WISH, Target

# What a gram brings. [kcal/g]
KCAL_PER_G = {"protein_g": 4.0, "carbohydrate_g": 4.0, "fat_g": 9.0}
# What gives way first where there is no room, and what never does: protein. Common practice, no
# source.
GIVE_WAY = ("carbohydrate_g", "fat_g")
ENOUGH = 1.02


def _words(targets: Mapping[str, Target], side: str) -> str:
    parts = []
    for key in KCAL_PER_G:
        value = getattr(targets[key], side)
        if value is not None:
            parts.append(f"{NUTRIENT[key].name.lower()} {value:.0f} g")
    return ", ".join(parts)


def fitted(targets: Mapping[str, Target], check_together: bool = False) -> dict[str, Target]:
    """The targets whose least had to give way so that all fit into the energy in force: general
    guidance and a school give way to what is set by hand, ordered or a condition's.

    With `check_together` raises OutOfRange, naming "orders", where numbers set by hand ask for more
    than the energy, or leave less than it.
    """
    kcal = targets.get("energy_kcal")
    if kcal is None or any(key not in targets for key in KCAL_PER_G):
        return {}
    room = max(kcal.aim, kcal.high or 0.0)
    asked = sum((targets[key].low or 0.0) * per for key, per in KCAL_PER_G.items())
    out: dict[str, Target] = {}
    if asked > room * ENOUGH:
        gives = [key for key in GIVE_WAY if targets[key].low and targets[key].low_by.rank <= SCHOOL]
        loose = sum((targets[key].low or 0.0) * KCAL_PER_G[key] for key in gives)
        share = max((room - (asked - loose)) / loose, 0.0) if loose else 0.0
        if asked - loose > room * ENOUGH:
            if check_together:
                raise OutOfRange(
                    "orders",
                    f"The least of {_words(targets, 'low')} comes to {asked:.0f} kcal, more than "
                    f"the energy of {room:.0f} kcal: change one of them.",
                )
            return {}
        for key in gives:
            out[key] = _lowered(targets[key], share, room)
    if check_together and all(targets[key].high_by.rank >= WISH for key in KCAL_PER_G):
        # mosts of general guidance and a school give way by themselves: they are of another energy
        most = [(targets[key].high, per) for key, per in KCAL_PER_G.items()]
        least = kcal.aim if kcal.low is None else min(kcal.low, kcal.aim)
        brought = sum((high or float("inf")) * per for high, per in most)
        if brought * ENOUGH < least:
            raise OutOfRange(
                "orders",
                f"The most of {_words(targets, 'high')} comes to {brought:.0f} kcal, less than "
                f"the energy of {least:.0f} kcal: change one of them.",
            )
    return out


def _lowered(target: Target, share: float, room: float) -> Target:
    low = (target.low or 0.0) * share
    note = (
        f" Lowered from {target.low:.0f} g: what is asked for more strongly leaves no more room in "
        f"{room:.0f} kcal."
    )
    aim = max(min(target.aim, target.aim * max(share, 0.5)), low)
    return replace(target, low=low, aim=aim, reason=f"{target.reason}{note}")
