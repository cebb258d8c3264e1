"""What the kitchen has, by itself: never less than none, and nothing counted twice."""

from shopping.kitchen import add_to, cooked, tick
from shopping.lists import taken_by
from shopping.models import MOST_G, Bought, CookedPot, Stock
from shopping.tests.shopping_case import ShoppingCase
from week.reckoning import reckon_week


class Kitchen(ShoppingCase):
    def have(self, food="walnuts"):
        row = Stock.objects.filter(client=self.client_row, food=food).first()
        return row.grams if row else None

    def test_more_and_less_and_never_less_than_none(self):
        add_to(self.client_row, "walnuts", 120.0)
        add_to(self.client_row, "walnuts", 30.0)
        self.assertEqual(self.have(), 150.0)
        add_to(self.client_row, "walnuts", -40.0)
        self.assertEqual(self.have(), 110.0)
        add_to(self.client_row, "walnuts", -500.0)
        self.assertIsNone(self.have())
        add_to(self.client_row, "walnuts", -5.0)
        self.assertIsNone(self.have())

    def test_a_crumb_is_nothing(self):
        """Less than half a gram."""
        add_to(self.client_row, "walnuts", 0.49)
        self.assertIsNone(self.have())
        add_to(self.client_row, "walnuts", 0.5)
        self.assertEqual(self.have(), 0.5)

    def test_no_more_than_a_kitchen_holds(self):
        add_to(self.client_row, "walnuts", MOST_G)
        add_to(self.client_row, "walnuts", 1000.0)
        self.assertEqual(self.have(), MOST_G)

    def test_a_pot_takes_what_is_there_and_gives_back_what_it_took(self):
        week = self.planned()
        pot = reckon_week(week).pots[0]
        needed = taken_by(pot)["kale-raw"]
        add_to(self.client_row, "kale-raw", needed / 2)
        for _twice in range(2):
            cooked(week, pot, pot.key, True, self.user)
        self.assertIsNone(self.have("kale-raw"))
        took = CookedPot.objects.get(week=week).took
        self.assertEqual(list(took), ["kale-raw"])
        self.assertAlmostEqual(took["kale-raw"], needed / 2)
        cooked(week, None, pot.key, False, self.user)
        self.assertAlmostEqual(self.have("kale-raw"), needed / 2)
        self.assertFalse(CookedPot.objects.exists())

    def test_a_tick_that_is_taken_back_after_some_was_eaten_leaves_none(self):
        week = self.planned()
        line = self.line(week, "kale-raw")
        tick(week, line, line.key, True, self.user)
        bought = line.item.count * line.item.sold.grams
        add_to(self.client_row, "kale-raw", -bought / 2)
        tick(week, None, line.key, False, self.user)
        self.assertIsNone(self.have("kale-raw"))
        self.assertFalse(Bought.objects.exists())

    def test_what_is_no_longer_on_the_list_is_neither_bought_nor_cooked(self):
        week = self.planned()
        tick(week, None, "gone", True, self.user)
        tick(week, None, "gone", False, self.user)
        cooked(week, None, "gone", True, self.user)
        cooked(week, None, "gone", False, self.user)
        self.assertFalse(Stock.objects.exists() or Bought.objects.exists())
        self.assertFalse(CookedPot.objects.exists())
