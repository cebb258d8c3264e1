"""Lines of many kitchens, with what they mean: as plain as in a book, varied, as kept in a diary,
and with what special shops sell."""

import re
from collections import Counter
from pathlib import Path
from unittest import TestCase

from nutrition.written.matching import reckon_line

# Sure and wrong, and asked without need, at most so many of a kind. [share]
WRONG = {"plain": 0.015, "varied": 0.015, "log": 0.015, "shop": 0.0}
ASKED = 0.02


def cases():
    text = (Path(__file__).parent / "meant_lines.tsv").read_text(encoding="utf-8")
    for row in text.splitlines():
        if not row.startswith("#"):
            kind, line, food, grams, within, *ask = row.split("\t")
            yield kind, line, food, float(grams), float(within) / 100, "".join(ask)


class MeantLines(TestCase):
    def test_read_as_they_are_meant_or_asked_about(self):
        count, wrong, asked = Counter(), {}, []
        for kind, said, food, grams, within, ask in cases():
            count[kind] += 1
            line = reckon_line(said, eaten=kind == "log")
            sure = line.resolved and line.sure and not line.ask
            if not sure:
                if not ask:
                    asked.append(said)
                continue
            called = f"{line.food.name.lower()} {line.food.slug.replace('-', ' ')}"
            right = re.search(food, called) and abs(line.grams - grams) <= within * grams + 0.05
            if ask == "yes" or not right:
                wrong.setdefault(kind, []).append(f"{said}: {line.food.slug} {line.grams:.0f} g")
        self.assertEqual(count.total(), 497)
        for kind, most in WRONG.items():
            self.assertLessEqual(len(wrong.get(kind, [])) / count[kind], most, wrong.get(kind))
        self.assertLessEqual(len(asked) / count.total(), ASKED, asked)
