"""Events as an iCalendar file, read back by a parser that forgives nothing."""

import unittest
from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

from hypothesis import given
from hypothesis import strategies as st
from icalendar import Calendar

from nutrition.formats.calendar import Event, calendar_of

NEW_YORK = ZoneInfo("America/New_York")
CHANGED = datetime(2026, 12, 1, 9, 30, tzinfo=UTC)
DINNER = {
    "uid": "dinner@tern",
    "starts": datetime(2026, 12, 7, 18, 30, tzinfo=NEW_YORK),
    "minutes": 30,
    "words": "Dinner: Soup, with dill; bread",
    "changed": CHANGED,
}


def read(written: bytes) -> Calendar:
    """The calendar, of which no part has an error and no line is over 75 octets. RFC 5545, 3.1"""
    calendar = Calendar.from_ical(written)
    wrong = [error for part in calendar.walk() for error in part.errors]
    if wrong:
        raise AssertionError(wrong)
    long = [line for line in written.split(b"\r\n") if len(line) > 75]
    if long or b"\n" in written.replace(b"\r\n", b""):
        raise AssertionError(long)
    return calendar


class Calendars(unittest.TestCase):
    def test_what_every_calendar_asks_for(self):
        calendar = read(calendar_of("Osk", [Event(**DINNER)]))
        self.assertEqual(str(calendar["version"]), "2.0")
        self.assertEqual(str(calendar["method"]), "PUBLISH")
        self.assertEqual(str(calendar["x-wr-calname"]), "Osk")
        self.assertTrue(str(calendar["prodid"]).startswith("-//Round Pantry//"))
        event = calendar.walk("VEVENT")[0]
        self.assertEqual(str(event["summary"]), "Dinner: Soup, with dill; bread")
        self.assertEqual(event["dtstart"].dt, datetime(2026, 12, 7, 18, 30, tzinfo=NEW_YORK))
        self.assertEqual(event["duration"].dt, timedelta(minutes=30))
        self.assertEqual(event["dtstamp"].dt, CHANGED)
        self.assertEqual(str(event["class"]), "PRIVATE")
        self.assertEqual(str(event["status"]), "CONFIRMED")

    def test_an_hour_is_of_its_time_zone_which_comes_along(self):
        calendar = read(calendar_of("Osk", [Event(**DINNER)]))
        self.assertEqual(calendar.walk("VEVENT")[0]["dtstart"].params["TZID"], "America/New_York")
        self.assertEqual(str(calendar.walk("VTIMEZONE")[0]["tzid"]), "America/New_York")
        summer = DINNER | {"starts": datetime(2026, 7, 7, 18, 30, tzinfo=NEW_YORK)}
        event = read(calendar_of("Osk", [Event(**summer)])).walk("VEVENT")[0]
        self.assertEqual(event["dtstart"].dt.astimezone(UTC).hour, 22)

    def test_a_whole_day_has_no_hour_and_no_length(self):
        day = Event(uid="a", starts=date(2026, 12, 7), words="Call", changed=CHANGED)
        event = read(calendar_of("Osk", [day])).walk("VEVENT")[0]
        self.assertEqual(event["dtstart"].dt, date(2026, 12, 7))
        self.assertNotIn("duration", event)

    def test_it_reminds_before_it_begins_unless_it_is_called_off(self):
        told = Event(**DINNER, alarm_before=15)
        alarm = read(calendar_of("Osk", [told])).walk("VALARM")[0]
        self.assertEqual(alarm["trigger"].dt, -timedelta(minutes=15))
        self.assertEqual(str(alarm["action"]), "DISPLAY")
        self.assertEqual(str(alarm["description"]), "Dinner: Soup, with dill; bread")
        off = Event(**DINNER, alarm_before=15, called_off=True, sequence=3)
        calendar = read(calendar_of("Osk", [off]))
        self.assertEqual(calendar.walk("VALARM"), [])
        self.assertEqual(str(calendar.walk("VEVENT")[0]["status"]), "CANCELLED")
        self.assertEqual(calendar.walk("VEVENT")[0]["sequence"], 3)

    def test_what_comes_again_every_week(self):
        weekly = Event(**DINNER, weekly=0)
        event = read(calendar_of("Osk", [weekly])).walk("VEVENT")[0]
        self.assertEqual(event["rrule"].to_ical(), b"FREQ=WEEKLY;BYDAY=MO")

    def test_what_is_no_event_is_refused(self):
        naive = DINNER | {"starts": datetime(2026, 12, 7, 18, 30)}
        for wrong in (naive, DINNER | {"words": " "}, DINNER | {"uid": ""}):
            with self.subTest(wrong=wrong), self.assertRaises(ValueError):
                Event(**wrong)
        with self.assertRaises(ValueError):
            calendar_of("Osk", [Event(**DINNER), Event(**DINNER)])

    @given(
        words=st.text(st.characters(exclude_categories=("Cs", "Cc")), min_size=1).filter(str.strip),
        more=st.text(st.characters(exclude_categories=("Cs", "Cc"), include_characters="\n")),
        minute=st.integers(0, 525_000),
        zone=st.sampled_from(["America/New_York", "Europe/Oslo", "Asia/Kolkata", "UTC"]),
    )
    def test_whatever_is_written_is_read_back(self, words, more, minute, zone):
        starts = datetime(2026, 1, 1, tzinfo=ZoneInfo(zone)) + timedelta(minutes=minute)
        one = Event(uid="u", starts=starts, minutes=5, words=words, more=more, changed=CHANGED)
        event = read(calendar_of("Osk", [one])).walk("VEVENT")[0]
        self.assertEqual(str(event["summary"]), words)
        self.assertEqual(str(event.get("description", "")), more)
        self.assertEqual(event["dtstart"].dt, starts)

    def test_the_same_events_are_the_same_bytes(self):
        two = Event(**DINNER | {"uid": "b"})
        self.assertEqual(
            calendar_of("Osk", [Event(**DINNER), two]), calendar_of("Osk", [two, Event(**DINNER)])
        )
