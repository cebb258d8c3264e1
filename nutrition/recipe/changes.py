"""Two versions of a recipe side by side: which lines changed, and what each change did to a
serving."""

from __future__ import annotations

import difflib
from dataclasses import dataclass

from nutrition.composition.foods import food_table
from nutrition.recipe.model import choice_keys
from nutrition.recipe.reckoning import Facts
from nutrition.written.line import Line

SHOWN = ("energy_kcal", "protein_g", "fiber_g", "sodium_mg", "potassium_mg", "fat_g")


@dataclass(frozen=True)
class LineChange:
    """A line before and after, either may be missing, and the difference it makes per serving by
    key; None where unknown."""

    before: str
    after: str
    effect: dict[str, float | None]

    @property
    def kind(self) -> str:
        """ "same", "changed", "added" or "left out" """
        if self.before == self.after:
            return "same"
        return "added" if not self.before else "left out" if not self.after else "changed"


def _brings(facts: Facts, place: int | None, key: str) -> float | None:
    if place is None:
        return 0.0
    line, cooked = facts.rows[place]
    if line.food is None or cooked is None or line.food.per_100_g(key) is None:
        return None
    return cooked.profile[key].amount / facts.recipe.servings


def _effect(
    before: Facts, after: Facts, old: int | None, new: int | None
) -> dict[str, float | None]:
    out: dict[str, float | None] = {}
    for key in SHOWN:
        was, now = _brings(before, old, key), _brings(after, new, key)
        out[key] = None if was is None or now is None else now - was
    return out


def _said(facts: Facts) -> list[str]:
    """Every line as it was written, with the food and the grams that were set by hand. [g]"""
    recipe, table, out = facts.recipe, food_table(), []
    for line, key in zip(facts.lines, choice_keys(recipe.lines), strict=True):
        choice = recipe.choices.get(key)
        by_hand = []
        if choice is not None and choice.food:
            food = table.get(choice.food)
            by_hand.append(food.name if food is not None else choice.food)
        if choice is not None and choice.grams is not None:
            by_hand.append(f"{choice.grams:g} g")
        out.append(f"{line.text} (set by hand: {', '.join(by_hand)})" if by_hand else line.text)
    return out


def side_by_side(before: Facts, after: Facts) -> list[LineChange]:
    """Every line of both, in order; a line that was rewritten stands beside what it was."""
    old, new = [line.text for line in before.lines], [line.text for line in after.lines]
    said_before, said_after = _said(before), _said(after)
    out = []
    for tag, i1, i2, j1, j2 in difflib.SequenceMatcher(
        None, old, new, autojunk=False
    ).get_opcodes():
        if tag == "equal":
            pairs: list[tuple[int | None, int | None]] = list(
                zip(range(i1, i2), range(j1, j2), strict=True)
            )
        else:
            pairs = _matched(before.lines, after.lines, list(range(i1, i2)), list(range(j1, j2)))
        out += [
            LineChange(
                "" if i is None else said_before[i],
                "" if j is None else said_after[j],
                _effect(before, after, i, j),
            )
            for i, j in pairs
        ]
    return out


def _matched(
    old: tuple[Line, ...], new: tuple[Line, ...], left: list[int], right: list[int]
) -> list[tuple[int | None, int | None]]:
    """Lines of the same food belong together, then those that read most alike."""
    pairs: list[tuple[int | None, int | None]] = []
    rest = list(right)
    for i in left:
        same = [j for j in rest if old[i].food is not None and old[i].food == new[j].food]
        alike = same or [
            j for j in rest if difflib.SequenceMatcher(None, old[i].text, new[j].text).ratio() > 0.6
        ]
        if alike:
            rest.remove(alike[0])
        pairs.append((i, alike[0] if alike else None))
    return pairs + [(None, j) for j in rest]
