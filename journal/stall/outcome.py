"""What became of a change that was taken."""

from __future__ import annotations

from journal.models import TakenChange
from nutrition.follow_up.stall import Judged, span

# Before so many days nothing can be said of it. [d]
LEAST_DAYS = 14


def since_then(row: TakenChange, judged: Judged) -> str:
    """How the weight went since a change, against before, in words; empty before anything can be
    said."""
    trend = judged.trend
    if trend is None or row.ended is not None:
        return ""
    days = (trend.last - row.start).days
    if days < LEAST_DAYS:
        return f"{max(days, 0)} days of weigh-ins since: two weeks are needed to say more."
    pace = trend.pace_between(row.start, trend.last)
    if pace is None:
        return ""
    before = (
        f"; before it {row.pace_kg:+.2f}".replace("-", "\u2212") if row.pace_kg is not None else ""
    )
    return f"Since then {span(pace)}{before}."
