"""A letter to a physician as the record begins it: what was asked, what was found, what is planned,
what needs an order."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from clients.models import Client
from clients.plan.attention import judged_now, weekly_pace
from clients.plan.cautions import of_the_client
from clients.plan.in_force import Plan, plan_of
from journal.blood.values import Shown, latest_rows
from journal.models import Letter
from nutrition.safety.caution_rules import LEVELS
from nutrition.safety.cautions import Caution

# The sections, in the order of a page: key, heading, what to have in mind.
SECTIONS = (
    ("asked", "What was asked", "Who sent them, and for what."),
    ("found", "What was found", "Beside the values below: what you saw and heard."),
    ("planned", "What is planned", "The diet, its limits, and until when."),
    ("orders", "What needs your order", "One request a line: each gets a box to answer in."),
)
MOST_WORDS = 2000
# So many values and requests stand on one page.
MOST_VALUES, MOST_REQUESTS = 10, 6
# A value that lies inside its range is told where it is no older. [days]
LATELY = timedelta(days=120)


@dataclass(frozen=True)
class Value:
    """A figure of the record: what, how much, where it stands, and of when."""

    name: str
    said: str
    standing: str
    on: str


def values_of(letter: Letter) -> list[Value]:
    """The values of the record on the letter's date; a signed one's as they were then."""
    if letter.signed:
        return [Value(*row) for row in letter.figures]
    return [*_weight(letter.client, letter.date), *_blood(letter.client, letter.date)]


def _on(day: date) -> str:
    return f"{day:%b} {day.day}, {day.year}"


def _weight(client: Client, on: date) -> list[Value]:
    rows = [row for row in client.newest_weigh_ins() if row.date <= on]
    if not rows:
        return []
    last = rows[0]
    bmi = last.kg / (client.height_cm / 100.0) ** 2
    pace = weekly_pace(judged_now(client, on))
    moves = f"{pace.kg_per_week:+.2f} kg a week".replace("-", "−") if pace else ""
    return [Value("Weight", f"{last.kg:.1f} kg, BMI {bmi:.1f}", moves, _on(last.date))]


def _blood(client: Client, on: date) -> list[Value]:
    """What lies outside its range first, then what was measured lately."""
    rows = latest_rows(client, on)
    outside = [one for one in rows if one.standing in ("over", "under")]
    inside = [one for one in rows if one not in outside and on - one.measured.on <= LATELY]
    return [
        Value(
            one.analyte.name,
            _said(one),
            f"{one.standing} ({one.range_words})" if one.standing else one.range_words,
            _on(one.measured.on),
        )
        for one in (outside + inside)[: MOST_VALUES - 1]
    ]


def _said(one: Shown) -> str:
    """A value in both units, with what is reckoned of it."""
    more = "; ".join(words for words in (one.other, one.more) if words)
    return f"{one.said} ({more})" if more else one.said


def begun(client: Client, on: date) -> dict[str, str]:
    """The words that a letter begins with, for whoever writes it to change."""
    plan = plan_of(client, on=on)
    return {
        "asked": f"{client.name} came with this wish: {client.wish}" if client.wish else "",
        "found": "; ".join(client.condition_words).capitalize(),
        "planned": _planned(client, plan),
        "orders": "\n".join(requests_of(client, plan, on)),
    }


def _planned(client: Client, plan: Plan) -> str:
    if plan.day is None:
        return f"No targets are computed: {plan.problem}" if plan.problem else ""
    said = "; ".join(f"{row.name} {row.words}" for row in plan.watched[:6])
    goal = client.get_goal_display()
    without = f", without {client.allergy_words}" if client.allergy_words else ""
    return f"A whole-food plant-based diet{without}; goal: {goal}. A day: {said}."


def requests_of(client: Client, plan: Plan, on: date) -> list[str]:
    """What stands for the client and is a clinician's to settle, the gravest first."""
    pace = weekly_pace(judged_now(client, on))
    told = of_the_client(plan, client, pace.kg_per_week if pace else None)
    graver = [one for one in told.standing if one.level in LEVELS[:2]]
    return [_request(one) for one in graver[:MOST_REQUESTS]]


def _request(one: Caution) -> str:
    """A caution as a request: what it says; what whoever plans has to do is theirs."""
    return f"{one.text.rstrip('.')}."


def asked_lines(words: str) -> list[str]:
    """The requests, a line each."""
    return [line.strip() for line in words.splitlines() if line.strip()]


def answered_last(client: Client) -> dict[str, str]:
    """Who answered the last letter, for whoever types their order; nothing where nobody did."""
    last = client.letters.exclude(answered=None).order_by("-answered").first()
    return {"given_by": last.answered_by, "license": last.license} if last else {}
