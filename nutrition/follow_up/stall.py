"""Whether a client stalls: the pace of the weight against the one that is expected, over three
weeks or more. That mornings differ is the first thing to rule out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, timedelta

from nutrition.follow_up.corridor import asked_pace
from nutrition.follow_up.events import Happened
from nutrition.follow_up.intake import LoggedDay
from nutrition.follow_up.trend import Z95, Pace, Trend, trend_of
from nutrition.follow_up.weigh_in import Weighed
from nutrition.targets.person import Person
from nutrition.targets.schools import School
from nutrition.targets.weight_forecast import static_kcal

# A stall is judged over so many days at least; the longest of these that shows one counts. [d]
LEAST_DAYS = 21
WINDOWS = (42, 28, 21)
# So many weigh-ins within it, and the newest no older than that. [d] Common practice, no source.
LEAST_WEIGH_INS, NEWEST_DAYS = 6, 14
# Under half of the expected pace, with a certainty of 9 in 10, is a stall; at three quarters of it
# all is well. [share] Common practice, no source.
STALL_SHARE, WELL_SHARE, Z90 = 0.5, 0.75, 1.28
# More than this of the body a week is too fast. [share] Common practice, no source.
FAST_SHARE_PER_WEEK = 0.01
# A drift that nobody planned is worth a word from here on. Common practice, no source. [% of body]
WORTH_SAYING_PERCENT = 1.0
# Two paces that differ by less than so much of the expected one are the same. [share]
SAME_SHARE = 0.12

NOT_EXPECTED, TOO_LITTLE, ON_THE_WAY, TOO_FAST, SLOWER, WITHIN, STALL, AWAY = (
    "no change is expected",
    "too little to say",
    "on the way",
    "too fast",
    "slower than expected",
    "not a stall",
    "a stall",
    "the other way",
)


@dataclass(frozen=True, kw_only=True)
class Record:
    """What the follow-up knows of a client.

    `made_for_kg` is the weight the targets were made for, and `made_on` when [kg]; `target_kcal`
    the energy that is aimed at [kcal/day]; `planned_since` the day from which there is a plan that
    a change is expected of, None where that is not known. `blood` has the latest values by the
    names that cautions give them.
    """

    person: Person
    school: School | None
    weighed: Sequence[Weighed]
    today: date
    logged: Sequence[LoggedDay] = ()
    happened: Sequence[Happened] = ()
    made_for_kg: float | None = None
    made_on: date | None = None
    target_kcal: float | None = None
    planned_since: date | None = None
    blood: Mapping[str, float] = field(default_factory=dict)


@dataclass(frozen=True, kw_only=True)
class Judged:
    """How the weight stands to what is expected. Paces are signed [kg/week], `gap_kcal` is the
    energy a day that parts them, with its range [kcal/day]; `since` is the day from which it
    holds."""

    kind: str
    words: str
    expected: float = 0.0
    pace: Pace | None = None
    trend: Trend | None = None
    since: date | None = None
    gap_kcal: tuple[float, float, float] = (0.0, 0.0, 0.0)

    @property
    def stalled(self) -> bool:
        return self.kind in (STALL, AWAY)


def expected_pace(person: Person, school: School | None, kg: float) -> float | None:
    """The signed pace that is asked for at a weight; None where none is. [kg/week] from [kg]"""
    pace = asked_pace(person, school)
    if pace is None:
        return None
    left = None if person.target_weight_kg is None else abs(kg - person.target_weight_kg)
    return pace(left)


def judge_pace(record: Record) -> Judged:
    """Whether the weight moves as expected, and since when not; another scale is said first."""
    judged, other = _judged(record), another_scale(record)
    return replace(judged, words=f"{other} {judged.words}") if other else judged


def another_scale(record: Record) -> str:
    """Since when another scale is used than before, in words; empty where none is."""
    rows = sorted(
        (one for one in record.weighed if (record.today - one.on).days <= max(WINDOWS)),
        key=lambda one: one.on,
    )
    if not rows or not any(one.scale != rows[-1].scale for one in rows):
        return ""
    since = next(
        rows[at + 1].on for at in range(len(rows) - 2, -1, -1) if rows[at].scale != rows[-1].scale
    )
    return (
        f"Another scale since {since:%b} {since.day}: two scales differ by up to a kilogram, so "
        f"compare like with like."
    )


def _judged(record: Record) -> Judged:
    trend = trend_of(record.weighed)
    rows = [one for one in record.weighed if (record.today - one.on).days <= max(WINDOWS)]
    if trend is None or not rows:
        return Judged(kind=TOO_LITTLE, words="A pace needs three weigh-ins.")
    expected = expected_pace(record.person, record.school, trend.now)
    lately = trend.lately
    if lately is not None and -lately.kg_per_week > FAST_SHARE_PER_WEEK * trend.now:
        said = span(lately)
        return Judged(
            kind=TOO_FAST,
            words=(
                f"{said[:1].upper()}{said[1:]}: more than 1 % of body weight. That is no success: "
                f"ask how they eat and feel, and turn to their physician."
            ),
            trend=trend,
            pace=lately,
            expected=expected or 0.0,
        )
    if not expected:
        return Judged(
            kind=NOT_EXPECTED,
            words=_where_none_is_planned(trend, lately),
            trend=trend,
            pace=lately,
        )
    old = None if record.planned_since is None else (record.today - record.planned_since).days
    if old is not None and old < LEAST_DAYS:
        return Judged(
            kind=TOO_LITTLE,
            words=(
                f"The plan is {old} day{'' if old == 1 else 's'} old: a stall is judged once it is "
                f"{LEAST_DAYS} days old. Older weights say how it was before it."
            ),
            trend=trend,
            expected=expected,
            pace=trend.pace(14),
        )
    known = (trend.last - trend.first).days
    late = (record.today - max(one.on for one in rows)).days
    if known < LEAST_DAYS or len(rows) < LEAST_WEIGH_INS or late > NEWEST_DAYS:
        return Judged(
            kind=TOO_LITTLE,
            words=_too_little(known, len(rows), late),
            trend=trend,
            expected=expected,
            pace=trend.pace(14),
        )
    paces = _paces(trend, old)
    stalls = [(days, pace) for days, pace in paces if _surely_under(pace, expected)]
    if stalls:
        days, pace = stalls[0]
        return _stalled(record, trend, expected, pace, days)
    pace = paces[-2 if len(paces) > 1 else 0][1]
    return _not_stalled(trend, expected, pace)


def _where_none_is_planned(trend: Trend, lately: Pace | None) -> str:
    """What the weight does where no change of it is planned: that it moves is never nothing."""
    begins = "No change of weight is planned"
    if lately is None:
        return f"{begins}, and it was weighed too seldom to say where it goes."
    said = span(lately)
    sure = lately.low > 0 or lately.high < 0
    moved = abs(lately.kg_per_week) * lately.days / 7.0 / trend.now * 100.0
    if not sure or moved < WORTH_SAYING_PERCENT:
        return f"{begins}: {said} over {lately.days} days, which holds it."
    asks = "Ask what has changed, and whether they are well."
    return f"{begins}, and it moves: {said} over {lately.days} days. {asks}"


def _paces(trend: Trend, old: int | None) -> list[tuple[int, Pace]]:
    """The paces over the windows that the trend, and a plan so many days `old`, are long enough
    for, the longest first. [d]"""
    known = (trend.last - trend.first).days
    known = known if old is None else min(known, max(old, LEAST_DAYS))
    found = [(days, trend.pace(days)) for days in WINDOWS if known >= days - 1]
    return [(days, pace) for days, pace in found if pace is not None]


def _surely_under(pace: Pace, expected: float) -> bool:
    """Whether the pace is under half of what is expected with a certainty of 9 in 10."""
    nearest = pace.kg_per_week + (1.0 if expected > 0 else -1.0) * pace.half * Z90 / Z95
    return nearest / expected < STALL_SHARE


def _too_little(known: int, weigh_ins: int, late: int) -> str:
    if late > NEWEST_DAYS:
        return f"Last weighed {late} days ago: weigh again before anything is said of a stall."
    return (
        f"A stall is judged over {LEAST_DAYS} days and {LEAST_WEIGH_INS} weigh-ins; here are "
        f"{known} days and {weigh_ins}."
    )


def span(pace: Pace) -> str:
    """ "0.43 kg lost a week, between 0.20 and 0.66" """
    lost = pace.kg_per_week < 0
    sign = -1.0 if lost else 1.0
    ends = sorted((sign * pace.low, sign * pace.high))
    if abs(pace.kg_per_week) < 0.05:
        return f"steady, between {pace.low:+.2f} and {pace.high:+.2f} kg a week".replace("-", "−")
    said = [f"{one:.2f}".replace("-", "−") for one in ends]
    verb = "lost" if lost else "gained"
    return f"{abs(pace.kg_per_week):.2f} kg {verb} a week, between {said[0]} and {said[1]}"


def _gap(pace: Pace, expected: float) -> tuple[float, float, float]:
    """The energy that parts a pace from the expected one, with its range. [kcal/day] More than
    expected for a loss, less for a gain: without a sign."""
    sign = 1.0 if expected < 0 else -1.0
    ends = sorted(sign * static_kcal(one - expected) for one in (pace.low, pace.high))
    return sign * static_kcal(pace.kg_per_week - expected), ends[0], ends[1]


def _stalled(record: Record, trend: Trend, expected: float, pace: Pace, days: int) -> Judged:
    away = pace.kg_per_week * expected < 0 and (pace.low > 0 if expected < 0 else pace.high < 0)
    verb = "lost" if expected < 0 else "gained"
    words = (
        f"{span(pace)[:1].upper()}{span(pace)[1:]} over {days} days, where "
        f"{abs(expected):.2f} kg are to be {verb}: less than half of it."
    )
    return Judged(
        kind=AWAY if away else STALL,
        words=words,
        expected=expected,
        pace=pace,
        trend=trend,
        since=max(_since(trend, expected), record.planned_since or trend.first),
        gap_kcal=_gap(pace, expected),
    )


def _since(trend: Trend, expected: float) -> date:
    """The day from which the weight goes as it goes now: so far back as the pace until today stays
    what it is over the last three weeks."""
    start = max(trend.last - timedelta(days=LEAST_DAYS), trend.first)
    now = trend.pace_between(start, trend.last)
    while now is not None and start > trend.first:
        before = start - timedelta(days=1)
        longer = trend.pace_between(before, trend.last)
        differs = longer is None or abs(longer.kg_per_week - now.kg_per_week) > SAME_SHARE * abs(
            expected
        )
        if differs:
            break
        start = before
    return start


def _not_stalled(trend: Trend, expected: float, pace: Pace) -> Judged:
    share = pace.kg_per_week / expected
    nearest = (pace.low if expected < 0 else pace.high) / expected
    said = f"{span(pace)[:1].upper()}{span(pace)[1:]} over {pace.days} days"
    verb = "lost" if expected < 0 else "gained"
    if share >= WELL_SHARE:
        kind, words = ON_THE_WAY, f"{said}; {abs(expected):.2f} kg are to be {verb}."
    elif nearest >= 1.0:
        kind = WITHIN
        words = (
            f"{said}. The {abs(expected):.2f} kg a week that are expected lie within that: it is "
            f"no stall, but what mornings differ by (about {trend.scatter:.1f} kg each). Weigh on, "
            f"and look again in two weeks."
        )
    else:
        kind = SLOWER
        no_stall = (
            "more than half of it"
            if share > STALL_SHARE
            else "half of it still lies within what mornings differ by"
        )
        words = (
            f"{said}: slower than the {abs(expected):.2f} kg that are expected, and no stall: "
            f"{no_stall}."
        )
    return Judged(
        kind=kind,
        words=words,
        expected=expected,
        pace=pace,
        trend=trend,
        gap_kcal=_gap(pace, expected),
    )
