"""Both sides of every number that keeping, cooling, batches and shopping go by, written out."""

import unittest
from datetime import date, timedelta

from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.prep.batches import USUAL_CONTAINER_ML, MealEaten, batch_for, portioned
from nutrition.prep.buying import Sold, sold, units_for
from nutrition.prep.cooling import cooling_of
from nutrition.prep.keeping import (
    MOST_DAYS,
    UNKNOWN,
    is_cooked,
    is_heated,
    is_sour,
    keeping_kinds,
    keeping_of,
)
from nutrition.prep.shopping import Item, Need, shopping_list, trip_for, trips_of
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon

TABLE = food_table()
SUNDAY = date(2026, 11, 29)
# Days in the refrigerator, surest and longest; months frozen; days in the room.
KINDS = {
    "nut, seed or grain milk": (1, 2, 0, 0),
    "raw sprouts": (1, 2, 0, 0),
    "dry sprinkle or cracker": (6, 6, 3, 14),
    "porridge": (2, 3, 2, 0),
    "raw breakfast or shake": (0, 1, 0, 0),
    "soup or stew": (3, 4, 2, 0),
    "sauce of fresh garlic or herbs in oil": (3, 4, 3, 0),
    "sauce of beans, tofu, nuts or milk": (3, 4, 2, 0),
    "sour dressing": (5, 6, 0, 0),
    "other sauce": (3, 4, 2, 0),
    "mash or cream of boiled potato": (3, 4, 0, 0),
    "grain, beans or roast, cooked": (3, 4, 2, 0),
    "cooked greens": (3, 4, 2, 0),
    "salad with leaves": (0, 1, 0, 0),
    "slaw or raw salad": (1, 2, 0, 0),
    "of no known kind": (1, 1, 0, 0),
}


def some(slug, grams, heated=False):
    return Ingredient(TABLE[slug], grams, heated=heated)


class Keeping(unittest.TestCase):
    def test_each_kind_keeps_so_long(self):
        found = {
            one.kind: (one.days, one.most_days, one.frozen_months, one.room_days)
            for one in (*keeping_kinds(), UNKNOWN)
        }
        self.assertEqual(found, KINDS)

    def test_two_days_for_who_may_be_in_danger(self):
        soup = reckon(Recipe(("2 cups white beans, cooked", "1 carrot"), title="Bean soup"))
        for in_danger, days in ((False, 3), (True, 2)):
            found = keeping_of("Bean soup", "dish", soup.foods(), in_danger)
            self.assertEqual((found.days, found.room_days if in_danger else 0), (days, 0))

    def test_a_twentieth_of_what_turns_watery_is_not_frozen(self):
        for potato, freezes in ((49, True), (50, False), (51, False)):
            lines = (f"{potato} g potatoes, boiled", f"{1000 - potato} g white beans, cooked")
            foods = reckon(Recipe(lines, title="Bean mash")).foods()
            self.assertEqual(keeping_of("Bean mash", "dish", foods).freezes, freezes, potato)

    def test_the_words_of_a_day_and_of_days(self):
        said = {one.kind: one.words for one in (*keeping_kinds(), UNKNOWN)}
        self.assertEqual(said["raw breakfast or shake"], "0 to 1 day in the refrigerator")
        self.assertEqual(said["slaw or raw salad"], "1 to 2 days in the refrigerator")
        self.assertEqual(said["of no known kind"], "1 day in the refrigerator")

    def test_sour_from_a_tenth_of_its_weight_on(self):
        for grams, sour in ((9.9, False), (10.0, True), (11.0, True)):
            with self.subTest(grams=grams):
                foods = [some("lemon-juice", grams), some("kohlrabi-raw", 100.0 - grams)]
                self.assertEqual(is_sour(foods), sour)
        self.assertFalse(is_sour([]))

    def test_cooked_and_heated_by_more_than_half_of_its_weight_water_apart(self):
        for heated, done in ((50.0, False), (51.0, True)):
            with self.subTest(grams=heated):
                foods = [
                    some("kohlrabi-raw", heated, heated=True),
                    some("apple-with-skin-raw", 100.0 - heated),
                    some("water", 500.0),
                ]
                self.assertEqual((is_cooked(foods), is_heated(foods)), (done, done))
        came_cooked = [some("white-beans-cooked", 60.0), some("kohlrabi-raw", 40.0)]
        self.assertEqual((is_cooked(came_cooked), is_heated(came_cooked)), (True, False))


