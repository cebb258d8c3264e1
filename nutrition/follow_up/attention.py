"""What needs a look, and since when: how long since a weigh-in, where the weight goes, whose
targets are no longer theirs."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from nutrition.follow_up.stall import FAST_SHARE_PER_WEEK, Judged, Record, judge_pace, span
from nutrition.follow_up.trend import Pace
from nutrition.follow_up.weigh_in import Weighed
from nutrition.targets.person import OutOfRange, Person, check
from nutrition.targets.schools import School

# Common practice, no source. [d], [share of body weight]
WEIGH_IN_DAYS = 14
DRIFT_SHARE = 0.03


# What would settle what is to be attended to.
CORRECT, WEIGH, LOOK_AT_DAYS, TELL, RETARGET, PLAN, LOOK_AT_CHANGE, SIGN = (
    "correct",
    "weigh",
    "look at days",
    "tell",
    "retarget",
    "plan",
    "look at change",
    "sign",
)


# A change is looked at after so long, a note is signed within so long. [d] Common practice, no
# source.
CHANGE_DAYS, SIGN_DAYS = 21, 2


@dataclass(frozen=True)
class Need:
    """What is to be attended to, in words, the `step` that settles it, since when it is so, where
    that is known, and what makes it so."""

    words: str
    step: str
    since: date | None = None
    because: str = ""

    def __str__(self) -> str:
        return self.words


def pace_of(judged: Judged) -> Pace | None:
    """The pace over the last four weeks, or two where there are no four; None for too few
    weigh-ins."""
    return judged.trend.lately if judged.trend else None


def judged_for(
    person: Person,
    weighed: Sequence[Weighed],
    today: date,
    school: School | None = None,
    planned_since: date | None = None,
) -> Judged:
    """How the weight stands, from the weigh-ins alone, and since when there is a plan for it."""
    record = Record(
        person=person, school=school, weighed=weighed, today=today, planned_since=planned_since
    )
    return judge_pace(record)


def attention(
    person: Person,
    weighed: Sequence[Weighed],
    made_for_kg: float | None,
    planned_until: date | None,
    today: date,
    judged: Judged | None = None,
) -> list[Need]:
    """What to attend to, plainest first; empty when nothing asks for it. `weighed` is newest first;
    the targets were made for `made_for_kg` [kg]; the last day planned is `planned_until`; `judged`
    is how the weight stands, where that was asked already."""
    out = []
    try:
        check(person)
    except OutOfRange as error:
        out.append(Need(str(error), CORRECT))
    if not weighed:
        out.append(Need("Not weighed yet", WEIGH))
    elif (today - weighed[0].on).days > WEIGH_IN_DAYS:
        days = (today - weighed[0].on).days
        out.append(Need(f"Last weighed {days} days ago", WEIGH))
    judged = judged_for(person, weighed, today) if judged is None else judged
    pace = pace_of(judged)
    if judged.stalled:
        verb = "losing" if judged.expected < 0 else "gaining"
        out.append(
            Need(f"Not {verb} as expected", LOOK_AT_DAYS, judged.since, judged.words.rstrip("."))
        )
    if (
        pace is not None
        and judged.trend
        and -pace.kg_per_week > FAST_SHARE_PER_WEEK * judged.trend.now
    ):
        said = span(pace)
        words = (
            f"{said[:1].upper()}{said[1:]}: more than 1 % of body weight. Ask why, and tell their "
            f"physician"
        )
        out.append(Need(words, TELL))
    now = judged.trend.now if judged.trend else weighed[0].kg if weighed else None
    if made_for_kg and now and abs(now - made_for_kg) > DRIFT_SHARE * made_for_kg:
        words = f"Targets were made for {made_for_kg:g} kg; the trend is at {now:.1f} kg"
        if judged.trend is None:
            words = f"Targets were made for {made_for_kg:g} kg; the last weigh-in is {now:g} kg"
        out.append(Need(words, RETARGET))
    if planned_until is None or (today - planned_until).days > 1:
        out.append(Need("No day planned", PLAN, planned_until))
    return out
