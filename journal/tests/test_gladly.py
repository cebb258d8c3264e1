"""What was eaten again and never left comes into the next weeks by itself."""

from datetime import timedelta

from django.urls import reverse
from django.utils import timezone
from django_scopes import scope

from clients.plan.gate import gate_of
from clients.plan.in_force import plan_of
from journal.models import LEFT_OUT, LoggedDay, LoggedEntry
from recipes.models import Recipe
from week.favorites import eaten_gladly, for_planning
from week.tests.test_week import WeekCase


class Gladly(WeekCase):
    def setUp(self):
        super().setUp()
        self.begin()
        self.address = self.for_client(reverse("week:favorites"))
        self.decided = self.for_client(reverse("week:decided"))

    def planned_with(self, kind):
        plan = plan_of(self.client_row)
        return for_planning(self.client_row, [kind], plan, gate_of(plan))[1][kind]

    def test_what_was_eaten_again_and_never_left_comes_in_by_itself(self):
        with scope(practice=self.practice):
            today = timezone.localdate()
            for back in (1, 2):
                day = LoggedDay.objects.create(
                    client=self.client_row, practice=self.practice, date=today - timedelta(back)
                )
                for recipe in (self.soup, self.stew):
                    left = recipe == self.stew and back == 2
                    self.log(day, recipe, LEFT_OUT if left else "as planned")
        self.assertEqual(eaten_gladly(self.client_row), [f"recipe-{self.soup.pk}"])
        self.assertIn(f"recipe-{self.soup.pk}", self.planned_with("soup"))
        self.assertContains(self.client.get(self.address), "Eaten gladly")
        refused = {"kind": "soup", "key": f"recipe-{self.soup.pk}", "refuse": "1"}
        self.post(self.decided, refused)
        self.assertNotIn(f"recipe-{self.soup.pk}", self.planned_with("soup"))

    def log(self, day, recipe: Recipe, how):
        LoggedEntry.objects.create(day=day, meal="lunch", recipe=recipe, amount=1.0, how=how)
