"""Lays out the templates: a tag on one line whatever its width, a block a line where it nests, ends
of blocks named.

python tools/templates.py [--check] [FILE ...]

Only white space moves, and only where a browser does not tell one from another: where there is some
already, and beside what is drawn as a block.
"""

from __future__ import annotations

import argparse
import re
import sys
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
WIDTH, INDENT = 120, "  "
TOKEN = re.compile(
    r"(\{#.*?#\}|\{%.*?%\}|\{\{.*?\}\}|<!--.*?-->|<(?:[^<>{\"']|\"[^\"]*\"|'[^']*'|\{[%{].*?[%}]\})*>)",
    re.S,
)
# What is laid out by its author: nothing in it moves.
VERBATIM = re.compile(
    r"<(pre|textarea|script|style)\b.*?</\1>|<(\w+)[^>]*whitespace-pre[^>]*>.*?</\2>", re.S
)
VOID = set("area base br col hr img input link meta path rect line circle use stop".split())
BLOCKS = set(
    "address article aside blockquote body caption circle col colgroup dd defs details dialog div "
    "dl dt fieldset figcaption figure footer form g h1 h2 h3 h4 h5 h6 head header hr html legend "
    "li line link main meta nav ol optgroup option p path pattern rect section stop summary table "
    "tbody td tfoot th thead title tr ul use".split()
)
OPENS = re.compile(r"\{%-?\s*(if|for|with|block|spaceless|autoescape|filter|ifchanged)\b")
TURNS = re.compile(r"\{%-?\s*(elif|else|empty)\b")
NAMED = re.compile(r"\{%\s*block\s+(\w+)")


@dataclass(kw_only=True)
class Token:
    """A piece of a template. `space`: there was white space before it. `end` is the place of what
    closes it."""

    text: str
    space: bool
    kind: str = "text"
    name: str = ""
    end: int | None = None

    @property
    def block(self) -> bool:
        inline = self.name == "form" and re.search(r"class=\"[^\"]*\binline\b", self.text)
        if self.kind in ("opens", "ends"):
            # what a page puts into the frame stands by itself
            return self.name == "block"
        return self.kind in ("open", "close", "void") and self.name in BLOCKS and not inline


def _kind(text: str) -> tuple[str, str]:
    if text.startswith("{%"):
        if OPENS.match(text):
            return "opens", OPENS.match(text)[1]  # type: ignore[index]
        if TURNS.match(text):
            return "turns", TURNS.match(text)[1]  # type: ignore[index]
        ends = re.match(r"\{%-?\s*end(\w+)", text)
        return ("ends", ends[1]) if ends else ("text", "")
    tag = re.match(r"<(/?)([a-zA-Z][\w-]*)", text)
    if tag is None:
        return "text", ""
    name = tag[2].lower()
    if tag[1]:
        return "close", name
    return ("void" if name in VOID or text.endswith("/>") else "open"), name


def _tag(text: str, space: bool) -> Token:
    kind, name = _kind(text)
    return Token(text=text, space=space, kind=kind, name=name)


def tokens_of(text: str) -> list[Token]:
    """The template in pieces: tags, words of text with what is joined to them."""
    kept: list[str] = []

    def keep(match: re.Match[str]) -> str:
        kept.append(match[0])
        return f"\x00{len(kept) - 1}\x00"

    text = VERBATIM.sub(keep, text)
    out: list[Token] = []
    space = False
    for at, piece in enumerate(TOKEN.split(text)):
        if at % 2:
            joined = " ".join(piece.split()) if piece[:2] not in ("{#", "<!") else piece
            out.append(_tag(joined, space))
            space = False
            continue
        for word in re.split(r"(\s+)", piece):
            if not word:
                continue
            if word.isspace():
                space = True
                continue
            out.append(Token(text=word, space=space))
            space = False
    for token in out:
        token.text = re.sub("\x00(\\d+)\x00", lambda match: kept[int(match[1])], token.text)
    return _matched(out)


def _matched(tokens: list[Token]) -> list[Token]:
    """Each opening piece with its end, where all between them nests."""
    open_now: list[int] = []
    for at, token in enumerate(tokens):
        if token.kind in ("open", "opens"):
            open_now.append(at)
        elif token.kind in ("close", "ends"):
            want = "open" if token.kind == "close" else "opens"
            if open_now and (tokens[open_now[-1]].kind, tokens[open_now[-1]].name) == (
                want,
                token.name,
            ):
                tokens[open_now.pop()].end = at
            else:
                # what does not nest is left in its line, and whatever holds it too
                open_now = [one for one in open_now if tokens[one].kind != want][:0]
    return tokens


