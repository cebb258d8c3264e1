"""What the words of an ingredient list mean, from data/label_terms.csv. Common practice, no source,
written down from memory, unless a note says otherwise."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.allergens import ALLERGENS
from nutrition.composition.food_words import Words, words
from nutrition.composition.nutrients import KEYS
from nutrition.composition.tables import BadTable, csv_rows

# What a term may say of what it is in, besides allergens, nutrients added and animal origin.
PLAIN_CLASSES = frozenset(
    {
        *("oil", "saturated oil", "added sugar", "starch sweetener", "sweetener", "polyol"),
        *("added salt", "sodium additive", "glutamate", "phosphate additive", "may phosphate"),
        *("potassium additive", "trace potassium", "fermentable fiber", "swelling fiber"),
        *("licorice", "caffeine", "alcohol", "grapefruit", "kelp", "sea vegetable", "brazil nut"),
        *("star fruit", "refined", "coconut", "flavoring", "emulsifier", "gum", "acid", "color"),
        *("preservative", "sulfite", "culture", "enzyme", "firming", "vitamin", "may animal"),
        *("phenylalanine", "added amino acid"),
    }
)
ANIMALS = frozenset({"milk", "egg", "meat", "fish", "honey", "insect color", "insect glaze"})


@dataclass(frozen=True)
class Term:
    """Words as they stand in a list, the classes they belong to and what is to be said of them."""

    words: Words
    classes: frozenset[str]
    note: str


@dataclass(frozen=True)
class Terms:
    """All terms by their words."""

    by_words: Mapping[Words, Term]
    longest: int

    def within(self, said: Sequence[str]) -> Iterator[Term]:
        """The terms in a name, the longest run of words counting first."""
        at = 0
        while at < len(said):
            for length in range(min(self.longest, len(said) - at), 0, -1):
                found = self.by_words.get(tuple(said[at : at + length]))
                if found is not None:
                    yield found
                    at += length
                    break
            else:
                at += 1


@lru_cache(maxsize=1)
def label_terms() -> Terms:
    """The terms. Raises BadTable for a class that nothing reads, or a term that stands twice."""
    out: dict[Words, Term] = {}
    for row in csv_rows("label_terms.csv", ("terms", "classes", "note")):
        classes = frozenset(row["classes"].split("|")) if row["classes"] else frozenset()
        for one in classes:
            _check(one)
        for term in row["terms"].split("|"):
            said = tuple(words(term))
            if said in out:
                raise BadTable(f"label_terms.csv: “{term}” stands twice", term)
            out[said] = Term(said, classes, row["note"])
    return Terms(out, max(len(said) for said in out))


def _check(one: str) -> None:
    kind, colon, about = one.partition(":")
    known = {"allergen": ALLERGENS, "may": ALLERGENS, "fortified": KEYS, "animal": ANIMALS}
    if (about not in known.get(kind, ())) if colon else one not in PLAIN_CLASSES:
        raise BadTable(f"label_terms.csv: nothing reads {one}", one)
