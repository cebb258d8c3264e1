"""Turns of phrase of written steps, each beside one that looks like it and means something else."""

import unittest

from nutrition.prep.steps.clauses import clauses_of
from nutrition.prep.steps.durations import stated_in
from nutrition.tests.prep.steps.dish import by_text, comes_before, work_of

SOUP = ["1 onion, chopped", "1 cup pearl barley, dry", "4 cups vegetable broth"]
ROOTS = ["3 carrots", "1/2 cup sunflower seeds", "1 clove garlic"]


def pieces(*steps):
    return [(one.text, one.remark) for one in clauses_of(steps)]


def kinds(lines, steps):
    return [task.kind for task in work_of(lines, steps).tasks if task.step is not None]


class Pieces(unittest.TestCase):
    def test_to_tip_is_work_and_a_tip_is_none(self):
        self.assertEqual(pieces("Tip in the barley."), [("Tip in the barley", False)])
        self.assertEqual(pieces("Tip: use old bread."), [("Tip: use old bread", True)])
        self.assertEqual(pieces("Tips: use old bread."), [("Tips: use old bread", True)])

    def test_what_it_does_by_itself_is_no_work(self):
        self.assertEqual(pieces("They crisp as they cool."), [("They crisp as they cool", True)])
        self.assertEqual(pieces("Crisp the bread."), [("Crisp the bread", False)])
        water = "Most of the water should be gone"
        self.assertEqual(pieces(f"{water}."), [(water, True)])
        beans = "The beans should be soaked overnight"
        self.assertEqual(pieces(f"{beans}."), [(beans, False)])

    def test_where_it_is_done_stands_with_what_is_done(self):
        lead = "In a large pot over medium heat, cook the onion 7 minutes"
        self.assertEqual(pieces(f"{lead}."), [(lead, False)])
        self.assertEqual(kinds(SOUP, [lead]), ["simmer"])
        self.assertEqual(kinds(ROOTS, ["In a dry pan, toast the seeds."]), ["toast"])

    def test_when_it_is_done_is_no_time(self):
        (soaked,) = clauses_of(["The night before: mix the flour with water, cover."])
        self.assertEqual((soaked.text[:3], soaked.kind.name), ("Mix", "mix"))
        self.assertEqual(pieces("Next day preheat the oven."), [("Preheat the oven", False)])

    def test_a_list_of_what_goes_in_is_not_cut(self):
        whole = "Knead with flour, yeast and water for 10 minutes"
        self.assertEqual(pieces(f"{whole}."), [(whole, False)])
        apart = [("Cook with water", False), ("Lentils in for the last 5 minutes", False)]
        self.assertEqual(pieces("Cook with water, lentils in for the last 5 minutes."), apart)

    def test_another_way_is_told_and_not_planned(self):
        told = pieces("Fry them 4 minutes a side, or bake 25 minutes at 190 °C.")
        self.assertEqual([remark for _text, remark in told], [False, True])
        self.assertEqual(len(pieces("Fry the seeds or nuts.")), 1)

    def test_the_verb_goes_on_where_only_the_cover_changes(self):
        told = pieces("Bake, covered, for 30 minutes, then uncovered for 10-15 more.")
        self.assertEqual([text for text, _remark in told][1], "Bake uncovered for 10-15 more")
        stated = stated_in(told[1][0])
        self.assertEqual((stated.least, stated.usual, stated.most), (10, 12.5, 15))

    def test_so_that_something_happens_is_no_work(self):
        self.assertEqual(
            kinds(["1 cup rolled oats"], ["Rest in the fridge 30 minutes so the oats can soak."]),
            ["chill"],
        )


