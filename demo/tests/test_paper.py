"""The demo on paper: where its sheets end."""

from datetime import timedelta
from io import BytesIO

from django.conf import settings
from django.test import TestCase
from django_scopes import scope
from pypdf import PdfReader

from demo.load import NAME
from demo.tests.demo_rows import fill
from journal.models import Visit
from kitchen.models import CookingSession
from practice.models import Practice, User
from week.models import Week

FOOT = "does not replace"


class OnPaper(TestCase):
    @classmethod
    def setUpTestData(cls):
        fill()
        cls.user = User.objects.get(username=NAME)

    def setUp(self):
        self.client.force_login(self.user, settings.AUTHENTICATION_BACKENDS[-1])

    def run(self, result=None):
        with scope(practice=Practice.objects.filter(name="Tern Point Wellness").first()):
            return super().run(result)

    def sheets(self, row, path):
        """What stands on each sheet."""
        answer = self.client.get(f"/for/{row.client_id}/{path}?pdf=1")
        return [
            " ".join(page.extract_text().split())
            for page in PdfReader(BytesIO(answer.content)).pages
        ]

    def test_a_week_hangs_on_the_door_as_one_sheet_with_its_caution(self):
        for size in ("letter", "a4"):
            Practice.objects.filter(pk=self.user.practice_id).update(paper_size=size)
            for week in Week.objects.select_related("client"):
                with self.subTest(size=size, client=week.client.name):
                    first, *more = self.sheets(week, f"weeks/{week.pk}/door/")
                    for at in range((week.last - week.start).days + 1):
                        day = week.start + timedelta(days=at)
                        self.assertRegex(first, rf"{day:%a} {day.day}(?!\d)")
                    self.assertIn(FOOT, first)
                    # what is to be cooked follows whole, on this sheet or the next
                    self.assertLessEqual(len(more), 1)
                    self.assertEqual("To cook" in first, not more)

    def test_no_sheet_has_the_caution_alone(self):
        papers = [(row, f"journal/visits/{row.pk}/paper/") for row in Visit.objects.all()]
        papers += [(row, f"kitchen/{row.pk}/sheet/") for row in CookingSession.objects.all()]
        self.assertGreaterEqual(len(papers), 4)
        for row, path in papers:
            with self.subTest(path):
                last = self.sheets(row, path)[-1]
                before = last[: last.index("This ", last.index(FOOT) - 40)]
                self.assertGreater(len(before), 200, last)
