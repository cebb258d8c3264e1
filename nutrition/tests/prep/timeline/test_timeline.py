"""The timeline: hand-worked schedules, all orders tried, and what must hold of any."""

import unittest
from dataclasses import replace
from itertools import product

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from nutrition.prep.timeline.kitchen import BadKitchen, Fixed, Kitchen
from nutrition.prep.timeline.model import air
from nutrition.prep.timeline.ovens import choices, minutes_at
from nutrition.prep.timeline.solving import moved, timeline
from nutrition.tests.prep.timeline.posed import ONE_COOK, dish, hour, session
from nutrition.tests.prep.timeline.possible import faults

RICE = ("rice", ["1 kg kohlrabi"], ["Simmer the kohlrabi 40 minutes."])


def row(found, key, start):
    return next(one for one in found.of(key) if one.text.startswith(start))


class HandWorked(unittest.TestCase):
    def test_one_pot_worked_out_backward(self):
        """1 min on, 7 to the boil, 40 alone, 1 off: 49 before half past six."""
        found = timeline(session(dish(*RICE)))
        told = [(one.text, one.start, one.end, one.hands) for one in found.rows]
        self.assertEqual(
            told,
            [
                ("Simmer the kohlrabi 40 minutes: bring to the boil", 1061, 1069, 1),
                ("Simmer the kohlrabi 40 minutes", 1069, 1109, 0),
                ("Off the heat", 1109, 1110, 1),
            ],
        )
        self.assertTrue(found.proved)

    def test_three_trays_three_heats_rice_and_sauce(self):
        """All at 200: carrots 30 at 220 become 38, beets 50 at 180 become 38, tofu stays 25; each
        is put in and taken out by one pair of hands, a minute apart."""
        dishes = [
            dish("carrots", ["500 g carrots"], ["Roast the carrots 30 minutes at 220 °C."]),
            dish("tofu", ["400 g tofu"], ["Bake the tofu 25 minutes at 200 °C."]),
            dish("beets", ["4 beets"], ["Bake the beets 50 minutes at 180 °C."]),
            dish(*RICE),
            dish("sauce", ["1 cup cashews", "1 tbsp lemon juice"], ["Blend smooth."], name="Sauce"),
        ]
        asked = session(*dishes, kitchen=replace(ONE_COOK, shelves=3))
        found = timeline(asked)
        self.assertEqual(faults(asked, found), [])
        trays = {
            key: row(found, key, "Roast" if key == "carrots" else "Bake")
            for key in ("carrots", "tofu", "beets")
        }
        self.assertEqual(
            {key: one.celsius for key, one in trays.items()},
            {"carrots": 200, "tofu": 200, "beets": 200},
        )
        self.assertEqual(
            {key: one.end - one.start for key, one in trays.items()},
            {"carrots": 39, "tofu": 26, "beets": 39},
        )
        # four things are taken out or off, a minute each, and the last at half past six
        self.assertEqual(
            sorted(found.ready[key] for key in ("carrots", "tofu", "beets", "rice")),
            [1107, 1108, 1109, 1110],
        )
        self.assertTrue(found.proved)

    def test_hot_things_wait_as_little_as_two_burners_allow(self):
        dishes = [
            dish("one", ["1 kg kohlrabi"], ["Simmer the kohlrabi 30 minutes."]),
            dish("two", ["1 kg celeriac"], ["Simmer the celeriac 20 minutes."]),
        ]
        together = timeline(session(*dishes))
        self.assertEqual(sorted(together.ready.values()), [1109, 1110])
        in_turn = timeline(session(*dishes, kitchen=replace(ONE_COOK, burners=1)))
        # the second stands on the one burner for 28 min, the first waits for it
        self.assertEqual(in_turn.ready, {"one": 1081, "two": 1110})

    def test_an_oven_is_hot_fifteen_minutes_after_it_is_turned_on(self):
        tray = dish("tofu", ["400 g tofu"], ["Bake the tofu 25 minutes at 200 °C."])
        # 15 to heat, 1 in, 25, 1 out: 42 minutes
        self.assertEqual(timeline(session(tray, earliest="17:48")).missing, ())
        self.assertEqual(len(timeline(session(tray, earliest="17:49")).missing), 1)
        found = timeline(session(tray))
        heat = next(one for one in found.rows if one.kind == "preheat")
        self.assertEqual((heat.end - heat.start, heat.celsius, heat.hands), (15, 200, 0))

    def test_between_two_heats_ten_minutes(self):
        dishes = [
            dish("bread", ["2 cups rye flour"], ["Bake the flour 20 minutes at 170 °C."]),
            dish("peppers", ["4 peppers"], ["Roast the peppers 20 minutes at 240 °C."]),
        ]
        found = timeline(session(*dishes))
        first, second = sorted(
            (one for one in found.rows if one.place == "oven" and one.kind != "preheat"),
            key=lambda one: one.start,
        )
        self.assertEqual(second.start - first.end, 10)

    def test_another_heat_is_used_only_to_share(self):
        found = timeline(
            session(dish("tofu", ["400 g tofu"], ["Bake the tofu 25 minutes at 200 °C."]))
        )
        self.assertEqual(row(found, "tofu", "Bake").celsius, 200)

    def test_the_wash_takes_three_minutes(self):
        dishes = [
            dish("sweet", ["1 banana", "1 cup soy milk"], ["Blend smooth."]),
            dish("green", ["1 bunch parsley", "1 clove garlic"], ["Blend smooth."]),
        ]
        found = timeline(session(*dishes))
        wash = next(one for one in found.rows if one.kind == "wash")
        self.assertEqual((wash.end - wash.start, wash.hands, wash.place), (3, 3, "sink"))
        self.assertEqual(sum(one.washed_before for one in found.rows), 1)
        savory = [
            dish("a", ["1 bunch parsley", "1 clove garlic"], ["Blend smooth."]),
            dish("b", ["3 onions"], ["Blend smooth."]),
        ]
        self.assertFalse([one for one in timeline(session(*savory)).rows if one.kind == "wash"])

    def test_what_is_spoiled_in_two_minutes_is_last(self):
        dishes = [
            dish("crisp", ["2 leeks"], ["Fry the leeks crisp, 6 minutes."]),
            dish(*RICE),
        ]
        found = timeline(session(*dishes))
        self.assertGreaterEqual(found.ready["crisp"], 1108)

    def test_overnight_is_begun_between_seven_and_nine_in_the_evening(self):
        beans = dish(
            "beans",
            ["1 cup white beans, dry"],
            ["Soak the beans overnight.", "Simmer them an hour."],
        )
        found = timeline(session(beans))
        soak = row(found, "beans", "Soak")
        self.assertTrue(19 * 60 <= soak.start + 1440 <= 21 * 60)
        # where that evening is past it does not fit
        late = timeline(session(beans, now=hour("08:00")))
        self.assertIn("evening is past", late.missing[0].why)
        self.assertEqual(
            late.helps[-1].text, "Soak the beans overnight tonight, and beans tomorrow"
        )
        early = timeline(session(beans, now=hour("20:00") - 1440))
        self.assertEqual(early.missing, ())


