"""Household measures, as they are said: the same grams of the same food are the same words, which
are read back as those grams; more grams are never said as less."""

from itertools import pairwise
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from nutrition.composition.foods import food_table
from nutrition.composition.portion import food_portion
from nutrition.tests.thorough import thorough
from nutrition.written.household import by_volume, fraction, measure_of, say, spoken, step_g
from nutrition.written.typed_amounts import read_amount

FOODS = food_table()
PINCH = "a pinch"
# From a pinch to a pot. [g]
GRAMS = (0.3, 1, 2, 3, 5, 8, 12, 20, 32, 50, 80, 120, 180, 250, 350, 500, 800)


class Household(TestCase):
    def test_measures_a_person_can_use(self):
        for slug, grams, words in (
            ("quinoa-dry", 170, "1\xa0cup"),
            ("lemon-juice", 15, "1\xa0tbsp"),
            ("salt", 1.5, "¼\xa0tsp"),
            ("salt", 0.75, "⅛\xa0tsp"),
            ("carrots-raw", 61, "1\xa0medium"),
            ("walnuts", 12, "3\xa0pieces"),
            ("bay-leaf", 0.4, "2\xa0leaves"),
            ("quinoa-cooked", 139, "¾\xa0cup"),
            ("kale-raw", 32, "1½\xa0cups"),
        ):
            with self.subTest(slug):
                self.assertEqual(spoken(FOODS[slug], grams).words, words)

    def test_what_is_eaten_by_the_cup_is_not_counted(self):
        for slug, grams, words in (
            ("strawberries-raw", 152, "1\xa0cup"),
            ("cinnamon-ground", 6.5, "2½\xa0tsp"),
            ("blueberries-raw", 74, "½\xa0cup"),
            ("walnuts", 50, "½\xa0cup"),
            # 19 g of fruit is a berry, 25 g is a fruit
            ("kumquats-raw", 57, "⅓\xa0cup"),
            ("dates-medjool", 72, "3\xa0medium"),
            # a jalapeno of 14 g is halved, an okra of 12 g is not
            ("jalapeno-pepper-raw", 7, "½\xa0medium"),
            ("okra-raw", 31, "3\xa0medium"),
        ):
            with self.subTest(slug, grams=grams):
                self.assertEqual(spoken(FOODS[slug], grams).words, words)

    @thorough
    def test_every_food_is_read_back_as_it_is_said(self):
        """The whole table, from a pinch to a pot: what is said is read as the grams it stands for,
        and more is never said as less."""
        count = 0
        for food in FOODS:
            if food.comparator:
                continue
            said = [one for grams in GRAMS if (one := spoken(food, grams)) and one.words != PINCH]
            for less, more in pairwise(said):
                self.assertLessEqual(less.grams, more.grams + 1e-9, (food.slug, less, more))
            for one in {one.words: one for one in said}.values():
                count += 1
                again = read_amount(one.words, food).grams
                self.assertAlmostEqual(again, one.grams, delta=0.01 * one.grams, msg=food.slug)
        self.assertGreater(count, 15_000)

    @thorough
    def test_what_is_said_is_the_nearest_a_kitchen_can_measure(self):
        """Half the step between two measures, or a piece that is near enough to be counted."""
        for food in FOODS:
            if food.comparator or food.cup is None:
                continue
            for grams in GRAMS[4:]:
                one = spoken(food, grams)
                cup = food.cup.grams
                step = max(cup / 8, 0.12 * grams, cup / 16 * 0.5 if grams < cup / 4 else 0)
                piece = max(
                    (row.grams for row in food.measures if row.measure != "cup"), default=0.0
                )
                self.assertLessEqual(abs(one.grams - grams), max(step, piece / 2) + 0.01 * grams)

    def test_one_place_says_it_at_any_multiple(self):
        kale = food_portion(FOODS["kale-raw"], 16)
        self.assertEqual(say(kale, 32), "1½\xa0cups")
        self.assertEqual(say(kale.times(2), 32), say(food_portion(FOODS["kale-raw"], 32), 32))
        self.assertIsNone(measure_of(kale, 0))

    @given(st.floats(0.5, 4000), st.floats(0.3, 8))
    def test_the_words_stand_for_nearly_those_grams(self, volume, weight_of_ml):
        said = by_volume(volume, volume * weight_of_ml / 4)
        if said and volume > 4:
            self.assertAlmostEqual(
                said.grams, volume * weight_of_ml / 4, delta=0.34 * volume * weight_of_ml / 4
            )

    @given(st.floats(0.7, 3000), st.floats(1.0, 1.5))
    def test_more_of_a_dish_is_never_fewer_cups(self, volume, times):
        less, more = by_volume(volume, volume), by_volume(volume * times, volume * times)
        if less.words != PINCH:
            self.assertLessEqual(less.grams, more.grams + 1e-6)

    def test_fractions(self):
        self.assertEqual(
            [fraction(value)[1] for value in (0.26, 1.34, 2.0, 0.97, 3.6)],
            ["¼", "1⅓", "2", "1", "3⅔"],
        )

    def test_steps(self):
        self.assertEqual(step_g(FOODS["whole-wheat-bread"]), 32)
        self.assertAlmostEqual(step_g(FOODS["millet-cooked"]), 174 / 4)
        self.assertAlmostEqual(step_g(FOODS["tahini"]), 15)
