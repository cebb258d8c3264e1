"""What is in force when voices differ: properties over persons, schools, conditions and orders."""

from itertools import pairwise
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets.adjustments import BadRow
from nutrition.targets.body import adjusted_weight, bmi, weight_used
from nutrition.targets.conditions import clash, conditions
from nutrition.targets.day import day_targets
from nutrition.targets.meals import check_shares
from nutrition.targets.orders import Order
from nutrition.targets.person import (
    GOAL_WORDS,
    MEAL_PATTERN_WORDS,
    OutOfRange,
    Person,
    Referred,
)
from nutrition.targets.refeeding import refeeding_risk
from nutrition.targets.referral import needs_a_clinic
from nutrition.targets.schools import read_school, school_data, schools
from nutrition.targets.voices import CONDITION, GENERAL, ORDER, SCHOOL, Statement, settle
from nutrition.targets.watched_targets import watched_keys

KIND = {"general": GENERAL, "school": SCHOOL, "condition": CONDITION, "order": ORDER}
persons = st.builds(
    Person,
    sex=st.sampled_from(["female", "male"]),
    age_years=st.floats(19, 105),
    height_cm=st.floats(125, 225),
    weight_kg=st.floats(35, 290),
    activity=st.sampled_from(["inactive", "low_active", "active", "very_active"]),
    goal=st.sampled_from(list(GOAL_WORDS)),
    formula=st.sampled_from(["dri_2023", "mifflin"]),
    conditions=st.frozensets(st.sampled_from(list(conditions())), max_size=4),
    meals=st.sampled_from(list(MEAL_PATTERN_WORDS)),
).filter(
    lambda person: (
        not refeeding_risk(bmi(person.weight_kg, person.height_cm), person.conditions)
        and not clash(person.conditions)
        and "active_eating_disorder" not in person.conditions
        and not needs_a_clinic(person.conditions)
        and (
            person.sex == "female"
            or person.conditions.isdisjoint(("twin_pregnancy", "gestational_diabetes"))
        )
    )
)
some_school = st.one_of(st.none(), st.sampled_from(list(schools().values())))


def says(kind, low, aim, high, **more):
    return Statement(
        key="sodium_mg",
        rank=KIND[kind],
        voice=f"the {kind}",
        low=low,
        aim=aim,
        high=high,
        source="",
        reason="",
        **more,
    )


class Settling(TestCase):
    def test_the_higher_voice_replaces_what_it_cannot_follow(self):
        target, computed, told = settle(
            [says("general", None, 1500, 2300), says("school", 2600, 3000, 3500)]
        )
        self.assertEqual(
            (target.low, target.aim, target.high, target.voice), (2600, 3000, 3500, "the school")
        )
        self.assertEqual(computed, target)
        self.assertEqual(
            [(row.in_force, row.other) for row in told], [("the school", "the general")]
        )
        self.assertIn("at most 2,300 mg", told[0].words)

    def test_it_narrows_what_it_can_follow(self):
        target, _computed, told = settle(
            [
                says("general", None, 1500, 2300),
                says("school", None, 1200, 1500),
                says("condition", None, 1500, 2300),
            ]
        )
        self.assertEqual((target.aim, target.high), (1200, 1500))
        self.assertEqual(told, [])

    def test_at_least_never_lowers_an_aim(self):
        target, _computed, _told = settle(
            [
                says("general", 1000, 1100, None),
                says("school", 1400, 1700, 2000),
                says("condition", 1000, 1100, None),
            ]
        )
        self.assertEqual((target.low, target.aim, target.high), (1400, 1700, 2000))

    def test_two_conditions(self):
        target, _computed, told = settle(
            [
                says("general", 10, 11, None),
                says("condition", 60, 75, 80, priority=1),
                says("condition", 20, 22, 25, priority=5, replaces=True),
            ]
        )
        self.assertEqual((target.low, target.high), (20, 25))
        self.assertIn("ask the treating clinician", told[-1].why)

    def test_an_order_always_wins_and_the_computed_value_stays(self):
        target, computed, told = settle(
            [
                says("general", None, 1500, 2300),
                says("condition", None, 1000, 1500, replaces=True),
                says("order", 3000, 3200, 4000),
            ]
        )
        self.assertEqual((target.low, target.aim, target.high), (3000, 3200, 4000))
        self.assertEqual((computed.aim, computed.voice), (1000, "the condition"))
        self.assertEqual(len(told), 2)


