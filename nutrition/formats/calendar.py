"""Events as an iCalendar file (RFC 5545), which every calendar takes in: each with the same name
whenever it is written, so that a second file changes what the first one put in."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta

from icalendar import Alarm, Calendar, vRecur
from icalendar import Event as Written

# What wrote it, as RFC 5545, 3.7.3 asks.
PRODUCT = "-//Round Pantry//Planned meals//EN"
# How often a calendar that looks for itself looks again. RFC 7986, 5.7
LOOKS_AGAIN = timedelta(hours=6)
DAYS = ("MO", "TU", "WE", "TH", "FR", "SA", "SU")


@dataclass(frozen=True, kw_only=True)
class Event:
    """Something at a time. `starts` is a moment in the time zone of who does it, or a date for the
    whole of a day. `sequence` grows with every change, `changed` is when it last did; `called_off`
    takes it out of a calendar that has it. `weekly` is the weekday on which it comes again (Monday
    is 0)."""

    uid: str
    starts: datetime | date
    minutes: int = 0
    words: str
    more: str = ""
    kind: str = ""
    alarm_before: int | None = None
    weekly: int | None = None
    sequence: int = 0
    changed: datetime
    called_off: bool = False

    def __post_init__(self) -> None:
        if isinstance(self.starts, datetime) and self.starts.tzinfo is None:
            raise ValueError(f"{self.uid}: a moment needs a time zone")
        if not self.uid or not self.words.strip():
            raise ValueError("an event needs a name of its own, and words")


def calendar_of(name: str, events: Sequence[Event]) -> bytes:
    """The events as a calendar of this name, with the time zones that are in them.

    The same events give the same bytes. Raises ValueError for two events of one uid.
    References: RFC 5545; RFC 7986 for the name and how often it is looked for again.
    """
    if len({one.uid for one in events}) < len(events):
        raise ValueError("two events have the same uid")
    calendar = Calendar()
    calendar.add("prodid", PRODUCT)
    calendar.add("version", "2.0")
    calendar.add("calscale", "GREGORIAN")
    calendar.add("method", "PUBLISH")
    calendar.add("name", name)
    calendar.add("x-wr-calname", name)
    calendar.add("refresh-interval", LOOKS_AGAIN, parameters={"VALUE": "DURATION"})
    for one in sorted(events, key=lambda one: one.uid):
        calendar.add_component(_written(one))
    calendar.add_missing_timezones()
    return bytes(calendar.to_ical())


def _written(one: Event) -> Written:
    event = Written()
    event.add("uid", one.uid)
    event.add("dtstamp", one.changed.astimezone(UTC))
    event.add("last-modified", one.changed.astimezone(UTC))
    event.add("sequence", one.sequence)
    event.add("dtstart", one.starts)
    if isinstance(one.starts, datetime):
        event.add("duration", timedelta(minutes=max(one.minutes, 1)))
    event.add("summary", one.words)
    if one.more:
        event.add("description", one.more)
    if one.kind:
        event.add("categories", [one.kind])
    if one.weekly is not None:
        event.add("rrule", vRecur({"FREQ": "WEEKLY", "BYDAY": DAYS[one.weekly]}))
    event.add("status", "CANCELLED" if one.called_off else "CONFIRMED")
    event.add("transp", "TRANSPARENT")
    # what is eaten is nobody's matter who sees that somebody is busy
    event.add("class", "PRIVATE")
    if one.alarm_before is not None and not one.called_off:
        event.add_component(_alarm(one))
    return event


def _alarm(one: Event) -> Alarm:
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("description", one.words)
    alarm.add("trigger", -timedelta(minutes=one.alarm_before or 0))
    return alarm
