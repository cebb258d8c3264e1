"""Dangers and harmless cases (dangers.json), written before the rules that they are held against
were opened: what is expected stands, and what is harmless is not warned of."""

import json
import re
from pathlib import Path
from unittest import TestCase

from nutrition.requests.cautions import report

CASES = json.loads((Path(__file__).parent / "dangers.json").read_text(encoding="utf-8"))
GRAVE = {"note": 1, "caution": 2, "stop": 3}


def told(case):
    asked = {key: case[key] for key in ("person", "meals", "supplements")}
    return report(asked).data()["cautions"]


class Dangers(TestCase):
    def test_each_is_told_as_gravely_as_it_is(self):
        dangers = [one for one in CASES if one["expect"] in GRAVE]
        self.assertGreaterEqual(len(dangers), 150)
        for case in dangers:
            pattern = re.compile(case["pattern"], re.I)
            with self.subTest(case["id"]):
                found = [
                    GRAVE[row["level"]]
                    for row in told(case)
                    if pattern.search(f"{row['text']} {' '.join(row['because'])}")
                ]
                self.assertGreaterEqual(max(found, default=0), GRAVE[case["expect"]])

    def test_what_is_harmless_is_not_warned_of(self):
        harmless = [one for one in CASES if one["expect"] not in GRAVE]
        self.assertGreaterEqual(len(harmless), 60)
        for case in harmless:
            pattern = re.compile(case["pattern"], re.I)
            of_the_person = {row["code"] for row in told(case | {"meals": [], "supplements": None})}
            least = 3 if case["expect"] == "notstop" else 1 if case["pattern"] == "." else 2
            with self.subTest(case["id"]):
                found = [
                    row["text"]
                    for row in told(case)
                    if GRAVE[row["level"]] >= least
                    and row["code"] not in of_the_person
                    and pattern.search(f"{row['text']} {' '.join(row['because'])}")
                ]
                self.assertEqual(found, [])
