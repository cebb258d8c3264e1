"""The numbers of the steps, on both sides of their edges."""

import unittest

from nutrition.prep.steps.corrections import Correction
from nutrition.prep.steps.dry_beans import beans_first
from nutrition.prep.steps.durations import stated_in
from nutrition.prep.steps.heat import heat_in
from nutrition.prep.steps.putting_away import put_away
from nutrition.prep.steps.reading import read_work
from nutrition.prep.steps.task import Worked
from nutrition.tests.prep.steps.dish import by_text, comes_before, lines_of, work_of

KIDNEY = ["1 cup kidney beans, dry", "1 onion, diced"]
WORDS = (
    ("one", 1),
    ("four", 4),
    ("seven", 7),
    ("nine", 9),
    ("eleven", 11),
    ("twelve", 12),
    ("fifteen", 15),
    ("eighteen", 18),
    ("twenty five", 25),
    ("twenty", 20),
    ("thirty-five", 35),
    ("thirty five", 35),
    ("thirty", 30),
    ("forty-five", 45),
    ("forty five", 45),
    ("forty", 40),
    ("fifty", 50),
    ("sixty", 60),
    ("seventy-five", 75),
    ("ninety", 90),
    ("1¼", 1.25),
    ("2¾", 2.75),
    ("1⅓", 1 + 1 / 3),
    ("1⅔", 1 + 2 / 3),
)


class Words(unittest.TestCase):
    def test_numbers_that_are_words(self):
        for word, minutes in WORDS:
            self.assertAlmostEqual(stated_in(f"simmer {word} minutes").usual, minutes, msg=word)
        self.assertEqual(stated_in("for a minute").usual, 1)
        self.assertEqual(stated_in("a couple minutes").usual, 2)
        self.assertEqual(stated_in("a couple of hours").usual, 120)
        found = stated_in("half a minute")
        self.assertEqual((found.least, found.usual, found.most), (0.5, 0.5, 0.5))

    def test_hours_and_minutes_are_one_time_and_two_times_are_two(self):
        self.assertEqual(stated_in("1 hour 59 minutes").usual, 119)
        self.assertEqual(stated_in("1 hour, 60 minutes").usual, 60)
        self.assertEqual(stated_in("let it stand covered for 1").usual, 1)
        self.assertIsNone(stated_in("let it stand covered for 0"))


class Heats(unittest.TestCase):
    def test_between_fifty_and_two_hundred_sixty_degrees(self):
        for text, celsius in (
            ("at 50 °C", 50),
            ("at 49 °C", None),
            ("at 260 °C", 260),
            ("at 261 °C", None),
            ("at 50 degrees", 50),
            ("at 49 degrees", None),
            # past 260 it is read as degrees Fahrenheit
            ("at 260 degrees", 260),
            ("at 261 degrees", 130),
            ("at 500 degrees", 260),
            ("at 501 degrees", None),
        ):
            self.assertEqual(heat_in(text), celsius, text)

    def test_what_is_put_into_the_oven_by_hand(self):
        right = {"sweat the leek": Correction(place="oven")}
        work = read_work(["Sweat the leek."], lines_of("1 leek, sliced"), corrections=right)
        self.assertEqual(by_text(work, "Sweat").heat.celsius, 180)


class PutRight(unittest.TestCase):
    def test_what_is_done_within_stays_within(self):
        steps = ["Roast the carrots at 200 °C for 30 minutes, turning at half time."]
        for alone, events in ((16, 1), (15, 0)):
            right = {
                "roast the carrots at 200 °c for 30 minutes": Correction(alone=alone),
                "roast the carrots at 200 °c for 30 minutes, turning at half time": Correction(
                    alone=alone
                ),
            }
            work = read_work(steps, lines_of("4 carrots"), corrections=right)
            task = by_text(work, "Roast")
            self.assertEqual((task.alone.usual, len(task.events)), (alone, events))


class PutAway(unittest.TestCase):
    def test_a_minute_and_three_quarters_for_each_container(self):
        soup = work_of(["2 cups red lentils, dry"], ["Simmer the lentils 20 minutes."])
        for containers, usual, words in ((1, 1.75, "1 container,"), (4, 4.0, "4 containers,")):
            task = put_away(soup, containers).tasks[-1]
            self.assertEqual(
                (task.hands.least, task.hands.usual, task.hands.most),
                (usual / 2, usual, usual * 2),
            )
            self.assertIn(words, task.text + ",")
            self.assertEqual(task.waits, 120)
        self.assertIs(put_away(soup, 0), soup)
        nothing = Worked(tasks=(), hot=False, waits=60, strict=False)
        self.assertIs(put_away(nothing, 3), nothing)


