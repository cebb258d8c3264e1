"""The shopping list: ticked, also late from a phone; the kitchen's stock; packages and prices."""

import csv
import io

from django.urls import reverse

from shopping.lists import needs_of
from shopping.models import Bought, Package, Stock
from shopping.tests.shopping_case import ShoppingCase
from week.reckoning import reckon_week


class Shopping(ShoppingCase):
    def test_what_is_eaten_is_what_is_bought_for_everybody(self):
        week = self.planned()
        grams = self.line(week, "split-red-lentils-dry") or self.line(week, "red-lentils-dry")
        slug = grams.item.food.slug
        # three servings of a recipe of four: three quarters of a cup of lentils
        cup = next(
            one.grams for one in grams.item.food.measures if one.measure == "cup" and not one.form
        )
        self.assertAlmostEqual(grams.item.need_g, 0.75 * cup, delta=1.0)
        three = self.planned(eaters="Mira 1\nJory 0.6")
        self.assertAlmostEqual(
            self.line(three, slug).item.need_g, 0.75 * cup * 2.6, delta=cup * 0.02
        )

    def test_ticked_it_is_in_the_kitchen_and_stays_on_the_list(self):
        week = self.planned()
        line = self.line(week, "kale-raw")
        self.assertContains(self.client.get(self.address("page", week)), "0 of")
        self.post(self.address("tick", week), {"key": line.key, "on": "1"})
        stock = Stock.objects.get(food="kale-raw")
        self.assertAlmostEqual(stock.grams, line.item.count * line.item.sold.grams)
        again = self.line(week, "kale-raw")
        self.assertIsNotNone(again.bought)
        self.assertEqual(again.words, line.words)
        # a phone that was out of reach sends it again
        late = self.client.post(
            self.address("tick", week),
            {"key": line.key, "on": "1"},
            headers={"Accept": "application/json"},
        )
        self.assertEqual(late.json()["on"], True)
        self.assertEqual(Bought.objects.count(), 1)
        self.assertEqual(Stock.objects.get(food="kale-raw").grams, stock.grams)
        self.post(self.address("tick", week), {"key": line.key, "on": "0"})
        self.assertFalse(Stock.objects.exists())

    def test_another_week_buys_less_by_what_the_kitchen_has(self):
        week = self.planned()
        line = self.line(week, "kale-raw")
        self.post(self.address("tick", week), {"key": line.key, "on": "1"})
        other = self.planned()
        self.assertAlmostEqual(
            self.line(other, "kale-raw").item.have_g
            if self.line(other, "kale-raw")
            else line.item.need_g,
            line.item.need_g,
        )

    def test_cooking_takes_it_out_of_the_kitchen_and_off_the_list(self):
        week = self.planned()
        for slug in ("kale-raw",):
            line = self.line(week, slug)
            self.post(self.address("tick", week), {"key": line.key, "on": "1"})
        before = Stock.objects.get(food="kale-raw").grams
        pot = reckon_week(week).pots[0]
        self.post(self.address("pot", week), {"key": pot.key, "on": "1"})
        used = sum(
            need.grams for need in needs_of(reckon_week(week)) if need.food.slug == "kale-raw"
        )
        left = Stock.objects.filter(food="kale-raw").first()
        self.assertLess(left.grams if left else 0.0, before)
        self.assertGreater(used, 0)
        self.post(self.address("pot", week), {"key": pot.key, "on": "0"})
        self.assertAlmostEqual(Stock.objects.get(food="kale-raw").grams, before)

    def test_csv(self):
        week = self.planned()
        answer = self.client.get(self.address("csv", week))
        rows = list(csv.DictReader(io.StringIO(answer.content.decode())))
        self.assertIn("Pear, raw", [row["food"] for row in rows])
        self.assertTrue(all(row["buy"] for row in rows))
        self.assertIn("attachment", answer["Content-Disposition"])

    def test_an_empty_week_and_a_key_that_is_none(self):
        week = self.begin()
        self.assertContains(self.client.get(self.address("page", week)), "Nothing is planned")
        self.post(self.address("tick", week), {"key": "0:moon-dust", "on": "1"})
        self.post(self.address("pot", week), {"key": "nothing", "on": "1"})
        self.assertFalse(Bought.objects.exists() or Stock.objects.exists())

    def test_packages_and_prices_of_the_practice(self):
        address = reverse("shopping:packages")
        wrong = self.post(address, {"food": "kale, raw", "unit": "7", "grams": "0", "price": "x"})
        self.assertEqual(wrong.status_code, 400)
        self.post(address, {"food": "kale, raw", "unit": "bag", "grams": "150", "price": "2.50"})
        self.post(address, {"food": "kale, raw", "unit": "bag", "grams": "120", "price": "2.50"})
        self.assertEqual(Package.objects.get().grams, 120.0)
        week = self.planned()
        line = self.line(week, "kale-raw")
        self.assertEqual(line.item.sold.unit, "bag")
        self.assertAlmostEqual(line.item.cost, 2.5 * line.item.count)
        self.assertContains(self.client.get(self.address("page", week)), "that have a price")
        self.post(address, {"row": Package.objects.get().pk})
        self.assertFalse(Package.objects.exists())

    def test_the_phones_script_may_keep_the_list(self):
        answer = self.client.get(reverse("shopping:worker"))
        self.assertEqual(answer["Service-Worker-Allowed"], "/")
        self.assertIn("javascript", answer["Content-Type"])

    def test_another_practice_sees_nothing(self):
        week = self.planned()
        self.client.force_login(
            self.other_user, backend="django.contrib.auth.backends.ModelBackend"
        )
        for name in ("page", "csv"):
            answer = self.client.get(reverse(f"shopping:{name}", args=[week.pk]))
            self.assertEqual(answer.status_code, 404)
        for name in ("tick", "pot"):
            answer = self.client.post(reverse(f"shopping:{name}", args=[week.pk]), {"key": "x"})
            self.assertEqual(answer.status_code, 404)
