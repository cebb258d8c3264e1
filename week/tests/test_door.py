"""The page for the refrigerator door: what a day says, what has passed, how large it is written."""

from dataclasses import replace
from datetime import date, timedelta

from django.test import SimpleTestCase
from django.urls import reverse
from django.utils import timezone

from week.door import DoorDay, DoorMeal, Eaten, door_of
from week.door_letters import letters_for
from week.reckoning import reckon_week
from week.tests.test_week import WeekCase

SHORT, FREEKEH = "Pea soup", "Freekeh with kohlrabi and mint leaves"
LONG = "Soy mince with caraway, peppers and roast celeriac"


def days(name, beside=1, count=7):
    """A week whose mains are all so called."""
    meal = DoorMeal(
        main=Eaten(name, "1 serving"), beside=(Eaten("Rye bread", "2 slices"),) * beside
    )
    lesser = DoorMeal(lesser=True, main=Eaten("Pear", "1 medium"))
    day = DoorDay(
        on=date(2026, 12, 7), meals=(meal, meal, meal, lesser), cooks=(), thaws=(), passed=False
    )
    return [replace(day, on=day.on + timedelta(days=at)) for at in range(count)]


class Letters(SimpleTestCase):
    def test_as_large_as_the_sheet_holds_and_never_too_small_for_two_meters(self):
        self.assertEqual(letters_for(days(SHORT)), "door-20")
        # Each of seven days has 24.86 mm of the 174 that the head leaves; a line of 20 points takes
        # 7.76, of 18 points 6.98, of 17 points 6.60, one of 8.5 points 3.36, and 1.5 are between
        # two days. Three lines and a small one: 25.8 at 18 points, 24.6 at 17.
        self.assertEqual(letters_for(days(FREEKEH)), "door-17")
        # and two small ones: 25.7 at 15 points, so that the small print gives way
        self.assertEqual(letters_for(days(FREEKEH, 2)), "door-15 door-tight")
        # 34.86 with three small ones, of the 34.8 of five days
        self.assertEqual(letters_for(days(FREEKEH, 5, 5)), "door-18")
        self.assertEqual(letters_for(days(FREEKEH, 3, 5)), "door-20")
        # of the 23.29 that a line that asks leaves, 16 points would take 23.49, 15 points 22.32
        self.assertEqual(letters_for(days(FREEKEH), asked=True), "door-15")
        self.assertEqual(letters_for(days(LONG, 12)), "door-15 door-tight", "rather two sheets")


class OnTheDoor(WeekCase):
    def test_a_day_says_its_dish_and_what_stands_beside_it(self):
        week = self.begin()
        self.put(week, "0-dinner-0", f"recipe-{self.stew.pk}")
        self.put(week, "0-lunch-0", f"recipe-{self.soup.pk}")
        first = next(one for one in door_of(reckon_week(week)) if one.on == week.start)
        mains = [one.main.name for one in first.meals if one.main]
        self.assertEqual(mains, ["Bean soup", "Lentil stew"])
        self.assertFalse(first.passed)

    def test_days_that_passed_are_struck_out(self):
        today = timezone.localdate()
        week = self.begin(start=today - timedelta(days=2))
        passed = {one.on: one.passed for one in door_of(reckon_week(week))}
        self.assertTrue(passed[today - timedelta(days=1)])
        self.assertFalse(passed[today])
        door = self.client.get(self.for_client(reverse("week:door", args=[week.pk])))
        self.assertContains(door, 'class="passed"', count=sum(passed.values()))

    def test_what_is_cooked_and_thawed_stands_on_its_day(self):
        week = self.begin()
        for day in range(6):
            self.put(week, f"{day}-dinner-0", f"recipe-{self.stew.pk}")
        reckoned = reckon_week(week)
        shown = door_of(reckoned)
        cooks = {one.on: one.cooks for one in shown if one.cooks}
        self.assertEqual(set(cooks), {pot.cooked_on for pot in reckoned.pots})
        before = week.start - timedelta(days=1)
        self.assertEqual(cooks[before], ("Lentil stew",), "the Sunday before has a line as well")
        self.assertEqual(shown[0].meals, ())
        frozen = [on for pot in reckoned.pots for on in pot.frozen_dates]
        thaws = {one.on for one in shown if one.thaws}
        self.assertEqual(thaws, {on - timedelta(days=1) for on in frozen})
        self.assertTrue(thaws)
