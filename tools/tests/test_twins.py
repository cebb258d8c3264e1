"""One food in several states: what dry matter holds must agree, or be listed with its reason."""

from unittest import TestCase

from nutrition.composition.cooking import cook
from nutrition.composition.foods import food_table
from tools.twins import dry_matter, listed, misses, said, twins

# Of pairs so many hold; and staples of the kitchen all do.
HELD = 0.7
STAPLES = (
    *("chickpeas", "lentils", "black-beans", "white-beans", "pinto-beans", "navy-beans"),
    *("white-rice", "brown-rice", "quinoa", "bulgur", "millet"),
)


class Twins(TestCase):
    def test_pairs_agree_or_are_listed(self):
        known, found, count = listed(), {}, 0
        for first, second, kind in twins():
            count += 1
            out = misses(first, second, kind)
            if out:
                found[first.slug, second.slug] = said(out)
        self.assertGreater(count, 200)
        self.assertGreaterEqual(1 - len(found) / count, HELD)
        self.assertEqual({pair: row["misses"] for pair, row in known.items()}, found)
        self.assertTrue(all(row["reason"] for row in known.values()))

    def test_staples_agree_with_what_our_own_yields_make_of_the_dry(self):
        """Energy and protein per gram cooked: the row, and the dry row through the pot."""
        table = food_table()
        for name in STAPLES:
            dry, cooked = table[f"{name}-dry"], table[f"{name}-cooked"]
            done = cook(dry, 100, 100, 100, "boiled_drained")
            for key in ("energy_kcal", "protein_g"):
                with self.subTest(name, key=key):
                    made = done.profile[key].amount / done.grams * 100
                    self.assertLess(abs(made / cooked.per_100_g(key) - 1), 0.2)

    def test_the_check_catches_what_it_should(self):
        table = food_table()
        self.assertIn("energy_kcal", misses(table["walnuts"], table["kale-raw"], "cooked"))
        self.assertIsNone(dry_matter(table["seitan"]))
        self.assertEqual(misses(table["seitan"], table["kale-raw"], "cooked"), {})
