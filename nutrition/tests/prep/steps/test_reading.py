"""Steps read into tasks: places, times, what waits for what, and what is filled in."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from nutrition.prep.steps.clauses import clauses_of
from nutrition.prep.steps.corrections import Correction, correction_in
from nutrition.prep.steps.reading import read_work
from nutrition.tests.prep.steps.dish import by_text, comes_before, lines_of, work_of

BARLEY = ["1 cup pearl barley, dry", "1 leek, sliced", "3 cups water", "1 tbsp lemon juice"]


class Places(unittest.TestCase):
    def test_times_and_places(self):
        work = work_of(
            BARLEY,
            [
                "Sweat the leek in a little water for 8 minutes.",
                "Add the barley and the water and simmer 35 minutes.",
                "Lemon off the heat.",
            ],
        )
        told = [
            (task.kind, task.place, task.hands.usual, task.alone.usual)
            for task in work.tasks
            if task.step is not None
        ]
        self.assertEqual(
            told,
            [
                ("fry", "burner", 8, 0),
                ("add", "burner", 1, 0),
                ("simmer", "burner", 1, 35),
                ("add", "counter", 1, 0),
            ],
        )

    def test_a_usual_time_by_the_food_is_filled_in_with_its_range_and_said(self):
        for line, steps, span in (
            ("1 cup brown rice, dry", "Simmer the rice.", (35, 40, 45)),
            ("1 cup white rice, dry", "Simmer the rice.", (15, 18, 20)),
            ("1 cup split peas, dry", "Simmer the peas.", (45, 60, 75)),
            ("1 cup millet, dry", "Simmer the millet.", (12, 17, 20)),
            ("8 oz tempeh", "Steam the tempeh.", (8, 10, 15)),
            ("1 cup sunflower seeds", "Soak the seeds.", (60, 240, 600)),
            ("1 cup white beans, dry", "Soak the beans.", (480, 600, 720)),
        ):
            with self.subTest(line):
                task = next(one for one in work_of([line], [steps]).tasks if one.alone.usual)
                self.assertEqual((task.alone.least, task.alone.usual, task.alone.most), span)
                self.assertFalse(task.stated)
                self.assertIn("usual", task.notes[0])

    def test_what_is_attended_takes_the_hands_for_all_of_it(self):
        for step, hands, alone in (
            ("Brown the leek for 6 minutes.", 6, 0),
            ("Cook the leek 8 minutes, stirring often.", 8, 0),
            ("Simmer the leek 8 minutes.", 1, 8),
            ("Cook the leek in ladlefuls for 3 minutes per side.", 12, 0),
        ):
            task = by_text(work_of(["1 leek"], [step]), step[:4])
            self.assertEqual((task.hands.usual, task.alone.usual), (hands, alone), step)

    def test_within_what_goes_on(self):
        work = work_of(
            ["1 cup freekeh, dry", "1 kohlrabi, diced", "2 carrots"],
            ["Simmer the freekeh 20 minutes, add kohlrabi for the last six."],
        )
        (event,) = by_text(work, "Simmer").events
        self.assertEqual((event.before_end, event.hands), (6, 1))
        roast = work_of(["2 carrots"], ["Roast the carrots 30 minutes, turning at half time."])
        self.assertEqual([one.before_end for one in by_text(roast, "Roast").events], [15])
        turned = work_of(["2 carrots"], ["Roast the carrots 30 minutes.", "Turn at half time."])
        self.assertEqual([one.before_end for one in by_text(turned, "Roast").events], [15])

    def test_a_ladle_at_a_time_is_looked_after_every_five_minutes(self):
        work = work_of(
            BARLEY, ["Sweat the leek.", "Barley in, water a ladle at a time, 20 minutes."]
        )
        task = next(one for one in work.tasks if one.events)
        self.assertEqual([one.before_end for one in task.events], [15, 10, 5])

    def test_comes_to_the_boil_by_what_is_in_the_pot(self):
        one = by_text(work_of(["1 kg kohlrabi"], ["Simmer the kohlrabi 20 minutes."]), "Simmer")
        self.assertAlmostEqual(one.boil.usual, 7.0)
        two = by_text(work_of(["2 kg kohlrabi"], ["Simmer the kohlrabi 20 minutes."]), "Simmer")
        self.assertAlmostEqual(two.boil.usual, 11.0)
        huge = by_text(work_of(["9 kg kohlrabi"], ["Simmer the kohlrabi 20 minutes."]), "Simmer")
        self.assertAlmostEqual(huge.boil.usual, 20.0)
        self.assertAlmostEqual(two.boil.least, 6.6)
        self.assertAlmostEqual(two.boil.most, 16.5)
        pasta = by_text(work_of(["200 g whole wheat pasta"], ["Boil the pasta 9 minutes."]), "Boil")
        self.assertAlmostEqual(pasta.boil.usual, 13.8)
        dry = by_text(work_of(["200 g millet, dry"], ["Simmer the millet 18 minutes."]), "Simmer")
        self.assertAlmostEqual(dry.boil.usual, 5.8)
        hot = work_of(["1 kg kohlrabi"], ["Simmer the kohlrabi in boiling water 20 minutes."])
        self.assertEqual(by_text(hot, "Simmer").boil.usual, 0)
        steamed = by_text(work_of(["400 g kale"], ["Steam the kale 5 minutes."]), "Steam")
        self.assertEqual((steamed.boil.least, steamed.boil.usual, steamed.boil.most), (3, 5, 7))


class Order(unittest.TestCase):
    def test_what_begins_something_of_its_own_waits_for_nothing(self):
        work = work_of(
            ["1 cup freekeh, dry", "4 bell peppers", "200 g mushrooms"],
            [
                "Simmer the freekeh 20 minutes.",
                "Brown the mushrooms in a dry pan.",
                "Fold in the freekeh.",
            ],
        )
        self.assertFalse(comes_before(work, "Simmer", "Brown"))
        self.assertTrue(comes_before(work, "Simmer", "Fold"))
        self.assertTrue(comes_before(work, "Brown", "Fold"))

    def test_everything_waits_for_all_that_is_there(self):
        work = work_of(
            ["1 cup cooked lentils", "1 onion, diced", "1 cup rolled oats"],
            ["Sweat the onion.", "Mash the lentils.", "Mix everything.", "Bake 45 minutes."],
        )
        for first in ("Sweat", "Mash"):
            self.assertTrue(comes_before(work, first, "Mix"), first)
        self.assertIn(2, by_text(work, "Mix").lines)

    def test_a_sauce_made_aside_is_brushed_on_what_was_roasted(self):
        work = work_of(
            ["2 eggplants", "2 tbsp white miso", "1 tbsp rice vinegar"],
            [
                "Roast the eggplants at 220 °C for 25 minutes.",
                "Whisk together miso and vinegar.",
                "Brush the glaze over the eggplants.",
            ],
        )
        self.assertFalse(comes_before(work, "Roast", "Whisk"))
        self.assertTrue(comes_before(work, "Roast", "Brush"))
        self.assertTrue(comes_before(work, "Whisk", "Brush"))

    def test_meanwhile(self):
        work = work_of(
            ["1 cup red lentils, dry", "1 tsp cumin seeds"],
            ["Simmer the lentils 20 minutes.", "Meanwhile, toast the cumin in a skillet."],
        )
        self.assertFalse(comes_before(work, "Simmer", "Meanwhile"))

    def test_in_one_pot_it_goes_on_within_two_minutes(self):
        work = work_of(BARLEY, ["Sweat the leek.", "Add the barley and the water."])
        self.assertEqual(by_text(work, "Add").gap, 2)

    def test_a_dish_named_for_the_oven_is_roasted_though_no_step_says_so(self):
        lines = ["2 bulbs fennel, sliced", "1 tbsp vinegar"]
        steps = ["Spread out so nothing steams; vinegar in the last five minutes."]
        work = work_of(lines, steps, "Roast fennel")
        roast = by_text(work, "Roast")
        self.assertEqual(roast.place, "oven")
        self.assertEqual([one.before_end for one in roast.events], [5])
        self.assertEqual([t.place for t in work_of(lines, steps, "Fennel").tasks].count("oven"), 0)

    def test_two_trays_take_two_shelves(self):
        work = work_of(["1 bunch kale"], ["Spread the kale on two trays.", "Bake 20 minutes."])
        self.assertEqual(by_text(work, "Bake").trays, 2)

    def test_an_appliance_of_its_own_leaves_the_burner_free(self):
        work = work_of(["1 cup brown rice"], ["Put the rice in a slow cooker.", "Cook 8 hours."])
        self.assertEqual(by_text(work, "Cook").place, "counter")

    @settings(max_examples=60, deadline=None)
    @given(
        st.lists(
            st.sampled_from(
                [
                    "Simmer the barley 30 minutes.",
                    "Add the leek.",
                    "Sweat the leek.",
                    "Everything but the lemon simmers 25 minutes.",
                    "Blend half.",
                    "Lemon last.",
                    "Soak overnight.",
                    "Roast at 200 °C, turning once.",
                    "Mix all, rest ten minutes.",
                    "Meanwhile, chop the leek.",
                    "Gurgle.",
                    "Peas in for the last five.",
                    "",
                ]
            ),
            max_size=7,
        )
    )
    def test_whatever_is_written_waits_only_for_what_stands_before(self, steps):
        work = read_work(steps, lines_of(*BARLEY), "Barley")
        for at, task in enumerate(work.tasks):
            self.assertEqual(task.number, at)
            self.assertTrue(all(0 <= one < len(work.tasks) and one != at for one in task.after))
        done, waiting = set(), list(work.tasks)
        while waiting:
            ready = [one for one in waiting if set(one.after) <= done]
            self.assertTrue(ready, "tasks wait for one another")
            done |= {one.number for one in ready}
            waiting = [one for one in waiting if one.number not in done]


class FilledIn(unittest.TestCase):
    def test_kidney_beans_soak_five_hours_and_boil_thirty_minutes(self):
        lines = ["1 cup kidney beans, dry"]
        short = work_of(
            lines, ["Soak the beans 2 hours.", "Boil them hard 10 minutes, simmer soft."]
        )
        self.assertEqual(by_text(short, "Soak").alone.least, 300)
        boil = by_text(short, "Boil")
        self.assertEqual(boil.alone.least, 30)
        self.assertIn("thirty minutes", boil.text)
        long = work_of(lines, ["Soak the beans 6 hours.", "Boil them 40 minutes."])
        self.assertEqual(by_text(long, "Soak").alone.least, 360)
        self.assertEqual(by_text(long, "Boil").alone.least, 40)
        adzuki = work_of(
            ["1 cup adzuki beans, dry"], ["Soak the beans 2 hours.", "Boil 10 minutes."]
        )
        self.assertEqual(by_text(adzuki, "Boil").alone.least, 10)

    def test_dry_beans_that_no_step_soaks_are_soaked(self):
        lines = ["1 cup white beans, dry", "1 onion, diced"]
        work = work_of(lines, ["Simmer the beans and the onion until soft."])
        soak = by_text(work, "Soak")
        self.assertIsNone(soak.step)
        self.assertTrue(soak.overnight)
        self.assertTrue(comes_before(work, "Soak", "Simmer"))
        for steps in (["Soak the beans.", "Simmer them."], ["Pressure cook the beans 40 minutes."]):
            self.assertFalse(
                [
                    one
                    for one in work_of(lines, steps).tasks
                    if one.step is None and one.kind == "soak"
                ]
            )
        lentils = work_of(["1 cup lentils, dry"], ["Simmer the lentils."])
        self.assertFalse([one for one in lentils.tasks if one.kind == "soak"])

    def test_sour_goes_in_last_and_garlic_late_where_everything_cooks(self):
        lines = ["1 cup red lentils, dry", "2 cloves garlic", "2 tbsp lemon juice", "4 cups water"]
        work = work_of(lines, ["Everything simmers 25 minutes."])
        last = by_text(work, "Last, off the heat: 2 tbsp lemon juice")
        self.assertEqual(work.ends, (last.number,))
        self.assertEqual([one.before_end for one in by_text(work, "Everything").events], [10])
        for minutes, garlic, sour in ((24, 0, 1), (10, 0, 1), (9, 0, 0)):
            shorter = work_of(lines, [f"Everything simmers {minutes} minutes."])
            self.assertEqual(len(by_text(shorter, "Everything").events), garlic, minutes)
            self.assertEqual(sum("Last, off" in one.text for one in shorter.tasks), sour, minutes)
        told = work_of(lines, ["Everything but the lemon simmers 25 minutes.", "Lemon last."])
        self.assertFalse([one for one in told.tasks if one.text.startswith("Last, off")])

    def test_mushrooms_are_salted_once_they_are_brown(self):
        lines = ["200 g mushrooms", "1/2 tsp salt", "1 tbsp tamari", "1 tbsp olive oil"]
        work = work_of(lines, ["Fry everything 8 minutes.", "Pile on the plates."])
        fried, salted = (
            by_text(work, "Fry"),
            by_text(work, "Once brown: 1/2 tsp salt, 1 tbsp tamari"),
        )
        self.assertEqual((fried.lines, salted.lines), ((0, 3), (1, 2)))
        self.assertTrue(comes_before(work, "Fry", "Once brown"))
        self.assertTrue(comes_before(work, "Once brown", "Pile"))
        for other, steps in (
            (lines, "Fry the mushrooms with the salt and the tamari 8 minutes."),
            (lines, "Everything simmers 8 minutes."),
            (["2 leeks, raw", "1/2 tsp salt"], "Fry everything 8 minutes."),
            (["200 g mushrooms", "1 tbsp tamarind paste"], "Fry it all 8 minutes."),
        ):
            told = work_of(other, [steps])
            self.assertFalse([one for one in told.tasks if "Once brown" in one.text], steps)

    def test_sulfur_salt_goes_in_off_the_heat(self):
        lines = ["1 cup red lentils, dry", "1/4 tsp black salt (kala namak)", "4 cups water"]
        for step, asked in (
            ("Everything simmers 5 minutes.", 1),
            ("Warm it all 5 minutes.", 1),
            ("Simmer the lentils with the black salt in the water.", 0),
            ("Blend everything.", 0),
        ):
            work = work_of(lines, [step])
            late = [one.lines for one in work.tasks if one.text.startswith("Last, off the heat")]
            self.assertEqual(late, [(1,)] * asked, step)

    def test_what_the_lines_say_is_cut_is_cut_before_it_goes_in(self):
        work = work_of(BARLEY, ["Sweat the leek.", "Add the barley and the water."])
        self.assertTrue(comes_before(work, "Get ready: 1 leek, sliced", "Sweat"))
        told = work_of(BARLEY, ["Slice the leek.", "Sweat it."])
        self.assertFalse([one for one in told.tasks if one.text.startswith("Get ready")])

    def test_what_was_not_understood_is_told(self):
        self.assertEqual(work_of(BARLEY, ["Gurgle the leek."]).unread, ("Gurgle the leek",))


class PutRight(unittest.TestCase):
    def test_a_correction_holds_for_its_words(self):
        steps = ["Simmer the barley 30 minutes.", "Sweat the leek."]
        right = {
            "simmer the barley 30 minutes": Correction(alone=40, hands=2),
            "sweat the leek": Correction(place="oven", celsius=190, apart=False),
        }
        work = read_work(steps, lines_of(*BARLEY), corrections=right)
        simmer, sweat = by_text(work, "Simmer"), by_text(work, "Sweat")
        self.assertEqual((simmer.alone.usual, simmer.hands.usual), (40, 2))
        self.assertEqual((sweat.place, sweat.heat.celsius), ("oven", 190))
        self.assertTrue(comes_before(work, "Simmer", "Sweat"))

    def test_what_is_no_work_is_none(self):
        right = {"sweat the leek": Correction(no_work=True)}
        work = read_work(
            ["Simmer the barley.", "Sweat the leek."], lines_of(*BARLEY), corrections=right
        )
        self.assertFalse([one for one in work.tasks if one.text == "Sweat the leek"])

    def test_what_was_kept_is_read_within_its_bounds(self):
        self.assertEqual(
            correction_in(
                {"hands": 5, "alone": 10.5, "place": "oven", "celsius": 200, "apart": True}
            ),
            Correction(hands=5, alone=10.5, place="oven", celsius=200, apart=True),
        )
        for odd in (
            None,
            [],
            {"hands": -1, "alone": "x", "place": "moon", "celsius": 900, "apart": 1},
            {"hands": 241, "alone": 10081, "celsius": 49},
        ):
            self.assertEqual(correction_in(odd), Correction(), odd)
        self.assertEqual(
            correction_in({"hands": 240, "alone": 10080, "celsius": 50}),
            Correction(hands=240, alone=10080, celsius=50),
        )


class Held(unittest.TestCase):
    def test_how_long_a_dish_may_stand(self):
        for lines, steps, name, hot, waits, strict in (
            (["1 leek"], ["Sweat the leek."], "Leek", True, 60, False),
            (["1 leek"], ["Fry the leek crisp."], "Crisp leek", True, 2, True),
            (["1 bunch kale"], ["Toss the kale with lemon."], "Kale salad", False, 15, True),
            (["1 bulb fennel"], ["Toss just before it is eaten."], "Fennel", False, 10, True),
            (["1 cup cashews"], ["Blend smooth."], "Cashew sauce", False, 2880, False),
            (["1 bulb fennel"], ["Toss the fennel."], "Fennel", False, 480, False),
            (["1 leek"], ["Boil the leek.", "Rinse under cold water."], "Leek", False, 480, False),
        ):
            with self.subTest(steps):
                work = work_of(lines, steps, name)
                self.assertEqual((work.hot, work.waits, work.strict), (hot, waits, strict))


class Cutting(unittest.TestCase):
    def test_minutes_by_the_work_and_the_weight(self):
        for line, usual in (
            ("200 g carrots, diced", 2.6),
            ("100 g garlic, minced", 2.7),
            ("100 g celeriac, grated", 2.0),
            ("200 g celeriac, peeled and diced", 3.4),
            ("200 g carrots, halved", 1.5),
            ("100 g white beans, canned, drained", 1.0),
            ("3 kg pumpkin, grated", 15.0),
            ("1/2 cup dill, chopped", 2.0),
        ):
            with self.subTest(line):
                work = work_of([line], ["Add it."])
                cut = by_text(work, "Get ready")
                self.assertAlmostEqual(cut.hands.usual, usual)
                self.assertAlmostEqual(cut.hands.least, usual * 0.5)
                self.assertAlmostEqual(cut.hands.most, usual * 1.5)
        for line in ("200 g carrots", "1 cup peas, frozen", "1 tsp ground cumin"):
            tasks = work_of([line], ["Add it."]).tasks
            self.assertFalse([one for one in tasks if one.text.startswith("Get ready")], line)

    def test_how_long_what_is_cut_may_wait(self):
        for line, waits in (
            ("2 carrots, diced", 1440),
            ("2 apples, diced", 30),
            ("1/2 cup dill, chopped", 120),
        ):
            self.assertEqual(by_text(work_of([line], ["Add it."]), "Get ready").waits, waits, line)

    def test_the_knife_where_a_step_says_it(self):
        task = by_text(work_of(["200 g carrots"], ["Slice the carrots."]), "Slice")
        self.assertAlmostEqual(task.hands.usual, 2.6)


class Practice(unittest.TestCase):
    def test_nothing_of_a_recipe_is_lost(self):
        """Every piece of the written steps is a task, within one, a remark, or told as unread."""
        steps = [
            "Brown the leek dry, add the barley with water, then the lemon.",
            "Keeps two days.",
        ]
        work = work_of(BARLEY, steps)
        words = (
            {one.text for one in work.tasks}
            | set(work.remarks)
            | {event.text for one in work.tasks for event in one.events}
        )
        self.assertEqual({one.text for one in clauses_of(steps)} - words, set())
