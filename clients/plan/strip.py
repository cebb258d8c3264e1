"""The target strip of a working page: the watched targets always, all the others when they are
looked at; each a reading of where something stands."""

from __future__ import annotations

from dataclasses import dataclass, replace

from clients.models import Client
from clients.plan.in_force import InForce, Plan
from nutrition.composition.amounts import DENSITY, amount_of
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Amount, Profile
from nutrition.targets.aims import share_of_meal
from nutrition.targets.meals import MealTarget
from nutrition.targets.standing import standing
from nutrition.targets.voices import Band, band_words, target_words
from practice.requests import SignedInRequest
from webkit import figures
from webkit.drawing.track import Track, track

# sent by the page with every live request while the other targets are open
OPEN_HEADER = "Strip-Open"
# No working page shows more of them unasked.
MOST_SHOWN = 7
# What speaks of something that is not right yet, or could be so.
MISSED = ("under", "over")


@dataclass(frozen=True, kw_only=True)
class Reading:
    """Where a plan stands on one target, ready to draw. `short` is the value where there is little
    room; `then` is where a proposal would bring it."""

    name: str
    key: str
    target: str
    band: str
    value: str = ""
    short: str = ""
    span: str = ""
    word: str = ""
    state: str = "none"
    unknown: str = ""
    whose: str = ""
    of_day: str = ""
    track: Track
    then: Reading | None = None

    @property
    def said(self) -> str:
        """Where it stands in one word."""
        one_word = {"near": "inside", "none": "", "share": ""}
        return one_word.get(self.state, self.state)

    @property
    def missed(self) -> bool:
        return self.state in MISSED


def reading(target: Band, amount: Amount | None) -> Reading:
    """One line of the target strip. `amount` is None where there is nothing to show yet."""
    key = target.key
    name, words = NUTRIENT[key].name, target_words(target)
    band, bounds = band_words(key, target.low, target.high), (target.low, target.aim, target.high)
    whose = getattr(target, "voice", "")
    if amount is None:
        return Reading(
            name=name, key=key, target=words, band=band, whose=whose, track=track(*bounds, None)
        )
    stands = standing(target, amount)
    value, word = figures.amount(amount, key), figures.standing(stands, key)
    return Reading(
        name=name,
        key=key,
        target=words,
        band=band,
        value=value,
        short=figures.brief(value),
        span=figures.span(amount, key),
        word=word,
        state="near" if word == figures.NEAR_WORDS else stands.state,
        unknown=figures.unknown(amount),
        whose=whose,
        track=track(*bounds, amount.amount, amount.low, amount.high),
    )


def _in_a_meal(plan: Plan, meal: MealTarget, row: InForce, profile: Profile | None) -> Reading:
    """A meal beside its share of a target: judged by it where it answers for it, else how much of
    the day it brings."""
    key = row.target.key
    assert plan.day is not None
    if key not in plan.day.targets:
        return reading(row.target, None if profile is None else amount_of(profile, key))
    share = share_of_meal(plan.day, meal, key)
    amount = None if profile is None else amount_of(profile, key)
    shown = reading(share.target, amount)
    return shown if share.judged else _of_the_day(shown, row, amount, share.most)


def _of_the_day(shown: Reading, row: InForce, amount: Amount | None, most: float | None) -> Reading:
    """How much of the day's something brings that is only part of it: not judged, but for what
    passes what a whole day may have."""
    if amount is None or shown.state == "none":
        return shown
    if most is not None and amount.amount > most:
        return replace(shown, state="over", word="over what a whole day may have")
    whole = row.target.aim
    if row.target.key == DENSITY or whole <= 0:
        return shown if row.target.key == DENSITY else replace(shown, state="share", word="")
    return replace(shown, state="share", word=f"{amount.amount / whole * 100:.0f} % of the day's")


def _readings(
    plan: Plan,
    rows: list[InForce],
    profile: Profile | None,
    meal: MealTarget | None,
    judge: bool = True,
) -> list[Reading]:
    shown = None if profile is None or profile.lines == 0 else profile
    if not judge:
        amounts = [None if shown is None else amount_of(shown, row.target.key) for row in rows]
        return [
            _of_the_day(reading(row.target, amount), row, amount, row.target.high)
            for row, amount in zip(rows, amounts, strict=True)
        ]
    if meal is not None and plan.day is not None:
        return [_in_a_meal(plan, meal, row, shown) for row in rows]
    return [
        reading(row.target, None if shown is None else amount_of(shown, row.target.key))
        for row in rows
    ]


def strip(
    plan: Plan, profile: Profile | None, meal: MealTarget | None = None, judge: bool = True
) -> list[Reading]:
    """Where `profile` stands on the targets that are watched, of the day or of one meal; nothing
    without a client. What is only part of a meal is not judged."""
    return _readings(plan, plan.watched[:MOST_SHOWN], profile, meal, judge)


def others(
    plan: Plan, profile: Profile | None, meal: MealTarget | None = None, judge: bool = True
) -> list[Reading]:
    """Where `profile` stands on all the other targets."""
    return _readings(plan, [*plan.watched[MOST_SHOWN:], *plan.others], profile, meal, judge)


def in_one_line(rows: list[Reading]) -> str:
    """The strip in a line: how many are inside, and by how much the others miss."""
    judged = [row for row in rows if row.state not in ("none", "share")]
    if not judged:
        return "nothing to judge yet" if any(not row.value for row in rows) else "nothing judged"
    inside = sum(1 for row in judged if not row.missed)
    missed = [f"{row.name} {row.word.replace(' by', '')}".lower() for row in judged if row.missed]
    return "; ".join([f"{inside} of {len(judged)} inside", *missed])


def strip_context(
    request: SignedInRequest,
    plan: Plan,
    profile: Profile | None,
    client: Client | None,
    what: str,
    meal: MealTarget | None = None,
    why: str = "",
    judge: bool = True,
) -> dict[str, object]:
    """What the strip's template needs: where `what` ("This bowl") stands, against the day or one
    meal's share; `why` names it where a number is asked where it comes from ("bowl-3").

    In a live answer the other targets are reckoned and drawn only while they are open; a page
    always has them.
    """
    with_others = not request.htmx or OPEN_HEADER in request.headers
    rows = strip(plan, profile, meal, judge)
    return {
        "strip": rows,
        "strip_line": in_one_line(rows),
        "others": others(plan, profile, meal, judge) if with_others else [],
        "with_others": with_others,
        "strip_client": client,
        "strip_of": what,
        "strip_meal": meal,
        "why_of": why,
    }
