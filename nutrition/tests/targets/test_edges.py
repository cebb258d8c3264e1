"""Both sides of every number that a day's targets go by, written out."""

import unittest
from dataclasses import replace
from datetime import date, timedelta

from nutrition.composition.profile import Amount
from nutrition.targets import aims
from nutrition.targets.adjustments import Shift
from nutrition.targets.aim import Aim
from nutrition.targets.aims import (
    aims_for,
    judged,
    upper_levels,
    with_upper_levels,
    within_upper_levels,
)
from nutrition.targets.blood import (
    Measured,
    analytes,
    blood_numbers,
    check_value,
    convert,
    filtration,
    likely_units,
)
from nutrition.targets.body import adjusted_weight, bmi, least_bmi, must_gain, weight_used
from nutrition.targets.body_composition import energy_available, fat_free_kg, outside_equation
from nutrition.targets.conditions import in_play
from nutrition.targets.day import day_targets
from nutrition.targets.energy import eer_2023_at_18, eer_2023_pregnant
from nutrition.targets.energy_plan import energy_plan, fastest_loss, held_because
from nutrition.targets.gastric import stomach_ml
from nutrition.targets.hard_limits import tightened
from nutrition.targets.kidney import stage_of
from nutrition.targets.macronutrient_fit import fitted
from nutrition.targets.meals import check_shares, filled_share, meal_at
from nutrition.targets.orders import Order, check_order
from nutrition.targets.person import OutOfRange, Person, Referred, check
from nutrition.targets.pregnancy import band_of, gestational_gain
from nutrition.targets.refeeding import refeeding_risk
from nutrition.targets.reference_intakes import age_group, group_words, reference_intakes
from nutrition.targets.schools import BadRow, read_school, school_data, schools
from nutrition.targets.scope import MOST, WEEK, scopes
from nutrition.targets.standing import near_edge, standing
from nutrition.targets.voices import CONDITION, GENERAL, Target, Voice, band_words
from nutrition.targets.watched_targets import watched_keys
from nutrition.targets.weight_forecast import days_to_change, forecast

WOMAN = Person(sex="female", age_years=40.0, height_cm=170.0, weight_kg=70.0)
MAN = Person(sex="male", age_years=40.0, height_cm=180.0, weight_kg=80.0)
TODAY = date(2026, 11, 20)
LEVELS = ("inactive", "low_active", "active", "very_active")


def target(key="protein_g", low=None, aim=100.0, high=None, **more):
    return Target(
        key=key, low=low, aim=aim, high=high, unit="g", source="the test", reason="", **more
    )


def order(key, **bounds):
    low, aim, high = (bounds.get(name) for name in ("low", "aim", "high"))
    return Order(
        key=key, low=low, aim=aim, high=high, kind="order", reason="", by="Dr. A", license="MD"
    )


class Refusing(unittest.TestCase):
    def refused(self, error, function, *args):
        with self.assertRaises(error) as caught:
            function(*args)
        return caught.exception


class Figures(Refusing):
    def test_what_the_formulas_cover_and_what_nobody_is(self):
        """Least and most that is computed with, and least and most that anybody is taken for."""
        tall = {"height_cm": (230.0, 200.0), "weight_kg": (230.0, 300.0)}
        for field, covered, possible in (
            ("age_years", (18.0, 110.0), (0.0, 122.0)),
            ("height_cm", (120.0, 230.0), (40.0, 275.0)),
            ("weight_kg", (30.0, 300.0), (1.0, 640.0)),
        ):
            for side, (edge, far) in enumerate(zip(covered, possible, strict=True)):
                away = (-0.1, 0.1)[side]
                size = {"height_cm": 180.0 if side else 130.0, "weight_kg": 70.0}
                if field == "weight_kg":
                    size = {"height_cm": tall["height_cm"][0] if side else 135.0}
                if field == "height_cm":
                    size = {"weight_kg": 160.0 if side else 40.0}
                with self.subTest(field, side=side):
                    check(replace(WOMAN, **{**size, field: edge}))
                    self.refused(Referred, check, replace(WOMAN, **{**size, field: edge + away}))
                    found = self.refused(
                        OutOfRange, check, replace(WOMAN, **{**size, field: far + away})
                    )
                    self.assertNotIsInstance(found, Referred)
                    self.assertEqual(found.field, field)

    def test_what_may_be_entered_of_energy_and_pace(self):
        for formula, field, low, high in (
            ("kcal_per_kg", "kcal_per_kg", 15.0, 70.0),
            ("measured", "measured_kcal", 600.0, 8000.0),
        ):
            for value in (low, high):
                check(replace(WOMAN, formula=formula, **{field: value}))
            for value in (low - 0.1, high + 0.1):
                found = self.refused(
                    OutOfRange, check, replace(WOMAN, formula=formula, **{field: value})
                )
                self.assertEqual(found.field, field)
        check(replace(WOMAN, goal="lose", pace_kg_per_week=3.0))
        for pace in (3.1, -0.1):
            self.refused(OutOfRange, check, replace(WOMAN, goal="lose", pace_kg_per_week=pace))

    def test_orders(self):
        for low, high in ((449.0, 8001.0), (450.0, 8000.0)):
            for kcal in (low, high):
                row = order("energy_kcal", aim=kcal)
                if low == 450.0:
                    check_order(row)
                else:
                    self.assertEqual(self.refused(OutOfRange, check_order, row).field, "aim")
        for value in (0.0, 1e-4, 1e6):
            check_order(order("copper_mg", high=value))
        for value in (9e-5, 1.1e6):
            self.refused(OutOfRange, check_order, order("copper_mg", high=value))
        self.refused(OutOfRange, check_order, order("copper_mg", high=-1.0))
        check_order(order("pral_meq", high=-1.0))
        check_order(order("protein_g", low=50.0, aim=50.0, high=50.0))
        self.assertEqual(
            self.refused(OutOfRange, check_order, order("protein_g", low=51.0, high=50.0)).field,
            "low",
        )
        self.assertEqual(
            self.refused(OutOfRange, check_order, order("protein_g", aim=51.0, high=50.0)).field,
            "high",
        )


