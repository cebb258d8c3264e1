"""A reckoned recipe as plain data, and as text for a terminal."""

from __future__ import annotations

from nutrition.composition.cooking import Cooked
from nutrition.composition.nutrients import NUTRIENT, NUTRIENTS
from nutrition.composition.profile import Profile
from nutrition.insight import indices
from nutrition.recipe.reckoning import Facts
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


def _round(value: float | None) -> float | None:
    return None if value is None else float(f"{value:.{SIGNIFICANT}g}")


def nutrients(profile: Profile) -> dict[str, dict[str, object]]:
    """Every nutrient of the table with amount, range, unit and the share of the grams that is
    known."""
    out: dict[str, dict[str, object]] = {}
    for nutrient in NUTRIENTS:
        value = profile[nutrient.key]
        out[nutrient.key] = {
            "amount": _round(value.amount),
            "low": _round(value.low),
            "high": _round(value.high),
            "unit": nutrient.unit,
            "known": _round(value.known),
        }
    return out


def _line(line: Line, cooked: Cooked | None) -> dict[str, object]:
    return {
        "text": line.text,
        "food": line.food.slug if line.food else None,
        "name": line.food.name if line.food else None,
        "grams": _round(line.grams),
        "low": _round(line.low),
        "high": _round(line.high),
        "bought_grams": _round(line.bought),
        "basis": line.basis,
        "sure": line.sure,
        "cooked_grams": _round(cooked.grams) if cooked else None,
        "assumptions": [*line.assumed, *(cooked.assumed if cooked else ())],
    }


def as_data(facts: Facts) -> dict[str, object]:
    """The recipe as JSON-ready data; the keys are the command's published ones."""
    serving = facts.serving
    return {
        "title": facts.recipe.title,
        "servings": facts.recipe.servings,
        "batch": {"grams": _round(facts.batch.grams), "nutrients": nutrients(facts.batch)},
        "serving": {
            "grams": _round(serving.grams),
            "nutrients": nutrients(serving),
            "indices": {key: _round(value) for key, value in indices.all_indices(serving).items()},
        },
        "yield": {
            "claimed": facts.recipe.claimed or None,
            "computed_grams": _round(facts.computed_g),
            "measured_grams": _round(facts.recipe.batch_g),
            "servings": facts.recipe.servings,
            "serving_measure": counted(facts.recipe.serving_measure)[1] or None,
        },
        "lines": [
            _line(line, cooked)
            for line, cooked in zip(facts.lines, facts.cooked, strict=True)
            if line.resolved
        ],
        "unresolved": [
            {
                "text": line.text,
                "sure": False,
                "why": line.why,
                "several": list(line.several),
                "candidates": [match.food.slug for match in line.candidates],
            }
            for line in facts.unresolved
        ],
    }


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
