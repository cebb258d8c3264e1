"""Lines and cups that nobody here had written, read by an audit: no line becomes another food in
silence. References of the audit are from memory of US government composition data."""

from pathlib import Path
from unittest import TestCase

from nutrition.written.matching import reckon_line

ASKED = "asked"
# A line is right within this share of the grams expected; a cup within this share of its own.
WITHIN, CUP_WITHIN = 0.20, 0.15
# Of lines that were open to us all are read as meant; of cups as many are near, and in the range.
CUPS_NEAR, CUPS_INSIDE = 0.85, 0.95


def cases():
    text = (Path(__file__).parent / "audited_lines.tsv").read_text(encoding="utf-8")
    for row in text.splitlines():
        if row and not row.startswith("#"):
            line, food, grams = row.split("\t")
            low, _dash, high = grams.partition("-")
            yield line, food, (float(low), float(high or low)) if grams else None


class FreshLines(TestCase):
    """Lines of other kitchens: settled and sure, a food is the right one and its grams near."""

    WRONG, ASKED = 0.005, 0.06

    def test_first_read_and_then_mended(self):
        wrong, asked, count = [], [], 0
        text = (Path(__file__).parent / "fresh_lines.tsv").read_text(encoding="utf-8")
        for row in text.splitlines():
            if row.startswith("#"):
                continue
            count += 1
            said, foods, grams = row.split("\t")
            line, meant = reckon_line(said), foods.split("|")
            if not line.resolved:
                if ASKED not in meant:
                    asked.append(said)
                continue
            low, _dash, high = grams.partition("-")
            right = any(line.food.slug.startswith(food) for food in meant) and (
                not grams
                or float(low) * (1 - WITHIN) <= line.grams <= float(high or low) * (1 + WITHIN)
            )
            if line.sure and not right:
                wrong.append(f"{said}: {line.food.slug} {line.grams:.0f} g")
        self.assertGreater(count, 290)
        self.assertLess(len(wrong) / count, self.WRONG, wrong)
        self.assertLess(len(asked) / count, self.ASKED, asked)


class AuditedLines(TestCase):
    def test_no_line_becomes_another_food(self):
        count = 0
        for text, wanted, grams in cases():
            count += 1
            with self.subTest(text):
                line = reckon_line(text)
                if wanted == ASKED:
                    self.assertFalse(line.resolved, line.food)
                    self.assertTrue(line.why)
                    continue
                self.assertEqual(line.food and line.food.slug, wanted.rstrip("?"), line.why)
                self.assertEqual(line.sure, not wanted.endswith("?"), line.assumed)
                if grams:
                    low, high = grams
                    self.assertTrue(
                        low * (1 - WITHIN) <= line.grams <= high * (1 + WITHIN), line.grams
                    )
        self.assertGreater(count, 400)

    def test_a_cup_weighs_what_it_weighs_within_its_range(self):
        near = inside = count = 0
        for text, _food, grams in cases():
            if not text.startswith("1 cup ") or grams is None:
                continue
            line, (low, high) = reckon_line(text), grams
            count += 1
            near += low * (1 - CUP_WITHIN) <= line.grams <= high * (1 + CUP_WITHIN)
            inside += line.low <= high and line.high >= low
        self.assertGreater(count, 50)
        self.assertGreaterEqual(near / count, CUPS_NEAR)
        self.assertGreaterEqual(inside / count, CUPS_INSIDE)
