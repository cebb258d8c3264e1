"""The timeline as it is asked for and told in JSON."""

import unittest
from datetime import date

from nutrition.prep.timeline.kitchen import BadKitchen
from nutrition.requests.timeline import read_timeline
from nutrition.requests.timeline_answer import as_text, solve

TODAY = date(2026, 12, 5)
GIVEN = {
    "ready_at": "18:30",
    "earliest": "16:00",
    "kitchen": {"cooks": 1, "burners": 3, "ovens": 1, "shelves": 2, "blenders": 1},
    "dishes": [
        {
            "id": "beans",
            "name": "White beans",
            "recipe": {
                "lines": ["1 cup white beans, dry", "1 onion, diced"],
                "steps": ["Soak the beans overnight.", "Simmer them an hour with the onion."],
                "servings": 4,
            },
        },
        {
            "id": "tray",
            "name": "Carrots",
            "recipe": {
                "lines": ["500 g carrots"],
                "steps": ["Roast 30 minutes at 400 °F."],
                "servings": 2,
            },
            "ready_at": "18:00",
        },
    ],
}


def refused(**changes):
    try:
        read_timeline(GIVEN | changes, TODAY)
    except BadKitchen as error:
        return error.field
    return None


class Asked(unittest.TestCase):
    def test_what_is_told(self):
        asked = read_timeline(GIVEN, TODAY)
        answer = solve(asked)
        data = answer.data()
        self.assertEqual(
            set(data) >= {"steps", "ready", "does_not_fit", "would_help", "proved", "within"}, True
        )
        soak = next(one for one in data["steps"] if one["text"].startswith("Soak"))
        self.assertTrue(soak["start"].startswith("2026-12-04 "))
        self.assertEqual(data["ready"]["beans"], "18:30")
        self.assertEqual(data["ready"]["tray"], "18:00")
        roast = next(one for one in data["steps"] if one["text"].startswith("Roast"))
        self.assertEqual(
            (roast["place"], roast["celsius"], roast["washed_before"]), ("oven", 200, False)
        )
        self.assertEqual((data["proved"], data["within"]), (True, 0.0))
        text = as_text(asked, answer)
        for words in ("2026-12-04", "White beans: Soak the beans overnight", "at 200 °C", "Proved"):
            self.assertIn(words, text)

    def test_every_written_step_stands_in_the_answer_in_its_words(self):
        told = " ".join(one.text for one in solve(read_timeline(GIVEN, TODAY)).steps)
        for dish in GIVEN["dishes"]:
            for step in dish["recipe"]["steps"]:
                self.assertIn(step.rstrip("."), told)

    def test_days(self):
        self.assertEqual(
            read_timeline(GIVEN | {"date": "2026-12-12"}, TODAY).day, date(2026, 12, 12)
        )
        dated = read_timeline(GIVEN | {"ready_at": "2026-12-07 18:30"}, TODAY)
        self.assertEqual((dated.day, dated.session.ready_at), (date(2026, 12, 7), 1110))
        night = read_timeline(
            GIVEN | {"ready_at": "01:00", "earliest": "22:00", "dishes": GIVEN["dishes"][:1]}, TODAY
        )
        self.assertEqual(night.session.earliest, -120)
        without = read_timeline({k: v for k, v in GIVEN.items() if k != "earliest"}, TODAY)
        self.assertEqual(without.session.earliest, 1110 - 360)

    def test_what_cannot_be_is_refused_by_its_field(self):
        dish = GIVEN["dishes"][0]
        for field, changes in (
            ("ready_at", {"ready_at": "soon"}),
            ("earliest", {"earliest": "19:00"}),
            ("earliest", {"earliest": "2026-12-03 10:00"}),
            ("now", {"now": "x"}),
            ("kitchen.cooks", {"kitchen": {"cooks": 0}}),
            ("kitchen.burners", {"kitchen": {"burners": 13}}),
            ("kitchen.shelves", {"kitchen": {"shelves": 7}}),
            ("dishes", {"dishes": []}),
            ("dishes[1].id", {"dishes": [dish, dish]}),
            (
                "dishes[0].recipe.steps",
                {"dishes": [dish | {"recipe": {"lines": [], "steps": [""]}}]},
            ),
            ("dishes[0].recipe.steps", {"dishes": [dish | {"recipe": {"lines": []}}]}),
        ):
            with self.subTest(changes=str(changes)[:60]):
                self.assertEqual(refused(**changes), field)
        self.assertIsNone(refused(kitchen={"cooks": 6, "burners": 12, "ovens": 4, "shelves": 6}))
