"""How somebody does who is followed: how the weight stands, why, and what blood values mean."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from datetime import date

from nutrition.follow_up.attention import pace_of
from nutrition.follow_up.causes import causes
from nutrition.follow_up.corridor import heading
from nutrition.follow_up.doubts import doubt
from nutrition.follow_up.intake import average
from nutrition.follow_up.reported_energy import reported
from nutrition.follow_up.stall import Judged, Record, judge_pace
from nutrition.follow_up.sudden_change import weight_signs
from nutrition.follow_up.trend import Z95, Pace
from nutrition.follow_up.weigh_in import Weighed
from nutrition.requests.cautions import LEVEL_WORDS
from nutrition.requests.follow import FollowAsked
from nutrition.requests.person import Asked
from nutrition.requests.planned_person import situation_of
from nutrition.requests.structure import Told, decoded
from nutrition.safety.cautions import cautions_in
from nutrition.safety.situations import measured_numbers
from nutrition.targets.blood import Measured, blood_numbers, blood_words, implied_by, latest
from nutrition.targets.day import DayTargets, day_targets
from nutrition.targets.person import OutOfRange, Referred

# Days over which a pace is told.
TWO_WEEKS, FOUR_WEEKS = 14, 28


class PaceTold(Told):
    """How fast the weight changes, with its range, over so many days. [kg a week]"""

    kg_per_week: float
    low: float
    high: float
    days: int


class AheadTold(Told):
    """Where the weight is heading. [kg]"""

    on: date
    kg: float
    low: float
    high: float


class TrendTold(Told):
    """The trend of the weight: where it is now, how sure, and how mornings scatter. [kg]"""

    first: date
    last: date
    now_kg: float
    now_sd_kg: float
    scatter_kg: float
    hardly_followed: list[date]
    pace_two_weeks: PaceTold | None
    pace_four_weeks: PaceTold | None
    ahead: AheadTold | None


class DoubtTold(Told):
    """A weigh-in that is asked about, and what it is likelier to be. [kg]"""

    on: date
    why: str
    likelier_kg: float | None


class CauseTold(Told):
    """What could account for a share of the gap [kcal a day], with its evidence and what would tell
    it from the others."""

    key: str
    name: str
    kcal: float
    low: float
    high: float
    share: float
    supported: bool
    evidence: list[str]
    tells_apart: str
    change: str


class EatenTold(Told):
    """What was eaten as far as it was logged [kcal a day], and whether the body shows more."""

    days: int
    energy_kcal: float
    low: float
    high: float
    far_under: bool | None
    words: str


class WarningTold(Told):
    """A caution: how soon, what to do, why, and whom to call."""

    code: str
    level: str
    urgent: str
    todo: str
    text: str
    why: str
    turn_to: str
    source: str


class ValueTold(Told):
    """A blood value in words, how it stands, whether it is fresh, and in its other units."""

    said: str
    standing: str
    fresh: bool
    in_units: dict[str, str]


class FollowAnswer(Told):
    """How it stands since when, against the pace that is expected [kg a week] and the gap in energy
    [kcal a day]."""

    referred: str
    standing: str
    words: str
    since: date | None
    expected_kg_per_week: float | None
    gap_kcal: list[float]
    trend: TrendTold | None
    doubtful: list[DoubtTold]
    causes: list[CauseTold]
    eaten: EatenTold | None
    cautions: list[WarningTold]
    unread: list[str]
    blood: dict[str, ValueTold]
    blood_numbers: dict[str, float]
    implied: dict[str, str]


def _planned(asked: Asked) -> tuple[DayTargets | None, str]:
    """The day's targets; or none, and that the person is referred."""
    try:
        return day_targets(asked.person, asked.school, asked.orders), ""
    except Referred as error:
        return None, f"{error} Turn to {error.refer_to}."


def report(given: object) -> FollowAnswer:
    """How a person does who is followed. Raises OutOfRange naming the field."""
    data = decoded(FollowAsked, given, OutOfRange)
    asked = data.person.asked_within("person")
    weighed, (days, unread), values = data.weigh_ins(), data.logged(), latest(data.values())
    ends = [*(one.on for one in weighed), *(day.on for day in days)]
    today = data.today or max(ends, default=date(1970, 1, 1))
    day, referred = _planned(asked)
    numbers = blood_numbers(values, asked.person, today)
    record = Record(
        person=asked.person,
        school=asked.school,
        weighed=[one for one in weighed if one.on <= today],
        today=today,
        logged=[day for day in days if day.on <= today],
        happened=data.marks(),
        made_for_kg=data.made_for_kg,
        made_on=data.made_on,
        planned_since=data.planned_since,
        blood=numbers,
        target_kcal=data.target_kcal or (day["energy_kcal"].aim if day else None),
    )
    judged = judge_pace(record)
    return FollowAnswer(
        referred=referred,
        standing=judged.kind,
        words=judged.words,
        since=judged.since,
        expected_kg_per_week=judged.expected,
        gap_kcal=list(judged.gap_kcal),
        trend=_trend(judged, record),
        doubtful=_doubts(weighed),
        causes=_causes(record, judged),
        eaten=_eaten(record, judged),
        cautions=_cautions(asked, day, values, record, judged),
        unread=unread,
        blood={key: _value(one, today) for key, one in values.items()},
        blood_numbers=numbers,
        implied=implied_by(values, asked.person.conditions, today),
    )


