"""A reckoned recipe as plain data, and as text for a terminal."""

from __future__ import annotations

from typing import Any

from pydantic import Field

from nutrition.composition.cooking_methods import Cooked
from nutrition.composition.nutrients import NUTRIENT, NUTRIENTS
from nutrition.composition.profile import Profile
from nutrition.insight import indices
from nutrition.recipe.reckoning import Facts
from nutrition.requests.structure import Told, rounded
from nutrition.written.line import Line
from nutrition.written.serving_words import counted

SIGNIFICANT = 6
PRINTED = (
    "energy_kcal",
    "protein_g",
    "fat_g",
    "saturated_fat_g",
    "carbohydrate_g",
    "fiber_g",
    "sugars_g",
    "sodium_mg",
    "potassium_mg",
    "phosphorus_mg",
    "calcium_mg",
    "magnesium_mg",
    "iron_mg",
    "zinc_mg",
    "vitamin_c_mg",
    "vitamin_b12_ug",
    "ala_g",
)


class NutrientTold(Told):
    """An amount with its range, and the share of the grams that it is known of."""

    amount: float | None
    low: float | None
    high: float | None
    unit: str
    known: float | None


class LineTold(Told):
    """A line with its food and grams, its range, and what was assumed. [g]"""

    text: str
    food: str | None
    name: str | None
    grams: float | None
    low: float | None
    high: float | None
    bought_grams: float | None
    basis: str
    sure: bool
    cooked_grams: float | None
    assumptions: list[str]


class UnresolvedTold(Told):
    """A line that is not counted, why, and what comes near."""

    text: str
    sure: bool
    why: str
    several: list[str]
    candidates: list[str]


class BatchTold(Told):
    """All that was cooked. [g]"""

    grams: float | None
    nutrients: dict[str, NutrientTold]


class ServingTold(BatchTold):
    """One serving [g], with its indices, null where they are not known."""

    indices: dict[str, float | None]


class YieldTold(Told):
    """What the recipe says that it makes, and what it comes to. [g]"""

    claimed: str | None
    computed_grams: float | None
    measured_grams: float | None
    servings: float
    serving_measure: str | None


class RecipeAnswer(Told):
    """A recipe reckoned, by batch and serving, and its lines."""

    title: str
    servings: float
    batch: BatchTold
    serving: ServingTold
    yields: YieldTold = Field(alias="yield")
    lines: list[LineTold]
    unresolved: list[UnresolvedTold]
    why: dict[str, Any] = {}


def _round(value: float | None) -> float | None:
    return None if value is None else rounded(value, SIGNIFICANT)


def _nutrients(profile: Profile) -> dict[str, NutrientTold]:
    """Every nutrient of the table."""
    amounts = ((nutrient, profile[nutrient.key]) for nutrient in NUTRIENTS)
    return {
        nutrient.key: NutrientTold(
            amount=_round(value.amount),
            low=_round(value.low),
            high=_round(value.high),
            unit=nutrient.unit,
            known=_round(value.known),
        )
        for nutrient, value in amounts
    }


def _line(line: Line, cooked: Cooked | None) -> LineTold:
    return LineTold(
        text=line.text,
        food=line.food.slug if line.food else None,
        name=line.food.name if line.food else None,
        grams=_round(line.grams),
        low=_round(line.low),
        high=_round(line.high),
        bought_grams=_round(line.bought),
        basis=line.basis,
        sure=line.sure,
        cooked_grams=_round(cooked.grams) if cooked else None,
        assumptions=[*line.assumed, *(cooked.assumed if cooked else ())],
    )


def report(facts: Facts) -> RecipeAnswer:
    """The recipe as it is told."""
    serving, recipe = facts.serving, facts.recipe
    yields = YieldTold(
        claimed=recipe.claimed or None,
        computed_grams=_round(facts.computed_g),
        measured_grams=_round(recipe.batch_g),
        servings=recipe.servings,
        serving_measure=counted(recipe.serving_measure)[1] or None,
    )
    found = indices.all_indices(serving)
    return RecipeAnswer.model_validate(
        {
            "title": recipe.title,
            "servings": recipe.servings,
            "batch": BatchTold(grams=_round(facts.batch.grams), nutrients=_nutrients(facts.batch)),
            "serving": ServingTold(
                grams=_round(serving.grams),
                nutrients=_nutrients(serving),
                indices={key: _round(value) for key, value in found.items()},
            ),
            "yield": yields,
            "lines": [
                _line(line, cooked)
                for line, cooked in zip(facts.lines, facts.cooked, strict=True)
                if line.resolved
            ],
            "unresolved": [
                UnresolvedTold(
                    text=line.text,
                    sure=False,
                    why=line.why,
                    several=list(line.several),
                    candidates=[match.food.slug for match in line.candidates],
                )
                for line in facts.unresolved
            ],
        }
    )


def as_text(facts: Facts) -> str:
    """The recipe as a page of text: lines, then per serving, per 100 g and per batch."""
    out = []
    if facts.recipe.title:
        out += [facts.recipe.title, "=" * len(facts.recipe.title)]
    for line, cooked in zip(facts.lines, facts.cooked, strict=True):
        if line.food is not None and line.grams is not None:
            after = (
                f" -> {cooked.grams:.0f} g cooked"
                if cooked and abs(cooked.grams - line.grams) >= 0.5
                else ""
            )
            out.append(
                f"{line.grams:8.1f} g ({line.low:.0f}-{line.high:.0f}, {line.basis}){after}  "
                f"{line.food.name}  <- {line.text}"
            )
        else:
            near = ", ".join(match.food.name for match in line.candidates[:3])
            out.append(
                f"  not counted: {line.text}: {line.why}" + (f" (near: {near})" if near else "")
            )
    differs = facts.measured_differs
    if differs is not None:
        out.append(
            f"The batch weighed {facts.recipe.batch_g:.0f} g; the lines come to "
            f"{facts.computed_g:.0f} g ({differs:+.0%})."
        )
        if facts.asks_what_was_left_out:
            out.append("That is more than 15 % apart: was a line left out, or how it was cooked?")
    serving, per_100, batch = facts.serving, facts.per_100_g, facts.batch
    out += ["", f"{'':24}{'per serving':>16}{'':14}{'per 100 g':>12}{'per batch':>14}  known"]
    out.append(f"{'Weight':24}{serving.grams:>14.0f} g{'':14}{100:>10} g{batch.grams:>12.0f} g")
    for key in PRINTED:
        nutrient, value = NUTRIENT[key], serving[key]
        places = nutrient.decimals
        name = f"{nutrient.name[:17]} [{nutrient.unit}]"
        spread = f"({value.low:.{places}f}-{value.high:.{places}f})"
        row = (
            f"{value.amount:>16.{places}f} "
            f"{spread:<13}{per_100[key].amount:>12.{places}f}{batch[key].amount:>14.{places}f}"
        )
        out.append(f"{name:24}{row}  {value.known:.0%}" + ("" if value.complete else "  at least"))
    out.append("")
    words = {
        "kcal_per_gram": "kcal per gram",
        "kcal_per_pound": "kcal per pound",
        "protein_per_100_kcal": "g protein per 100 kcal",
        "protein_energy_percent": "% of energy from protein",
        "pral_meq": "mEq potential renal acid load a serving",
    }
    for key, index in indices.all_indices(serving).items():
        out.append(f"{'unknown' if index is None else f'{index:.2f}':>10} {words[key]}")
    return "\n".join(out)
