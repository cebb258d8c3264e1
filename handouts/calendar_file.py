"""A client's calendar as a file: every event with the name it was first given, and a number that
grows when it changes, so that a calendar that takes the file in again is put right by it."""

from __future__ import annotations

from datetime import datetime, timedelta

from django.db import transaction

from clients.models import Client
from handouts.agenda import LOOKED_BACK, Planned, Wish, agenda, moment, wish_of, zone_of
from handouts.models import CalendarEvent
from nutrition.formats.calendar import Event, calendar_of

# What is called off is said for so long; by then every calendar has heard of it.
CALLED_OFF_KEPT = timedelta(days=60)


def calendar_for(client: Client, now: datetime) -> bytes:
    """The client's calendar as it is now: what changed since it was last given has a higher
    number, and what is no longer planned is called off."""
    wish = wish_of(client)
    with transaction.atomic():
        events = _numbered(client, agenda(client, wish), wish, now)
    return calendar_of(f"{client.practice.name}: {client.name}", events)


def _numbered(client: Client, planned: list[Planned], wish: Wish, now: datetime) -> list[Event]:
    # to the second, as a calendar writes it
    now = now.replace(microsecond=0)
    before = {row.key: row for row in CalendarEvent.objects.filter(client=client)}
    zone = zone_of(client).key
    given = []
    for one in planned:
        data = one.said() | {"zone": zone, "before": wish.alarm_minutes}
        row = before.pop(one.key, None)
        if row is None:
            row = CalendarEvent(client=client, key=one.key, data=data, changed=now)
            row.save()
        elif row.data != data or row.called_off:
            row.data, row.called_off = data, False
            row.sequence, row.changed = row.sequence + 1, now
            row.save()
        given.append(_event(client, row, one, wish))
    return given + _called_off(client, list(before.values()), wish, now)


def _called_off(
    client: Client, gone: list[CalendarEvent], wish: Wish, now: datetime
) -> list[Event]:
    """What was given out and is not planned any more. What is over stays in a calendar as it
    was."""
    out = []
    since = (now.astimezone(zone_of(client)) - timedelta(days=LOOKED_BACK)).date()
    for row in gone:
        one = _planned_in(row)
        if (one.on < since and one.weekly is None) or now - row.changed > CALLED_OFF_KEPT:
            row.delete()
            continue
        if not row.called_off:
            row.called_off, row.sequence, row.changed = True, row.sequence + 1, now
            row.save()
        out.append(_event(client, row, one, wish))
    return out


def _planned_in(row: CalendarEvent) -> Planned:
    """An event as it was given out."""
    data = row.data
    said = {name: data[name] for name in ("kind", "minute", "minutes", "words", "more", "weekly")}
    on = datetime.fromisoformat(data["on"]).date()
    return Planned(key=row.key, on=on, **said)


def _event(client: Client, row: CalendarEvent, one: Planned, wish: Wish) -> Event:
    return Event(
        uid=str(row.uid),
        starts=moment(client, one),
        minutes=one.minutes,
        words=one.words,
        more=one.more,
        kind=one.kind,
        alarm_before=wish.alarm_minutes if one.minute is not None else None,
        weekly=one.weekly,
        sequence=row.sequence,
        changed=row.changed,
        called_off=row.called_off,
    )
