"""Why it stalls: the explanations that the record supports, by how much of the gap each could
account for, each with its evidence and what would tell it from the others. Nobody is to blame in
any of them."""

# Whole: each explanation is one function of the same shape; they are read side by side.

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta

from nutrition.follow_up.events import KINDS
from nutrition.follow_up.intake import (
    WEEKEND,
    Grew,
    LoggedDay,
    average,
    grown,
    parted,
    whole_days,
)
from nutrition.follow_up.reported_energy import KILOGRAM_SD, reported
from nutrition.follow_up.stall import Judged, Record
from nutrition.follow_up.weigh_in import LATER
from nutrition.targets.body import weight_used
from nutrition.targets.energy_plan import energy_need
from nutrition.targets.person import ACTIVITY_WORDS, Person
from nutrition.targets.weight_forecast import (
    HALF_LIFE_DAYS,
    KCAL_PER_KG_STATIC,
    static_kcal,
)

# From here on a food is dense: where Rolls's third band begins. [kcal/g] Rolls (2005), from memory.
DENSE_KCAL_PER_G = 1.6
# An explanation worth a line accounts for this share of the gap; one with more is supported.
WORTH_SHARE, SUPPORTED_SHARE = 0.07, 0.15
# A day that nobody wrote down may hold so much more than one that was, of what is needed. [share]
# Common practice, no source.
UNLOGGED_MORE = 0.25
UNLOGGED_SHARE = 0.25
# What a scale shows more after the morning, dressed, or may show by itself. [kg] Common practice.
LATER_KG, DRESSED_KG, SCALE_KG = 0.7, 1.0, 1.0
# So many days before are what later ones are held against. [d]
EARLIER_DAYS = 42
# TSH from which a thyroid may slow the body, and from which it does; and by what share of the
# energy. [mIU/L] American Thyroid Association (2014), from memory; the share: common practice, no
# source.
TSH_HIGH, TSH_VERY_HIGH, THYROID_SHARE = 4.5, 10.0, 0.06
THYROID = "thyroid"
LIGHTER, GREW, UNLOGGED, WEEKENDS, UNDER, WATER, SCALE, ACTIVITY, PACE = (
    "lighter",
    "portions",
    "unlogged",
    "weekends",
    "forgotten",
    "water",
    "scale",
    "activity",
    "pace",
)


@dataclass(frozen=True, kw_only=True)
class Cause:
    """One explanation: how much of the gap it could account for [kcal/day], with a range; what in
    the record speaks for it, and what would tell it from the others. `foods` are those it is
    about."""

    key: str
    name: str
    kcal: float
    low: float
    high: float
    evidence: tuple[str, ...]
    apart: str
    change: str
    share: float = 0.0
    supported: bool = True
    foods: tuple[Grew, ...] = ()

    @property
    def words(self) -> str:
        """ "about 60 % of the gap (30 to 90)" """
        return f"about {min(self.share, 1.0) * 100:.0f} % of the gap"


def causes(record: Record, judged: Judged) -> list[Cause]:
    """The explanations of a stall, those with most behind them first; empty where there is none to
    explain."""
    gap = judged.gap_kcal[0]
    if not judged.stalled or judged.pace is None or judged.trend is None or gap <= 0:
        return []
    losing = judged.expected < 0
    looked: list[Callable[[Record, Judged], Cause | None]] = [_water, _scale, _pace, _thyroid]
    looked += [_lighter, _portions, _weekends, _unlogged, _activity] if losing else [_unlogged]
    looked += [_forgotten] if losing else []
    found = [cause for look in looked if (cause := look(record, judged)) is not None]
    out = []
    for one in found:
        share = one.kcal / gap
        if share >= WORTH_SHARE:
            supported = one.supported and share >= SUPPORTED_SHARE
            out.append(replace(one, share=share, supported=supported))
    return sorted(out, key=lambda one: (not one.supported, -min(one.share, 1.0), -one.kcal))


def _need(person: Person, **other: object) -> float:
    changed = replace(person, **other)  # type: ignore[arg-type]
    need, _words, _source = energy_need(changed, weight_used(changed).kg)
    return need


def _window(record: Record, judged: Judged) -> tuple[date, date]:
    assert judged.trend is not None and judged.pace is not None
    return judged.trend.last - timedelta(days=judged.pace.days), judged.trend.last


def _recent(record: Record, judged: Judged) -> list[LoggedDay]:
    start, _end = _window(record, judged)
    return [day for day in record.logged if start <= day.on <= record.today]


