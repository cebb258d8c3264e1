"""The round of a dish: its portions as sectors by volume, the rim by what each brings."""

from collections.abc import Mapping, Sequence

from nutrition.composition.amounts import amount_of
from nutrition.composition.portion import Dish, Portion
from webkit.drawing.round import Slice, outlines, picture

# What is eaten fills so much of a round that has no vessel of its own, so that a larger proposal
# still finds room. [share]
FILLED = 0.8


def dish_round(
    dish: Dish,
    key: str,
    vessel_ml: float | None = None,
    addresses: Mapping[str, str] | None = None,
) -> dict[str, object]:
    """The drawing of a dish, its rim by each portion's share of a nutrient. [mL] `addresses` are
    where a dragged portion is sent to, by its key."""
    total = amount_of(dish.profile, key).amount
    slices = []
    for number, one in enumerate(dish.portions, 1):
        own = amount_of(one.profile, key)
        slices.append(
            Slice(
                role=one.role,
                volume=one.volume_ml,
                share=own.amount / total if total > 0 and own.known > 0 else None,
                star=one.star,
                name=one.name,
                number=number,
                url=(addresses or {}).get(one.key, ""),
                pk=int(one.key) if one.key.isascii() and one.key.isdigit() else 0,
            )
        )
    return picture(slices, vessel_ml or dish.volume_ml / FILLED)


def outlined(portions: Sequence[Portion], room_ml: float) -> list[str]:
    """Outlines of portions in so much room. [mL]"""
    slices = [Slice(role=one.role, volume=one.volume_ml, share=None) for one in portions]
    return outlines(slices, room_ml)


def ghosts(
    portions: Sequence[Portion], grams: Mapping[str, float], vessel_ml: float | None = None
) -> list[str]:
    """Outlines of portions as they would be with so many grams, by key. [g], [mL]"""
    slices = [
        Slice(role=one.role, volume=one.volume_ml * one.share(grams[one.key]), share=None)
        for one in portions
    ]
    return outlines(slices, vessel_ml or sum(one.volume_ml for one in portions) / FILLED)
