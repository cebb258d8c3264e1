"""Times as a cook writes them: "25-30 minutes", "half an hour", "an hour and a half", "overnight",
"for the last six", "turning at half time"."""

from __future__ import annotations

import re
from dataclasses import dataclass

from nutrition.written.wording import NUMBER_WORDS

# What words stand for. "A couple" and "a few" are as people mean them: common practice, no source.
NUMBERS = {
    **NUMBER_WORDS,
    "fifteen": 15.0,
    "eighteen": 18.0,
    "twenty-five": 25.0,
    "twenty five": 25.0,
    "twenty": 20.0,
    "thirty-five": 35.0,
    "thirty five": 35.0,
    "thirty": 30.0,
    "forty-five": 45.0,
    "forty five": 45.0,
    "forty": 40.0,
    "fifty": 50.0,
    "sixty": 60.0,
    "seventy-five": 75.0,
    "ninety": 90.0,
    "a couple of": 2.0,
    "a couple": 2.0,
    "a few": 3.0,
    "several": 4.0,
}
FRACTIONS = {"½": 0.5, "¼": 0.25, "¾": 0.75, "⅓": 1 / 3, "⅔": 2 / 3}
# A few minutes are two to five.
FEW = {"a few": (2.0, 5.0), "several": (3.0, 6.0)}
UNITS = {"s": 1 / 60, "m": 1.0, "h": 60.0, "d": 1440.0}
# Overnight, and until the morning. Common practice, no source. [min]
OVERNIGHT = (480.0, 600.0, 720.0)

_WORD = "|".join(sorted(NUMBERS, key=len, reverse=True))
_NUMBER = rf"(?:\d+\s\d/\d|\d+/\d|\d+(?:\.\d+)?\s?[½¼¾⅓⅔]?|[½¼¾⅓⅔]|\b(?:{_WORD})\b)"
_UNIT = r"(?P<unit>sec(?:ond)?s?|min(?:ute)?s?|h(?:ou)?rs?|h|days?)\b\.?"
_SPAN = re.compile(
    rf"(?P<low>{_NUMBER})(?:\s*(?:-|–|to|or)\s*(?P<high>{_NUMBER}))?"
    r"[\s-]*(?:more |full |good |long )?"
    rf"{_UNIT}(?P<half>\s+and\s+a\s+half)?",
    re.I,
)
_PHRASES: tuple[tuple[re.Pattern[str], tuple[float, float, float]], ...] = (
    (re.compile(r"\b(?:for )?(?:three quarters|three-quarters) of an hour\b", re.I), (45, 45, 45)),
    (re.compile(r"\b(?:for )?a quarter of an hour\b|\ba quarter hour\b", re.I), (15, 15, 15)),
    (re.compile(r"\bhalf an hour\b|\ba half hour\b|\bhalf hour\b", re.I), (30, 30, 30)),
    (re.compile(r"\bhalf a minute\b", re.I), (0.5, 0.5, 0.5)),
    (
        re.compile(
            r"\bovernight\b|\buntil (?:the )?(?:next )?morning\b|\bthe night before\b"
            r"|\bthe evening before\b|\ball night\b",
            re.I,
        ),
        OVERNIGHT,
    ),
)
# A time without its unit after these words: "add kohlrabi for the last six", "for another 15".
_BARE = re.compile(
    rf"\b(?:for |in )?(?:the )?(?P<how>last|another|final)\s+(?P<low>{_NUMBER})(?=$|[\s.,;)])"
    r"(?!\s*(?:-|–|to|or)?\s*\d*\s*(?:sec|min|h(?:ou)?rs?\b|days?|cups?|tbsp|tsp|g\b))",
    re.I,
)
_BARE_FOR = re.compile(
    rf"\bfor (?P<low>{_NUMBER})(?:\s?(?:-|–|to|or)\s?(?P<high>{_NUMBER}))?"
    r"(?=$|[.,;)]|\s+and\b|\s+(?:more|longer)\b(?! \w))",
    re.I,
)
_LAST = re.compile(
    rf"\b(?:for |in |during )?the (?:last|final)\s+(?:{_NUMBER}\b|half\b|quarter\b)|"
    r"\bin the last few\b|\bthe last few minutes\b",
    re.I,
)
_LAST_HALF = re.compile(r"\bthe last (?P<share>half|quarter)\b(?! an? hour| hour)", re.I)
_ON_TOP = re.compile(rf"\banother\b|\b{_NUMBER}\s+(?:minutes?|mins?)?\s*(?:more|longer)\b", re.I)
# "An hour, or up to a day": as short as it may be.
_UP_TO = re.compile(r"\b(?:or|and) (?:even )?(?:up to|as long as)\b", re.I)
HALF_WAY = re.compile(
    r"\b(?:at|after) half[- ]?time\b|\bhalf[- ]?way\b|\bturn(?:ed|ing)? (?:\w+ )?once\b"
    r"|\bflip(?:ped|ping)? (?:\w+ )?once\b|\bonce\b(?=.{0,12}\bturn)",
    re.I,
)


