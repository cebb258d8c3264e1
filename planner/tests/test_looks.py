"""The list of clients looks anew at whoever something was changed of, days among it."""

from datetime import date

from django.utils import timezone

from clients.models import Client, WeighIn
from clients.plan.looks import keep, not_up_to_date
from nutrition.safety.caution_rules import rules
from planner.models import Day
from planner.testing import DayCase


class Looks(DayCase):
    def waiting(self, on=None):
        return not_up_to_date(Client.objects.all(), on or timezone.localdate()).count()

    def fresh(self):
        keep(Client.objects.all(), timezone.localdate())
        self.assertEqual(self.waiting(), 0)

    def test_every_change_of_what_is_theirs_makes_it_stale(self):
        row = self.client_row
        changes = (
            lambda: row.save(),
            lambda: WeighIn.objects.create(client=row, date=date(2026, 11, 20), kg=99),
            lambda: row.weigh_ins.first().remove(self.user),
            lambda: row.supplements.create(key="vitamin_b12_ug", dose=500),
            lambda: row.blood_values.create(
                key="potassium", value=4.2, unit="mmol/L", date=date(2026, 11, 20), by=self.user
            ),
            lambda: Day.objects.create(practice=self.practice, client=row, date=date(2026, 12, 9)),
            lambda: Day.objects.first().delete(),
            lambda: self.client.post(
                f"/clients/{row.pk}/cautions/", {"code": rules()[0].code, "why": "looked at"}
            ),
        )
        for number, change in enumerate(changes):
            with self.subTest(number):
                self.fresh()
                change()
                self.assertEqual(self.waiting(), 1)
