"""Blood values: what cannot be is asked about, what is out of range sets a target, what is old does
not."""

from datetime import date, timedelta
from unittest import TestCase

from nutrition.targets.blood import (
    BadValue,
    Measured,
    analytes,
    blood_numbers,
    blood_words,
    check_value,
    convert,
    implied_by,
    latest,
    likely_units,
    stage_apart,
    unit_asked,
)
from nutrition.targets.day import day_targets
from nutrition.targets.person import Person

TODAY = date(2026, 11, 26)


def value(key, number, unit=None, ago=10, **more):
    unit = unit or analytes()[key].unit
    return Measured(key=key, value=number, unit=unit, on=TODAY - timedelta(days=ago), **more)


def person(**more):
    return Person(**{"sex": "female", "age_years": 70, "height_cm": 164, "weight_kg": 61.5} | more)


class Values(TestCase):
    def test_the_unit_that_is_meant_is_asked(self):
        for key, number, unit, words in (
            ("creatinine", 88, "mg/dL", "88 µmol/L"),
            ("glucose", 5.6, "mg/dL", "5.6 mmol/L"),
            ("hba1c", 53, "%", "53 mmol/mol"),
            ("hemoglobin", 124, "g/dL", "124 g/L"),
        ):
            with self.assertRaises(BadValue) as asked:
                check_value(key, number, unit)
            self.assertIn(words, str(asked.exception))
            self.assertEqual(asked.exception.field, "unit")

    def test_what_nobody_has_is_refused(self):
        for key, number, unit in (
            ("potassium", 56, "mmol/L"),
            ("potassium", float("nan"), "mmol/L"),
            ("inr", -1, "INR"),
            ("tsh", float("inf"), "mIU/L"),
        ):
            with self.assertRaises(BadValue):
                check_value(key, number, unit)
        with self.assertRaises(BadValue):
            check_value("copper", 140, "mmol/L")
        with self.assertRaises(BadValue):
            convert("potassium", 5, "mg/dL", "mmol/L")

    def test_every_unit_goes_there_and_back(self):
        for key, one in analytes().items():
            for unit in one.others:
                there = convert(key, 7.0, one.unit, unit)
                self.assertAlmostEqual(convert(key, there, unit, one.unit), 7.0, places=6, msg=key)

    def test_the_laboratorys_own_range_stands_over_the_usual(self):
        self.assertEqual(value("potassium", 5.05).standing, "over")
        self.assertEqual(value("potassium", 5.05, low=3.5, high=5.1).standing, "inside")
        phosphate = value("phosphate", 1.5, "mmol/L", low=0.8, high=1.45)
        self.assertEqual(phosphate.standing, "over")
        self.assertEqual(value("inr", 2.5).standing, "")

    def test_words(self):
        self.assertEqual(
            value("potassium", 5.6, ago=23).words(TODAY),
            "potassium 5.6 mmol/L on Nov 3, 23 days ago",
        )
        self.assertTrue(value("hba1c", 7, ago=0).words(TODAY).startswith("HbA1c 7.0 % on Nov 26"))
        self.assertIn("2025", value("ldl", 120, ago=400).words(TODAY))

    def test_the_latest_of_each(self):
        rows = [value("potassium", 5.6, ago=5), value("potassium", 4.4, ago=50)]
        self.assertEqual(latest(rows)["potassium"].value, 5.6)


class Targets(TestCase):
    def implied(self, *rows, conditions=("ckd_3b",)):
        return implied_by(latest(rows), conditions, TODAY)

    def test_what_is_out_of_range_and_recent_stands_for_a_condition(self):
        found = self.implied(
            value("potassium", 5.6), value("phosphate", 4.8), value("bicarbonate", 20)
        )
        self.assertEqual(
            set(found), {"high_potassium_blood", "high_phosphate_blood", "low_bicarbonate_blood"}
        )
        self.assertEqual(self.implied(value("potassium", 4.9)), {})
        self.assertEqual(self.implied(value("potassium", 5.6, ago=91)), {}, "too old")
        self.assertEqual(self.implied(value("potassium", 5.6, ago=-1)), {}, "not come yet")
        self.assertEqual(
            set(self.implied(value("phosphate", 4.8), value("potassium", 5.6), conditions=())),
            {"high_potassium_blood"},
            "phosphate is the kidneys' to hold",
        )

    def test_the_limit_says_the_value_and_goes_no_further_than_its_source(self):
        found = self.implied(value("potassium", 5.6, ago=23))
        target = day_targets(
            person(conditions=frozenset({"ckd_3b", *found}), found=tuple(sorted(found.items())))
        )["potassium_mg"]
        self.assertEqual((target.aim, target.high), (2000, 2500))
        self.assertIn("Potassium 5.6 mmol/L on Nov 3", target.reason)
        self.assertIn("common practice", target.source)
        without = day_targets(person(conditions=frozenset({"ckd_3b"})))["potassium_mg"]
        self.assertGreater(without.high, target.high)


