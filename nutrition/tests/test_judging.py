"""Targets, indices, household measures, what a bowl is made of, the pace of weight."""

from dataclasses import replace
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from nutrition.composition.allergens import found_in
from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.portion import food_portion, star_of
from nutrition.composition.profile import Profile
from nutrition.follow_up.trend import weekly_change
from nutrition.insight import indices
from nutrition.insight.make_up import kinds_of_protein, vegetables_in
from nutrition.targets.day import day_targets
from nutrition.targets.person import GOAL_WORDS, OutOfRange, Person
from nutrition.targets.standing import judge
from nutrition.targets.voices import Target
from nutrition.written.household import by_volume, fraction, spoken, step_g

FOODS = food_table()


class Targets(TestCase):
    def test_a_day_worked_by_hand(self):
        """Woman of 30, 60 kg, 165 cm: 600 + 1031.25 - 150 - 161 = 1320.25 at rest, x 1.55 =
        2046."""
        day = day_targets(
            Person(
                sex="female",
                age_years=30,
                height_cm=165,
                weight_kg=60,
                activity="active",
                goal="hold",
                formula="mifflin",
            )
        )
        self.assertAlmostEqual(day["energy_kcal"].aim, 1320.25 * 1.55)
        self.assertAlmostEqual(day["protein_g"].low, 48)
        self.assertAlmostEqual(day["fiber_g"].low, 14 * 1320.25 * 1.55 / 1000)
        self.assertEqual((day["sodium_mg"].aim, day["sodium_mg"].high), (1500, 2300))
        self.assertIn("1320 kcal x 1.55 for activity = 2046", day["energy_kcal"].reason)

    def test_the_2023_equations_are_the_default(self):
        day = day_targets(
            Person(sex="female", age_years=30, height_cm=165, weight_kg=60, activity="inactive")
        )
        self.assertAlmostEqual(day["energy_kcal"].aim, 584.90 - 210.30 + 943.80 + 702.60)

    def test_pregnancy(self):
        before, during = (
            day_targets(
                Person(sex="female", age_years=30, height_cm=165, weight_kg=60, life_stage=stage)
            )
            for stage in ("adult", "pregnant_2")
        )
        self.assertAlmostEqual(
            during["energy_kcal"].aim,
            693.35 - 2.04 * 30 + 5.73 * 165 + 10.20 * 60 + 9.16 * 20 + 200,
        )
        self.assertGreater(during["energy_kcal"].aim, before["energy_kcal"].aim + 250)
        self.assertAlmostEqual(during["protein_g"].low, 66)
        self.assertEqual(
            (during["iron_mg"].low, during["iodine_ug"].low, during["folate_ug"].low),
            (27, 220, 600),
        )
        with self.assertRaises(OutOfRange):
            day_targets(
                Person(
                    sex="male", age_years=30, height_cm=165, weight_kg=60, life_stage="pregnant_2"
                )
            )
        losing = day_targets(
            Person(
                sex="female",
                age_years=30,
                height_cm=165,
                weight_kg=60,
                goal="lose",
                life_stage="pregnant_2",
            )
        )
        self.assertEqual(
            (losing.energy.change, losing.energy.held_because),
            (0.0, "no loss is planned in pregnancy"),
        )

    def test_shares_of_the_energy(self):
        day = day_targets(
            Person(
                sex="female",
                age_years=30,
                height_cm=165,
                weight_kg=60,
                activity="active",
                formula="mifflin",
            )
        )
        kcal = day["energy_kcal"].aim
        self.assertAlmostEqual(day["fat_g"].low, 0.20 * kcal / 9)
        self.assertAlmostEqual(day["fat_g"].high, 0.35 * kcal / 9)
        self.assertAlmostEqual(day["saturated_fat_g"].high, 0.10 * kcal / 9)
        self.assertAlmostEqual(day["added_sugars_g"].high, 0.10 * kcal / 4)

    def test_energy_never_goes_under_the_floor(self):
        day = day_targets(
            Person(
                sex="female",
                age_years=80,
                height_cm=150,
                weight_kg=48,
                activity="inactive",
                goal="lose",
            )
        )
        self.assertEqual(day["energy_kcal"].aim, 1200)
        self.assertEqual(day["energy_kcal"].low, 1200)
        self.assertIn("floor", day["energy_kcal"].reason)

    @given(
        st.floats(61, 299),
        st.sampled_from(["female", "male"]),
        st.sampled_from(list(GOAL_WORDS)),
        st.floats(18, 110),
    )
    def test_heavier_never_needs_less_and_bands_hold_their_aim(self, weight, sex, goal, age):
        light = day_targets(
            Person(
                sex=sex,
                age_years=age,
                height_cm=170,
                weight_kg=weight,
                activity="low_active",
                goal=goal,
            )
        )
        heavy = day_targets(
            Person(
                sex=sex,
                age_years=age,
                height_cm=170,
                weight_kg=weight + 1,
                activity="low_active",
                goal=goal,
            )
        )
        self.assertGreaterEqual(heavy["energy_kcal"].aim, light["energy_kcal"].aim)
        for target in light.targets.values():
            self.assertTrue(
                target.aim >= (target.aim if target.low is None else target.low), target.key
            )
            self.assertTrue(
                target.aim <= (target.aim if target.high is None else target.high), target.key
            )
            self.assertTrue(target.source and target.reason)

    def test_impossible_figures_name_their_field(self):
        for field, value in (
            ("age_years", -3),
            ("height_cm", 900),
            ("weight_kg", 5),
            ("age_years", 16),
        ):
            person = Person(
                **(
                    {"sex": "male", "age_years": 40, "height_cm": 180, "weight_kg": 80}
                    | {field: value}
                )
            )
            with self.subTest(field), self.assertRaises(OutOfRange) as caught:
                day_targets(person)
            self.assertEqual(caught.exception.field, field)

    def test_judge(self):
        target = Target(key="protein_g", low=50, aim=60, high=80, unit="g", source="", reason="")
        self.assertEqual(
            [judge(target, amount) for amount in (38, 50, 80, 92)],
            [("under", 12), ("inside", 0), ("inside", 0), ("over", 12)],
        )