def _doubts(weighed: list[Weighed]) -> list[DoubtTold]:
    doubts = {one.on: doubt(weighed, one) for one in weighed}
    return [
        DoubtTold(on=on, why=asked.words, likelier_kg=asked.likelier)
        for on, asked in doubts.items()
        if asked is not None
    ]


def _causes(record: Record, judged: Judged) -> list[CauseTold]:
    return [
        CauseTold(
            key=one.key,
            name=one.name,
            kcal=one.kcal,
            low=one.low,
            high=one.high,
            share=one.share,
            supported=one.supported,
            evidence=list(one.evidence),
            tells_apart=one.apart,
            change=one.change,
        )
        for one in causes(record, judged)
    ]


def _value(one: Measured, today: date) -> ValueTold:
    return ValueTold(
        said=one.words(today),
        standing=one.standing,
        fresh=one.fresh(today),
        in_units={unit: one.in_unit(unit) for unit in one.analyte.units},
    )


def _cautions(
    asked: Asked,
    day: DayTargets | None,
    values: Mapping[str, Measured],
    record: Record,
    judged: Judged,
) -> list[WarningTold]:
    """What the page warns of: how soon, what to do, the value with its age, and whom to call."""
    person, today = asked.person, record.today
    signs = weight_signs(person, asked.school, record.weighed, today)
    pace = pace_of(judged)
    numbers = {**record.blood, **signs.numbers}
    numbers |= measured_numbers(person, pace.kg_per_week if pace else None)
    told = situation_of(asked, day, numbers)
    words = {**told.words, **blood_words(values, record.blood, today), **signs.words}
    return [
        WarningTold(
            code=one.code,
            level=LEVEL_WORDS[one.level],
            urgent=one.urgent,
            todo=one.todo,
            text=one.text,
            why=one.why,
            turn_to=one.refer_to,
            source=one.source,
        )
        for one in cautions_in(replace(told, words=words))
    ]


def _pace(pace: Pace | None) -> PaceTold | None:
    return None if pace is None else PaceTold.model_validate(pace)


def _trend(judged: Judged, record: Record) -> TrendTold | None:
    trend = judged.trend
    if trend is None:
        return None
    ahead = heading(trend, record.person)
    return TrendTold(
        first=trend.first,
        last=trend.last,
        now_kg=trend.now,
        now_sd_kg=float(trend.sd[-1]),
        scatter_kg=trend.scatter,
        hardly_followed=list(trend.odd),
        pace_two_weeks=_pace(trend.pace(TWO_WEEKS)),
        pace_four_weeks=_pace(trend.pace(FOUR_WEEKS)),
        ahead=None
        if ahead is None
        else AheadTold(on=ahead.days[-1], kg=ahead.kg[-1], low=ahead.low[-1], high=ahead.high[-1]),
    )


def _eaten(record: Record, judged: Judged) -> EatenTold | None:
    known = average(record.logged, "energy_kcal")
    if known is None:
        return None
    told = reported(record.person, known.mean, known.days, pace_of(judged))
    return EatenTold(
        days=known.days,
        energy_kcal=known.mean,
        low=known.low,
        high=known.high,
        far_under=told.far_under if told else None,
        words=told.words if told else "",
    )


def as_text(answer: FollowAnswer) -> str:
    """The report for reading in a terminal."""
    out = [f"REFERRED  {answer.referred}"] if answer.referred else []
    since = f" (since {answer.since})" if answer.since else ""
    out.append(f"{answer.standing}{since}: {answer.words}")
    trend = answer.trend
    if trend:
        give = Z95 * trend.now_sd_kg
        out.append(f"trend {trend.now_kg:.1f} kg, give or take {give:.1f}")
        if trend.ahead:
            ahead = trend.ahead
            span = f"{ahead.low:.1f} to {ahead.high:.1f}"
            out.append(f"ahead {ahead.kg:.1f} kg on {ahead.on} ({span})")
    for row in answer.cautions:
        soon = f" ({row.urgent}: {row.todo})" if row.urgent else ""
        out.append(f"{row.level.upper():9} {row.text}{soon} Turn to {row.turn_to}.")
    out += [f"ASKED     {row.on}: {row.why}" for row in answer.doubtful]
    for one in answer.causes:
        mark = "*" if one.supported else " "
        out.append(f"{mark} {one.name}: {one.share * 100:.0f} % of the gap")
        out += [f"    {said}" for said in one.evidence]
    if answer.eaten:
        eaten = answer.eaten
        out.append(
            f"eaten {eaten.energy_kcal:,.0f} kcal a day ({eaten.low:,.0f} to {eaten.high:,.0f}) "
            f"on {eaten.days} days"
        )
    out += [f"NOT READ  {line}" for line in answer.unread]
    out += [f"{row.said}: {row.standing or 'no range'}" for row in answer.blood.values()]
    out += [f"HOLDS     {code}: {said}" for code, said in answer.implied.items()]
    return "\n".join(out)