class Cooling(unittest.TestCase):
    def test_a_pot_of_two_liters_is_a_big_one(self):
        self.assertIsNone(cooling_of(1999.0, True))
        self.assertIsNotNone(cooling_of(2000.0, True))
        self.assertIsNotNone(cooling_of(2001.0, True))


class Batches(unittest.TestCase):
    def test_a_recipe_is_made_a_twentieth_to_forty_fold(self):
        facts = reckon(Recipe(("400 g cooked white beans",), servings=4.0))
        for servings, made in ((0.19, False), (0.2, True), (160.0, True), (161.0, False)):
            with self.subTest(servings=servings):
                if made:
                    self.assertAlmostEqual(batch_for(facts, servings).factor, servings / 4.0)
                else:
                    with self.assertRaisesRegex(ValueError, "outside"):
                        batch_for(facts, servings)


def left(grams, unit="bag", package=1000.0, by_weight=False):
    how = Sold(
        unit=unit,
        grams=package,
        section="Dry goods",
        fresh_days=30,
        opened_days=30,
        rest="in a jar",
        source="the test",
        by_weight=by_weight,
    )
    item = Item(
        food=TABLE["millet-dry"],
        sold=how,
        need_g=package - grams,
        have_g=0.0,
        count=1.0,
        left_g=grams,
        trip=0,
        dishes=("a pot",),
        days=(0,),
    )
    return item.left_words


class Left(unittest.TestCase):
    def test_what_remains_of_a_package_is_said_as_a_share(self):
        for grams, words in (
            (29.0, ""),
            (30.0, "30 g left: in a jar"),
            (199.0, "199 g left: in a jar"),
            (200.0, "about 1/4 bag left (200 g): in a jar"),
            (289.0, "about 1/4 bag left (289 g): in a jar"),
            (290.0, "about 1/3 bag left (290 g): in a jar"),
            (419.0, "about 1/3 bag left (419 g): in a jar"),
            (420.0, "about 1/2 bag left (420 g): in a jar"),
            (579.0, "about 1/2 bag left (579 g): in a jar"),
            (580.0, "about 2/3 bag left (580 g): in a jar"),
            (699.0, "about 2/3 bag left (699 g): in a jar"),
            (700.0, "about 3/4 bag left (700 g): in a jar"),
            (949.0, "about 3/4 bag left (949 g): in a jar"),
            (950.0, "950 g left: in a jar"),
        ):
            with self.subTest(grams=grams):
                self.assertEqual(left(grams), words)
        self.assertEqual(left(500.0, by_weight=True), "500 g left: in a jar")


