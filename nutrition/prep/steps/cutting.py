"""What a line says is cut, peeled or crushed before a step takes it: how long that takes."""

from __future__ import annotations

import re
from collections.abc import Sequence

from nutrition.prep.steps.work_kinds import Span
from nutrition.written.line import Line

# How long the knife takes to begin with [min], and for 100 g [min/100 g], by the work; at the least
# and the most half and once and a half of it. Common practice, no source.
CUTS: tuple[tuple[re.Pattern[str], float, float], ...] = (
    (re.compile(r"\bminced|\bfinely chopped|\bcrushed|\bpressed", re.I), 0.7, 2.0),
    (re.compile(r"\bpeeled and (?:diced|cubed|sliced|chopped|cut)", re.I), 1.0, 1.2),
    (re.compile(r"\bgrated|\bshredded|\bshaved|\bjulienned", re.I), 1.0, 1.0),
    (
        re.compile(
            r"\bdiced|\bcubed|\bsliced|\bchopped|\bcut\b|\bin (?:sticks|wedges|pieces|florets)",
            re.I,
        ),
        0.8,
        0.9,
    ),
    (
        re.compile(r"\bpeeled|\bquartered|\bhalved|\btrimmed|\bpitted|\bcored|\bstemmed", re.I),
        0.5,
        0.5,
    ),
    (re.compile(r"\bdrained|\brinsed", re.I), 1.0, 0.0),
    (re.compile(r"\bjuice of\b|\bzest of\b", re.I), 1.0, 0.0),
)
# The same where a step says that something is cut. Common practice, no source. [min], [min/100 g]
KNIFE_BEGINS, KNIFE_PER_100_G = 0.8, 0.9
# A piece of cutting is no longer than this. [min]
MOST_MIN = 15.0
SPREAD = (0.5, 1.5)
# Herbs are light and take long. Common practice, no source. [min]
HERBS_MIN = 2.0
# What browns or wilts once it is cut waits so long [min]; all else a day, covered and cold.
# Common practice, no source.
BROWNS = re.compile(r"apple|pear|avocado|banana|potato|artichoke|eggplant|celeriac|salsify|peach")
WAITS_BROWN, WAITS_HERB, WAITS = 30.0, 120.0, 1440.0


def cutting_minutes(line: Line) -> Span | None:
    """How long a line takes before it can go in; None for one that is ready as it comes. [min]"""
    if line.food is None or _comes_ready(line):
        return None
    for pattern, begin, per_100_g in CUTS:
        if pattern.search(line.text):
            grams = line.grams or 0.0
            if line.food.group in ("fresh herb", "dried herb"):
                usual = HERBS_MIN
            else:
                usual = min(begin + per_100_g * grams / 100.0, MOST_MIN)
            return Span(usual * SPREAD[0], usual, usual * SPREAD[1])
    return None


def knife_minutes(line: Line) -> Span:
    """How long a step takes that cuts a line. [min]"""
    usual = min(KNIFE_BEGINS + KNIFE_PER_100_G * (line.grams or 100.0) / 100.0, MOST_MIN)
    return Span(usual * SPREAD[0], usual, usual * SPREAD[1])


def _comes_ready(line: Line) -> bool:
    """What is cut before it is bought: frozen, or ground."""
    return line.food is not None and bool(re.search(r"\bfrozen\b|\bground\b", line.text, re.I))


def cut_waits(lines: Sequence[Line]) -> float:
    """How long what was cut may wait: as long as the first that browns. [min]"""
    out = WAITS
    for line in lines:
        if line.food is None:
            continue
        if BROWNS.search(line.food.slug):
            out = min(out, WAITS_BROWN)
        elif line.food.group == "fresh herb":
            out = min(out, WAITS_HERB)
    return out
