"""The process that works on jobs ends with the one that started it, and where it is told to."""

import os
from unittest import mock

from django.core.management import call_command
from django.test import SimpleTestCase

from jobs.management.commands import work


class Ends(SimpleTestCase):
    def ended(self, **options):
        """Whether it was over before it looked for anything."""
        seen = []
        with (
            mock.patch.object(work, "work_off", lambda over, rest: seen.append(over())),
            mock.patch.object(work.signal, "signal"),
        ):
            call_command("work", **options)
        return seen

    def test_with_its_parent_even_if_that_went_first(self):
        self.assertEqual(self.ended(with_parent=os.getppid()), [False])
        self.assertEqual(self.ended(with_parent=os.getppid() + 1), [True])
        self.assertEqual(self.ended(), [False])
