"""The words and patterns that lines of recipes are read by."""

from __future__ import annotations

import re

from nutrition.written.units import UNIT_OF
from nutrition.written.wording import NUMBER

FORM_WORDS = {
    "cooked": "cooked",
    "boiled": "cooked",
    "steamed": "cooked",
    "dry": "dry",
    "dried": "dried",
    "uncooked": "dry",
    "raw": "raw",
    "fresh": "fresh",
    "frozen": "frozen",
    "canned": "canned",
    "tinned": "canned",
    "prepared": "prepared",
    "drained": "drained",
    "rinsed": "rinsed",
    "undrained": "undrained",
    "chopped": "chopped",
    "diced": "chopped",
    "cubed": "chopped",
    "sliced": "sliced",
    "grated": "grated",
    "shredded": "shredded",
    "minced": "minced",
    "mashed": "mashed",
    "puree": "mashed",
    "pureed": "mashed",
    "ground": "ground",
    "packed": "packed",
    "whole": "whole",
    "peeled": "peeled",
    "unpeeled": "unpeeled",
    "pitted": "pitted",
    "baked": "baked",
    "roasted": "roasted",
    "toasted": "toasted",
    "crumbled": "chopped",
    "halved": "halves",
    "quartered": "chopped",
    "trimmed": "trimmed",
    "untrimmed": "untrimmed",
}
FILLS = {
    "heaping": 1.25,
    "heaped": 1.25,
    "rounded": 1.15,
    "scant": 0.9,
    "level": 1.0,
    "generous": 1.1,
    "good": 1.1,
}