class Bodies(Refusing):
    def test_the_least_body_mass_index(self):
        """18.5, and 20 from 65 years on."""
        self.assertEqual((least_bmi(64.9), least_bmi(65.0)), (18.5, 20.0))
        for weight, thin in ((53.4, True), (53.5, False)):
            person = replace(WOMAN, weight_kg=weight)
            self.assertEqual(must_gain(person), thin, bmi(weight, 170.0))
        for weight, thin in ((57.7, True), (57.9, False)):
            self.assertEqual(must_gain(replace(WOMAN, age_years=70.0, weight_kg=weight)), thin)

    def test_the_weight_that_counts(self):
        """Over a BMI of 30 that of BMI 25 and a quarter of what is over it: at 170 cm 72.25 kg."""
        self.assertEqual(weight_used(replace(WOMAN, weight_kg=86.6)).kg, 86.6)
        over = weight_used(replace(WOMAN, weight_kg=86.8))
        self.assertAlmostEqual(over.kg, 72.25 + 0.25 * (86.8 - 72.25))
        self.assertAlmostEqual(adjusted_weight(102.25, 170.0), 72.25 + 7.5)

    def test_fat_free_mass(self):
        """Janmahasatian et al. (2005): 9270 x kg / (8780 + 244 x BMI) for a woman."""
        self.assertAlmostEqual(fat_free_kg(WOMAN), 44.17, delta=0.01)
        self.assertAlmostEqual(fat_free_kg(MAN), 61.73, delta=0.01)
        self.assertEqual(fat_free_kg(replace(WOMAN, fat_free_kg=50.0)), 50.0)

    def test_energy_left_after_training_is_told_of_adults_who_train_hard(self):
        trained = replace(WOMAN, activity="very_active")
        self.assertIsNotNone(energy_available(trained, 2500.0))
        self.assertIsNone(energy_available(replace(trained, age_years=18.9), 2500.0))
        self.assertIsNotNone(energy_available(replace(trained, age_years=19.0), 2500.0))
        self.assertIsNone(energy_available(replace(trained, activity="active"), 2500.0))

    def test_bodies_that_the_energy_equation_was_not_made_for(self):
        for field, edges, step in (
            ("age_years", (19.0, 90.0), 0.1),
            ("height_cm", (145.0, 200.0), 0.1),
            ("weight_kg", (42.0, 150.0), 0.1),
        ):
            for edge, away in zip(edges, (-step, step), strict=True):
                size = {"weight_kg": 60.0 if edge < 160 else 100.0} if field == "height_cm" else {}
                if field == "weight_kg":
                    size = {"height_cm": 148.0 if edge < 50 else 195.0}
                with self.subTest(field, edge=edge):
                    inside = outside_equation(replace(WOMAN, **{**size, field: edge}))
                    out = outside_equation(replace(WOMAN, **{**size, field: edge + away}))
                    self.assertEqual(len(inside), 0, inside)
                    self.assertEqual(len(out), 1, out)
        for weight, said in ((53.4, True), (53.5, False), (115.6, False), (115.7, True)):
            found = outside_equation(replace(WOMAN, weight_kg=weight))
            self.assertEqual(any(one.startswith("BMI") for one in found), said, weight)

    def test_refeeding(self):
        self.assertIn("under 16", refeeding_risk(15.99, frozenset()))
        self.assertEqual(refeeding_risk(16.0, frozenset()), "")
        few = frozenset({"little_eaten_5_days"})
        self.assertIn(" and BMI 18.5 under 18.5", refeeding_risk(18.49, few))
        self.assertEqual(refeeding_risk(18.5, few), "")

    def test_the_stomach_after_surgery(self):
        have = frozenset({"gastric_surgery"})
        for months, ml in (
            (0.0, 100.0),
            (0.9, 100.0),
            (1.0, 150.0),
            (2.9, 150.0),
            (3.0, 200.0),
            (6.0, 300.0),
            (11.9, 300.0),
            (12.0, 400.0),
            (None, 400.0),
        ):
            self.assertEqual(stomach_ml(have, months), ml)
        self.assertIsNone(stomach_ml(frozenset(), 3.0))

    def test_pregnancy_by_the_body_mass_index_before_it(self):
        for index, name, laid_down in (
            (18.4, "underweight", 300.0),
            (18.5, "normal", 200.0),
            (24.9, "normal", 200.0),
            (25.0, "overweight", 150.0),
            (29.9, "overweight", 150.0),
            (30.0, "obese", -50.0),
        ):
            self.assertEqual(band_of(index), (name, laid_down))
        for before, one, two, weekly in (
            (50.0, (12.5, 18.0), (None, None), (0.44, 0.58)),
            (65.0, (11.5, 16.0), (17.0, 25.0), (0.35, 0.50)),
            (78.0, (7.0, 11.5), (14.0, 23.0), (0.23, 0.33)),
            (95.0, (5.0, 9.0), (11.0, 19.0), (0.17, 0.27)),
        ):
            with self.subTest(before=before):
                her = replace(WOMAN, life_stage="pregnant_2", weight_before_kg=before)
                gain = gestational_gain(her)
                self.assertEqual((gain.low_kg, gain.high_kg), one)
                self.assertEqual((gain.weekly_low_kg, gain.weekly_high_kg), weekly)
                twins = gestational_gain(replace(her, conditions=frozenset({"twin_pregnancy"})))
                self.assertEqual((twins.low_kg, twins.high_kg), two)


