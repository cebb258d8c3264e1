"""What is published of a command is what it does: what is taken keeps to the schema of the request,
what is told to that of the answer, and what the schema refuses is refused."""

import json
import unittest
from copy import deepcopy
from pathlib import Path

from jsonschema import Draft202012Validator

from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.requests import (
    balance_answer,
    cautions,
    day,
    follow_answer,
    timeline_answer,
    week_answer,
)
from nutrition.requests.balance import read_problem
from nutrition.requests.person import read_asked
from nutrition.requests.recipe_answer import report as recipe_report
from nutrition.requests.timeline import read_timeline
from nutrition.requests.week import read_week
from nutrition.tests.requests.test_any_json import CAUTIONS, FOLLOW, PERSON, PROBLEM, load
from nutrition.tests.requests.test_timeline import GIVEN as TIMELINE
from nutrition.tests.requests.test_timeline import TODAY
from nutrition.tests.requests.test_week import GIVEN

FOLDER = Path(__file__).resolve().parents[3] / "docs" / "schemas"
WEEK = GIVEN | {"days": 2}
COMMANDS = {
    "targets": (PERSON, lambda data: day.report(read_asked(data))),
    "cautions": (CAUTIONS, cautions.report),
    "balance": (PROBLEM, lambda data: balance_answer.solve(read_problem(data, load))),
    "week": (WEEK, lambda data: week_answer.solve(read_week(data, load))),
    "follow": (FOLLOW, follow_answer.report),
    "timeline": (TIMELINE, lambda data: timeline_answer.solve(read_timeline(data, TODAY))),
}


def published(name, side):
    schema = json.loads((FOLDER / f"{name}.json").read_text(encoding="utf-8"))[side]
    Draft202012Validator.check_schema(schema)
    return Draft202012Validator(schema)


def faults(validator, data):
    return [f"{error.json_path}: {error.message}" for error in validator.iter_errors(data)]


class Published(unittest.TestCase):
    def test_what_is_taken_and_told_keeps_to_it(self):
        for name, (sample, answer_to) in COMMANDS.items():
            with self.subTest(name):
                self.assertEqual(faults(published(name, "request"), sample), [])
                told = json.loads(json.dumps(answer_to(deepcopy(sample)).data()))
                self.assertEqual(faults(published(name, "answer"), told), [])

    def test_what_it_refuses_is_refused(self):
        for name, sample, wrong in (
            ("targets", PERSON, {"sex": "other"}),
            ("targets", PERSON, {"weight_kg": "70"}),
            ("cautions", CAUTIONS, {"supplements": {"iron_mg": -1}}),
            ("balance", PROBLEM, {"parts": []}),
            ("week", WEEK, {"dishes": [{"food": "pear-raw", "kinds": ["gravel"]}]}),
            ("follow", FOLLOW, {"weighed": [{"kg": 88}]}),
            ("timeline", TIMELINE, {"kitchen": {"cooks": 0}}),
        ):
            with self.subTest(name, wrong=wrong):
                data = sample | wrong
                self.assertNotEqual(faults(published(name, "request"), data), [])
                with self.assertRaises(ValueError):
                    COMMANDS[name][1](deepcopy(data))

    def test_a_recipe_reckoned(self):
        told = recipe_report(reckon(Recipe(("1 cup cooked millet", "2 cups moonlight")))).data()
        self.assertEqual(faults(published("reckon", "answer"), json.loads(json.dumps(told))), [])
        self.assertEqual(len(told["unresolved"]), 1)
