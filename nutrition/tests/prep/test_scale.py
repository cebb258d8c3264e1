"""The simulated scale: settling, steadiness, drift, zero, too much."""

import unittest
from dataclasses import replace

from nutrition.prep.on_the_scale import Taken
from nutrition.prep.scale import BODY, KITCHEN, READ_EVERY_S, Act, SimulatedScale, script_in


def readings(scale, begin, seconds):
    return [scale.read(begin + at / 10) for at in range(1, int(seconds * 10) + 1)]


class Scale(unittest.TestCase):
    def test_it_settles_and_is_steady_after_five_readings_alike(self):
        scale = SimulatedScale()
        readings(scale, 0, 1)
        scale.put(120)
        shown = readings(scale, 1, 4)
        self.assertFalse(shown[0].stable)
        self.assertLess(shown[0].grams, 115)
        self.assertTrue(shown[-1].stable)
        self.assertAlmostEqual(shown[-1].grams, 120, delta=1)
        # from the first steady one on it stays so
        first = next(at for at, one in enumerate(shown) if one.stable)
        self.assertTrue(all(one.stable for one in shown[first:]))
        self.assertGreaterEqual(first, 4)

    def test_it_drifts_by_less_than_a_step_in_a_minute_and_by_six_grams_in_ten(self):
        scale = SimulatedScale()
        scale.put(100)
        readings(scale, 0, 3)
        self.assertAlmostEqual(scale.read(60).grams, 100.6, delta=1)
        self.assertAlmostEqual(scale.read(600).grams, 106, delta=1)

    def test_zero_and_scraping_back(self):
        scale = SimulatedScale()
        scale.put(310)
        readings(scale, 0, 3)
        scale.tare()
        self.assertAlmostEqual(readings(scale, 3, 2)[-1].grams, 0, delta=1)
        scale.put(-40)
        self.assertAlmostEqual(readings(scale, 5, 3)[-1].grams, -40, delta=1)

    def test_too_much_is_no_weight(self):
        scale = SimulatedScale()
        scale.lay(5000)
        self.assertFalse(readings(scale, 0, 3)[-1].overload)
        scale.lay(5001)
        over = readings(scale, 3, 3)[-1]
        self.assertEqual((over.grams, over.stable, over.overload), (0.0, False, True))

    def test_the_same_seed_gives_the_same_readings(self):
        one, other = SimulatedScale(seed=7), SimulatedScale(seed=7)
        for scale in (one, other):
            scale.put(55)
        self.assertEqual(readings(one, 0, 2), readings(other, 0, 2))

    def test_a_body_scale_shows_a_tenth_of_a_kilogram(self):
        scale = SimulatedScale(BODY)
        scale.lay(70_420)
        self.assertEqual(readings(scale, 0, 4)[-1].grams % 100, 0)
        self.assertAlmostEqual(readings(scale, 4, 1)[-1].grams, 70_400, delta=100)

    def test_what_the_simulated_ones_are(self):
        for kind, figures in ((KITCHEN, (5000, 1, 0.3, 0.6)), (BODY, (180_000, 100, 30, 0))):
            found = (kind.capacity_g, kind.step_g, kind.noise_g, kind.drift_g_per_min)
            self.assertEqual(found, figures)
        self.assertEqual(READ_EVERY_S, 0.1)

    def test_after_a_quarter_of_a_second_a_third_is_still_to_come(self):
        scale = SimulatedScale(replace(KITCHEN, step_g=0.01, noise_g=0.0, drift_g_per_min=0.0))
        scale.put(100)
        self.assertAlmostEqual(scale.read(0.25).grams, 67)
        self.assertAlmostEqual(scale.read(0.5).grams, 89.11)

    def test_the_fifth_reading_alike_is_steady(self):
        shown = readings(SimulatedScale(replace(KITCHEN, noise_g=0.0)), 0, 0.6)
        self.assertEqual([one.stable for one in shown], [False] * 4 + [True] * 2)


class Scripts(unittest.TestCase):
    def test_a_line_each(self):
        self.assertEqual(
            script_in("1.5 put 120  # kale\n\n3 tare\n0.5 lay 20"),
            [Act(0.5, "lay", 20), Act(1.5, "put", 120), Act(3, "tare")],
        )

    def test_what_is_no_act_is_named_by_its_line(self):
        for text in ("soon put 3", "1", "1 throw 3", "1 put much"):
            with self.assertRaisesRegex(ValueError, "line 1"):
                script_in(text)


class OnTheScale(unittest.TestCase):
    def test_what_is_worth_a_word(self):
        """From five grams, and from a tenth of what was planned."""
        for planned, taken, differs in (
            (20, 25, True),
            (20, 24.9, False),
            (20, 15, True),
            (200, 219, False),
            (200, 220, True),
            (200, 180, True),
            (0, 5, True),
        ):
            one = Taken(name="Walnuts", planned_g=planned, taken_g=taken)
            self.assertEqual(one.differs, differs, (planned, taken))
        self.assertEqual(
            Taken(name="Walnuts", planned_g=20, taken_g=28).words,
            "8 g more walnuts than planned",
        )
        self.assertIn("less", Taken(name="Kale", planned_g=50, taken_g=40).words)
