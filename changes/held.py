"""What the gate holds back of a bowl or a day: said before anything is proposed, with the offer to
leave it out or replace it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from changes.offers import token_for
from clients.gate import barred_foods
from nutrition.composition.foods import Food
from nutrition.composition.portion import Portion
from nutrition.safety.gate import Gate, Limit
from nutrition.swaps.library import for_food
from nutrition.swaps.swap import Step, kitchen
from nutrition.written.plain import uncapitalized

MOST_INSTEAD = 3


@dataclass(frozen=True)
class Held:
    """One that is held back and why; the offers are words with what is sent to take them. `inside`
    names the foods of a dish that are meant: it can be made without them."""

    item: Portion
    limit: Limit
    offers: list[tuple[str, str]]
    inside: list[str]


def held(
    items: Iterable[Portion], gate: Gate, key: str, version: int, system: str = "us"
) -> list[Held]:
    """Everything that is held back, what is to be asked about first."""
    out = []
    for item in items:
        limit = gate.limit(item.foods, item.grams, dish=item.food is None)
        if not limit.bars:
            continue
        offers, inside = [], []
        if limit.stops or limit.most < item.grams:
            out_step = Step(id=item.key, kind="out", food=item.food, grams=0.0, words="")
            offers.append(
                (
                    "Leave it out",
                    token_for(key, version, [out_step], f"without {uncapitalized(item.name)}"),
                )
            )
            if item.food is not None:
                offers += _instead(item, item.food, gate, key, version, system)
            else:
                inside = [food.name for food in barred_foods(gate, item.foods)]
        out.append(Held(item, limit, offers, inside))
    return sorted(out, key=lambda one: not one.limit.stops)


def _instead(
    item: Portion, food: Food, gate: Gate, key: str, version: int, system: str
) -> list[tuple[str, str]]:
    out: list[tuple[str, str]] = []
    for row in for_food(food):
        if len(out) < MOST_INSTEAD and not gate.why_not(row.to):
            grams, measure = kitchen(row.to, item.grams * row.ratio, system)
            step = Step(
                id=item.key, kind="instead", food=row.to, grams=grams, words="", measure=measure
            )
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
