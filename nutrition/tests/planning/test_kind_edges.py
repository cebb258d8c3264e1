"""What a dish without a telling name is, what of a kind is served at least, and what of an upper
level is asked of the plate: both sides of the numbers."""

import unittest
from dataclasses import replace
from datetime import date
from math import inf

from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.portion import food_portion
from nutrition.planning.candidates import candidate_of, helpers_of, on_the_plate
from nutrition.planning.kinds import kinds_of_recipe
from nutrition.planning.skeleton import (
    BadSkeleton,
    Skeleton,
    Weekday,
    checked,
    read_places,
    skeleton_of_school,
    slots_of,
)
from nutrition.planning.week import DAY_BEFORE, DAYS_OF_A_WEEK, EVENING_BEFORE, Prepared, Week
from nutrition.safety.gate import OPEN
from nutrition.safety.upper_levels import upper_levels
from nutrition.targets.aim import Aim

FOODS = food_table()


def kinds(name="Anything at all", role="dish", **grams):
    foods = [Ingredient(FOODS[slug.replace("_", "-")], one) for slug, one in grams.items()]
    return set(kinds_of_recipe(name, role, foods))


class ByWhatIsInIt(unittest.TestCase):
    def test_seven_parts_in_ten_of_vegetables_make_a_side(self):
        side = {"vegetable", "salad"}
        self.assertEqual(kinds(cucumber_with_peel_raw=70.0, strawberries_raw=30.0), side)
        self.assertEqual(kinds(cucumber_with_peel_raw=69.0, strawberries_raw=31.0), {"main"})

    def test_only_where_it_is_light(self):
        # walnuts have 6.5 kcal a gram: at 0.7 kcal a gram it is light no more
        walnut, cucumber = (
            FOODS[slug].per_100_g("energy_kcal") / 100
            for slug in ("walnuts", "cucumber-with-peel-raw")
        )
        for density, light in ((0.69, True), (0.71, False)):
            share = (density - cucumber) / (walnut - cucumber)
            found = kinds(walnuts=100 * share, cucumber_with_peel_raw=100 * (1 - share))
            self.assertEqual("vegetable" in found, light, density)

    def test_eight_parts_in_ten_of_starch_make_a_grain(self):
        self.assertEqual(kinds(millet_cooked=80.0, tofu_firm=20.0), {"grain"})
        self.assertEqual(kinds(millet_cooked=79.0, tofu_firm=21.0), {"main"})


class AtLeast(unittest.TestCase):
    def test_a_salad_a_bowl_greens_and_fruit_are_whole(self):
        text = "salad, bowl, greens, fruit, soup"
        day = Weekday({"lunch": read_places(text)}, frozenset(), frozenset())
        slots = slots_of(Skeleton(days=(day,) * 7), date(2024, 1, 1), 1)
        self.assertEqual(
            {slot.kind: slot.least for slot in slots},
            {"salad": 1.0, "bowl": 1.0, "greens": 1.0, "fruit": 1.0, "soup": 0.0},
        )


class OnThePlate(unittest.TestCase):
    def test_what_counts_for_tablets_alone_is_asked_of_the_plate_only_without_them(self):
        tablets_alone = next(key for key, row in upper_levels().items() if not row.of_all)
        for base, kept in ((0.0, True), (1.0, False)):
            there = {tablets_alone: base}
            low = Aim(key=tablets_alone, low=None, aim=9e9, high=9e9, weight=0.0, firm_high=True)
            self.assertEqual(bool(on_the_plate([low], there)), kept)
            watched = Aim(key=tablets_alone, low=1.0, aim=2.0, high=9e9, weight=1.0, firm_high=True)
            (one,) = on_the_plate([watched], there)
            self.assertEqual(one.high is not None, kept)


class Helpers(unittest.TestCase):
    def test_a_helping_more_a_half_or_one_and_a_half(self):
        helpers = helpers_of(OPEN, ["protein_g"])
        self.assertEqual({one.counts for one in helpers}, {(0.5, 1.0, 1.5)})


class Bounds(unittest.TestCase):
    def test_a_snack_is_no_more_than_one(self):
        day = Weekday(
            {"snack": read_places("fruit"), "dinner": read_places("main")},
            frozenset(),
            frozenset(),
        )
        slots = slots_of(Skeleton(days=(day,) * 7), date(2024, 1, 1), 1)
        self.assertEqual({slot.meal: slot.most for slot in slots}, {"snack": 1.0, "dinner": inf})

    def test_a_word_of_somebodys_own_has_sixty_letters_at_most(self):
        for letters, fits in ((60, True), (61, False)):
            skeleton = replace(skeleton_of_school("", "3"), means={"w" * letters: "soup"})
            if fits:
                self.assertEqual(checked(skeleton), skeleton)
            else:
                self.assertRaises(BadSkeleton, checked, skeleton)

    def test_a_week_has_seven_days_and_the_first_evening_is_the_one_before(self):
        self.assertEqual((DAYS_OF_A_WEEK, DAY_BEFORE, EVENING_BEFORE), (7, -1, -2))
        beans = Prepared(key="beans", name="beans", keeps=3, soaks=True)
        case = Week(days=3, slots=(), candidates=(), prepared=(beans,), first_evening=-1)
        self.assertEqual([case.may_cook(beans, day) for day in (-1, 0)], [False, True])
        dry = replace(beans, soaks=False)
        self.assertTrue(case.may_cook(dry, -1))

    def test_a_drink_or_bread_by_itself_goes_by_no_rotation_and_a_dish_does(self):
        for slug, kinds, is_dish in (
            ("soy-milk-unsweetened", ("milk",), False),
            ("rye-bread", ("grain", "bread", "milk"), False),
            ("white-beans-cooked", ("beans",), True),
        ):
            one = food_portion(FOODS[slug], 100.0)
            self.assertEqual(candidate_of(one, kinds, (1.0, 1.0, 1.0), ()).dish, is_dish)