def _lighter(record: Record, judged: Judged) -> Cause | None:
    if record.made_for_kg is None or judged.trend is None:
        return None
    now = judged.trend.now
    if now >= record.made_for_kg or record.person.formula == "measured":
        return None
    before, after = (_need(record.person, weight_kg=kg) for kg in (record.made_for_kg, now))
    kcal = before - after
    when = f" on {record.made_on:%b} {record.made_on.day}" if record.made_on else ""
    return Cause(
        key=LIGHTER,
        name="The body is lighter and needs less",
        kcal=kcal,
        low=kcal * 0.7,
        high=kcal * 1.6,
        evidence=(
            f"The targets were made{when} for {record.made_for_kg:.1f} kg, which needs "
            f"{before:,.0f} kcal; {now:.1f} kg need {after:,.0f}.",
        ),
        apart="It comes by itself with every loss, with nothing eaten differently.",
        change="Make new targets for the weight now.",
    )


def _portions(record: Record, judged: Judged) -> Cause | None:
    start, _end = _window(record, judged)
    later = _recent(record, judged)
    earlier = [
        day for day in record.logged if start - timedelta(days=EARLIER_DAYS) <= day.on < start
    ]
    if len(whole_days(earlier)) < 3:
        half = start + (record.today - start) / 2
        earlier = [day for day in later if day.on <= half]
        later = [day for day in later if day.on > half]

    def dense(kcal_per_g: float) -> bool:
        return kcal_per_g >= DENSE_KCAL_PER_G

    grew = grown(earlier, later, dense)[:4]
    evidence = [
        f"{one.name}: {one.after_g:.0f} g a day, {one.before_g:.0f} g before; {one.kcal:+.0f} kcal."
        for one in grew
    ]
    kcal = sum(one.kcal for one in grew)
    if not grew:
        known = parted(_recent(record, judged))
        over = [
            one
            for one in (known.foods if known else ())
            if one.by > 0 and one.grams > 0 and one.by / one.grams >= DENSE_KCAL_PER_G
        ]
        grew = [
            Grew(
                name=one.name,
                before_g=one.planned / (one.by / one.grams),
                after_g=one.eaten / (one.by / one.grams),
                kcal=one.by,
                sd=one.by / 2,
            )
            for one in over[:4]
        ]
        kcal = sum(one.kcal for one in grew)
        evidence = [
            f"{one.name}: {one.after_g:.0f} g a day were eaten, {one.before_g:.0f} g planned; "
            f"{one.kcal:+.0f} kcal."
            for one in grew
        ]
    if not grew:
        return None
    sd = sum(one.sd**2 for one in grew) ** 0.5
    return Cause(
        key=GREW,
        name="Portions of a few dense foods grew",
        kcal=kcal,
        low=max(kcal - 1.96 * sd, 0.0),
        high=kcal + 1.96 * sd,
        evidence=tuple(evidence),
        apart="Weigh these foods for a week: spoons, handfuls and pours grow without being seen.",
        change="A spoon less of the densest, a cup of greens more.",
        foods=tuple(grew),
    )


def _weekends(record: Record, judged: Judged) -> Cause | None:
    days = whole_days(_recent(record, judged))
    weekend = [day.kcal for day in days if day.on.weekday() in WEEKEND]
    week = [day.kcal for day in days if day.on.weekday() not in WEEKEND]
    if len(weekend) < 3 or len(week) < 5:
        return None
    more = sum(weekend) / len(weekend) - sum(week) / len(week)
    sd = (_variance(weekend) / len(weekend) + _variance(week) / len(week)) ** 0.5
    if more < 100.0 or more < 1.64 * sd:
        return None
    kcal = more * 2.0 / 7.0
    return Cause(
        key=WEEKENDS,
        name="Weekends bring more than the other days",
        kcal=kcal,
        low=max(more - 1.96 * sd, 0.0) * 2.0 / 7.0,
        high=(more + 1.96 * sd) * 2.0 / 7.0,
        evidence=(
            f"{more:,.0f} kcal more on each of {len(weekend)} logged Saturdays and Sundays than on "
            f"{len(week)} other days.",
        ),
        apart="Ask how a Saturday goes, from waking up.",
        change="One meal of the weekend, planned as on the other days.",
    )


def _variance(values: Sequence[float]) -> float:
    mean = sum(values) / len(values)
    return sum((value - mean) ** 2 for value in values) / max(len(values) - 1, 1)


