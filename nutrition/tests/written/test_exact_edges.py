"""On both sides of an edge, and on it: how a volume and pieces are said, what is taken of an
amount, what was weighed as it is bought, when one of something is meant."""

import unittest
from dataclasses import replace

from nutrition.composition.food_names import food_names
from nutrition.composition.food_search import Match
from nutrition.composition.foods import food_table
from nutrition.composition.profile import INDEX
from nutrition.written.as_purchased import weighed_as_bought
from nutrition.written.finding import to_choose
from nutrition.written.grammar import read
from nutrition.written.household import SPOON_FRACTIONS, by_volume, fraction, spoken
from nutrition.written.line import Line
from nutrition.written.matching import reckon_line
from nutrition.written.naming import _matters, name_food
from nutrition.written.pasted_recipe import parted, printable
from nutrition.written.units import milliliters

TABLE, NAMES = food_table(), food_names()
# Cup, tablespoon and teaspoon of the United States. [mL]
CUP, TBSP, TSP = 236.588, 14.7868, 4.92892


def with_value(food, key, value):
    values = food.values.copy()
    values[INDEX[key]] = value
    return replace(food, values=values)


def words(volume_ml):
    said = by_volume(volume_ml, 100.0)
    return said.words.replace("\xa0", " ") if said else None


def piece(slug, grams):
    return spoken(TABLE[slug], grams).words.replace("\xa0", " ")


class Said(unittest.TestCase):
    def test_what_is_too_little_for_a_measure_is_said_in_the_next_smaller(self):
        for ml, said in (
            (0.221 * CUP, "¼ cup"),
            (0.219 * CUP, "3½ tbsp"),
            (0.91 * TBSP, "1 tbsp"),
            (0.89 * TBSP, "2¾ tsp"),
            (0.121 * TSP, "¼ tsp"),
            (0.119 * TSP, "a pinch"),
            (0.0, None),
        ):
            self.assertEqual(words(ml), said, ml)

    def test_on_the_edge_the_larger_measure_is_said(self):
        for unit, share, said in (
            ("cup", 0.22, "¼ cup"),
            ("tbsp", 0.9, "1 tbsp"),
            ("tsp", 0.12, "¼ tsp"),
        ):
            self.assertEqual(words(share * milliliters(unit)), said)

    def test_one_cup_and_more_than_one(self):
        self.assertEqual(words(1.0 * CUP), "1 cup")
        self.assertEqual(words(1.25 * CUP), "1¼ cups")

    def test_nearly_two_spoons_are_two(self):
        self.assertEqual(fraction(1.9, SPOON_FRACTIONS), (2.0, "2"))
        self.assertEqual(fraction(1.85, SPOON_FRACTIONS)[1], "1¾")

    def test_nobody_measures_a_million(self):
        self.assertEqual(fraction(999_999.0)[1], "999999")
        self.assertEqual(fraction(1_000_000.0)[1], "1e+06")
        self.assertIsNone(spoken(TABLE["millet-cooked"], 1_000_000.0))

    def test_fruit_from_twenty_grams_on_is_counted(self):
        """A piece of dried papaya weighs 20 g, one of dried pear 18."""
        self.assertEqual(piece("papaya-dried", 20.0), "1 piece")
        self.assertNotIn("piece", piece("pears-dried", 18.0))

    def test_pieces_from_thirteen_grams_on_are_halved(self):
        """A morel weighs 13 g."""
        self.assertEqual(piece("morel-mushrooms-raw", 6.5), "½ piece")

    def test_one_leaf_and_two_leaves(self):
        leaf = next(row.grams for row in TABLE["sage-fresh"].measures if row.measure == "leaf")
        self.assertEqual(piece("sage-fresh", leaf), "1 leaf")
        self.assertEqual(piece("sage-fresh", 2 * leaf), "2 leaves")


