"""Jobs begun, looked at and stopped by the pages that asked for them."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import timedelta
from typing import Any

from django.db import transaction
from django.db.models import Q
from django.utils import timezone

from jobs.models import DONE, FAILED, RUNNING, WAITING, Job
from practice.models import Practice, User
from practice.passing_notes import note_in_passing

# A page that looks says so again after so long; a job that nobody looks at for so long is given up.
LOOKED_AGAIN, GIVEN_UP = timedelta(seconds=5), timedelta(seconds=90)
# What is over is forgotten after so long.
FORGOTTEN = timedelta(days=1)
# Waiting so long means that nothing works at all.
NOBODY_WORKS = timedelta(seconds=10)


def begin(
    practice: Practice, by: User, kind: str, about: str, asked: Mapping[str, Any] | None = None
) -> Job:
    """Ask for a piece of work. One of the same kind about the same thing that is not over is
    stopped: what it would find is overtaken."""
    now = timezone.now()
    with transaction.atomic():
        before = Job.objects.filter(practice=practice, kind=kind, about=about)
        before.filter(state=WAITING).delete()
        before.filter(state=RUNNING).update(stop=True)
        Job.objects.filter(state__in=(DONE, FAILED), made__lt=now - FORGOTTEN).delete()
        job: Job = Job.objects.create(
            practice=practice, by=by, kind=kind, about=about, asked=dict(asked or {})
        )
    return job


def job_of(pk: int, kind: str, about: str) -> Job | None:
    """The job if it is of this kind about this thing, looked at now; None for one that is not, or
    that is forgotten."""
    job: Job | None = Job.objects.filter(pk=pk, kind=kind, about=about).first()
    now = timezone.now()
    if job is not None and not job.over and now - job.looked > LOOKED_AGAIN:
        job.looked = now
        note_in_passing(lambda: Job.objects.filter(pk=pk).update(looked=now))
    return job


def ask_to_stop(job: Job) -> None:
    """Let it keep what it has, and end. One that was not begun yet is over at once."""
    Job.objects.filter(pk=job.pk, state=RUNNING).update(stop=True)
    Job.objects.filter(pk=job.pk, state=WAITING).update(
        state=FAILED, told=["It was stopped before it began."]
    )


def waits_for(job: Job) -> str:
    """Why a job is not begun yet, in words; empty where it is."""
    if job.state != WAITING:
        return ""
    now = timezone.now()
    # other practices' work stands in the same line, and nothing of it is told but how much
    line = Job._base_manager.filter(Q(state=RUNNING, lease_until__gt=now) | Q(state=WAITING))
    if not line.filter(state=RUNNING).exists() and now - job.made > NOBODY_WORKS:
        return (
            "Nothing works on searches just now. Whoever runs the application has to start what "
            "works on them: bin/manage work"
        )
    ahead = line.filter(pk__lt=job.pk).count()
    return f"{ahead} before it" if ahead else "about to begin"