class Laws(TestCase):
    @given(persons, some_school)
    def test_every_target_holds_its_aim_and_names_its_source(self, person, school):
        day = day_targets(person, school)
        for key, target in day.targets.items():
            self.assertIn(key, NUTRIENT)
            slack = 1e-6 * max(1.0, abs(target.aim))
            self.assertTrue(target.low is None or target.low <= target.aim + slack, (key, target))
            self.assertTrue(target.high is None or target.aim <= target.high + slack, (key, target))
            self.assertTrue(target.source and target.reason and target.voice)
        self.assertGreaterEqual(len(day.targets), 40)
        self.assertAlmostEqual(sum(meal.share for meal in day.meals), 1.0)
        self.assertAlmostEqual(sum(meal.energy_kcal for meal in day.meals), day["energy_kcal"].aim)

    @given(
        st.sampled_from(["female", "male"]),
        st.floats(19, 100),
        st.floats(40, 250),
        st.sampled_from(list(GOAL_WORDS)),
        st.sampled_from(
            [
                ("dri_2023", {}),
                ("mifflin", {}),
                ("kcal_per_kg", {"kcal_per_kg": 28.0}),
                ("measured", {"measured_kcal": 2000.0}),
            ]
        ),
        some_school,
    )
    def test_heavier_never_needs_less(self, sex, age, weight, goal, formula, school):
        def kcal(kg):
            return day_targets(
                Person(
                    sex=sex,
                    age_years=age,
                    height_cm=172,
                    weight_kg=kg,
                    activity="active",
                    goal=goal,
                    formula=formula[0],
                    pace_kg_per_week=0.5,
                    **formula[1],
                ),
                school,
            )

        # at the least weight, and just above it, no loss is computed, so that the comparison starts
        # above that
        start = max(weight, 62.0)
        self.assertLessEqual(
            kcal(start)["energy_kcal"].aim, kcal(start * 1.03)["energy_kcal"].aim + 1e-6
        )

    @given(
        persons,
        some_school,
        st.sampled_from(["protein_g", "sodium_mg", "energy_kcal", "potassium_mg", "iron_mg"]),
        st.floats(1, 4000),
    )
    def test_an_order_always_wins(self, person, school, key, aim):
        aim += 600 if key == "energy_kcal" else 0
        try:
            day = day_targets(
                person,
                school,
                [
                    Order(
                        key=key,
                        low=aim * 0.9,
                        aim=aim,
                        high=aim * 1.1,
                        kind="order",
                        reason="letter",
                    )
                ],
            )
        except OutOfRange as error:
            # more protein than all the energy, or energy that the protein of a condition exceeds
            self.assertIn(key, ("protein_g", "energy_kcal"))
            self.assertIn("more than the energy", str(error))
            return
        self.assertEqual((day[key].low, day[key].aim, day[key].high), (aim * 0.9, aim, aim * 1.1))
        self.assertNotEqual(day.computed[key].voice, day[key].voice)

    @given(persons, some_school)
    def test_the_strip_stays_short(self, person, school):
        keys = watched_keys(person, school)
        self.assertTrue(4 <= len(keys) <= 7)
        self.assertEqual(keys[:2], ("energy_kcal", "protein_g"))