class Energy(Refusing):
    def plan(self, person, school=None):
        return energy_plan(person, school, weight_used(person).kg)[0]

    def test_activity_by_the_older_equation(self):
        """Mifflin-St Jeor: 10 kg + 6.25 cm - 5 years - 161 = 1401.5 kcal, times activity."""
        for activity, factor in (
            ("inactive", 1.2),
            ("low_active", 1.375),
            ("active", 1.55),
            ("very_active", 1.725),
        ):
            person = replace(WOMAN, formula="mifflin", activity=activity)
            self.assertAlmostEqual(self.plan(person).need, 1401.5 * factor)

    def test_pregnancy_and_nursing_by_the_older_equation(self):
        for stage, more in (
            ("pregnant_1", 0.0),
            ("pregnant_2", 340.0),
            ("pregnant_3", 452.0),
            ("lactating_0_6", 400.0),
            ("lactating_7_12", 380.0),
        ):
            person = replace(WOMAN, formula="mifflin", life_stage=stage, weight_before_kg=68.0)
            self.assertAlmostEqual(self.plan(person).need, 1401.5 * 1.375 + more)

    def test_twins_ask_for_300_kcal_and_25_g_of_protein_more(self):
        one = replace(WOMAN, life_stage="pregnant_3", weight_before_kg=64.0)
        two = replace(one, conditions=frozenset({"twin_pregnancy"}))
        self.assertAlmostEqual(self.plan(two).need - self.plan(one).need, 300.0)
        more = day_targets(two)["protein_g"].low - day_targets(one)["protein_g"].low
        self.assertAlmostEqual(more, 25.0)

    def test_the_fastest_loss(self):
        """1 % of 70 kg a week; less with these; half a kilogram while nursing."""
        for code, percent in (
            ("", 1.0),
            ("frail", 0.25),
            ("ckd_3", 0.5),
            ("ckd_4", 0.5),
            ("ckd_5", 0.5),
            ("dialysis", 0.5),
            ("kidney_transplant", 0.5),
            ("gout", 0.7),
        ):
            person = replace(WOMAN, conditions=frozenset({code} - {""}))
            self.assertAlmostEqual(fastest_loss(person)[0], percent / 100.0 * 70.0)
        nursing = replace(WOMAN, life_stage="lactating_0_6")
        self.assertEqual(fastest_loss(nursing)[0], 0.5)
        self.assertAlmostEqual(fastest_loss(replace(nursing, weight_kg=49.0))[0], 0.49)
        slow = replace(MAN, weight_kg=90.0, goal="lose", pace_kg_per_week=0.9)
        self.assertEqual(self.plan(slow).pace, 0.9)
        self.assertAlmostEqual(self.plan(replace(slow, pace_kg_per_week=1.2)).pace, 0.9)

    def test_nobody_is_planned_under_the_floor(self):
        """1,200 kcal for a woman, 1,500 for a man, or what holds the weight where that is less."""
        small = replace(WOMAN, weight_kg=60.0, height_cm=155.0, activity="inactive", age_years=64.0)
        plan = self.plan(replace(small, goal="lose", pace_kg_per_week=0.6))
        self.assertEqual((plan.aim, plan.floored), (1200.0, True))
        his = replace(MAN, weight_kg=64.0, height_cm=160.0, activity="inactive", age_years=64.0)
        plan = self.plan(replace(his, goal="lose", pace_kg_per_week=0.6))
        self.assertEqual((plan.aim, plan.floored), (1500.0, True))
        measured = replace(small, formula="measured", measured_kcal=1100.0)
        plan = self.plan(replace(measured, goal="lose", pace_kg_per_week=0.3))
        self.assertEqual(plan.aim, 1100.0)

    def test_a_tenth_around_the_energy(self):
        day = day_targets(replace(WOMAN, formula="measured", measured_kcal=2000.0))
        self.assertAlmostEqual(day["energy_kcal"].low, 1800.0)
        self.assertAlmostEqual(day["energy_kcal"].high, 2200.0)

    def test_a_loss_that_is_not_begun(self):
        """Under or at BMI 18.5; without a goal where four weeks lead there; at the goal."""
        least = 18.5 * 1.7**2
        lose = replace(WOMAN, goal="lose")
        self.assertIn("at or under", held_because(replace(lose, weight_kg=least), 0.5))
        for weeks_of_pace, said in ((1.99, True), (2.01, False)):
            thin = replace(lose, weight_kg=least + weeks_of_pace)
            self.assertEqual("four weeks" in held_because(thin, 0.5), said)
        for goal, said in ((least - 0.1, "is under"), (least + 0.1, "")):
            found = held_because(replace(lose, target_weight_kg=goal), 0.5)
            self.assertEqual(said in found and bool(said), bool(found))
        for weight, said in ((65.0, True), (65.1, False)):
            at = replace(lose, weight_kg=weight, target_weight_kg=65.0)
            self.assertEqual("reached" in held_because(at, 0.5), said)
        gains = replace(WOMAN, goal="gain", target_weight_kg=72.0)
        for weight, said in ((72.0, True), (71.9, False)):
            self.assertEqual(bool(held_because(replace(gains, weight_kg=weight), 0.2)), said)

    def test_the_least_energy_that_is_planned(self):
        """A tenth under what holds the weight where there is nothing to lose, else 1 % a week."""
        plan = self.plan(replace(WOMAN, formula="measured", measured_kcal=2400.0))
        self.assertAlmostEqual(plan.least, 2400.0 - 0.7 * 7700.0 / 7.0)
        thin = replace(WOMAN, formula="measured", measured_kcal=2400.0, weight_kg=18.5 * 1.7**2)
        self.assertAlmostEqual(self.plan(thin).least, 2160.0)

    def test_the_usual_paces(self):
        for goal, pace in (("lose", 0.5), ("gain", 0.25), ("muscle", 0.2)):
            self.assertEqual(self.plan(replace(WOMAN, goal=goal)).pace, pace)