def _unlogged(record: Record, judged: Judged) -> Cause | None:
    start, _end = _window(record, judged)
    there = {day.on for day in record.logged if day.whole}
    all_days = [start + timedelta(days=at) for at in range((record.today - start).days)]
    missing = [on for on in all_days if on not in there]
    if not all_days or not record.logged:
        return None
    share = len(missing) / len(all_days)
    if share < UNLOGGED_SHARE:
        return None
    kcal = share * UNLOGGED_MORE * _need(record.person)
    weekend = sum(1 for on in missing if on.weekday() in WEEKEND)
    each = judged.gap_kcal[0] / share
    evidence = [
        f"{len(missing)} of {len(all_days)} days are not logged: what was eaten then is unknown.",
        f"To explain all of it they would have to hold {each:,.0f} kcal more than the others.",
    ]
    if weekend > len(missing) / 2:
        evidence.append(f"{weekend} of them are Saturdays and Sundays.")
    return Cause(
        key=UNLOGGED,
        name="Days that were not logged",
        kcal=kcal,
        low=0.0,
        high=2.0 * kcal,
        evidence=tuple(evidence),
        apart="Log a week of seven days; “yesterday, from waking up” will do.",
        change="Ask for three of those days as recalls.",
    )


def _forgotten(record: Record, judged: Judged) -> Cause | None:
    known = average(_recent(record, judged), "energy_kcal")
    if known is None or judged.pace is None or known.days < 3:
        return None
    said = reported(record.person, known.mean, known.days, judged.pace)
    if said is None or said.implied is None or not said.far_under:
        return None
    # on the days that were logged alone: what the others held is unknown
    start, _end = _window(record, judged)
    share = min(known.days / max((record.today - start).days, 1), 1.0)
    kcal = min((said.implied.kcal - said.kcal) * share, judged.gap_kcal[0])
    return Cause(
        key=UNDER,
        name="More was eaten than is in the record",
        kcal=kcal,
        low=max(said.implied.low - said.kcal, 0.0) * share,
        high=max(said.implied.high - said.kcal, 0.0) * share,
        evidence=(
            said.words,
            "Everybody forgets tastes, pours and second helpings: it is how memory works.",
        ),
        apart="Three days weighed, oil, nuts and drinks first; or a recall with its passes.",
        change="Weigh what is dense for three days.",
    )


def _activity(record: Record, judged: Judged) -> Cause | None:
    levels = list(ACTIVITY_WORDS)
    at = levels.index(record.person.activity)
    if at == 0 or record.person.formula not in ("dri_2023", "mifflin"):
        return None
    here, lower = (_need(record.person, activity=level) for level in (levels[at], levels[at - 1]))
    kcal = here - lower
    if kcal <= 0:
        return None
    said = [ACTIVITY_WORDS[level].split(":")[0] for level in (levels[at], levels[at - 1])]
    evidence = [
        f"The need is computed for “{said[0]}”: {here:,.0f} kcal; at “{said[1]}” it is "
        f"{lower:,.0f}."
    ]
    by_record = need_by_record(record, judged)
    if by_record is not None:
        need, low, high = by_record
        evidence.append(
            f"By the logged days and the trend the need is {need:,.0f} kcal ({low:,.0f} to "
            f"{high:,.0f})."
        )
    return Cause(
        key=ACTIVITY,
        name="The activity was set too high",
        kcal=kcal,
        low=0.5 * kcal,
        high=kcal,
        evidence=tuple(evidence),
        apart="Ask what a working day is on the feet; if the record is complete, it is this.",
        change="Set the activity a level lower, and make new targets.",
        supported=by_record is not None and by_record[2] < here,
    )


def _water(record: Record, judged: Judged) -> Cause | None:
    start, end = _window(record, judged)
    if judged.expected > 0:
        return None
    holding = [one for one in record.happened if one.start >= start and one.holds_water_on(end)]
    possible = (
        not holding
        and record.person.sex == "female"
        and record.person.age_years < 52
        and not record.person.pregnant
        and judged.pace is not None
        and judged.pace.days <= 28
    )
    if not holding and not possible:
        return None
    kg = min(sum(KINDS[one.kind].water_kg for one in holding), 2.0) if holding else 1.0
    weeks = max((end - start).days, 1) / 7.0
    kcal = kg / weeks * KCAL_PER_KG_STATIC / 7.0
    if holding:
        evidence = tuple(
            f"{one.name[:1].upper()}{one.name[1:]} since {one.start:%b} {one.start.day}: up to "
            f"{KINDS[one.kind].water_kg:g} kg of water for a while."
            for one in holding
        )
    else:
        evidence = ("Before a period up to a kilogram of water is usual; none is in the record.",)
    return Cause(
        key=WATER,
        name="Water hides the loss",
        kcal=kcal,
        low=0.3 * kcal,
        high=1.2 * kcal,
        evidence=evidence,
        apart="It goes by itself: the same food, weighed for another two to four weeks; the waist.",
        change="Change nothing yet, and measure the waist.",
        supported=bool(holding),
    )


