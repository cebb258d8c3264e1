"""Less of one line in a dish, and one step further than the portions."""

import unittest
from dataclasses import replace

from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Profile
from nutrition.portions.added_to_a_meal import (
    added_to,
    helping_of,
    is_sweet,
    that_fit,
    that_suit,
)
from nutrition.portions.allowed import allowed
from nutrition.portions.further import furthered
from nutrition.portions.less_in_a_dish import brings_most, cut_of
from nutrition.portions.problem import BadProblem, Problem
from nutrition.portions.proposals import balanced
from nutrition.portions.serving_limits import limits_around
from nutrition.portions.serving_rules import servable
from nutrition.safety.cautions import Situation
from nutrition.safety.gate import Gate
from nutrition.targets.aim import Aim
from nutrition.tests.portions.test_taken_down import least, most, part, problem

FOODS = food_table()


def dish(name="Lemon dressing", role="sauce", **grams):
    foods = [Ingredient(FOODS[slug.replace("_", "-")], one) for slug, one in grams.items()]
    profile = Profile.total(one.food.profile(one.grams) for one in foods)
    return Portion(
        key="dish",
        name=name,
        role=role,
        grams=profile.grams,
        profile=profile,
        volume_ml=profile.grams,
        foods=tuple(foods),
        limits=limits_around(servable(None, role), profile.grams),
    )


def bowl(sauce, *aims, **rows):
    rows = rows or {"brown_rice_cooked": 200, "white_beans_cooked": 120}
    parts = [part(slug.replace("_", "-"), grams) for slug, grams in rows.items()]
    return Problem(parts=(*parts, sauce), aims=aims, cooks=True)


SALTY = {"tahini": 20.0, "lemon_juice": 20.0, "water": 15.0, "salt": 3.0}


class LessOfALine(unittest.TestCase):
    def test_the_salt_of_the_dressing_is_named_with_its_line(self):
        asked = bowl(dish(**SALTY), most("sodium_mg", 700.0, firm=True))
        lessened, cut = cut_of(asked)
        self.assertEqual((cut.food.slug, cut.part, cut.key), ("salt", "dish", "sodium_mg"))
        # 1,163 mg in the salt, of which so little goes that the rest is within 700
        self.assertEqual(cut.left, 0.5)
        self.assertAlmostEqual(cut.gone_g, 1.5)
        self.assertIn("less salt in Lemon dressing, which brings 9", cut.words)
        now = lessened.parts[-1]
        self.assertEqual(now.grams, asked.parts[-1].grams)
        self.assertAlmostEqual(
            asked.parts[-1].profile["sodium_mg"].amount - now.profile["sodium_mg"].amount,
            1.5 * 387.58,
            delta=1.0,
        )
        told = balanced(asked).told
        self.assertEqual((told[0].name, told[0].cut), ("One change", cut))
        self.assertEqual(told[0].changes, ())
        self.assertGreater(told[0].closes, 0.9)

    def test_of_three_quarters_half_a_quarter_and_none_the_gentlest_that_does(self):
        rest = bowl(dish(**SALTY), most("sodium_mg", 1.0))
        own = {one.key: one.grams for one in rest.parts}
        sodium = sum(one.amount("sodium_mg") * own[one.key] for one in rest.parts)
        salt = FOODS["salt"].per_100_g("sodium_mg") * 3.0 / 100.0
        for gone, left in ((0.24, 0.75), (0.26, 0.5), (0.51, 0.25), (0.76, 0.0), (0.99, 0.0)):
            asked = bowl(dish(**SALTY), most("sodium_mg", sodium - gone * salt))
            self.assertEqual(cut_of(asked)[1].left, left, gone)
        self.assertEqual(cut_of(bowl(dish(**SALTY), most("sodium_mg", 1.0)))[1].less, "no salt")

    def test_only_where_a_line_that_goes_first_brings_half_of_it_and_the_dish_a_third(self):
        soup = dish("Lentil soup", "dish", red_lentils_cooked=150.0, water=150.0)
        self.assertIsNone(cut_of(bowl(soup, most("potassium_mg", 300.0))))
        # energy is a matter of all of it
        oily = dish(olive_oil=30.0, lemon_juice=10.0)
        self.assertIsNone(cut_of(bowl(oily, most("energy_kcal", 300.0))))
        # beside salty food the dish brings under three parts in ten
        for soy, found in ((45.0, True), (60.0, False)):
            asked = bowl(dish(**SALTY), most("sodium_mg", 300.0), soy_sauce=soy)
            self.assertEqual(cut_of(asked) is not None, found)
        # of two salty lines neither brings half
        two = {"tahini": 20.0, "salt": 1.0, "soy_sauce": 7.5, "miso": 9.0, "water": 10.0}
        self.assertIsNone(cut_of(bowl(dish(**two), most("sodium_mg", 300.0))))

    def test_what_the_dish_may_bring_beside_the_rest(self):
        asked = bowl(dish(**SALTY), most("sodium_mg", 600.0))
        (one,) = brings_most(asked)
        rest = sum(p.amount("sodium_mg") * p.grams for p in asked.parts[:-1])
        self.assertAlmostEqual(one.may_be, 600.0 - rest, delta=0.01)
        self.assertGreater(one.share, 0.95)
        self.assertEqual(brings_most(bowl(dish(**SALTY), most("sodium_mg", 2000.0))), [])