class Indices(TestCase):
    def test_density_and_protein(self):
        profile = FOODS["olive-oil"].profile(50)
        self.assertAlmostEqual(indices.kcal_per_gram(profile), 8.84, places=2)
        self.assertAlmostEqual(indices.kcal_per_pound(profile), 8.84 * 453.59237, delta=1)
        self.assertAlmostEqual(
            indices.protein_per_100_kcal(FOODS["kale-raw"].profile(10)), 2.92 / 35 * 100
        )
        self.assertAlmostEqual(
            indices.protein_energy_percent(FOODS["kale-raw"].profile(10)), 2.92 * 4 / 35 * 100
        )

    def test_nothing_has_no_density(self):
        self.assertEqual(
            [
                indices.kcal_per_gram(Profile.empty()),
                indices.protein_per_100_kcal(FOODS["salt"].profile(5)),
            ],
            [None, None],
        )

    def test_acid_load_says_how_much_is_known(self):
        mixed = FOODS["walnuts"].profile(50) + FOODS["freekeh-dry"].profile(50)
        self.assertAlmostEqual(indices.acid_load(mixed).known, 0.5)


class Household(TestCase):
    def test_measures_a_person_can_use(self):
        for slug, grams, words in (
            ("quinoa-dry", 170, "1 cup"),
            ("lemon-juice", 15, "1 tbsp"),
            ("salt", 1.5, "1/4 tsp"),
            ("carrots-raw", 61, "1 medium"),
            ("walnuts", 10, "5 pieces"),
            ("bay-leaf", 0.4, "2 leaves"),
            ("quinoa-cooked", 139, "3/4 cup"),
        ):
            with self.subTest(slug):
                self.assertEqual(spoken(FOODS[slug], grams).words, words)

    @given(st.floats(0.5, 4000), st.floats(0.3, 8))
    def test_the_words_stand_for_nearly_those_grams(self, volume, weight_of_ml):
        said = by_volume(volume, volume * weight_of_ml / 4)
        if said and volume > 4:
            self.assertAlmostEqual(
                said.grams, volume * weight_of_ml / 4, delta=0.34 * volume * weight_of_ml / 4
            )

    def test_fractions(self):
        self.assertEqual(
            [fraction(value)[1] for value in (0.26, 1.34, 2.0, 0.97, 3.6)],
            ["1/4", "1 1/3", "2", "1", "3 2/3"],
        )

    def test_steps(self):
        self.assertEqual(step_g(FOODS["whole-wheat-bread"]), 32)
        self.assertAlmostEqual(step_g(FOODS["millet-cooked"]), 174 / 4)
        self.assertAlmostEqual(step_g(FOODS["tahini"]), 15)


class Bowls(TestCase):
    def test_vegetables_are_counted_once_and_not_by_the_pinch(self):
        foods = [
            ("carrots-raw", 50),
            ("carrots-cooked", 40),
            ("kale-raw", 20),
            ("tomato-paste-no-salt-added", 30),
            ("chives-raw", 20),
            ("mushrooms-white-raw", 3),
        ]
        self.assertEqual(
            vegetables_in([Ingredient(FOODS[slug], grams) for slug, grams in foods]),
            ["Carrots", "Kale"],
        )

    def test_kinds_of_protein_add_up(self):
        parts = [
            Ingredient(FOODS[slug], grams)
            for slug, grams in (("tofu-firm", 100), ("lentils-cooked", 100), ("lemon-juice", 15))
        ]
        kinds = kinds_of_protein(parts)
        self.assertEqual([name for name, _grams in kinds][:2], ["Tofu, firm", "Lentils"])
        total = Profile.total(part.food.profile(part.grams) for part in parts)["protein_g"].amount
        self.assertAlmostEqual(sum(grams for _name, grams in kinds), total)

    def test_the_star_is_the_chosen_or_the_largest_that_is_not_the_base(self):
        def part(role, volume, star=False):
            whole = food_portion(FOODS["kale-raw"], 50.0, role=role)
            return replace(whole, volume_ml=volume, star=star)

        parts = [part("base", 400), part("vegetable", 150), part("protein", 200)]
        self.assertEqual(star_of(parts), 2)
        self.assertEqual(star_of([*parts, part("greens", 10, True)]), 3)
        self.assertIsNone(star_of([part("base", 400)]))

    def test_allergens(self):
        foods = [FOODS["tahini"], FOODS["tofu-firm"], FOODS["kale-raw"]]
        self.assertEqual(found_in(foods, ["sesame", "gluten"]), {"sesame": ["Tahini"]})

    def test_room_taken(self):
        self.assertAlmostEqual(FOODS["quinoa-cooked"].volume_ml(185), 236.588)
        self.assertLess(FOODS["spinach-raw"].volume_ml(30), 236.588)


class Trend(TestCase):
    def test_a_straight_line_gives_its_slope(self):
        self.assertAlmostEqual(
            weekly_change([(day, 90 - 0.1 * day) for day in range(0, 28, 3)]), -0.7
        )
        self.assertIsNone(weekly_change([(0, 90), (7, 89)]))
        self.assertIsNone(weekly_change([(0, 90), (0, 89), (0, 91)]))
