"""A food made less inside a planned dish: the planned copy changes, the recipe stays."""

from planner.food_in_dish import with_less
from planner.models import DayEntry
from planner.testing import DayCase
from recipes.facts import facts_of_kept
from recipes.models import Recipe


class Inside(DayCase):
    def halved(self, *slugs):
        return lambda slug, grams: grams / 2 if slug in slugs else None

    def planned(self, text, servings=2):
        recipe = Recipe.objects.create(
            practice=self.practice, title="Walnut pot", role="dish", servings=servings, text=text
        )
        return DayEntry(day=self.day, meal="dinner", recipe=recipe, amount=1)

    def grams(self, kept):
        return [line.grams for line in facts_of_kept(kept).lines]

    def test_less_of_a_food_in_a_recipe(self):
        entry = self.planned("60 g walnuts\n200 g kale")
        kept = with_less(entry, self.halved("walnuts"))
        self.assertEqual(self.grams(kept), [30, 200])
        self.assertEqual(entry.recipe.choices, {})

    def test_two_equal_lines_are_both_made_less(self):
        kept = with_less(
            self.planned("60 g walnuts\n200 g kale\n60 g walnuts"), self.halved("walnuts")
        )
        self.assertEqual(self.grams(kept), [30, 200, 30])

    def test_a_dish_without_it_is_left_alone(self):
        self.assertIsNone(with_less(self.planned("200 g kale"), self.halved("walnuts")))
