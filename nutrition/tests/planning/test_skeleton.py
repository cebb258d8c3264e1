"""A client's skeleton: words read and said, the schools', the days made of it."""

import unittest
from dataclasses import replace
from datetime import date

from nutrition.composition.dish_names import KINDS
from nutrition.composition.foods import food_table
from nutrition.planning.kinds import (
    KINDS_OF_BOWL,
    USUAL_FOODS,
    kinds_of_food,
    kinds_of_recipe,
)
from nutrition.planning.skeleton import (
    BadSkeleton,
    Eater,
    Place,
    as_data,
    checked,
    days_of,
    from_data,
    read_meal,
    read_places,
    say_places,
    skeleton_of_school,
    slots_of,
)
from nutrition.targets.meals import PATTERN_SHARES
from nutrition.targets.schools import schools

MONDAY = date(2026, 11, 30)


class Words(unittest.TestCase):
    def test_what_is_written_is_read_and_said_back(self):
        for text, wanted in (
            ("soup, salad", (Place("soup"), Place("salad"))),
            ("Soups; salad x1.5 and fruit", (Place("soup"), Place("salad", 1.5), Place("fruit"))),
            ("main x 1/2", (Place("main", 0.5),)),
            ("", ()),
        ):
            with self.subTest(text=text):
                self.assertEqual(read_places(text), wanted)
                self.assertEqual(read_places(say_places(wanted)), wanted)

    def test_what_is_no_dish_is_said_with_what_is_near(self):
        for text, said in (
            ("soap", "Did you mean “soup”?"),
            ("soup x0", "a portion is"),
            ("soup x1/0", "a portion is"),
            ("soup x99", "a portion is"),
            ("soup, " * 7, "up to 6 dishes"),
            ("12", "not known as a dish"),
        ):
            with self.subTest(text=text), self.assertRaises(BadSkeleton) as caught:
                read_places(text)
            self.assertIn(said, str(caught.exception))


class AsPeopleTalk(unittest.TestCase):
    def test_words_and_foods_stand_for_their_kinds(self):
        for text, meal, kinds in (
            ("oats, berries", "breakfast", ["breakfast", "fruit"]),
            ("rolled oats with walnuts", "breakfast", ["breakfast", "seeds"]),
            ("bean main and side of vegetables", "dinner", ["main", "vegetable"]),
            ("leftovers", "lunch", ["main"]),
            ("tofu, rice, broccoli", "dinner", ["beans", "grain", "vegetable"]),
            ("the big salad + lentil soup", "lunch", ["salad", "soup"]),
            ("steamed kale", "dinner", ["greens"]),
        ):
            with self.subTest(text=text):
                self.assertEqual([one.kind for one in read_places(text, meal)], kinds)

    def test_a_portion_may_stand_first_or_be_a_size(self):
        for text, portion in (
            ("2 fruit", 2.0),
            ("1.5 x soup", 1.5),
            ("large soup", 1.5),
            ("small soup", 0.5),
            ("big soup", 1.5),
            ("double soup", 2.0),
            ("half soup", 0.5),
            ("half a soup", 0.5),
            ("large soup x2", 3.0),
        ):
            self.assertEqual(read_places(text)[0].portion, portion, text)

    def test_a_meal_that_is_out_is_not_planned(self):
        for text in ("out", "eaten out", "Restaurant", "skip"):
            self.assertEqual(read_meal(text), ((), True), text)
        days = [{"meals": {"dinner": "out" if day == 5 else "main"}} for day in range(7)]
        skeleton = from_data({"days": days})
        self.assertEqual([bool(day.away) for day in skeleton.days].index(True), 5)
        self.assertEqual(len(slots_of(skeleton, MONDAY, 7)), 6)

    def test_a_word_that_nobody_knows_is_named_and_means_what_is_said(self):
        with self.assertRaises(BadSkeleton) as caught:
            read_places("soup, gravel x2")
        self.assertEqual(caught.exception.word, "gravel")
        means = {"gravel": "topping"}
        self.assertEqual(read_places("gravel x2", "lunch", means), (Place("topping", 2.0),))
        kept = from_data({"days": [{"meals": {"dinner": "main"}}] * 7, "means": means})
        self.assertEqual(as_data(kept)["means"], means)


class Schools(unittest.TestCase):
    def test_each_school_brings_one_for_every_pattern_of_meals(self):
        for code in schools():
            for pattern, shares in PATTERN_SHARES.items():
                with self.subTest(school=code, pattern=pattern):
                    skeleton = skeleton_of_school(code, pattern)
                    self.assertLessEqual(set(skeleton.meals), set(shares))
                    self.assertIn("dinner", skeleton.meals)
                    self.assertEqual(from_data(as_data(skeleton)), skeleton)

    def test_two_meals_the_salad_and_beans_stay_and_the_other_alternates(self):
        skeleton = skeleton_of_school("greens_beans_seeds", "2")
        noons = {say_places(day.meals["lunch"]) for day in skeleton.days}
        evenings = [say_places(day.meals["dinner"]) for day in skeleton.days]
        self.assertEqual(len(noons), 1)
        self.assertIn("salad", next(iter(noons)))
        self.assertNotEqual(evenings[0], evenings[1])
        self.assertEqual(evenings[0], evenings[2])


