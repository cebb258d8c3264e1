"""Archived, deleted, copied and brought back: the same for everything that is kept."""

from django.urls import reverse

from bowls.models import Bowl
from planner.models import Day
from planner.testing import DayCase


class PutAwayAndBack(DayCase):
    def test_archived_it_leaves_the_lists_and_stays_where_it_is_used(self):
        for kind, record in (("bowls", self.bowl), ("recipes", self.recipe), ("planner", self.day)):
            with self.subTest(kind):
                address = self.for_client(reverse(f"{kind}:archive", args=[record.pk]))
                listed = self.for_client(reverse(f"{kind}:list"))
                shown = str(record) if kind != "planner" else "Mon, Nov 23"
                self.client.post(address)
                self.assertNotContains(self.client.get(listed), f">{shown}</a>")
                self.assertContains(self.client.get(listed, {"show": "archived"}), shown)
                self.client.post(address, {"back": "1"})
                self.assertContains(self.client.get(listed), shown)
        self.assertEqual(self.bowl.parts.count(), 3)

    def test_deleted_it_is_offered_back_at_once(self):
        for kind, record in (("bowls", self.bowl), ("recipes", self.recipe), ("planner", self.day)):
            with self.subTest(kind):
                address = self.for_client(reverse(f"{kind}:remove", args=[record.pk]))
                page = self.client.post(address, follow=True)
                self.assertContains(page, "is deleted.")
                self.assertContains(page, ">Undo</button>")
                self.client.post(address, {"back": "1"})
                self.assertTrue(type(record).objects.filter(pk=record.pk).exists())

    def test_duplicated(self):
        self.client.post(self.for_client(reverse("bowls:copy", args=[self.bowl.pk])))
        self.assertEqual(Bowl.objects.exclude(pk=self.bowl.pk).get().parts.count(), 3)
        self.client.post(self.for_client(reverse("recipes:copy", args=[self.recipe.pk])))
        copy = type(self.recipe).objects.get(title="Dill barley, another")
        self.assertEqual((copy.text, copy.origin), (self.recipe.text, self.recipe))
        copy_day = self.for_client(reverse("planner:copy", args=[self.day.pk]))
        self.client.post(copy_day, {"date": "2026-12-01"})
        self.assertEqual(Day.objects.get(date="2026-12-01").entries.count(), 1)
        taken = self.client.post(copy_day, {"date": "2026-12-01"}, follow=True)
        self.assertContains(taken, "no plan yet")

    def test_a_bowl_is_put_into_a_day(self):
        page = self.client.post(
            self.for_client("/days/put/"),
            {"bowl": self.bowl.pk, "date": "2026-12-02", "meal": "dinner"},
            follow=True,
        )
        self.assertContains(page, "Harbor bowl stands in Wednesday, December 2 now.")
        entry = Day.objects.get(date="2026-12-02").entries.get()
        self.assertEqual((entry.meal, entry.bowl), ("dinner", self.bowl))
        self.assertIsNotNone(entry.planned)


class Archive(DayCase):
    def test_a_client_is_archived_with_all_that_is_theirs_and_comes_back(self):
        address = reverse("clients:remove", args=[self.client_row.pk])
        page = self.client.post(address, follow=True)
        self.assertContains(page, "archived, with 1 bowl, 1 planned day")
        self.assertNotContains(page, '<td><a class="font-bold"')
        self.assertContains(
            self.client.get(reverse("clients:page", args=[self.client_row.pk])),
            "archived this client",
        )
        self.assertEqual(
            self.client.get(reverse("planner:page", args=[self.day.pk])).status_code, 200
        )
        self.client.post(address, {"back": "1"})
        self.assertContains(self.client.get("/clients/"), "Osk Brannigan")

    def test_everything_that_is_kept_can_be_taken_away_and_brought_back(self):
        for name, record in (
            ("recipes", self.recipe),
            ("bowls", self.bowl),
            ("planner", self.day),
        ):
            with self.subTest(name):
                remove, page = (
                    reverse(f"{name}:{what}", args=[record.pk]) for what in ("remove", "page")
                )
                gone = self.client.post(self.for_client(remove), follow=True)
                self.assertContains(gone, "Deleted lately")
                self.assertFalse(type(record).objects.filter(pk=record.pk).exists())
                self.assertContains(self.client.get(page), "took this")
                self.client.post(remove, {"back": "1"})
                self.assertTrue(type(record).objects.filter(pk=record.pk).exists())
        self.client.post(reverse("recipes:remove", args=[self.recipe.pk]))
        self.assertContains(
            self.client.get(reverse("bowls:page", args=[self.bowl.pk])),
            "Dill barley",
            msg_prefix="the bowl keeps it",
        )