class AStepFurther(unittest.TestCase):
    def test_what_a_hint_would_close_better_is_proposed(self):
        asked = problem({"cucumber-with-peel-raw": 150, "kale-raw": 40}, least("protein_g", 20.0))
        before = balanced(asked)
        found = furthered(before, added_to(asked))
        self.assertGreater(len(found.told), len(before.told))
        last = found.told[-1]
        added = [one for one in last.changes if one.before == 0]
        self.assertTrue(1 <= len(added) <= 2)
        self.assertIn(f"With {added[0].after:.0f} g", last.sentence)
        self.assertGreater(last.closes, (before.told[-1].closes if before.told else 0.0) + 0.08)
        self.assertEqual(set(last.answer.portions), {part.key for part in found.problem.parts})

    def test_what_may_not_be_gives_its_place_to_the_next(self):
        asked = problem({"cucumber-with-peel-raw": 150, "kale-raw": 40}, least("protein_g", 20.0))
        pantry, before = added_to(asked), balanced(asked)
        best = furthered(before, pantry).told[-1]
        (first, *_) = [one.id for one in best.changes if one.before == 0]
        found = furthered(before, pantry, lambda wider, grams: not grams.get(first))
        added = {one.id for one in found.told[-1].changes if one.before == 0}
        self.assertTrue(added)
        self.assertNotIn(first, added)
        self.assertEqual(furthered(before, pantry, lambda wider, grams: False), before)

    def test_a_day_goes_on_under_what_would_stop_it(self):
        # with a weak heart from 4,700 mg of potassium on the page stops
        weak = Gate(situation=Situation(conditions=frozenset({"heart_failure"})))
        rows = {"white-beans-cooked": 300, "potato-boiled": 300, "brown-rice-cooked": 250}
        rows |= {"rolled-oats-cooked": 250, "zucchini-cooked": 150, "banana-raw": 118}
        rows |= {"tofu-firm": 80}
        asked = problem(rows, least("energy_kcal", 2200.0), least("protein_g", 90.0))
        last = allowed(replace(asked, gate=weak)).told[-1]
        parts = allowed(replace(asked, gate=weak)).problem.parts
        potassium = sum(p.amount("potassium_mg") * last.answer.portions[p.key] for p in parts)
        self.assertLess(potassium, 4700.0)
        self.assertTrue([one for one in last.changes if one.before == 0])

    def test_nothing_is_added_where_nothing_is_missed(self):
        asked = problem({"white-beans-cooked": 200}, least("protein_g", 10.0))
        self.assertEqual(furthered(balanced(asked), added_to(asked)).told, ())

    def test_no_two_of_a_kind_and_no_more_than_two(self):
        asked = problem({"kale-raw": 60}, least("energy_kcal", 900.0), meal="dinner")
        found = furthered(balanced(asked), added_to(asked))
        added = [FOODS[one.id] for one in found.told[-1].changes if one.before == 0]
        self.assertEqual(len(added), 2)
        self.assertEqual(len({food.group for food in added}), 2)

    def test_a_part_is_widened_by_half_and_never_over_its_ceiling(self):
        beans = part("white-beans-cooked", 100)
        for ceiling, reached in ((1000.0, 300.0), (250.0, 250.0)):
            wide = beans.within(ceiling=ceiling)
            asked = Problem(parts=(wide,), aims=(least("protein_g", 40.0),), cooks=True)
            last = furthered(balanced(asked), ()).told[-1]
            self.assertAlmostEqual(last.answer.portions[wide.key], reached, delta=10.0)

    def test_of_a_meal_two_and_of_a_day_of_seven_parts_four(self):
        greens = ("kale-raw", "cucumber-with-peel-raw", "zucchini-cooked", "celery-raw")
        greens += ("fennel-bulb-raw", "carrots-raw", "asparagus-cooked")
        for parts, meal, added in ((7, "", 4), (6, "", 2), (7, "dinner", 2)):
            rows = dict.fromkeys(greens[:parts], 30)
            aims = (least("energy_kcal", 900.0), least("protein_g", 60.0))
            asked = problem(rows, *aims, meal=meal)
            last = furthered(balanced(asked), added_to(asked)).told[-1]
            new = [one for one in last.changes if one.before == 0]
            self.assertEqual(len(new), added, (parts, meal))

    def test_what_leaves_a_gap_on_the_plate_has_it_filled_first(self):
        # what must go brings so much of the energy: nothing is added beside it from a tenth on,
        # and an oil that goes leaves no gap
        rows = {"cucumber-with-peel-raw": 150, "kale-raw": 60, "white-beans-cooked": 100}
        asked = problem(rows, least("energy_kcal", 600.0), least("protein_g", 30.0), meal="dinner")
        kcal = sum(one.amount("energy_kcal") * one.grams for one in asked.parts)
        for slug, share, goes_on in (
            ("white-bread", 0.09, True),
            ("white-bread", 0.11, False),
            ("coconut-oil", 0.11, True),
            ("coconut-oil", 0.4, True),
        ):
            whole = part(slug, 100)
            grams = kcal * share / (1 - share) / whole.amount("energy_kcal")
            gone = replace(whole, grams=grams).within(least=0.0, most=0.0, held=f"{slug}.")
            found = allowed(replace(asked, parts=(*asked.parts, gone)))
            added = [one for one in found.told[-1].changes if one.before == 0]
            self.assertEqual(bool(added), goes_on, (slug, share))

    def test_with_insulin_a_meal_of_which_three_quarters_must_go_is_refused(self):
        held = Gate(situation=Situation(conditions=frozenset({"insulin", "celiac"})))
        beans, whole = part("white-beans-cooked", 100), part("barley-pearled-cooked", 100)
        kcal = beans.amount("energy_kcal") * 100
        for share, refused in ((0.74, False), (0.76, True)):
            grams = kcal * share / (1 - share) / whole.amount("energy_kcal")
            gone = replace(whole, grams=grams).within(least=0.0, most=0.0, held="Gluten.")
            aims = (least("energy_kcal", 500.0),)
            asked = Problem(parts=(beans, gone), aims=aims, cooks=True, gate=held)
            if refused:
                with self.assertRaises(BadProblem):
                    allowed(asked)
            else:
                self.assertTrue(allowed(asked).told)

    def test_a_refusal_names_the_part(self):
        warfarin = Gate(situation=Situation(conditions=frozenset({"insulin", "celiac"})))
        barley = part("barley-pearled-cooked", 200)
        held = barley.within(least=0.0, most=0.0, held="Gluten in celiac disease: Barley.")
        asked = Problem(
            parts=(held,), aims=(least("energy_kcal", 500.0),), cooks=True, gate=warfarin
        )
        with self.assertRaises(BadProblem) as refused:
            allowed(asked)
        self.assertIn("barley, pearled, cooked: Gluten in celiac disease", str(refused.exception))


