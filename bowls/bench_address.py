"""Where a dish is looked at line by line, for what there is too much of."""

from __future__ import annotations

from urllib.parse import urlencode

from django.urls import reverse

from bowls.forms import LIMITED


def bench_for(recipe: int | None, nutrient: str, most: float, ml: float) -> str:
    """The bench of a recipe, asked to keep a portion of so much room [mL] to a most of a nutrient
    [its unit]; empty for none, and for what the bench does not know."""
    if recipe is None or nutrient not in LIMITED:
        return ""
    asked = {"key": nutrient, "most": f"{most:.4g}", "per_bowl_ml": f"{max(ml, 5.0):.0f}"}
    return f"{reverse('bowls:sauce', args=[recipe])}?{urlencode(asked)}"
