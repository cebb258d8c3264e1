"""What a line says besides how much of what: what it makes once it is cooked, how it is cooked
then, what it weighs in another state. None of it is how the food was measured."""

from __future__ import annotations

import re
from dataclasses import dataclass

from nutrition.written.wording import NUMBER

# "cooked" alone says how it was measured; with one of these after it, what is done with it then.
_UNTIL = (
    r"(?:until|till|as (?:per|directed)|according|per|following|in|with|for|over|al dente|just"
    r"|about|~?\d)"
)
_FIRST = (
    r"(?:(?:well )?(?:rinsed|washed|drained|sorted|picked over|soaked(?: overnight)?)"
    r"(?:, and|, then| and then|,| and| then)? )*"
)
_DONE = (
    r"(?P<done>pressure[- ]cooked|cooked|boiled|simmered|steamed|prepared)(?: well| gently| then)?"
)
_STEP = re.compile(rf"(?:,|\(| - |;)\s*(?:then )?{_FIRST}{_DONE} {_UNTIL}\b[^()]*\)?", re.I)
_VERB = r"(?:makes?|making|yields?|yielding|gives?|giving|becomes?|cooks? (?:up )?to)"
_MAKES = re.compile(
    rf"\s*\((?:(?:which|to|will|this|it|should) )*{_VERB}\b[^)]*\)"
    rf"|\s*[,-]?\s*(?:which |to |will )?{_VERB} (?:about |approx\.? |roughly |~)?"
    rf"{NUMBER}[^,()]*(?:cooked|cups?|g|ml|servings?)\b[^,()]*"
    rf"|\s*\((?:about |approx\.? |roughly |~)?{NUMBER}[^)]*\b(?:when|once|after) "
    r"(?:cooked|cooking|boiled|boiling|drained|soaked)\b[^)]*\)",
    re.I,
)
_DRY_WORD = re.compile(r"\b(?:dry|uncooked|dried|raw)\b", re.I)
_COOKED_WORD = re.compile(r"\b(?:cooked|boiled|canned|tinned|leftover)\b", re.I)
# "300 g cooked (about 100 g dry) quinoa": the bracket speaks of the other state.
_OTHER_STATE = re.compile(
    rf"\s*\((?:from |about |approx\.? |or |= ?|~)*{NUMBER}[^)]*?"
    r"\b(?P<state>dry|uncooked|dried|raw|cooked|boiled)\b(?: weight)?[^)]*\)",
    re.I,
)
_CAN = re.compile(r"\b(?:cans?|tins?|jars?|canned|tinned|pouch|frozen)\b", re.I)
# "1 cup dry quinoa, cooked": dry when it was measured, cooked then.
_COOKED_LATER = re.compile(
    r"(?:,|\()\s*(?:rinsed,? (?:and )?|soaked,? (?:and )?|then )*(?P<done>cooked|boiled|simmered"
    r"|steamed)(?: and (?:drained|cooled))?\)?(?=$|,)",
    re.I,
)


@dataclass(frozen=True)
class Afterward:
    """A line without what is only said of it, and that: whether it was measured `uncooked`, and the
    word for what is done with it `then`."""

    line: str
    uncooked: bool = False
    then: str = ""


def set_apart(line: str) -> Afterward:
    """What a line says of the time after it was measured, set apart."""
    uncooked, then = False, ""
    bare = _MAKES.sub("", line)
    if bare != line:
        uncooked, then = not _COOKED_WORD.search(bare), "cooked"
    other = _OTHER_STATE.search(bare)
    if other:
        without = f"{bare[: other.start()]} {bare[other.end() :]}".strip()
        cooked = other["state"].lower() in ("cooked", "boiled")
        if cooked and re.search(r"[a-z]{3}\s*$", bare[: other.start()], re.I):
            if not _COOKED_WORD.search(without):
                bare, uncooked, then = without, True, "cooked"
        elif not cooked and _COOKED_WORD.search(without):
            bare = without
    step = _STEP.search(bare)
    if step and not _CAN.search(bare):
        bare = f"{bare[: step.start()]}{bare[step.end() :]}".strip(" ,")
        uncooked, then = not _COOKED_WORD.search(bare), step["done"].lower()
    later = _COOKED_LATER.search(bare)
    if later and _DRY_WORD.search(bare[: later.start()]):
        bare = f"{bare[: later.start()]}{bare[later.end() :]}".strip(" ,")
        uncooked, then = True, later["done"].lower()
    return Afterward(re.sub(r"\s+", " ", bare), uncooked, then)
