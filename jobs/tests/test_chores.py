"""What is done again and again: when it is due, by one worker, and what became of it."""

from datetime import UTC, datetime, timedelta
from unittest.mock import patch

from django.test import TestCase
from django.utils import timezone

from jobs import chores
from jobs.models import Chore

NOON = datetime(2026, 12, 1, 12, tzinfo=UTC)


class Chores(TestCase):
    def setUp(self):
        kept = dict(chores._KINDS)
        self.addCleanup(lambda: (chores._KINDS.clear(), chores._KINDS.update(kept)))
        chores._KINDS.clear()
        self.done = []

    def at(self, at):
        with (
            patch("django.utils.timezone.now", return_value=at),
            timezone.override("UTC"),
        ):
            return chores.do_what_is_due()

    def test_so_often_and_not_more(self):
        chores.every("fold", 60, lambda: self.done.append(1) or "folded")
        for seconds, times in ((0, 1), (59, 1), (60, 2), (119, 2), (121, 3)):
            self.at(NOON + timedelta(seconds=seconds))
            self.assertEqual(len(self.done), times, seconds)
        self.assertEqual(Chore.objects.get().said, "folded")

    def test_once_a_night_after_two(self):
        chores.nightly("backup", lambda: self.done.append(1) or "")
        midnight = NOON.replace(hour=0)
        # the first time at once: nothing was done before
        self.at(midnight)
        for hours, times in ((1.9, 1), (2.1, 1), (25.9, 1), (26.1, 2), (30, 2), (50.1, 3)):
            self.at(midnight + timedelta(hours=hours))
            self.assertEqual(len(self.done), times, hours)

    def test_one_that_fails_is_said_and_tried_again(self):
        def fails():
            self.done.append(1)
            raise ValueError("secret words")

        chores.every("fold", 60, fails)
        with self.assertLogs("jobs.chores", "ERROR"):
            self.at(NOON)
        row = Chore.objects.get()
        self.assertFalse(row.well)
        self.assertIn("ValueError", row.said)
        self.assertNotIn("secret", row.said)
        with self.assertLogs("jobs.chores", "ERROR"):
            self.at(NOON + timedelta(seconds=61))
        self.assertEqual(len(self.done), 2)

    def test_a_clock_set_back_stops_nothing(self):
        chores.every("fold", 60, lambda: self.done.append(1) or "")
        self.at(NOON + timedelta(days=3))
        self.at(NOON)
        self.assertEqual(len(self.done), 2)

    def test_of_two_workers_one_does_it(self):
        chores.every("fold", 60, lambda: self.done.append(1) or "")
        self.at(NOON)
        last = Chore.objects.get().last
        later = NOON + timedelta(minutes=2)
        self.assertTrue(chores._claimed("fold", last, later))
        self.assertFalse(chores._claimed("fold", last, later))
