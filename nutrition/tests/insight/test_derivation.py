"""Where a number comes from: the steps add up to it, down to the row of the table."""

from unittest import TestCase

from nutrition.composition.amounts import PRAL_FACTORS, amount_of
from nutrition.composition.foods import food_table
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Dish, food_portion
from nutrition.insight.derivation import as_data, as_lines, of_dish, of_food, of_recipe
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.requests.day import report
from nutrition.requests.derivations import of_row, of_target
from nutrition.requests.person import read_asked

SOUP = Recipe(
    ("1 cup pearl barley, dry", "200 g spinach", "1 ladle of the red stuff", "1/2 tsp salt"),
    title="Quay soup",
    servings=4.0,
    batch_g=1200.0,
    method="boiled_drained",
)


def leaves(step):
    return (
        [leaf for inner in step["steps"] for leaf in leaves(inner)] if "steps" in step else [step]
    )


class Derivation(TestCase):
    def test_the_lines_add_up_to_the_serving(self):
        facts = reckon(SOUP)
        for key in ("energy_kcal", "potassium_mg", "sodium_mg", "pral_meq"):
            with self.subTest(key):
                found = of_recipe(facts, key)
                whole = amount_of(facts.serving, key)
                self.assertEqual(found.amount, whole)
                self.assertAlmostEqual(
                    sum(step.amount.amount for step in found.steps), whole.amount, places=6
                )

    def test_a_line_says_its_row_its_range_its_factors_and_what_is_unknown(self):
        found = of_recipe(reckon(SOUP), "potassium_mg")
        by_name = {step.name: step for step in found.steps}
        spinach = by_name["200 g spinach"]
        self.assertEqual(spinach.row.slug, "spinach-raw")
        self.assertEqual(
            spinach.row.per_100_g, food_table()["spinach-raw"].per_100_g("potassium_mg")
        )
        self.assertIn("Legacy", spinach.row.source)
        self.assertEqual(spinach.basis, "weighed")
        self.assertTrue(spinach.low_g < spinach.grams < spinach.high_g)
        self.assertTrue(any("left after cooking" in one for one in spinach.factors))
        self.assertIn("25 % of the batch", spinach.factors)
        unknown = by_name["1 ladle of the red stuff"]
        self.assertEqual((unknown.amount.known, unknown.row), (0, None))
        self.assertTrue(any("not accounted for" in one for one in unknown.factors))
        self.assertIn("the batch was weighed", found.factors)

    def test_a_bowl_goes_through_its_recipe_to_the_rows(self):
        facts, table = reckon(SOUP), food_table()
        portions = [food_portion(table["tofu-firm"], 150.0), food_portion(table["kale-raw"], 60.0)]
        dish = Dish.of("bowl-1", "Harbor bowl", portions, "bowl")
        found = of_dish(dish.name, dish.profile, dish.portions, "protein_g")
        self.assertEqual([step.name for step in found.steps], ["Tofu, firm", "Kale, raw"])
        self.assertAlmostEqual(
            sum(step.amount.amount for step in found.steps), dish.profile["protein_g"].amount
        )
        inside = of_dish(
            dish.name,
            dish.profile,
            dish.portions,
            "protein_g",
            lambda portion: facts if portion.food.slug == "kale-raw" else None,
        )
        self.assertEqual(len(inside.steps[-1].steps), len(facts.lines))

    def test_every_key_can_be_asked(self):
        facts = reckon(SOUP)
        for key in NUTRIENT:
            try:
                whole = amount_of(facts.serving, key)
            except KeyError:
                continue
            with self.subTest(key):
                self.assertEqual(of_recipe(facts, key).amount, whole)

    def test_what_no_column_holds_says_how_it_comes_about(self):
        salt = of_food(food_table()["kale-raw"], 100.0, "pral_meq")
        self.assertIsNone(salt.row)
        for key in PRAL_FACTORS:
            self.assertIn(NUTRIENT[key].name.lower(), salt.factors[0])
        self.assertIn("Remer and Manz", salt.factors[0])

    def test_as_data_and_as_lines(self):
        found = of_recipe(reckon(SOUP), "iron_mg")
        data = as_data(found)
        rows = [leaf for leaf in leaves(data) if "row" in leaf]
        self.assertEqual(len(rows), 3)
        self.assertTrue(all(leaf["row"]["source"] for leaf in rows))
        self.assertAlmostEqual(sum(leaf["amount"] for leaf in rows), data["amount"], places=4)
        text = as_lines(found)
        self.assertIn("row barley-pearled-dry: 2.5 mg in 100 g", text)
        self.assertIn("1 ladle of the red stuff: unknown", text)
        self.assertEqual(of_row(food_table()["millet-dry"], "iron_mg")["row"]["food"], "millet-dry")

    def test_a_target_is_told_with_what_disagrees(self):
        """A school of much protein and kidneys that ask for little of it do not agree."""
        person = {"sex": "female", "age_years": 40, "height_cm": 170, "weight_kg": 70}
        asked = read_asked(person | {"conditions": ["ckd_3b"], "school": "strength"})
        told = report(asked)
        against = {row.key for row in told.disagreements}
        self.assertIn("protein_g", against)
        found = of_target(told, "protein_g")
        self.assertEqual(found["target"]["unit"], "g")
        self.assertEqual({row["key"] for row in found["disagreements"]}, {"protein_g"})
        with self.assertRaises(KeyError):
            of_target(told, "gravel_g")