class Numbers(TestCase):
    def numbers(self, *rows, **more):
        return blood_numbers(latest(rows), person(**more), TODAY)

    def test_the_rate_and_the_stage(self):
        found = self.numbers(value("creatinine", 1.55), conditions=frozenset({"ckd_3b"}))
        self.assertAlmostEqual(found["blood_egfr"], 36, delta=1)
        self.assertEqual(found["blood_stage_apart"], 0)
        self.assertEqual(stage_apart(25, ["ckd_3b"]), 1)
        self.assertEqual(stage_apart(70, ["ckd_3b"]), -2)
        self.assertEqual(stage_apart(10, ["ckd_5", "hemodialysis", "dialysis"]), 0)
        self.assertEqual(stage_apart(10, []), 0)

    def test_a_rate_as_it_is_printed_and_the_newer_of_two(self):
        printed = {"egfr": value("egfr", 41, ago=10)}
        numbers = blood_numbers(printed, person(), TODAY)
        self.assertEqual(numbers["blood_egfr"], 41)
        self.assertIn("stage 3b", blood_words(printed, numbers, TODAY)["said_egfr"])
        self.assertIn("41 mL/min", blood_words(printed, numbers, TODAY)["said_egfr"])
        newer = printed | {"creatinine": value("creatinine", 0.7, ago=2)}
        self.assertGreater(blood_numbers(newer, person(), TODAY)["blood_egfr"], 80)
        older = printed | {"creatinine": value("creatinine", 0.7, ago=20)}
        self.assertEqual(blood_numbers(older, person(), TODAY)["blood_egfr"], 41)

    def test_what_laboratories_call_about(self):
        for key, number, danger in (
            ("calcium", 6.9, 1),
            ("calcium", 7.1, 0),
            ("calcium", 12.9, 0),
            ("calcium", 13.1, 1),
            ("magnesium", 0.9, 1),
            ("magnesium", 1.1, 0),
            ("magnesium", 4.8, 0),
            ("magnesium", 5.0, 1),
        ):
            found = blood_numbers({key: value(key, number)}, person(), TODAY)
            self.assertEqual(found[f"blood_{key}_danger"], danger, (key, number))
        liver = blood_numbers({"alt": value("alt", 80), "ast": value("ast", 20)}, person(), TODAY)
        self.assertEqual(liver["blood_liver_times"], 2.0)

    def test_both_units(self):
        for key, number, unit, other, there in (
            ("magnesium", 2.0, "mEq/L", "mmol/L", 1.0),
            ("magnesium", 1.0, "mmol/L", "mg/dL", 2.4305),
            ("calcium", 2.5, "mmol/L", "mg/dL", 10.02),
            ("alt", 1.0, "µkat/L", "U/L", 60.0),
            ("urate", 416.0, "µmol/L", "mg/dL", 6.993),
            ("phosphate", 0.5, "mmol/L", "mg/dL", 1.5487),
        ):
            self.assertAlmostEqual(convert(key, number, unit, other), there, places=2)

    def test_anemia_is_by_sex_and_pregnancy(self):
        for more, number, anemic in (
            ({}, 11.9, 1.0),
            ({}, 12.0, 0.0),
            ({"sex": "male"}, 12.5, 1.0),
            ({"age_years": 30, "life_stage": "pregnant_2"}, 11.2, 0.0),
        ):
            self.assertEqual(
                self.numbers(value("hemoglobin", number), **more)["blood_anemia"], anemic
            )

    def test_b12_that_does_not_settle_it(self):
        for rows, uncertain in (
            ([value("b12", 250)], 1.0),
            ([value("b12", 420)], 0.0),
            ([value("b12", 420), value("mma", 400)], 1.0),
            ([value("b12", 150), value("mma", 400)], 0.0),
            ([value("homocysteine", 22)], 1.0),
        ):
            self.assertEqual(self.numbers(*rows)["blood_b12_uncertain"], uncertain)

    def test_what_is_too_old_is_known_by_its_age_alone(self):
        found = self.numbers(value("potassium", 6.4, ago=200))
        self.assertNotIn("blood_potassium", found)
        self.assertEqual(found["blood_potassium_old"], 1.0)
        self.assertEqual(found["blood_potassium_days"], 200.0)

    def test_the_words_tell_one_value_from_the_next(self):
        rows = latest([value("potassium", 5.6), value("systolic", 186), value("diastolic", 112)])
        said = blood_words(rows, self.numbers(), TODAY)
        self.assertEqual(said["about_potassium"], "Potassium 5.6 mmol/L on Nov 16")
        self.assertIn("186 mmHg", said["said_pressure"])
        self.assertIn("112 mmHg", said["said_pressure"])


class WithoutUnit(TestCase):
    def test_the_units_that_its_size_fits_come_first(self):
        for key, value, units in (
            ("glucose", 5.4, ["mmol/L"]),
            ("glucose", 98, ["mg/dL"]),
            ("creatinine", 1.1, ["mg/dL"]),
            ("creatinine", 97, ["\u00b5mol/L"]),
        ):
            with self.subTest(key, value=value):
                self.assertEqual(likely_units(key, value)[:1], units)
                self.assertIn(f"{value:g} {units[0]}", unit_asked(key, value))

    def test_a_value_that_fits_none_is_asked_with_all(self):
        self.assertEqual(likely_units("glucose", 1e9), [])
        self.assertIn("one of", unit_asked("glucose", 1e9))