class General(Refusing):
    def test_protein_by_the_kilogram(self):
        for more, per_kg in (
            ({}, 0.8),
            ({"goal": "lose", "target_weight_kg": 65.0}, 1.2),
            ({"goal": "gain"}, 1.2),
            ({"goal": "muscle"}, 1.6),
            ({"life_stage": "pregnant_3", "weight_before_kg": 70.0}, 1.1),
            ({"life_stage": "lactating_0_6"}, 1.3),
            ({"activity": "very_active"}, 1.2),
            ({"age_years": 18.0}, 0.85),
            ({"age_years": 18.9}, 0.85),
            ({"age_years": 19.0}, 0.8),
        ):
            with self.subTest(more):
                found = day_targets(replace(WOMAN, **more))["protein_g"]
                self.assertAlmostEqual(found.low, per_kg * 70.0)
        little = {"formula": "measured", "measured_kcal": 1500.0}
        trains = day_targets(replace(WOMAN, activity="very_active", **little))["protein_g"]
        self.assertAlmostEqual(trains.high, 2.0 * 70.0)

    def test_of_2000_kcal(self):
        day = day_targets(replace(WOMAN, formula="measured", measured_kcal=2000.0))
        for key, low, high in (
            ("fiber_g", 28.0, None),
            ("fat_g", 2000 * 0.20 / 9, 2000 * 0.35 / 9),
            ("carbohydrate_g", 2000 * 0.45 / 4, 2000 * 0.65 / 4),
            ("saturated_fat_g", None, 2000 * 0.10 / 9),
            ("added_sugars_g", None, 2000 * 0.10 / 4),
            ("sodium_mg", None, 2300.0),
        ):
            with self.subTest(key):
                found = day[key]
                for value, wanted in ((found.low, low), (found.high, high)):
                    if wanted is not None:
                        self.assertAlmostEqual(value, wanted)
        self.assertEqual(day["sodium_mg"].aim, 1500.0)
        self.assertAlmostEqual(day["protein_g"].high, 2000 * 0.35 / 4)

    def test_intakes_by_age(self):
        for age, first in (
            (18.9, 14),
            (19.0, 19),
            (30.9, 19),
            (31.0, 31),
            (50.9, 31),
            (51.0, 51),
            (70.9, 51),
            (71.0, 71),
        ):
            self.assertEqual(age_group(age), first)
        for age, words in ((18.0, "14 to 18"), (25.0, "19 to 30"), (40.0, "31 to 50")):
            self.assertIn(words, group_words("female", age, "adult"))
        for age, words in ((60.0, "51 to 70"), (80.0, "over 70")):
            self.assertIn(words, group_words("female", age, "adult"))

    def test_iron_and_zinc_of_plants(self):
        """8 mg of iron for a man, 1.8 times as much of plants; 11 mg of zinc, 1.5 times."""
        day = day_targets(MAN)
        self.assertAlmostEqual(day["iron_mg"].low, 14.4)
        self.assertAlmostEqual(day["zinc_mg"].low, 16.5)
        plain = day_targets(replace(MAN, vegan_iron=False, vegan_zinc=False))
        self.assertEqual((plain["iron_mg"].low, plain["zinc_mg"].low), (8.0, 11.0))

    def test_magnesium_and_phosphorus_of_mothers(self):
        for age, stage, mg in (
            (30.0, "pregnant_2", 350.0),
            (31.0, "pregnant_2", 360.0),
            (30.0, "lactating_0_6", 310.0),
            (31.0, "lactating_0_6", 320.0),
        ):
            self.assertEqual(reference_intakes("female", age, stage)["magnesium_mg"].value, mg)
        upper = reference_intakes("female", 30.0, "pregnant_2")["phosphorus_mg"].upper
        self.assertEqual(upper, 3500.0)

    def test_old_age_alone_counts_from_its_year_on(self):
        self.assertFalse(in_play((), 65.0))
        self.assertTrue(in_play((), 65.1))


class Shifts(unittest.TestCase):
    def shift(self, key, per):
        return Shift(key=key, per=per, low=10.0, aim=None, high=None, reason="r", source="s")

    def test_shares_of_the_energy_by_what_a_gram_brings(self):
        for key, per_gram in (
            ("protein_g", 4.0),
            ("carbohydrate_g", 4.0),
            ("sugars_g", 4.0),
            ("added_sugars_g", 4.0),
            ("fat_g", 9.0),
            ("saturated_fat_g", 9.0),
            ("monounsaturated_fat_g", 9.0),
            ("polyunsaturated_fat_g", 9.0),
            ("linoleic_g", 9.0),
            ("ala_g", 9.0),
        ):
            told = self.shift(key, "percent of energy").statement(CONDITION, "v", 70.0, 2000.0)
            self.assertAlmostEqual(told.low, 200.0 / per_gram)

    def test_per_kilogram_and_per_1000_kcal(self):
        told = self.shift("protein_g", "kg").statement(CONDITION, "v", 70.0, 2000.0)
        self.assertEqual(told.low, 700.0)
        told = self.shift("fiber_g", "1000 kcal").statement(CONDITION, "v", 70.0, 2000.0)
        self.assertEqual(told.low, 20.0)

    def test_it_needs_all_that_it_names(self):
        both = replace(self.shift("fiber_g", "day"), needs=("ckd_4", "insulin"))
        self.assertFalse(both.holds(frozenset({"ckd_4"})))
        self.assertTrue(both.holds(frozenset({"ckd_4", "insulin", "gout"})))


class Standing(unittest.TestCase):
    def amount(self, value, known=1.0, could_add=0.0):
        return Amount(amount=value, low=value, high=value, known=known, could_add=could_add)

    def test_near_an_edge_within_a_twentieth_of_the_aim(self):
        band = target(low=80.0, aim=100.0, high=120.0)
        for value, near in ((80.0, True), (84.9, True), (85.1, False), (114.9, False)):
            self.assertEqual(near_edge(band, value), near)
        self.assertEqual(standing(band, self.amount(84.0)).state, "near")
        self.assertEqual(standing(band, self.amount(86.0)).state, "inside")
        for value, state, by in ((79.0, "under", 1.0), (121.0, "over", 1.0)):
            found = standing(band, self.amount(value))
            self.assertEqual((found.state, found.by), (state, by))

    def test_under_four_fifths_known_is_not_judged(self):
        band = target(low=80.0, aim=100.0, high=120.0)
        some = standing(band, self.amount(90.0, known=0.79, could_add=20.0))
        self.assertEqual((some.state, some.too_little), ("none", True))
        enough = standing(band, self.amount(90.0, known=0.8, could_add=20.0))
        self.assertEqual(enough.state, "inside")
        self.assertEqual(standing(band, self.amount(0.0, known=0.0)).state, "none")
        over = standing(band, self.amount(119.0, known=0.9, could_add=3.0))
        self.assertEqual((over.state, over.could_be_over), ("near", 2.0))


