"""Plates brought to one basis, what accounts for their differences, the ladder."""

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from nutrition.composition.foods import food_table
from nutrition.composition.portion import Dish, food_portion
from nutrition.insight.comparison import (
    CALORIES,
    HUNDRED,
    PROTEIN,
    SERVING,
    NotComparable,
    at_basis,
    differences,
    heap_words,
)
from nutrition.insight.density_ladder import ladder, steps

FOODS = food_table()


def plate(key, **grams):
    portions = [
        food_portion(FOODS[slug.replace("_", "-")], weight) for slug, weight in grams.items()
    ]
    return Dish.of(key, key, portions, "bowl")


NUTS = plate("nuts", walnuts=30)
SALAD = plate("salad", kale_raw=80, white_beans_cooked=120, walnuts=5)
RICE = plate("rice", brown_rice_cooked=150, tamari=15, tofu_firm=100)


class Basis(TestCase):
    def test_all_are_brought_to_the_one_with_most(self):
        for basis, key in ((CALORIES, "energy_kcal"), (PROTEIN, "protein_g")):
            found = at_basis([NUTS, SALAD, RICE], basis)
            most = max(one.profile[key].amount for one in (NUTS, SALAD, RICE))
            for one in found:
                self.assertAlmostEqual(one.profile[key].amount, most)
                self.assertAlmostEqual(sum(line.profile[key].amount for line in one.portions), most)
        self.assertEqual(
            [one.profile.grams for one in at_basis([NUTS, SALAD], HUNDRED)], [100.0, 100.0]
        )
        self.assertEqual(at_basis([NUTS, SALAD], SERVING), [NUTS, SALAD])

    def test_a_handful_against_a_mixing_bowl(self):
        greens = plate("greens", kale_raw=80, white_beans_cooked=20, cucumber_with_peel_raw=200)
        nuts, greens = at_basis([plate("nuts", walnuts=50), greens], CALORIES)
        self.assertEqual(heap_words(nuts.volume_ml), "a handful")
        self.assertEqual(heap_words(greens.volume_ml), "a mixing bowl")
        self.assertEqual(
            [heap_words(ml) for ml in (5, 100, 9999)],
            ["a spoonful", "a handful", "more than a mixing bowl"],
        )

    def test_what_cannot_be_brought_to_the_others_says_so(self):
        with self.assertRaisesRegex(NotComparable, "no calories"):
            at_basis([NUTS, plate("water", water=200)], CALORIES)
        with self.assertRaises(KeyError):
            at_basis([NUTS], "volume")

    @settings(max_examples=30, deadline=None)
    @given(st.floats(0.1, 10), st.sampled_from([HUNDRED, CALORIES, PROTEIN]))
    def test_how_much_was_served_does_not_matter_at_equal_anything(self, factor, basis):
        one, other = (
            at_basis([SALAD.times(factor), RICE], basis),
            at_basis([SALAD, RICE.times(factor)], basis),
        )
        for a, b in zip(one, other, strict=True):
            density = (
                a.profile["sodium_mg"].amount / a.volume_ml,
                b.profile["sodium_mg"].amount / b.volume_ml,
            )
            self.assertAlmostEqual(*density)
        ratio = (
            one[0].profile.grams / one[1].profile.grams,
            other[0].profile.grams / other[1].profile.grams,
        )
        self.assertAlmostEqual(*ratio)


class Differences(TestCase):
    def test_what_matters_comes_first_and_lines_account_for_it(self):
        rows = differences(
            [SALAD, RICE], {"sodium_mg": 1500.0, "fiber_g": 30.0}, ["fiber_g", "sodium_mg"]
        )
        self.assertEqual({row.key for row in rows[:2]}, {"fiber_g", "sodium_mg"})
        self.assertEqual(
            rows[0].key, "sodium_mg", "nearly 1000 of 1500 mg weighs more than a few of 30 g"
        )
        (against,) = rows[0].against
        self.assertAlmostEqual(
            against.by, RICE.profile["sodium_mg"].amount - SALAD.profile["sodium_mg"].amount
        )
        self.assertEqual(against.lines[0].name, "Tamari")
        self.assertTrue(against.sure)
        rest = [row.weight for row in rows[2:]]
        self.assertEqual(rest, sorted(rest, reverse=True))

    def test_a_line_in_both_counts_by_its_difference(self):
        more = plate("more", walnuts=40, kale_raw=80)
        less = plate("less", walnuts=10, kale_raw=80)
        row = next(row for row in differences([less, more], {}, ["fat_g"]) if row.key == "fat_g")
        self.assertEqual([line.name for line in row.against[0].lines], ["Walnuts"])
        self.assertAlmostEqual(
            row.against[0].lines[0].by, FOODS["walnuts"].per_100_g("fat_g") * 0.3
        )

    def test_the_same_plate_differs_in_nothing_for_sure(self):
        for row in differences([RICE, RICE], {}):
            self.assertEqual(row.against[0].by, 0)
            self.assertFalse(row.against[0].sure)


class Ladder(TestCase):
    def test_densest_on_top_and_the_same_calories_on_every_rung(self):
        rungs = ladder([SALAD, NUTS, RICE, plate("water", water=100)], 300)
        self.assertEqual([rung.plate.key for rung in rungs], ["nuts", "salad", "rice"])
        for rung in rungs:
            self.assertAlmostEqual(rung.grams * rung.density, 300)
            self.assertAlmostEqual(rung.per_pound, rung.density * 453.59237, places=3)
        first = steps(rungs)[0]
        self.assertAlmostEqual(first.times, first.below.grams / first.above.grams)
        self.assertEqual(rungs[0].band, "high")
        with self.assertRaises(ValueError):
            ladder([NUTS], 0)
