"""A client's week to shop for."""

from django.urls import reverse

from shopping.lists import list_of
from week.models import Week
from week.tests.test_week import WeekCase


class ShoppingCase(WeekCase):
    def planned(self, **skeleton):
        week = self.begin(**skeleton)
        for day in (0, 1, 3):
            self.put(week, f"{day}-dinner-0", f"recipe-{self.stew.pk}")
        self.put(week, "2-lunch-1", "food-pear-raw")
        return Week.objects.get(pk=week.pk)

    def address(self, name, week):
        return self.for_client(reverse(f"shopping:{name}", args=[week.pk]))

    def line(self, week, slug):
        rows = [
            line
            for trip in list_of(week).trips
            for _name, lines in trip.sections
            for line in lines
            if line.item.food.slug == slug
        ]
        return rows[0] if rows else None
