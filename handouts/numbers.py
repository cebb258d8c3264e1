"""What a serving brings, in the numbers that a client is handed: each with its range, and without
those that can harm them."""

from __future__ import annotations

from dataclasses import dataclass

from clients.models import Client
from nutrition.composition.amounts import amount_of
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Profile
from webkit import figures

# On paper in this order; of calories nothing is said to whom such numbers can harm.
ON_PAPER = (
    *("energy_kcal", "protein_g", "carbohydrate_g", "fiber_g", "fat_g", "sodium_mg"),
    *("potassium_mg", "calcium_mg", "iron_mg"),
)


@dataclass(frozen=True)
class Number:
    """One of them in words: what, how much, from what to what, and how far it is known."""

    name: str
    amount: str
    span: str
    unknown: str


def numbers_of(client: Client | None, profile: Profile) -> list[Number]:
    """The numbers of something eaten, as they are printed for a client."""
    hidden = client.kept_off if client is not None else frozenset()
    return [
        Number(
            NUTRIENT[key].name,
            figures.amount(amount_of(profile, key), key),
            figures.span(amount_of(profile, key), key),
            figures.unknown(amount_of(profile, key)),
        )
        for key in ON_PAPER
        if key not in hidden
    ]
