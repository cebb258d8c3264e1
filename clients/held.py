"""What the gate holds back of a bowl or a day: said before anything is proposed, with the offer to
leave it out or replace it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from clients.swap_panel import token_for
from nutrition.composition.foods import Food
from nutrition.composition.portion import Ingredient
from nutrition.safety.gate import Gate, Limit
from nutrition.swaps.library import for_food
from nutrition.swaps.ranking import Step, kitchen
from nutrition.written.plain import uncapitalized

MOST_INSTEAD = 3


@dataclass(frozen=True, kw_only=True)
class Item:
    """A part of a bowl or an entry of a day: its key, what it is called, its foods in `grams` of it
    [g]; `food` is None for a dish."""

    id: str
    name: str
    foods: Sequence[Ingredient]
    grams: float
    food: Food | None
    locked: bool = False


@dataclass(frozen=True)
class Held:
    """One that is held back and why; the offers are words with what is sent to take them. `inside`
    names the foods of a dish that are meant: it can be made without them."""

    item: Item
    limit: Limit
    offers: list[tuple[str, str]]
    inside: list[str]


def limit_of(gate: Gate, item: Item) -> Limit:
    return gate.limit(item.foods, item.grams, dish=item.food is None)


def barred_foods(gate: Gate, foods: Iterable[Ingredient]) -> list[Food]:
    """The foods among these that are to be asked about before they are served."""
    return list(
        {
            part.food.slug: part.food
            for part in foods
            if any(bar.stops for bar in gate.of(part.food, part.grams))
        }.values()
    )


def held(items: Iterable[Item], gate: Gate, key: str, version: int) -> list[Held]:
    """Everything that is held back, what is to be asked about first."""
    out = []
    for item in items:
        limit = limit_of(gate, item)
        if not limit.bars:
            continue
        offers, inside = [], []
        if limit.stops or limit.most < item.grams:
            out_step = Step(item.id, "out", item.food, 0.0, "")
            offers.append(
                (
                    "Leave it out",
                    token_for(key, version, [out_step], f"without {uncapitalized(item.name)}"),
                )
            )
            if item.food is not None:
                offers += _instead(item, item.food, gate, key, version)
            else:
                inside = [food.name for food in barred_foods(gate, item.foods)]
        out.append(Held(item, limit, offers, inside))
    return sorted(out, key=lambda one: not one.limit.stops)


def _instead(item: Item, food: Food, gate: Gate, key: str, version: int) -> list[tuple[str, str]]:
    out = []
    for row in for_food(food):
        if len(out) < MOST_INSTEAD and not gate.why_not(row.to):
            grams, measure = kitchen(row.to, item.grams * row.ratio)
            step = Step(item.id, "instead", row.to, grams, "", measure=measure)
            words = f"{row.to.name} instead, {measure or f'{grams:.0f} g'}"
            out.append(
                (
                    words,
                    token_for(
                        key,
                        version,
                        [step],
                        f"{uncapitalized(row.to.name)} instead of {uncapitalized(food.name)}",
                    ),
                )
            )
    return out
