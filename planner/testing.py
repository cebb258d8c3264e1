"""A planned day for the tests of this area and of later ones."""

from datetime import date

from bowls.testing import BowlCase
from planner.models import Day, DayEntry


class DayCase(BowlCase):
    """A client's day with their bowl for lunch."""

    @classmethod
    def make_rows(cls):
        super().make_rows()
        cls.day = Day.objects.create(
            practice=cls.practice, client=cls.client_row, date=date(2026, 11, 23)
        )
        cls.entry = DayEntry.objects.create(day=cls.day, meal="lunch", bowl=cls.bowl, amount=1)
