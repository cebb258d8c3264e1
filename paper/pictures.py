"""The pictures of a page for a PDF: each drawing becomes an image that carries its own style and
the words for who cannot see it. What lays a page out for print knows no style of the page within a
drawing."""

from __future__ import annotations

import re
from base64 import b64encode
from collections.abc import Mapping
from functools import cache
from xml.etree import ElementTree
from xml.etree.ElementTree import Element

import tinycss2
from tinycss2.ast import AtRule, Node, QualifiedRule

_SVG = "http://www.w3.org/2000/svg"
ElementTree.register_namespace("", _SVG)
# What of a rule bears on a drawing.
_OF_DRAWINGS = {
    *("fill", "stroke", "stroke-width", "stroke-dasharray", "text-anchor", "dominant-baseline"),
    *("font-size", "font-weight", "opacity", "fill-opacity", "stroke-linejoin", "stroke-linecap"),
    *("fill-rule", "stroke-opacity"),
}
_VARIABLE = re.compile(r"var\((--[\w-]+)(?:,([^()]*))?\)")
_FONT = 'text { font-family: "Atkinson Hyperlegible Next" }'


def _flattened(rules: list[Node], values: dict[str, str]) -> list[str]:
    """The rules that bear on drawings, with every variable put in; those of screens left out."""
    found: list[str] = []
    for rule in rules:
        if isinstance(rule, AtRule) and rule.content is not None:
            about = tinycss2.serialize(rule.prelude).strip()
            if rule.at_keyword == "layer" or (rule.at_keyword == "media" and about == "print"):
                inner = tinycss2.parse_blocks_contents(rule.content, True, True)
                found += _flattened(inner, values)
        elif isinstance(rule, QualifiedRule):
            found += _of_rule(rule, values)
    return found


def _of_rule(rule: QualifiedRule, values: dict[str, str]) -> list[str]:
    said = []
    for one in tinycss2.parse_blocks_contents(rule.content, True, True):
        name = getattr(one, "name", "")
        if name.startswith("--"):
            values[name] = tinycss2.serialize(one.value).strip()
        if name in _OF_DRAWINGS:
            said.append((name, tinycss2.serialize(one.value).strip()))
    if not said:
        return []
    body = "; ".join(f"{name}: {_put_in(value, values)}" for name, value in said)
    return [f"{tinycss2.serialize(rule.prelude).strip()} {{ {body} }}"]


def _put_in(value: str, values: dict[str, str]) -> str:
    return _VARIABLE.sub(lambda m: values.get(m[1], (m[2] or "none").strip()), value)


@cache
def style_of_drawings(sheet: str, gray: bool) -> str:
    """The rules of a style sheet that bear on drawings, without variables. In `gray` the colors of
    areas give way to white; the hatches of their kinds stay."""
    values: dict[str, str] = {}
    rules = tinycss2.parse_stylesheet(sheet, True, True)
    _flattened(rules, values)  # the variables first, wherever they stand
    found = _flattened(rules, values)
    return "\n".join([_FONT, *found, *(_WITHOUT_COLOR if gray else ())])


_WITHOUT_COLOR = (
    ".sector, .rim-arc, .stove-bar rect, .stove-bar.hands rect { fill: #ffffff; stroke: #000000 }",
    ".stove-bar.hands rect { stroke-width: 3 } .stove-bar.hands text { fill: #000000 }",
    ".bar .fill, .bar .fill.n2, .bar .fill.n3 { fill: #555555 } text { fill: #000000 }",
    ".round .vessel, .round .sector.star { stroke: #000000 }",
)


def put_in_images(page: Element, style: str) -> None:
    """Put an image in place of every drawing of a page, in the page itself. What draws a mark
    beside words that say the same has an empty text: it is left out of what is read aloud."""
    hatches = {one.get("id", ""): one for one in page.iter(f"{{{_SVG}}}pattern")}
    for parent in list(page.iter()):
        for at, one in enumerate(list(parent)):
            if one.tag == f"{{{_SVG}}}svg":
                parent[at] = _image_of(one, style, hatches)


def _image_of(drawing: Element, style: str, hatches: Mapping[str, Element]) -> Element:
    image = ElementTree.Element("img", {"alt": drawing.get("aria-label", "")})
    for name in ("class", "width", "height"):
        if value := drawing.get(name):
            image.set(name, value)
    image.tail, drawing.tail = drawing.tail, None
    # a hatch that stands once on the page is needed in every image that uses it
    own = {one.get("id") for one in drawing.iter()}
    used = set(re.findall(r"url\(#([\w-]+)\)", ElementTree.tostring(drawing, encoding="unicode")))
    for at, name in enumerate(sorted((used - own) & set(hatches))):
        drawing.insert(at, hatches[name])
    sheet = ElementTree.Element(f"{{{_SVG}}}style")
    sheet.text = style
    drawing.insert(0, sheet)
    packed = b64encode(ElementTree.tostring(drawing)).decode()
    image.set("src", f"data:image/svg+xml;base64,{packed}")
    return image