class Shopping(unittest.TestCase):
    def test_what_keeps_until_its_day_is_bought_first(self):
        self.assertEqual(trip_for(4, 4, [0, 3]), 0)
        self.assertEqual(trip_for(5, 4, [0, 3]), 3)

    def test_one_shops_on_the_day_of_the_first_pot_once(self):
        self.assertEqual(trips_of([2, 5], 2), [2, 5])
        self.assertEqual(trips_of([1, 2, 5], 2), [2, 5])

    def test_the_rest_of_a_package_is_used_as_long_as_it_keeps_open(self):
        beans = TABLE["white-beans-canned-drained"]
        self.assertEqual(sold(beans).opened_days, 3)
        dill = TABLE["dill-fresh"]
        self.assertEqual(sold(dill).fresh_days, 4)
        for slug, open_days, fresh in (("dill-fresh", sold(dill).opened_days, 4),):
            for apart, bunches in ((open_days, 1.0), (open_days + 1, 2.0)):
                with self.subTest(slug, apart=apart):
                    days = (0, max(apart, fresh + 1))
                    needs = [Need(TABLE[slug], 5.0, day, "sauce") for day in days]
                    found = shopping_list(needs, [0, apart])
                    self.assertEqual(sum(one.count for one in found.items), bunches)

    def test_a_tenth_that_is_trimmed_is_said(self):
        """Brussels sprouts lose a tenth: 300 g of them are 333 g whole."""
        found = shopping_list([Need(TABLE["brussels-sprouts-raw"], 300.0, 0, "pan")], [0])
        self.assertEqual(found.items[0].how, "333 g whole for 300 g trimmed")
        found = shopping_list([Need(TABLE["millet-dry"], 300.0, 0, "pot")], [0])
        self.assertEqual(found.items[0].how, "")

    def test_nothing_is_bought_for_nothing(self):
        how = sold(TABLE["millet-dry"])
        self.assertEqual(units_for(how, 0.0), 0.0)
        self.assertEqual(units_for(how, how.grams), 1.0)
        self.assertEqual(units_for(how, how.grams * 1.0005), 1.0)
        self.assertEqual(units_for(how, how.grams * 1.002), 2.0)

    def test_the_kitchen_gives_only_what_it_has(self):
        found = shopping_list([Need(TABLE["millet-dry"], 300.0, 0, "pot")], [0], have={})
        self.assertEqual(found.have, ())
        found = shopping_list(
            [Need(TABLE["millet-dry"], 300.0, 0, "pot")], [0], have={"millet-dry": 120.0}
        )
        self.assertEqual(
            [(food.slug, grams) for food, grams in found.have], [("millet-dry", 120.0)]
        )


class Containers(unittest.TestCase):
    def boxes(self, serving_ml, days=1, container_ml=600.0, servings=1.0):
        """One serving eaten so many days after Sunday; soup keeps three days and freezes."""
        soup = next(one for one in keeping_kinds() if one.kind == "soup or stew")
        eaten = [MealEaten(on=SUNDAY + timedelta(days=days), people={"Mira": 1.0})]
        return portioned(servings, 300.0, serving_ml, SUNDAY, soup, eaten, container_ml)

    def test_filled_to_nine_tenths_and_frozen_to_seventeen_twentieths(self):
        self.assertEqual(USUAL_CONTAINER_ML, 600.0)
        for serving_ml, days, count in ((540.0, 1, 1), (541.0, 1, 2), (510.0, 4, 1), (511.0, 4, 2)):
            with self.subTest(ml=serving_ml, days=days):
                self.assertEqual(len(self.boxes(serving_ml, days)), count)

    def test_a_hundredth_of_a_serving_is_nobodys(self):
        self.assertEqual(len(self.boxes(300.0, servings=1.009)), 1)
        self.assertEqual(len(self.boxes(300.0, servings=1.011)), 2)


class Sale(unittest.TestCase):
    def test_a_package_from_100_g_and_a_piece_from_20_g_on(self):
        """Açaí is sold by its package of 100 g, ramen of 85 g by the bag; an Indian gooseberry of
        25 g by the piece, kumquats of 19 g by weight."""
        acai = sold(TABLE["acai-puree-frozen"])
        self.assertEqual((acai.unit, acai.grams), ("package", 100.0))
        self.assertEqual(sold(TABLE["ramen-noodles-dry"]).unit, "bag")
        self.assertEqual(sold(TABLE["indian-gooseberry-raw"]).grams, 25.0)
        self.assertFalse(sold(TABLE["indian-gooseberry-raw"]).by_weight)
        self.assertTrue(sold(TABLE["kumquats-raw"]).by_weight)
        self.assertEqual(sold(TABLE["kumquats-raw"]).grams, 50.0)

    def test_no_kind_is_taken_beyond_the_seven_days_of_the_food_code(self):
        self.assertEqual(MOST_DAYS, 6)
