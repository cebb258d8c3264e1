"""Plans and logs that come in as CSV: a day that is there already stays as it is, what is not known
here is told, and nothing is dropped in silence."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date

from django.db import transaction

from bowls.models import Bowl
from clients.models import Client
from clients.plan.versions import version_on
from exchange.tables import LOG, PLAN
from journal.models import LoggedDay, LoggedEntry
from nutrition.composition.foods import food_table
from nutrition.formats.csv_cells import plain_cell
from planner.models import MEALS, Day, DayEntry
from planner.planned_copies import plan_dish
from practice.models import User
from recipes.models import Recipe
from recipes.ownership import open_to

# No file has more lines; nobody eats more servings, nor more grams, of one thing.
MOST_LINES, MOST_AMOUNT = 20_000, 10_000.0
HOWS = {how for how, _words in LoggedEntry.HOW}


class NotATable(ValueError):
    """A file that is no such table; the message says why, and nothing of it is kept."""


@dataclass(frozen=True, kw_only=True)
class Row:
    """A line of the table as it was read."""

    line: int
    on: date
    meal: str
    kind: str
    name: str
    amount: float
    more: Mapping[str, str]


@dataclass
class Taken:
    """How many days and things were taken in, and what was not, in words."""

    days: int = 0
    things: int = 0
    told: list[str] = field(default_factory=list)


def take_in(client: Client, text: str, by: User) -> Taken:
    """The days of a table of plans, or of a log, whichever its heading says. Raises NotATable."""
    rows, logs = _rows(text)
    by_day: dict[date, list[Row]] = {}
    for row in rows:
        by_day.setdefault(row.on, []).append(row)
    taken = Taken()
    with transaction.atomic():
        for on, some in sorted(by_day.items()):
            _log(client, on, some, taken) if logs else _plan(client, on, some, taken, by)
    return taken


def _rows(text: str) -> tuple[list[Row], bool]:
    reader = csv.DictReader(io.StringIO(text.lstrip("\ufeff")), strict=True)
    heads = reader.fieldnames or []
    missing = [name for name in PLAN if name not in heads]
    if missing:
        raise NotATable(f"The first line must name the columns; “{missing[0]}” is missing.")
    logs = set(LOG) <= set(heads)
    out = []
    try:
        for at, cells in enumerate(reader, start=2):
            if at > MOST_LINES:
                raise NotATable(f"It has more than {MOST_LINES:,} lines: give it in two.")
            plain = {name: plain_cell(value or "") for name, value in cells.items() if name}
            out.append(_row(at, plain))
    except csv.Error as error:
        raise NotATable(f"Line {reader.line_num} cannot be read: {error}.") from error
    return out, logs


def _row(line: int, cells: Mapping[str, str]) -> Row:
    try:
        on = date.fromisoformat(cells["date"].strip())
        amount = float(cells[PLAN[-1]])
    except ValueError as error:
        raise NotATable(f"Line {line}: {error}.") from error
    meal = cells["meal"].strip()
    if meal not in dict(MEALS):
        raise NotATable(f"Line {line}: “{meal[:20]}” is no meal: {', '.join(dict(MEALS))}.")
    if not (math.isfinite(amount) and 0 <= amount <= MOST_AMOUNT):
        raise NotATable(f"Line {line}: an amount of {amount:g} cannot be.")
    return Row(
        line=line,
        on=on,
        meal=meal,
        kind=cells["kind"].strip(),
        name=cells["what"].strip(),
        amount=amount,
        more=cells,
    )


def _thing(client: Client, row: Row) -> dict[str, object] | None:
    """What a row is of, as it is kept; None for what is not known here."""
    if row.kind == "food":
        return {"food": row.name} if row.name in food_table() else None
    if row.kind == "recipe":
        recipe: Recipe | None = open_to(client).filter(title__iexact=row.name).first()
        return {"recipe": recipe} if recipe else None
    if row.kind == "bowl":
        bowl: Bowl | None = (
            Bowl.objects.filter(client__in=[client], name__iexact=row.name).first()
            or Bowl.objects.filter(client=None, name__iexact=row.name).first()
        )
        return {"bowl": bowl} if bowl else None
    return None


def _plan(client: Client, on: date, rows: list[Row], taken: Taken, by: User) -> None:
    if Day.objects.filter(client=client, date=on).exists():
        taken.told.append(f"{on}: there is a plan for that day, which stays as it is")
        return
    known = [(row, thing) for row in rows if (thing := _told(client, row, taken)) is not None]
    if not known:
        return
    day = Day.objects.create(
        practice=client.practice, client=client, date=on, made_for=version_on(client, on)
    )
    for row, thing in known:
        entry = DayEntry(day=day, meal=row.meal, amount=row.amount, **thing)
        plan_dish(entry, client.practice)
        entry.save()
    taken.days += 1
    taken.things += len(known)


def _told(client: Client, row: Row, taken: Taken) -> dict[str, object] | None:
    thing = _thing(client, row)
    if thing is None:
        taken.told.append(f"line {row.line}: “{row.name[:60]}” is not known here")
    return thing


def _log(client: Client, on: date, rows: list[Row], taken: Taken) -> None:
    if LoggedDay.objects.filter(client=client, date=on).exists():
        taken.told.append(f"{on}: that day is logged, and stays as it is")
        return
    whole = all(row.more["all of the day"] == "yes" for row in rows)
    day = LoggedDay.objects.create(practice=client.practice, client=client, date=on, whole=whole)
    for row in rows:
        _entry(client, day, row, taken).save()
    taken.days += 1
    taken.things += len(rows)


def _entry(client: Client, day: LoggedDay, row: Row, taken: Taken) -> LoggedEntry:
    """A row of a log; what is not known here is kept as it was said, and asks."""
    thing = _thing(client, row)
    if thing is None and row.kind != "other":
        taken.told.append(f"line {row.line}: “{row.name[:60]}” asks what it was")
    low, high = (_number(row.more[name]) for name in ("least", "most"))
    edges = {"low_g": low, "high_g": high} if row.kind == "food" else {"low": low, "high": high}
    how = row.more["how"]
    entry = LoggedEntry(
        day=day,
        meal=row.meal,
        amount=row.amount,
        how=how if how in HOWS else "besides",
        basis=row.more["measured"][:24],
        said=(row.more["said"] or ("" if thing else row.name))[:200],
        **edges,
        **(thing or {}),
    )
    plan_dish(entry, client.practice)
    return entry


def _number(text: str) -> float | None:
    try:
        value = float(text)
    except ValueError:
        return None
    return value if math.isfinite(value) else None
