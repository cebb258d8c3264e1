"""The demo practice's own foods: packages, words, and a value put in place of a row's."""

from pathlib import Path

from nutrition.composition.foods import shipped_foods
from nutrition.composition.overrides import Overruling
from nutrition.formats.label_csv import read_labels
from pantry import keeping
from pantry.models import COPIED, OwnFood
from practice.models import Practice, User

HERE = Path(__file__).resolve().parent
WORDS = (("dillisk", "dulse-dried"), ("sea spaghetti", "wakame-raw"), ("groats", "buckwheat-dry"))
RETIRED = "Protein bar, cocoa"


def load_pantry(practice: Practice, user: User) -> None:
    """Copies the packages, settles the words, overrules a cup that weighs otherwise here."""
    table = shipped_foods()
    for given in read_labels((HERE / "packages.csv").read_text(encoding="utf-8")):
        row = OwnFood(practice=practice)
        for name in COPIED:
            setattr(row, name, getattr(given.label, name))
        keeping.store(row, user)
        if row.name == "Rye crackers with seeds":
            row.printed = {**row.printed, "sodium_mg": "210"}
            keeping.store(row, user)
        if row.name == RETIRED:
            keeping.retire(row, user)
    for phrase, slug in WORDS:
        if slug in table:
            keeping.settle(practice, phrase, table[slug], user)
    said = Overruling(
        key="measure:cup",
        value=172.0,
        low=164.0,
        high=180.0,
        said="weighed here three times: the harbor shop's grains are large",
    )
    keeping.overrule(practice, table["freekeh-dry"], said, user)
