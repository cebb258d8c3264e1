"""What stands in brackets within a line, read and written: `[method: roasted]`, `[left: 60 %]`,
`[recipe: Dill sauce]`, `[not counted: why]`."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from decimal import Decimal

from nutrition.composition.cooking_methods import UnknownMethod, read_method

SHARES = {"half": 1 / 2, "third": 1 / 3, "quarter": 1 / 4, "fifth": 1 / 5, "all": 1.0}
SHARE = r"\d+(?:\.\d+)?\s*%|half|third|quarter|fifth"
_METHOD = re.compile(r"\s*\[\s*method\s*:\s*([^\]]+)\]\s*$", re.I)
THEN = ", then "
_IN_TURN = re.compile(r"\s*,?\s*\b(?:and\s+)?then\b\s*|\s*,\s*", re.I)
_LEFT = re.compile(
    rf"\s*\[\s*left(?: behind| in the dish)?\s*:\s*({SHARE}|all)\s*\]\s*",
    re.I,
)
_PART = re.compile(r"\[\s*recipe\s*:\s*([^\]]+?)\s*\]", re.I)


_NOT_COUNTED = re.compile(r"\s*\[\s*not counted\s*:\s*([^\]]*?)\s*\]\s*$", re.I)


def not_counted(text: str) -> tuple[str, str] | None:
    """A line that somebody left out, without its "[not counted: why]", and why; None for any other
    line."""
    match = _NOT_COUNTED.search(text)
    return (text[: match.start()].strip(), match[1] or "no reason given") if match else None


def counted_lines(lines: Iterable[str]) -> tuple[str, ...]:
    """The lines that are counted: those that nobody left out."""
    return tuple(line for line in lines if not_counted(line) is None)


@dataclass(frozen=True)
class Noted:
    """A line without its brackets, and what they say: the code of its own method, the share of it
    that is not eaten [0 to 1], the recipe it names. Empty, zero, or None where they do not."""

    text: str
    method: str = ""
    left: float = 0.0
    part: str | None = None


def noted(text: str) -> Noted:
    """What the brackets of a line say. The part's name stays within the text, in plain words."""
    bare, left = own_left(text)
    bare, method = own_method(bare)
    return Noted(without_part(bare), method, left, part_named(bare))


def as_written(bare: str, method: str = "", left: float = 0.0) -> str:
    """A line with its brackets put back. `left` is the share that is not eaten. [0 to 1]"""
    out = bare
    if left > 0:
        out += f" [left: {'all' if left >= 1 else f'{left * 100:.4g} %'}]"
    return f"{out} [method: {method}]" if method else out


def read_share(said: str) -> float:
    """ "60 %" or "half" as a share. [0 to 1, more if more is said]"""
    word = said.strip().lower()
    # in decimals: 3.7 / 100 is 0.037000000000000005
    return SHARES[word] if word in SHARES else float(Decimal(word.rstrip("% ")) / 100)


def own_left(text: str) -> tuple[str, float]:
    """A line without its "[left: 60 %]", and the share of it that stays in the dish and is not
    eaten [0 to 1]: marinade, frying oil."""
    match = _LEFT.search(text)
    if not match:
        return text, 0.0
    return f"{text[: match.start()]} {text[match.end() :]}".strip(), min(read_share(match[1]), 1.0)


def beyond_all(text: str) -> bool:
    """Whether a line says that more than all of it is left."""
    match = _LEFT.search(text)
    return match is not None and read_share(match[1]) > 1.0


def own_method(text: str) -> tuple[str, str]:
    """A line without its "[method: ...]", and the code of that method, or the codes of several done
    in turn with THEN between them ("soaked, then boiled"); empty for none or one that is not
    known."""
    match = _METHOD.search(text)
    if not match:
        return text, ""
    try:
        return text[: match.start()], THEN.join(map(read_method, _IN_TURN.split(match[1])))
    except UnknownMethod:
        return text[: match.start()], ""


def unknown_method(text: str) -> bool:
    """Whether a line names a method that is not known."""
    return _METHOD.search(own_left(text)[0]) is not None and not own_method(own_left(text)[0])[1]


def part_named(text: str) -> str | None:
    """The name in "200 g [recipe: Sunflower and dill sauce]", None for a line without one."""
    match = _PART.search(text)
    return match[1] if match else None


def without_part(text: str) -> str:
    """The line with the part's name in plain words."""
    return _PART.sub(lambda match: match[1], text)


def naming_part(text: str, old: str, new: str) -> str:
    """The line with a part of the old name called by the new one; any other line as it is."""
    name = part_named(text)
    if name is None or name.strip().lower() != old.strip().lower():
        return text
    return _PART.sub(lambda _match: f"[recipe: {new}]", text)
