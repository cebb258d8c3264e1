"""Days that were reckoned stay at hand, for as many threads as ask."""

import sys
from concurrent.futures import ThreadPoolExecutor
from datetime import date

from django.test import SimpleTestCase

from journal.record import days
from nutrition.composition.profile import INDEX
from nutrition.composition.supplements import Supplement


class Kept(SimpleTestCase):
    def test_many_threads_at_once(self):
        before = sys.getswitchinterval()
        self.addCleanup(sys.setswitchinterval, before)
        self.addCleanup(days._kept.clear)
        sys.setswitchinterval(1e-6)

        def ask(thread):
            for at in range(3000):
                # more states than are kept, so that some leave while others come
                state = (thread * 7 + at) % (days.KEPT_DAYS + 300)
                key = ("test", state)
                days._keep({key: ()})
                self.assertEqual(days._known([key]).get(key, ()), ())
            return True

        with ThreadPoolExecutor(4) as threads:
            self.assertTrue(all(threads.map(ask, range(4))))
        self.assertLessEqual(len(days._kept), days.KEPT_DAYS)

    def test_a_day_is_the_same_object_while_it_holds_the_same(self):
        self.addCleanup(days._days.clear)
        on, eaten, planned = date(2026, 3, 2), (object(),), ()
        b12 = (Supplement("vitamin_b12_ug", 50.0, "", 7.0),)
        day = days._day(on, True, eaten, planned, b12)
        self.assertIs(days._day(on, True, eaten, planned, b12), day)
        for other in (
            (on, False, eaten, planned, b12),
            (on, True, (eaten[0],), planned, b12),
            (on, True, eaten, (object(),), b12),
            (on, True, eaten, planned, ()),
            (date(2026, 3, 3), True, eaten, planned, b12),
        ):
            self.assertIsNot(days._day(*other), day)
        self.assertEqual(day.supplements.amounts[INDEX["vitamin_b12_ug"]], 50.0)
        self.assertIsNone(days._day(on, True, eaten, planned, ()).supplements)
