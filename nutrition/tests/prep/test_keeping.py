"""How long dishes keep, the pot that must cool, and a batch in its containers."""

import unittest
from dataclasses import replace
from datetime import date, timedelta

from nutrition.prep.batches import MealEaten, batch_for, label_of, portioned
from nutrition.prep.cooling import FLASK, cooling_of
from nutrition.prep.keeping import MOST_DAYS, UNKNOWN, keeping_kinds, keeping_of
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon

SUNDAY = date(2026, 11, 29)


def kept(name, role, method, *lines):
    facts = reckon(Recipe(tuple(lines), title=name, method=method))
    return keeping_of(name, role, facts.foods())


class Kinds(unittest.TestCase):
    def test_each_dish_keeps_as_its_kind(self):
        for name, role, method, lines, days, freezes in (
            ("Bean soup", "dish", "simmered", ("2 cups white beans, cooked", "1 carrot"), 3, True),
            ("Porridge", "dish", "boiled_kept", ("1 cup rolled oats", "2 cups water"), 2, True),
            ("Almond milk", "sauce", "", ("1 cup almonds", "4 cups water"), 1, False),
            ("Barley, plain", "base", "boiled_drained", ("1 cup pearl barley, dry",), 3, True),
            ("Lentil salad", "protein", "", ("2 cups cooked lentils", "1 orange"), 3, True),
            ("Tofu, crusted", "protein", "baked", ("1 block firm tofu",), 3, True),
            ("Boiled potatoes", "base", "boiled_drained", ("1 lb potatoes",), 3, False),
            ("Wilted chard", "greens", "wilted", ("1 bunch swiss chard",), 3, True),
            ("Big salad", "dish", "", ("4 cups kale, chopped", "1 apple"), 0, False),
            ("Kohlrabi slaw", "vegetable", "", ("1 kohlrabi", "1 carrot"), 1, False),
            ("Lemon dressing", "sauce", "", ("1/2 cup lemon juice", "1/4 cup water"), 5, False),
            ("Garlic oil", "sauce", "", ("1/2 cup olive oil", "3 cloves garlic"), 3, True),
            ("Bean dip", "sauce", "", ("2 cups white beans, cooked",), 3, True),
            ("Seed sprinkle", "topping", "", ("1 cup sunflower seeds",), 6, True),
            ("Berry shake", "dish", "", ("1 cup blueberries", "1 cup soy milk"), 0, False),
        ):
            with self.subTest(name=name):
                keeping = kept(name, role, method, *lines)
                self.assertEqual((keeping.days, keeping.freezes), (days, freezes), keeping.kind)

    def test_no_kind_goes_beyond_the_food_code_and_each_names_its_source(self):
        for keeping in (*keeping_kinds(), UNKNOWN):
            with self.subTest(kind=keeping.kind):
                self.assertLessEqual(keeping.most_days, MOST_DAYS)
                self.assertLessEqual(keeping.days, keeping.most_days)
                self.assertTrue(keeping.why and keeping.source)

    def test_what_nothing_is_known_of_is_eaten_soon(self):
        cooked = reckon(Recipe(("2 cups white beans, cooked",))).foods()
        self.assertEqual(keeping_of("Something", "unheard of", cooked), UNKNOWN)
        self.assertLessEqual(UNKNOWN.days, 1)

    def test_soup_is_eaten_hot_and_a_roast_is_good_cold(self):
        soup = kept("Bean soup", "dish", "simmered", "2 cups white beans, cooked", "1 carrot")
        roast = kept("Roast carrots", "vegetable", "roasted", "4 carrots")
        self.assertEqual((soup.cold, soup.travels), (False, True))
        self.assertEqual((roast.cold, roast.travels), (True, True))
        self.assertEqual(soup.words, "3 to 4 days in the refrigerator, 2 months in the freezer")


class Cooling(unittest.TestCase):
    def test_a_big_hot_pot_is_a_caution_with_the_two_steps_and_the_usual_mistake(self):
        told = cooling_of(4000.0, True)
        for words in ("135 to 70 °F", "two hours", "41 °F", "four more", "shallow", "4.0 L"):
            self.assertIn(words, told.text)
        self.assertIn("refrigerator whole", told.why)
        self.assertIsNone(cooling_of(1500.0, True))
        self.assertIsNone(cooling_of(9000.0, False))

    def test_a_flask_is_kept_hot(self):
        self.assertIn("135 °F", FLASK.text)


