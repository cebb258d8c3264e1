"""Forty persons against the standards named (persons.toml): each number with its clause."""

import tomllib
from pathlib import Path
from unittest import TestCase

from nutrition.targets.day import day_targets
from nutrition.targets.person import Person

ROWS = tomllib.loads((Path(__file__).parent / "persons.toml").read_text(encoding="utf-8"))


class Persons(TestCase):
    def test_each_number_is_that_of_its_clause(self):
        rows = ROWS["persons"]
        self.assertGreaterEqual(len(rows), 40)
        for row in rows:
            who = row["is"] | {"conditions": frozenset(row["is"].get("conditions", ()))}
            day = day_targets(Person(**who))
            for ask in row["asks"]:
                target = day[ask["key"]]
                with self.subTest(ask["clause"], who=row["is"]):
                    for name in ("low", "aim", "high"):
                        wanted, found = ask.get(name), getattr(target, name)
                        if wanted == "none":
                            self.assertIsNone(found)
                        elif wanted is not None:
                            self.assertAlmostEqual(found, wanted, delta=0.002 * wanted)
                    if "low_at_least" in ask:
                        self.assertGreaterEqual(target.low, ask["low_at_least"])
                    if "firm" in ask:
                        self.assertEqual(target.firm_high, ask["firm"])
