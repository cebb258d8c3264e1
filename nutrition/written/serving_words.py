"""A serving as it is measured: grams, a household measure, pieces, or a share of the pan; and how
many of them the batch gives."""

from __future__ import annotations

import re

from nutrition.written import units
from nutrition.written.grammar import Reading, read
from nutrition.written.line_patterns import FILLS
from nutrition.written.wording import FRACTION_WORDS, NUMBER_WORDS

_COUNTED = re.compile(r"^\s*(\d+(?:\.\d+)?)\s*[x×]\s*(.+?)\s*$", re.I)


# So few and so many can be portioned out.
LEAST_COUNTED, MOST_COUNTED = 0.1, 1000.0


# "5 heaping half-cups", "five scant 1/2 cups"
_SPOKEN = re.compile(
    rf"^\s*(?P<count>\d+(?:\.\d+)?|{'|'.join(NUMBER_WORDS)})\s+"
    rf"(?:(?P<fill>{'|'.join(FILLS)})\s+)?"
    rf"(?P<part>{'|'.join(FRACTION_WORDS)}|\d+/\d+)[- ](?P<of>cup|tablespoon|tbsp|liter|litre)s?"
    rf"(?:\s+(?P<last>{'|'.join(FILLS)}))?\s*$",
    re.I,
)


def _as_written(text: str) -> str:
    """ "5 heaping half-cups" as "5 x 1/2 cup heaping"."""
    match = _SPOKEN.match(text)
    if match is None:
        return text
    count, part = match["count"].lower(), match["part"].lower()
    many = f"{NUMBER_WORDS[count]:g}" if count in NUMBER_WORDS else count
    share = f"1/{round(1 / FRACTION_WORDS[part])}" if part in FRACTION_WORDS else part
    fill = match["fill"] or match["last"] or ""
    return f"{many} x {share} {match['of'].lower()} {fill.lower()}".strip()


def is_yield(text: str) -> bool:
    """Whether it says what came out of a pot, "5 x 1/2 cup heaping", and not how many it serves."""
    count, one = counted(text)
    return count is not None and _read_measure(one, "us") is not None


def counted(text: str) -> tuple[float | None, str]:
    """How many were portioned out, and the measure of one: "5 x 1/2 cup heaping", or "5 heaping
    half-cups", is (5.0, "1/2 cup heaping"). None for no count."""
    match = _COUNTED.match(_as_written(text))
    count = float(match[1]) if match else 0.0
    return (
        (count, match[2])
        if match and MOST_COUNTED >= count >= LEAST_COUNTED
        else (None, text.strip())
    )


def portioned_ml(text: str, system: str = "us") -> float | None:
    """The batch's volume where it was portioned out by a measure of volume, "5 x 1/2 cup heaping".
    [mL] None otherwise."""
    count, one = counted(text)
    if count is None:
        return None
    reading = _read_measure(one, system)
    if reading is None:
        return None
    volume = units.milliliters(reading.terms[0].unit, system)
    return (
        None
        if volume is None
        else count * reading.terms[0].times(FILLS.get(reading.fill, 1.0)).best * volume
    )


def _read_measure(text: str, system: str) -> Reading | None:
    reading = read(_fill_first(text), system)
    return reading if len(reading.terms) == 1 and not reading.phrase else None


def _fill_first(text: str) -> str:
    """ "1/2 cup heaping" as cooks say it when they measure a yield: the fill may stand last."""
    match = re.match(rf"^(.*?)\s+({'|'.join(FILLS)})\s*$", text.strip(), re.I)
    return f"{match[2]} {match[1]}" if match else text.strip()