QTY = re.compile(rf"\s*({NUMBER})(?:\s*(?:-|to|or)\s*({NUMBER}))?(?:\s*([x×])(?=\s*\d))?", re.I)
PACKAGE = re.compile(
    rf"\(?\s*({NUMBER})\s*-?\s*(g|kg|oz|oz\.|ounces?|ml|l|lb|lbs|grams?|fl\.? ?oz)\b\.?\s*\)?", re.I
)
_UNITS = sorted((name for name in UNIT_OF if len(name) > 1), key=len, reverse=True)
UNIT = re.compile(
    r"\s*-?(" + "|".join(re.escape(name) for name in _UNITS) + r"|[cgl])(?![a-z])\.?", re.I
)
# How a clove or a slice looks says nothing of what it weighs.
LOOK = re.compile(
    r"\s*(?:fat|plump|thick|thin|thickly cut|long|short|juicy)\s+(?=(?:clove|slice|stalk|stick|rib"
    r"|piece|wedge|spear|sprig|leek)s?\b)",
    re.I,
)
# Begins as a unit does and is a food.
NO_UNIT = re.compile(r"\s*(?:bottle gourd|cubed|canned|head lettuce|leaf lettuce|ear fung)", re.I)
INCHES = re.compile(
    rf"\s*\(\s*({NUMBER})[\s-]*(?:inch|in\.?|\")\s*\)\s*(?:piece|knob|length)s?\b", re.I
)
JOINT = re.compile(r"\s*(plus|and|\+|&|minus|less)\s+(?=\d)", re.I)
# "1/2 tsp each cumin and coriander": one amount for several foods.
EACH_OF = re.compile(
    r"^(?P<amount>[^,(]*?)\s*\beach\b(?: of)?\s*[:,]?\s*"
    r"(?P<foods>[^,(]+(?:,| and | & | \+ )\s*\w.*)$",
    re.I,
)
EACH_AFTER = re.compile(rf"^(?P<amount>{NUMBER}\s*[a-z]+)\s+(?P<foods>.+?),? each$", re.I)
# "2 tbsp ground flaxseed + 6 tbsp water": two foods, each with its amount.
AND_ANOTHER = re.compile(
    rf"^(.*[a-z]{{3}}.*?),?\s+(?:\+|plus|and|&|mixed with|with|in)\s+({NUMBER}\s*[a-z].*)$", re.I
)
# "half of it", "use a third": what of the amount counts.
SHARE_USED = re.compile(
    r"(?:^|, |\b(?:use|using|only|just) )(?:about )?(?:a |an |one )?(half|third|quarter)"
    r"(?: (?:of it|of this|of the \w+|used|only))?(?=$|,)",
    re.I,
)
SHARES = {"half": 1 / 2, "third": 1 / 3, "quarter": 1 / 4}
PLUS_MORE = re.compile(rf"(?:^|, )(?:plus|and|\+) ({NUMBER})\s*([a-z]+)\b(?! of)", re.I)
NO_AMOUNT = "no amount given"
# No kitchen weighs or counts so much on one line.
MOST_COUNT = 10_000
OR_SIZE = re.compile(r"\s*(?:or|to|-)\s*(?:small|medium|large)\b", re.I)
FILL = re.compile(r"\s*(" + "|".join(FILLS) + r"|packed|loosely packed)\b", re.I)
TAKE = re.compile(r"^\s*(?:the\s+)?(juice|zest)(?:\s+and\s+(?:zest|juice))?\s+(?:of|from)\s+", re.I)
COUNTED = {
    *("", "small", "medium", "large", "head", "stalk", "rib", "ear", "glass", "mug", "bowl"),
    *("nest", "piece", "slice", "square", "serving", "bunch", "punnet"),
}
ASIDE = re.compile(
    rf"(?:about|approx\.?|approximately|around|weighing|~)?\s*({NUMBER})\s*-?\s*(g|kg|oz|ounces?"
    rf"|grams?|lbs?|pounds?|ml|cl|l|fl oz)\.?( each)?",
    re.I,
)
CONTAINERS = {"can", "jar", "package", "block", "pot"}
SIZES = ("small", "medium", "large", "extra large")
# Stirred into the food, it brings nothing but its weight: "1 tbsp ground flaxseed + 3 tbsp water".
WITH_WATER = re.compile(
    rf",?\s+(?:\+|plus|and|&|mixed with|with|in)\s+(?P<water>{NUMBER}\s*[a-z]+\.?\s+(?:of )?"
    r"(?:(?:hot|warm|cold|boiling|lukewarm|tap) )?water)\b.*$",
    re.I,
)
# What may follow a unit without a word between.
SMALLER = {
    "kg": ("g",),
    "lb": ("oz",),
    "l": ("ml",),
    "pint": ("cup", "tbsp", "fl oz"),
    "quart": ("cup", "tbsp", "fl oz"),
    "cup": ("tbsp", "tsp"),
    "tbsp": ("tsp",),
}
# A count word that follows its food: "celery stalks", "garlic cloves", "walnut halves".
COUNT_AFTER = re.compile(
    r"^(.+?) (stalks?|ribs?|sticks?|cloves?|sheets?|leaf|leaves|sprigs?|heads?|bulbs?|florets?"
    r"|slices?|wedges?|bunch|bunches|spears?|ears?|"
    r"halves|caps?)$",
    re.I,
)
# An amount that is left to the cook.
LOOSE = re.compile(
    r"\b(to taste|as needed|as required|for serving|to serve|for garnish|to garnish|for drizzling"
    r"|for dusting|for frying|for greasing|for the pan|to thin|to cover|to loosen|to finish"
    r"|to sprinkle|for sprinkling)\b",
    re.I,
)
PURPOSE = re.compile(
    r"\s+(?:to (?:thin|taste|serve|garnish|cover|drizzle|finish|loosen)|for (?:serving|garnish"
    r"|dusting|topping|drizzling|cooking|frying|brushing|dressing))\b.*$",
    re.I,
)


# Seasoned with both: the salt is what counts.
SALT_AND_PEPPER = re.compile(
    r"\bsalt (?:and|&|\+) (?:(?:freshly|ground|cracked|black|white|fresh) )*pepper\b", re.I
)
