"""A serving as it is measured: grams, a household measure, pieces, or a share of the pan;
and how many of them the batch gives."""

from __future__ import annotations

import re
from dataclasses import dataclass

from nutrition.composition.errors import CoreError
from nutrition.recipe.reckoning import Facts
from nutrition.written import units
from nutrition.written.household import fraction
from nutrition.written.line_patterns import FILLS
from nutrition.written.serving_words import _read_measure, counted
from nutrition.written.wording import number

_SHARE = re.compile(
    r"^\s*(?:an?\s+|one\s+)?(\d+/\d+|\d+(?:\.\d+)?\s*%|half|third|quarter|fifth|sixth"
    r"|eighth)\s+of\s+the\s+"
    r"(?:pan|pot|tray|batch|dish)\s*$",
    re.I,
)


_PARTS = {"half": 2.0, "third": 3.0, "quarter": 4.0, "fifth": 5.0, "sixth": 6.0, "eighth": 8.0}


_PIECES = re.compile(r"^\s*(\d+)\s*(?:equal\s+)?(?:pieces?|balls?|patties|slices?|bars?)\s*$", re.I)


class UnreadableServing(CoreError):
    """The measure cannot be used; the message says why."""


@dataclass(frozen=True)
class Measured:
    """One serving by its measure [g], how many the batch gives, and a check while portioning, in
    words."""

    grams: float
    count: float
    check: str


def measured(facts: Facts, text: str, system: str = "us") -> Measured:
    """What "120 g", "1/2 cup heaping", "5 pieces" or "1/6 of the pan" makes of the batch. Raises
    UnreadableServing."""
    batch = facts.batch.grams
    if batch <= 0:
        raise UnreadableServing("The batch weighs nothing yet.")
    portioned, text = counted(text)
    if portioned is not None:
        each = batch / portioned
        return _checked(each, portioned, f"{portioned:g} of “{text}” came out, {each:.0f} g each")
    share, pieces = _SHARE.match(text), _PIECES.match(text)
    if share:
        said = share[1].lower()
        if said not in _PARTS and not any(
            digit in "123456789" for digit in said.partition("/")[2] or said
        ):
            raise UnreadableServing(f"“{text}” is no share of the pan: it is nothing of it.")
        count = (
            _PARTS[said]
            if said in _PARTS
            else 100.0 / float(said.rstrip("% "))
            if "%" in said
            else 1.0 / number(said)
        )
        return _checked(
            batch / count, count, f"each share of the pan should weigh {batch / count:.0f} g"
        )
    if pieces and int(pieces[1]) > 0:
        count = float(pieces[1])
        return _checked(
            batch / count,
            count,
            f"{count:.0f} equal pieces should weigh {batch / count:.0f} g each: weigh one while "
            f"rolling",
        )
    reading = _read_measure(text, system)
    if reading is None:
        raise UnreadableServing(
            f"“{text}” is no measure. Write grams, a cup or spoon, pieces, or a share of the pan."
        )
    term = reading.terms[0].times(FILLS.get(reading.fill, 1.0))
    per_gram, volume = units.grams(term.unit), units.milliliters(term.unit, system)
    if per_gram is not None:
        grams = term.best * per_gram
    elif volume is not None and facts.volume_ml:
        grams = term.best * volume * batch / facts.volume_ml
    else:
        raise UnreadableServing(
            f"“{text}” cannot be weighed for this dish. Write it in grams, pieces or a share of "
            f"the pan."
        )
    if not grams > 0:
        raise UnreadableServing(f"“{text}” weighs nothing.")
    count = batch / grams
    return _checked(
        grams, count, f"the batch gives {fraction(count)[1]} of them at about {grams:.0f} g"
    )


def _checked(grams: float, count: float, check: str) -> Measured:
    if not 0.05 <= count <= 500 or grams < 1:
        raise UnreadableServing("That makes no sense of this batch: too few or too many servings.")
    return Measured(grams, count, check)
