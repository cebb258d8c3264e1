"""A visit note: begun from the record, in the order of the dietetic care process, or short; its
figures are kept as they were when it is signed."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from clients.models import Client
from clients.plan.in_force import Plan, plan_of
from journal.blood.values import latest_rows
from journal.models import FELT, Visit
from journal.record.reading import Reading, read
from journal.stall.outcome import since_then
from nutrition.composition.nutrients import NUTRIENT
from nutrition.follow_up.attention import pace_of
from nutrition.follow_up.stall import span
from practice.models import User
from webkit import figures

# The sections of each form: key, heading, what to have in mind, and whether figures stand above it.
FULL = (
    ("assessment", "Assessment", "What was found, and how they say it goes.", True),
    ("problem", "Diagnosis: problem", "One, in the words of nutrition.", False),
    ("etiology", "Related to", "What it comes from, as far as anybody knows.", False),
    ("signs", "As shown by", "The signs and figures that show it.", False),
    ("intervention", "Intervention", "What was changed and taught, and why.", True),
    ("monitoring", "Monitoring and evaluation", "How it will be seen whether it works.", False),
)
SHORT = (
    ("assessment", "How it goes", "Seen and heard.", True),
    ("intervention", "Agreed", "What was changed, and why.", True),
)
NEXT = (
    ("questions", "Questions for the next visit", ""),
    ("measure", "What to measure until then", ""),
    ("promised", "What was promised, and by whom", ""),
)
MOST_WORDS = 6000
LATELY = 28


@dataclass(frozen=True)
class Figure:
    """A line of the record: the section it belongs to, what it is, and its words."""

    section: str
    name: str
    said: str


def sections_of(visit: Visit) -> tuple[tuple[str, str, str, bool], ...]:
    return FULL if visit.form == "full" else SHORT


def visit_before(visit: Visit) -> Visit | None:
    """The signed visit before this one."""
    rows = visit.client.visits.exclude(signed=None).exclude(pk=visit.pk)
    return rows.filter(date__lte=visit.date).first()


def figures_of(visit: Visit) -> list[Figure]:
    """The figures of the record since the visit before; a signed note's as they were then."""
    if visit.signed:
        return [Figure(*row) for row in visit.figures]
    client, on = visit.client, visit.date
    before = visit_before(visit)
    plan = plan_of(client, on=on)
    known = read(client, on, plan)
    since = before.date if before else on - timedelta(days=LATELY)
    return [
        *_weight(known, since, before is not None),
        *_eaten(known, on, since),
        *_blood(client, on, since),
        *_felt(client, on, since),
        *_happened(client, on, since),
        *_plan(client, plan, known),
    ]


def _on(day: date) -> str:
    return f"{day:%b} {day.day}"


def _weight(known: Reading, since: date, visited: bool) -> list[Figure]:
    out = []
    judged, trend = known.judged, known.judged.trend
    if trend is not None:
        level, sd = trend.at(trend.last)
        was, _sd = trend.at(since)
        words = f"{level:.1f} kg by the trend on {_on(trend.last)} (give or take {1.96 * sd:.1f})"
        if trend.first <= since < trend.last:
            moved = f"{level - was:+.1f} kg".replace("-", "−")
            what = "the visit of" if visited else ""
            words += f"; {moved} since {what} {_on(since)}".replace("  ", " ")
        out.append(Figure("assessment", "Weight", f"{words}."))
        pace = pace_of(judged)
        if pace is not None:
            said = span(pace)
            out.append(Figure("assessment", "Pace", f"{said[:1].upper()}{said[1:]}."))
    out.append(Figure("assessment", "How it stands", f"{judged.kind}: {judged.words}"))
    for cause in known.causes[:3]:
        if cause.supported:
            said = f"{cause.name}: {cause.words}. {' '.join(cause.evidence)}"
            out.append(Figure("assessment", "May account for it", said))
    return out


def _eaten(known: Reading, on: date, since: date) -> list[Figure]:
    days = max((on - since).days, 1)
    whole = known.whole_in(days)
    out = [
        Figure(
            "assessment",
            "Logged",
            f"{whole} of {days} days wholly; what was eaten on the others is unknown.",
        )
    ]
    for row, one in known.averages(days):
        nutrient = NUTRIENT[one.key]
        span, target = figures.span(one.amount, one.key), getattr(row, "words", "")
        said = f"{figures.amount(one.amount, one.key)} a day{f' ({span})' if span else ''}"
        said += f"; target {target}."
        out.append(Figure("assessment", nutrient.name, said))
    parted = known.parted(days)
    for apart in parted.foods[:2] if parted else ():
        said = f"{apart.name}: {apart.by:+,.0f} kcal a day against the plan.".replace("-", "−")
        out.append(Figure("assessment", "Plate and plan", said))
    told = known.reported(days)
    if told is not None and told.far_under:
        out.append(Figure("assessment", "What is written down", told.words))
    return out


def _blood(client: Client, on: date, since: date) -> list[Figure]:
    out = []
    for one in latest_rows(client, on):
        new = one.measured.on >= since
        if not new and one.standing in ("inside", ""):
            continue
        where = {"over": "over", "under": "under", "inside": "inside"}.get(one.standing, "")
        said = f"{one.said}, {where} the range ({one.range_words})" if where else one.said
        said += f", measured {_on(one.measured.on)}"
        said += f"; before it {one.moved}" if one.before else ""
        said += f". {one.more}" if one.more else ""
        out.append(Figure("assessment", one.analyte.name, f"{said}."))
    return out


def _felt(client: Client, on: date, since: date) -> list[Figure]:
    rows = list(client.felt.filter(date__range=(since, on)))
    out = []
    for name in FELT:
        values = [value for row in rows if (value := getattr(row, name)) is not None]
        if values:
            mean = sum(values) / len(values)
            said = f"{mean:.1f} of 10 on {len(values)} days ({min(values)} to {max(values)})."
            out.append(Figure("assessment", name.capitalize(), said))
    return out


def _happened(client: Client, on: date, since: date) -> list[Figure]:
    rows = client.happenings.filter(start__range=(since, on))
    return [
        Figure(
            "assessment",
            "Happened",
            f"{row.happened().name} from {_on(row.start)}{f': {row.words}' if row.words else ''}.",
        )
        for row in rows
    ]


def _plan(client: Client, plan: Plan, known: Reading) -> list[Figure]:
    out = []
    if plan.day is not None:
        said = "; ".join(f"{row.name} {row.words}" for row in plan.watched[:4])
        number = f" (version {plan.version.number})" if plan.version else ""
        out.append(Figure("intervention", "Targets in force", f"{said}{number}."))
    elif plan.problem:
        out.append(Figure("intervention", "Referred", f"{plan.problem} {plan.refer_to}."))
    for row in client.changes_taken.all()[:3]:
        state = row.get_outcome_display() if row.ended else since_then(row, known.judged)
        said = f"{row.words}, since {_on(row.start)}, because {row.reason}. {state}"
        out.append(Figure("intervention", "Change agreed on", said.strip()))
    return out


def sign(visit: Visit, by: User, signed_as: str, version: int, when) -> None:
    """Close a note with its figures as they are now. Raises StaleSave."""
    visit.figures = [[one.section, one.name, one.said] for one in figures_of(visit)]
    visit.signed, visit.signed_as, visit.by = when, signed_as, by
    visit.save_over(version)
