"""The units that a line may be measured in: names people write, and what they are in milliliters or
grams, by Pint."""

from __future__ import annotations

from functools import cache, lru_cache

from pint import UnitRegistry

VOLUME_NAMES: dict[str, tuple[str, ...]] = {
    "cup": ("cup", "cups", "c", "c.", "cupful", "cupfuls"),
    "tbsp": (
        *("tbsp", "tbsps", "tbsp.", "tablespoon", "tablespoons", "tablespoonful", "tablespoonfuls"),
        *("tbs", "tbs.", "tbl", "tblsp", "tblspn"),
    ),
    "tsp": ("tsp", "tsps", "tsp.", "teaspoon", "teaspoons", "teaspoonful", "teaspoonfuls", "tspn"),
    "dsp": ("dsp", "dessertspoon", "dessertspoons", "dessert spoon", "dessert spoons"),
    "ml": ("ml", "mls", "milliliter", "milliliters", "millilitre", "millilitres", "cc"),
    "cl": ("cl", "centiliter", "centiliters", "centilitre", "centilitres"),
    "dl": ("dl", "deciliter", "deciliters", "decilitre"),
    "l": ("l", "liter", "liters", "litre", "litres"),
    "fl oz": ("fl oz", "fl. oz.", "fluid ounce", "fluid ounces"),
    "pint": ("pint", "pints", "pt"),
    "quart": ("quart", "quarts", "qt"),
}
WEIGHT_NAMES: dict[str, tuple[str, ...]] = {
    "g": ("g", "g.", "gram", "grams", "gm", "gms", "gr"),
    "kg": ("kg", "kgs", "kilogram", "kilograms", "kilo", "kilos"),
    "mg": ("mg", "milligram", "milligrams"),
    "oz": ("oz", "oz.", "ounce", "ounces"),
    "lb": ("lb", "lbs", "lb.", "lbs.", "pound", "pounds"),
}
COUNT_NAMES: dict[str, tuple[str, ...]] = {
    "clove": ("clove", "cloves"),
    "slice": ("slice", "slices", "rasher", "rashers"),
    "square": ("square", "squares"),
    "leaf": ("leaf", "leaves"),
    "sprig": ("sprig", "sprigs"),
    "stalk": ("stalk", "stalks", "stick", "sticks"),
    "rib": ("rib", "ribs"),
    "head": ("head", "heads", "bulb", "bulbs"),
    "bunch": ("bunch", "bunches", "bundle", "bundles"),
    "handful": ("handful", "handfuls", "fistful", "fistfuls"),
    "spoon": ("spoon", "spoons", "spoonful", "spoonfuls"),
    "ladle": ("ladle", "ladles", "ladleful", "ladlefuls"),
    "plate": ("plate", "plates", "plateful", "platefuls"),
    "katori": ("katori", "katoris"),
    "fist": ("fist", "fists"),
    "pot": ("pot", "pots"),
    "little": ("littlebit",),
    "kcal": ("kcal", "calories", "cal"),
    "pinch": ("pinch", "pinches"),
    "dash": ("dash", "dashes"),
    "smidgen": ("smidgen", "smidgens"),
    "glug": ("glug", "glugs"),
    "dollop": ("dollop", "dollops"),
    "can": ("can", "cans", "tin", "tins"),
    "jar": ("jar", "jars"),
    "package": (
        "package",
        "packages",
        "packet",
        "packets",
        "pack",
        "packs",
        "pkg",
        "bag",
        "bags",
        "box",
        "boxes",
        "snack box",
        "carton",
        "cartons",
        "pouch",
        "pouches",
        "tube",
        "tubes",
        "tub",
        "tubs",
        "container",
        "containers",
        "sachet",
        "sachets",
        "bottle",
        "bottles",
    ),
    "punnet": ("punnet", "punnets"),
    "block": ("block", "blocks"),
    "sheet": ("sheet", "sheets"),
    "piece": ("piece", "pieces"),
    "cube": ("cube", "cubes"),
    "knob": ("knob", "knobs"),
    "thumb": ("thumb", "thumbs"),
    "inch": ("inch", "inches"),
    "spear": ("spear", "spears"),
    "ear": ("ear", "ears", "cob", "cobs"),
    "glass": ("glass", "glasses"),
    "mug": ("mug", "mugs"),
    "bowl": ("bowl", "bowls"),
    "nest": ("nest", "nests"),
    "shot": ("shot", "shots"),
    "strip": ("strip", "strips"),
    "second": ("second spray", "seconds spray", "second sprays", "second", "seconds"),
    "spray": ("spray", "sprays", "spritz", "spritzes"),
    "floret": ("floret", "florets"),
    "wedge": ("wedge", "wedges"),
    "cap": ("cap", "caps"),
    "squeeze": ("squeeze", "squeezes"),
    "serving": ("serving", "servings", "portion", "portions"),
    "splash": ("splash", "splashes"),
    "scoop": ("scoop", "scoops"),
    "drizzle": ("drizzle", "drizzles"),
    "small": ("small",),
    "medium": ("medium", "med", "medium-sized", "average"),
    "large": ("large", "lg", "big"),
    "extra large": ("extra large", "extra-large", "xl", "jumbo"),
}
# Printed on labels, and nothing a cook weighs.
MICROGRAM = "µg"
_PINT = {
    "cup": "cup",
    "tbsp": "tablespoon",
    "tsp": "teaspoon",
    "ml": "milliliter",
    "cl": "centiliter",
    "dl": "deciliter",
    "l": "liter",
    "fl oz": "fluid_ounce",
    "pint": "pint",
    "quart": "quart",
    "g": "gram",
    "kg": "kilogram",
    "mg": "milligram",
    MICROGRAM: "microgram",
    "oz": "ounce",
    "lb": "pound",
}
UNIT_OF: dict[str, str] = {
    name: unit
    for names in (VOLUME_NAMES, WEIGHT_NAMES, COUNT_NAMES)
    for unit, all_names in names.items()
    for name in all_names
}
# A capital T is a tablespoon, a small t a teaspoon: the one place where case counts.
CASED = {"T": "tbsp", "Tb": "tbsp", "t": "tsp"}