class Aims(unittest.TestCase):
    def test_weights(self):
        """Energy and protein three times, what is watched twice, what is only bounded once."""
        day = day_targets(replace(WOMAN, conditions=frozenset({"ckd_3b"})))
        watched = {"energy_kcal", "protein_g", "potassium_mg"}
        found = {one.key: one.weight for one in aims_for(day, watched)}
        self.assertEqual((found["energy_kcal"], found["protein_g"]), (3.0, 3.0))
        self.assertEqual((found["potassium_mg"], found["sodium_mg"]), (2.0, 1.0))

    def test_no_more_than_25_are_held_besides_upper_levels(self):
        day = day_targets(WOMAN)
        found = [one for one in aims_for(day, set(day.targets)) if one.weight > 0]
        self.assertEqual(len(found), 25)

    def test_what_is_known_of_less_than_four_fifths_is_not_held(self):
        rows = [
            Aim(key="iron_mg", low=10.0, aim=12.0, high=None, weight=2.0),
            Aim(key="sodium_mg", low=None, aim=1500.0, high=2300.0, weight=1.0, firm_high=True),
            Aim(key="zinc_mg", low=None, aim=40.0, high=40.0, weight=0.0, firm_high=True),
        ]
        keys = [one.key for one in judged(rows, lambda key: 0.79)]
        self.assertEqual(keys, ["sodium_mg", "zinc_mg"])
        self.assertEqual(len(judged(rows, lambda key: 0.8)), 3)

    def test_an_upper_level_that_a_tablet_passes_by_itself_is_no_limit(self):
        level = Aim(key="zinc_mg", low=None, aim=40.0, high=40.0, weight=0.0, firm_high=True)
        self.assertEqual(within_upper_levels([level], {"zinc_mg": 39.9}), (level,))
        self.assertEqual(within_upper_levels([level], {"zinc_mg": 40.0}), ())
        wanted = replace(level, weight=2.0, low=8.0, aim=11.0)
        (soft,) = within_upper_levels([wanted], {"zinc_mg": 41.0})
        self.assertEqual((soft.high, soft.firm_high), (None, False))
        self.assertEqual(upper_levels(day_targets(WOMAN))["zinc_mg"], 40.0)

    def test_a_share_of_the_day(self):
        day = day_targets(WOMAN)
        whole, half = (aims_for(day, {"energy_kcal"}, share) for share in (1.0, 0.5))
        self.assertAlmostEqual(half[0].aim, whole[0].aim / 2)
        more = aims_for(day, {"energy_kcal"}, 1.5)
        self.assertEqual(more[0].aim, whole[0].aim)

    def test_seven_are_watched(self):
        have = frozenset({"ckd_3b", "type_2_diabetes", "hypertension", "osteoporosis"})
        self.assertEqual(len(watched_keys(replace(WOMAN, conditions=have), None)), 7)


class Fit(Refusing):
    def macros(self, protein, carbohydrate, fat, kcal=2000.0, rank=GENERAL):
        by = Voice("v", rank)
        rows = {"protein_g": protein, "carbohydrate_g": carbohydrate, "fat_g": fat}
        found = {
            key: target(key, low=low, aim=low, low_by=by, high_by=by) for key, low in rows.items()
        }
        return {**found, "energy_kcal": target("energy_kcal", low=kcal, aim=kcal, high=kcal)}

    def test_leasts_that_bring_a_fiftieth_more_than_the_energy_give_way(self):
        """100 g, 250 g and 71 g come to 2,039 kcal, 72 g of fat to 2,048."""
        self.assertEqual(fitted(self.macros(100.0, 250.0, 71.0)), {})
        found = fitted(self.macros(100.0, 250.0, 72.0))
        brought = 400.0 + found["carbohydrate_g"].low * 4 + found["fat_g"].low * 9
        self.assertAlmostEqual(brought, 2000.0)

    def test_what_is_ordered_does_not_give_way(self):
        with self.assertRaises(OutOfRange) as caught:
            fitted(self.macros(100.0, 250.0, 72.0, rank=CONDITION + 2), check_together=True)
        self.assertEqual(caught.exception.field, "orders")
        fitted(self.macros(100.0, 250.0, 71.0, rank=CONDITION + 2), check_together=True)

    def test_mosts_that_leave_a_fiftieth_less_than_the_energy(self):
        """100 g, 200 g and 84 g come to 1,956 kcal, 85 g of fat to 1,965; 2 % more are 2,004."""
        for fat, fits in ((84.0, False), (85.0, True)):
            rows = self.macros(0.0, 0.0, 0.0, rank=CONDITION + 2)
            for key, most in (("protein_g", 100.0), ("carbohydrate_g", 200.0), ("fat_g", fat)):
                rows[key] = replace(rows[key], low=None, aim=most, high=most)
            if fits:
                fitted(rows, check_together=True)
            else:
                self.refused(OutOfRange, fitted, rows, True)

    def test_only_mosts_that_somebody_wished_for_are_refused(self):
        for rank, refused in ((CONDITION, False), (CONDITION + 1, True)):
            rows = self.macros(0.0, 0.0, 0.0, rank=rank)
            for key in ("protein_g", "carbohydrate_g", "fat_g"):
                rows[key] = replace(rows[key], low=None, aim=50.0, high=50.0)
            if refused:
                self.refused(OutOfRange, fitted, rows, True)
            else:
                self.assertEqual(fitted(rows, check_together=True), {})


class Meals(Refusing):
    def test_shares_of_the_day(self):
        for pattern, shares in (
            ("2", [0.5, 0.5]),
            ("3", [0.30, 0.35, 0.35]),
            ("3_snacks", [0.25, 0.30, 0.30, 0.15]),
        ):
            day = day_targets(replace(WOMAN, meals=pattern))
            self.assertEqual([meal.share for meal in day.meals], shares)
        for hour, meal in ((0, "breakfast"), (10, "breakfast"), (11, "lunch"), (16, "lunch")):
            self.assertEqual(meal_at(hour), meal)
        self.assertEqual((meal_at(17), meal_at(23)), ("dinner", "dinner"))

    def test_shares_by_hand_come_to_the_whole(self):
        for lunch in (0.504, 0.496):
            check_shares("2", {"lunch": lunch, "dinner": 0.5})
        for lunch in (0.506, 0.494):
            self.refused(OutOfRange, check_shares, "2", {"lunch": lunch, "dinner": 0.5})
        self.refused(OutOfRange, check_shares, "2", {"lunch": 1.1, "dinner": -0.1})
        check_shares("2", {"lunch": 1.0, "dinner": 0.0})

    def test_how_much_of_the_day_has_something_in_it(self):
        meals = day_targets(replace(WOMAN, meals="3")).meals
        some = filled_share(meals, {"lunch"})
        self.assertEqual((some.share, some.empty), (0.35, ["Breakfast", "Dinner"]))
        self.assertEqual(filled_share(meals, {"snack"}).share, 1.0)
        self.assertEqual(filled_share(meals, {"snack"}).empty, [])
        self.assertEqual(filled_share(meals, {"breakfast", "lunch", "dinner"}).empty, [])


