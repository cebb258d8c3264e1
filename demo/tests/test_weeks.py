"""The demo's weeks: what is on their lists, counted by hand from what stands in them; what holds of
each."""

from django.test import TestCase
from django_scopes import scope

from demo.tests.demo_rows import fill
from demo.weeks import planned_rows
from nutrition.composition.foods import food_table
from nutrition.composition.helpings import first_helping_g
from pantry.in_force import foods_of_practice
from practice.models import Practice
from shopping.lists import list_of, needs_of
from week.cautions import told_of
from week.models import Week
from week.reckoning import reckon_week

THREE = 1.0 + 1.0 + 0.6


class DemoWeeks(TestCase):
    @classmethod
    def setUpTestData(cls):
        fill()

    def run(self, result=None):
        practice = Practice.objects.filter(name="Tern Point Wellness").first()
        with scope(practice=practice), foods_of_practice(practice):
            return super().run(result)

    def week(self, name):
        return reckon_week(Week.objects.get(client__name=name))

    def servings(self, key, dish, eaters=None):
        """How much of a dish stands in a client's week, times who eats at its meal."""
        return sum(
            count * ((eaters or {}).get(slot.split("-")[1], 1.0))
            for slot, (name, count) in planned_rows()[key].items()
            if name == dish
        )

    def needed(self, week, slug):
        return sum(need.grams for need in needs_of(week) if need.food.slug == slug)

    def cup(self, slug):
        """What a cup of a food weighs, as a recipe's line is read. [g]"""
        measures = food_table()[slug].measures
        return next(one.grams for one in measures if one.measure == "cup" and not one.form)

    def test_the_ferry_engineers_list(self):
        week = self.week("Osk Brannigan")
        pots = self.servings("ferry", "Split pea and dill pot")
        # five servings of it are 1 1/2 cups of split peas and two carrots
        peas = pots / 5 * 1.5 * self.cup("split-peas-dry")
        self.assertGreater(pots, 0)
        self.assertAlmostEqual(self.needed(week, "split-peas-dry"), peas, delta=peas * 0.01)
        slices = self.servings("ferry", "rye-bread")
        bread = slices * first_helping_g(food_table()["rye-bread"])
        self.assertAlmostEqual(self.needed(week, "rye-bread"), bread, delta=1.0)

    def test_the_chart_makers_list(self):
        week = self.week("Ilse Varga-Holm")
        breakfasts = self.servings("charts", "Apple and rice breakfast")
        plates = self.servings("charts", "Rice with cabbage and dill, no salt")
        # two breakfasts are half a cup of rice, four plates a cup
        rice = (breakfasts / 2 * 0.5 + plates / 4) * self.cup("white-rice-dry")
        self.assertAlmostEqual(self.needed(week, "white-rice-dry"), rice, delta=rice * 0.01)
        self.assertEqual(self.needed(week, "salt"), 0.0)

    def test_the_list_of_a_household_of_three(self):
        week = self.week("Jens Halloran")
        eaters = {"breakfast": THREE, "dinner": THREE, "snack": THREE}
        porridge = self.servings("family", "Porridge of three grains", eaters)
        # three servings are half a cup of rolled oats
        oats = porridge / 3 * 0.5 * self.cup("rolled-oats-dry")
        self.assertGreater(porridge, 0)
        self.assertAlmostEqual(self.needed(week, "rolled-oats-dry"), oats, delta=oats * 0.01)
        walnuts = self.servings("family", "walnuts", eaters) * first_helping_g(
            food_table()["walnuts"]
        )
        own = sum(
            need.grams
            for need in needs_of(week)
            if need.food.slug == "walnuts" and need.dish == need.food.name
        )
        self.assertAlmostEqual(own, walnuts, delta=1.0)

    def test_nothing_is_eaten_past_its_date_and_no_page_says_stop(self):
        for week in Week.objects.all():
            reckoned = reckon_week(week)
            with self.subTest(week=str(week)):
                self.assertGreater(reckoned.filled, 40)
                stops = [one.text for one, _holders in told_of(reckoned).stops if one.names]
                self.assertEqual(stops, [], "no food of it is to be asked about")
                for pot in reckoned.pots:
                    for one in pot.containers:
                        fresh = one.eaten_on is None or one.eaten_on <= pot.eat_by
                        self.assertTrue(one.frozen or fresh, pot.name)

    def test_every_line_of_the_lists_has_a_unit_a_section_and_enough_for_the_week(self):
        for week in Week.objects.all():
            with self.subTest(week=str(week)):
                found = list_of(week)
                self.assertTrue(found.trips)
                for item in found.whole.items:
                    bought = item.count * item.sold.grams
                    self.assertGreaterEqual(bought + item.have_g + 0.5, item.need_g - 1e-6)
                    # a fruit is bought for its zest alone where fewer are eaten than zested
                    if "the zest of" not in item.how:
                        self.assertLess(item.left_g, item.sold.grams)
