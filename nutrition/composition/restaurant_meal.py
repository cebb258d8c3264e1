"""What a meal that somebody else cooked brings: a guess of its energy, and nothing known of the
rest."""

from __future__ import annotations

import numpy as np

from nutrition.composition.nutrients import KEYS
from nutrition.composition.portion import Limits, Portion, room_ml
from nutrition.composition.profile import INDEX, Profile

# A gram of a plate eaten out, by which its weight is guessed. Common practice, no source. [kcal/g]
USUAL_DENSITY = 1.5


def guessed_profile(kcal: float | None, low: float | None, high: float | None) -> Profile:
    """So much energy, between these [kcal], and every other amount unknown; None for an energy that
    nobody guessed."""
    if kcal is None or low is None or high is None or kcal <= 0:
        return Profile.unsettled()
    grams = kcal / USUAL_DENSITY
    values, least, most = (np.full(len(KEYS), np.nan) for _ in range(3))
    for vector, energy in ((values, kcal), (least, low), (most, high)):
        vector[INDEX["energy_kcal"]] = energy / grams * 100.0
    return Profile.of(values, least, most, grams, grams, grams)


def eaten_out(
    key: str, words: str, kcal: float | None, low: float | None, high: float | None
) -> Portion:
    """A meal eaten out as something that is eaten and left as it is. [kcal]"""
    profile = guessed_profile(kcal, low, high)
    return Portion(
        key=key,
        name=words,
        role="base",
        grams=profile.grams,
        profile=profile,
        volume_ml=room_ml(None, profile.grams),
        limits=Limits(least=profile.grams, most=profile.grams, step=1.0),
        locked=True,
        unit="meal",
        unit_g=profile.grams or 1.0,
    )
