"""What no plan passes: how fast weight is lost and down to where, who may order what, and numbers
that no body lives on."""

from itertools import product
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from nutrition.safety.cautions import cautions_in
from nutrition.safety.situations import plan_numbers, plan_words, situation
from nutrition.targets.body import least_weight
from nutrition.targets.conditions import conditions
from nutrition.targets.day import day_targets
from nutrition.targets.energy_plan import fastest_loss
from nutrition.targets.orders import Order
from nutrition.targets.person import OutOfRange, Person, Referred
from nutrition.targets.schools import schools
from nutrition.targets.weight_forecast import static_kcal
from nutrition.tests.thorough import thorough


def someone(**changes):
    figures = {"sex": "female", "age_years": 40, "height_cm": 165, "weight_kg": 80}
    return Person(**figures | changes)


def ordered(key, low=None, aim=None, high=None, license=""):
    kind = "order" if license else "choice"
    return Order(
        key=key, low=low, aim=aim, high=high, kind=kind, reason="", by="A. Reed", license=license
    )


def codes(day, orders=()):
    told = situation(day.person, "", plan_numbers(day, orders), words=plan_words(day, orders))
    return {caution.code: caution for caution in cautions_in(told)}


class Loss(TestCase):
    def test_no_faster_than_the_body_bears(self):
        for kg, changes in (
            (0.8, {}),
            (0.5, {"life_stage": "lactating_7_12"}),
            (0.4, {"conditions": frozenset({"ckd_4"})}),
            (0.2, {"conditions": frozenset({"frail"})}),
        ):
            person = someone(goal="lose", pace_kg_per_week=2.0, **changes)
            day = day_targets(person)
            self.assertAlmostEqual(day.energy.pace, kg)
            self.assertGreaterEqual(day["energy_kcal"].low, day.energy.need - static_kcal(kg) - 1)
            self.assertTrue({"pace_above_one_percent", "pace_capped"} & set(codes(day)))

    def test_a_faster_one_is_a_clinicians_order(self):
        wish, order = ordered("energy_kcal", aim=900), ordered("energy_kcal", aim=900, license="MD")
        held = day_targets(someone(goal="lose"), None, [wish])
        self.assertAlmostEqual(held["energy_kcal"].aim, held.energy.least)
        self.assertIn("choice_against_a_condition", codes(held, [wish]))
        given = day_targets(someone(goal="lose"), None, [order])
        self.assertEqual(given["energy_kcal"].aim, 900)
        opened = codes(given, [order])["order_opens_a_limit"]
        self.assertIn("900", opened.text)
        self.assertIn(f"{given.energy.least:.0f}", opened.text)

    def test_none_while_cancer_is_treated(self):
        day = day_targets(someone(goal="lose", conditions=frozenset({"cancer_treatment"})))
        self.assertEqual(day.energy.change, 0)
        self.assertIn("loss_while_cancer_is_treated", codes(day))

    @settings(max_examples=60, deadline=None)
    @given(
        kg=st.floats(40, 250),
        height=st.floats(140, 205),
        age=st.integers(18, 100),
        goal=st.sampled_from(["lose", "gain", "hold", "muscle"]),
        target=st.none() | st.floats(31, 299),
        energy=st.none() | st.floats(450, 8000),
        license=st.sampled_from(["", "MD"]),
    )
    def test_no_forecast_passes_what_is_planned_for(
        self, kg, height, age, goal, target, energy, license
    ):
        orders = [] if energy is None else [ordered("energy_kcal", aim=energy, license=license)]
        person = someone(
            weight_kg=kg, height_cm=height, age_years=age, goal=goal, target_weight_kg=target
        )
        try:
            day = day_targets(person, None, orders)
        except OutOfRange:
            return
        least, ahead = least_weight(person), day.forecast
        if not license:
            self.assertGreaterEqual(day["energy_kcal"].aim, day.energy.least - 1)
        if ahead is None:
            return
        for weight in [ahead.eventual_kg, *(kg for row in ahead.points for kg in row[1:])]:
            self.assertGreater(weight, 25)
            self.assertLess(weight, 400)
            if ahead.kcal_per_day < 0:
                self.assertGreaterEqual(weight, min(least, kg) - 1e-6)
                if target is not None and target < kg:
                    self.assertGreaterEqual(weight, target - 1e-6)


class Orders(TestCase):
    def test_only_a_licensed_clinicians_counts_and_an_opened_limit_is_asked_about(self):
        kidney = someone(conditions=frozenset({"ckd_5"}))
        wish = ordered("potassium_mg", low=8000)
        day = day_targets(kidney, None, [wish])
        self.assertLessEqual(day["potassium_mg"].high, 3000)
        self.assertEqual(codes(day, [wish])["choice_against_a_condition"].level, "stop and ask")
        order = ordered("potassium_mg", low=8000, license="MD 1")
        told = codes(day_targets(kidney, None, [order]), [order])["order_opens_a_limit"]
        self.assertEqual(told.level, "stop and ask")
        for words in ("8,000", "3,000"):
            self.assertIn(words, told.text)

    def test_numbers_no_body_lives_on_are_refused_by_name(self):
        for kcal in (0, -500, 9000):
            with self.assertRaises(OutOfRange) as caught:
                day_targets(someone(), None, [ordered("energy_kcal", aim=kcal, license="MD")])
            self.assertIn("Energy" if kcal < 0 else "kcal a day", str(caught.exception))

    def test_what_does_not_fit_into_the_energy(self):
        low = ordered("energy_kcal", aim=700, license="MD")
        day = day_targets(someone(), None, [low])
        room = day["energy_kcal"].high
        least = sum(
            (day[key].low or 0) * per
            for key, per in (("protein_g", 4), ("carbohydrate_g", 4), ("fat_g", 9))
        )
        self.assertLessEqual(least, room * 1.03)
        self.assertIn("Lowered from", day["carbohydrate_g"].reason)
        with self.assertRaises(OutOfRange) as caught:
            day_targets(someone(), None, [low, ordered("protein_g", low=250)])
        self.assertIn("more than the energy of 770 kcal", str(caught.exception))


class EveryCondition(TestCase):
    @thorough
    def test_with_every_school_and_goal(self):
        """Nothing crashes, no band is upside down, and no loss leads under the least weight."""
        for code, school, goal in product(
            conditions(), (None, *schools().values()), ("lose", "hold", "gain", "muscle")
        ):
            person = someone(goal=goal, weight_kg=72, conditions=frozenset({code}))
            try:
                day = day_targets(person, school)
            except Referred:
                self.assertIn(
                    code,
                    (
                        *("active_eating_disorder", "little_eaten_10_days"),
                        *("lost_15_percent", "low_electrolytes", "pku", "protein_disorder"),
                    ),
                )
                continue
            for key, target in day.targets.items():
                low, high = target.low or 0.0, target.high or float("inf")
                if key != "pral_meq":
                    self.assertTrue(low <= target.aim + 1e-6 <= high + 2e-6, (code, key, target))
            self.assertLessEqual(day.energy.pace, max(fastest_loss(day.person)[0], 0.5) + 1e-9)

    def test_what_cannot_be_together(self):
        for both in (("ckd_3b", "ckd_4"), ("ckd_1", "hemodialysis"), ("dialysis", "ckd_2")):
            with self.assertRaises(OutOfRange):
                day_targets(someone(conditions=frozenset(both)))
        day_targets(someone(conditions=frozenset({"ckd_5", "hemodialysis"})))