class Schools(Refusing):
    def test_what_a_school_may_ask(self):
        good = school_data()["balanced_plate"]
        read_school("own", good)
        for lose in (1.5, 1.6):
            row = {**good, "pace": {**good.get("pace", {}), "lose": lose}}
            if lose > 1.5:
                self.refused(BadRow, read_school, "own", row)
            else:
                read_school("own", row)

    def test_a_slower_pace_near_the_goal(self):
        for school in schools().values():
            if school.pace.near_kg:
                at = school.pace.of("lose", school.pace.near_kg)
                beyond = school.pace.of("lose", school.pace.near_kg + 0.1)
                self.assertLess(at, beyond)


class Blood(Refusing):
    def numbers(self, person=WOMAN, ago=1, **values):
        on = TODAY - timedelta(days=ago)
        units = {
            "hemoglobin": "g/dL",
            "b12": "pg/mL",
            "inr": "INR",
            "calcium": "mg/dL",
            "magnesium": "mg/dL",
            "alt": "U/L",
            "ast": "U/L",
            "systolic": "mmHg",
            "diastolic": "mmHg",
            "creatinine": "mg/dL",
            "potassium": "mmol/L",
        }
        rows = {
            key: Measured(key=key, value=value, unit=units[key], on=on)
            for key, value in values.items()
        }
        return blood_numbers(rows, person, TODAY)

    def test_anemia(self):
        """World Health Organization (2011): under 12 g/dL in women, 13 in men, 11 in pregnancy."""
        her = replace(WOMAN, life_stage="pregnant_2", weight_before_kg=66.0)
        for person, edge in ((WOMAN, 12.0), (MAN, 13.0), (her, 11.0)):
            for value, said in ((edge - 0.1, 1.0), (edge, 0.0)):
                self.assertEqual(self.numbers(person, hemoglobin=value)["blood_anemia"], said)

    def test_b12_that_does_not_settle_it(self):
        for value, said in ((199.0, 0.0), (200.0, 1.0), (299.0, 1.0), (300.0, 0.0)):
            self.assertEqual(self.numbers(b12=value)["blood_b12_uncertain"], said)

    def test_inr(self):
        for value, off in ((1.9, 1.0), (2.0, 0.0), (3.0, 0.0), (3.1, 1.0)):
            self.assertEqual(self.numbers(inr=value)["blood_inr_off"], off)

    def test_what_laboratories_call_about(self):
        for key, least, most in (("calcium", 7.0, 13.0), ("magnesium", 1.0, 4.9)):
            for value, said in (
                (least - 0.1, 1.0),
                (least, 0.0),
                (most, 0.0),
                (most + 0.1, 1.0),
            ):
                self.assertEqual(self.numbers(**{key: value})[f"blood_{key}_danger"], said)

    def test_the_liver_by_times_of_40(self):
        self.assertEqual(self.numbers(alt=120.0, ast=30.0)["blood_liver_times"], 3.0)

    def test_pressure(self):
        for upper, lower, crisis, high in (
            (179.0, 119.0, 0.0, 1.0),
            (180.0, 80.0, 1.0, 1.0),
            (130.0, 120.0, 1.0, 1.0),
            (139.0, 89.0, 0.0, 0.0),
            (140.0, 80.0, 0.0, 1.0),
            (120.0, 90.0, 0.0, 1.0),
        ):
            found = self.numbers(systolic=upper, diastolic=lower)
            told = found["blood_pressure_crisis"], found["blood_pressure_high"]
            self.assertEqual(told, (crisis, high), (upper, lower))

    def test_the_stage_by_the_rate(self):
        for rate, stage in (
            (90.0, "1"),
            (89.9, "2"),
            (60.0, "2"),
            (59.9, "3a"),
            (45.0, "3a"),
            (44.9, "3b"),
            (30.0, "3b"),
            (29.9, "4"),
            (15.0, "4"),
            (14.9, "5"),
        ):
            self.assertEqual(stage_of(rate), stage)

    def test_creatinine_tells_of_adults_alone(self):
        rows = {"creatinine": Measured(key="creatinine", value=1.0, unit="mg/dL", on=TODAY)}
        self.assertIsNone(filtration(rows, replace(WOMAN, age_years=17.9), TODAY))
        self.assertIsNotNone(filtration(rows, replace(WOMAN, age_years=18.0), TODAY))

    def test_a_value_is_fresh_as_long_as_it_holds(self):
        """Potassium holds 90 days."""
        self.assertEqual(self.numbers(ago=90, potassium=5.0)["blood_potassium"], 5.0)
        self.assertNotIn("blood_potassium", self.numbers(ago=91, potassium=5.0))
        self.assertEqual(self.numbers(ago=91, potassium=5.0)["blood_potassium_old"], 1.0)
        self.assertEqual(
            self.numbers(ago=-1, potassium=5.0).get("blood_potassium"), None, "not of tomorrow"
        )

    def test_over_and_under_the_range(self):
        for value, over, under in ((3.4, 0.0, 1.0), (3.5, 0.0, 0.0), (5.0, 0.0, 0.0)):
            found = self.numbers(potassium=value)
            told = found["blood_potassium_over"], found["blood_potassium_under"]
            self.assertEqual(told, (over, under))
        self.assertEqual(self.numbers(potassium=5.1)["blood_potassium_over"], 1.0)

    def test_units_of_enzymes_and_what_nobody_has(self):
        self.assertAlmostEqual(convert("alt", 1.0, "µkat/L", "U/L"), 60.0)
        check_value("potassium", 1.5, "mmol/L")
        check_value("potassium", 10.0, "mmol/L")
        for value in (1.4, 10.1):
            self.refused(ValueError, check_value, "potassium", value, "mmol/L")
        self.assertEqual(likely_units("creatinine", 88.0), ["µmol/L"])
        self.assertEqual(likely_units("creatinine", 1.0), ["mg/dL"])


