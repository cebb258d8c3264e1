"""A follow-up as plain data: weigh-ins, logged days, what happened and blood values of a person,
read from JSON; and how the weight stands, why, and what the values mean, written back."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from datetime import date
from typing import Any

from nutrition.composition.portion import Portion, room_ml
from nutrition.follow_up.attention import pace_of
from nutrition.follow_up.causes import causes
from nutrition.follow_up.corridor import heading
from nutrition.follow_up.doubts import doubt
from nutrition.follow_up.events import KINDS, Happened
from nutrition.follow_up.intake import Bite, LoggedDay, average
from nutrition.follow_up.reported_energy import reported
from nutrition.follow_up.stall import Judged, Record, judge_pace
from nutrition.follow_up.sudden_change import weight_signs
from nutrition.follow_up.trend import Pace
from nutrition.follow_up.weigh_in import LATER, MORNING, Weighed, read_weight
from nutrition.formats.caution_file import LEVEL_WORDS, named_meals, read_meal
from nutrition.formats.day_file import Asked, read_asked
from nutrition.safety.cautions import cautions_in
from nutrition.safety.situations import (
    body_numbers,
    measured_numbers,
    planned_situation,
    situation,
)
from nutrition.targets.blood import (
    BadValue,
    Measured,
    blood_numbers,
    blood_words,
    check_value,
    implied_by,
    latest,
)
from nutrition.targets.day import DayTargets, day_targets
from nutrition.targets.person import LIMITS, OutOfRange, Referred

MOST_WEIGHED, MOST_DAYS, MOST_HAPPENED, MOST_VALUES = 2000, 400, 200, 500
TIMES = ("", MORNING, LATER)


def _rows(data: Mapping[str, Any], name: str, most: int) -> list[dict[str, Any]]:
    rows = data.get(name, [])
    if not isinstance(rows, list) or len(rows) > most:
        raise OutOfRange(name, f"{name} is a list of up to {most} objects.")
    if not all(isinstance(row, dict) for row in rows):
        raise OutOfRange(name, f"{name}: each is an object.")
    return rows


def _date(row: Mapping[str, Any], key: str, field: str) -> date:
    try:
        return date.fromisoformat(str(row.get(key, "")))
    except ValueError:
        message = f"{field}: “{row.get(key)}” is no date; write 2026-11-03."
        raise OutOfRange(field, message) from None


def _number(row: Mapping[str, Any], key: str, field: str) -> float:
    value = row.get(key)
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise OutOfRange(field, f"{field}: {key} is a number.")
    return float(value)


def _short(row: Mapping[str, Any], key: str, field: str, most: int) -> str:
    text = str(row.get(key, ""))
    if len(text) > most:
        raise OutOfRange(field, f"{key} has {len(text)} characters, and {most} can be kept.")
    return text


def read_weighed(data: Mapping[str, Any]) -> list[Weighed]:
    """The weigh-ins. Raises OutOfRange for one that cannot be, or a second of a day."""
    out: dict[date, Weighed] = {}
    low, high = LIMITS["weight_kg"]
    for row in _rows(data, "weighed", MOST_WEIGHED):
        on = _date(row, "on", "weighed")
        kg = read_weight(str(row.get("weight"))) if "weight" in row else None
        kg = _number(row, "kg", "weighed") if kg is None else kg
        if not low <= kg <= high:
            raise OutOfRange("weighed", f"{kg:g} kg on {on} is outside {low:g} to {high:g} kg.")
        if on in out:
            raise OutOfRange("weighed", f"There are two weights of {on}: give one.")
        time = row.get("time", "")
        if time not in TIMES:
            raise OutOfRange("weighed", f"time is one of {', '.join(TIMES[1:])}.")
        scale = _short(row, "scale", "weighed", 40)
        out[on] = Weighed(on, kg, time=str(time), dressed=bool(row.get("dressed")), scale=scale)
    return [out[on] for on in sorted(out)]


def _bites(meals: object) -> tuple[tuple[Bite, ...], list[str]]:
    """Meals of lines as what was eaten, each with the ranges of its lines; and the lines that were
    not read. Raises OutOfRange."""
    bites: list[Bite] = []
    missed: list[str] = []
    for name, lines in named_meals(meals):
        eaten = read_meal(lines)
        missed += [line for line, _why in (*eaten.unresolved, *eaten.refused)]
        if not eaten.foods:
            continue
        grams = eaten.profile.grams
        portion = Portion(
            key=name,
            name=f"meal {name}",
            role="base",
            grams=grams,
            profile=eaten.profile,
            volume_ml=room_ml(None, grams),
            foods=eaten.foods,
        )
        bites.append(Bite(name, portion))
    return tuple(bites), missed


def read_days(data: Mapping[str, Any]) -> tuple[list[LoggedDay], list[str]]:
    """The logged days, and the lines of them that were not read: such a day is not whole."""
    out, unread = [], []
    for row in _rows(data, "days", MOST_DAYS):
        on = _date(row, "on", "days")
        eaten, missed = _bites(row.get("meals", []))
        planned, _missed = _bites(row.get("planned", []))
        unread += [f"{on}: {line}" for line in missed]
        whole = bool(row.get("whole", True)) and bool(eaten) and not missed
        out.append(LoggedDay(on=on, whole=whole, eaten=eaten, planned=planned))
    if len({day.on for day in out}) < len(out):
        raise OutOfRange("days", "There are two logs of one day: give one.")
    return sorted(out, key=lambda day: day.on), unread


def _happened(data: Mapping[str, Any]) -> list[Happened]:
    out = []
    for row in _rows(data, "happened", MOST_HAPPENED):
        kind = str(row.get("kind", ""))
        if kind not in KINDS:
            raise OutOfRange("happened", f"kind is one of {', '.join(KINDS)}.")
        start = _date(row, "from", "happened")
        end = _date(row, "until", "happened") if "until" in row else start
        out.append(Happened(kind, start, end, _short(row, "words", "happened", 200)))
    return out


def _values(data: Mapping[str, Any]) -> list[Measured]:
    out = []
    for row in _rows(data, "blood", MOST_VALUES):
        key, unit = str(row.get("what", "")), str(row.get("unit", ""))
        value = _number(row, "value", "blood")
        try:
            check_value(key, value, unit)
        except BadValue as error:
            raise OutOfRange("blood", str(error)) from None
        edges = {
            name: _number(row, name, "blood")
            for name in ("low", "high")
            if row.get(name) is not None
        }
        on = _date(row, "on", "blood")
        out.append(Measured(key=key, value=value, unit=unit, on=on, **edges))
    return out


def _pace(pace: Pace | None) -> dict[str, float] | None:
    if pace is None:
        return None
    return {"kg_per_week": pace.kg_per_week, "low": pace.low, "high": pace.high, "days": pace.days}


def report(data: object) -> dict[str, Any]:
    """How a person does who is followed. Raises OutOfRange naming the field."""
    if not isinstance(data, dict):
        raise OutOfRange("file", "The file holds no JSON object.")
    asked = read_asked(data.get("person"))
    weighed = read_weighed(data)
    days, unread = read_days(data)
    values = latest(_values(data))
    ends = [*(one.on for one in weighed), *(day.on for day in days)]
    today = (
        _date(data, "today", "today") if "today" in data else max(ends, default=date(1970, 1, 1))
    )
    target, referred, day = None, "", None
    try:
        day = day_targets(asked.person, asked.school, asked.orders)
        target = day["energy_kcal"].aim
    except Referred as error:
        referred = f"{error} Turn to {error.refer_to}."

    def stated(key: str) -> float | None:
        return _number(data, key, key) if data.get(key) is not None else None

    record = Record(
        person=asked.person,
        school=asked.school,
        weighed=[one for one in weighed if one.on <= today],
        today=today,
        logged=[day for day in days if day.on <= today],
        happened=_happened(data),
        made_for_kg=stated("made_for_kg"),
        made_on=_date(data, "made_on", "made_on") if "made_on" in data else None,
        planned_since=_date(data, "planned_since", "planned_since")
        if "planned_since" in data
        else None,
        blood=blood_numbers(values, asked.person, today),
        target_kcal=stated("target_kcal") or target,
    )
    judged = judge_pace(record)
    doubts = {one.on: doubt(weighed, one) for one in weighed}
    return {
        "referred": referred,
        "standing": judged.kind,
        "words": judged.words,
        "since": judged.since.isoformat() if judged.since else None,
        "expected_kg_per_week": judged.expected,
        "gap_kcal": list(judged.gap_kcal),
        "trend": _trend(judged, record),
        "doubtful": [
            {"on": on.isoformat(), "why": asked_of.words, "likelier_kg": asked_of.likelier}
            for on, asked_of in doubts.items()
            if asked_of is not None
        ],
        "causes": [
            {
                "key": one.key,
                "name": one.name,
                "kcal": one.kcal,
                "low": one.low,
                "high": one.high,
                "share": one.share,
                "supported": one.supported,
                "evidence": list(one.evidence),
                "tells_apart": one.apart,
                "change": one.change,
            }
            for one in causes(record, judged)
        ],
        "eaten": _eaten(record, judged),
        "cautions": _cautions(asked, day, values, record, judged),
        "unread": unread,
        "blood": {
            key: {
                "said": one.words(today),
                "standing": one.standing,
                "fresh": one.fresh(today),
                "in_units": {unit: one.in_unit(unit) for unit in one.analyte.units},
            }
            for key, one in values.items()
        },
        "blood_numbers": blood_numbers(values, asked.person, today),
        "implied": implied_by(values, asked.person.conditions, today),
    }


def _cautions(
    asked: Asked,
    day: DayTargets | None,
    values: Mapping[str, Measured],
    record: Record,
    judged: Judged,
) -> list[dict[str, str]]:
    """What the page warns of: how soon, what to do, the value with its age, and whom to call."""
    person, today = asked.person, record.today
    signs = weight_signs(person, asked.school, record.weighed, today)
    pace = pace_of(judged)
    numbers = {**record.blood, **signs.numbers}
    numbers |= measured_numbers(person, pace.kg_per_week if pace else None)
    told = (
        planned_situation(day, asked.orders, numbers=numbers)
        if day is not None
        else situation(
            person,
            asked.school.code if asked.school else "",
            body_numbers(person) | numbers,
        )
    )
    words = {**told.words, **blood_words(values, record.blood, today), **signs.words}
    return [
        {
            "code": one.code,
            "level": LEVEL_WORDS[one.level],
            "urgent": one.urgent,
            "todo": one.todo,
            "text": one.text,
            "why": one.why,
            "turn_to": one.refer_to,
            "source": one.source,
        }
        for one in cautions_in(replace(told, words=words))
    ]


def _trend(judged: Judged, record: Record) -> dict[str, Any] | None:
    trend = judged.trend
    if trend is None:
        return None
    ahead = heading(trend, record.person)
    return {
        "first": trend.first.isoformat(),
        "last": trend.last.isoformat(),
        "now_kg": trend.now,
        "now_sd_kg": float(trend.sd[-1]),
        "scatter_kg": trend.scatter,
        "hardly_followed": [on.isoformat() for on in trend.odd],
        "pace_two_weeks": _pace(trend.pace(14)),
        "pace_four_weeks": _pace(trend.pace(28)),
        "ahead": None
        if ahead is None
        else {
            "on": ahead.days[-1].isoformat(),
            "kg": ahead.kg[-1],
            "low": ahead.low[-1],
            "high": ahead.high[-1],
        },
    }


def _eaten(record: Record, judged: Judged) -> dict[str, Any] | None:
    known = average(record.logged, "energy_kcal")
    if known is None:
        return None
    told = reported(record.person, known.mean, known.days, pace_of(judged))
    return {
        "days": known.days,
        "energy_kcal": known.mean,
        "low": known.low,
        "high": known.high,
        "far_under": told.far_under if told else None,
        "words": told.words if told else "",
    }


def as_text(data: Mapping[str, Any]) -> str:
    """The report for reading in a terminal."""
    out = [f"REFERRED  {data['referred']}"] if data["referred"] else []
    since = f" (since {data['since']})" if data["since"] else ""
    out.append(f"{data['standing']}{since}: {data['words']}")
    trend = data["trend"]
    if trend:
        out.append(f"trend {trend['now_kg']:.1f} kg, give or take {1.96 * trend['now_sd_kg']:.1f}")
        if trend["ahead"]:
            one = trend["ahead"]
            out.append(
                f"ahead {one['kg']:.1f} kg on {one['on']} ({one['low']:.1f} to {one['high']:.1f})"
            )
    for row in data["cautions"]:
        soon = f" ({row['urgent']}: {row['todo']})" if row["urgent"] else ""
        out.append(f"{row['level'].upper():9} {row['text']}{soon} Turn to {row['turn_to']}.")
    out += [f"ASKED     {row['on']}: {row['why']}" for row in data["doubtful"]]
    for one in data["causes"]:
        mark = "*" if one["supported"] else " "
        out.append(f"{mark} {one['name']}: {one['share'] * 100:.0f} % of the gap")
        out += [f"    {said}" for said in one["evidence"]]
    if data["eaten"]:
        one = data["eaten"]
        out.append(
            f"eaten {one['energy_kcal']:,.0f} kcal a day ({one['low']:,.0f} to {one['high']:,.0f}) "
            f"on {one['days']} days"
        )
    out += [f"NOT READ  {line}" for line in data["unread"]]
    out += [f"{row['said']}: {row['standing'] or 'no range'}" for row in data["blood"].values()]
    out += [f"HOLDS     {code}: {said}" for code, said in data["implied"].items()]
    return "\n".join(out)
