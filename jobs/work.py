"""What is in the table worked off, one job at a time, each in the world of its practice."""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable
from contextlib import AbstractContextManager, ExitStack
from datetime import timedelta
from time import monotonic

from django.db import close_old_connections, connection, transaction
from django.utils import timezone
from django_scopes import scope

from jobs.models import DONE, FAILED, RUNNING, WAITING, Job
from jobs.queue import GIVEN_UP
from practice.models import Practice
from record.acting import acting
from webkit.extension_points import Question

log = logging.getLogger(__name__)

# Whoever works on a job renews its lease so often, and has lost it after so long. [s]
RENEWED, LEASE = 5.0, timedelta(seconds=30)
# How far it is is written no more often. [s]
TOLD_EVERY = 0.5
# An interrupted job is begun anew once; after that it is what interrupts.
MOST_TRIES = 2
INTERRUPTED = "It was interrupted twice, and is not begun again by itself. Nothing was changed."
FAILED_WORDS = "It failed, and says so in the log. Nothing was changed."
ABANDONED = "Nobody looked at it any more, and it was given up. Nothing was changed."

# Told how far it is [0 to 1] and what is done, it says whether to stop.
Tell = Callable[[float, str], bool]
# Does a job, and gives back what is to be told of it. Raises CannotBe where there is nothing to do.
Work = Callable[[Job, Tell], list[str]]
_KINDS: dict[str, Work] = {}
# What else of the world of a practice a job stands in, as a page of it does.
AROUND: Question[[Practice], AbstractContextManager[None]] = Question()

# What a worker holds for as long as it works.
HELD: Question[[], AbstractContextManager[None]] = Question()


class CannotBe(Exception):
    """A job that comes to nothing; the message says why to whoever asked for it."""


def does(kind: str, work: Work) -> None:
    """A stage registers what does its kind of work."""
    _KINDS[kind] = work


def claim() -> Job | None:
    """The next job, under a lease; None where nothing waits. One that was interrupted comes
    first."""
    now = timezone.now()
    rows = Job._base_manager.select_related("practice", "by")
    waiting = rows.filter(state=WAITING, kind__in=_KINDS)
    interrupted = rows.filter(state=RUNNING, lease_until__lt=now)
    # a look takes no lock
    if not (waiting | interrupted).exists():
        return None
    with transaction.atomic():
        lost = interrupted.first()
        if lost is not None and lost.tries >= MOST_TRIES:
            _ended(lost.pk, FAILED, [INTERRUPTED])
            lost = None
        job: Job | None = lost or waiting.first()
        if job is None:
            return None
        job.state, job.lease_until, job.tries = RUNNING, now + LEASE, job.tries + 1
        job.save(update_fields=["state", "lease_until", "tries"])
    return job


def _ended(pk: int, state: str, told: list[str]) -> None:
    Job._base_manager.filter(pk=pk).update(state=state, told=told, share=1.0, lease_until=None)


def work_on(job: Job) -> None:
    """Do a job, in the time zone, the scope and the foods of its practice, and write how it
    ended."""
    if timezone.now() - job.looked > GIVEN_UP:
        _ended(job.pk, FAILED, [ABANDONED])
        return
    telling = _Telling(job.pk)
    with ExitStack() as world:
        world.enter_context(timezone.override(job.practice.time_zone))
        world.enter_context(scope(practice=job.practice))
        world.enter_context(acting(job.practice_id, job.by_id))
        for around in AROUND.ask(job.practice):
            world.enter_context(around)
        try:
            _ended(job.pk, DONE, _KINDS[job.kind](job, telling))
        except CannotBe as error:
            _ended(job.pk, FAILED, [str(error)])
        except Exception:
            log.exception("job %s of kind %s failed", job.pk, job.kind)
            _ended(job.pk, FAILED, [FAILED_WORDS])


class _Telling:
    """Writes how far a job is, and reads whether it is to stop: somebody said so, or nobody looks
    any more."""

    def __init__(self, pk: int) -> None:
        self.pk, self.last, self.share, self.stop = pk, 0.0, 0.0, False

    def __call__(self, share: float, words: str) -> bool:
        self.share = max(self.share, min(share, 0.99))
        if self.stop or monotonic() - self.last < TOLD_EVERY:
            return self.stop
        self.last = monotonic()
        rows = Job._base_manager.filter(pk=self.pk)
        rows.update(share=self.share, words=words[:200])
        row = rows.values_list("stop", "looked").first()
        self.stop = row is None or row[0] or timezone.now() - row[1] > GIVEN_UP
        return self.stop


def _renew(pk: int, over: threading.Event) -> None:
    """Hold the lease while the job goes on: some of it is long without a word."""
    while not over.wait(RENEWED):
        rows = Job._base_manager.filter(pk=pk, state=RUNNING)
        rows.update(lease_until=timezone.now() + LEASE)
    connection.close()


def work_off(over: Callable[[], bool], rest: Callable[[], None]) -> None:
    """Work on what waits until it is `over`; `rest` where nothing does."""
    while not over():
        close_old_connections()
        job = claim()
        if job is None:
            rest()
            continue
        done = threading.Event()
        holding = threading.Thread(target=_renew, args=(job.pk, done), daemon=True)
        holding.start()
        try:
            work_on(job)
        finally:
            done.set()
            holding.join()
