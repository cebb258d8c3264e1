"""Bowls and days for invented people that were balanced and read (served.toml): the portions that a
verdict was given of are those that are given, and none does what no cook or dietitian would."""

import tomllib
from pathlib import Path
from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.portions.serving_rules import servable
from nutrition.requests.balance import read_problem
from nutrition.requests.balance_answer import solve
from nutrition.tests.thorough import thorough

FOODS = food_table()
READ = tomllib.loads((Path(__file__).parent / "served.toml").read_text(encoding="utf-8"))
VERDICTS = ("yes", "with the first hint", "with a hint", "no")


def asked_of(row):
    parts = [
        {"id": slug, "food": slug, "grams": grams}
        | ({"star": True} if row.get("star") == slug else {})
        for slug, grams in row["parts"].items()
    ]
    return read_problem({"parts": parts, "person": row["person"], "meal": row["meal"]}, str)


@thorough
class Served(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.answers = {}
        for name, row in READ.items():
            asked = asked_of(row)
            cls.answers[name] = asked, solve(asked).data()

    def moved(self, name):
        row, (_asked, told) = READ[name], self.answers[name]
        return {
            slug: (grams, told["portions"][slug])
            for slug, grams in row["parts"].items()
            if abs(told["portions"][slug] - grams) > 0.05
        }

    def test_the_portions_are_those_that_were_read(self):
        bowls = [name for name, row in READ.items() if row["meal"] != "day"]
        self.assertGreaterEqual(len(bowls), 15)
        self.assertGreaterEqual(len(READ) - len(bowls), 5)
        for name, row in READ.items():
            with self.subTest(name=name):
                self.assertIn(row["serve"], VERDICTS)
                self.assertTrue(row["read"])
                now = {slug: round(after, 1) for slug, (_b, after) in self.moved(name).items()}
                self.assertEqual(now, row["answer"], "read it again, and write down what you think")
                told, there = self.answers[name][1]["portions"], row["parts"]
                new = {slug: round(one, 1) for slug, one in told.items() if slug not in there}
                self.assertEqual(new, row.get("added", {}), "read what is added too")

    def test_vegetables_keep_their_size_and_nothing_outgrows_its_helping(self):
        for name in READ:
            asked, told = self.answers[name]
            for slug, (before, after) in self.moved(name).items():
                kind = servable(FOODS[slug], FOODS[slug].role)
                with self.subTest(name=name, part=slug):
                    if kind.keeps and after < before:
                        reasons = [one["because"] for one in told["proposals"] if one["because"]]
                        self.assertTrue(reasons or slug in told["held"])
                    self.assertLessEqual(after, max(kind.most_g, before))
                    self.assertLessEqual(after, max(2 * before, kind.least_g))

    def test_nothing_that_is_warned_of_grows_or_is_brought_in(self):
        for name in READ:
            asked, told = self.answers[name]

            def codes(portions, gate=asked.gate):
                foods = [Ingredient(FOODS[s], g) for s, g in portions.items() if g > 0]
                return {bar.code for bar in gate.bars(foods)}

            with self.subTest(name=name):
                self.assertLessEqual(codes(told["portions"]), codes(READ[name]["parts"]))
                for slug, (before, after) in self.moved(name).items():
                    if slug in told["held"]:
                        self.assertLess(after, before)
