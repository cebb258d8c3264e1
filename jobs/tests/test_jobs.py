"""Jobs in their table: in line, under a lease, told how far they are, stopped, interrupted, given
up."""

from datetime import timedelta

from django.test import TestCase
from django.utils import timezone
from django_scopes import scope, scopes_disabled

from jobs import work
from jobs.models import Job
from jobs.queue import ask_to_stop, begin, job_of, waits_for
from jobs.testing import work_off_now
from jobs.work import CannotBe, claim, does, work_on
from nutrition.composition.foods import food_table
from practice.models import Practice, User
from practice.testing import PracticeCase


def said(job, tell):
    """Says what it was asked, for whom, and where."""
    return [f"{job.asked.get('word')} in {job.practice.name}", str(food_table().key)]


def refused(job, tell):
    raise CannotBe("There is nothing to do.")


def broken(job, tell):
    raise ZeroDivisionError("not for a person to read")


def stopping(job, tell):
    Job.objects.filter(pk=job.pk).update(stop=True)
    return [f"stopped: {tell(0.4, 'halfway')}"]


class JobCase(PracticeCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        kept = dict(work._KINDS)
        cls.addClassCleanup(lambda: (work._KINDS.clear(), work._KINDS.update(kept)))
        for kind in (said, refused, broken, stopping):
            does(kind.__name__, kind)

    def begin(self, kind="said", about="a", **asked):
        return begin(self.practice, self.user, kind, about, asked)

    def ended(self, job):
        work_off_now()
        job.refresh_from_db()
        return job.state, job.told

    def moved(self, job, **times):
        """The job with some of its times so many seconds from now."""
        now = timezone.now()
        Job.objects.filter(pk=job.pk).update(
            **{name: now + timedelta(seconds=by) for name, by in times.items()}
        )
        job.refresh_from_db()
        return job


class WorkedOff(JobCase):
    def test_in_the_scope_of_its_practice_and_over_in_words(self):
        state, told = self.ended(self.begin(word="gulls"))
        self.assertEqual((state, told[0]), ("done", "gulls in Tern Point Wellness"))
        self.assertEqual(self.ended(self.begin("refused")), ("failed", ["There is nothing to do."]))
        with self.assertLogs("jobs.work", "ERROR"):
            failed = self.ended(self.begin("broken"))
        self.assertEqual(
            failed, ("failed", ["It failed, and says so in the log. Nothing was changed."])
        )

    def test_one_after_the_other_whoevers_they_are(self):
        with scope(practice=self.other_practice):
            theirs = begin(self.other_practice, self.other_user, "said", "b")
        mine = self.begin()
        self.assertEqual(waits_for(mine), "1 before it")
        self.assertEqual(claim().pk, theirs.pk)
        self.assertEqual(claim().pk, mine.pk)
        self.assertIsNone(claim())

    def test_a_kind_that_nothing_does_is_left_alone(self):
        self.begin("unheard of")
        self.assertEqual(work_off_now(), 0)

    def test_what_is_asked_again_takes_the_place_of_what_waits_and_stops_what_runs(self):
        first = self.begin()
        second = self.begin()
        self.assertFalse(Job.objects.filter(pk=first.pk).exists())
        claim()
        third = self.begin()
        second.refresh_from_db()
        self.assertTrue(second.stop)
        self.assertEqual(self.begin(about="another").state, "waiting")
        self.assertTrue(Job.objects.filter(pk=third.pk).exists())

    def test_stopped(self):
        self.assertEqual(self.ended(self.begin("stopping")), ("done", ["stopped: True"]))
        waiting = self.begin()
        ask_to_stop(waiting)
        self.assertEqual(self.ended(waiting), ("failed", ["It was stopped before it began."]))

    def test_nobody_elses_is_seen(self):
        job = self.begin()
        self.assertIsNotNone(job_of(job.pk, "said", "a"))
        self.assertIsNone(job_of(job.pk, "said", "b"))
        self.assertIsNone(job_of(job.pk, "refused", "a"))
        with scope(practice=self.other_practice):
            self.assertIsNone(job_of(job.pk, "said", "a"))


class Interrupted(JobCase):
    def test_a_lease_that_ran_out_is_begun_again_once_and_then_ends_in_words(self):
        job = self.begin()
        self.assertEqual(claim().pk, job.pk)
        job.refresh_from_db()
        left = (job.lease_until - timezone.now()).total_seconds()
        self.assertTrue(25 < left <= 30, left)
        self.moved(job, lease_until=1)
        self.assertIsNone(claim(), "somebody still holds it")
        self.moved(job, lease_until=-1)
        again = claim()
        self.assertEqual((again.pk, again.tries), (job.pk, 2))
        self.moved(job, lease_until=-1)
        self.assertIsNone(claim())
        job.refresh_from_db()
        self.assertEqual(job.state, "failed")
        self.assertIn("interrupted twice", job.told[0])

    def test_what_nobody_looks_at_is_given_up(self):
        job = self.moved(self.begin(), looked=-80)
        self.assertEqual(self.ended(job)[0], "done")
        job = self.moved(self.begin(), looked=-100)
        self.assertEqual(self.ended(job)[0], "failed")
        self.assertIn("Nobody looked", job.told[0])
        job = self.moved(self.begin("stopping"), looked=-100)
        telling = work._Telling(job.pk)
        self.assertTrue(telling(0.2, "on it"))
        self.moved(job, looked=-80)
        self.assertFalse(work._Telling(job.pk)(0.2, "on it"))

    def test_a_page_that_asks_keeps_it_alive(self):
        job = self.moved(self.begin(), looked=-80)
        job_of(job.pk, "said", "a")
        job.refresh_from_db()
        self.assertLess((timezone.now() - job.looked).total_seconds(), 5)

    def test_where_nothing_works_it_says_so(self):
        job = self.begin()
        self.moved(job, made=-8)
        self.assertEqual(waits_for(job), "about to begin")
        self.moved(job, made=-12)
        self.assertIn("bin/manage work", waits_for(job))
        claim()
        job.refresh_from_db()
        self.assertEqual(waits_for(job), "")

    def test_what_is_over_is_forgotten_after_a_day(self):
        old, young = self.begin(), self.begin(about="b")
        work_off_now()
        self.moved(old, made=-25 * 3600)
        self.moved(young, made=-23 * 3600)
        self.begin(about="c")
        self.assertEqual(
            list(Job.objects.order_by("pk").values_list("about", flat=True)), ["b", "c"]
        )

    def test_how_far_it_is_only_grows(self):
        job = self.begin()
        telling = work._Telling(job.pk)
        for share, kept in ((0.3, 0.3), (0.1, 0.3), (2.0, 0.99)):
            telling.last = 0.0
            telling(share, "on it")
            job.refresh_from_db()
            self.assertEqual(job.share, kept)


class Around(TestCase):
    def test_its_foods_are_the_practices(self):
        practice = Practice.objects.create(name="Tern Point Wellness")
        user = User.objects.create_user("marin", password="a-long-password", practice=practice)
        seen = []
        kept = dict(work._KINDS)
        self.addCleanup(lambda: (work._KINDS.clear(), work._KINDS.update(kept)))
        does("looks", lambda job, tell: seen.append(job.practice.measures) or [])
        with scopes_disabled():
            begin(practice, user, "looks", "a")
        work_on(claim())
        self.assertEqual(seen, ["us"])
