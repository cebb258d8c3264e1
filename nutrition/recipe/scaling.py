"""A recipe made larger or smaller, in measures a person can use, with what the rounding does."""

from __future__ import annotations

import re
from dataclasses import dataclass

from nutrition.composition.profile import Profile
from nutrition.recipe.reckoning import Facts
from nutrition.written import household
from nutrition.written.grammar import read
from nutrition.written.line import Line
from nutrition.written.units import COUNT_NAMES

LEAST, MOST = 0.05, 40.0
# Does not grow in step with the rest. Common practice, no source.
STUBBORN = (
    ("salt", "salt: three quarters of it first, then by taste"),
    (
        "chilli|chili|cayenne|harissa|gochujang|hot-pepper|jalapeno|serrano|wasabi|horseradish",
        "heat: half of what is added, then by taste",
    ),
    (
        "baking-powder|baking-soda|bakers-yeast",
        "leavening: a little less when made much larger, a little more when smaller",
    ),
    (
        "garlic-raw|ginger-root|cloves-|nutmeg|cinnamon|allspice",
        "strong spice: grows slower than the pot",
    ),
    (
        "psyllium|cornstarch|arrowroot-starch|agar|pectin",
        "thickener: add the last of it only if it is needed",
    ),
)
WHOLE = (
    "Pan: the depth of the food should stay the same, so the area grows with the amount.",
    "Time: a deeper pot takes longer to come to the boil and to reduce; a fuller tray roasts "
    "slower. Judge by the look.",
)
BIG_CHANGE = 1.5
HALVES = ((0.0, ""), (0.5, "½"), (1.0, ""))
MOST_OFF = 0.15


@dataclass(frozen=True, kw_only=True)
class ScaledLine:
    """A line made larger or smaller: exact grams [g], the measure to use in words with its grams,
    and what not to follow blindly."""

    line: Line
    exact_g: float
    words: str
    used_g: float
    caution: str


@dataclass(frozen=True, kw_only=True)
class Scaled:
    """A scaled recipe. `effect` has for each watched key what the rounding to usable measures
    changes in one serving [share]."""

    factor: float
    servings: float
    lines: tuple[ScaledLine, ...]
    unsettled: tuple[str, ...]
    effect: dict[str, float]
    whole: tuple[str, ...]


def factor_for_servings(facts: Facts, servings: float) -> float:
    """How much larger, for so many servings. Raises ValueError outside what a kitchen does."""
    return _checked(servings / facts.recipe.servings)


def factor_for_stock(facts: Facts, text: str, grams: float) -> float:
    """How much larger, so that a line uses exactly what is on hand. [g] Raises ValueError for a
    line that is not there or settled."""
    line = next((line for line in facts.lines if line.text == text), None)
    if line is None or not line.grams:
        raise ValueError("that line is not in the recipe, or has no weight")
    return _checked(grams / line.grams)


def factor_for_packages(facts: Facts, text: str, package_g: float) -> float:
    """How much larger, so that a line uses whole packages: the nearest number of them, at least
    one. [g] Raises ValueError."""
    line = next((line for line in facts.lines if line.text == text), None)
    if line is None or not line.grams or package_g <= 0:
        raise ValueError("that line is not in the recipe, or has no weight")
    return _checked(max(round(line.grams / package_g), 1) * package_g / line.grams)


def factor_for_portion(facts: Facts, kcal: float) -> float:
    """How much larger, so that one serving brings so many kcal and the servings stay. Raises
    ValueError without energy. [kcal]"""
    own = facts.serving["energy_kcal"].amount
    if own <= 0:
        raise ValueError("a serving without energy cannot be brought to an energy")
    return _checked(kcal / own)


def _checked(factor: float) -> float:
    if not LEAST <= factor <= MOST:
        raise ValueError(f"{factor:.2g} times the recipe is outside {LEAST:g} to {MOST:g}")
    return factor


# A measure that no kitchen counts out.
NEVER_SCALED = ("kcal", "little")


def _in_kind(line: Line, grams: float) -> household.Spoken | None:
    """Stalks stay stalks, cans stay cans: what was counted is counted still, by halves."""
    terms = read(line.text).terms
    if len(terms) != 1 or terms[0].unit not in COUNT_NAMES or not line.grams or terms[0].best <= 0:
        return None
    if terms[0].unit in NEVER_SCALED:
        return None
    each = line.grams / terms[0].best
    count, words = household.fraction(grams / each, HALVES)
    if count <= 0 or abs(count * each - grams) > MOST_OFF * grams:
        return None
    unit = terms[0].unit
    plural = (
        unit
        if count <= 1 or unit in ("small", "medium", "large", "extra large")
        else {"leaf": "leaves", "bunch": "bunches"}.get(unit, f"{unit}s")
    )
    return household.Spoken(f"{words}{household.BOUND}{plural}", count * each)


def _usable(line: Line, grams: float, system: str) -> tuple[str, float]:
    """The measure to use: as it was written in kind, weighed lines in whole grams."""
    if line.food is None:
        return "", grams
    said = (
        None
        if line.basis == "weighed"
        else _in_kind(line, grams) or household.spoken(line.food, grams, system)
    )
    if said is None:
        rounded = (
            float(round(grams / 5) * 5)
            if grams >= 100
            else float(round(grams))
            if grams >= 3
            else round(grams, 1)
        )
        return f"{rounded:g} g", rounded
    return said.words, said.grams


def scale(
    facts: Facts, factor: float, servings: float | None = None, system: str | None = None
) -> Scaled:
    """Every settled line times `factor`, in measures a person can use. `servings` defaults to the
    recipe's times the factor, and `system`, whose cups and spoons they are, to the recipe's.

    Raises ValueError for a factor outside what a kitchen does.
    """
    _checked(factor)
    cups = system or facts.recipe.system
    lines = []
    exact, used = Profile.empty(), Profile.empty()
    big = not 1 / BIG_CHANGE < factor < BIG_CHANGE
    for line in facts.lines:
        if line.food is None or line.grams is None:
            continue
        grams = line.grams * factor
        words, used_g = _usable(line, grams, cups)
        caution = (
            next(
                (said for pattern, said in STUBBORN if re.search(pattern, line.food.kind_slug)), ""
            )
            if big
            else ""
        )
        lines.append(
            ScaledLine(line=line, exact_g=grams, words=words, used_g=used_g, caution=caution)
        )
        exact, used = exact + line.food.profile(grams), used + line.food.profile(used_g)
    effect = {
        key: used[key].amount / exact[key].amount - 1.0
        for key in ("energy_kcal", "protein_g", "sodium_mg")
        if exact[key].amount > 0
    }
    unsettled = tuple(line.text for line in facts.unresolved)
    made = facts.recipe.servings * factor if servings is None else servings
    return Scaled(
        factor=factor,
        servings=made,
        lines=tuple(lines),
        unsettled=unsettled,
        effect=effect,
        whole=WHOLE if big else (),
    )