def _thyroid(record: Record, judged: Judged) -> Cause | None:
    """A thyroid that works too little spends less: a value over its range is worth a look."""
    tsh = record.blood.get("blood_tsh")
    if judged.expected > 0 or tsh is None or tsh <= TSH_HIGH:
        return None
    share = THYROID_SHARE if tsh > TSH_VERY_HIGH else THYROID_SHARE / 2.0
    kcal = share * _need(record.person)
    return Cause(
        key=THYROID,
        name="The thyroid works too little",
        kcal=kcal,
        low=0.0,
        high=2.0 * kcal,
        evidence=(
            f"TSH {tsh:.3g} mIU/L is over {TSH_HIGH:g}: the body spends less, and holds water.",
        ),
        apart="Free T4, and the value again in six weeks: the physician settles it.",
        change="Change nothing on the plate for it; ask the physician.",
        supported=tsh > TSH_VERY_HIGH,
    )


def _scale(record: Record, judged: Judged) -> Cause | None:
    start, end = _window(record, judged)
    rows = sorted((one for one in record.weighed if start <= one.on <= end), key=lambda one: one.on)
    half = len(rows) // 2
    before, after = rows[:half], rows[half:]
    if len(before) < 2 or len(after) < 2:
        return None
    sign = -1.0 if judged.expected < 0 else 1.0
    kg, evidence = 0.0, []

    def more(has: Callable[[object], bool]) -> float:
        return sum(map(has, after)) / len(after) - sum(map(has, before)) / len(before)

    later = more(lambda one: getattr(one, "time", "") == LATER)
    if abs(later) >= 0.5:
        kg += later * LATER_KG
        when = "later in the day" if later > 0 else "in the morning"
        evidence.append(f"Weighed {when} lately, otherwise before.")
    dressed = more(lambda one: bool(getattr(one, "dressed", False)))
    if abs(dressed) >= 0.5:
        kg += dressed * DRESSED_KG
        evidence.append(f"Weighed {'dressed' if dressed > 0 else 'undressed'} lately.")
    moved = [
        one for one in record.happened if one.kind in ("scale", "hour") and start < one.start <= end
    ]
    scales = {one.scale for one in rows if one.scale}
    if len(scales) > 1 or any(one.kind == "scale" for one in moved):
        kg -= sign * SCALE_KG
        evidence.append("Another scale in between: two scales differ by a kilogram.")
    elif moved and not evidence:
        kg -= sign * LATER_KG
        evidence.append("Weighed at another hour since.")
    # what makes the weight look as if it went the wrong way
    hidden = -sign * kg
    if hidden <= 0:
        return None
    weeks = max((end - start).days, 1) / 7.0
    kcal = hidden / weeks * KCAL_PER_KG_STATIC / 7.0
    return Cause(
        key=SCALE,
        name="The scale or the hour changed",
        kcal=kcal,
        low=0.3 * kcal,
        high=2.0 * kcal,
        evidence=tuple(evidence),
        apart="Weigh twice within an hour, in the old way and the new.",
        change="One scale, on rising, undressed, for two weeks.",
    )


def _pace(record: Record, judged: Judged) -> Cause | None:
    """What the plan's own energy can bring, by the model that slows."""
    if record.target_kcal is None or record.made_for_kg is None:
        return None
    planned = record.target_kcal - _need(record.person, weight_kg=record.made_for_kg)
    since = (record.today - record.made_on).days if record.made_on else 0
    slowed = 0.5 ** (max(since, 0) / HALF_LIFE_DAYS)
    brings = planned * 7.0 / KCAL_PER_KG_STATIC * slowed
    short = abs(judged.expected) - max(brings * (1.0 if judged.expected > 0 else -1.0), 0.0)
    if short <= 0:
        return None
    kcal = static_kcal(short)
    return Cause(
        key=PACE,
        name="The pace that was expected was never realistic",
        kcal=kcal,
        low=0.7 * kcal,
        high=1.3 * kcal,
        evidence=(
            f"{record.target_kcal:,.0f} kcal a day stand for {abs(brings):.2f} kg a week by now "
            f"(Hall et al. 2011); {abs(judged.expected):.2f} kg are asked for.",
        ),
        apart="It shows in the plan alone, whatever is eaten.",
        change="Agree on a slower pace, and say so.",
    )


def need_by_record(record: Record, judged: Judged) -> tuple[float, float, float] | None:
    """What holds the weight, by the logged days and the trend, with its 95 % range; None under a
    week of whole days or without a pace. [kcal/day]"""
    if judged.trend is None or judged.pace is None:
        return None
    known = average(_recent(record, judged), "energy_kcal")
    if known is None or known.days < 7:
        return None
    body = static_kcal(judged.pace.kg_per_week)
    half = (
        ((known.high - known.low) / 2.0) ** 2
        + static_kcal(judged.pace.half) ** 2
        + (1.96 * KILOGRAM_SD * body) ** 2
    ) ** 0.5
    need = known.mean - body
    return need, need - half, need + half
