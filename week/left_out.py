"""Dishes of the practice that are left out of a client's weeks, why, and the change that would let
them in."""

from __future__ import annotations

from dataclasses import dataclass

from clients.models import Client
from nutrition.recipe.model import choice_keys
from nutrition.safety.gate import Gate
from nutrition.swaps.let_in import is_the_same_dish, let_in
from practice.models import User
from recipes.client_copies import copy_with_lines, save_own
from recipes.facts import facts_of, parts_at_hand
from recipes.models import Recipe
from recipes.ownership import open_to
from week.dishes import of_recipe
from week.favorites import decide

# So many of a kind are told, and so many recipes are looked at.
MOST_TOLD, MOST_LOOKED_AT = 4, 80


@dataclass(frozen=True, kw_only=True)
class LeftOut:
    """A recipe that may not be served, why, and the change that would let it in, if one was found
    and tried."""

    recipe: Recipe
    why: str
    change: str


def left_out(client: Client, gate: Gate) -> dict[str, list[LeftOut]]:
    """Of each kind the recipes that are left out, those that a change lets in first."""
    out: dict[str, list[LeftOut]] = {}
    if gate.closed:
        return out
    with parts_at_hand():
        for recipe in open_to(client)[:MOST_LOOKED_AT]:
            thing = of_recipe(recipe)
            if thing is None or thing.unsettled:
                continue
            why = gate.why_not_dish(thing.portion.foods)
            if not why:
                continue
            made = made_to_fit(recipe, client, gate)
            row = LeftOut(recipe=recipe, why=why, change=made[1] if made else "")
            for kind in thing.kinds:
                out.setdefault(kind, []).append(row)
    return {
        kind: sorted(rows, key=lambda one: (not one.change, one.recipe.title))[:MOST_TOLD]
        for kind, rows in out.items()
    }


def made_to_fit(recipe: Recipe, client: Client, gate: Gate) -> tuple[Recipe, str] | None:
    """The client's own copy with what holds it back written otherwise, not stored, and the change
    in words; None where no change that was tried lets it in."""
    facts = facts_of(recipe)
    changes = let_in(facts.lines, facts.recipe.servings, gate)
    if not changes:
        return None
    instead = {one.at: one.text for one in changes}
    lines = []
    for at, (line, key) in enumerate(
        zip(facts.lines, choice_keys(facts.recipe.lines), strict=True)
    ):
        text = instead.get(at, line.text)
        if text:
            lines.append((text, "" if at in instead else key))
    made = copy_with_lines(recipe, client, lines, facts)
    after = facts_of(made)
    kcal = facts.serving["energy_kcal"].amount, after.serving["energy_kcal"].amount
    fits = not after.unresolved and not gate.why_not_dish(after.foods())
    if not fits or not is_the_same_dish(*kcal):
        return None
    return made, ", ".join(dict.fromkeys(one.words for one in changes))


def take_in(recipe: Recipe, kind: str, client: Client, gate: Gate, by: User) -> str:
    """The change made: the client's own copy is stored and kept for a kind; what to say of it,
    nothing where it cannot be."""
    made = made_to_fit(recipe, client, gate)
    if made is None:
        return ""
    copy, words = made
    save_own(copy, by, words)
    decide(client, kind, f"recipe-{copy.pk}", "kept", by)
    return f"{copy.title}: {words}. It is kept as {kind}."
