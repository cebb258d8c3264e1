"""Visit notes: begun from the record, signed and closed, added to under a name; the dishes that
were liked."""

from datetime import timedelta

from django.utils import timezone

from clients.plan.attention import reasons
from journal.models import LoggedDay, LoggedEntry, Visit
from planner.planned_copies import plan_dish
from planner.testing import DayCase
from week.models import Favorite


class Visits(DayCase):
    def setUp(self):
        super().setUp()
        self.today = timezone.localdate()
        for ago in range(40, 0, -2):
            self.client_row.weigh(self.today - timedelta(days=ago), 100 + ago * 0.05, self.user)
        self.post(self.for_client("/journal/visits/new/"), {"form": "full"})
        self.visit = Visit.objects.get()

    def address(self, tail="", visit=None):
        return self.for_client(f"/journal/visits/{(visit or self.visit).pk}/{tail}")

    def save(self, **data):
        self.visit.refresh_from_db()
        return self.post(self.address(), {"version": self.visit.version} | data)

    def sign(self, **data):
        return self.save(assessment="Doing well", sign="1", signed_as="Marin Oakes, RDN", **data)

    def test_the_figures_are_there_and_the_words_are_not(self):
        page = self.client.get(self.address())
        self.assertContains(page, "by the trend on")
        self.assertContains(page, "0 of 28 days wholly")
        self.assertContains(page, "Diagnosis: problem")
        self.assertEqual(self.visit.words, {})
        self.post(self.for_client("/journal/visits/new/"), {"form": "full"})
        self.assertEqual(Visit.objects.count(), 1, "the one of today is gone on with")

    def test_signed_it_is_closed_with_its_figures(self):
        self.save(assessment="A draft", questions="How is sleep?", keep="1")
        self.sign(questions="How is sleep?", promised="A list")
        self.visit.refresh_from_db()
        self.assertTrue(self.visit.signed and self.visit.figures)
        before = self.visit.figures
        self.client_row.weigh(self.today, 80.0, self.user)
        page = self.client.get(self.address())
        self.assertContains(page, before[0][2])
        self.assertNotContains(page, '<textarea id="f-assessment"')
        late = self.save(assessment="Another story", keep="1")
        self.assertContains(late, "signed note stays", status_code=409)
        self.assertContains(late, "Another story", status_code=409)
        self.visit.refresh_from_db()
        self.assertEqual(self.visit.words["assessment"], "Doing well")
        self.post(self.address("remove/"), {})
        self.assertTrue(Visit.objects.filter(pk=self.visit.pk).exists())

    def test_an_addendum_has_its_own_name_and_date(self):
        self.assertEqual(self.post(self.address("addendum/"), {"words": "x"}).status_code, 302)
        self.assertFalse(self.visit.addenda.exists(), "not signed yet")
        self.sign()
        empty = self.post(self.address("addendum/"), {"words": "The lab called.", "signed_as": ""})
        self.assertContains(empty, "Write your name", status_code=400)
        self.assertContains(empty, "The lab called.", status_code=400)
        self.post(
            self.address("addendum/"), {"words": "The lab called.", "signed_as": "S. Marr, RN"}
        )
        page = self.client.get(self.address())
        self.assertContains(page, "S. Marr, RN")
        self.assertContains(page, "Addendum")

    def test_nothing_is_signed_without_a_name_or_words(self):
        page = self.save(assessment="Words", sign="1", signed_as="")
        self.assertContains(page, "Write your name", status_code=400)
        self.assertContains(page, "Words", status_code=400)
        page = self.save(sign="1", signed_as="Marin")
        self.assertContains(page, "nothing to sign", status_code=400)
        self.visit.refresh_from_db()
        self.assertIsNone(self.visit.signed)

    def test_two_tabs(self):
        old = self.visit.version
        self.save(assessment="From the first tab", keep="1")
        late = self.post(self.address(), {"version": old, "assessment": "From the second"})
        for words in ("From the first tab", "From the second", "not kept yet"):
            self.assertContains(late, words, status_code=409)
        self.visit.refresh_from_db()
        self.assertEqual(self.visit.words["assessment"], "From the first tab")

    def test_the_next_one_begins_with_what_was_asked_and_promised(self):
        self.visit.date = self.today - timedelta(days=20)
        self.visit.save()
        self.sign(questions="How is sleep?", measure="Waist", promised="A list")
        self.post(self.for_client("/journal/visits/new/"), {"form": "short"})
        after = Visit.objects.exclude(pk=self.visit.pk).get()
        page = self.client.get(self.address(visit=after))
        for words in ("How is sleep?", "Waist", "A list", "since the visit of", "How it goes"):
            self.assertContains(page, words)
        self.assertNotContains(page, "Diagnosis: problem")

    def test_a_draft_is_put_away_and_brought_back(self):
        self.post(self.address("remove/"), {})
        self.assertFalse(Visit.objects.exists())
        self.assertContains(self.client.get(self.for_client("/journal/visits/")), "Bring back")
        self.post(self.address("remove/"), {"back": "1"})
        self.assertTrue(Visit.objects.exists())

    def test_a_note_left_open_is_to_be_attended_to(self):
        self.visit.date = self.today - timedelta(days=4)
        self.visit.save()
        self.assertIn("A visit note is not signed", map(str, reasons(self.client_row, self.today)))

    def test_another_practice_reaches_nothing(self):
        self.client.force_login(
            self.other_user, backend="django.contrib.auth.backends.ModelBackend"
        )
        for tail in ("", "addendum/", "remove/"):
            answer = self.post(self.address(tail), {"words": "x", "signed_as": "y"})
            self.assertEqual(answer.status_code, 404, tail)


class Liked(DayCase):
    def test_the_few_that_were_liked_go_to_the_favorites(self):
        today = timezone.localdate()
        for ago in (1, 2, 3):
            log = LoggedDay.objects.create(
                practice=self.practice, client=self.client_row, date=today - timedelta(days=ago)
            )
            row = LoggedEntry(day=log, meal="lunch", recipe=self.recipe, amount=1.0)
            row.how = "left out" if ago == 3 else "as planned"
            plan_dish(row, self.practice)
            row.save()
        page = self.client.get(self.for_client("/journal/liked/"))
        self.assertContains(page, "eaten 2 times, left 1")
        data = {"key": f"recipe-{self.recipe.pk}", "kind": "grain"}
        address = self.for_client("/journal/liked/decided/")
        self.post(address, data | {"verdict": "kept"})
        self.assertEqual(Favorite.objects.get().verdict, "kept")
        self.post(address, data | {"verdict": "refused"})
        self.assertEqual(Favorite.objects.get().verdict, "refused")
        self.post(address, {"key": "recipe-99999", "kind": "grain", "verdict": "kept"})
        self.assertEqual(Favorite.objects.count(), 1)