_TIME_WORD = re.compile(
    rf"(?:\d[\d./½¼¾-]*|{_WORD}|about|for|or|to|and|half|another|more|"
    rf"{_UNIT.replace('?P<unit>', '?:')})+",
    re.I,
)


@dataclass(frozen=True, kw_only=True)
class Stated:
    """A time as it is written, at the least, in the middle and at the most. [min] `last`: it is the
    end of a longer one; `more`: it comes on top of one; `share` is its part of that [0 to 1]."""

    least: float
    usual: float
    most: float
    last: bool = False
    more: bool = False
    share: float = 0.0


def is_only_a_time(text: str) -> bool:
    """Whether a text says a time and nothing else: "about 25 minutes"."""
    told = text.strip(" .,").split()
    return bool(told) and all(_TIME_WORD.fullmatch(word) for word in told)


def _number(text: str) -> tuple[float, float]:
    """What a written number is at the least and the most."""
    said = text.strip().lower()
    if said in FEW:
        return FEW[said]
    if said in NUMBERS:
        return NUMBERS[said], NUMBERS[said]
    whole = re.fullmatch(r"(\d+)\s(\d)/(\d)", said)
    if whole:
        value = int(whole[1]) + int(whole[2]) / int(whole[3])
        return value, value
    part = re.fullmatch(r"(\d+)/(\d)", said)
    if part:
        value = int(part[1]) / int(part[2])
        return value, value
    glyph = FRACTIONS.get(said[-1:], 0.0)
    digits = said.rstrip("".join(FRACTIONS)).strip()
    value = (float(digits) if digits else 0.0) + glyph
    return value, value


def _spans(text: str) -> list[tuple[int, int, float, float]]:
    """The places and lengths [min] of all spans with a unit."""
    out = []
    for found in _SPAN.finditer(text):
        scale = UNITS[found["unit"][0].lower()]
        low = _number(found["low"])
        high = _number(found["high"]) if found["high"] else low
        more = 0.5 if found["half"] else 0.0
        out.append(
            (found.start(), found.end(), (low[0] + more) * scale, (max(high) + more) * scale)
        )
    return out


def stated_in(text: str) -> Stated | None:
    """The time that a clause states, its parts added ("1 hour 20 minutes"); None where it says
    nothing. [min] Of several that are not parts of one, the longest counts."""
    last = bool(_LAST.search(text))
    more = bool(_ON_TOP.search(text))
    share = _LAST_HALF.search(text)
    if share:
        part = 0.5 if share["share"].lower() == "half" else 0.25
        return Stated(least=0, usual=0, most=0, last=True, share=part)
    for pattern, (least, usual, most) in _PHRASES:
        if pattern.search(text):
            shorter = _spans(text) if most >= OVERNIGHT[2] else []
            if shorter:
                # "one hour or overnight": as short as it may be
                low = shorter[0][2]
                return Stated(least=low, usual=low, most=most, last=last, more=more)
            rest = _and_a_half(text) if least == 30 else 0.0
            return Stated(
                least=least + rest, usual=usual + rest, most=most + rest, last=last, more=more
            )
    spans = _joined(text, _spans(text))
    if len(spans) > 1 and _UP_TO.search(text):
        low, high = min(spans)[0], max(one[1] for one in spans)
        return Stated(least=low, usual=low, most=high, last=last, more=more)
    if spans:
        low, high = max(spans, key=lambda one: one[1])
        return Stated(least=low, usual=(low + high) / 2, most=high, last=last, more=more)
    bare = _BARE.search(text) or _BARE_FOR.search(text)
    if bare:
        low, high = _number(bare["low"])
        if bare.groupdict().get("high"):
            high = _number(bare["high"])[1]
        if high >= 1:
            return Stated(least=low, usual=(low + high) / 2, most=high, last=last, more=more)
    return None


def _and_a_half(text: str) -> float:
    """The whole hours before "and a half" where they are said apart. [min]"""
    found = re.search(r"\b(an|one|two|three|\d)\s+hours?\s+and\s+(?=half an hour)", text, re.I)
    return 60.0 * _number(found[1])[0] if found else 0.0


def _joined(text: str, spans: list[tuple[int, int, float, float]]) -> list[tuple[float, float]]:
    """Spans that are parts of one ("1 hour 20 minutes", "an hour and ten minutes") added."""
    out: list[tuple[int, float, float]] = []
    for start, end, low, high in spans:
        between = text[out[-1][0] : start] if out else ""
        if out and low < 60 <= out[-1][1] and re.fullmatch(r"\s*(?:,|and)?\s*", between):
            out[-1] = (end, out[-1][1] + low, out[-1][2] + high)
        else:
            out.append((end, low, high))
    return [(low, high) for _end, low, high in out]
