"""A week in a file: read, refused by field, planned, and written back."""

import json
import unittest
from copy import deepcopy

from nutrition.planning.week import BadWeek
from nutrition.requests.week import read_week
from nutrition.requests.week_answer import as_text, solve

PERSON = {
    "sex": "female",
    "age_years": 40,
    "height_cm": 168,
    "weight_kg": 66,
    "activity": "low_active",
    "goal": "hold",
    "school": "balanced_plate",
    "allergies": ["sesame"],
}
STEW = ["2 cups white beans, cooked", "2 medium carrots", "1 medium onion", "2 cups water"]
GIVEN = {
    "person": PERSON,
    "start": "2026-11-30",
    "days": 4,
    "skeleton": {
        "days": {"lunch": "soup, bread", "dinner": "main, fruit"},
        "cooking": [6, 2],
        "in_a_row": 2,
    },
    "dishes": [
        {
            "id": "stew",
            "name": "Bean stew",
            "recipe": {"lines": STEW, "servings": 4, "method": "simmered", "title": "Bean stew"},
        },
        {
            "id": "barley",
            "name": "Barley pan",
            "recipe": ["1 cup pearl barley, dry", "200 g kale", "2 tbsp walnuts"],
            "kinds": ["main"],
            "least_batch": 0.5,
        },
        {
            "id": "tahini-bowl",
            "name": "Tahini bowl",
            "recipe": ["200 g quinoa, cooked", "30 g tahini"],
            "kinds": ["main"],
        },
        {"id": "bread", "food": "rye-bread", "grams": 60},
        {"id": "pear", "food": "pear-raw"},
    ],
}


def read(**changes):
    data = deepcopy(GIVEN) | changes
    return read_week(data, lambda name: (_ for _ in ()).throw(ValueError(f"no file {name}")))


class Files(unittest.TestCase):
    def test_it_is_planned_and_written_back(self):
        asked = read(weeks=2, pinned=[{"day": 1, "meal": "dinner", "dish": "barley", "count": 1.5}])
        answer = solve(asked)
        data = json.loads(json.dumps(answer.data()))
        first = data["weeks"][0]
        self.assertEqual([day["weekday"] for day in first["days"]][:2], ["Monday", "Tuesday"])
        pinned = first["days"][1]["meals"]["dinner"][0]
        self.assertEqual((pinned["dish"], pinned["count"], pinned["pinned"]), ("barley", 1.5, True))
        eaten = sum(sum(pot["eaten"].values()) for pot in first["pots"] if pot["dish"] == "stew")
        served = sum(
            row["count"]
            for day in first["days"]
            for rows in day["meals"].values()
            for row in rows
            if row["dish"] == "stew"
        )
        self.assertAlmostEqual(eaten, served)
        for pot in first["pots"]:
            self.assertTrue(all(int(day) >= pot["cooked"] for day in pot["eaten"]))
        # bread may hold sesame: its label must be read first
        self.assertEqual([row["dish"] for row in data["left_out"]], ["Tahini bowl", "Rye bread"])
        self.assertIn("sesame", data["left_out"][0]["why"].lower())
        text = as_text(asked, answer)
        for words in ("Monday", "Bean stew", "To cook", "Left out: Tahini bowl", "(pinned)"):
            self.assertIn(words, text)

    def test_the_schools_skeleton_where_none_is_given(self):
        data = deepcopy(GIVEN)
        del data["skeleton"]
        asked = read_week(data, lambda name: "")
        planned = {one.meal for one in asked.week.slots if not one.optional}
        self.assertEqual(planned, {"breakfast", "lunch", "dinner"})
        # and a snack where energy or protein is missing, if that is left on
        self.assertEqual({one.meal for one in asked.week.slots} - planned, {"snack"})
        self.assertIn("breakfast", solve(asked).empty)

    def test_what_cannot_be_is_refused_by_field(self):
        for field, changes in (
            ("dishes", {"dishes": []}),
            ("dishes[0]", {"dishes": ["soup"]}),
            ("dishes[0]", {"dishes": [{"id": "x"}]}),
            ("dishes[0].recipe", {"dishes": [{"recipe": ["a whiff of nothing"]}]}),
            ("dishes[0].recipe", {"dishes": [{"recipe": "missing.txt"}]}),
            ("dishes[0].food", {"dishes": [{"food": "moon dust"}]}),
            ("dishes[0].kinds[0]", {"dishes": [{"food": "pear-raw", "kinds": ["gravel"]}]}),
            ("dishes[0].grams", {"dishes": [{"food": "pear-raw", "grams": -3}]}),
            ("days", {"days": 40}),
            ("days", {"days": "many"}),
            ("weeks", {"weeks": 9}),
            ("start", {"start": "yesterday"}),
            ("skeleton.meal", {"skeleton": {"days": {"lunch": "gravel"}}}),
            ("skeleton", {"skeleton": "soup"}),
            ("person.sex", {"person": {"sex": "x"}}),
            ("pinned", {"pinned": 3}),
            ("pinned[0]", {"pinned": [{"day": 9, "meal": "lunch", "dish": "stew"}]}),
            ("pinned[0]", {"pinned": [{"day": 0, "meal": "lunch", "dish": "gone"}]}),
        ):
            with self.subTest(changes=changes), self.assertRaises(BadWeek) as caught:
                read(**changes)
            self.assertEqual(caught.exception.field, field)
        with self.assertRaises(BadWeek):
            read_week([], lambda name: "")
