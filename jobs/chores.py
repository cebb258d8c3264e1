"""What is done again and again without being asked: every so often, or once a night. The worker
does it where no search waits."""

from __future__ import annotations

import logging
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta

from django.db import transaction
from django.utils import timezone

from jobs.models import Chore

log = logging.getLogger(__name__)

# What is done once a night is done after this hour, where few work.
NIGHT = 2


@dataclass(frozen=True)
class _Kind:
    every: timedelta
    nightly: bool
    work: Callable[[], str]


_KINDS: dict[str, _Kind] = {}


def every(name: str, seconds: float, work: Callable[[], str]) -> None:
    """Do this so often; what it says, or that it failed, is kept."""
    _KINDS[name] = _Kind(timedelta(seconds=seconds), False, work)


def nightly(name: str, work: Callable[[], str]) -> None:
    """Do this once a night."""
    _KINDS[name] = _Kind(timedelta(days=1), True, work)


def _due(kind: _Kind, last: datetime | None, now: datetime) -> bool:
    # what was done in a time that is still to come was done before the clock was set back
    if last is None or last > now + timedelta(hours=1):
        return True
    if not kind.nightly:
        return now - last >= kind.every
    here = timezone.localtime(now)
    return timezone.localtime(last).date() < here.date() and here.hour >= NIGHT


def do_what_is_due() -> list[str]:
    """Do everything that is due; the names of what was done. One that fails is logged, kept as
    failed, and tried again when it is due again."""
    now = timezone.now()
    last = dict(Chore.objects.values_list("name", "last"))
    done = []
    for name, kind in _KINDS.items():
        if _due(kind, last.get(name), now) and _claimed(name, last.get(name), now):
            _do(name, kind)
            done.append(name)
    return done


def _claimed(name: str, last: datetime | None, now: datetime) -> bool:
    """Whether it is this worker that does it: of two, the one that writes it down first."""
    with transaction.atomic():
        row, made = Chore.objects.get_or_create(name=name, defaults={"last": now})
        if not made and row.last != last:
            return False
        Chore.objects.filter(pk=row.pk).update(last=now)
    return True


def _do(name: str, kind: _Kind) -> None:
    try:
        said, well = kind.work(), True
    except Exception as error:
        log.exception("the chore %s failed", name)
        said, well = f"{type(error).__name__}: it failed, and says so in the log", False
    Chore.objects.filter(name=name).update(said=said[:300], well=well)