class AllOrders(unittest.TestCase):
    def test_the_shortest_time_is_that_of_trying_all_orders(self):
        """Cold dishes of one cutting each and a pot: hands free for it between any two of them."""
        cuts = [
            dish(key, [f"{grams} g carrots"], ["Slice the carrots."], stored=True)
            for key, grams in (("a", 200), ("b", 400), ("c", 700))
        ]
        pot = dish("pot", ["1 kg kohlrabi"], ["Simmer the kohlrabi 6 minutes."], stored=True)
        found = timeline(session(*cuts, pot))
        # by hand: slices of 3, 4 and 7 min with their air of 1, 1, 2; the pot 1 + 7 + 6 and 1 off
        blocks = {"a": 3 + 1, "b": 4 + 1, "c": 7 + 2}
        best = min(self.length(order, blocks) for order in product(range(2), repeat=3))
        self.assertEqual(hour("18:30") - found.begins, best)
        self.assertTrue(found.proved)

    def length(self, inside, blocks):
        """The pot goes on for 13 min after its minute on; what is cut within that costs nothing,
        as far as it fits; the rest stands outside, the last of it without its air."""
        pairs = list(zip(blocks.values(), inside, strict=True))
        within = sum(block for block, is_in in pairs if is_in)
        outside = [block for block, is_in in pairs if not is_in]
        saved = max(
            (block - cut for block, cut in zip(outside, self.cuts(outside), strict=True)), default=0
        )
        return sum(outside) - saved + 1 + 13 + max(within - 13, 0) + 1

    def cuts(self, blocks):
        """The same blocks without their air."""
        return [{4: 3, 5: 4, 9: 7}[block] for block in blocks]


