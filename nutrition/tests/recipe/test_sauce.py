"""The sauce bench against sums done by hand."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.recipe.sauce_bench import (
    Sauce,
    cover,
    cut,
    poured_ml,
    rich_lines,
    thinned,
    to_density,
)

FOODS = food_table()
FACTS = reckon(
    Recipe(("120 g tahini", "60 g lemon juice", "10 g olive oil", "60 g water"), servings=6)
)


def sauce(thinner="water"):
    return Sauce(FACTS.batch, poured_ml(FACTS), FOODS[thinner])


class Bench(TestCase):
    def test_thinned_just_so_far_that_it_reaches(self):
        found = cover(sauce(), 10, 40)
        self.assertAlmostEqual(poured_ml(FACTS), 250)
        self.assertAlmostEqual(found.added_ml, 150)
        self.assertAlmostEqual(found.per_bowl["fat_g"].amount, FACTS.batch["fat_g"].amount / 10)
        self.assertAlmostEqual(
            found.density, FACTS.batch["energy_kcal"].amount / (250 + found.added_g)
        )
        self.assertFalse(found.too_thin)
        self.assertEqual(found.left_ml, 0)

    def test_enough_of_it_is_left_over(self):
        found = cover(sauce(), 4, 40)
        self.assertEqual(found.added_ml, 0)
        self.assertAlmostEqual(found.left_ml, 90)
        self.assertAlmostEqual(
            found.per_bowl["energy_kcal"].amount, FACTS.batch["energy_kcal"].amount * 40 / 250
        )
        self.assertTrue(cover(sauce(), 40, 40).too_thin)

    def test_to_a_density(self):
        for thinner in ("water", "lemon-juice", "soy-milk-unsweetened"):
            with self.subTest(thinner):
                added = to_density(sauce(thinner), 1.2)
                batch = thinned(sauce(thinner), added)
                self.assertAlmostEqual(batch["energy_kcal"].amount / batch.grams, 1.2)
        self.assertEqual(to_density(sauce(), 9.0), 0.0)
        self.assertIsNone(
            to_density(sauce("soy-milk-unsweetened"), 0.2), "the milk itself is denser"
        )

    def test_how_much_of_the_rich_can_go(self):
        rich = rich_lines(FACTS)
        self.assertEqual([row.name for row in rich], ["Tahini", "Olive oil"])
        self.assertAlmostEqual(sum(row.share for row in rich), 1.0, delta=0.02)
        now = cover(sauce(), 10, 40).per_bowl["fat_g"].amount
        found = cut(FACTS, sauce(), rich[0], 10, 40, "fat_g", now * 0.7)
        self.assertTrue(found.enough and 0 < found.share < 1)
        self.assertAlmostEqual(found.per_bowl["fat_g"].amount, now * 0.7)
        self.assertAlmostEqual(found.grams, found.share * 120)
        self.assertEqual(cut(FACTS, sauce(), rich[0], 10, 40, "fat_g", now * 2).share, 0)
        little = cut(FACTS, sauce(), rich[1], 10, 40, "fat_g", now * 0.1)
        self.assertFalse(little.enough)
        self.assertEqual(little.share, 1.0)

    def test_what_cannot_be_reckoned(self):
        for bowls, each in ((0, 40), (4, 0), (-1, 40)):
            with self.assertRaises(ValueError):
                cover(sauce(), bowls, each)
