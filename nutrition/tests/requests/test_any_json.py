"""Whatever stands at any place of a file in JSON: it is read, or refused by its field; it never
breaks a command."""

import random
import unittest
from copy import deepcopy
from datetime import date

from nutrition.composition.errors import CoreError
from nutrition.requests import cautions, day, follow_answer
from nutrition.requests.balance import read_problem
from nutrition.requests.person import read_asked
from nutrition.requests.week import read_week
from nutrition.tests.requests.test_week import GIVEN as WEEK
from nutrition.tests.thorough import thorough

ODD = (
    *(None, True, False, 0, -1, 1e9, 1e-9, 10**30, float("inf"), float("nan")),
    *("", "x", "Infinity", "2026-02-30", "0-1-1", [], [[]], [None], [float("inf")]),
    *({}, {"a": None}, [{}], [["x"]], "\x00", "9" * 400, ["kale"] * 3, {"low": 2, "high": 1}),
)
PERSON = WEEK["person"] | {
    "goal": {"kind": "lose", "target_weight_kg": 62, "pace_kg_per_week": 0.4},
    "conditions": ["hypertension"],
    "meals": 3,
    "orders": [{"key": "potassium_mg", "max": 2000, "by": "Dr. H. Amsel", "license": "MD"}],
}
CAUTIONS = {
    "person": PERSON,
    "meals": [["220 g boiled potatoes", "130 g cooked kale"], ["150 g tofu"]],
    "supplements": {"iron_mg": 18},
}
PROBLEM = {
    "parts": [
        {"id": "base", "food": "barley cooked", "grams": 200, "min_grams": 100, "max_grams": 320},
        {"id": "sauce", "recipe": ["2 tbsp tahini", "1 tbsp lemon juice"], "grams": 30},
        {"id": "seeds", "food": "pumpkin seeds", "grams": 10, "locked": True},
    ],
    "targets": {"protein_g": {"min": 24, "aim": 26, "max": 40, "weight": 2}},
    "vessel_ml": 900,
    "person": PERSON,
    "meal": "lunch",
    "day": [["1 cup cooked millet"]],
}
FOLLOW = {
    "person": PERSON,
    "today": "2026-11-26",
    "made_on": "2026-09-01",
    "planned_since": "2026-09-01",
    "weighed": [{"on": "2026-11-03", "kg": 101.4, "time": "morning", "scale": "the old one"}],
    "days": [{"on": "2026-11-20", "meals": {"lunch": ["1 cup cooked lentils"]}, "whole": True}],
    "happened": [{"kind": "exercise", "from": "2026-11-04", "words": "rows"}],
    "blood": [{"what": "potassium", "value": 5.6, "unit": "mmol/L", "on": "2026-11-03"}],
}


def load(name):
    raise ValueError(f"no file {name}")


COMMANDS = {
    "targets": (PERSON, lambda data: day.report(read_asked(data))),
    "cautions": (CAUTIONS, cautions.report),
    "balance": (PROBLEM, lambda data: read_problem(data, load)),
    "week": (WEEK, lambda data: read_week(data, load)),
    "follow": (FOLLOW, follow_answer.report),
}


def places(data, way=()):
    """Every place in some data, as the way to it."""
    yield way
    inner = data.items() if isinstance(data, dict) else enumerate(data)
    for key, value in inner if isinstance(data, dict | list) else ():
        if isinstance(value, dict | list):
            yield from places(value, (*way, key))
        else:
            yield (*way, key)


def with_odd(data, way, odd):
    if not way:
        return odd
    made = deepcopy(data)
    at = made
    for key in way[:-1]:
        at = at[key]
    at[way[-1]] = odd
    return made


class AnyJson(unittest.TestCase):
    @thorough
    def test_it_is_read_or_refused(self):
        chance = random.Random(25)
        for name, (sample, read) in COMMANDS.items():
            read(deepcopy(sample))
            ways = list(places(sample))
            for way in ways:
                for odd in chance.sample(ODD, 8):
                    with self.subTest(command=name, way=way, odd=repr(odd)[:40]):
                        try:
                            read(with_odd(sample, way, odd))
                        except CoreError as error:
                            self.assertTrue(str(error))
                            self.assertTrue(error.field, str(error))

    def test_a_first_of_the_year_one_is_a_date(self):
        told = follow_answer.report(FOLLOW | {"today": str(date(2026, 11, 26))})
        self.assertTrue(told.standing)
