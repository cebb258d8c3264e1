"""Reads the tables before the first request, so that no practitioner waits for them."""

import gc

from nutrition.cautions import rules
from nutrition.foods import food_table
from nutrition.search import food_index


def warm() -> None:
    """Load what every page needs, and take it out of what the collector looks through: it stays for
    good."""
    food_table()
    food_index()
    rules()
    gc.collect()
    gc.freeze()
