"""A step taken apart into single pieces of work, each with its kind."""

import unittest

from nutrition.prep.steps.clauses import clauses_of


def kinds(text):
    return [
        (one.kind.name if one.kind else None, one.text)
        for one in clauses_of([text])
        if not one.remark
    ]


class Clauses(unittest.TestCase):
    def test_pieces(self):
        for text, wanted in (
            (
                "Soak overnight, cook the beans past firm, add squash for twenty minutes.",
                [
                    ("soak", "Soak overnight"),
                    ("simmer", "Cook the beans past firm"),
                    ("add", "Add squash for twenty minutes"),
                ],
            ),
            (
                "Simmer the barley in the water 40 minutes, milk and prunes in for the last five.",
                [
                    ("simmer", "Simmer the barley in the water 40 minutes"),
                    ("add", "Milk and prunes in for the last five"),
                ],
            ),
            (
                "Boil the lentils 22 minutes and drain.",
                [("simmer", "Boil the lentils 22 minutes"), ("drain", "Drain")],
            ),
            ("Peel and quarter them.", [("cut", "Peel, quarter them")]),
            (
                "Bake, covered with foil, at 180 °C for 40 minutes.",
                [("bake", "Bake, covered with foil, at 180 °C for 40 minutes")],
            ),
            ("Roast, cut side up, at 220 °C.", [("roast", "Roast, cut side up, at 220 °C")]),
            (
                "Blend kale, pear and soy milk on high for 60 seconds.",
                [("blend", "Blend kale, pear and soy milk on high for 60 seconds")],
            ),
            (
                "Reduce the heat and simmer, uncovered, for 20-25 minutes.",
                [("simmer", "Simmer, uncovered, for 20-25 minutes")],
            ),
            (
                "While the rice cooks, steam the kale.",
                [("steam", "Meanwhile, steam the kale")],
            ),
            (
                "Combine rice, water and ginger in slow cooker.",
                [("mix", "Combine rice, water and ginger in slow cooker")],
            ),
        ):
            with self.subTest(text):
                self.assertEqual(kinds(text), wanted)

    def test_what_is_done(self):
        for text, kind in (
            ("Preheat the oven to 400°F", "preheat"),
            ("Heat a large pan", "pan_on"),
            ("Bring the water to a rolling boil", "boil_up"),
            ("Braise the cabbage", "simmer"),
            ("Cook the onion with splashes of water until soft", "fry"),
            ("Onions in water until soft", "fry"),
            ("400 °F, 30 minutes, turn at half time", "roast"),
            ("45 minutes at 375 °F", "bake"),
            ("One pot, 35 minutes", "simmer"),
            ("Rice on", "simmer"),
            ("Into the refrigerator until morning", "chill"),
            ("Put the seeds to soak", "soak"),
            ("Let rise for an hour", "rise"),
            ("Spread it out to cool", "cool"),
            ("Stir until it thickens", "thicken"),
            ("Process until smooth", "blend"),
            ("Squeeze dry", "drain"),
            ("Squeeze in the lemon", "add"),
            ("Lemon last", "add"),
            ("Soy mince for the last ten", "add"),
            ("Knead for 8 minutes", "knead"),
            ("Press the tofu for 20 minutes", "press"),
            ("Under the grill for 3 minutes", "broil"),
        ):
            with self.subTest(text):
                self.assertEqual(kinds(text)[0][0], kind)

    def test_what_is_no_work(self):
        for text in (
            "Keeps three mornings.",
            "Slices freeze well.",
            "Gentle on potassium: half a pear a person.",
            "It thickens, so thin it with water before it is poured.",
            "Three days in the refrigerator.",
            "The vinegar at the table.",
            "Reduce the heat.",
        ):
            self.assertEqual(kinds(text), [], text)

    def test_what_is_not_understood_is_kept_and_asked_about(self):
        (one,) = clauses_of(["Gurgle the fennel."])
        self.assertIsNone(one.kind)

    def test_a_number_before_a_step_is_dropped(self):
        self.assertEqual(kinds("2. Drain."), [("drain", "Drain")])
        self.assertEqual(kinds("Step 3: Drain."), [("drain", "Drain")])