class Batches(unittest.TestCase):
    """Facts of the trade: common practice, no source."""

    def setUp(self):
        self.soup = kept("Bean soup", "dish", "simmered", "2 cups white beans, cooked", "1 carrot")

    def week(self, people):
        return [
            MealEaten(on=SUNDAY + timedelta(days=day), people=people, packed=True)
            for day in range(1, 6)
        ]

    def test_a_pot_for_a_working_week_is_ten_lunches_for_two_those_beyond_its_days_frozen(self):
        two = {"Mira": 1.0, "Jens": 1.0}
        boxes = portioned(10.0, 400.0, 420.0, SUNDAY, self.soup, self.week(two), 600.0)
        self.assertEqual(len(boxes), 10)
        self.assertEqual([one.eaten_on.weekday() for one in boxes if one.frozen], [3, 3, 4, 4])
        self.assertTrue(all(one.grams == 400.0 for one in boxes))
        fresh = [one for one in boxes if not one.frozen]
        self.assertTrue(all(one.eat_by == SUNDAY + timedelta(days=3) for one in fresh))
        half = portioned(10.0, 400.0, 420.0, SUNDAY, self.soup, self.week(two), 600.0, 5)
        self.assertEqual(sum(one.frozen for one in half), 5)

    def test_who_eats_together_at_home_shares_a_container(self):
        """Fifteen packed are fifteen; at home five, each for all three, of up to two liters."""
        three = {"Mira": 1.0, "Jens": 1.0, "Ada": 0.5}
        packed = self.week(three)
        home = [replace(one, packed=False) for one in packed]
        self.assertEqual(len(portioned(12.5, 400.0, 420.0, SUNDAY, self.soup, packed, 600.0)), 15)
        boxes = portioned(12.5, 400.0, 420.0, SUNDAY, self.soup, home, 600.0)
        self.assertEqual([one.grams for one in boxes], [1000.0] * 5)
        self.assertEqual(boxes[0].whose, "Mira, Jens, Ada")
        pair = [replace(one, people={"Mira": 1.0, "Jens": 1.0}) for one in home]
        both = portioned(10.0, 400.0, 420.0, SUNDAY, self.soup, pair, 600.0)
        self.assertEqual([one.grams for one in both], [800.0] * 5, "two as well")
        # 2.5 servings of 720 mL are 1.8 L: nine tenths of two liters
        for serving_ml, count in ((720.0, 1), (721.0, 2)):
            some = portioned(2.5, 400.0, serving_ml, SUNDAY, self.soup, home[:1], 600.0)
            self.assertEqual(len(some), count, serving_ml)

    def test_containers_hold_what_there_is_and_no_more_than_they_can(self):
        for ml in (250.0, 500.0, 1000.0):
            with self.subTest(ml=ml):
                boxes = portioned(8.0, 380.0, 400.0, SUNDAY, self.soup, self.week({"a": 1.5}), ml)
                self.assertAlmostEqual(sum(one.servings for one in boxes), 8.0)
                self.assertAlmostEqual(sum(one.grams for one in boxes), 8.0 * 380.0)
                self.assertTrue(all(one.volume_ml <= ml for one in boxes))
                left = sum(one.servings for one in boxes if one.eaten_on is None)
                self.assertAlmostEqual(left, 0.5)

    def test_what_does_not_freeze_is_refused_when_it_is_too_late(self):
        salad = kept("Big salad", "dish", "", "4 cups kale, chopped", "1 apple")
        with self.assertRaisesRegex(ValueError, "too late"):
            portioned(1.0, 300.0, 600.0, SUNDAY, salad, self.week({"a": 1.0})[:1], 600.0)
        with self.assertRaises(ValueError):
            portioned(1.0, 300.0, 600.0, SUNDAY, self.soup, [], 0.0)

    def test_a_label_says_what_it_is_until_when_and_the_numbers_that_matter(self):
        facts = reckon(Recipe(("2 cups white beans, cooked", "1 carrot"), method="simmered"))
        boxes = portioned(5.0, 400.0, 420.0, SUNDAY, self.soup, self.week({"a": 1.0}), 600.0)
        per_gram = facts.per_100_g * 0.01
        labels = [
            label_of("Bean soup", SUNDAY, one, per_gram, ("protein_g",), self.soup) for one in boxes
        ]
        wanted = facts.per_100_g["protein_g"].amount * 4
        self.assertAlmostEqual(dict(labels[0].numbers)["protein_g"], wanted)
        self.assertEqual(labels[0].thaw, None)
        self.assertEqual(labels[-1].thaw, SUNDAY + timedelta(days=4))
        self.assertIn("reheat", labels[0].serve)

    def test_a_batch_is_rounded_as_a_cook_would_with_what_that_does(self):
        lines = ("1 cup pearl barley, dry", "2 tsp dijon mustard", "3 tbsp lemon juice")
        facts = reckon(Recipe(lines, servings=4.0))
        made = batch_for(facts, 5.2)
        self.assertAlmostEqual(made.factor, 1.3)
        self.assertTrue(all(line.words for line in made.lines))
        self.assertIn("energy_kcal", made.effect)
        with self.assertRaises(ValueError):
            batch_for(facts, 400.0)
