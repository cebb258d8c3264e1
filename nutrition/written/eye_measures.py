"""What is measured by eye weighs: pinches, handfuls, glasses, bunches, what is left to taste. All
common practice, no source."""

from __future__ import annotations

BY_EYE = {
    "smidgen",
    "glug",
    "dollop",
    "handful",
    "pinch",
    "dash",
    "splash",
    "drizzle",
    "squeeze",
    "knob",
    "thumb",
    "bunch",
}
# What one of these weighs when the food has no row of its own. Common practice, no source. [g]
COMMON_GRAMS = {
    "smidgen": 0.15,
    "glug": 14.0,
    "dollop": 20.0,
    "pinch": 0.3,
    "dash": 0.6,
    "splash": 10.0,
    "drizzle": 7.0,
    "squeeze": 5.0,
    "knob": 15.0,
    "scoop": 30.0,
    # cooking spray: a third of a second is a label's serving of 0.25 g
    "second": 0.75,
    "spray": 0.25,
    "strip": 5.0,
    "square": 8.0,
}
# Room in a glass, a mug, a plate or a ladle as it is filled: best, least, most. Common practice, no
# source. [mL]
VESSELS = {
    "spoon": (12.0, 6.0, 22.0),
    "ladle": (120.0, 75.0, 180.0),
    "plate": (400.0, 240.0, 600.0),
    "katori": (150.0, 110.0, 200.0),
    "fist": (200.0, 130.0, 270.0),
    "glass": (240.0, 180.0, 300.0),
    "mug": (280.0, 220.0, 350.0),
    "bowl": (350.0, 240.0, 470.0),
    "shot": (30.0, 25.0, 45.0),
}
HANDFUL_GRAMS = {
    "fresh herb": 12.0,
    "leafy green": 25.0,
    "nut": 30.0,
    "seed": 25.0,
    "dried fruit": 30.0,
    "fruit": 60.0,
    "vegetable": 50.0,
    "mushroom": 40.0,
    "pasta": 50.0,
    "grain": 40.0,
}
# "A little", "a bit": best, least, most, by group, and for all else. Common practice, no source.
# [g]
LITTLE_GRAMS = (
    (("salt",), (0.5, 0.1, 1.2)),
    (("spice", "dried herb"), (0.3, 0.05, 1.0)),
    (("fresh herb",), (2.0, 0.5, 6.0)),
    (("oil",), (4.0, 1.0, 10.0)),
    (("drink", "broth", "plant milk", "fruit juice"), (30.0, 10.0, 80.0)),
)
ZEST_LITTLE = (1.0, 0.3, 3.0)
# A small or large glass, bowl or plate against the usual. Common practice, no source.
VESSEL_SIZE = {"small": 0.65, "large": 1.35, "extra large": 1.6}
LITTLE_OTHER = (8.0, 2.0, 25.0)
# A pot of yogurt as it is bought for one: best, least, most. Common practice, no source. [g]
POT_GRAMS = (150.0, 100.0, 200.0)
# A wedge and a slice as a share of the whole fruit: best, least, most. Common practice, no source.
PART_OF_ONE = {"wedge": (1 / 6, 1 / 8, 1 / 4), "slice": (1 / 9, 1 / 14, 1 / 6)}
# A bunch of what has no bunch of its own: best, least, most. Common practice, no source. [g]
BUNCH_GRAMS = {
    "fresh herb": (50.0, 25.0, 100.0),
    "leafy green": (250.0, 150.0, 400.0),
    "vegetable": (300.0, 150.0, 500.0),
}
# What "to taste", "as needed" or "for serving" comes to for a whole dish: best, least, most. Common
# practice, no source. [g]
LOOSE_GRAMS = (
    (("salt",), (2.0, 0.0, 6.0)),
    (("spice", "dried herb"), (0.7, 0.0, 2.5)),
    (("fresh herb",), (6.0, 0.0, 20.0)),
    (("oil",), (9.0, 0.0, 28.0)),
    (("drink", "broth", "plant milk"), (60.0, 0.0, 250.0)),
)
# Given without an amount, so much of these is meant.
UNMEASURED = ("salt", "spice", "dried herb", "fresh herb")
# A pan that is sprayed: best, least, most. Common practice, no source. [g]
SPRAY, SPRAYED_GRAMS = "spray", (1.0, 0.2, 4.0)
LOOSE_OTHER = (10.0, 0.0, 40.0)
# What a punnet holds. Common practice, no source. [g]
PUNNET_GRAMS = (250.0, 150.0, 400.0)
