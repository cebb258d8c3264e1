"""The calendar of a client: what is in it, in which hour, and what a second file changes."""

from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

from django.urls import reverse
from django.utils import timezone
from icalendar import Calendar

from handouts.calendar_file import calendar_for
from handouts.models import CalendarEvent
from journal.models import Appointment
from nutrition.tests.thorough import thorough
from week.models import Week
from week.tests.test_week import WeekCase

NOW = datetime(2026, 12, 1, 12, tzinfo=UTC)


class CalendarCase(WeekCase):
    def setUp(self):
        super().setUp()
        # who plans without it is to be asked first, and nothing of it stands in a calendar
        self.client_row.supplements.create(key="vitamin_b12_ug", dose=1000, per_week=2)
        self.week = self.begin()
        for at in range(3):
            self.put(self.week, f"{at}-dinner-0", f"recipe-{self.stew.pk}")

    def events(self, now=NOW):
        calendar = Calendar.from_ical(calendar_for(self.client_row, now))
        self.assertEqual([error for one in calendar.walk() for error in one.errors], [])
        return {str(one["uid"]): one for one in calendar.walk("VEVENT")}

    def summaries(self):
        return sorted(str(one["summary"]) for one in self.events().values())


@thorough
class InIt(CalendarCase):
    def test_meals_and_cooking_in_the_clients_time_zone(self):
        dinners = [one for one in self.events().values() if "Dinner" in str(one["summary"])]
        self.assertEqual(len(dinners), 3)
        first = min(dinners, key=lambda one: one["dtstart"].dt)
        self.assertEqual(str(first["summary"]), "Dinner: Lentil stew")
        self.assertEqual(first["dtstart"].params["TZID"], "America/New_York")
        self.assertEqual(first["dtstart"].dt.hour, 18)
        self.assertEqual(first["dtstart"].dt.minute, 30)
        self.assertTrue(any(words.startswith("Cook: Lentil stew") for words in self.summaries()))
        self.client_row.time_zone = "Europe/Oslo"
        self.client_row.save()
        moved = next(one for one in self.events().values() if "Dinner" in str(one["summary"]))
        self.assertEqual(moved["dtstart"].dt.tzinfo, ZoneInfo("Europe/Oslo"))

    def test_nothing_in_it_is_a_calorie_a_weight_or_a_condition(self):
        self.client_row.conditions = ["ckd_3b"]
        self.client_row.save()
        written = calendar_for(self.client_row, NOW).decode().replace("\r\n ", "")
        for word in ("kcal", " kg", "kidney", "ckd"):
            self.assertNotIn(word, written.lower())

    def test_the_next_visit_and_weighing_in(self):
        at = timezone.now() + timedelta(days=9)
        Appointment.objects.create(client=self.client_row, at=at, minutes=30)
        data = {"kinds": ["visit"], "alarm_minutes": 30, "weigh_day": "2"}
        data |= {"at_breakfast": "20:00", "at_lunch": "01:00", "at_snack": "03:00"}
        saved = self.post(
            self.for_client(reverse("handouts:calendar")), data | {"at_dinner": "06:00"}
        )
        self.assertEqual(saved.status_code, 302)
        events = self.events()
        self.assertEqual(self.summaries(), ["Step on the scale", "Visit at Tern Point Wellness"])
        weigh = next(one for one in events.values() if "scale" in str(one["summary"]))
        self.assertEqual(weigh["dtstart"].dt.weekday(), 2)
        self.assertEqual(weigh["rrule"]["BYDAY"], ["WE"])
        alarm = weigh.walk("VALARM")[0]
        self.assertEqual(alarm["trigger"].dt, -timedelta(minutes=30))
        self.client_row.light_words = True
        self.client_row.save()
        # who is handed no weights is not sent to the scale: it is called off
        weigh = next(one for one in self.events().values() if "scale" in str(one["summary"]))
        self.assertEqual(str(weigh["status"]), "CANCELLED")

    def test_what_is_to_be_asked_about_is_not_planned_into_a_day(self):
        self.put(self.week, "4-dinner-0", f"recipe-{self.sesame.pk}")
        self.client_row.allergies = ["sesame"]
        self.client_row.save()
        self.assertEqual(self.summaries(), ["Call Tern Point Wellness about this week's plan"])

    def test_a_time_that_is_none_is_refused_and_kept(self):
        data = {"kinds": ["meals"], "alarm_minutes": "1441", "at_dinner": "late"}
        page = self.post(self.for_client(reverse("handouts:calendar")), data)
        self.assertEqual(page.status_code, 400)
        self.assertContains(page, "late", status_code=400)
        self.assertContains(page, "1440", status_code=400)


