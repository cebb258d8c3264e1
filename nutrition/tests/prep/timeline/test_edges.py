"""The numbers of the timeline, on both sides of their edges."""

import unittest
from dataclasses import replace
from itertools import combinations

from nutrition.prep.steps.task import Event, Task
from nutrition.prep.steps.work_kinds import NONE, Span
from nutrition.prep.timeline.kitchen import Fixed
from nutrition.prep.timeline.model import Model
from nutrition.prep.timeline.obstacles import without_ahead
from nutrition.prep.timeline.pieces import hands_of, most_wait, shapes_of
from nutrition.prep.timeline.schedule import Row
from nutrition.prep.timeline.sheet import sheet_of
from nutrition.prep.timeline.solving import moved, timeline
from nutrition.tests.prep.steps.dish import work_of
from nutrition.tests.prep.timeline.posed import ONE_COOK, dish, kitchen_named, session
from nutrition.tests.prep.timeline.possible import faults, overlap


def exactly(minutes):
    return Span(minutes, minutes, minutes)


def task(**more):
    given = {
        "number": 0,
        "text": "Do it",
        "kind": "simmer",
        "step": 0,
        "place": "burner",
        "hands": NONE,
        "alone": NONE,
    }
    return Task(**(given | more))


class Windows(unittest.TestCase):
    def starts(self, minutes):
        """When something that stands so long may be begun, for half past six."""
        soaked = dish("d", ["1 cup oats"], [f"Soak the oats {minutes} minutes."])
        return list(Model(session(soaked)).tasks["d", 0].start.proto.domain)

    def test_the_evening_is_from_seven_to_nine_six_days_back(self):
        evenings = [-7500, -7380, -6060, -5940, -4620, -4500, -3180, -3060, -1740, -1620]
        self.assertEqual(self.starts(480), [*evenings, -300, -180])

    def test_what_stands_less_than_a_night_may_begin_from_seven_to_half_past_nine(self):
        both = self.starts(479)
        self.assertEqual(both[-4:], [-300, -180, 420, 570])
        self.assertEqual(both[-8:-4], [-1740, -1620, -1020, -870])

    def test_late_is_eight_hours_at_the_most(self):
        late = Model(session(dish("d", ["1 leek"], ["Sweat the leek."])), late=True).lateness
        self.assertEqual(list(late.proto.domain), [0, 480])


class Pieces(unittest.TestCase):
    def test_what_takes_the_hands_at_all_takes_a_minute(self):
        for hands, minutes in ((0.0, 0), (0.3, 1), (1.4, 1), (1.6, 2)):
            self.assertEqual(hands_of(task(hands=exactly(hands))), minutes, hands)

    def test_what_is_hot_may_wait_half_an_hour_at_the_least(self):
        for waits, minutes in ((5, 30), (30, 30), (31, 31)):
            self.assertEqual(most_wait(task(hot=True, waits=waits)), minutes)
        self.assertEqual(most_wait(task(hot=True, strict=True, waits=5)), 5)

    def test_the_last_ten_minutes_stay_ten_and_half_time_stays_half_time(self):
        roast = work_of(["4 carrots"], ["Roast the carrots 30 minutes at 200 °C."]).tasks[-1]
        for before, at in ((10, 31), (11, 26), (15, 21)):
            events = (Event(before_end=before, hands=1, text="Turn"),)
            longer = next(
                one for one in shapes_of(replace(roast, events=events)) if one.celsius == 180
            )
            # a minute by hand, and forty where thirty were written
            self.assertEqual((longer.minutes, longer.hands[-1]), (41, (at, 1)), before)


