"""A recipe as it is pasted from somewhere: its title, "Serves 4", "Ingredients" and "Method" told
from its lines."""

from __future__ import annotations

import html
import re
from dataclasses import dataclass

# What stands alone on a line and says what follows.
_COUNT = r"(?P<count>\d+(?:\s*(?:-|to|\u2013)\s*\d+)?)"
_INGREDIENTS = re.compile(
    r"^(?:the\s+)?(?:ingredients?(?:\s+list)?|what you need|you will need|you'll need)\s*"
    rf"(?:(?:\(\s*)?(?:for|serves|makes)?\s*{_COUNT}\s*(?:servings?|portions?|people"
    rf"|persons?)?\s*\)?)?\s*:?$",
    re.I,
)
_STEPS = re.compile(
    r"^(?:the\s+)?(?:method|instructions?|directions?|preparation|steps?|how to make it"
    r"|procedure)\s*:?$",
    re.I,
)
_REMARKS = re.compile(
    r"^(?:notes?|tips?|storage|variations?|nutrition(?:al)?(?: facts| information)?(?: per "
    r"serving)?)\s*:?$",
    re.I,
)
# "For the dressing:", "Sauce:"; a heading among the ingredients and none of them.
_HEADING = re.compile(r"^(?:for (?:the )?[a-z][a-z ]{1,40}|[a-z][a-z ]{1,30}):$", re.I)
_SERVES = re.compile(
    rf"^(?:serves|servings|makes|yields?|portions|for)\s*:?\s*(?:about\s+)?{_COUNT}\s*"
    r"(?:servings?|portions?|people|persons?|bowls?|helpings?)?\.?$",
    re.I,
)
_COUNT_FIRST = re.compile(rf"^{_COUNT}\s+(?:servings?|portions?|people|persons)\.?$", re.I)
# "Millet bake (serves 8)": a title that says for how many.
_TITLE_SERVES = re.compile(
    rf"^(?P<title>\D{{3,120}}?)[\s,\u2013\u2014-]*\(?\s*(?:serves|makes"
    rf"|yields)\s+{_COUNT}\s*(?:servings?|portions?|people)?\s*\)?$",
    re.I,
)
_TIMES = re.compile(
    r"^(?:prep(?:aration)?|cook(?:ing)?|total|active|resting)\s*(?:time)?\s*:\s*.{1,40}$", re.I
)
_NUMBERED = re.compile(r"^(?:step\s*)?\d{1,2}\s*[.):]\s*", re.I)


@dataclass(frozen=True, kw_only=True)
class Pasted:
    """What was told apart. `passed_over` are lines that are none of these, kept so that nothing is
    lost in silence."""

    lines: tuple[str, ...]
    title: str = ""
    serves: str = ""
    steps: tuple[str, ...] = ()
    passed_over: tuple[str, ...] = ()


def decoded(text: str) -> str:
    """Text with its entities decoded, "1 &frac12; cups", and without what no text holds: half of a
    surrogate pair, control characters."""
    if "&" in text:
        text = html.unescape(html.unescape(text))
    return printable(text).replace("\u00a0", " ")


def printable(text: str) -> str:
    """Text without what no text holds: half of a surrogate pair, control characters."""
    text = text.encode("utf-8", "replace").decode("utf-8")
    return "".join(char for char in text if char >= " " or char in "\n\t")


def _title(rows: list[str], named: bool) -> tuple[str, str]:
    """The title that the first line is, where something tells, and for how many it says; empty
    where nothing does.

    What tells is "(serves 8)" in the line itself or, in a text that names no ingredients, "Serves
    4" or a time below it.
    """
    if not rows or _INGREDIENTS.match(rows[0]):
        return "", ""
    if entitled := _TITLE_SERVES.match(rows[0]):
        return entitled["title"].strip(), entitled["count"]
    below = rows[1] if len(rows) > 1 and not named and not re.search(r"\d", rows[0]) else ""
    return (
        (rows[0], "")
        if any(kind.match(below) for kind in (_SERVES, _COUNT_FIRST, _TIMES))
        else ("", "")
    )


def parted(text: str) -> Pasted:
    """The parts of a pasted text. A text without such words is all ingredients, but for "Serves
    4"."""
    rows = [decoded(row).strip() for row in text.splitlines()]
    rows = [row for row in rows if row]
    named = any(_INGREDIENTS.match(row) for row in rows)
    part = "before" if named else "lines"
    title, serves = _title(rows, named)
    found: dict[str, list[str]] = {"before": [], "lines": [], "steps": [], "passed": []}
    for row in rows[1:] if title else rows:
        headed = _INGREDIENTS.match(row)
        said = _SERVES.match(row) or (_COUNT_FIRST.match(row) if part != "steps" else None)
        if headed:
            part = "lines"
            serves = serves or headed["count"] or ""
        elif _STEPS.match(row):
            part = "steps"
        elif _REMARKS.match(row):
            part = "passed"
        elif said and not serves and part != "steps":
            serves = said["count"]
        elif part == "lines" and _HEADING.match(row) or _TIMES.match(row) and part != "steps":
            found["passed"].append(row)
        elif part == "steps":
            found["steps"].append(_NUMBERED.sub("", row))
        elif part == "before" and not title:
            title = row
        else:
            found["passed" if part == "before" else part].append(row)
    return Pasted(
        lines=tuple(found["lines"]),
        title=title,
        serves=serves,
        steps=tuple(found["steps"]),
        passed_over=tuple(found["passed"]),
    )
