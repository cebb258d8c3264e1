"""Pieces, pots that were weighed, what is near its end, and what was thrown away."""

import unittest
from datetime import date

from nutrition.composition.foods import food_table
from nutrition.prep.pot_weighed import came_out, divided, learned
from nutrition.prep.small_pieces import pieces_of
from nutrition.prep.steps.dry_beans import beans_first
from nutrition.prep.steps.putting_away import put_away
from nutrition.prep.use_first import InTheHouse, use_first, usual_place, waste_by_month
from nutrition.tests.prep.steps.dish import by_text, comes_before, lines_of, work_of

TODAY = date(2026, 12, 5)


class SmallPieces(unittest.TestCase):
    def test_five_of_twenty_seven_grams(self):
        right = pieces_of(135, 5, 27)
        self.assertEqual((right.each_g, right.count, right.left_g), (27, 5, 0))
        self.assertEqual(right.words, "As the recipe says.")
        for mix, words in (
            (148.5, "As the recipe says."),
            (149.0, "Wring out 14 g"),
            (121.5, "As the recipe says."),
            (121.0, "Add water by the spoon, up to 14 g"),
        ):
            self.assertIn(words, pieces_of(mix, 5, 27).words, mix)
        wet = pieces_of(200, 5, 27)
        self.assertEqual((wet.count, round(wet.left_g)), (7, 11))
        self.assertIn("it makes 7 of 27 g", wet.words)
        self.assertEqual(pieces_of(135, 5).words, "")

    def test_one_piece_is_a_piece(self):
        self.assertEqual(pieces_of(27, 1, 27).count, 1)

    def test_nothing_is_no_mix(self):
        for mix, wanted, said in ((0, 5, 27), (135, 0, 27), (135, 5, 0), (-1, 1, None)):
            with self.assertRaises(ValueError):
                pieces_of(mix, wanted, said)


class Weighed(unittest.TestCase):
    def test_more_or_less_than_reckoned(self):
        for grams, as_reckoned, words in (
            (1800, True, "1,800 g, as reckoned."),
            (1890, True, "as reckoned"),
            (1892, False, "5% more than reckoned: 0.3 servings over"),
            (1710, True, "as reckoned"),
            (1500, False, "17% less than reckoned: 1.0 servings are missing"),
        ):
            found = came_out(grams, 300, 6)
            self.assertEqual(found.as_reckoned, as_reckoned, grams)
            self.assertIn(words, found.words)
        with self.assertRaises(ValueError):
            came_out(0, 300, 6)

    def test_divided_in_steps_of_five_grams(self):
        self.assertEqual(divided(1860, 6), 310)
        self.assertEqual(divided(1889, 6), 310)
        self.assertEqual(divided(1890, 6), 315)
        self.assertEqual(divided(3, 1), 3)
        with self.assertRaises(ValueError):
            divided(100, 0)

    def test_what_was_learned_is_the_median(self):
        self.assertIsNone(learned([]))
        self.assertEqual(learned([900, 1400, 1000]), 1000)
        self.assertEqual(learned([900, 1000]), 950)


class House(unittest.TestCase):
    def there(self, **more):
        return InTheHouse(
            key="x", name="Kale", grams=200, place=more.pop("place", "refrigerator"), **more
        )

    def test_what_ends_within_two_days_is_used_first(self):
        for use_by, days, words in (
            (date(2026, 12, 7), 2, "2 days left"),
            (date(2026, 12, 6), 1, "1 day left"),
            (date(2026, 12, 5), 0, "ends today"),
            (date(2026, 12, 4), -1, "over for 1 day: thrown away when in doubt"),
        ):
            (found,) = use_first([self.there(use_by=use_by)], TODAY)
            self.assertEqual((found.days, found.words, found.over), (days, words, days < 0))
        self.assertEqual(use_first([self.there(use_by=date(2026, 12, 8)), self.there()], TODAY), [])

    def test_what_was_opened_ends_sooner(self):
        for place, days in (("refrigerator", 5), ("shelf", 30), ("freezer", 60)):
            one = self.there(place=place, opened=TODAY, use_by=date(2027, 12, 1))
            self.assertEqual((one.ends - TODAY).days, days, place)
        self.assertEqual(self.there(opened=TODAY, use_by=date(2026, 12, 6)).ends, date(2026, 12, 6))

    def test_where_a_food_usually_stands(self):
        for slug, place in (
            ("green-peas-frozen", "freezer"),
            ("kale-raw", "refrigerator"),
            ("tofu-firm", "refrigerator"),
            ("lentils-dry", "shelf"),
            ("potato-no-skin-raw", "shelf"),
            ("white-beans-canned-drained", "shelf"),
            ("lentils-cooked", "refrigerator"),
            ("walnuts", "shelf"),
        ):
            self.assertEqual(usual_place(food_table()[slug]), place, slug)

    def test_waste_by_month(self):
        rows = [
            (date(2026, 11, 3), 200, 1.5),
            (date(2026, 11, 30), 100, None),
            (date(2026, 12, 1), 50, 0.25),
        ]
        first, second = waste_by_month(rows)
        self.assertEqual((first.month, first.cost, first.grams), (date(2026, 12, 1), 0.25, 50))
        self.assertEqual((second.cost, second.grams, second.without_cost), (1.5, 300, 1))
        self.assertEqual(waste_by_month([]), [])


class MoreWork(unittest.TestCase):
    def test_beans_that_are_bought_dry_are_soaked_and_cooked_first(self):
        lines = ["2 cups cooked white beans", "1 leek, sliced"]
        work = beans_first(work_of(lines, ["Sweat the leek.", "Add the beans."]), lines_of(*lines))
        soak, boil = by_text(work, "Soak"), by_text(work, "Boil")
        self.assertTrue(soak.overnight)
        self.assertEqual((boil.alone.least, boil.alone.usual, boil.alone.most), (60, 75, 90))
        self.assertTrue(comes_before(work, "Soak", "Add the beans"))
        kidney = ["2 cups cooked kidney beans"]
        hard = beans_first(work_of(kidney, ["Mash the beans."]), lines_of(*kidney))
        self.assertEqual(by_text(hard, "Boil").alone.least, 90)
        self.assertIn("30 minutes hard first", by_text(hard, "Boil").text)
        for line in ("1 can white beans, drained", "1 cup white beans, dry", "1 leek"):
            plain = work_of([line], ["Add it."])
            self.assertEqual(beans_first(plain, lines_of(line)), plain, line)

    def test_what_is_put_away_is_divided(self):
        work = work_of(["1 leek"], ["Simmer the leek 20 minutes."])
        away = by_text(put_away(work, 6), "Weigh it")
        self.assertEqual((away.hands.least, away.hands.usual, away.hands.most), (2.75, 5.5, 11))
        self.assertEqual(away.text, "Weigh it, divide it into 6 containers, lids ajar until cold")
        self.assertEqual(put_away(work, 0), work)
        cold = put_away(work_of(["1 bulb fennel"], ["Toss the fennel."]), 1)
        self.assertEqual(by_text(cold, "Weigh").text, "Weigh it, divide it into 1 container")
