"""Which backups are kept: the newest of each of the last days, weeks and months, and none that is
older than the term after which nobody who was erased is in any of them."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime, timedelta

# All of so long are kept: one that was made before an upgrade is there when it is wanted.
RECENT = timedelta(days=2)
# The newest of so many days, weeks and months is kept.
DAYS, WEEKS, MONTHS = 14, 8, 6


def kept(times: Iterable[datetime], now: datetime, longest: timedelta) -> set[datetime]:
    """Of backups by when they were made, those that are kept. The newest is always kept, and so is
    what was made in a time that is still to come: the clock was set back."""
    every = sorted(times, reverse=True)
    ahead = [at for at in every if at > now]
    past = [at for at in every if at <= now]
    out = set(ahead) | set(past[:1]) | {at for at in past if now - at < RECENT}
    for name, most in (("%Y-%m-%d", DAYS), ("%G-%V", WEEKS), ("%Y-%m", MONTHS)):
        newest: dict[str, datetime] = {}
        for at in past:
            newest.setdefault(at.strftime(name), at)
        out |= set(list(newest.values())[:most])
    return {at for at in out if at > now or now - at <= longest or at == every[0]}
