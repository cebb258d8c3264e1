"""The law of everything that is pasted: each line is kept whole, or refused by its number. Three
thousand pastes that nobody wrote, from what a scale or a laboratory gives, with what spoils it."""

import random
from datetime import date, timedelta
from unittest.mock import patch

from journal.blood.values import read_table
from journal.weight.paste import read_weights
from nutrition.tests.thorough import thorough
from planner.testing import DayCase

TODAY = date(2026, 11, 26)
MONTHS = "Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec".split()
REMARKS = ("", "", "after the night shift", "at the doctor's", "new scale", "in the evening")
JUNK = (
    "heavy today",
    "----",
    "2026-13-41, 80",
    "2027-05-01, 80.5",
    "2026-11-03",
    "2026-11-03, a lot",
    "2026-11-04, 4000",
    "80.5",
    "\u2014",
)


def written_date(chance, on):
    return chance.choice(
        (
            on.isoformat(),
            f"{on:%Y/%m/%d}",
            f"{MONTHS[on.month - 1]} {on.day}, {on.year}",
            f"{on.day} {MONTHS[on.month - 1]} {on.year}",
        )
    )


def written_weight(chance, kg):
    """A weight as somebody writes it, and the kilograms that it says."""
    tenths = f"{kg:.{chance.choice((1, 1, 2))}f}"
    if chance.random() < 0.4:
        tenths = tenths.replace(".", ",")
    if chance.random() < 0.15:
        pounds = f"{kg / 0.45359237:.1f}"
        return f"{pounds} lb", round(float(pounds) * 0.45359237, 2)
    return tenths + chance.choice(("", "", " kg", "kg")), float(tenths.replace(",", "."))


@thorough
class Weights(DayCase):
    def paste(self, chance):
        """A paste, and by its line the date, weight and remark that it says; None for junk."""
        lines, truth = [], {}
        head = chance.random() < 0.3
        mark = chance.choice((";", "\t", ",")) if head else ""
        if head:
            lines.append(mark.join(("Date", "Weight (kg)", "Remark")))
        for at in range(chance.randint(1, 9)):
            if chance.random() < 0.12:
                lines.append("")
            if chance.random() < 0.15:
                lines.append(chance.choice(JUNK))
                truth[len(lines)] = None
                continue
            on = TODAY - timedelta(days=chance.randint(0, 5) + 6 * at)
            text, kg = written_weight(chance, chance.uniform(48, 160))
            remark = chance.choice(REMARKS)
            if head:
                if mark == "," and "," in text:
                    text = f'"{text}"'
                if "lb" in text:
                    text, kg = f"{kg:.1f}", round(kg, 1)
                lines.append(mark.join((on.isoformat(), text, remark)))
            else:
                between = chance.choice((", ", " ", ": ", "\t", "  "))
                tail = f"{chance.choice((', ', ' '))}{remark}" if remark else ""
                lines.append(f"{written_date(chance, on)}{between}{text}{tail}")
            truth[len(lines)] = (on, kg, remark)
        return chance.choice(("\n", "\r\n")).join(lines), truth

    def test_each_line_is_kept_whole_or_refused_by_its_number(self):
        chance, kept, refused = random.Random(2511), 0, 0
        for number in range(1700):
            text, truth = self.paste(chance)
            # whether a weight is doubted is another matter, and takes the trend of all the others
            with patch("journal.weight.paste.doubt", return_value=None):
                read = read_weights(text, self.client_row, TODAY)
            rows = {row.line: row for row in read.rows}
            named = {line for line, _text, _why in read.problems}
            self.assertEqual(set(rows) | named, set(truth), f"no line is dropped: {text}")
            self.assertFalse(set(rows) & named, f"none is both: {text}")
            for line, row in rows.items():
                self.assertIsNotNone(truth[line], f"what says nothing is not kept: {text}")
                on, kg, remark = truth[line]
                self.assertEqual(
                    (row.weighed.on, round(row.weighed.kg, 1), row.remark),
                    (on, round(kg, 1), remark),
                    f"paste {number}: {text}",
                )
            kept += len(rows)
            refused += len(named)
        self.assertGreater(kept, 5000)
        self.assertGreater(refused, 800)
        self.assertGreater(kept / (kept + refused), 0.8, "what is good is not refused")


VALUES = (
    ("potassium", "Potassium", "mmol/L", 3.2, 6.4),
    ("ferritin", "Ferritin", "ng/mL", 8, 300),
    ("hba1c", "HbA1c", "%", 4.8, 9.5),
    ("phosphate", "Phosphate", "mg/dL", 2.1, 6.5),
)
SPOILT = ("Unicorn,4.1,mg/dL", "Potassium,much,mmol/L", "Potassium,4.1,furlong", "Phosphate,,")


class Blood(DayCase):
    def table(self, chance):
        lines = ["Date,Test,Result,Unit,Reference,Remark"]
        truth = {}
        for at in range(chance.randint(1, 8)):
            on = TODAY - timedelta(days=9 * at + chance.randint(0, 8))
            if chance.random() < 0.2:
                lines.append(f"{on},{chance.choice(SPOILT)},,")
                truth[len(lines)] = None
                continue
            key, name, unit, low, high = chance.choice(VALUES)
            value = round(chance.uniform(low, high), 1)
            edges = chance.choice(("", "3.5-5.1", "3.5 to 5.1", "<5.1"))
            remark = chance.choice(("", "fasting", '"second draw, left arm"'))
            said = f'"{str(value).replace(".", ",")}"' if chance.random() < 0.3 else str(value)
            lines.append(f"{on},{name},{said},{unit},{edges},{remark}")
            bounds = (None if edges in ("", "<5.1") else 3.5, 5.1 if edges else None)
            truth[len(lines)] = (on, key, value, bounds, remark.strip('"'))
        return "\n".join(lines), truth

    def test_each_line_is_kept_whole_or_refused_by_its_number(self):
        chance, kept, refused = random.Random(5112), 0, 0
        for number in range(1300):
            text, truth = self.table(chance)
            read = read_table(text, TODAY)
            named = {line for line, _why in read.problems}
            spoilt = {line for line, said in truth.items() if said is None}
            self.assertEqual(named, spoilt, f"table {number}: {text}")
            good = [said for said in truth.values() if said is not None]
            got = [
                (row.date, row.key, row.value, (row.low, row.high), row.remark) for row in read.rows
            ]
            self.assertEqual(got, good, f"table {number}: {text}")
            kept += len(read.rows)
            refused += len(named)
        self.assertGreater(kept, 3500)
        self.assertGreater(refused, 800)