class Shared(unittest.TestCase):
    def test_trays_that_meet_at_a_heat_between_them(self):
        dishes = [
            dish("low", ["4 beets"], ["Roast the beets 40 minutes at 170 °C."]),
            dish("high", ["4 carrots"], ["Roast the carrots 30 minutes at 210 °C."]),
        ]
        asked = session(*dishes, earliest="17:15")
        found = timeline(asked)
        self.assertEqual(faults(asked, found), [])
        trays = {row.dish: row for row in found.rows if row.place == "oven" and row.dish}
        self.assertEqual(
            {key: row.celsius for key, row in trays.items()}, {"low": 190, "high": 190}
        )

    def test_two_cooks_and_one_blender_blend_in_turn(self):
        dishes = [
            dish("a", ["1 bunch parsley", "1 clove garlic"], ["Blend smooth."]),
            dish("b", ["3 onions"], ["Blend smooth."]),
            dish("sweet", ["1 banana", "1 cup soy milk"], ["Blend smooth."]),
        ]
        asked = session(*dishes, kitchen=replace(ONE_COOK, cooks=2))
        found = timeline(asked)
        self.assertEqual(faults(asked, found), [])
        blended = [row for row in found.rows if row.place == "blender"]
        self.assertEqual(len(blended), 3)
        self.assertFalse([pair for pair in combinations(blended, 2) if overlap(*pair)])

    def test_each_cook_does_one_thing_and_each_burner_has_one_pot(self):
        asked = kitchen_named("two-cooks").session
        found = timeline(asked)
        by_hand = [replace(row, end=row.start + row.hands) for row in found.rows if row.hands]
        self.assertEqual({row.cook for row in by_hand}, {0, 1})
        for one, other in combinations(by_hand, 2):
            self.assertFalse(one.cook == other.cook and overlap(one, other), (one, other))
        asked = kitchen_named("two-burners").session
        pots = [row for row in timeline(asked).rows if row.place == "burner"]
        self.assertTrue(any(overlap(*pair) for pair in combinations(pots, 2)))
        for one, other in combinations(pots, 2):
            same = (one.dish, one.task) == (other.dish, other.task)
            self.assertFalse(not same and one.lane == other.lane and overlap(one, other))
        self.assertLess(max(row.lane for row in pots), asked.kitchen.burners)


class WhileCooking(unittest.TestCase):
    def test_what_goes_on_still_has_its_burner_and_its_hands(self):
        kitchen = replace(ONE_COOK, burners=1)
        dishes = [
            dish("pot", ["1 kg kohlrabi"], ["Simmer the kohlrabi 40 minutes, stirring once."]),
            dish("chard", ["1 bunch chard"], ["Simmer the chard 10 minutes."]),
        ]
        asked = session(*dishes, kitchen=kitchen)
        first = timeline(asked)
        pot = next(row for row in first.of("pot") if row.part == 0)
        fixed = {("pot", pot.task): Fixed(start=pot.start, minutes=60)}
        rest = moved(replace(asked, fixed=fixed, now=pot.start + 5))
        after = [row for row in rest.of("chard") if row.place == "burner"]
        self.assertTrue(after)
        for row in after:
            self.assertTrue(row.start >= pot.start + 60 or row.end <= pot.start)
        self.assertEqual(faults(replace(asked, fixed=fixed), rest), [])

    def test_what_is_turned_at_half_time_is_turned_though_it_is_in_the_oven_already(self):
        dishes = [
            dish(
                "tray",
                ["4 carrots"],
                ["Roast the carrots 40 minutes at 200 °C, turning at half time."],
            ),
            dish("sauce", ["1 onion"], ["Stir the onion constantly for 15 minutes."]),
        ]
        asked = session(*dishes)
        first = timeline(asked)
        tray = next(row for row in first.of("tray") if row.place == "oven" and row.part == 0)
        fixed = {("tray", tray.task): Fixed(start=tray.start, minutes=41)}
        rest = moved(replace(asked, fixed=fixed, now=tray.start + 5))
        turned = next(row for row in rest.of("tray") if row.text.lower().startswith("turn"))
        self.assertEqual(turned.start, tray.start + 21)
        self.assertEqual(faults(replace(asked, fixed=fixed), rest), [])


class TheDayBefore(unittest.TestCase):
    def test_what_keeps_twelve_hours_is_done_the_day_before(self):
        for hours, done in ((12.0, 1), (11.9, 0)):
            left, ahead = without_ahead([task(ahead=hours)])
            self.assertEqual((len(left), len(ahead)), (1 - done, done), hours)
        night = task(ahead=24.0, alone=exactly(600))
        self.assertEqual(without_ahead([night])[1], [])


