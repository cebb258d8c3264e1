"""A package of the practice's own wherever foods are: recipes, bowls, days, comparing."""

from pantry.models import OwnFood
from pantry.testing import OwnFoodsCase
from planner.testing import DayCase


class Everywhere(OwnFoodsCase, DayCase):
    def test_one_form_makes_a_food_that_is_found_everywhere(self):
        row = self.copy()
        self.assertEqual((row.version, row.like), (1, "sunflower-seed-butter"))
        self.assertContains(self.client.get("/pantry/?q=gannet"), "Gannet seed spread")
        page = self.client.get(f"/pantry/{row.slug}/")
        for text in ("625 kcal", "Its label", "May contain", "values that it does not print"):
            self.assertContains(page, text)
        preview = self.post(
            "/recipes/preview/", {"text": "2 tbsp gannet seed spread", "servings": "1"}, htmx=True
        )
        self.assertContains(preview, "every line settled")
        self.assertContains(preview, "32 g")
        found = self.client.get(f"/bowls/{self.bowl.pk}/find/?q=gannet")
        self.assertContains(found, row.slug)
        self.post(f"/bowls/{self.bowl.pk}/add/", {"food": row.slug, "role": "sauce"})
        part = self.bowl.parts.get(food=row.slug)
        self.assertEqual(part.grams, 32.0, "a first helping is the label's serving")
        self.post(f"/days/{self.day.pk}/add/", {"food": row.slug, "meal": "lunch", "grams": "64"})
        self.assertContains(self.client.get(f"/days/{self.day.pk}/"), "Gannet seed spread")
        compared = self.client.get(f"/compare/?with=food-{row.slug}&with=food-walnuts")
        self.assertContains(compared, "Gannet seed spread")
        balanced = self.client.get(self.for_client(f"/bowls/{self.bowl.pk}/balance/"))
        self.assertContains(balanced, "Gannet seed spread")
        self.assertEqual(
            self.client.get(self.for_client(f"/bowls/{self.bowl.pk}/swaps/")).status_code, 200
        )

    def test_retired_where_it_is_used_deleted_where_it_is_not(self):
        row = self.copy()
        recipes = type(self.recipe).objects
        recipes.create(
            practice=self.practice, title="Spread", servings=1, text="2 tbsp gannet seed spread"
        )
        address = f"/pantry/packages/{row.pk}/"
        self.assertContains(self.client.get(address), "1 recipe: Spread")
        self.post(f"{address}retire/", {"delete": "1"})
        row.refresh_from_db()
        self.assertIsNotNone(row.retired, "what is used is retired, not deleted")
        self.assertNotContains(self.client.get("/pantry/?q=gannet"), "/pantry/own-")
        recipe = recipes.get(title="Spread")
        self.assertContains(self.client.get(f"/recipes/{recipe.pk}/"), "every line settled")
        self.post(f"{address}retire/", {"back": "1"})
        self.assertContains(self.client.get("/pantry/?q=gannet"), f"/pantry/{row.slug}/")
        recipe.delete()
        self.post(f"{address}retire/", {"delete": "1"})
        self.assertFalse(OwnFood.objects.exists())

    def test_an_animal_food_is_there_to_compare_with(self):
        row = self.copy(ingredients="Sunflower seeds, honey")
        self.assertContains(self.client.get(f"/pantry/{row.slug}/"), "to compare with only")
        self.post(f"/bowls/{self.bowl.pk}/add/", {"food": row.slug, "role": "sauce"})
        self.assertFalse(self.bowl.parts.filter(food=row.slug).exists())
