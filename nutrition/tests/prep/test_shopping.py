"""From what goes into the pot to what is bought, and the list of a week counted by hand."""

import unittest

from nutrition.composition.foods import food_table
from nutrition.prep.buying import SECTIONS, as_bought, sold, units_for
from nutrition.prep.shopping import CRUMB_G, STOCK_G, Need, shopping_list, trip_for, trips_of

TABLE = food_table()


def need(slug, grams, day=0, dish="a dish"):
    return Need(TABLE[slug], grams, day, dish)


class Buying(unittest.TestCase):
    def test_every_food_of_the_table_is_sold_somewhere(self):
        for food in TABLE:
            if food.comparator:
                continue
            found = sold(food)
            if found is None:
                self.assertIn("water", food.slug)
                continue
            self.assertIn(found.section, SECTIONS)
            self.assertGreater(found.grams, 0, food.slug)
            self.assertGreater(found.fresh_days, 0, food.slug)

    def test_dry_for_cooked_whole_for_trimmed_and_cans_by_what_drains(self):
        beans = as_bought(TABLE["white-beans-cooked"], 500.0)
        self.assertEqual(beans.food.slug, "white-beans-dry")
        # dry beans grow about two and a half times (common practice, no source)
        self.assertTrue(180 < beans.grams < 230, beans.grams)
        leek = as_bought(TABLE["leek-raw"], 90.0)
        share = TABLE["leek-raw"].share("edible").share
        self.assertAlmostEqual(leek.whole_g, 90.0 / share)
        self.assertAlmostEqual(leek.for_stock_g, leek.whole_g - 90.0)
        rinsed = as_bought(TABLE["black-beans-canned-drained-and-rinsed"], 510.0)
        self.assertEqual(units_for(sold(rinsed.food), rinsed.grams), 2.0)

    def test_units_are_those_of_a_shop(self):
        for slug, grams, wanted in (
            ("dill-fresh", 50.0, "2 bunches"),
            ("tofu-firm", 400.0, "2 blocks"),
            ("tofu-firm", 390.0, "1 block"),
            ("lemon-juice", 90.0, "2 lemons"),
            ("pinto-beans-dry", 500.0, "2 bags"),
            ("cabbage-green-raw", 300.0, "1 head"),
            ("apple-with-skin-raw", 500.0, "3"),
        ):
            with self.subTest(slug=slug):
                food = as_bought(TABLE[slug], grams).food
                found = sold(food)
                self.assertEqual(found.words(units_for(found, grams)), wanted)

    def test_a_practices_own_package_stands_over_all(self):
        own = {"pinto-beans-dry": ("sack", 2000.0)}
        found = sold(TABLE["pinto-beans-dry"], own)
        self.assertEqual((found.words(1), found.grams), ("1 sack", 2000.0))


