"""A client's weigh-ins as they are drawn."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from datetime import date, timedelta

from clients.models import MOST_WEIGH_INS, Client, WeighIn
from nutrition.follow_up.trend import Z95, Trend
from webkit.drawing.weights import Band, Drawn, WeightChart, weight_chart

SMALL = (340.0, 170.0)


def trend_band(trend: Trend | None) -> Band | None:
    """The trend with the range that holds it in 19 of 20 cases."""
    if trend is None:
        return None
    days = [trend.first + timedelta(days=at) for at in range(len(trend.level))]
    level, wide = trend.level.tolist(), (trend.sd * Z95).tolist()
    return Band(
        says="trend",
        days=days,
        low=[kg - by for kg, by in zip(level, wide, strict=True)],
        high=[kg + by for kg, by in zip(level, wide, strict=True)],
        middle=level,
    )


def as_dots(rows: Sequence[WeighIn], odd: Collection[date] = ()) -> list[tuple]:
    """Weigh-ins, oldest first, with what each says."""
    return [(row.date, row.kg, said_of(row), row.date in odd) for row in rows]


def said_of(row: WeighIn) -> str:
    """ "Nov 3: 101.4 kg, on rising" """
    return f"{row.date:%b} {row.date.day}: {row.kg:.1f} kg{_how(row)}"


def _how(row: WeighIn) -> str:
    said = [row.get_time_display()] if row.time else []
    said += ["dressed"] if row.dressed else []
    said += [row.scale] if row.scale else []
    said += [row.remark] if row.remark else []
    return f", {', '.join(said)}" if said else ""


def small_chart(client: Client, trend: Trend | None) -> WeightChart | None:
    """The line on the client's page."""
    rows = client.newest_weigh_ins(MOST_WEIGH_INS)[::-1]
    if trend is not None:
        rows = [row for row in rows if row.date >= trend.first]
    drawn = Drawn(
        weighed=as_dots(rows, trend.odd if trend else ()),
        trend=trend_band(trend),
        goal_kg=client.target_weight_kg,
    )
    return weight_chart(drawn, *SMALL)