def row(**more):
    given = {
        "dish": "d",
        "name": "D",
        "task": 0,
        "part": 0,
        "text": "Do it",
        "start": 600,
        "end": 603,
        "hands": 3,
        "place": "counter",
    }
    return Row(**(given | more))


class Sheet(unittest.TestCase):
    def works(self, *tasks):
        return {"d": replace(work_of(["1 leek"], ["Sweat the leek."]), tasks=tasks)}

    def test_before_the_day_there_are_evenings_and_mornings(self):
        starts = (-1440, -721, -720, -1, 0, 1100)
        parts = sheet_of([row(start=at, end=at + 1, hands=1) for at in starts], {})
        self.assertEqual(
            [(one.days_before, one.when, [line.row.start for line in one.lines]) for one in parts],
            [(1, "morning", [-1440, -721]), (1, "evening", [-720, -1]), (0, "", [0, 1100])],
        )

    def test_a_pause_of_four_minutes_is_for_the_sink(self):
        for second, sink in ((607, "board and knife"), (606, "")):
            rows = [row(kind="cut"), row(task=1, start=second, end=second + 2, hands=2)]
            self.assertEqual(sheet_of(rows, {})[0].lines[0].sink, sink)

    def test_what_is_washed_once_is_not_named_again(self):
        rows = [row(kind="cut"), row(start=610, end=612, hands=2), row(start=620, end=621)]
        self.assertEqual(
            [line.sink for line in sheet_of(rows, {})[0].lines], ["board and knife", "", ""]
        )

    def test_a_blender_is_named_after_its_last_use(self):
        for again, told in ((True, ["", "blender", ""]), (False, ["blender", "blender", ""])):
            rows = [
                row(place="blender"),
                row(task=1, place="blender", start=610, end=613, washed_before=again),
                row(task=2, start=620, end=622),
            ]
            self.assertEqual([line.sink for line in sheet_of(rows, {})[0].lines], told)

    def test_there_is_no_pause_while_another_works(self):
        alone = [row(kind="cut"), row(task=2, start=620, end=622, hands=2)]
        self.assertEqual(sheet_of(alone, {})[0].lines[0].sink, "board and knife")
        beside = [alone[0], row(task=1, start=601, end=610, hands=9), alone[1]]
        self.assertEqual(sheet_of(beside, {})[0].lines[0].sink, "")

    def test_a_pan_is_washed_when_nothing_more_is_done_in_it(self):
        first = task(text="Sweat")
        for then, sink in ((task(number=1, after=(0,)), ""), (task(number=1), "pan")):
            works = self.works(first, then)
            rows = [
                row(place="burner"),
                row(task=7, place="burner", start=603, end=604, hands=1),
                row(task=8, start=620, end=622, hands=2),
            ]
            self.assertEqual(sheet_of(rows, works)[0].lines[1].sink, sink)
        # it is not free while a part of the same piece goes on
        works = self.works(first)
        rows = [
            row(place="burner"),
            row(place="burner", part=1, start=603, end=640, hands=0),
            row(task=8, start=620, end=622, hands=2),
        ]
        self.assertEqual(sheet_of(rows, works)[0].lines[0].sink, "")

    def test_what_is_waited_for_is_told_in_sixty_letters(self):
        long, short = "x" * 61, "y" * 60
        works = self.works(
            task(text=long),
            task(number=1, text=short),
            task(number=2, text="Mix", after=(0, 1)),
            task(number=3, text="Serve", after=(2,)),
        )
        for asked, told in (
            (row(task=2), f"{'x' * 59}…; {short}"),
            # a second part waits for nothing but its first; what waits for one thing says nothing
            (row(task=2, part=1), ""),
            (row(task=3), ""),
            (row(task=4), ""),
        ):
            self.assertEqual(sheet_of([asked], works)[0].lines[0].waits_for, told)