class Read(unittest.TestCase):
    def test_half_a_third_and_a_quarter_of_it(self):
        for share, grams in (("half", 120.0), ("a third", 80.0), ("a quarter", 60.0)):
            self.assertAlmostEqual(reckon_line(f"240 g tofu, use {share}").grams, grams, msg=share)

    def test_more_than_ten_thousand_of_something_is_beyond_any_kitchen(self):
        self.assertNotIn("beyond any kitchen", reckon_line("10000 walnuts").why)
        self.assertIn("beyond any kitchen", reckon_line("10001 walnuts").why)

    def test_a_name_of_one_or_two_words_in_a_log_is_one_of_it(self):
        self.assertEqual(reckon_line("banana", eaten=True).grams, 118.0)
        self.assertEqual(reckon_line("red apple", eaten=True).grams, 182.0)
        for more in ("ripe yellow banana", "bananas", ""):
            self.assertIsNone(reckon_line(more, eaten=True).grams, more)

    def test_of_fewer_than_three_foods_to_choose_from_six_are_shown(self):
        some = [Match(TABLE[slug], 1.0) for slug in ("walnuts", "millet-cooked", "kale-raw")]
        for count, shown in ((3, 3), (2, 6)):
            line = Line(text="beans", phrase="beans", candidates=tuple(some[:count]))
            self.assertEqual(len(to_choose(line)), shown)

    def test_from_where_two_foods_of_a_name_differ_in_what_matters(self):
        """20 kcal and 2.5 g of protein per 100 g, or three tenths of the larger."""
        for key, one, other, matters in (
            ("energy_kcal", 40.0, 60.0, False),
            ("energy_kcal", 40.0, 60.5, True),
            ("energy_kcal", 140.0, 200.0, False),
            ("energy_kcal", 140.0, 201.0, True),
            ("protein_g", 5.0, 7.5, False),
            ("protein_g", 5.0, 7.6, True),
        ):
            foods = [with_value(TABLE["kale-raw"], key, value) for value in (one, other)]
            self.assertEqual(_matters(*foods), matters, (key, one, other))

    def test_what_a_name_costs(self):
        """A word more of the first part of a name costs one, after it a half, one that is missed
        ten; each word of a name a hundredth, another name a tenth, less two hundredths for each
        word that it covers; where it stands itself, a half. A head that is left out costs three
        tenths, a vague name as much, a computed row a tenth, what may be missed two, a variety
        that is dropped one."""
        for name, slug, cost in (
            ("black sesame", "black-sesame-seeds", 0.33),
            ("walnuts", "walnuts", 0.09),
            ("walnuts", "black-walnuts", 1.10),
            ("walnuts", "walnut-butter", 11.10),
            ("kale", "kale-raw", 0.02),
            ("kale", "kale-cooked", 0.62),
            ("kale", "kale-frozen-cooked", 1.63),
            ("tofu", "tofu-firm", 0.45),
            ("tofu", "tofu-extra-firm", 0.96),
            ("milk", "soy-milk-unsweetened", 0.41),
            ("milk", "hazelnut-milk", 1.52),
            ("white beans", "white-beans-canned-drained", 1.34),
            ("red onion", "onion-red-raw", 0.09),
            ("vegan cheese", "vegan-cheese-slices", 0.53),
            ("peppermint", "mint-peppermint-fresh", 0.21),
            ("baby kale", "kale-raw", 0.08),
            ("mung", "split-mung-beans-cooked", 2.04),
            ("adzuki", "adzuki-beans-canned-drained", 1.42),
            ("sesame paste", "tahini", 0.07),
            ("sesame paste", "sesame-paste", 0.52),
            ("curly kale", "kale-raw", 0.22),
            ("yukon gold potatoes", "potato-with-skin-raw", 0.14),
            ("vidalia onion", "onion-raw", 0.12),
            ("brown lentils", "lentils-dry", 0.08),
            ("brown lentils", "black-lentils-dry", 1.09),
        ):
            scores = {one.food.slug: one.score for one in name_food(name, NAMES).candidates}
            self.assertAlmostEqual(1.0 / scores[slug] - 1.0, cost, places=6, msg=(name, slug))

    def test_a_head_that_says_nothing_may_be_left_out(self):
        for name, slug in (
            ("black sesame", "black-sesame-seeds"),
            ("ajwain", "ajwain-seeds"),
            ("crimini", "crimini-mushrooms-raw"),
            ("dragon", "dragon-fruit-raw"),
            ("brussels, cooked", "brussels-sprouts-cooked"),
        ):
            found = reckon_line(f"100 g {name}")
            self.assertEqual((found.food.slug, found.sure), (slug, True))

    def test_what_is_as_likely_meant_is_named(self):
        """Within three quarters of what the name costs, and where it differs in what matters."""
        for name, other, told in (
            ("aminos", "liquid aminos", True),
            ("beans frozen", "lima beans, frozen", True),
            ("peppers jarred drained", "chipotle peppers in adobo", False),
        ):
            notes = " ".join(name_food(name, NAMES).notes)
            self.assertEqual(f"it may be {other}" in notes, told, name)

    def test_six_foods_are_told_that_a_name_may_mean(self):
        for name in ("beans", "mushrooms", "oil"):
            self.assertEqual(len(name_food(name, NAMES).candidates), 6, name)

    def test_control_characters_are_no_text(self):
        self.assertEqual(printable("a\x07b c\n\td\x1f"), "ab c\n\td")
        self.assertEqual(reckon_line("100 g\x07 millet, \x1fcooked").food.slug, "millet-cooked")

    def test_a_text_of_one_row_is_one_line(self):
        self.assertEqual(parted("millet").lines, ("millet",))


class AsBought(unittest.TestCase):
    def bought(self, line, share, grams=400.0):
        """Whether a weight of an avocado is of the whole fruit, if so much of it is eaten."""
        food = TABLE["avocado-raw"]
        own = food.share("edible")
        shares = tuple(
            replace(one, share=share, low=share, high=share) if one == own else one
            for one in food.shares
        )
        return weighed_as_bought(read(line), replace(food, shares=shares), grams)

    def test_one_that_is_weighed(self):
        """Of which less than three fifths are eaten, nobody weighs what is left of one; of which
        less than three quarters are, one that is heavy is a whole one."""
        for share, grams, whole in (
            (0.59, 100.0, True),
            (0.60, 100.0, False),
            (0.74, 400.0, True),
            (0.75, 400.0, False),
        ):
            self.assertEqual(self.bought(f"1 avocado ({grams:g} g)", share, grams), whole, share)

    def test_what_peeled_and_trimmed_say_of_a_weight(self):
        for line, edge in (
            ("400 g avocado, peeled", 0.75),
            ("400 g avocado, trimmed", 0.50),
        ):
            self.assertTrue(self.bought(line, edge - 0.01), line)
            self.assertFalse(self.bought(line, edge), line)


if __name__ == "__main__":
    unittest.main()
