"""A follow-up in a file."""

import json
from datetime import date, timedelta
from unittest import TestCase

from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.requests.follow_answer import as_text, report
from nutrition.requests.meals import read_meal
from nutrition.targets.person import OutOfRange

TODAY = date(2026, 11, 26)
PERSON = {
    "sex": "female",
    "age_years": 44,
    "height_cm": 168,
    "weight_kg": 88,
    "activity": "low_active",
    "goal": {"kind": "lose", "target_weight_kg": 70, "pace_kg_per_week": 0.5},
    "conditions": ["ckd_3b"],
}


def record(**more):
    flat = [
        {"on": (TODAY - timedelta(days=ago)).isoformat(), "kg": 88.0 + (0.2 if ago % 3 else -0.2)}
        for ago in range(60, -1, -2)
    ]
    return {"person": PERSON, "weighed": flat, "today": TODAY.isoformat()} | more


class FollowFile(TestCase):
    def test_the_whole_of_it(self):
        days = [
            {
                "on": (TODAY - timedelta(days=ago)).isoformat(),
                "meals": {"lunch": ["500 g boiled potatoes", "300 g lentils, cooked"]},
            }
            for ago in range(1, 8)
        ]
        answer = report(
            record(
                days=days,
                made_for_kg=104.0,
                happened=[{"kind": "salt", "from": "2026-11-24"}],
                blood=[
                    {"what": "potassium", "value": 5.6, "unit": "mmol/L", "on": "2026-11-03"},
                    {"what": "creatinine", "value": 1.6, "unit": "mg/dL", "on": "2026-11-03"},
                ],
            )
        )
        found = answer.data()
        self.assertEqual(found["standing"], "a stall")
        self.assertIn("forgotten", [one["key"] for one in found["causes"]])
        self.assertIn("lighter", [one["key"] for one in found["causes"]])
        self.assertAlmostEqual(found["trend"]["now_kg"], 88.0, delta=0.3)
        self.assertEqual(found["eaten"]["days"], 7)
        self.assertLess(found["eaten"]["low"], found["eaten"]["energy_kcal"], "lines have ranges")
        self.assertTrue(found["eaten"]["far_under"])
        self.assertIn("high_potassium_blood", found["implied"])
        self.assertEqual(found["blood"]["potassium"]["in_units"]["mEq/L"], "5.6 mEq/L")
        self.assertAlmostEqual(found["blood_numbers"]["blood_egfr"], 41, delta=1)
        json.dumps(found)
        self.assertIn("a stall (since", as_text(answer))

    def test_a_line_that_was_not_read_leaves_the_day_unknown(self):
        days = [{"on": "2026-11-20", "meals": [["200 g glorp", "1 apple"]]}]
        found = report(record(days=days)).data()
        self.assertIsNone(found["eaten"])
        self.assertEqual(found["unread"], ["2026-11-20: 200 g glorp"])

    def test_a_doubtful_weight_is_named(self):
        odd = {"on": "2026-11-25", "weight": "194.5"}
        found = report(record(weighed=[*record()["weighed"], odd])).data()
        self.assertEqual(found["doubtful"][0]["likelier_kg"], 88.2)
        pounds = {"on": "2026-11-25", "weight": "194.5 lb"}
        found = report(record(weighed=[*record()["weighed"], pounds])).data()
        self.assertEqual(found["doubtful"], [])

    def test_what_cannot_be_is_refused_by_name(self):
        for more, field in (
            ({"weighed": [{"on": "2026-11-03", "kg": 5}]}, "weighed[0]"),
            ({"weighed": [{"on": "3/4/2026", "kg": 88}]}, "weighed[0].on"),
            ({"weighed": [{"on": "2026-11-03", "kg": True}]}, "weighed[0].kg"),
            ({"weighed": [{"on": "2026-11-03", "kg": 88}] * 2}, "weighed"),
            ({"weighed": "88"}, "weighed"),
            ({"days": [{"on": "2026-11-03", "meals": 3}]}, "days[0].meals"),
            ({"happened": [{"kind": "party", "from": "2026-11-03"}]}, "happened[0].kind"),
            (
                {
                    "blood": [
                        {"what": "creatinine", "value": 88, "unit": "mg/dL", "on": "2026-11-03"}
                    ]
                },
                "blood[0]",
            ),
            ({"today": "soon"}, "today"),
            ({"person": {}}, "person.sex"),
            ({"days": [{"on": "2026-11-20", "meals": "an apple"}]}, "days[0].meals"),
            ({"days": [{"on": "2026-11-20", "meals": [["an apple"]] * 13}]}, "days[0].meals"),
        ):
            with self.assertRaises(OutOfRange) as refused:
                report(record(**more))
            self.assertEqual(refused.exception.field, field, more)
        with self.assertRaises(OutOfRange):
            report([])

    def test_who_is_referred_gets_no_lever(self):
        person = PERSON | {"conditions": ["active_eating_disorder"]}
        found = report(record(person=person)).data()
        self.assertIn("Turn to", found["referred"])

    def test_nothing_weighed(self):
        found = report({"person": PERSON}).data()
        self.assertEqual(found["standing"], "too little to say")
        self.assertIsNone(found["trend"])


class Meals(TestCase):
    def test_what_stands_in_a_meal_was_eaten(self):
        """A cup of rice of a meal is 158 g of cooked rice, 205 kcal, and 185 g of dry in a
        recipe."""
        eaten = read_meal(["1 cup rice", "1 cup lentils"])
        self.assertAlmostEqual(eaten.profile.grams, 158 + 198, delta=1)
        self.assertAlmostEqual(eaten.profile["energy_kcal"].amount, 205 + 230, delta=15)
        self.assertAlmostEqual(reckon(Recipe(("1 cup rice",))).batch.grams, 185, delta=1)
