"""Every write of a page is in the record: told by what the database was asked, and not by us."""

import re
from contextlib import contextmanager

from django.db import connection
from django.urls import reverse

from planner.testing import DayCase
from record import chain
from record.models import Entry
from record.recorded import Recorded
from rights.archive.tables import ours

_WRITES = re.compile(r'^(?:INSERT (?:OR \w+ )?INTO|UPDATE|DELETE FROM) "(\w+)"')
_SET = re.compile(r'"(\w+)" = ')
# What is no change of a person's, within tables that are in the record.
OF_ITSELF = {"version", "updated", "history", "proposals", "made", "made_with"}
OF_ITSELF |= {"kcal", "protein_g", "kcal_per_gram", "unsettled"}


def is_told(sql):
    """Whether a statement changes what a person would call changed."""
    if not sql.startswith("UPDATE"):
        return True
    return bool(set(_SET.findall(sql.partition(" WHERE ")[0])) - OF_ITSELF)


class EveryWrite(DayCase):
    def recorded(self):
        return {
            model._meta.db_table: model._meta.label_lower
            for model in ours()
            if issubclass(model, Recorded)
        }

    @contextmanager
    def writes(self):
        tables, seen = self.recorded(), set()

        def look(execute, sql, params, many, context):
            found = _WRITES.match(sql)
            if found and found[1] in tables and is_told(sql):
                seen.add(tables[found[1]])
            return execute(sql, params, many, context)

        with connection.execute_wrapper(look):
            yield seen

    def acts(self):
        row, bowl, day, recipe = self.client_row.pk, self.bowl.pk, self.day.pk, self.recipe.pk
        journal = f"/for/{row}/journal"
        return [
            (f"/clients/{row}/weigh-in/", {"date": "2026-11-20", "kg": "80"}),
            (f"/clients/{row}/shares/", {"breakfast": "20", "lunch": "40", "dinner": "40"}),
            (f"/clients/{row}/watched/", {"watched": "iron_mg"}),
            (f"/clients/{row}/retarget/", {"takes_effect": "2026-11-20", "why": "x"}),
            (f"/clients/{row}/targets/protein_g/", _ORDER),
            (f"/clients/{row}/targets/protein_g/computed/", {}),
            (reverse("bowls:add", args=[bowl]), {"food": "kale-raw"}),
            (reverse("bowls:change", args=[bowl, self.kale.pk]), {"amount": "33 g"}),
            (reverse("bowls:change", args=[bowl, self.kale.pk]), {"star": "1"}),
            (reverse("bowls:undo", args=[bowl]), {}),
            (reverse("bowls:settings", args=[bowl]), {"name": "y", "vessel_ml": "700"}),
            (reverse("bowls:copy", args=[bowl]), {}),
            (reverse("bowls:archive", args=[bowl]), {}),
            (reverse("planner:add", args=[day]), {"food": "kale-raw", "meal": "lunch"}),
            (reverse("planner:change", args=[day, self.entry.pk]), {"amount": "2"}),
            (reverse("planner:undo", args=[day]), {}),
            (f"/for/{row}/days/new/", {"date": "2026-12-24"}),
            (reverse("planner:remove", args=[day]), {}),
            (reverse("planner:remove", args=[day]), {"back": "1"}),
            (reverse("recipes:keep", args=[recipe]), {"why": "as it is"}),
            (reverse("recipes:copy", args=[recipe]), {}),
            (reverse("recipes:remove", args=[recipe]), {}),
            (reverse("recipes:remove", args=[recipe]), {"back": "1"}),
            (f"{journal}/happened/", {"kind": "travel", "start": "2026-11-20"}),
            (f"{journal}/days/2026-11-20/change/", {"text": "an apple, 30 g walnuts"}),
            (f"{journal}/days/2026-11-20/felt/", {"hunger": "4"}),
            (f"{journal}/visits/new/", {"form": "full"}),
            (f"{journal}/blood/add/", _BLOOD),
            (f"/for/{row}/weeks/new/", {"start": "2026-12-07", "days": "7"}),
            (f"/for/{row}/rights/consent/", {"text": "I agree.", "on": "2026-11-20"}),
            (f"/clients/{row}/remove/", {}),
            (f"/clients/{row}/remove/", {"back": "1"}),
            ("/practice/", {"name": "Tern", "measures": "us", "time_zone": "UTC"}),
            ("/people/invite/", {"name": "Joss", "role": "reader"}),
            ("/you/", {"first_name": "Marin", "last_name": "O"}),
        ]

    def test_each(self):
        written = set()
        for address, data in self.acts():
            before = Entry.objects.count()
            with self.writes() as seen:
                answer = self.post(address, data)
            with self.subTest(address, data=data):
                self.assertLess(answer.status_code, 400, answer.content[:300])
                new = Entry.objects.filter(number__gt=before, practice=self.practice.pk)
                told = set(new.values_list("kind", flat=True))
                self.assertTrue(seen, "nothing was written")
                self.assertEqual(seen - told, set())
                written |= seen
        self.assertGreater(len(written), 18)
        self.assertEqual(list(chain.faults(self.practice.pk)), [])

    def test_a_change_that_is_taken_back_leaves_no_entry(self):
        before = Entry.objects.count()
        answer = self.post(f"/clients/{self.client_row.pk}/weigh-in/", {"date": "x", "kg": "x"})
        self.assertEqual(answer.status_code, 400)
        self.assertEqual(Entry.objects.count(), before)

    def test_reading_writes_nothing(self):
        self.client.get("/clients/")
        with self.writes() as seen:
            for address in (
                f"/for/{self.client_row.pk}/clients/{self.client_row.pk}/",
                f"/for/{self.client_row.pk}/bowls/{self.bowl.pk}/",
                f"/for/{self.client_row.pk}/days/{self.day.pk}/",
            ):
                self.assertEqual(self.client.get(address).status_code, 200)
        self.assertEqual(seen, set())


_BLOOD = {"key": "ferritin", "date": "2026-11-20", "value": "40", "unit": "ng/mL"}
_ORDER = {"low": "70", "reason": "x", "kind": "choice", "takes_effect": "2026-11-20"}
