"""Why it stalls, the one change that is taken, and what becomes of it."""

import re
from datetime import timedelta

from django.utils import timezone

from clients.models import Client
from clients.plan.attention import reasons
from clients.plan.in_force import plan_of
from journal.models import LoggedDay, LoggedEntry, TakenChange
from journal.record.reading import read
from nutrition.tests.thorough import thorough
from planner.models import Day, DayEntry
from planner.testing import DayCase
from practice.testing import as_shown


class Stalls(DayCase):
    def setUp(self):
        super().setUp()
        self.today = timezone.localdate()
        for ago in range(90, 0, -2):
            kg = 108.0 - max(90 - ago, 0) * 0.09 if ago > 36 else 103.1
            self.client_row.weigh(
                self.today - timedelta(days=ago), round(kg + 0.2 * (ago % 3 - 1), 1), self.user
            )
        for ago in range(60, 0, -1):
            self.eaten(ago, 15 if ago > 44 else 70)

    def eaten(self, ago, walnuts):
        log = LoggedDay.objects.create(
            practice=self.practice,
            client=self.client_row,
            date=self.today - timedelta(days=ago),
            whole=True,
        )
        for slug, grams in (
            ("lentils-cooked", 500),
            ("potato-boiled", 700),
            ("tofu-firm", 300),
            ("rye-bread", 160),
            ("walnuts", walnuts),
        ):
            LoggedEntry.objects.create(
                day=log,
                meal="lunch",
                food=slug,
                amount=grams,
                low_g=grams * 0.94,
                high_g=grams * 1.06,
            )

    def known(self):
        client = Client.objects.get(pk=self.client_row.pk)
        return read(client, self.today, plan_of(client))

    def page(self):
        return self.client.get(self.for_client("/journal/stall/"))

    def test_the_explanation_and_its_lever(self):
        known = self.known()
        self.assertTrue(known.judged.stalled)
        self.assertIn("portions", [one.key for one in known.causes])
        self.assertTrue(known.levers)
        page = self.page()
        self.assertContains(page, "Portions of a few dense foods grew")
        self.assertContains(page, "Walnuts: 70 g a day, 15 g before")
        self.assertContains(page, "Take this one")
        said = str(reasons(self.client_row, self.today)[0])
        self.assertIn("Not losing as expected", said)
        self.assertContains(self.client.get("/clients/"), "since")

    @thorough
    def test_every_page_with_days_but_few_weigh_ins(self):
        pages = ("", "weights/", "days/", "eaten/", "liked/", "stall/", "blood/", "visits/")
        for left in (3, 2, 1, 0):
            keep = self.client_row.weigh_ins.order_by("-date").values_list("pk", flat=True)[:left]
            self.client_row.weigh_ins.exclude(pk__in=list(keep)).delete()
            for page in pages:
                with self.subTest(page=page, weigh_ins=left):
                    answer = self.client.get(self.for_client(f"/journal/{page}"), follow=True)
                    self.assertEqual(answer.status_code, 200)
            visit = self.post(self.for_client("/journal/visits/new/"), {"form": "full"})
            self.assertEqual(self.client.get(visit["Location"]).status_code, 200)
            self.assertContains(self.client.get("/clients/"), self.client_row.name)
        self.assertIsNone(self.known().need)

    def test_nothing_is_proposed_to_whom_counting_harms(self):
        self.client_row.conditions = ["eating_disorder_history"]
        self.client_row.save()
        page = self.page()
        self.assertContains(page, "Nothing is proposed here")
        self.assertNotContains(page, "Take this one")

    def test_levers_never_go_under_what_is_planned_at_the_least(self):
        LoggedEntry.objects.exclude(food="walnuts").delete()
        self.assertEqual(self.known().levers, [])

    def take(self, **more):
        page = as_shown(self.page().content).decode()
        words, edits = (
            re.search(rf'name="{name}" value="(.*?)"', page)[1] for name in ("words", "edits")
        )
        data = {"words": words, "edits": edits, "reason": "walnuts grew", "start": str(self.today)}
        return self.post(self.for_client("/journal/stall/take/"), data | more)

    def test_taken_written_into_the_plan_and_undone(self):
        self.take()
        row = TakenChange.objects.get()
        self.assertTrue(row.edits)
        day = Day.objects.create(
            practice=self.practice,
            client=self.client_row,
            date=self.today + timedelta(days=2),
        )
        DayEntry.objects.create(day=day, meal="snack", food="walnuts", amount=70)
        DayEntry.objects.create(day=day, meal="lunch", food="lentils-cooked", amount=500)
        page = self.page()
        self.assertContains(page, "Write it into 1 plan")
        self.assertContains(
            self.client.get(self.for_client(f"/days/{day.pk}/")), "<strong>Agreed:</strong>"
        )
        self.post(self.for_client(f"/journal/changes/{row.pk}/write/"), {})
        walnuts = day.entries.get(food="walnuts")
        self.assertLess(walnuts.amount, 70)
        self.assertEqual(day.entries.get(food="lentils-cooked").amount, 500)
        day.refresh_from_db()
        self.post(self.for_client(f"/days/{day.pk}/undo/"), {"version": day.version})
        self.assertEqual(day.entries.get(food="walnuts").amount, 70)

    def test_a_form_that_was_changed_on_the_way_writes_nothing(self):
        self.take(edits="WzFd:forged")
        self.assertEqual(TakenChange.objects.get().edits, [])

    def test_one_at_a_time_unless_said(self):
        self.take()
        second = {"words": "no wine", "reason": "weekends", "start": str(self.today)}
        address = self.for_client("/journal/stall/take/")
        asked = self.post(address, second)
        self.assertContains(asked, "One change at a time", status_code=400)
        self.assertContains(asked, "no wine", status_code=400)
        self.post(address, second | {"besides": "1"})
        self.assertEqual(TakenChange.objects.count(), 2)

    def test_what_became_of_it(self):
        row = TakenChange.objects.create(
            client=self.client_row,
            words="fewer walnuts",
            reason="they grew",
            start=self.today - timedelta(days=22),
            pace_kg=0.0,
            by=self.user,
        )
        self.assertContains(self.page(), "Since then")
        needs = [str(one) for one in reasons(self.client_row, self.today)]
        self.assertIn("See whether it worked: fewer walnuts", needs)
        address = self.for_client(f"/journal/changes/{row.pk}/")
        self.assertEqual(self.post(address, {f"{row.pk}-outcome": ""}).status_code, 400)
        self.post(address, {f"{row.pk}-outcome": "not", f"{row.pk}-outcome_words": "he forgot"})
        row.refresh_from_db()
        self.assertEqual((row.outcome, row.ended), ("not", self.today))
        self.assertContains(self.page(), "It did not")

    def test_the_eaten_page(self):
        page = self.client.get(self.for_client("/journal/eaten/?days=28"))
        self.assertContains(page, "27 wholly logged")
        self.assertContains(page, "A day, on average")
        self.assertContains(self.client.get(self.for_client("/journal/eaten/?days=x")), "14")
