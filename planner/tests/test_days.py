"""Days: bowls, dishes and single foods in meals, against the targets."""

import re

from django.urls import reverse

from changes.testing import offers
from clients.models import Client, ClientSupplement
from nutrition.composition.amounts import amount_of
from nutrition.composition.foods import food_table
from planner.day import reckon_day
from planner.models import Day, DayEntry
from planner.testing import DayCase
from webkit import figures


class Days(DayCase):
    def add(self, **data):
        return self.post(reverse("planner:add", args=[self.day.pk]), data, htmx=True)

    def set(self, entry, text, htmx=True):
        return self.post(
            reverse("planner:change", args=[self.day.pk, entry.pk]), {"amount": text}, htmx
        )

    def test_the_day_is_the_sum_of_its_meals(self):
        self.add(meal="dinner", recipe=self.recipe.pk)
        self.add(meal="snack", food="walnuts")
        reckoned = reckon_day(self.day)
        self.assertEqual([len(meal.entries) for meal in reckoned.meals], [0, 1, 1, 1])
        total = sum(meal.profile["energy_kcal"].amount for meal in reckoned.meals)
        self.assertAlmostEqual(reckoned.profile["energy_kcal"].amount, total)
        page = self.client.get(reverse("planner:page", args=[self.day.pk]))
        self.assertContains(page, "beside")
        self.assertContains(page, "under by")

    def test_amounts(self):
        before = reckon_day(self.day).profile["protein_g"].amount
        self.set(self.entry, "1/2")
        self.assertAlmostEqual(reckon_day(self.day).profile["protein_g"].amount, before / 2)
        self.add(meal="snack", food="walnuts")
        walnuts = self.day.entries.get(food="walnuts")
        self.set(walnuts, "1/4 cup")
        walnuts.refresh_from_db()
        quarter = food_table()["walnuts"].cup.grams / 4
        self.assertAlmostEqual(walnuts.amount, quarter)
        self.assertLess(walnuts.low_g, quarter)

    def test_a_bad_amount_keeps_what_was_typed(self):
        for htmx, status in ((True, 200), (False, 400)):
            page = self.set(self.entry, "a few", htmx)
            self.assertContains(page, "“a few” is not a count", status_code=status)
            self.assertContains(page, 'value="a few"', status_code=status)
        self.assertContains(self.set(self.entry, "50"), "up to 20")

    def test_take_out_and_undo(self):
        page = self.post(
            reverse("planner:change", args=[self.day.pk, self.entry.pk]), {"remove": "1"}, htmx=True
        )
        self.assertEqual(self.day.entries.count(), 0)
        self.assertContains(page, "Undo")
        for _ in range(2):
            self.post(reverse("planner:undo", args=[self.day.pk]), {})
        back = self.day.entries.get()
        self.assertEqual((back.bowl, back.meal, back.amount), (self.bowl, "lunch", 1))

    def test_open_a_day_for_the_client_in_the_address(self):
        self.client.post("/days/new/", {"date": "2026-12-01"})
        self.client.get(reverse("clients:page", args=[self.client_row.pk]))
        self.client.post("/days/new/", {"date": "2026-12-01"})
        self.assertEqual(
            Day.objects.count(), 1, "no client in the address, no day, whoever was looked at before"
        )
        for _ in range(2):
            self.client.post(self.for_client("/days/new/"), {"date": "2026-12-01"})
        self.assertEqual(Day.objects.filter(date="2026-12-01", client=self.client_row).count(), 1)
        self.assertContains(self.client.get(self.for_client("/days/")), "Dec 1")

    def test_find(self):
        address = reverse("planner:find", args=[self.day.pk])
        page = self.client.get(
            address, {"q": "harbor", "meal": "dinner"}, headers={"HX-Request": "true"}
        )
        self.assertContains(page, "Harbor bowl")
        self.assertContains(self.client.get(address, {"q": "walnut"}), 'value="walnuts"')
        self.post(reverse("planner:add", args=[self.day.pk]), {"food": "egg-boiled"})
        self.assertEqual(self.day.entries.count(), 1, "an animal food is never added")

    def test_what_is_added_goes_into_the_meal_that_is_balanced(self):
        DayEntry.objects.create(day=self.day, meal="dinner", food="kale-raw", amount=60)
        address = reverse("planner:balance", args=[self.day.pk])
        asked = {"meal": "dinner", "goal": "at least 30 g protein"}
        page = self.client.get(address, asked, headers={"HX-Request": "true"})
        self.assertContains(page, "protein at least 30.0 g")
        text = page.content.decode()
        slug = re.search(r'name="food-([a-z-]+)"', text)[1]
        grams = re.search(rf'name="grams-{slug}" value="([\d.]+)"', text)[1]
        sent = {"take": slug, f"food-{slug}": slug, f"grams-{slug}": grams, "meal": "dinner"}
        self.assertIn('name="meal" value="dinner"', text)
        self.post(address, {"version": self.day.version} | sent)
        row = self.day.entries.get(food=slug)
        self.assertEqual((row.meal, row.amount), ("dinner", float(grams)))

    def test_less_of_a_line_of_a_planned_dish(self):
        entry = DayEntry.objects.create(day=self.day, meal="dinner", recipe=self.recipe, amount=1)
        address = reverse("planner:balance", args=[self.day.pk])
        sent = {"less": str(entry.pk), "less-food": "salt", "less-left": "0.5"}
        page = self.post(address, {"version": self.day.version} | sent, htmx=True)
        self.assertContains(page, "is made with less salt")
        entry.refresh_from_db()
        self.assertEqual(entry.recipe.origin, self.recipe)
        bowl = {"less": str(self.entry.pk), "less-food": "salt", "less-left": "0.5"}
        self.day.refresh_from_db()
        page = self.post(address, {"version": self.day.version} | bowl, htmx=True)
        self.assertContains(page, "Only a recipe in a bowl or a day")

    def test_balance_the_day_take_one_entry_and_undo(self):
        DayEntry.objects.create(day=self.day, meal="dinner", recipe=self.recipe, amount=1)
        DayEntry.objects.create(day=self.day, meal="snack", food="tahini", amount=30)
        address = reverse("planner:balance", args=[self.day.pk])
        page = self.client.get(address, headers={"HX-Request": "true"})
        self.assertContains(page, "whole day, supplements counted")
        self.assertContains(
            page, "Breakfast: still empty. The rest is balanced for its 70 % of the day."
        )
        self.assertContains(page, 'class="ghost"')
        self.assertNotContains(page, "data-drag", msg_prefix="nothing is dragged in this picture")
        self.assertContains(
            page, "every proposal leaves it out", msg_prefix="sesame is not tolerated"
        )
        offered = dict(re.findall(r'name="grams-(\d+)" value="([\d.]+)"', page.content.decode()))
        self.assertIn(str(self.entry.pk), offered)
        before = {row.pk: row.amount for row in self.day.entries.all()}
        asked = {f"grams-{pk}": grams for pk, grams in offered.items()}
        self.post(address, {"take": str(self.entry.pk), "version": self.day.version} | asked)
        after = {row.pk: row.amount for row in self.day.entries.all()}
        self.assertNotEqual(after[self.entry.pk], 1)
        self.assertAlmostEqual(
            after[self.entry.pk] * 4,
            round(after[self.entry.pk] * 4),
            places=2,
            msg="by the quarter bowl",
        )
        self.assertEqual(
            {pk: amount for pk, amount in after.items() if pk != self.entry.pk},
            {pk: before[pk] for pk in before if pk != self.entry.pk},
        )
        self.post(reverse("planner:undo", args=[self.day.pk]), {})
        self.assertEqual({row.pk: row.amount for row in self.day.entries.all()}, before)
        self.post(reverse("planner:change", args=[self.day.pk, self.entry.pk]), {"lock": "1"})
        meal = self.client.get(address, {"meal": "lunch"}, headers={"HX-Request": "true"})
        self.assertNotIn(f'name="grams-{self.entry.pk}"', meal.content.decode(), "locked")

    def test_a_swap_in_the_day_and_undo(self):
        DayEntry.objects.create(day=self.day, meal="dinner", food="soy-sauce", amount=60)
        address = reverse("planner:swap", args=[self.day.pk])
        offered = offers(self.client.get(address, headers={"HX-Request": "true"}))
        token = next(
            token
            for words, token in offered
            if "instead of soy sauce" in words and ";" not in words
        )
        before = {(row.meal, row.food) for row in self.day.entries.all()}
        self.assertContains(
            self.post(address, {"change": token}, htmx=True), "instead of soy sauce"
        )
        after = {(row.meal, row.food) for row in self.day.entries.all()}
        self.assertNotIn(("dinner", "soy-sauce"), after)
        self.assertEqual(len(after), len(before))
        self.post(reverse("planner:undo", args=[self.day.pk]), {})
        self.assertEqual({(row.meal, row.food) for row in self.day.entries.all()}, before)
        stale = next(token for words, token in offered if words.startswith("Add "))
        self.assertContains(
            self.post(address, {"change": stale}, htmx=True), "look at the swaps again"
        )
        page = self.client.get(address, headers={"HX-Request": "true"})
        fresh = next(token for words, token in offers(page) if words.startswith("Add "))
        self.post(f"{address}?meal=lunch", {"change": fresh})
        self.assertEqual(self.day.entries.filter(meal="lunch").count(), 2)

    def test_supplements_and_what_is_locked_count_once_in_swaps(self):
        ClientSupplement.objects.create(client=self.client_row, key="zinc_mg", dose=1, per_week=7)
        Client.objects.filter(pk=self.client_row.pk).update(
            watched=["energy_kcal", "protein_g", "zinc_mg"]
        )
        DayEntry.objects.filter(pk=self.entry.pk).update(locked=True)
        for meal in ("breakfast", "dinner"):
            DayEntry.objects.create(day=self.day, meal=meal, food="white-rice-cooked", amount=100)
        reckoned = reckon_day(self.day)
        page = self.client.get(
            reverse("planner:swap", args=[self.day.pk]), headers={"HX-Request": "true"}
        )
        gaps = [*page.context["gaps"], *page.context["also_short"]]
        readings = {
            row.key: row.value
            for row in [*(gap.reading for gap in gaps), *page.context["no_change_fills"]]
        }
        self.assertIn("zinc_mg", readings)
        for key, value in readings.items():
            self.assertEqual(value, figures.amount(amount_of(reckoned.profile, key), key))
