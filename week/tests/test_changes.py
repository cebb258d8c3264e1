"""Changes of a week by themselves: places, moves, what a proposal says, what is copied on."""

from nutrition.planning.week import Choice
from week.changes import NotThere, beside, copy_on, move, parts_of_slot, put, take
from week.dishes import thing_of
from week.models import WeekEntry
from week.tests.test_week import WeekCase


class Changes(WeekCase):
    def setUp(self):
        super().setUp()
        self.week = self.begin()
        self.things = {
            name: thing_of(f"recipe-{row.pk}", self.client_row)
            for name, row in (("soup", self.soup), ("stew", self.stew))
        }
        self.walnuts = thing_of("food-walnuts")

    def put(self, slot, what, count=1.0, **more):
        return put(self.week, slot, self.things.get(what, self.walnuts), count, **more)

    def standing(self):
        return {row.slot: row.key for row in self.week.entries.all()}


class Places(Changes):
    def test_a_place_is_a_day_of_the_week_a_meal_and_one_of_forty(self):
        self.assertEqual(parts_of_slot(self.week, "0-lunch-0"), (0, "lunch", 0))
        self.assertEqual(parts_of_slot(self.week, "6-snack-39"), (6, "snack", 39))
        for none in (
            "7-lunch-0",
            "0-lunch-40",
            "0-tea-0",
            "0-lunch",
            "-1-lunch-0",
            "٣-lunch-0",
            "",
        ):
            with self.subTest(none), self.assertRaises(NotThere):
                parts_of_slot(self.week, none)

    def test_beside_a_meal_there_is_room_for_twenty(self):
        for place in range(20, 40):
            self.assertEqual(beside(self.week, 2, "lunch"), f"2-lunch-{place}")
            self.put(f"2-lunch-{place}", "soup")
        with self.assertRaisesMessage(NotThere, "That meal holds no more."):
            beside(self.week, 2, "lunch")
        self.assertEqual(beside(self.week, 3, "lunch"), "3-lunch-20")

    def test_a_dish_that_finds_no_room_on_another_day_stays_and_it_is_said(self):
        for place in range(20, 40):
            self.put(f"2-lunch-{place}", "soup")
        row = self.put("0-lunch-25", "stew")
        with self.assertRaisesMessage(NotThere, "That meal holds no more."):
            move(self.week, row.pk, 2)
        self.assertEqual(self.standing()["0-lunch-25"], f"recipe-{self.stew.pk}")

    def test_a_food_is_put_by_its_helping_and_a_dish_by_its_servings(self):
        walnuts, stew = self.put("1-snack-20", "walnuts", 2.0), self.put("1-dinner-0", "stew", 1.5)
        self.assertEqual(walnuts.amount, round(self.walnuts.portion.grams * 2, 1))
        self.assertLessEqual(walnuts.low_g, walnuts.amount)
        self.assertGreaterEqual(walnuts.high_g, walnuts.amount)
        self.assertEqual((stew.amount, stew.low_g, stew.high_g), (1.5, None, None))
        self.assertFalse(stew.locked)
        self.assertTrue(self.put("1-dinner-0", "soup", pinned=True).locked)
        self.assertEqual(self.week.entries.filter(day=1, meal="dinner").count(), 1)


class Moves(Changes):
    def test_what_stood_there_takes_its_place(self):
        stew, soup = self.put("0-dinner-0", "stew"), self.put("3-dinner-0", "soup")
        self.assertEqual(move(self.week, stew.pk, 3), (0, 3))
        self.assertEqual(self.standing(), {"3-dinner-0": stew.key, "0-dinner-0": soup.key})

    def test_to_the_same_day_nothing_moves(self):
        stew = self.put("0-dinner-0", "stew")
        self.assertEqual(move(self.week, stew.pk, 0), (0, 0))
        self.assertEqual(self.standing(), {"0-dinner-0": stew.key})

    def test_days_that_are_none_and_dishes_that_are_gone(self):
        stew = self.put("0-dinner-0", "stew")
        for pk, day in ((stew.pk, 7), (stew.pk, -1), (stew.pk + 1000, 1)):
            with self.assertRaises(NotThere):
                move(self.week, pk, day)


class Proposals(Changes):
    def choice(self, what, count=1.0):
        return Choice(candidate=f"recipe-{getattr(self, what).pk}", count=count)

    def test_every_place_is_as_it_says_and_what_is_pinned_stays(self):
        self.put("0-dinner-0", "soup", pinned=True)
        self.put("1-dinner-0", "soup")
        self.put("2-dinner-0", "stew")
        changed = take(
            self.week,
            {
                "0-dinner-0": self.choice("stew"),
                "2-dinner-0": self.choice("stew"),
                "3-dinner-0": self.choice("stew", 1.5),
                "4-dinner-0": Choice(candidate="recipe-999999", count=1.0),
            },
            self.client_row,
        )
        soup, stew = f"recipe-{self.soup.pk}", f"recipe-{self.stew.pk}"
        self.assertEqual(
            self.standing(), {"0-dinner-0": soup, "2-dinner-0": stew, "3-dinner-0": stew}
        )
        # one taken out, one put in; what stood so already did not change
        self.assertEqual(changed, 2)
        self.assertEqual(self.week.entries.get(day=3).amount, 1.5)

    def test_what_stands_beside_the_places_is_nobody_s_to_take_out(self):
        self.put("1-dinner-20", "soup")
        self.assertEqual(take(self.week, {}, self.client_row), 0)
        self.assertEqual(len(self.standing()), 1)


class CopiedOn(Changes):
    def test_a_day_later_in_turn_around_what_is_pinned(self):
        self.put("0-dinner-0", "soup", pinned=True)
        self.put("5-dinner-0", "stew")
        self.put("6-dinner-0", "soup")
        made = copy_on(self.week, 1)
        standing = {row.slot: row.key for row in WeekEntry.objects.filter(week=made)}
        soup, stew = f"recipe-{self.soup.pk}", f"recipe-{self.stew.pk}"
        self.assertEqual(standing, {"0-dinner-0": soup, "6-dinner-0": stew, "1-dinner-0": soup})
        self.assertEqual((made.start - self.week.start).days, 7)
