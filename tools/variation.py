"""Build nutrition/data/variation.csv: how far two tables' rows of one plant lie apart, by kind of
food and nutrient. Where a row has no spread of its own, that is how far it may be off."""

from __future__ import annotations

import argparse
import csv
import math
import re
import statistics
from collections import defaultdict
from collections.abc import Iterator
from pathlib import Path

import sources
from rapidfuzz import fuzz, process

OUT = Path(__file__).resolve().parent.parent / "nutrition" / "data" / "variation.csv"
# Descriptions of the two tables that agree so well are of one food.
SAME_FOOD = 80
FROM_ANIMALS = re.compile(
    r"beef|pork|chicken|turkey|milk|cheese|egg|fish|ham|sausage|salami|butter, s|yogurt|cream"
    r"|salmon|tuna|shrimp|cod|tilapia|haddock|pollock|crustac|frank|kielb|bologna|bison|lamb"
    r"|cookies|sauce, s",
    re.I,
)
# Kinds by the words of a description, the first that fits; "any" is every pair.
KINDS = (
    ("grain", re.compile(r"flour|rice|grain|oats|wheat|millet|sorghum|barley|corn, field", re.I)),
    ("nut", re.compile(r"nuts|seeds", re.I)),
    ("produce", re.compile(r"raw", re.I)),
)
# Dry beans that one table gives without their water, and the row of the other.
DRY_BEANS = {
    "Black": "Beans, black, mature seeds, raw",
    "Cranberry": "Beans, cranberry (roman), mature seeds, raw",
    "Dark Red Kidney": "Beans, kidney, red, mature seeds, raw",
    "Light Red Kidney": "Beans, kidney, red, mature seeds, raw",
    "Navy": "Beans, navy, mature seeds, raw",
    "Pink": "Beans, pink, mature seeds, raw",
    "Small White": "Beans, small white, mature seeds, raw",
}
# Of a dry bean so much is not water. Common practice, no source.
DRY_MATTER = 0.885
LEAST_PAIRS = 6
# Nothing is said to be off by more than this; energy and protein are what pairs agree on best.
# [natural logarithm of the ratio]
MOST = 0.6
# The newer table counts resistant starch as fiber, and the older does not: that is a difference of
# methods, of which the food is no more than this.
MOST_OF = {"fiber_g": 0.2}


def pairs(first: sources.FirstSource) -> Iterator[tuple[str, sources.Row, sources.Row]]:
    """The kind of each food that both tables have, with its two rows."""
    named: dict[str, str] = {}
    for kind, description in first.rows:
        if kind == "sr" and not FROM_ANIMALS.search(description):
            named[re.sub(r"[^a-z ]", " ", description.lower())] = description
    for (kind, description), record in sorted(first.rows.items()):
        if kind != "fnd" or FROM_ANIMALS.search(description):
            continue
        asked = re.sub(r"[^a-z ]", " ", description.lower())
        found = process.extractOne(asked, sorted(named), scorer=fuzz.token_sort_ratio)
        if found and found[1] >= SAME_FOOD:
            what = next((name for name, words in KINDS if words.search(description)), "other")
            other = first.find("sr", named[found[0]])
            yield what, sources.nutrients_of(record), sources.nutrients_of(other)


def bean_pairs(first: sources.FirstSource) -> Iterator[tuple[str, sources.Row, sources.Row]]:
    """The same of dry beans, brought to the water of the other table."""
    for name, other in DRY_BEANS.items():
        dry = sources.nutrients_of(first.find("fnd", f"Beans, Dry, {name} (0% moisture)"))
        bean = {key: value * DRY_MATTER for key, value in dry.items()}
        yield "legume", bean, sources.nutrients_of(first.find("sr", other))


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("first", type=Path, help="fooddata.csv of the first data set")
    apart: dict[tuple[str, str], list[float]] = defaultdict(list)
    first = sources.FirstSource(parser.parse_args().first)
    for kind, one, other in (*pairs(first), *bean_pairs(first)):
        for key in one:
            if key in other and one[key] > 0 and other[key] > 0:
                for name in (kind, "any"):
                    apart[name, key].append(abs(math.log(one[key] / other[key])))
    keys = sorted({key for _kind, key in apart})
    with OUT.open("w", newline="", encoding="utf-8") as file:
        writer = csv.writer(file, lineterminator="\n")
        writer.writerow(["kind", "key", "apart", "pairs"])
        for kind in ("produce", "grain", "nut", "legume", "any"):
            for key in keys:
                values = apart.get((kind, key), [])
                if len(values) >= LEAST_PAIRS:
                    middle = min(statistics.median(values), MOST_OF.get(key, MOST))
                    writer.writerow([kind, key, f"{middle:.3f}", len(values)])


if __name__ == "__main__":
    main()
