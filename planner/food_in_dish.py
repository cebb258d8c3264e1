"""A food inside a dish that is planned: the planned copy made with another amount of it, while the
recipe and the bowl stay as they are."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from nutrition.recipe.model import choice_keys
from nutrition.written.typed_amounts import leveled_range
from planner.models import Eaten
from planner.planned_copies import kept_now
from recipes.facts import facts_of_kept

# What is left of so much of a food, by its slug; None for one that is left alone. [g]
Left = Callable[[str, float], float | None]


def with_less(entry: Eaten, left: Left) -> dict[str, Any] | None:
    """What a planned dish holds with less of some foods in it; None where it holds none of them."""
    kept = entry.planned.data if entry.planned is not None else kept_now(entry)
    if kept is None or entry.amount <= 0:
        return None
    if "bowl" not in kept:
        return _recipe_with_less(kept, entry.amount, left)
    parts, changed = [], False
    for part in kept["bowl"]:
        now = _part_with_less(part, entry.amount, left)
        changed = changed or now is not None
        parts.append(now or part)
    return kept | {"bowl": parts} if changed else None


def _part_with_less(part: dict[str, Any], count: float, left: Left) -> dict[str, Any] | None:
    if part["recipe"] is not None:
        facts = facts_of_kept(part["recipe"])
        served = part["grams"] / facts.serving.grams if facts.serving.grams > 0 else 0.0
        made = _recipe_with_less(part["recipe"], count * served, left)
        return None if made is None else part | {"recipe": made}
    to = left(part["food"], part["grams"] * count)
    if to is None:
        return None
    low, high = leveled_range(to / count)
    return part | {"grams": to / count, "low_g": low, "high_g": high}


def _recipe_with_less(kept: dict[str, Any], servings: float, left: Left) -> dict[str, Any] | None:
    facts = facts_of_kept(kept)
    share = servings / facts.recipe.servings
    choices, changed = dict(kept["choices"]), False
    for key, line in zip(choice_keys(facts.recipe.lines), facts.lines, strict=True):
        if line.food is None or not line.grams or share <= 0:
            continue
        to = left(line.food.slug, line.grams * share)
        if to is not None:
            choices[key] = dict(choices.get(key, {})) | {"grams": to / share}
            changed = True
    return kept | {"choices": choices} if changed else None