class _Layout:
    def __init__(self, tokens: list[Token]) -> None:
        self.tokens, self.lines, self.line, self.broken = tokens, list[str](), "", True

    def may_break(self, at: int) -> bool:
        """Whether white space may stand before a piece: there is some, or a block is beside."""
        if at >= len(self.tokens) or at == 0:
            return True
        one, before = self.tokens[at], self.tokens[at - 1]
        return one.space or one.block or before.block or before.text.startswith("{% extends")

    def has_block(self, first: int, last: int) -> bool:
        return any(one.block or "\n" in one.text for one in self.tokens[first:last])

    def add(self, at: int, indent: int) -> None:
        """A piece into the line, or onto the next where it is full and may be broken."""
        one = self.tokens[at]
        joint = " " if one.space else ""
        wide = len(INDENT * indent) + len(self.line) + len(joint) + len(one.text) > WIDTH
        if not self.line:
            self.line, self.indent = one.text, indent
        elif one.space and wide:
            self.flush()
            self.line, self.indent = one.text, indent
        else:
            self.line += joint + one.text

    def flush(self, at: int | None = None) -> None:
        """The line is over, if a break may stand before a piece."""
        if self.line and (at is None or self.may_break(at)):
            self.lines.append(INDENT * self.indent + self.line)
            self.line = ""

    def joint(self, at: int) -> str:
        """What stands before a piece within a line: nothing at the ends of a block."""
        one, before = self.tokens[at], self.tokens[at - 1]
        at_an_end = (before.block and before.kind in ("open", "opens")) or (
            one.block and one.kind in ("close", "ends")
        )
        return " " if one.space and not at_an_end else ""

    def flat(self, first: int, last: int) -> str:
        pieces = (self.joint(at) + self.tokens[at].text for at in range(first + 1, last + 1))
        return self.tokens[first].text + "".join(pieces)

    def lay(self, first: int, last: int, indent: int) -> None:
        at = first
        while at < last:
            one = self.tokens[at]
            if one.end is not None and self.nests(at, one.end):
                at = self.nested(at, one.end, indent)
            elif one.block:
                self.flush(at)
                self.add(at, indent)
                at += 1
                self.flush(at)
            else:
                if one.text.startswith(("{% extends", "{% load", "{#")) and one.space:
                    self.flush(at)
                self.add(at, indent)
                at += 1

    def nests(self, at: int, end: int) -> bool:
        """Whether something opens lines of its own: a block, or a condition or loop with blocks."""
        one = self.tokens[at]
        if one.block:
            return True
        if one.kind == "open":
            return self.has_block(at + 1, end)
        return self.has_block(at + 1, end) and self.may_break(at) and self.may_break(end + 1)

    def nested(self, at: int, end: int, indent: int) -> int:
        one = self.tokens[at]
        self.flush(at)
        whole = self.flat(at, end)
        inside = self.has_block(at + 1, end) or "\n" in whole
        if not inside and len(INDENT * indent) + len(whole) <= WIDTH:
            if self.line:
                self.line += (" " if one.space else "") + whole
            else:
                self.line, self.indent = whole, indent
        else:
            self.add(at, indent)
            self.flush(at + 1)
            self.lay_branches(at + 1, end, indent)
            self.flush(end)
            self.add(end, indent)
        self.flush(end + 1)
        return end + 1

    def lay_branches(self, first: int, last: int, indent: int) -> None:
        """What is inside, its turns ("else") as far out as what opened it."""
        depth, start = 0, first
        for at in range(first, last):
            kind = self.tokens[at].kind
            depth += {"opens": 1, "ends": -1}.get(kind, 0)
            if kind == "turns" and depth == 0:
                self.lay(start, at, indent + 1)
                self.flush(at)
                self.add(at, indent)
                self.flush(at + 1)
                start = at + 1
        self.lay(start, last, indent + 1)


def laid_out(text: str) -> str:
    """A template as it is to stand."""
    layout = _Layout(tokens_of(_named(text)))
    layout.lay(0, len(layout.tokens), 0)
    layout.flush()
    return "\n".join(line.rstrip() for line in layout.lines) + "\n"


def _named(text: str) -> str:
    """Each end of a block with the block's name."""
    names: list[str] = []

    def end(match: re.Match[str]) -> str:
        if match[1] is None:
            return f"{{% endblock {names.pop()} %}}" if names else match[0]
        names.append(match[1])
        return match[0]

    return re.sub(r"\{%\s*(?:block\s+(\w+)|endblock(?:\s+\w+)?)\s*%\}", end, text)


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--check", action="store_true", help="say which are not laid out so")
    parser.add_argument("files", nargs="*", type=Path)
    asked = parser.parse_args()
    paths = asked.files or sorted(ROOT.glob("*/templates/**/*.html"))
    other = []
    for path in paths:
        text = path.read_text(encoding="utf-8")
        made = laid_out(text)
        if made != text:
            other.append(path)
            if not asked.check:
                path.write_text(made, encoding="utf-8")
    if asked.check and other:
        print("Lay them out: python tools/templates.py")
        print(*(f"  {path}" for path in other), sep="\n")
    return 1 if asked.check and other else 0


if __name__ == "__main__":
    sys.exit(main())