class Lists(unittest.TestCase):
    def test_one_list_summed_over_dishes_and_rounded_up_with_what_remains(self):
        found = shopping_list(
            [
                need("split-peas-dry", 300.0, 0, "pot"),
                need("split-peas-dry", 250.0, 3, "stew"),
                need("water", 4000.0),
            ],
            [-1, 2],
        )
        (item,) = found.items
        self.assertEqual((item.need_g, item.count, item.words), (550.0, 2.0, "2 bags"))
        self.assertAlmostEqual(item.left_g, 2 * item.sold.grams - 550.0)
        self.assertEqual((item.dishes, item.days), (("pot", "stew"), (0, 3)))
        self.assertIn("left", item.left_words)

    def test_half_a_can_that_would_be_left_is_named_with_where_it_goes(self):
        can = TABLE["black-beans-canned-drained"]
        grams = sold(can).grams / 2
        (item,) = shopping_list([Need(can, grams, 0, "bowl")], [0]).items
        self.assertIn("about 1/2 can left", item.left_words)
        self.assertIn("refrigerator", item.left_words)
        both = shopping_list([Need(can, grams, day, "bowl") for day in (0, 2)], [0]).items
        self.assertEqual([(one.count, one.left_words) for one in both], [(1.0, "")])

    def test_less_what_the_kitchen_has(self):
        needs = [need("split-peas-dry", 300.0)]
        (some,) = shopping_list(needs, [0], {"split-peas-dry": 100.0}).items
        self.assertEqual((some.have_g, some.count), (100.0, 1.0))
        (none,) = shopping_list(needs, [0], {"split-peas-dry": 900.0}).items
        self.assertEqual((none.have_g, none.count, none.left_g), (300.0, 0.0, 0.0))

    def test_what_spoils_first_is_bought_for_its_half_of_the_week(self):
        needs = [need("blueberries-raw", 170.0, day) for day in range(7)]
        needs += [need("carrots-raw", 100.0, day) for day in range(7)]
        found = shopping_list(needs, [-1, 3])
        berries = {one.trip: one for one in found.items if one.food.slug == "blueberries-raw"}
        self.assertEqual(set(berries), {-1, 3})
        self.assertEqual([one.trip for one in found.items if one.food.slug == "carrots-raw"], [-1])
        fresh = berries[-1].sold.fresh_days
        for trip, one in berries.items():
            self.assertTrue(all(day - trip <= fresh or trip == 3 for day in one.days))
        self.assertEqual((trip_for(6, 3, [-1, 3]), trip_for(6, 30, [-1, 3])), (3, -1))

    def test_cost_is_of_what_is_priced_and_never_guessed(self):
        needs = [need("split-peas-dry", 500.0), need("dill-fresh", 20.0)]
        self.assertIsNone(shopping_list(needs, [0]).cost)
        found = shopping_list(needs, [0], prices={"split-peas-dry": 2.5})
        self.assertEqual((found.cost, found.unpriced), (5.0, 1))

    def test_trimmings_for_stock_are_counted(self):
        found = shopping_list([need("leek-raw", 200.0), need("apple-with-skin-raw", 200.0)], [0])
        leek = as_bought(TABLE["leek-raw"], 200.0)
        self.assertAlmostEqual(found.stock_g, leek.whole_g - 200.0)

    def test_by_section_in_the_order_of_a_shop(self):
        slugs = ("rolled-oats-dry", "dill-fresh", "apple-with-skin-raw", "blueberries-frozen")
        found = shopping_list([need(slug, 60.0) for slug in slugs], [0])
        names = [name for name, _items in found.by_section(0)]
        self.assertEqual(names, ["Vegetables and herbs", "Fruit", "Dry goods", "Frozen"])

    def test_somebody_shops_on_some_day(self):
        with self.assertRaises(ValueError):
            shopping_list([], [])


class Trips(unittest.TestCase):
    def test_the_last_day_before_the_first_pot_and_all_after_it(self):
        for days, first_pot, trips in (
            ([2, 5], 2, [2, 5]),
            ([2, 5], 4, [2, 5]),
            ([0, 2, 5], 4, [2, 5]),
            ([0, 2, 5], 5, [5]),
            # cooked before anybody shops: a trip of its own, on a day that is there
            ([2, 5], 0, [0, 2, 5]),
            ([2, 5], 1, [0, 2, 5]),
            ([2, 5], -1, [-1, 2, 5]),
            ([], 3, [0]),
        ):
            with self.subTest(days=days, first_pot=first_pot):
                self.assertEqual(trips_of(days, first_pot), trips)

    def test_what_is_nothing_and_what_makes_a_stock(self):
        self.assertEqual((CRUMB_G, STOCK_G), (0.5, 50.0))


class WholeFruit(unittest.TestCase):
    def lemons(self, *rows):
        needs = [Need(TABLE[slug], grams, day, slug) for slug, grams, day in rows]
        found = shopping_list(needs, [0])
        return [(one.food.slug, one.words, one.how) for one in found.items]

    def test_juice_zest_and_eating_are_one_purchase(self):
        """A lemon gives 47 g of juice and 4 g of zest."""
        self.assertEqual(
            self.lemons(("lemon-juice", 90, 0), ("lemon-zest", 4, 0)),
            [("lemon-juice", "2 lemons", "the juice of 2, the zest of 1")],
        )
        self.assertEqual(
            self.lemons(("lemon-juice", 40, 0), ("lemon-zest", 12, 0)),
            [("lemon-juice", "3 lemons", "the juice of 1, the zest of 3")],
        )
        (alone,) = self.lemons(("lemon-juice", 90, 0))
        self.assertEqual(alone, ("lemon-juice", "2 lemons", ""))

    def test_orange_juice_is_a_bottle_and_no_orange(self):
        rows = self.lemons(("orange-juice", 200, 0), ("orange-zest", 6, 0))
        self.assertEqual(len(rows), 2)
        one = self.lemons(("orange-raw", 131, 0), ("orange-zest", 6, 0))
        self.assertEqual(len(one), 1)
        self.assertIn("the zest of 1", one[0][2])