class Suits(unittest.TestCase):
    def slugs(self, meal, sweet, foods=("white-beans-cooked", "rolled-oats-cooked", "walnuts")):
        return [food.slug for food in that_suit([FOODS[one] for one in foods], sweet, meal)]

    def test_a_sweet_breakfast_takes_no_beans_and_a_dinner_no_oats(self):
        self.assertEqual(self.slugs("breakfast", True), ["rolled-oats-cooked", "walnuts"])
        self.assertEqual(self.slugs("dinner", False), ["white-beans-cooked", "walnuts"])
        self.assertEqual(len(self.slugs("", False)), 3)
        self.assertEqual(
            self.slugs("breakfast", False, ("soy-mince-rehydrated", "tofu-firm")), ["tofu-firm"]
        )

    def test_three_parts_in_ten_of_vegetables_make_a_breakfast_savory(self):
        for kale, sweet in ((29.0, True), (31.0, False)):
            parts = [part("rolled-oats-cooked", 100.0 - kale), part("kale-raw", kale)]
            self.assertEqual(is_sweet(parts, "breakfast"), sweet)
        self.assertFalse(is_sweet([part("rolled-oats-cooked", 100)], "dinner"))

    def test_who_eats_little_is_offered_what_is_rich(self):
        asked = problem({"polenta-cooked": 180}, least("energy_kcal", 500.0), richer=True)
        for meal, offered in (("dinner", "olive-oil"), ("breakfast", "almond-butter")):
            foods = {one.key for one in added_to(replace(asked, meal=meal))}
            self.assertIn(offered, foods)
            self.assertNotIn("tempeh", foods)
            light = {key for key in foods if FOODS[key].per_100_g("energy_kcal") < 200}
            self.assertLessEqual(light, {"soy-milk-unsweetened"})

    def test_a_helping_and_no_second_base(self):
        for slug, grams in (
            *(("walnuts", 30.0), ("tempeh", 100.0), ("olive-oil", 16.0), ("pumpkin-seeds", 16.0)),
            *(("strawberries-raw", 96.0), ("tahini", 20.0), ("soy-milk-unsweetened", 240.0)),
        ):
            helping = helping_of(FOODS[slug]).limits
            self.assertEqual((helping.least, helping.most), (0.0, grams), slug)
        asked = problem({"barley-pearled-cooked": 200}, meal="dinner")
        grams = {"barley-pearled-cooked": 200.0}
        for short, proteins in ((True, True), (False, False)):
            fit = that_fit(asked, grams, added_to(asked), short)
            self.assertNotIn("base", {one.role for one in fit})
            self.assertEqual("protein" in {one.role for one in fit}, proteins)
        whole_day = replace(asked, meal="")
        fit = that_fit(whole_day, grams, added_to(whole_day), False)
        self.assertIn("base", {one.role for one in fit})

    def test_with_kidney_disease_nothing_high_in_potassium_is_added(self):
        kidneys = Gate(situation=Situation(conditions=frozenset({"ckd_4"})))
        asked = problem({"white-rice-cooked": 200}, meal="dinner", gate=kidneys)
        keys = {one.key for one in added_to(asked)}
        self.assertIn("olive-oil", keys)
        self.assertTrue({"banana-raw", "avocado-raw", "white-beans-cooked"}.isdisjoint(keys))

    def test_where_a_school_lives_of_greens_and_beans_no_grain_is_added(self):
        greens = Gate(situation=Situation(school="greens_beans_seeds"))
        asked = problem({"kale-raw": 100}, meal="dinner", gate=greens)
        self.assertNotIn("base", {one.role for one in added_to(asked)})
        self.assertIn("walnuts", {one.key for one in added_to(asked)})

    def test_what_is_there_is_not_offered_again(self):
        asked = problem({"white-beans-cooked": 100}, least("energy_kcal", 500.0))
        keys = {one.key for one in added_to(asked)}
        self.assertNotIn("white-beans-cooked", keys)
        self.assertIn("tempeh", keys)
        self.assertEqual(helping_of(FOODS["tempeh"]).grams, 0.0)
        self.assertIsInstance(asked.aims[0], Aim)
