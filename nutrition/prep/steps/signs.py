"""Words of a step that decide where it is done and what it waits for."""

from __future__ import annotations

import re

# Small attention while something goes on.
ALONG = re.compile(r"\b(?:now and then|from time to time|occasionally|often|once or twice)\b", re.I)
# Attention all the time.
CONSTANT = re.compile(
    r"\bconstantly\b|\bstirring (?:often|frequently|until)\b|\ball the time\b"
    r"|\bkeep stirring\b|\bwhile stirring\b",
    re.I,
)
# A side at a time, and not all at once.
PER_SIDE = re.compile(r"\b(?:per|each|on each|on both|a) sides?\b", re.I)
IN_ROUNDS = re.compile(r"\bin (?:batches|rounds)\b|\bladlefuls?\b|\ba few at a time\b", re.I)
# Cold water ends the heat.
COOLED = re.compile(
    r"(?<!from )\b(?:cold|ice|iced) water\b|\brinse cold\b|\bcool completely\b", re.I
)
LADLE = re.compile(r"\ba ladle(?:ful)? at a time\b", re.I)
# It is done beside what goes on, not in it.
APART = re.compile(
    r"^\W*(?:for|to make) the \w+(?: \w+)?\s*[,:]"
    r"|\bmeanwhile\b|\bwhile (?:it|that|they|the)\b|\bat the same time\b|\bseparately\b|\bapart\b"
    r"|\bon (?:one|a|the) (?:\w+ )?(?:tray|sheet)\b"
    r"|\b(?:another|second|separate|small) (?:\w+ )?(?:pot|pan|bowl|skillet|tray)\b",
    re.I,
)
# It goes into what is there, by its verb or by where it goes.
INTO_WHAT_IS_THERE = re.compile(
    r"^\W*(?:then |now |and |next )*"
    r"(?:add|fold|return|stir (?:\w+ ){0,4}(?:in|through)\b|mix in|toss in|whisk in|tip|pour|top"
    r"|scatter|strew|sprinkle|squeeze|garnish|season|serve|finish|spoon|drizzle|dust|fish|sharpen"
    r"|remove|discard|skim|lift|\w+ with\b"
    r"|\w+ again)"
    r"|\b(?:in|over|on top|off the heat|last|late|after|at the end)\b"
    r"(?! (?:a|an|the|your) (?:\w+ )?"
    r"(?:bowl|dish|jar|cup|tray|tin|pan|pot|water|milk|broth))",
    re.I,
)
# What is done is done to what was there, with more: "Simmer with the milk".
WITH_MORE = re.compile(
    r"^\W*(?:then |now |and |next )*[a-z]+,? (?:gently |slowly |briefly |together )?with\b", re.I
)
# So many minutes after it began it is moved once.
MOVED_AFTER = re.compile(
    r"\b(?:stirring|turning|tossing|flipping|shaking|swapping|basting|rotating)\b[^,;.]*?"
    r"\bafter (?:the first )?(?P<minutes>\d+|ten|fifteen|twenty|thirty)\b",
    re.I,
)
GOES_IN = re.compile(
    r"\b(?:in|into)\b(?! (?:a|an|the|your) (?:\w+ )?(?:bowl|dish|pan|pot|skillet|tray))", re.I
)
# What was made before, by what it has become.
PRODUCT = re.compile(
    r"\b(?:it|them)\b"
    r"|\b(?:the|and) (?:\w+ )?"
    r"(?:sauce|mixture|dough|batter|filling|dressing|glaze|marinade|mash|paste|stuffing)\b",
    re.I,
)
# After these words a step no longer says what it is done to.
WHERETO = re.compile(r"\b(?:with|onto|over|into|in|on|to|among|from)\b", re.I)
IN_A_DISH = re.compile(
    r"\b(?:in|into|to|among) (?:a |an |the |your |\w+ )?(?:\w+ )?"
    r"(?:jar|bowls?|dish|tin|plates?|blender|tray)\b",
    re.I,
)
# What is cooked in an appliance of its own, from then on.
APPLIANCES = (
    (re.compile(r"\b(?:slow[- ]cooker|crock)\b", re.I), "slow_cook"),
    (re.compile(r"\bpressure[- ]cooker\b", re.I), "pressure_cook"),
    (re.compile(r"\brice[- ]cooker\b", re.I), "rice_cooker"),
)
TRAYS = re.compile(r"\b(?:two|2) (?:\w+ )?(?:trays|sheets)\b", re.I)
OVER = re.compile(r"\bover\b|\bwith the\b", re.I)
FOLDED = re.compile(r"^\W*(?:fold|stir)\b", re.I)
STIRRED = re.compile(r"^\W*(?:stir|whisk|toss|shake|mix|beat)\b", re.I)
COVERED = re.compile(r"\b(?:cover|leave|stand|let)\b", re.I)
COVERED_PAN = re.compile(r"\bcovered\b", re.I)
# On a heat so low what is left goes on cooking.
LEFT = re.compile(r"\bleave\b(?!.*\b(?:stand|rest|sit)\b)", re.I)
LOW_HEAT = re.compile(
    r"\b(?:low|lowest|gentle|gentlest|minimum) (?:heat|flame|setting)\b"
    r"|\bturn(?:ed)? (?:it |the heat )?(?:right |all the way )?down\b",
    re.I,
)
# The oven is turned to another heat, for what comes after.
TURNED_TO = re.compile(
    r"\b(?:lower|reduce|raise|increase|turn)(?: it)?(?: the (?:heat|oven|temperature))?"
    r"(?: it)?(?: down| up)? to (?P<heat>.*)",
    re.I,
)
# Onto the plates goes all that there is.
ON_PLATES = re.compile(
    r"^\W*(?:divide|ladle|serve|plate|pile|arrange|spoon|share)\b.*\b(?:bowls|plates|dishes)\b",
    re.I,
)
# What holds what was made before.
FILLED = re.compile(r"^\W*(?:then |now )?(?:stuff|fill|wrap)\b(?! a\b)", re.I)
OFF = re.compile(r"\boff the heat\b|\bfrom the heat\b", re.I)
LIQUID = re.compile(r"(?<!splash of )(?<!splashes of )\b(?:water|broth|stock|milk)\b", re.I)
HOT_WATER = re.compile(r"\bboiling water\b|\bhot water\b", re.I)
# What rises or sets, by the name of the dish.
LOAF = re.compile(
    r"\b(?:loaf|bread|cake|bars?|muffins?|cookies?|crackers?|scones?|pie|tart)\b", re.I
)
# What cooks in a pot of its own, by its slug.
OWN_POT = re.compile(
    r".*-dry$|(?:potato|sweet-potato|yam|beet|celeriac).*"
    r"|.*(?:rice|barley|millet|quinoa|buckwheat|freekeh|bulgur|lentils|split|beans|chickpeas|pasta"
    r"|noodles|spaghetti|oats|farro|spelt).*"
)
# What leaves a blender savory, by its slug.
SAVORY = re.compile(
    r"onion|garlic|leek|shallot|scallion|chive|tamari|soy-sauce|miso|mustard|salt|caper|olive"
    r"|broth|vinegar"
)
SWEET_GROUPS = ("fruit", "dried fruit", "sweetener", "fruit juice", "plant milk", "cocoa")
SOUR_FRUIT = re.compile(r"lemon|lime")
