"""A practice's foods, words and values laid over the table, and gone again."""

from dataclasses import replace
from unittest import TestCase

from nutrition.composition.foods import FoodTable, food_table, foods_in_force, shipped_foods
from nutrition.composition.overrides import CannotOverrule, Overruling, check, overruled, value_in
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.swaps.library import for_food
from nutrition.written.finding import find_foods, surely_meant
from nutrition.written.matching import reckon_line
from nutrition.written.naming import said_words

SHIPPED = shipped_foods()
SPREAD = replace(
    SHIPPED["sunflower-seed-butter"],
    slug="own-1",
    name="Gannet seed spread, smooth",
    own=True,
    like="sunflower-seed-butter",
)


def table(key, *own, settled=None, foods=SHIPPED):
    words = {said_words(food.name): food.slug for food in own} | (settled or {})
    return FoodTable([*foods, *own], key, words, SHIPPED.uppers)


class InForce(TestCase):
    def test_an_own_food_is_found_and_read_where_it_is_in_force(self):
        with foods_in_force(lambda: table("a", SPREAD)):
            self.assertEqual(find_foods("gannet", 5, typing=True)[0].food, SPREAD)
            line = reckon_line("2 tbsp gannet seed spread, smooth")
            self.assertEqual((line.food, line.sure), (SPREAD, True))
            self.assertEqual(surely_meant("Gannet seed spread, smooth"), SPREAD)
            recipe = Recipe(("2 tbsp Gannet seed spread, smooth",))
            self.assertEqual(reckon(recipe).foods()[0].food, SPREAD)
        self.assertFalse(reckon_line("2 tbsp gannet seed spread, smooth").resolved)
        self.assertTrue(reckon(recipe).unresolved)
        self.assertIs(food_table(), SHIPPED)

    def test_it_is_offered_as_a_swap_beside_what_it_is_like(self):
        milk = replace(SPREAD, slug="own-2", name="Gannet drink", like="soy-milk-unsweetened")
        with foods_in_force(lambda: table("f", milk)):
            offered = [row.to.slug for row in for_food(SHIPPED["coconut-milk-canned"])]
            same = [row.to.slug for row in for_food(SHIPPED["soy-milk-unsweetened"])]
            back = [row.to.slug for row in for_food(milk)]
        self.assertIn("soy-milk-unsweetened", offered)
        self.assertEqual(same[0], "own-2")
        self.assertEqual(back[0], "soy-milk-unsweetened")
        shipped = [row.to.slug for row in for_food(SHIPPED["soy-milk-unsweetened"])]
        self.assertNotIn("own-2", shipped)

    def test_what_was_read_with_other_foods_is_not_kept(self):
        other = replace(SPREAD, name="Another spread of gannets")
        line = "50 g gannet seed spread, smooth"
        with foods_in_force(lambda: table("b", SPREAD)):
            self.assertEqual(reckon_line(line).food, SPREAD)
        with foods_in_force(lambda: table("c", other)):
            self.assertNotEqual(reckon_line(line).food, SPREAD)

    def test_a_retired_one_is_read_and_not_offered(self):
        retired = replace(SPREAD, retired=True)
        with foods_in_force(lambda: table("d", retired)):
            self.assertNotIn(retired, [match.food for match in find_foods("gannet", 9)])
            line = reckon_line("2 tbsp gannet seed spread, smooth")
            self.assertEqual(line.food, retired)
            self.assertIn("retired here", " ".join(line.assumed))


class Words(TestCase):
    def read(self, line, **settled):
        words = {said_words(said.replace("_", " ")): slug for said, slug in settled.items()}
        with foods_in_force(lambda: table(tuple(sorted(words.items())), settled=words)):
            return reckon_line(line)

    def test_settled_words_mean_one_food_and_say_so(self):
        line = self.read("10 g dillisk, rinsed", dillisk="dulse-dried")
        self.assertEqual((line.food.slug, line.sure), ("dulse-dried", True))
        self.assertIn("always so here", " ".join(line.assumed))
        self.assertFalse(reckon_line("10 g dillisk, rinsed").resolved)

    def test_a_word_around_them_or_a_contradiction_is_heard(self):
        settled = {"white_beans": "white-beans-no-salt-added-canned"}
        self.assertEqual(
            self.read("1 cup white beans", **settled).food.slug, "white-beans-no-salt-added-canned"
        )
        self.assertEqual(
            self.read("1 cup white beans, dry", **settled).food.slug, "white-beans-dry"
        )
        self.assertNotEqual(
            self.read("1 cup green beans", **settled).food.slug, "white-beans-no-salt-added-canned"
        )


class Overruled(TestCase):
    def test_a_value_and_a_cup_and_where_they_come_from(self):
        food = SHIPPED["freekeh-dry"]
        rows = (
            Overruling(
                key="protein_g", value=15.0, low=14.0, high=16.0, said="Marin: a laboratory"
            ),
            Overruling(
                key="measure:cup", value=172.0, low=164.0, high=180.0, said="Marin: weighed"
            ),
        )
        ruled = overruled(food, rows)
        protein = ruled.profile(100.0)["protein_g"]
        self.assertEqual((protein.amount, protein.low, protein.high), (15.0, 14.0, 16.0))
        self.assertEqual(value_in(ruled, "measure:cup"), 172.0)
        self.assertIn(f"in place of {food.per_100_g('protein_g'):.4g}", ruled.overruled[0])
        self.assertIn("a laboratory", ruled.overruled[0])
        self.assertEqual(ruled.source, food.source)
        foods = [ruled if one.slug == food.slug else one for one in SHIPPED]
        with foods_in_force(lambda: table("e", foods=foods)):
            self.assertAlmostEqual(reckon_line("1 cup freekeh, dry").grams, 172.0)
        self.assertAlmostEqual(
            reckon_line("1 cup freekeh, dry").grams, value_in(food, "measure:cup")
        )

    def test_what_no_food_can_have(self):
        for key, value, low, high in (
            ("protein_g", 120.0, 120.0, 120.0),
            ("protein_g", -1.0, -1.0, 2.0),
            ("protein_g", 5.0, 6.0, 7.0),
            ("measure:cup", 0.0, 0.0, 0.0),
            ("moon_g", 5.0, 5.0, 5.0),
        ):
            with self.subTest(key, value=value), self.assertRaises(CannotOverrule):
                check(key, value, low, high)
