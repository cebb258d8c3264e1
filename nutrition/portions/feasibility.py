"""Which targets the parts at hand can come near at all."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from nutrition.composition.amounts import DENSITY
from nutrition.composition.portion import Portion
from nutrition.targets.aim import Aim
from nutrition.targets.aims import OTHER_WEIGHT

# A least that these parts can bring under a tenth of is left to supplements and to other food.
OUT_OF_REACH = 0.1
# What a meal is for is asked of it however little there is yet.
ALWAYS = ("energy_kcal", "protein_g")


def within_reach(
    aims: Sequence[Aim], parts: Sequence[Portion], base: Mapping[str, float]
) -> tuple[Aim, ...]:
    """The aims without those whose least these parts cannot come near, however large they are; a
    most of such a key is kept."""
    out = []
    for aim in aims:
        if aim.key not in (DENSITY, *ALWAYS) and aim.low is not None and aim.low > 0:
            most = base.get(aim.key, 0.0) + sum(
                part.amount(aim.key) * max(part.limits.most, part.grams) for part in parts
            )
            if most < OUT_OF_REACH * aim.low:
                if aim.high is None:
                    continue
                aim = replace(aim, low=None, aim=min(most, aim.high), weight=OTHER_WEIGHT)
        out.append(aim)
    return tuple(out)