class Laws(unittest.TestCase):
    SOME = [
        (
            "soup",
            ["1 kg kohlrabi", "1 leek, sliced"],
            ["Sweat the leek.", "Add the kohlrabi and simmer 20 minutes.", "Blend smooth."],
        ),
        (
            "tray",
            ["500 g carrots, in sticks"],
            ["Roast the carrots 30 minutes at 220 °C, turning once."],
        ),
        ("bake", ["400 g tofu"], ["Bake the tofu 25 minutes at 190 °C."]),
        (
            "slaw",
            ["1 kohlrabi, grated", "1 apple"],
            ["Toss the kohlrabi with the apple.", "Let it stand ten minutes."],
        ),
        ("cream", ["1 banana", "1 cup soy milk"], ["Blend smooth."]),
        ("beans", ["1 cup white beans, dry"], ["Soak overnight.", "Simmer an hour."]),
        ("grain", ["1 cup millet, dry"], ["Simmer the millet 18 minutes, rest 5 minutes."]),
        ("chard", ["1 bunch chard, chopped"], ["Wilt the chard 4 minutes."]),
    ]

    @settings(max_examples=25, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(
        chosen=st.sets(st.sampled_from(range(8)), min_size=1, max_size=4),
        cooks=st.integers(1, 2),
        burners=st.integers(1, 3),
        shelves=st.integers(1, 2),
        window=st.integers(40, 200),
    )
    def test_no_resource_twice_order_and_ranges_hold(self, chosen, cooks, burners, shelves, window):
        kitchen = Kitchen(cooks=cooks, burners=burners, ovens=1, shelves=shelves, blenders=1)
        dishes = [dish(*self.SOME[at]) for at in sorted(chosen)]
        asked = replace(session(*dishes, kitchen=kitchen), earliest=hour("18:30") - window)
        found = timeline(asked)
        self.assertEqual(faults(asked, found), [])
        self.assertEqual(
            set(found.ready) | {one.dish for one in found.missing}, {one.key for one in dishes}
        )
        # nothing of the day begins before the work may
        day = [one.start for one in found.rows if one.start >= 0]
        self.assertGreaterEqual(min(day, default=asked.earliest), asked.earliest)

    def test_moving_the_wanted_hour_moves_everything(self):
        dishes = [dish(*one, ready="17:00") for one in self.SOME[:4]]
        later = [dish(*one, ready="18:40") for one in self.SOME[:4]]
        first = timeline(session(*dishes, earliest="13:00"))
        second = timeline(session(*later, earliest="14:40"))
        self.assertTrue(first.proved)
        self.assertEqual(
            [one.start + 100 for one in first.rows], [one.start for one in second.rows]
        )

    def test_more_of_anything_never_makes_it_worse(self):
        dishes = [dish(*one) for one in self.SOME[:3]]
        waits = []
        for kitchen in (
            replace(ONE_COOK, burners=1, shelves=1),
            ONE_COOK,
            replace(ONE_COOK, cooks=2),
        ):
            found = timeline(session(*dishes, kitchen=kitchen))
            waits.append(sum(hour("18:30") - at for at in found.ready.values()))
        self.assertGreaterEqual(waits[0], waits[1])
        self.assertGreaterEqual(waits[1], waits[2])

    def test_what_is_done_stays_and_the_rest_moves_around_it(self):
        asked = session(dish(*RICE), dish(*self.SOME[7]))
        first = timeline(asked)
        pinned = timeline(replace(asked, pinned={("rice", 0): 1050}))
        self.assertEqual(row(pinned, "rice", "Simmer").start, 1050)
        self.assertEqual(faults(asked, pinned), [])
        started = row(first, "rice", "Simmer").start
        longer = replace(
            asked, fixed={("rice", 0): Fixed(start=started, minutes=55)}, now=started + 5
        )
        moved = timeline(
            replace(longer, dishes=tuple(replace(one, ready_at=1130) for one in longer.dishes))
        )
        self.assertEqual(moved.ready["rice"], started + 55 + 1)

    def test_nothing_to_cook_is_refused(self):
        with self.assertRaises(BadKitchen):
            timeline(session())

    def test_a_kitchen_without_a_place_says_so(self):
        none = Kitchen(cooks=1, burners=0, ovens=0, shelves=0, blenders=0)
        found = timeline(session(*[dish(*self.SOME[at]) for at in (2, 4, 6)], kitchen=none))
        self.assertEqual(
            [one.why for one in found.missing],
            [
                "It needs an oven, and there is none.",
                "It needs a blender, and there is none.",
                "It needs a burner, and there is none.",
            ],
        )


class Ovens(unittest.TestCase):
    def test_thirty_minutes_at_200_are_forty_at_180(self):
        self.assertEqual(minutes_at(30, 200, 180), 40)
        self.assertEqual(minutes_at(30, 220, 200), 38)
        self.assertEqual(minutes_at(50, 180, 200), 38)
        self.assertEqual(minutes_at(25, 200, 200), 25)
        self.assertEqual(minutes_at(30, 150, 170), 18)
        with self.assertRaises(ValueError):
            minutes_at(30, 160, 140)

    def test_the_written_heat_stands_first(self):
        self.assertEqual(choices(30, 200, 20)[0], (200, 30))
        self.assertEqual(
            [heat for heat, _minutes in choices(30, 200, 20)], [200, 180, 190, 210, 220]
        )
        # a low oven takes no other
        self.assertEqual(choices(300, 70, 20), [(70, 300)])
        self.assertEqual([heat for heat, _m in choices(30, 170, 20)], [170, 150, 160, 180, 190])
        self.assertEqual(choices(30, 160, 20), [(160, 30)])
        self.assertEqual(max(heat for heat, _m in choices(30, 250, 20)), 260)

    def test_of_four_minutes_of_work_one_more_and_two_at_the_most(self):
        for hands, free in ((0, 0), (1, 0), (2, 1), (4, 1), (5, 2), (8, 2), (30, 2)):
            self.assertEqual(air(hands), free, hands)


class WhatHelps(unittest.TestCase):
    def test_each_change_is_tried(self):
        trays = [
            dish(key, ["500 g carrots"], ["Roast the carrots 40 minutes at 200 °C."])
            for key in ("a", "b", "c")
        ]
        found = timeline(session(*trays, earliest="17:20"))
        self.assertEqual([one.dish for one in found.missing], ["c"])
        self.assertIn("By itself it fits", found.missing[0].why)
        kinds = [one.kind for one in found.helps]
        self.assertEqual(kinds, ["shelf", "oven", "time", "tomorrow"])

    def test_a_part_of_it_the_day_before(self):
        pot = dish("pot", ["1 kg kohlrabi"], ["Simmer the kohlrabi an hour."])
        found = timeline(session(pot, earliest="18:00"))
        self.assertIn("pot the day before, and warmed through", [one.text for one in found.helps])
        tray = dish("tray", ["1 kg carrots, in sticks"], ["Roast the carrots 40 minutes."])
        self.assertFalse(
            [one for one in timeline(session(tray, earliest="18:00")).helps if one.kind == "ahead"]
        )

    def test_more_than_the_hands_can_do(self):
        cuts = [dish(key, ["2 kg carrots, grated"], ["Toss the carrots."]) for key in "abcdef"]
        found = timeline(session(*cuts, earliest="17:30"))
        self.assertTrue(found.missing)
        self.assertIn("min of work by hand", found.missing[-1].why)
        self.assertIn("cook", [one.kind for one in found.helps])


class WhileCooking(unittest.TestCase):
    """The rest planned around what is done."""

    def asked(self, **fixed):
        dishes = [
            dish(*RICE),
            dish("chard", ["1 bunch chard, chopped"], ["Wilt the chard 4 minutes."]),
        ]
        return replace(session(*dishes), **fixed)

    def test_what_took_longer_moves_the_rest(self):
        first = timeline(self.asked())
        began = row(first, "rice", "Simmer").start
        # 48 min were planned; it takes ten more
        longer = {("rice", 0): Fixed(start=began, minutes=58)}
        rest = moved(self.asked(fixed=longer, now=began + 40))
        self.assertEqual(rest.late, 10)
        self.assertEqual(rest.ready["rice"], began + 58 + 1)
        self.assertGreaterEqual(rest.ready["chard"], 1110)

    def test_what_is_over_is_left_as_it_was_though_two_things_were_done_at_once(self):
        first = timeline(self.asked())
        began = row(first, "rice", "Simmer").start
        done = {
            ("rice", 0): Fixed(start=began, minutes=48),
            ("chard", 0): Fixed(start=began, minutes=3),
        }
        rest = moved(self.asked(fixed=done, now=began + 42))
        self.assertEqual(rest.late, 0)
        self.assertEqual(row(rest, "chard", "Get ready").start, began)
        # nothing that is still to do is before now
        self.assertTrue(
            all(one.start >= began + 42 for one in rest.rows if one.kind in ("wilt", "taken_off"))
        )

    def test_long_past_the_hour_it_is_still_ordered(self):
        rest = moved(self.asked(now=hour("19:30")))
        self.assertGreater(rest.late, 60)
        self.assertEqual(max(rest.ready.values()), 1110 + rest.late)