class Times(unittest.TestCase):
    def test_up_to_a_day_is_as_short_as_it_may_be(self):
        told = stated_in("marinate for an hour or up to a day")
        self.assertEqual((told.least, told.usual, told.most), (60, 60, 1440))
        told = stated_in("simmer 5 minutes, then up to 20 minutes")
        self.assertEqual((told.least, told.usual, told.most), (20, 20, 20))

    def test_what_is_tossed_after_so_long(self):
        work = work_of(ROOTS, ["Roast the carrots 40 minutes, tossing after 25."])
        (roast,) = (task for task in work.tasks if task.kind == "roast")
        self.assertEqual([(one.before_end, one.text) for one in roast.events], [(15, "Turn")])
        late = work_of(ROOTS, ["Roast the carrots 20 minutes, tossing after 20."])
        self.assertEqual([one.events for one in late.tasks if one.kind == "roast"], [()])

    def test_soaking_by_what_is_soaked(self):
        for line, step, minutes in (
            ("2 shallots", "Steep the shallots in vinegar.", 20),
            ("1 cup basmati rice", "Soak the rice.", 30),
            ("1 cup white beans, dry", "Soak the beans.", 600),
            ("1/2 cup sunflower seeds", "Soak the seeds.", 240),
        ):
            task = next(one for one in work_of([line], [step]).tasks if one.kind == "soak")
            self.assertEqual(task.alone.usual, minutes, line)

    def test_a_line_that_is_soaked_is_soaked_the_evening_before(self):
        for line, minutes in (
            ("1 cup adzuki beans, soaked overnight", 600),
            ("1 cup cashews, soaked 4 hours", 240),
            ("1 cup lentils, soaked", 600),
        ):
            work = work_of([line, "1 carrot"], ["Simmer everything 40 minutes."])
            soak = work.tasks[0]
            self.assertEqual((soak.kind, soak.alone.usual), ("soak", minutes), line)
            self.assertTrue(comes_before(work, "Soak", "Simmer"), line)
        for line in ("1 cup tomatoes, soaked in oil", "1 cup lentils, dry"):
            work = work_of([line], ["Simmer everything 40 minutes."])
            self.assertFalse([one for one in work.tasks if one.kind == "soak"], line)

    def test_kidney_beans_of_a_line_that_is_soaked_are_raw(self):
        short = work_of(
            ["1 cup kidney beans, soaked 2 hours"], ["Simmer everything 20 minutes."]
        ).tasks
        told = [(one.kind, one.alone.least) for one in short if one.kind in ("soak", "simmer")]
        self.assertEqual(told, [("soak", 300), ("simmer", 30)])
        slow = work_of(["1 cup kidney beans, soaked overnight"], ["Slow cook everything 8 hours."])
        self.assertTrue(comes_before(slow, "Boil the kidney beans hard", "Slow cook"))
        can = work_of(["1 can kidney beans, drained"], ["Simmer everything 10 minutes."])
        self.assertEqual([one.alone.least for one in can.tasks if one.kind == "simmer"], [10])

    def test_it_comes_to_the_boil_once(self):
        steps = ["Bring the barley and the broth to a boil, cover and simmer 40 minutes."]
        work = work_of(SOUP, steps)
        self.assertEqual([t.kind for t in work.tasks[1:]], ["boil_up", "add", "simmer"])
        self.assertEqual(work.tasks[3].boil.usual, 0)
        more = work_of(SOUP, ["Bring the broth to a boil, pour in water and simmer 40 minutes."])
        self.assertGreater(more.tasks[-1].boil.usual, 0, "it went off the boil")