class Attended(unittest.TestCase):
    def test_added_for_three_minutes_is_cooked_for_less_is_stood_by(self):
        for minutes, kind in ((3, "simmer"), (2, "add")):
            work = work_of(
                ["1 cup barley, dry", "1 cup peas"],
                ["Simmer the barley 30 minutes.", f"Add the peas, {minutes} minutes."],
            )
            self.assertEqual(by_text(work, "Add").kind, kind, minutes)

    def test_nobody_stirs_for_longer_than_an_hour(self):
        for minutes, hands in ((60, 60), (61, 2)):
            work = work_of(["4 onions"], [f"Stir the onions constantly for {minutes} minutes."])
            task = work.tasks[-1]
            self.assertEqual(task.hands.usual, hands) if minutes == 60 else self.assertLess(
                task.hands.usual, 60
            )

    def test_beans_boiled_for_a_while_simmer_ten_minutes_at_the_least(self):
        work = work_of(
            ["1 cup white beans, dry"],
            ["Soak the beans.", "Boil the beans 70 minutes.", "Simmer until soft."],
        )
        simmer = by_text(work, "Simmer until soft")
        self.assertEqual((simmer.alone.least, simmer.alone.usual, simmer.alone.most), (10, 10, 20))


class Cut(unittest.TestCase):
    def test_the_juice_of_a_lemon_takes_a_minute(self):
        task = by_text(work_of(["juice of 1 lemon"], ["Add it."]), "Get ready")
        self.assertEqual((task.hands.least, task.hands.usual, task.hands.most), (0.5, 1.0, 1.5))


class FromDry(unittest.TestCase):
    def test_cooked_beans_wait_two_hours(self):
        lines = ["2 cups white beans, cooked"]
        work = beans_first(work_of(lines, ["Mash the beans."]), lines_of(*lines))
        self.assertEqual(by_text(work, "Drain").waits, 120)
        self.assertEqual(by_text(work, "Boil").waits, 120)


class Overnight(unittest.TestCase):
    def test_five_hours_by_itself_are_a_night(self):
        for minutes, overnight in ((300, True), (299, False)):
            work = work_of(["1 cup oats"], [f"Let the oats stand {minutes} minutes."])
            self.assertEqual(work.tasks[-1].overnight, overnight, minutes)


class KidneyBeans(unittest.TestCase):
    def test_the_edges_of_soaking_and_boiling(self):
        for hours, said in ((5, False), (4, True)):
            work = work_of(KIDNEY, [f"Soak the beans {hours} hours.", "Boil them 40 minutes."])
            soak = by_text(work, "Soak")
            self.assertEqual(soak.alone.least, 300)
            self.assertEqual("kidney beans soak at least" in " ".join(soak.notes), said)
        for minutes, said in ((30, False), (29, True)):
            work = work_of(KIDNEY, ["Soak the beans.", f"Boil them {minutes} minutes."])
            boil = by_text(work, "Boil")
            self.assertEqual(boil.alone.least, 30)
            self.assertEqual("thirty minutes" in boil.text, said)

    def test_what_no_step_boils_is_boiled_before_it_is_slow_cooked_baked_or_eaten(self):
        for steps, user in (
            (["Soak the beans overnight.", "Slow cook the beans 8 hours."], "Slow"),
            (["Soak the beans.", "Bake the beans at 150 °C for 3 hours."], "Bake"),
            (["Soak the beans.", "Steam the beans 20 minutes."], "Steam"),
            (["Sprout the beans two days.", "Toss the beans with the onion."], "Toss"),
        ):
            with self.subTest(user):
                work = work_of(KIDNEY, steps)
                boil = by_text(work, "Boil the kidney beans hard")
                self.assertEqual((boil.alone.least, boil.place), (30, "burner"))
                self.assertEqual((boil.boil.least, boil.boil.usual, boil.boil.most), (6, 10, 15))
                self.assertTrue(comes_before(work, "Boil the kidney beans hard", user))
                self.assertTrue(comes_before(work, steps[0].split()[0], "Boil the kidney"))
        for steps in (
            ["Soak the beans.", "Braise the beans an hour."],
            ["Pressure cook the beans."],
        ):
            work = work_of(KIDNEY, steps)
            self.assertFalse([one for one in work.tasks if one.text.startswith("Boil the kidney")])
