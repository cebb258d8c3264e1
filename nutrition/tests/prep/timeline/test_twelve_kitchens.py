"""The twelve kitchens that were written down before there was a timeline: each could be worked, and
what a cook would look at in each."""

import unittest

from nutrition.prep.timeline.clock import clock
from nutrition.prep.timeline.solving import timeline
from nutrition.tests.prep.timeline.posed import kitchen_named, names
from nutrition.tests.prep.timeline.possible import faults
from nutrition.tests.thorough import thorough


def found(name):
    return timeline(kitchen_named(name).session)


def step(timeline, dish, start):
    return next(row for row in timeline.of(dish) if row.text.startswith(start))


@thorough
class TwelveKitchens(unittest.TestCase):
    def test_each_could_be_worked_with_two_hands(self):
        for name in names():
            with self.subTest(name):
                asked = kitchen_named(name)
                one = timeline(asked.session)
                self.assertEqual(faults(asked.session, one), [])
                missing = {missing.dish for missing in one.missing}
                self.assertEqual(set(one.ready) | missing, {d.key for d in asked.session.dishes})

    def test_all_twelve_fit_but_the_one_that_cannot(self):
        for name in names():
            with self.subTest(name):
                self.assertEqual(bool(found(name).missing), name == "not-enough")


class ACook(unittest.TestCase):
    def test_three_trays_at_three_heats_share_one_with_rice_and_sauce_to_end_together(self):
        one = found("three-heats")
        heats = {row.celsius for row in one.rows if row.place == "oven"}
        self.assertEqual(heats, {200})
        for dish, least in (
            ("carrots", "18:25"),
            ("tofu", "18:25"),
            ("beets", "18:20"),
            ("rice", "18:25"),
        ):
            self.assertGreaterEqual(clock(one.ready[dish]), least)
        self.assertIn(
            "8 min longer: at 200 °C instead of 220 °C, to share the oven",
            step(one, "carrots", "Roast").notes,
        )

    def test_four_roasts_fifty_degrees_apart_take_two_heats(self):
        one = found("four-roasts")
        heats = [row.celsius for row in one.rows if row.kind == "preheat"]
        self.assertEqual(len(heats), 2)
        self.assertLess(heats[0], heats[1])

    def test_two_hours_of_soup_stew_salads_dressing_and_nut_milk(self):
        one = found("two-hours")
        self.assertEqual(one.missing, ())
        self.assertTrue(all(row.start >= 14 * 60 for row in one.rows if row.start > 0))
        soak = step(one, "milk", "Soak the almonds")
        self.assertTrue(19 * 60 - 1440 <= soak.start <= 21 * 60 - 1440)

    def test_kidney_beans_boil_half_an_hour_whatever_is_written(self):
        one = found("kidney-night")
        boil = [row for row in one.of("beans") if row.text.startswith("Boil the beans hard")]
        self.assertEqual(boil[-1].end - boil[-1].start, 30)
        self.assertIn("thirty minutes", boil[-1].text)
        self.assertLess(step(one, "beans", "Soak").start, 0)

    def test_the_blender_is_washed_once_between_sweet_and_savory(self):
        one = found("blender-queue")
        self.assertEqual(sum(row.washed_before for row in one.rows), 1)

    def test_what_sprouts_is_begun_days_before(self):
        one = found("sprouts")
        self.assertLess(step(one, "sprouts", "Soak the lentils").start, -2 * 1440)

    def test_what_does_not_fit_is_named_with_what_would_help(self):
        one = found("not-enough")
        self.assertEqual(
            {missing.dish for missing in one.missing}, {"beans", "potatoes", "parsnips"}
        )
        self.assertTrue(all("at least" in missing.why for missing in one.missing))
        (more,) = [one for one in one.helps if one.kind == "time"]
        self.assertGreater(more.minutes, 40)

    def test_a_dish_may_have_its_own_time(self):
        one = found("two-sittings")
        self.assertLessEqual(clock(one.ready["soup"]), "17:30")
        self.assertGreaterEqual(clock(one.ready["pan"]), "18:25")
