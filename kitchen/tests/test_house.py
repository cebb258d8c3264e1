"""What is in the house: foods and dishes, used first, thrown away, eaten in a coming week."""

from datetime import timedelta

from django.utils import timezone

from kitchen.house import for_week, wants_using
from kitchen.models import Box, Thrown
from kitchen.tests.kitchen_case import KitchenCase
from shopping.models import Package, Stock
from week.models import Week
from week.problem import pose
from week.reckoning import reckon_week


class Foods(KitchenCase):
    def test_stock_is_set_right_by_hand(self):
        address = self.at("house")
        for food, amount, said in (
            ("moon dust", "1 cup", "No food"),
            ("cheddar", "100 g", ""),
            ("kale, raw", "a mountain", ""),
        ):
            with self.subTest(food=food):
                answer = self.post(address, {"food": food, "amount": amount})
                self.assertContains(answer, said, status_code=400)
                self.assertContains(answer, f'value="{amount}"', status_code=400)
        self.post(address, {"food": "kale, raw", "amount": "500 g"})
        row = Stock.objects.get()
        self.assertEqual((row.food, row.grams, row.place), ("kale-raw", 500.0, "refrigerator"))
        self.assertContains(self.client.get(address), "500 g")
        self.post(self.at("stock", row.pk), {"do": "gone"})
        self.assertFalse(Stock.objects.exists())

    def test_one_food_in_two_places_opened_moved_and_used_first(self):
        today = timezone.localdate()
        self.post(
            self.at("house"),
            {"food": "kale, raw", "amount": "200 g", "use_by": f"{today:%Y-%m-%d}"},
        )
        self.post(self.at("house"), {"food": "kale, raw", "amount": "300 g", "place": "freezer"})
        self.assertEqual(Stock.objects.count(), 2)
        self.assertContains(self.client.get(self.at("house")), "ends today")
        fresh = Stock.objects.get(place="refrigerator")
        self.post(self.at("stock", fresh.pk), {"do": "opened"})
        self.assertEqual(Stock.objects.get(pk=fresh.pk).opened, today)
        self.post(self.at("stock", fresh.pk), {"do": "freezer"})
        self.assertEqual(Stock.objects.get().grams, 500)
        gone = self.client.post(self.at("stock", 999), {"do": "gone"}, follow=True)
        self.assertContains(gone, "no longer in the house")

    def test_pasted_lines_that_are_not_sure_stay_to_be_mended(self):
        answer = self.post(
            self.at("house"), {"pasted": "500 g rolled oats\nsome red stuff\n200 g walnuts"}
        )
        self.assertContains(answer, "some red stuff", status_code=400)
        self.assertContains(answer, "2 put in", status_code=400)
        self.assertEqual(Stock.objects.count(), 2)
        many = self.post(self.at("house"), {"pasted": "\n".join(["1 g kale"] * 101)})
        self.assertContains(many, "Up to 100 lines", status_code=400)

    def test_what_is_thrown_away_costs(self):
        Package.objects.create(
            practice=self.practice, food="kale-raw", unit="bag", grams=200, price="3.00"
        )
        self.post(self.at("house"), {"food": "kale, raw", "amount": "100 g"})
        self.post(self.at("stock", Stock.objects.get().pk), {"do": "thrown"})
        row = Thrown.objects.get()
        self.assertEqual((row.grams, float(row.cost)), (100, 1.5))
        self.assertFalse(Stock.objects.exists())
        self.assertContains(self.client.get(self.at("house")), "at least 1.50")


class Dishes(KitchenCase):
    def box(self, **data):
        today = timezone.localdate()
        given = {
            "recipe": self.recipes[0].pk,
            "servings": "1",
            "count": "3",
            "cooked": f"{today:%Y-%m-%d}",
            "place": "freezer",
        } | data
        return self.post(self.at("new-box"), given)

    def test_a_container_put_in_eaten_and_thrown_away(self):
        self.box()
        first, second, _third = Box.objects.all()
        self.assertGreater(first.use_by, timezone.localdate() + timedelta(days=20))
        self.post(self.at("box", first.pk), {"do": "eaten"})
        self.post(self.at("box", second.pk), {"do": "thrown"})
        self.assertEqual(Box.objects.filter(gone="").count(), 1)
        self.assertEqual(Thrown.objects.get().name, "Barley pot")
        # eaten or thrown away it is not changed again
        self.post(self.at("box", first.pk), {"do": "thrown"})
        self.assertEqual(Thrown.objects.count(), 1)

    def test_what_cannot_be_put_in(self):
        future = f"{timezone.localdate() + timedelta(days=1):%Y-%m-%d}"
        for data in (
            {"servings": "0"},
            {"count": "31"},
            {"cooked": future},
            {"place": "moon"},
            {"recipe": "0"},
        ):
            self.assertEqual(self.box(**data).status_code, 400, data)
        self.assertFalse(Box.objects.exists())

    def test_the_freezer_serves_the_first_meals_of_the_coming_week_and_no_pot_is_cooked_for_them(
        self,
    ):
        week = self.begin(start=timezone.localdate())
        for day in (1, 2, 4):
            self.put(week, f"{day}-dinner-0", f"recipe-{self.recipes[0].pk}")
        week = Week.objects.get(pk=week.pk)
        self.assertEqual(sum(pot.cooked.made for pot in reckon_week(week).pots), 3)
        self.box(count="2")
        reckoned = reckon_week(week)
        self.assertEqual([one.eating.day for one in reckoned.thawed], [1, 2])
        self.assertEqual(
            [one.thaw_on for one in reckoned.thawed], [week.date_of(0), week.date_of(1)]
        )
        eaten = [one.day for pot in reckoned.pots for one in pot.eatings]
        self.assertEqual(eaten, [4])
        self.assertContains(
            self.client.get(self.for_client(f"/weeks/{week.pk}/door/")), "Thaw overnight:"
        )
        # a week after it gets nothing of the same containers
        later = self.begin(start=week.last + timedelta(days=1))
        self.assertEqual(for_week(Week.objects.get(pk=later.pk)), {})

    def test_what_stands_in_the_house_is_planned_first(self):
        week = self.begin()
        self.put(week, "0-dinner-0", f"recipe-{self.recipes[0].pk}")
        week = Week.objects.get(pk=week.pk)
        key = f"recipe-{self.recipes[0].pk}"

        def place():
            found = [one for one in pose(week).problem.candidates if one.key == key]
            return found[0].liked

        before = place()
        self.box()
        self.assertEqual(wants_using(self.client_row), {self.recipes[0].pk})
        self.assertLess(place(), before)
        self.assertLess(place(), 0)