class Bodies(TestCase):
    def test_the_weight_that_counts(self):
        heavy, middle = (
            Person(sex="male", age_years=40, height_cm=180, weight_kg=120),
            Person(sex="male", age_years=40, height_cm=180, weight_kg=90),
        )
        self.assertEqual((weight_used(middle).kind, weight_used(middle).kg), ("actual", 90))
        # 81 kg at BMI 25, a quarter of the 39 above it
        self.assertEqual(weight_used(heavy).kind, "adjusted")
        self.assertAlmostEqual(weight_used(heavy).kg, 81 + 39 / 4)
        self.assertAlmostEqual(adjusted_weight(81, 180), 81)
        aimed = Person(
            sex="male",
            age_years=40,
            height_cm=180,
            weight_kg=120,
            target_weight_kg=95,
            weight_basis="target",
        )
        self.assertEqual(weight_used(aimed).kg, 95)
        self.assertIn("BMI 37.0 is over 30", day_targets(heavy)["protein_g"].reason)

    def test_paces(self):
        def plan(school=None, **changes):
            return day_targets(
                Person(
                    sex="male",
                    age_years=40,
                    height_cm=180,
                    weight_kg=100,
                    activity="active",
                    goal="lose",
                    **changes,
                ),
                school,
            ).energy

        greens = schools()["greens_beans_seeds"]
        self.assertAlmostEqual(plan().change, -0.5 * 1100)
        self.assertEqual((plan(greens).asked_pace, plan(greens).pace), (1.06, 1.0))
        self.assertEqual(plan(greens, target_weight_kg=97).pace, 0.45)
        self.assertEqual(
            (plan(greens, pace_kg_per_week=0.3).pace, plan(greens, pace_kg_per_week=0.3).pace_from),
            (0.3, "as chosen"),
        )
        self.assertEqual(plan(target_weight_kg=100).held_because, "the target weight is reached")
        told = [
            row.about
            for row in day_targets(
                Person(
                    sex="male",
                    age_years=40,
                    height_cm=180,
                    weight_kg=100,
                    activity="active",
                    goal="lose",
                ),
                greens,
            ).disagreements
        ]
        self.assertIn("Pace of losing weight", told)

    def test_impossible_is_refused_and_uncovered_is_referred(self):
        def raised(**changes):
            with self.assertRaises(OutOfRange) as caught:
                day_targets(
                    Person(
                        **(
                            {"sex": "male", "age_years": 40, "height_cm": 180, "weight_kg": 80}
                            | changes
                        )
                    )
                )
            return caught.exception

        for field, value in (
            ("age_years", -3),
            ("height_cm", 900),
            ("weight_kg", 0),
            ("weight_kg", float("nan")),
            ("pace_kg_per_week", 9),
        ):
            with self.subTest(field, value=value):
                error = raised(**{field: value})
                self.assertEqual((error.field, isinstance(error, Referred)), (field, False))
        for field, value in (("age_years", 16), ("height_cm", 110), ("weight_kg", 320)):
            with self.subTest(field, value=value):
                self.assertIsInstance(raised(**{field: value}), Referred)
        self.assertEqual(raised(formula="measured").field, "measured_kcal")
        self.assertEqual(raised(weight_basis="target").field, "target_weight_kg")

    def test_shares_of_the_meals(self):
        person = Person(sex="male", age_years=40, height_cm=180, weight_kg=80, meals="2")
        day = day_targets(person, shares={"lunch": 0.6, "dinner": 0.4})
        self.assertAlmostEqual(day.meals[0].energy_kcal, 0.6 * day["energy_kcal"].aim)
        self.assertEqual([meal.protein_min_g for meal in day.meals], [32, 32])
        for wrong in (
            {"lunch": 1.0},
            {"lunch": 0.6, "dinner": 0.6},
            {"lunch": 1.2, "dinner": -0.2},
        ):
            with self.subTest(wrong), self.assertRaises(OutOfRange):
                check_shares("2", wrong)