@thorough
class Again(CalendarCase):
    def test_the_same_week_is_the_same_file(self):
        first = calendar_for(self.client_row, NOW)
        self.assertEqual(calendar_for(self.client_row, NOW + timedelta(days=1)), first)

    def test_a_change_keeps_the_name_and_raises_the_number(self):
        before = self.events()
        self.put(self.week, "1-dinner-0", f"recipe-{self.soup.pk}")
        after = self.events(NOW + timedelta(hours=1))
        self.assertLessEqual(set(before), set(after))
        changed = [uid for uid in before if after[uid]["sequence"] != before[uid]["sequence"]]
        dinner = [uid for uid in changed if "Dinner" in str(after[uid]["summary"])]
        self.assertEqual(len(dinner), 1)
        self.assertEqual(after[dinner[0]]["sequence"], 1)
        self.assertIn("Bean soup", str(after[dinner[0]]["summary"]))
        self.assertEqual(after[dinner[0]]["dtstamp"].dt, NOW + timedelta(hours=1))

    def test_what_is_no_longer_planned_is_called_off_and_comes_back(self):
        before = self.events()
        self.change(self.week, "2-dinner-0", {"remove": "1"})
        after = self.events()
        off = [uid for uid, one in after.items() if str(one["status"]) == "CANCELLED"]
        dinner = next(uid for uid in off if "Dinner" in str(before[uid]["summary"]))
        self.assertEqual(after[dinner]["sequence"], 1)
        self.put(self.week, "2-dinner-0", f"recipe-{self.stew.pk}")
        back = self.events()[dinner]
        self.assertEqual((str(back["status"]), back["sequence"]), ("CONFIRMED", 2))

    def test_what_was_called_off_is_forgotten_once_everybody_has_heard(self):
        self.events()
        Week.objects.get(pk=self.week.pk).remove(self.user)
        # called off a day later, and said for two months
        called_off = NOW + timedelta(days=1)
        self.assertTrue(self.events(called_off))
        self.assertTrue(CalendarEvent.objects.exists())
        CalendarEvent.objects.update(changed=called_off, data=self.far_off())
        self.assertTrue(self.events(called_off + timedelta(days=60)))
        self.assertEqual(self.events(called_off + timedelta(days=60, seconds=1)), {})
        self.assertFalse(CalendarEvent.objects.exists())

    def far_off(self):
        """An event that is still to come when all are forgotten."""
        return CalendarEvent.objects.first().data | {"on": "2027-06-01"}

    def test_what_is_over_stays_in_a_calendar_as_it_was(self):
        self.events()
        Week.objects.get(pk=self.week.pk).remove(self.user)
        after = datetime.combine(self.week.last + timedelta(days=20), NOW.time(), tzinfo=UTC)
        self.assertEqual(self.events(after), {})

    def test_the_file_is_an_export_and_nobody_elses(self):
        address = self.for_client(reverse("handouts:calendar-file"))
        answer = self.client.get(address)
        self.assertEqual(answer["Content-Type"], "text/calendar; charset=utf-8")
        self.assertIn(".ics", answer["Content-Disposition"])
        self.client.force_login(
            self.other_user, backend="django.contrib.auth.backends.ModelBackend"
        )
        self.assertEqual(self.client.get(address).status_code, 404)
