"""What the gate holds back of a bowl or a day: said before anything is proposed, with the offer to
leave it out or replace it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from changes.offers import token_for
from clients.plan.gate import barred_foods
from nutrition.composition.foods import Food
from nutrition.composition.portion import Portion
from nutrition.safety.gate import Gate, Limit
from nutrition.swaps.library import stand_ins
from nutrition.swaps.swap import Step, kitchen
from nutrition.written.wording import uncapitalized

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
        # of what is only too much, less is proposed: no other food, of which as much may be unknown
        only_less = not limit.stops and any(bar.by_amount for bar in limit.bars)
        if (limit.stops or limit.most < item.grams) and not only_less:
            # a like food in its place before it is left out
            if item.food is not None:
                offers += _instead(item, item.food, gate, key, version, system)
            else:
                inside = [food.name for food in barred_foods(gate, item.foods)]
            out_step = Step(id=item.key, kind="out", food=item.food, grams=0.0, words="")
            offers.append(
                (
                    "Leave it out",
                    token_for(key, version, [out_step], f"without {uncapitalized(item.name)}"),
                )
            )
        out.append(Held(item, limit, offers, inside))
    return sorted(out, key=lambda one: not one.limit.stops)


def _instead(
    item: Portion, food: Food, gate: Gate, key: str, version: int, system: str
) -> list[tuple[str, str]]:
    out: list[tuple[str, str]] = []
    for other, ratio in stand_ins(food, gate, MOST_INSTEAD):
        grams, measure = kitchen(other, item.grams * ratio, system)
        step = Step(id=item.key, kind="instead", food=other, grams=grams, words="", measure=measure)
        why = f"{uncapitalized(other.name)} instead of {uncapitalized(food.name)}"
        words = f"{other.name} instead, {measure or f'{grams:.0f} g'}"
        out.append((words, token_for(key, version, [step], why)))
    return out