class Days(unittest.TestCase):
    def setUp(self):
        self.skeleton = replace(
            skeleton_of_school("balanced_plate", "3"),
            eaters=(Eater("Mira", 1.0), Eater("Jory", 0.6, frozenset({"dinner"}))),
        )

    def test_who_eats_along_makes_the_portions_and_a_packed_meal_is_the_clients_alone(self):
        days = list(self.skeleton.days)
        days[0] = replace(days[0], packed=frozenset({"lunch"}))
        slots = slots_of(replace(self.skeleton, days=tuple(days)), MONDAY, 7)
        eaters = {(one.day, one.meal): one.eaters for one in slots}
        self.assertEqual(eaters[0, "dinner"], 2.6)
        self.assertEqual(eaters[0, "breakfast"], 2.0)
        self.assertEqual((eaters[0, "lunch"], eaters[1, "lunch"]), (1.0, 2.0))
        self.assertTrue(all(one.packed for one in slots if (one.day, one.meal) == (0, "lunch")))

    def test_a_meal_away_has_no_slots(self):
        days = list(self.skeleton.days)
        days[5] = replace(days[5], away=frozenset({"dinner"}))
        away = replace(self.skeleton, days=tuple(days))
        slots = slots_of(away, MONDAY, 14)
        self.assertFalse([one for one in slots if one.meal == "dinner" and one.day in (5, 12)])
        self.assertTrue([one for one in slots if one.meal == "dinner" and one.day == 6])

    def test_weekdays_are_counted_from_the_first_day_whatever_it_is(self):
        self.assertEqual(days_of(frozenset({6, 2}), MONDAY, 7), {-1, 2, 6})
        self.assertEqual(days_of(frozenset({6}), date(2026, 12, 3), 7), {3})

    def test_what_is_no_fruit_bread_or_milk_varies(self):
        slots = slots_of(self.skeleton, MONDAY, 1)
        varied = {"breakfast", "bowl", "main", "vegetable"}
        self.assertEqual({one.kind for one in slots if one.varies}, varied)
        # an apple a day, but no two; milk as often as one likes
        self.assertEqual({one.kind for one in slots if one.repeats}, {"milk"})

    def test_what_cannot_be_is_refused(self):
        data = as_data(self.skeleton)
        for wrong in (
            {"days": data["days"][:6]},
            {"days": None},
            {"cooking": [9]},
            {"eaters": [{"name": "x", "share": 0}]},
            {"eaters": [{"name": "x", "share": "much"}]},
            {"limits": {"soup": 0}},
            {"limits": {"gravel": 3}},
            {"in_a_row": 0},
            {"turns": {"lunch": [0, 3]}},
            {"turns": {"lunch": [3, 15]}},
            {"over_all": [3, 0]},
            {"proteins": 21},
            {"plants": 400},
            {"colors": 9},
        ):
            with self.subTest(wrong=wrong), self.assertRaises(BadSkeleton):
                from_data(data | wrong)
        self.assertEqual(checked(self.skeleton), self.skeleton)


class Kinds(unittest.TestCase):
    def test_where_a_recipe_stands(self):
        for name, role, wanted in (
            ("Porridge of three grains", "dish", {"breakfast"}),
            ("Split pea and dill pot", "dish", {"soup", "main"}),
            ("Split mung and spinach pot", "protein", {"soup", "main", "beans"}),
            ("Kohlrabi slaw with dill", "vegetable", {"salad", "vegetable"}),
            ("Harbor salad", "dish", {"salad"}),
            ("Freekeh with mint", "base", {"grain"}),
            ("Sunflower sauce", "sauce", {"dressing"}),
            ("Berry shake", "dish", {"shake"}),
            ("Rye crackers", "topping", {"bread", "topping", "snack"}),
            ("Harbor bowl", "dish", {"bowl", "main"}),
            ("Sunflower dressing", "dish", {"dressing"}),
            ("Green lentil soup", "base", {"soup", "main"}),
            ("Almond milk, strained", "dish", {"milk"}),
            ("Porridge with oat milk", "dish", {"breakfast"}),
            ("Fruit salad", "dish", {"fruit"}),
            ("Lentil loaf", "dish", {"main"}),
            ("Rye loaf", "dish", {"bread"}),
            ("Cabbage rolls with millet", "dish", {"main"}),
            ("Date and walnut bites", "dish", {"snack"}),
            ("Steamed kale", "dish", {"vegetable"}),
            ("Stewed rhubarb", "dish", {"fruit"}),
        ):
            with self.subTest(name=name):
                self.assertEqual(kinds_of_recipe(name, role, ()), wanted)

    def test_foods_that_are_offered_are_in_the_table_and_of_their_kind(self):
        for kind, slugs in USUAL_FOODS.items():
            for slug in slugs:
                self.assertIn(kind, kinds_of_food(food_table()[slug]), slug)
        self.assertFalse(kinds_of_food(food_table()["pinto-beans-dry"]))
        self.assertLessEqual(KINDS_OF_BOWL | set(USUAL_FOODS), set(KINDS))
