"""Days that were reckoned stay at hand, for as many threads as ask."""

import sys
from concurrent.futures import ThreadPoolExecutor

from django.test import SimpleTestCase

from journal.record import days


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