class Ahead(unittest.TestCase):
    def test_nothing_is_forecast_where_a_change_may_not_begin(self):
        for weight, there in ((60.0, False), (60.1, True)):
            found = forecast(weight, -300.0, least_kg=60.0)
            self.assertEqual(found is not None, there)
        for weight, there in ((90.0, False), (89.9, True)):
            found = forecast(weight, 300.0, greatest_kg=90.0)
            self.assertEqual(found is not None, there)

    def test_a_goal_on_the_way_ends_it(self):
        found = forecast(80.0, -500.0, target_kg=75.0, least_kg=60.0)
        self.assertEqual((found.stops_kg, found.points[-1][1]), (75.0, 75.0))
        beside = forecast(80.0, -500.0, target_kg=85.0, least_kg=60.0)
        self.assertEqual(beside.stops_kg, 60.0)
        self.assertIn("lighter body", found.words)
        self.assertIn("heavier body", forecast(60.0, 300.0, greatest_kg=90.0).words)
        self.assertIn("least weight", beside.words)
        self.assertIn("greatest weight", forecast(60.0, 300.0, greatest_kg=61.0).words)

    def test_by_the_static_rule(self):
        """7,700 kcal are a kilogram: 550 kcal a day are half a kilogram a week."""
        found = forecast(90.0, -550.0)
        self.assertEqual([row[0] for row in found.points], [4, 12, 26, 52, 104])
        self.assertAlmostEqual(found.points[0][2], 88.0)

    def test_the_end_is_never_quite_reached(self):
        """240 kcal a day are 10 kg in the end, half of it after a year."""
        self.assertAlmostEqual(days_to_change(-240.0, -5.0), 365.0)
        self.assertIsNone(days_to_change(-240.0, -10.0))
        self.assertIsNone(days_to_change(-240.0, 1.0))
        self.assertIsNotNone(days_to_change(-240.0, -9.9))


class Words(unittest.TestCase):
    def test_digits_and_joints(self):
        self.assertEqual(band_words("iron_mg", 9.9, 10.0), "9.9–10 mg")
        self.assertEqual(band_words("pral_meq", -12.0, 4.0), "-12 to 4 mEq")


class Equations(unittest.TestCase):
    """The sums of the 2023 equations for one body each, worked by hand from the coefficients."""

    def test_at_18_with_20_kcal_of_growth(self):
        for sex, height, weight, wanted in (
            ("male", 175.0, 70.0, (2835.98, 3033.46, 3345.75, 3733.49)),
            ("female", 165.0, 60.0, (2090.24, 2312.81, 2467.45, 2771.21)),
        ):
            found = [eer_2023_at_18(sex, 18.0, height, weight, level) for level in LEVELS]
            self.assertEqual([round(one, 2) for one in found], list(wanted))

    def test_in_pregnancy(self):
        """30 years, 165 cm, 70 kg, 200 kcal laid down; weeks 20 and 34 stand for the trimesters."""
        for week, wanted in (
            (20.0, (2359.8, 2674.8, 2851.61, 3197.63)),
            (34.0, (2488.04, 2803.04, 2979.85, 3325.87)),
        ):
            found = [eer_2023_pregnant(30.0, 165.0, 70.0, level, week) for level in LEVELS]
            self.assertEqual([round(one, 2) for one in found], list(wanted))
        her = replace(WOMAN, age_years=30.0, height_cm=165.0, weight_before_kg=62.0)
        for stage, wanted in (("pregnant_2", 2674.8), ("pregnant_3", 2803.04)):
            plan = energy_plan(replace(her, life_stage=stage), None, 62.0)[0]
            self.assertAlmostEqual(plan.need, wanted, places=2)

    def test_from_19_years_on_it_is_the_adults(self):
        for age, adult in ((18.9, False), (19.0, True)):
            words = energy_plan(replace(WOMAN, age_years=age), None, 70.0)[1].reason
            self.assertEqual("with growth" not in words, adult)


class Misses(unittest.TestCase):
    def test_an_aim_is_missed_by_more_than_a_crumb(self):
        aim = Aim(key="protein_g", low=20.0, aim=25.0, high=30.0, weight=1.0)
        for total, miss in ((19.0, -1.0), (20.0, 0.0), (30.0, 0.0), (31.5, 1.5)):
            self.assertEqual((aim.miss(total), aim.missed(total)), (miss, abs(miss)))
        self.assertEqual((aim.miss(25.0, 32.0), aim.missed(25.0, 32.0)), (2.0, 2.0))
        self.assertEqual(aim.missed(19.0, 32.0), 3.0)

    def test_what_is_only_aimed_at_is_no_limit_by_an_upper_level(self):
        soft = Aim(key="sodium_mg", low=None, aim=1500.0, high=2000.0, weight=2.0)
        (kept, *_rest) = with_upper_levels([soft], {"sodium_mg": 2300.0})
        self.assertEqual((kept.high, kept.firm_high), (2000.0, False))
        (over, *_rest) = with_upper_levels([replace(soft, high=2600.0)], {"sodium_mg": 2300.0})
        self.assertEqual((over.high, over.firm_high), (2300.0, True))

    def test_an_order_over_an_upper_level_is_the_prescribers(self):
        asked = Aim(key="zinc_mg", low=45.0, aim=50.0, high=60.0, weight=2.0, ordered=True)
        (kept, *_rest) = with_upper_levels([asked], {"zinc_mg": 40.0})
        self.assertEqual(kept.high, 60.0)
        less = replace(asked, low=20.0, aim=30.0)
        (held, *_rest) = with_upper_levels([less], {"zinc_mg": 40.0})
        self.assertEqual((held.high, held.firm_high), (40.0, True))


