"""What is inside a package counts in the whole-food view, by share where the list tells."""

from contextlib import contextmanager
from unittest import TestCase

from nutrition.composition.food_names import food_names
from nutrition.composition.foods import FoodTable, food_table, foods_in_force
from nutrition.insight.whole_food import whole_food
from nutrition.labels.label import Label
from nutrition.labels.own_food import own_food
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.targets.schools import schools

FOODS = food_table()


def spread(listed):
    label = Label(
        name="Harbor bean spread",
        serving_size="100 g",
        kind="europe",
        printed={"energy_kcal": "300", "protein_g": "8", "fat_g": "22", "carbohydrate_g": "15"},
        ingredients=listed,
        like="hummus",
        sure=True,
    )
    return own_food("own-1", label, FOODS, food_names()).food


@contextmanager
def with_food(food):
    table = FoodTable([*FOODS, food], key=food.listed)
    with foods_in_force(lambda: table):
        yield


class WholeFood(TestCase):
    def oil(self, listed, school=None):
        with with_food(spread(listed)):
            facts = reckon(Recipe(("100 g Harbor bean spread",), servings=2))
            self.assertEqual(facts.unresolved, ())
            return next(one for one in whole_food(facts, school) if one.heading == "Added oil")

    def test_oil_inside_a_package_is_named_and_counted_by_its_share(self):
        found = self.oil("white beans, sunflower oil (20%), salt")
        (part,) = found.parts
        # 20 g of oil at 8.84 kcal, over two servings
        self.assertAlmostEqual(part.amount, 88.4, delta=0.5)

    def test_without_a_share_nobody_knows_how_much(self):
        (part,) = self.oil("white beans, sunflower oil, salt").parts
        self.assertIsNone(part.amount)
        self.assertEqual(self.oil("white beans, salt").parts, ())

    def test_it_counts_against_the_school(self):
        strict = next(
            school
            for school in schools().values()
            if any(row.food_class == "oil" and row.stance == "avoid" for row in school.foods)
        )
        self.assertTrue(self.oil("white beans, sunflower oil", strict).against_the_school)
