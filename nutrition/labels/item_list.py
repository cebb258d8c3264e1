"""The text of an ingredient list taken apart: the ingredients with what they are made of, and what
the package says that it contains and may contain."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

_HEAD = re.compile(r"^\s*(?:other\s+)?ingredients?(?:\s+list)?\s*[:\-]\s*", re.I)
# "Contains 2% or less of": the list goes on.
_GOES_ON = re.compile(
    r"[.,;]?\s*\b(?:contains?|with|and)?\s*(?:(?:less than|up to|under)\s*\d+(?:\.\d+)?\s*%|"
    r"\d+(?:\.\d+)?\s*%\s*or\s*less)\s*(?:of)?\s*(?:each of )?"
    r"(?:the\s+following|each)?\s*(?:ingredients)?\s*:?",
    re.I,
)
_MAY_CONTAIN = re.compile(
    r"(?:may(?: also)?(?: contain| be present)|traces of|"
    r"(?:made|produced|manufactured|packed|packaged|processed|prepared) (?:in|on|with)\b[^.;]*?"
    r"\b(?:facility|factory|equipment|lines?|site|plant|machinery|kitchen|bakery)|"
    r"(?:facility|factory|equipment|site) (?:that|which|where)|not suitable for)\b(?P<what>[^.;]*)",
    re.I,
)
_CONTAINS = re.compile(
    r"(?:^|[.;)\]]|\s-\s)\s*(?:allerg\w*(?: advice| information| statement| warning)?\s*:?\s*)?"
    r"contains?(?: ingredients)?\s*:?\s+(?P<what>[^.;]*)",
    re.I,
)
_CONTAINS_MARK = re.compile(r"\b(?:contains|allergens?)\s*:\s*(?P<what>[^.;]*)", re.I)
_SEE_BOLD = re.compile(
    r"[^.;]*\b(?:see|in) (?:ingredients )?(?:highlighted )?in bold\b[^.;]*", re.I
)
# "Free from milk": what is named is not in it.
_NOT_IN_IT = re.compile(
    r"\b(?:free from|free of|contains? no|does not contain|without)\b:?[^.;]*", re.I
)
_PURPOSE = re.compile(r"^(?:to|for|as|added to|used (?:to|as|for))\s", re.I)
_CODE_AT_END = re.compile(
    r"\b(?:agents?|regulators?|colou?rs?|thickeners?|emulsifiers?|preservatives?|antioxidants?|"
    r"stabili[sz]ers?|sweeteners?|enhancers?|humectants?|gums?)\s*:?\s*\(?(\d{3,4}[a-f]?)\)?$",
    re.I,
)
_E_NUMBER = re.compile(
    r"\b(?:e|ins)[\s\-]?(\d{3,4})([a-f]?)\s*(?:\((?:i{1,3}|iv|v|vi{0,3})\)|(?:iii|ii|iv|i)\b)?",
    re.I,
)
_BARE_NUMBER = re.compile(r"^(\d{3,4})([a-f]?)(?:\s*\(?(?:i{1,3}|iv|v|vi{0,3})\)?)?$", re.I)
_PERCENT = re.compile(r"\(?\s*(\d+(?:[.,]\d+)?)\s*%\s*\)?")
_OPEN, _CLOSE = "([{", ")]}"


@dataclass(frozen=True, kw_only=True)
class Item:
    """One ingredient: its name, its share where the package says it [%], what it is made of."""

    name: str
    percent: float | None = None
    inside: tuple[Item, ...] = ()

    def walk(self) -> Iterator[Item]:
        yield self
        for item in self.inside:
            yield from item.walk()


def statements(text: str) -> tuple[str, str, str]:
    """The list itself, what the package says that it contains, and that it may contain."""
    text = " ".join(text.replace("\u2022", ",").replace("\u00b7", ",").split())
    text = _HEAD.sub("", text)
    text = _GOES_ON.sub(", ", _SEE_BOLD.sub(" . ", text))
    text = _NOT_IN_IT.sub(" . ", text)
    may, contains = [], []
    for match in _MAY_CONTAIN.finditer(text):
        may.append(match["what"])
    text = _MAY_CONTAIN.sub(" . ", text)
    for pattern in (_CONTAINS, _CONTAINS_MARK):
        for match in pattern.finditer(text):
            contains.append(match["what"])
        text = pattern.sub(" . ", text)
    return text, "; ".join(contains), "; ".join(may)


def items_in(text: str) -> Iterator[Item]:
    for part in _split(text):
        item = _item(part)
        if item is not None:
            yield item


def _split(text: str) -> Iterator[str]:
    """The parts between the separators that stand in no bracket. A decimal comma is none, nor is a
    point within a number or an abbreviation."""
    depth, part = 0, ""
    for at, sign in enumerate(text):
        depth += (sign in _OPEN) - (sign in _CLOSE)
        depth = max(depth, 0)
        between = text[at - 1 : at].isdigit() and text[at + 1 : at + 2].isdigit()
        # an abbreviation is one letter long
        last = (part.split() or [""])[-1]
        stop = sign == "." and text[at + 1 : at + 2] in (" ", "") and len(last) > 1
        if depth == 0 and (sign in ",;" and not between or stop):
            yield part
            part = ""
        else:
            part += sign
    yield part


def _item(text: str) -> Item | None:
    text = _E_NUMBER.sub(lambda found: f" e{found[1]}{found[2].lower()} ", text)
    outside, inside = _brackets(text)
    found = _PERCENT.search(outside) or next(filter(None, map(_PERCENT.fullmatch, inside)), None)
    percent = float(found[1].replace(",", ".")) if found else None
    outside = _PERCENT.sub(" ", outside)
    parts = tuple(
        item for part in inside if not _PERCENT.fullmatch(part.strip()) for item in items_in(part)
    )
    name = " ".join(outside.strip(" .:*\u2020\u2021-\u2013\u2014").split())
    if _PURPOSE.match(name):
        return None
    name = _CODE_AT_END.sub(
        lambda found: f"{found[0][: -len(found[1])].rstrip(' (')} e{found[1]}", name
    )
    bare = _BARE_NUMBER.match(name)
    if bare:
        name = f"e{bare[1]}{bare[2].lower()}"
    if re.match(r"^(?:and|or|with)\s", name, re.I):
        name = name.split(" ", 1)[1]
    if re.fullmatch(r"[ivx]{1,4}", name, re.I):
        return None
    if not name:
        return None if not parts else Item(name="", inside=parts)
    return Item(name=name[:120], percent=percent, inside=parts)


def _brackets(text: str) -> tuple[str, list[str]]:
    """A text without what stands in its outermost brackets, and that. A bracket that is never
    closed goes to the end."""
    outside, inside, part, depth = "", [], "", 0
    for sign in text:
        if sign in _OPEN:
            depth += 1
            if depth == 1:
                continue
        elif sign in _CLOSE and depth:
            depth -= 1
            if depth == 0:
                inside.append(part)
                part = ""
                outside += " "
                continue
        if depth:
            part += sign
        elif sign not in _CLOSE:
            outside += sign
    if part.strip():
        inside.append(part)
    return outside, inside