@lru_cache(maxsize=1)
def _registry() -> UnitRegistry[float]:
    return UnitRegistry()


# Whose cups and spoons. What a system does not name is as in the US.
SYSTEM_WORDS = {
    "us": "US (cup 237 mL, tablespoon 15 mL)",
    "metric": "metric (cup 250 mL, tablespoon 15 mL)",
    "imperial": "imperial (cup 284 mL, tablespoon 18 mL, pint 568 mL)",
    "australian": "Australian (cup 250 mL, tablespoon 20 mL)",
}
_IMPERIAL = {
    "cup": "imperial_cup",
    "pint": "imperial_pint",
    "quart": "imperial_quart",
    "fl oz": "imperial_fluid_ounce",
}
# Spoons by definition; the imperial ones: common practice, no source. [mL]
_SPOONS = {
    "metric": {"cup": 250.0, "tbsp": 15.0, "tsp": 5.0},
    "imperial": {"tbsp": 17.76, "tsp": 5.92},
    "australian": {"cup": 250.0, "tbsp": 20.0, "tsp": 5.0},
}


# Two teaspoons, in every system. Common practice, no source. [mL]
DESSERTSPOON_ML = 10.0


@cache
def milliliters(unit: str, system: str = "us") -> float | None:
    """Milliliters in one `unit` of a system, None when it is not a volume. [mL] Raises KeyError for
    a system not in SYSTEM_WORDS."""
    if unit == "dsp":
        return DESSERTSPOON_ML
    if system != "us":
        own = _SPOONS[system].get(unit)
        if own is not None:
            return own
        if system == "imperial" and unit in _IMPERIAL:
            return float(_registry()(_IMPERIAL[unit]).to("milliliter").magnitude)
    return (
        float(_registry()(_PINT[unit]).to("milliliter").magnitude) if unit in VOLUME_NAMES else None
    )


@cache
def grams(unit: str) -> float | None:
    """Grams in one `unit`, None when it is not a weight. [g]"""
    weight = unit in WEIGHT_NAMES or unit == MICROGRAM
    return float(_registry()(_PINT[unit]).to("gram").magnitude) if weight else None
