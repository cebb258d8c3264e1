"""The line of weight with all that belongs beside it, and the same as a table."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from clients.models import MOST_WEIGH_INS, Client, WeighIn
from clients.person.weight_chart import as_dots, trend_band
from clients.plan.in_force import Plan
from clients.plan.versions import versions_made
from nutrition.follow_up.corridor import (
    AHEAD_DAYS,
    Corridor,
    Heading,
    asked_corridor,
    heading,
    usual_corridor,
)
from nutrition.follow_up.trend import Z95, Trend
from nutrition.targets.body import least_weight
from nutrition.targets.person import Person
from webkit.drawing.weights import Band, Drawn, WeightChart, weight_chart

SIZE = (660.0, 300.0)


@dataclass(frozen=True, kw_only=True)
class Line:
    """The drawing, what its layers say, and the rows of the table beside it."""

    chart: WeightChart | None
    asked: Corridor | None
    usual: Corridor | None
    ahead: Heading | None
    marks: list[tuple[int, str, date, date]]
    rows: list[dict[str, object]]

    @property
    def ahead_words(self) -> str:
        """Where it leads if nothing changes, in words."""
        if self.ahead is None:
            return ""
        one = self.ahead
        return (
            f"If nothing changes, {one.kg[-1]:.1f} kg on {one.days[-1]:%B} {one.days[-1].day}, "
            f"between {one.low[-1]:.1f} and {one.high[-1]:.1f}."
        )


def happened_lately(client: Client, since: date) -> list[tuple[str, date, date]]:
    """What is marked on the line: what happened, new targets, a week's plan begun, changes."""
    found = [
        (f"{row.happened().name}{f': {row.words}' if row.words else ''}", row.start, row.end)
        for row in client.happenings.filter(start__gte=since)
    ]
    found += [
        (f"new targets: {_why(row.why)}", row.takes_effect, None)
        for row in reversed(versions_made(client))
        if row.takes_effect >= since
    ]
    weeks = client.weeks.filter(start__gte=since, archived=None)
    found += [("a week's plan begins", row.start, row.last) for row in weeks]
    taken = client.changes_taken.filter(start__gte=since)
    found += [(f"change: {row.words}", row.start, row.ended) for row in taken]
    rows = [(said, start, end or start) for said, start, end in found]
    return sorted(rows, key=lambda row: row[1])


def _why(words: str) -> str:
    return f"{words[:60]}…" if len(words) > 60 else words


def goal_of(client: Client, person: Person) -> float | None:
    """The weight that is aimed at; none that is under what is safe."""
    goal = client.target_weight_kg
    return None if goal is None or goal < least_weight(person) else goal


def _band(corridor: Corridor | None) -> Band | None:
    if corridor is None:
        return None
    return Band(says=corridor.says, days=corridor.days, low=corridor.low, high=corridor.high)


def line_of(client: Client, person: Person, plan: Plan, trend: Trend | None, today: date) -> Line:
    """The line of weight of a client up to some weeks ahead."""
    rows = [row for row in client.newest_weigh_ins(MOST_WEIGH_INS)[::-1] if row.date <= today]
    if trend is not None:
        rows = [row for row in rows if row.date >= trend.first]
    asked = usual = ahead = None
    if trend is not None and rows:
        start = trend.first
        begun = min((row.takes_effect for row in versions_made(client)), default=None)
        if begun is not None and trend.first <= begun < trend.last:
            start = begun
        kg, _sd = trend.at(start)
        days = (today - start).days + AHEAD_DAYS
        asked = asked_corridor(person, plan.school, start, kg, days)
        usual = usual_corridor(person, start, kg, days)
        ahead = heading(trend, person)
    since = rows[0].date if rows else today
    marks = [one for one in happened_lately(client, since) if one[1] <= today]
    drawn = Drawn(
        weighed=as_dots(rows, trend.odd if trend else ()),
        trend=trend_band(trend),
        asked=_band(asked),
        usual=_band(usual),
        ahead=Band(
            says="if nothing changes",
            days=ahead.days,
            low=ahead.low,
            high=ahead.high,
            middle=ahead.kg,
        )
        if ahead
        else None,
        goal_kg=goal_of(client, person),
        happened=[(start, min(end, today), said) for said, start, end in marks],
        today=today,
    )
    numbered = [(at, said, start, end) for at, (said, start, end) in enumerate(marks, 1)]
    return Line(
        chart=weight_chart(drawn, *SIZE),
        asked=asked,
        usual=usual,
        ahead=ahead,
        marks=numbered,
        rows=_table(rows, trend, asked),
    )


def _table(
    rows: list[WeighIn], trend: Trend | None, asked: Corridor | None
) -> list[dict[str, object]]:
    """Each weigh-in with the trend of its day and what was asked for, newest first."""
    out = []
    for row in reversed(rows):
        one: dict[str, object] = {"row": row}
        if trend is not None:
            level, sd = trend.at(row.date)
            one |= {"trend": level, "low": level - Z95 * sd, "high": level + Z95 * sd}
            one["odd"] = row.date in trend.odd
        if asked is not None and row.date >= asked.days[0]:
            one["asked"] = asked.at(row.date)
        out.append(one)
    return out