class Schools(TestCase):
    def test_the_five_are_whole(self):
        self.assertEqual(
            list(schools()),
            ["kidney_gentle", "light_starchy", "greens_beans_seeds", "strength", "balanced_plate"],
        )
        points = {tuple(school.stands) for school in schools().values()}
        self.assertEqual(len(points), 1, "each says where it stands on the same points")
        for school in schools().values():
            with self.subTest(school.code):
                for rows, least in (
                    (school.targets, 2),
                    (school.foods, 4),
                    (school.habits, 3),
                    (school.plate, 2),
                    (school.meals, 3),
                ):
                    self.assertGreaterEqual(len(rows), least)
                for row in (*school.targets, *school.foods, *school.habits):
                    self.assertTrue(row.reason and row.source)
                self.assertTrue(school.pace.reason and school.starch_order)
        density = next(
            row for row in schools()["light_starchy"].targets if row.key == "kcal_per_gram"
        )
        self.assertFalse(
            density.published, "a published direction with a band of our own is not published"
        )
        self.assertTrue(schools()["strength"].targets[0].published)

    def test_a_school_and_a_condition_that_disagree_over_a_food(self):
        person = Person(
            sex="female",
            age_years=50,
            height_cm=165,
            weight_kg=70,
            conditions=frozenset({"kidney_stones"}),
        )
        self.assertEqual(
            [
                row
                for row in day_targets(person, schools()["strength"]).disagreements
                if row.key == ""
            ],
            [],
        )
        kidneys = Person(
            sex="female",
            age_years=50,
            height_cm=165,
            weight_kg=70,
            conditions=frozenset({"texture_pureed"}),
        )
        told = [
            row
            for row in day_targets(kidneys, schools()["greens_beans_seeds"]).disagreements
            if row.key == ""
        ]
        self.assertEqual([row.about for row in told], ["Leafy greens"])
        self.assertIn("favor", told[0].words)

    def test_a_copy_that_cannot_be_used_says_why(self):
        good = school_data()["strength"]
        for change, message in (
            (
                {"targets": [{"key": "unobtainium", "low": 1, "reason": "x", "source": "y"}]},
                "no target",
            ),
            (
                {
                    "targets": [
                        {"key": "protein_g", "low": 2, "aim": 1, "reason": "x", "source": "y"}
                    ]
                },
                "in that order",
            ),
            (
                {
                    "targets": [
                        {
                            "key": "iron_mg",
                            "per": "percent of energy",
                            "low": 1,
                            "reason": "x",
                            "source": "y",
                        }
                    ]
                },
                "cannot be given",
            ),
            (
                {"targets": [{"key": "protein_g", "low": "two", "reason": "x", "source": "y"}]},
                "is a number",
            ),
            (
                {
                    "foods": [
                        {"class": "moon dust", "stance": "avoid", "reason": "x", "source": "y"}
                    ]
                },
                "no kind of food",
            ),
            (
                {"foods": [{"class": "oil", "stance": "adore", "reason": "x", "source": "y"}]},
                "avoid, limit or favor",
            ),
            (
                {
                    "plate": [
                        {
                            "part": "a",
                            "classes": ["oil"],
                            "share": 0.4,
                            "reason": "x",
                            "source": "y",
                        }
                    ]
                },
                "add up",
            ),
            (
                {"habits": [{"name": "a", "classes": ["oil"], "reason": "x", "source": "y"}]},
                "least or a most",
            ),
            ({"pace": good["pace"] | {"lose": 9}}, "0 to 1.5"),
        ):
            with self.subTest(message), self.assertRaisesRegex(BadRow, message):
                read_school("copy", good | change)
        self.assertEqual(read_school("copy", good).targets, schools()["strength"].targets)

    def test_paces_are_in_order(self):
        for slow, fast in pairwise(("kidney_gentle", "light_starchy", "greens_beans_seeds")):
            self.assertLess(schools()[slow].pace.lose, schools()[fast].pace.lose)
