"""The printable pages."""

from django.urls import reverse

from planner.models import DayEntry
from planner.testing import DayCase


class Handouts(DayCase):
    def test_a_bowl_in_measures_and_grams_with_the_caution(self):
        page = self.client.get(reverse("handouts:bowl", args=[self.bowl.pk]))
        for text in (
            "Tofu, firm",
            "150 g",
            "for Osk Brannigan",
            "does not replace care by a licensed professional",
            "This bowl brings:",
        ):
            self.assertContains(page, text)

    def test_a_day_with_what_is_refused(self):
        DayEntry.objects.create(day=self.day, meal="snack", food="tahini", amount=15)
        page = self.client.get(reverse("handouts:day", args=[self.day.pk]))
        for text in (
            "Monday, November 23",
            "Harbor bowl",
            "1\xa0bowl",
            "Tofu, firm, 2\xa0slices (150 g)",
            "Contains sesame",
            "1\xa0tbsp",
        ):
            self.assertContains(page, text)

    def test_no_calories_for_a_client_whom_they_can_harm(self):
        addresses = [
            reverse("handouts:bowl", args=[self.bowl.pk]),
            reverse("handouts:day", args=[self.day.pk]),
        ]
        for address in addresses:
            self.assertContains(self.client.get(address), "kcal")
        self.client_row.conditions = ["eating_disorder_history"]
        self.client_row.save()
        for address in addresses:
            self.assertNotContains(self.client.get(address), "kcal")
            self.assertContains(self.client.get(address), "protein")
