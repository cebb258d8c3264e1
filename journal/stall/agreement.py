"""A change that was agreed on, written into what is planned from its day on."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

from django.core import signing
from django.utils import timezone

from clients.plan.gate import gate_of
from clients.plan.in_force import plan_of
from journal.models import TakenChange
from nutrition.composition.foods import food_table
from nutrition.follow_up.levers import MORE, Edit
from nutrition.written.typed_amounts import leveled_range
from planner.food_in_dish import Left, with_less
from planner.models import Day, DayEntry
from planner.planned_copies import plan_as
from practice.models import Practice, User
from week.models import Week

SALT = "journal.edits"


def signed_edits(edits: Iterable[Edit]) -> str:
    """Edits as a form carries them."""
    return signing.dumps([[one.slug, one.kind, one.grams] for one in edits], salt=SALT)


def edits_in(text: str) -> list[list[Any]]:
    """The edits that a form brought back; none where it is not as it was sent."""
    try:
        return signing.loads(text, salt=SALT)
    except signing.BadSignature:
        return []


def _edits(row: TakenChange) -> list[Edit]:
    return [Edit(*one) for one in row.edits]


def _days(row: TakenChange) -> list[Day]:
    start = max(row.start, timezone.localdate())
    days = row.client.days.filter(date__gte=start, archived=None).select_related("practice")
    return list(days.prefetch_related("entries__planned", "entries__recipe", "entries__bowl"))


def _weeks(row: TakenChange) -> list[Week]:
    start = max(row.start, timezone.localdate())
    weeks = row.client.weeks.filter(archived=None).select_related("practice")
    weeks = weeks.prefetch_related("entries__planned", "entries__recipe", "entries__bowl")
    return [week for week in weeks if week.last >= start]


def _left(edits: Sequence[Edit]) -> Left:
    """What the edits leave of so much of a food; None for what they leave alone."""
    less = {one.slug: one for one in edits if one.kind != MORE}

    def left(slug: str, grams: float) -> float | None:
        edit = less.get(slug)
        to = grams if edit is None else edit.of(grams)
        return to if to < grams - 0.5 else None

    return left


def _touched(entries: Iterable[Any], edits: Sequence[Edit]) -> list[Any]:
    """The rows that the edits make smaller, not saved: a food by its grams, a dish with less of it
    inside. [g]"""
    out, left = [], _left(edits)
    for entry in entries:
        if entry.food:
            to = left(entry.food, entry.amount)
            if to is not None:
                entry.amount = to
                entry.low_g, entry.high_g = leveled_range(to)
                out.append(entry)
            continue
        kept = with_less(entry, left)
        if kept is not None:
            entry.held = kept
            out.append(entry)
    return out


def plans_touched(row: TakenChange) -> int:
    """How many planned days and weeks from its day on hold what it changes."""
    edits = _edits(row)
    days = sum(bool(_touched(day.entries.all(), edits)) for day in _days(row))
    return days + sum(bool(_touched(week.entries.all(), edits)) for week in _weeks(row))


def write_into_plans(row: TakenChange, by: User) -> tuple[int, int]:
    """Change every plan from its day on, each one step that can be undone; how many days and
    weeks."""
    edits, days, weeks = _edits(row), 0, 0
    gate = gate_of(plan_of(row.client))
    added = [
        one
        for one in edits
        if one.kind == MORE
        and (food := food_table().usable(one.slug)) is not None
        and not gate.why_not(food, one.grams)
    ]
    for day in _days(row):
        touched = _touched(day.entries.all(), edits)
        if not touched:
            continue
        with day.changing(None, by) as stored:
            _save(touched, day.practice)
            meal = touched[0].meal
            for one in added:
                low, high = leveled_range(one.grams)
                DayEntry.objects.create(
                    day=stored, meal=meal, food=one.slug, amount=one.grams, low_g=low, high_g=high
                )
        days += 1
    for week in _weeks(row):
        touched = _touched(week.entries.all(), edits)
        if touched:
            with week.changing(None, by):
                _save(touched, week.practice)
            weeks += 1
    if days or weeks:
        TakenChange.objects.filter(pk=row.pk).update(written=timezone.now())
    return days, weeks


def _save(touched: Sequence[Any], practice: Practice) -> None:
    for entry in touched:
        if not entry.food:
            plan_as(entry, practice, entry.held)
        entry.save()
