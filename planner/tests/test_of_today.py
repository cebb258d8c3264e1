"""What came in since a day was planned: orders hold at once, the rest is offered; what was eaten
out; a meal's carbohydrate for whom it matters."""

from datetime import timedelta

from django.urls import reverse
from django.utils import timezone

from clients.models import TargetOverride
from clients.plan.versions import make_version
from planner.day import reckon_day
from planner.models import Day, DayEntry
from planner.plans import plan_for
from planner.testing import DayCase


class OfToday(DayCase):
    def setUp(self):
        super().setUp()
        make_version(self.client_row, self.user, "First visit", timezone.localdate())
        self.day = Day.objects.create(
            practice=self.practice,
            client=self.client_row,
            date=timezone.localdate() + timedelta(days=3),
            made_for=self.client_row.target_versions.first(),
        )
        DayEntry.objects.create(day=self.day, meal="dinner", food="kale-raw", amount=300)

    def typed(self, key, kind, **numbers):
        TargetOverride.objects.create(
            client=self.client_row, key=key, kind=kind, reason="letter", by=self.user, **numbers
        )
        make_version(self.client_row, self.user, "letter", timezone.localdate())

    def page(self, name="planner:page"):
        return self.client.get(self.for_client(reverse(name, args=[self.day.pk])))

    def test_an_order_holds_at_once_and_a_choice_is_offered(self):
        before = plan_for(self.day).day["fiber_g"]
        self.typed("potassium_mg", "order", high=800)
        self.typed("fiber_g", "choice", low=50, aim=55)
        plan = plan_for(Day.objects.get(pk=self.day.pk))
        self.assertEqual(plan.day["potassium_mg"].high, 800)
        self.assertEqual(plan.day["fiber_g"], before)
        page = self.page()
        self.assertContains(page, "are newer")
        self.assertContains(page, "Fiber")
        self.post(
            self.for_client(reverse("planner:newer-targets", args=[self.day.pk])),
            {"version": Day.objects.get(pk=self.day.pk).version},
        )
        plan = plan_for(Day.objects.get(pk=self.day.pk))
        self.assertEqual(plan.day["fiber_g"].low, 50)
        self.assertNotContains(self.page(), "are newer")

    def test_what_is_past_keeps_what_held_then(self):
        Day.objects.filter(pk=self.day.pk).update(date=timezone.localdate() - timedelta(days=1))
        self.typed("potassium_mg", "order", high=800)
        plan = plan_for(Day.objects.get(pk=self.day.pk))
        self.assertIsNone(plan.day["potassium_mg"].high)

    def test_a_meal_eaten_out(self):
        add = self.for_client(reverse("planner:add", args=[self.day.pk]))
        data = {"meal": "lunch", "out": "noodles at the pier, about 700 kcal, 500 to 1,000"}
        page = self.post(add, data, htmx=True)
        self.assertContains(page, "noodles at the pier")
        (entry,) = [one for one in reckon_day(self.day).entries if one.kind == "out"]
        energy = entry.profile["energy_kcal"]
        self.assertAlmostEqual(energy.amount, 700, delta=1)
        self.assertAlmostEqual(energy.low, 500, delta=2)
        self.assertEqual(entry.profile["protein_g"].known, 0)
        wrong = self.post(add, {"meal": "lunch", "out": "stew, about 99,000 kcal"}, htmx=True)
        self.assertContains(wrong, "cannot be", status_code=wrong.status_code)

    def test_a_meals_carbohydrate_is_said_for_whom_it_matters(self):
        self.assertNotContains(self.page(), "</strong></a> carbohydrate")
        for condition in ("insulin", "gestational_diabetes"):
            type(self.client_row).objects.filter(pk=self.client_row.pk).update(
                conditions=[condition]
            )
            with self.subTest(condition):
                self.assertContains(self.page(), "</strong></a> carbohydrate")
                self.assertContains(self.page("handouts:day"), "arbohydrate")
