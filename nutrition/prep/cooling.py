"""The big pot that must cool: when it is a caution, and what to do."""

from __future__ import annotations

from dataclasses import dataclass

# A pot deeper than a shallow pan does not cool in time by itself. Common practice after FDA Food
# Code 3-501.15 (shallow pans, smaller portions, ice), from memory. [mL]
BIG_POT_ML = 2000.0


@dataclass(frozen=True)
class Cooling:
    """What to do with a hot pot, why, to whom to turn, and the source."""

    text: str
    why: str
    refer_to: str
    source: str


# What goes into a flask, or comes out of it too cool, is no lunch.
FLASK = Cooling(
    text="In the flask: fill it with boiling water for ten minutes first, the food in at a boil, "
    "and eat it within six hours. Below 135 °F (57 °C) when it is opened, it is thrown away.",
    why="Between warm and hot, what was cooked through grows again.",
    refer_to="the flask's own directions, and the local food safety authority",
    source="FDA Food Code 3-501.16 (hot holding at 135 °F), from memory; six hours: common "
    "practice, no source",
)


def cooling_of(volume_ml: float, heated: bool) -> Cooling | None:
    """The caution for so much hot food [mL]; None for a pot that cools by itself, or nothing
    hot."""
    if not heated or volume_ml < BIG_POT_ML:
        return None
    return Cooling(
        text=f"{volume_ml / 1000:.1f} L of hot food: divide it into shallow containers, two inches "
        "deep at most, within the first hour; lids ajar until cold, in a single layer, or the pot "
        "in ice water and stirred. From 135 to 70 °F (57 to 21 °C) within two hours, to 41 °F "
        "(5 °C) within four more; what did not make it is thrown away.",
        why="The usual mistake is to put the hot pot into the refrigerator whole: its middle stays "
        "warm all night, and spores that outlived the boiling grow in it.",
        refer_to="the local food safety authority's rules for cooling stand above this",
        source="FDA Food Code 3-501.14 and 3-501.15, from memory",
    )
