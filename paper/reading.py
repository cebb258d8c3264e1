"""How a paper reads to whom it is handed: its sentences, not its names and numbers."""

from __future__ import annotations

from lxml import html

from nutrition.written.reading_level import MOST_GRADE, grade, sentences_in

# A line of fewer words is a name or an amount, and no sentence.
LEAST_WORDS = 5


def sentences_of(page: str) -> list[str]:
    """The sentences of a page's article: its paragraphs and the items of its lists."""
    tree = html.fromstring(page)
    out = []
    for article in tree.iter("article"):
        for one in article.iter("p", "li"):
            words = " ".join("".join(str(part) for part in one.itertext()).split())
            out += [said for said in sentences_in(words) if len(said.split()) >= LEAST_WORDS]
    return out


def read_words(page: str) -> str:
    """ "It reads at about grade 6", and what would help where that is too hard; empty where there
    is too little to tell."""
    found = grade(sentences_of(page))
    if found is None:
        return ""
    said = f"Reads at about grade {max(round(found), 1)}"
    if found <= MOST_GRADE:
        return f"{said}."
    return f"{said}; at most grade {MOST_GRADE:g} is wanted: shorter sentences and words help."
