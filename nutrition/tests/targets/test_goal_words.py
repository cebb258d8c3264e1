"""A goal of one's own: how it is read, and how it stands beside what is never broken."""

import unittest

from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets.aim import Aim
from nutrition.targets.goal_words import UnreadGoal, Wanted, names, read_goal, with_goal


def read(text):
    return [(one.key, one.low, one.high) for one in read_goal(text)]


class Read(unittest.TestCase):
    def test_what_is_typed_is_read_on_the_side_that_counts(self):
        for text, wanted in (
            ("25 g protein", [("protein_g", 25.0, None)]),
            ("at most 450 kcal", [("energy_kcal", None, 450.0)]),
            ("500 mg sodium", [("sodium_mg", None, 500.0)]),
            ("protein 25-30 g; kcal max 450", [("protein_g", 25, 30), ("energy_kcal", None, 450)]),
            ("no more than 700 mg potassium", [("potassium_mg", None, 700.0)]),
            ("more than 25 grams of protein", [("protein_g", 25.0, None)]),
            ("500mg sodium max", [("sodium_mg", None, 500.0)]),
            ("carbs < 45g and fibre ≥ 8 g", [("carbohydrate_g", None, 45), ("fiber_g", 8, None)]),
            (
                "vitamin C 60 mg, b12 2 µg",
                [("vitamin_c_mg", 60, None), ("vitamin_b12_ug", 2, None)],
            ),
            ("1.2 kcal/g", [("kcal_per_gram", None, 1.2)]),
            ("1,5 g omega-3", [("ala_g", 1.5, None)]),
            ("at most 1,500 mg sodium", [("sodium_mg", None, 1500.0)]),
            ("sodium under 0.6 g", [("sodium_mg", None, 600.0)]),
            ("", []),
        ):
            with self.subTest(text=text):
                self.assertEqual(read(text), wanted)

    def test_energy_alone_is_met_within_a_twentieth(self):
        ((key, low, high),) = read("400 calories")
        self.assertEqual(key, "energy_kcal")
        self.assertAlmostEqual(low, 380.0)
        self.assertAlmostEqual(high, 420.0)
        ((_key, low, high),) = read("about 20 g protein")
        self.assertAlmostEqual(low, 19.0)
        self.assertAlmostEqual(high, 21.0)

    def test_units_are_turned(self):
        ((_key, low, high),) = read("at most 2092 kJ")
        self.assertAlmostEqual(high, 500.0)
        self.assertIsNone(low)
        # a gram of salt is 400 mg of sodium
        ((key, _low, high),) = read("at most 1 g salt")
        self.assertEqual((key, high), ("sodium_mg", 400.0))

    def test_what_is_not_sure_is_asked_about(self):
        for text, asked in (
            ("25 protein", "protein is given in g"),
            ("protin 25 g", "Did you mean protein?"),
            ("450", "of what?"),
            ("1.500 mg sodium", "is that 1500, or 1.5?"),
            ("protein 40 to 20 g", "the least is over the most"),
            ("20 g protein, protein at most 30 g", "stands there twice"),
            ("a little less salt", "is not read"),
            ("5 mg energy", "energy is given in kcal"),
        ):
            with self.subTest(text=text), self.assertRaises(UnreadGoal) as refused:
                read_goal(text)
            self.assertIn(asked, str(refused.exception))
            self.assertEqual(refused.exception.field, "goal")
        eight = ["1 g protein", "1 g fat", "1 g fiber", "1 mg iron", "1 mg zinc", "1 mg copper"]
        eight += ["1 mg calcium", "1 mg sodium"]
        self.assertEqual(len(read_goal(", ".join(eight))), 8)
        with self.assertRaises(UnreadGoal):
            read_goal(", ".join([*eight, "1 mg potassium"]))

    def test_every_name_is_a_target(self):
        self.assertEqual(set(names().values()) - set(NUTRIENT), set())

    def test_it_is_said_as_it_was_understood(self):
        said = [one.words for one in read_goal("25 g protein, at most 450 kcal, iron 4-6 mg")]
        self.assertEqual(
            said, ["protein at least 25.0 g", "energy at most 450 kcal", "iron 4.0 mg to 6.0 mg"]
        )


class Beside(unittest.TestCase):
    def test_it_takes_the_place_of_a_target_and_weighs_as_much_as_protein(self):
        old = Aim(key="protein_g", low=30.0, aim=35.0, high=None, weight=2.0)
        (made,) = with_goal([old], [Wanted("protein_g", 20.0, None)])
        self.assertEqual((made.low, made.high, made.weight), (20.0, None, 3.0))
        (kept, new) = with_goal([old], [Wanted("sodium_mg", None, 500.0)])
        self.assertEqual((kept, new.high, new.aim), (old, 500.0, 500.0))

    def test_what_is_never_broken_stays(self):
        limit = Aim(key="sodium_mg", low=None, aim=600.0, high=600.0, firm_high=True)
        (made,) = with_goal([limit], [Wanted("sodium_mg", None, 900.0)])
        self.assertEqual((made.high, made.firm_high), (600.0, True))
        (made,) = with_goal([limit], [Wanted("sodium_mg", None, 400.0)])
        self.assertEqual((made.high, made.firm_high), (400.0, True))
        with self.assertRaises(UnreadGoal) as refused:
            with_goal([limit], [Wanted("sodium_mg", 700.0, None)])
        self.assertIn("no more than 600 mg may be", str(refused.exception))
        least = Aim(key="protein_g", low=30.0, aim=30.0, high=None, firm_low=True)
        with self.assertRaises(UnreadGoal):
            with_goal([least], [Wanted("protein_g", None, 20.0)])
