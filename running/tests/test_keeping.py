"""Which backups are kept: a year of them, and each edge."""

from datetime import UTC, datetime, timedelta
from unittest import TestCase

from running.keeping import kept

LONGEST = timedelta(days=190)
NOW = datetime(2026, 12, 1, 3, tzinfo=UTC)


def days_ago(*days, hour=2):
    return [NOW.replace(hour=hour) - timedelta(days=ago) for ago in days]


class Keeping(TestCase):
    def test_a_year_of_nights(self):
        there, most = set(), 0
        for night in range(400):
            now = datetime(2026, 1, 1, 2, 30, tzinfo=UTC) + timedelta(days=night)
            there.add(now)
            if night % 9 == 4:
                # one by hand before an upgrade
                there.add(now.replace(hour=1))
            there = kept(there, now, LONGEST)
            most = max(most, len(there))
            self.assertIn(now, there)
            self.assertLessEqual(now - min(there), LONGEST)
        # fourteen days, eight weeks and six months, which have three at least in common
        self.assertEqual(most, 25)
        ages = sorted((now - at).days for at in there)
        self.assertEqual(ages[:14], list(range(14)))
        self.assertGreater(ages[-1], 120)
        weeks = {at.strftime("%G-%V") for at in there}
        self.assertGreaterEqual(len(weeks), 8)

    def test_fourteen_days_and_not_fifteen(self):
        # all of one week and month but for the days
        there = days_ago(*range(20))
        days = {(NOW - at).days for at in kept(there, NOW, LONGEST)}
        self.assertTrue(set(range(14)) <= days)
        # the sixteenth of November is the newest of its week, and is kept as that
        self.assertEqual(days - set(range(14)), {16})

    def test_of_two_days_all_are_kept(self):
        newest = NOW - timedelta(hours=1)
        for hours, there in ((47, True), (49, False)):
            at = NOW - timedelta(hours=hours)
            later = at + timedelta(minutes=1)
            self.assertEqual(at in kept([newest, later, at], NOW, LONGEST), there, hours)

    def test_the_newest_of_a_day_stands_for_it(self):
        early, late = days_ago(3, hour=2)[0], days_ago(3, hour=3)[0]
        self.assertEqual(kept([early, late], NOW, LONGEST), {late})

    def test_none_is_kept_beyond_the_term_but_the_only_one(self):
        newest, within, beyond = days_ago(1)[0], *days_ago(189), *days_ago(191)
        self.assertIn(within, kept([newest, within], NOW, LONGEST))
        self.assertNotIn(beyond, kept([newest, beyond], NOW, LONGEST))
        self.assertEqual(kept([beyond], NOW, LONGEST), {beyond})

    def test_a_clock_that_was_set_back_takes_none_away(self):
        ahead = [NOW + timedelta(days=at) for at in (1, 2, 30)]
        past = days_ago(0, 1, 2)
        self.assertEqual(kept([*ahead, *past], NOW, LONGEST), {*ahead, *past})
