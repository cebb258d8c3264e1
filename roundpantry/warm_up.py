"""Reads the tables before the first request, so that no practitioner waits for them."""

import gc

from nutrition.composition.food_search import food_index
from nutrition.composition.foods import food_table
from nutrition.safety.caution_rules import rules
from nutrition.targets.blood import convert


def warm() -> None:
    """Load what every page needs, and take it out of what the collector looks through: it stays for
    good. What comes after is looked through more seldom: all of it at once is felt in a page."""
    food_table()
    food_index()
    rules()
    # the units of the laboratory are slow to read
    convert("phosphate", 1.0, "mg/dL", "mmol/L")
    gc.collect()
    gc.freeze()
    gc.set_threshold(10_000, 20, 50)
