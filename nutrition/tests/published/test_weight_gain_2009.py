"""National Academies, Weight Gain During Pregnancy (2009), from memory; and what pregnancy asks of
energy and protein by the weight before it."""

from unittest import TestCase

from nutrition.targets.day import day_targets
from nutrition.targets.person import OutOfRange, Person


def carrying(before, now=None, *conditions, **changes):
    figures = {"sex": "female", "age_years": 30, "height_cm": 165, "life_stage": "pregnant_3"}
    return day_targets(
        Person(
            **figures | changes,
            weight_kg=now or (before or 60) + 8,
            weight_before_kg=before,
            conditions=frozenset(conditions),
        )
    )


class Gain(TestCase):
    def test_by_the_index_before(self):
        for before, one, two in (
            (48, (12.5, 18), None),
            (60, (11.5, 16), (17, 25)),
            (72, (7, 11.5), (14, 23)),
            (90, (5, 9), (11, 19)),
        ):
            with self.subTest(before):
                gain = carrying(before).gain
                self.assertEqual((gain.low_kg, gain.high_kg), one)
                twins = carrying(before, None, "twin_pregnancy").gain
                self.assertEqual((twins.low_kg, twins.high_kg), two or (None, None))
        self.assertIsNone(carrying(None, 68).gain, "asked for, where it is not known")

    def test_energy_laid_down_goes_by_the_weight_before(self):
        normal, heavy = carrying(60, 75), carrying(90, 75)
        self.assertAlmostEqual(normal.energy.need - heavy.energy.need, 250)

    def test_protein_goes_by_the_weight_before_adjusted_over_30(self):
        self.assertAlmostEqual(carrying(60, 75)["protein_g"].low, 66)
        heavy = carrying(115, 122)
        self.assertLess(heavy["protein_g"].low, 100)
        self.assertEqual(heavy.weight.kind, "adjusted")
        twins = carrying(60, 75, "twin_pregnancy")
        self.assertAlmostEqual(twins["protein_g"].low, 66 + 25)
        self.assertGreater(twins.energy.need, carrying(60, 75).energy.need + 200)

    def test_nothing_is_lost_in_it(self):
        made = carrying(90, 100, goal="lose")
        self.assertEqual(made.energy.change, 0)
        self.assertGreaterEqual(made["energy_kcal"].low, 0.9 * made.energy.need - 1e-6)

    def test_not_of_men(self):
        for code in ("twin_pregnancy", "gestational_diabetes"):
            with self.assertRaises(OutOfRange):
                day_targets(
                    Person(
                        sex="male",
                        age_years=30,
                        height_cm=180,
                        weight_kg=80,
                        conditions=frozenset({code}),
                    )
                )


class AtEighteen(TestCase):
    """Dietary Reference Intakes: the values of 14 to 18, from memory."""

    def day(self, age, **changes):
        figures = {"sex": "female", "height_cm": 165, "weight_kg": 60}
        return day_targets(Person(**figures | changes, age_years=age))

    def test_where_they_differ(self):
        young, adult = self.day(18, vegan_iron=False), self.day(19, vegan_iron=False)
        for key, at_18, at_19 in (
            ("calcium_mg", 1300, 1000),
            ("phosphorus_mg", 1250, 700),
            ("magnesium_mg", 360, 310),
            ("iron_mg", 15, 18),
        ):
            self.assertEqual((young[key].low, adult[key].low), (at_18, at_19))
        self.assertEqual(young["calcium_mg"].high, 3000)
        self.assertGreaterEqual(young["protein_g"].low, 0.85 * 60)
        self.assertIn("14 to 18", young["energy_kcal"].reason)
        man = self.day(18, sex="male", height_cm=175, weight_kg=70)
        by_hand = 19.12 + 3.68 * 18 + 8.62 * 175 + 20.28 * 70 + 20
        self.assertAlmostEqual(man.energy.need, by_hand)
        self.assertEqual(man["magnesium_mg"].low, 410)
