"""A change that is offered: signed, so that only what was offered is taken, and only while it still
fits what is there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass

from django.core import signing

from nutrition.composition.foods import Food, food_table
from nutrition.swaps.swap import Step

SALT = "a swap that was offered"
# A portion below this is nothing: it is left out. [g]
LEFT_OUT_G = 0.4


class Outdated(ValueError):
    """What was offered no longer fits what is there."""


@dataclass(frozen=True, kw_only=True)
class Edit:
    """What is written for one portion: another food or dish in its place, and how much. [g] `key`
    is empty for what is added; `measure` is the amount as a cook says it."""

    key: str
    grams: float
    food: str = ""
    dish: str = ""
    measure: str = ""

    @property
    def left_out(self) -> bool:
        return self.grams <= 0


def token_for(key: str, version: int, steps: Sequence[Step], why: str) -> str:
    """What is sent to take a change of what has this key and version."""
    edits = [
        asdict(
            Edit(
                key=step.id,
                food=step.food.slug if step.food else "",
                dish=step.dish.key if step.dish else "",
                grams=step.grams,
                measure=step.measure,
            )
        )
        for step in steps
    ]
    data = {"of": key, "version": version, "edits": edits, "why": why}
    return signing.dumps(data, salt=SALT, compress=True)


def taken(token: str, key: str, version: int) -> tuple[list[Edit], str]:
    """The edits of a change that was offered, and its reason. Raises Outdated."""
    try:
        data = signing.loads(token, salt=SALT)
        edits = [Edit(**row) for row in data["edits"]]
    except (signing.BadSignature, KeyError, TypeError):
        raise Outdated("That change was not offered here.") from None
    if data["of"] != key or data["version"] != version:
        raise Outdated("It was changed since this was offered: look at the swaps again.")
    return edits, data["why"]


def swapped_in(slug: str) -> Food:
    """The food that an edit brings in. Raises Outdated where the table has it no more."""
    food = food_table().usable(slug)
    if food is None:
        raise Outdated("That food is no longer in the table.")
    return food