class Places(unittest.TestCase):
    def test_what_is_left_on_a_low_heat_cooks(self):
        begin = "Bring the barley and the broth to the boil. Turn down to the lowest heat and "
        for end, kind in (
            ("leave for 20 minutes.", "simmer"),
            ("leave to stand for 20 minutes off the heat.", "rest"),
        ):
            self.assertEqual(kinds(SOUP, [begin + end])[-1], kind, end)
        self.assertEqual(
            kinds(SOUP, ["Simmer it all 9 minutes. Leave for 20 minutes."])[-1], "rest"
        )

    def test_steam_off_the_heat_is_standing(self):
        steps = ["Simmer the barley 40 minutes. Take off the heat and let it steam 10 minutes."]
        self.assertEqual(kinds(SOUP, steps)[-1], "rest")
        self.assertEqual(kinds(SOUP, ["Steam the onion 10 minutes."]), ["steam"])

    def test_a_dry_pan_and_the_oven(self):
        for step, kind, place in (
            ("Dry roast the seeds.", "toast", "burner"),
            ("Roast the seeds in a dry pan.", "toast", "burner"),
            ("Roast the seeds.", "roast", "oven"),
            ("Toast the seeds 8 minutes at 170 °C.", "bake", "oven"),
        ):
            task = work_of(ROOTS, [step]).tasks[-1]
            self.assertEqual((task.kind, task.place), (kind, place), step)

    def test_lentils_soft_in_water_are_boiled_and_onions_in_a_little_are_fried(self):
        lentils = "Cook the barley in the water until soft, 35 minutes."
        self.assertEqual(kinds(SOUP, [lentils]), ["simmer"])
        self.assertEqual(kinds(SOUP, ["Cook the onion in a little water until soft."]), ["fry"])

    def test_pressure_goes_down_by_itself(self):
        task = work_of(
            SOUP, ["Pressure cook it all 12 minutes; let the pressure release naturally."]
        )
        self.assertEqual(
            [(one.kind, one.alone.usual) for one in task.tasks if one.step is not None],
            [("pressure_cook", 12), ("release", 15)],
        )

    def test_the_oven_is_turned_down_for_what_follows(self):
        work = work_of(
            ["3 cups whole wheat flour"],
            ["Bake at 230 °C for 15 minutes, lower to 190 °C and bake 25 minutes more."],
        )
        self.assertEqual([one.heat.celsius for one in work.tasks if one.heat], [230, 190])
        told = work_of(
            ["3 cups whole wheat flour"],
            ["Bake at 230 °C for 15 minutes. Reduce the oven to 190 °C. Bake 25 minutes more."],
        )
        self.assertEqual([one.heat.celsius for one in told.tasks if one.heat], [230, 190])


class Order(unittest.TestCase):
    def test_what_is_stuffed_holds_what_was_made(self):
        lines = ["4 bell peppers", "1 cup millet, dry", "1 cup cooked white beans"]
        steps = ["Cook the millet 18 minutes. Combine with the beans; stuff the peppers."]
        work = work_of(lines, steps)
        self.assertTrue(comes_before(work, "Combine", "Stuff"))

    def test_for_the_sauce_begins_something_of_its_own(self):
        steps = ["Roast the carrots 40 minutes.", "For the sauce, soak the seeds 30 minutes."]
        work = work_of(ROOTS, steps)
        self.assertFalse(comes_before(work, "Roast", "For the sauce"))

    def test_simmer_with_goes_on_with_what_was_there(self):
        lines = ["1/2 cup millet, dry", "1 1/2 cups soy milk"]
        work = work_of(lines, ["Rinse the millet. Simmer with the milk 25 minutes."])
        self.assertTrue(comes_before(work, "Rinse", "Simmer"))

    def test_over_the_rest_and_onto_the_plates(self):
        steps = [
            "Simmer the barley 40 minutes.",
            "Dry roast the seeds till it crackles. Pour over the grain.",
        ]
        work = work_of([*SOUP, *ROOTS], steps)
        self.assertFalse(comes_before(work, "Simmer", "Dry roast"), "“it” is in the seeds")
        self.assertTrue(comes_before(work, "Simmer", "Pour over"))
        plates = work_of([*SOUP, *ROOTS], [*steps[:1], "Toast the seeds.", "Divide between bowls."])
        self.assertTrue(comes_before(plates, "Simmer", "Divide"))
        self.assertTrue(comes_before(plates, "Toast", "Divide"))

    def test_toasted_nuts_do_not_make_a_cold_dish_hot(self):
        lines = ["2 cucumbers", "1 cup soy yogurt", "1/4 cup walnuts"]
        steps = ["Blend the cucumbers with the yogurt. Chill 2 hours."]
        last = "Toast the walnuts 8 minutes at 170 °C, scatter over."
        self.assertFalse(work_of(lines, [*steps, last]).hot)
        self.assertTrue(work_of(["3 carrots"], ["Roast the carrots 30 minutes."]).hot)

    def test_everything_bar_the_vinegar(self):
        lines = ["1 red cabbage", "3 tbsp cider vinegar", "1 bay leaf"]
        work = work_of(
            lines, ["Braise everything bar the vinegar an hour.", "Sharpen with vinegar."]
        )
        self.assertEqual(by_text(work, "Braise").lines, (0, 2))
        self.assertTrue(comes_before(work, "Braise", "Sharpen"))
        self.assertEqual(work.unread, ())


if __name__ == "__main__":
    unittest.main()