class Units(unittest.TestCase):
    def test_the_unit_in_which_a_value_is_nearest_to_usual_is_asked_first(self):
        for key, value, first in (
            ("phosphate", 1.2, "mmol/L"),
            ("phosphate", 3.5, "mg/dL"),
            ("phosphate", 4.6, "mg/dL"),
            ("calcium", 2.4, "mmol/L"),
            ("glucose", 5.2, "mmol/L"),
            ("hemoglobin", 13.0, "g/dL"),
        ):
            if key in analytes():
                with self.subTest(key, value=value):
                    self.assertEqual(likely_units(key, value)[0], first)


class Rules(Refusing):
    def test_a_hard_limit_is_narrower_or_not_taken_over(self):
        planned = day_targets(replace(WOMAN, conditions=frozenset({"ckd_3b"})))
        by = Voice("an order", 4)

        def with_most(most):
            row = target("potassium_mg", aim=most, high=most, high_by=by, low_by=by)
            return replace(planned, targets={**planned.targets, "potassium_mg": row})

        before = with_most(2500.0)
        self.assertEqual(tightened(before, with_most(2000.0))["potassium_mg"].high, 2000.0)
        self.assertEqual(tightened(before, with_most(3000.0))["potassium_mg"].high, 2500.0)

        def with_least(least):
            row = target("protein_g", low=least, aim=least, high_by=by, low_by=by)
            return replace(planned, targets={**planned.targets, "protein_g": row})

        before = with_least(60.0)
        self.assertEqual(tightened(before, with_least(70.0))["protein_g"].low, 70.0)
        self.assertEqual(tightened(before, with_least(50.0))["protein_g"].low, 60.0)

    def test_a_bound_that_was_not_set_by_hand_stays_where_it_fits(self):
        """At 2,000 kcal fiber is 28 g at least: an order of up to 40 g keeps that, of 20 g not."""
        energy = {"formula": "measured", "measured_kcal": 2000.0}
        for most, low in ((40.0, 28.0), (20.0, None)):
            orders = [order("fiber_g", high=most)]
            found = day_targets(replace(WOMAN, **energy), None, orders)["fiber_g"]
            self.assertEqual((found.low, found.high), (low, most))
        orders = [order("sodium_mg", low=1000.0)]
        self.assertEqual(day_targets(WOMAN, None, orders)["sodium_mg"].high, 2300.0)

    def test_a_pace_outside_the_usual_is_said_of_a_school(self):
        """0.25 to 0.9 kg a week are usual."""
        school = schools()["balanced_plate"]
        for pace, said in ((0.24, True), (0.25, False), (0.9, False), (0.95, True)):
            one = replace(school, pace=replace(school.pace, lose=pace, near_kg=None))
            heavy = replace(WOMAN, weight_kg=120.0, height_cm=185.0, goal="lose")
            about = [row.about for row in day_targets(heavy, one).disagreements]
            self.assertEqual("Pace of losing weight" in about, said, pace)

    def test_a_forecast_of_a_gain_ends_at_a_body_mass_index_of_40(self):
        found = day_targets(replace(WOMAN, goal="gain", pace_kg_per_week=0.5))
        self.assertAlmostEqual(found.forecast.stops_kg, 40.0 * 1.7**2)

    def test_a_change_of_a_kilocalorie_is_forecast(self):
        for kcal, there in ((0.9, False), (1.1, True)):
            pace = kcal * 7.0 / 7700.0
            found = day_targets(replace(WOMAN, goal="gain", pace_kg_per_week=pace))
            self.assertEqual(found.forecast is not None, there)

    def test_nobody_is_so_small(self):
        """40 cm and a kilogram are the least that anybody is taken for; less is a slip."""
        for size, error in (
            ({"height_cm": 41.0, "weight_kg": 5.0}, Referred),
            ({"height_cm": 130.0, "weight_kg": 1.1}, Referred),
        ):
            self.assertIsInstance(self.refused(OutOfRange, check, replace(WOMAN, **size)), error)


class Voices(Refusing):
    def test_whose_bound_counts_beyond_its_side(self):
        """Sodium is held by its most; a least of it counts where a condition sets it."""
        for rank, low in ((CONDITION, 500.0), (CONDITION - 1, None)):
            row = target("sodium_mg", low=500.0, aim=1500.0, high=2300.0, low_by=Voice("v", rank))
            self.assertEqual(aims._counted(row).low, low)

    def test_a_least_of_the_week_is_asked_of_a_day_where_a_condition_sets_it(self):
        key = next(
            key for key, scope in scopes().items() if scope.of == WEEK and scope.side != MOST
        )
        for rank, low in ((CONDITION, 10.0), (CONDITION - 1, None)):
            row = target(key, low=10.0, aim=12.0, low_by=Voice("v", rank))
            self.assertEqual(aims._of_day(row, 1.0, ()).low, low)

    def test_a_most_of_protein_is_asked_of_a_meal_where_a_condition_sets_it(self):
        meal = day_targets(WOMAN).meals[1]
        for rank, high in ((CONDITION, 35.0), (CONDITION - 1, None)):
            row = target(low=50.0, aim=60.0, high=100.0, high_by=Voice("v", rank))
            found, _rest = aims._of_meal(row, 0.35, meal, {"protein_g"}, "unplanned")
            self.assertEqual(found.high, high)

    def test_a_wish_within_what_a_condition_leaves(self):
        kidneys = replace(WOMAN, conditions=frozenset({"ckd_3b"}))
        limit = day_targets(kidneys)["sodium_mg"].high
        for low, most, kept in ((1000.0, 1500.0, 1500.0), (limit + 200, limit + 400, limit)):
            wish = replace(order("sodium_mg", low=low, high=most), kind="choice", by="", license="")
            self.assertEqual(day_targets(kidneys, None, [wish])["sodium_mg"].high, kept)

    def test_who_is_too_young_and_who_too_old_are_sent_to_others(self):
        for age, whom in ((17.0, "pediatric"), (111.0, "clinical")):
            found = self.refused(Referred, check, replace(WOMAN, age_years=age))
            self.assertIn(whom, found.refer_to)

    def test_near_an_edge_on_the_edge_of_near(self):
        self.assertTrue(near_edge(target(low=80.0, aim=100.0, high=120.0), 85.0))
