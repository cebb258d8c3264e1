"""Every number that a caution goes by, on both sides of its edge; the values are written out in
caution_numbers.tsv."""

from __future__ import annotations

import unittest
from pathlib import Path

from nutrition.safety.caution_rules import Rule, rules
from nutrition.tests.written_out import rows_of

ROWS = rows_of(Path(__file__).with_name("caution_numbers.tsv"))
RULES = {rule.code: rule for rule in rules()}


def _held(rule: Rule, numbers: dict[str, float]) -> bool:
    return all(one.holds(numbers) for one in rule.number)


class CautionNumbersTests(unittest.TestCase):
    def test_each_number_holds_on_one_side_of_its_edge_and_not_on_the_other(self) -> None:
        for code, name, inside, outside, *rest in ROWS:
            with self.subTest(code, number=name):
                besides = {
                    key: float(value)
                    for key, value in (one.split(" = ") for one in "".join(rest).split("; ") if one)
                }
                self.assertTrue(_held(RULES[code], {**besides, name: float(inside)}))
                self.assertFalse(_held(RULES[code], {**besides, name: float(outside)}))

    def test_every_number_of_a_rule_has_its_edge_in_the_table(self) -> None:
        """A caution that is added, or goes by one number more, says both sides of it here."""
        listed = sorted((code, name) for code, name, *_ in ROWS)
        compared = sorted(
            (rule.code, one.left if one.right.replace(".", "").isdigit() else one.right)
            for rule in rules()
            for one in rule.number
            if one.fixed
        )
        self.assertEqual(listed, compared)

    def test_a_number_that_is_not_known_holds_nothing(self) -> None:
        for rule in rules():
            if rule.number:
                self.assertFalse(_held(rule, {}), rule.code)


if __name__ == "__main__":
    unittest.main()
