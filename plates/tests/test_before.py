"""What was eaten before, amounts, typed calories, and pairs to begin with."""

from datetime import timedelta

from django.urls import reverse

from nutrition.insight.comparison import CALORIES, at_basis
from nutrition.written.typed_amounts import UnreadableAmount
from planner.models import Day, DayEntry
from planner.testing import DayCase
from plates.models import OldDish
from plates.pairs import pairs
from plates.subjects import plate_for


class Before(DayCase):
    def made(self):
        self.client.post(self.for_client(reverse("plates:old-new")), {"name": "Mess-room plate"})
        return OldDish.objects.get()

    def test_animal_foods_to_compare_with_and_for_nothing_else(self):
        dish = self.made()
        change = reverse("plates:old-change", args=[dish.pk])
        found = self.client.get(
            reverse("plates:old-find", args=[dish.pk]),
            {"q": "100 g boiled egg"},
            headers={"HX-Request": "true"},
        )
        self.assertContains(found, 'value="egg-boiled"')
        self.client.post(change, {"food": "egg-boiled", "amount": "100 g"})
        self.client.post(change, {"food": "sourdough-bread", "amount": "60 g"})
        plate = plate_for(f"was-{dish.pk}")
        self.assertEqual([one.grams for one in plate.portions], [100.0, 60.0])
        self.client.post(change, {"at": "0", "amount": "50 g"})
        self.assertEqual(plate_for(f"was-{dish.pk}").portions[0].grams, 50.0)
        self.client.post(change, {"at": "1", "remove": "1"})
        dish.refresh_from_db()
        self.assertEqual([part["food"] for part in dish.parts], ["egg-boiled"])
        page = self.client.get(self.for_client("/compare/"), {"with": f"was-{dish.pk}"})
        self.assertContains(page, "what was eaten before")
        self.post(reverse("bowls:add", args=[self.bowl.pk]), {"food": "egg-boiled"})
        self.assertFalse(self.bowl.parts.filter(food="egg-boiled").exists())

    def test_a_bad_amount_changes_nothing(self):
        dish = self.made()
        page = self.client.post(
            reverse("plates:old-change", args=[dish.pk]),
            {"food": "egg-boiled", "amount": "a lot"},
            follow=True,
        )
        self.assertContains(page, "is not an amount")
        dish.refresh_from_db()
        self.assertEqual(dish.parts, [])

    def test_so_much_of_a_plate(self):
        whole = plate_for(f"bowl-{self.bowl.pk}")
        half = plate_for(f"bowl-{self.bowl.pk}~0.5")
        self.assertAlmostEqual(half.profile.grams, whole.profile.grams / 2)
        self.assertAlmostEqual(plate_for(f"bowl-{self.bowl.pk}~250 g").profile.grams, 250)
        spoon = plate_for(f"bowl-{self.bowl.pk}~1 tbsp")
        self.assertAlmostEqual(spoon.volume_ml, 14.787, places=2)
        with self.assertRaisesRegex(UnreadableAmount, "“nonsense” is not an amount"):
            plate_for(f"bowl-{self.bowl.pk}~nonsense")
        page = self.client.get("/compare/", {"with": f"bowl-{self.bowl.pk}~nonsense"})
        self.assertContains(page, "“nonsense” is not an amount")
        page = self.client.get(
            "/compare/",
            {"with": [f"bowl-{self.bowl.pk}", "food-walnuts"], "amount": ["250 g", ""]},
        )
        self.assertIn("250+g", page.url)

    def test_equal_calories_of_a_number(self):
        plates = [plate_for(f"bowl-{self.bowl.pk}"), plate_for("food-walnuts")]
        for plate in at_basis(plates, CALORIES, 300.0):
            self.assertAlmostEqual(plate.profile["energy_kcal"].amount, 300.0)
        page = self.client.get(
            "/compare/",
            {
                "with": [f"bowl-{self.bowl.pk}", "food-walnuts"],
                "basis": "calories",
                "kcal": "300",
            },
        )
        self.assertContains(page, "at equal calories, 300 kcal")

    def test_it_begins_with_useful_pairs(self):
        earlier = Day.objects.create(
            practice=self.practice,
            client=self.client_row,
            date=self.day.date - timedelta(days=7),
        )
        DayEntry.objects.create(day=earlier, meal="lunch", recipe=self.recipe, amount=1)
        told = dict(pairs(self.client_row))
        self.assertIn([f"day-{self.day.pk}", f"day-{earlier.pk}"], told.values())
        self.assertIn([f"bowl-{self.bowl.pk}", f"recipe-{self.recipe.pk}"], told.values())
        page = self.client.get(self.for_client("/compare/"))
        for _words, keys in pairs(self.client_row):
            self.assertContains(page, "&amp;".join(f"with={key}" for key in keys))
            for key in keys:
                self.assertIsNotNone(plate_for(key))
