"""What needs a look, and when: how long since a weigh-in, where the weight goes, whose targets are
no longer theirs."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from nutrition.follow_up.trend import weekly_change
from nutrition.targets.day import held_because
from nutrition.targets.person import OutOfRange, Person, check

# All of them common practice, no source. [d], [share of body weight per week], [share of it],
# [kg/week]
WEIGH_IN_DAYS = 14
FAST_SHARE_PER_WEEK = 0.01
DRIFT_SHARE = 0.03
LEAST_LOSS_KG = 0.05
# The pace is that of the last four weeks. [d]
PACE_DAYS = 28


# What would settle what is to be attended to.
CORRECT, WEIGH, LOOK_AT_DAYS, TELL, RETARGET, PLAN = (
    "correct",
    "weigh",
    "look at days",
    "tell",
    "retarget",
    "plan",
)


@dataclass(frozen=True)
class Need:
    """What is to be attended to, in words, and the `step` that settles it."""

    words: str
    step: str

    def __str__(self) -> str:
        return self.words


@dataclass(frozen=True)
class Weighed:
    """A weigh-in. [kg]"""

    on: date
    kg: float


def pace_of(weighed: Sequence[Weighed]) -> float | None:
    """Change over the last four weeks of weigh-ins, newest first, by the line of least squares.
    [kg/week] None for under three."""
    if not weighed:
        return None
    newest = weighed[0].on
    points = [((one.on - newest).days, one.kg) for one in weighed]
    return weekly_change([(day, kg) for day, kg in points if -day <= PACE_DAYS])


def attention(
    person: Person,
    weighed: Sequence[Weighed],
    made_for_kg: float | None,
    planned_until: date | None,
    today: date,
) -> list[Need]:
    """What to attend to, plainest first; empty when nothing asks for it. `weighed` is newest first;
    the targets were made for `made_for_kg` [kg]; the last day planned is `planned_until`."""
    out = []
    try:
        check(person)
    except OutOfRange as error:
        out.append(Need(str(error), CORRECT))
    if not weighed:
        out.append(Need("Not weighed yet", WEIGH))
    elif (today - weighed[0].on).days > WEIGH_IN_DAYS:
        out.append(Need(f"Last weighed {(today - weighed[0].on).days} days ago", WEIGH))
    pace = pace_of(weighed)
    losing = person.goal == "lose" and not held_because(person)
    if pace is not None and losing and pace > -LEAST_LOSS_KG:
        out.append(Need("Weight is not falling", LOOK_AT_DAYS))
    if pace is not None and weighed and pace < -FAST_SHARE_PER_WEEK * weighed[0].kg:
        words = (
            f"Losing {-pace:.1f} kg a week: more than 1 % of body weight. Ask why, and tell their "
            f"physician"
        )
        out.append(Need(words, TELL))
    if made_for_kg and weighed and abs(weighed[0].kg - made_for_kg) > DRIFT_SHARE * made_for_kg:
        words = (
            f"Targets were made for {made_for_kg:g} kg; the last weigh-in is {weighed[0].kg:g} kg"
        )
        out.append(Need(words, RETARGET))
    if planned_until is None or (today - planned_until).days > 1:
        out.append(Need("No day planned", PLAN))
    return out
