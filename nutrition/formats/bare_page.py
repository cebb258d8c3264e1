"""A recipe out of a saved web page that carries no data: by the marks of its elements (schema.org
microdata), or by the list under its heading "Ingredients"."""

from __future__ import annotations

import re
from collections.abc import Iterator

from lxml import html

# What of an element's text stands in a line of its own.
_LINES = ("li", "p", "tr", "dd")
_HEADINGS = ("h1", "h2", "h3", "h4", "h5", "h6", "strong", "b", "dt", "th", "legend")
_INGREDIENTS = re.compile(r"^\s*(?:the\s+)?ingredients?(?:\s+list)?\s*:?\s*$", re.I)
_STEPS = re.compile(
    r"^\s*(?:directions?|methods?|instructions?|preparation|steps|how to make it)\s*:?\s*$",
    re.I,
)
_SERVES = re.compile(
    r"\b(?:serves|servings?|makes|yields?)\b\s*:?\s*(?:about\s+)?(\d{1,3})\b", re.I
)
# A list is no list of ingredients with fewer lines.
LEAST_LINES = 2


def text_of(page: html.HtmlElement) -> str:
    """The recipe of a page as somebody would paste it; empty where there is none."""
    lines = _marked(page, "recipeIngredient") or _marked(page, "ingredients")
    steps = _marked(page, "recipeInstructions")
    title = next(iter(_marked(page, "name")), "") if lines else ""
    if not lines:
        lines, steps = _below(page, _INGREDIENTS), _below(page, _STEPS)
    if len(lines) < LEAST_LINES:
        return ""
    heading = next((_said(one) for one in page.iter("h1") if _said(one)), "")
    title = title or heading or _said_first(page, "title")
    serves = _SERVES.search(" ".join(page.text_content().split()))
    parts = [title, f"Serves {serves[1]}" if serves else "", "Ingredients", *lines]
    if steps:
        parts += ["Method", *steps]
    return "\n".join(part for part in parts if part)


def _said(element: html.HtmlElement) -> str:
    return " ".join(element.text_content().split())


def _said_first(page: html.HtmlElement, tag: str) -> str:
    return next((_said(one) for one in page.iter(tag)), "")


def _marked(page: html.HtmlElement, name: str) -> list[str]:
    """What the page marks as a property of a recipe."""
    out: list[str] = []
    for one in page.iter():
        if isinstance(one.tag, str) and name in (one.get("itemprop") or "").split():
            rows = [_said(line) for line in one.iter(*_LINES)]
            out += [row for row in rows if row] or [one.get("content") or _said(one)]
    return [row for row in out if row]


def _below(page: html.HtmlElement, heading: re.Pattern[str]) -> list[str]:
    """The lines below a heading, until the next one."""
    for one in page.iter(*_HEADINGS):
        if heading.match(_said(one)):
            found = list(_lines_after(one))
            if found:
                return found
    return []


def _lines_after(heading: html.HtmlElement) -> Iterator[str]:
    """What follows a heading in the page: the first list, or the lines until another heading."""
    inside = set(heading.iter())
    passed = False
    for one in heading.getroottree().getroot().iter():
        if one is heading:
            passed = True
            continue
        if not passed or one in inside or not isinstance(one.tag, str):
            continue
        words = _said(one)
        if one.tag in ("h1", "h2", "h3", "h4", "h5", "h6") and words:
            return
        if one.tag in _HEADINGS and (_INGREDIENTS.match(words) or _STEPS.match(words)):
            return
        # a line that holds others is said by those
        if one.tag in _LINES and words and len(list(one.iter(*_LINES))) == 1:
            yield words
