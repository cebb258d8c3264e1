"""The demo practice loads, and every screen has real work to show."""

from django.test import TestCase
from django_scopes import scope

from bowls.models import Bowl
from clients.models import Client
from demo.load import load, unsettled
from planner.day import reckon_day
from planner.models import Day
from practice.models import Practice
from recipes.models import Recipe


class Demo(TestCase):
    def test_load(self):
        load()
        with scope(practice=Practice.objects.get(name="Tern Point Wellness")):
            self.assertEqual(Client.objects.count(), 5)
            self.assertGreaterEqual(Recipe.objects.count(), 40)
            self.assertGreaterEqual(Bowl.objects.count(), 6)
            self.assertEqual(unsettled(), ["Grandmother's pot, to be settled"])
            for client in Client.objects.all():
                self.assertGreaterEqual(client.weigh_ins.count(), 10, client.name)
                self.assertTrue(client.days.exists())
            for day in Day.objects.all():
                self.assertGreater(reckon_day(day).profile["energy_kcal"].amount, 500)
