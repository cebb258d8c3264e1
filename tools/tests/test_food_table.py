"""The table itself: enough of it, consistent, sourced, free of brands."""

import csv
import re
from unittest import TestCase

import numpy as np

from nutrition.composition.allergens import ALLERGENS
from nutrition.composition.food_search import food_index
from nutrition.composition.foods import ROLES, UnknownFood, food_table
from nutrition.composition.nutrients import AMINO_ACIDS, KEYS
from nutrition.composition.profile import INDEX
from nutrition.composition.tables import DATA, word_list
from tools.table_check import atwater_kcal, faults

PLAIN_GROUPS = {"vegetable", "leafy green", "starchy vegetable", "legume"}
TAGS = {"oil", "added salt", "added sugar", "refined", "animal", "fortified"}


def values(food):
    return {key: food.per_100_g(key) for key in KEYS if food.per_100_g(key) is not None}


class Table(TestCase):
    def test_size(self):
        self.assertGreaterEqual(sum(not food.comparator for food in food_table()), 900)
        self.assertGreaterEqual(len({food.group for food in food_table()}), 30)

    def test_amino_acids_phytate_and_oxalate_for_at_least_120(self):
        for key in (*AMINO_ACIDS, "phytate_mg", "oxalate_mg"):
            with self.subTest(key):
                self.assertGreaterEqual(
                    sum(food.per_100_g(key) is not None for food in food_table()), 120
                )

    def test_borrowed_values_name_their_donor(self):
        for food in food_table():
            own = food.source.startswith(("Indian", "computed"))
            if food.per_100_g("lysine_g") and not own:
                donor = r"(.* from .+ \(Indian Food|.*from memory of SR| of .+ as a class)"
                self.assertRegex(food.notes, f"amino acids per g protein{donor}", food.slug)

    def test_household_portions_for_at_least_400(self):
        named = {
            food.slug
            for food in food_table()
            for portion in food.measures
            if not portion.source.startswith("by kind")
        }
        self.assertGreaterEqual(len(named), 400)
        for food in food_table():
            for portion in food.measures:
                with self.subTest(f"{food.slug} {portion.measure}"):
                    self.assertLess(portion.low, portion.grams)
                    self.assertGreater(portion.high, portion.grams)
                    self.assertTrue(portion.source)

    def test_portions_are_plausible_against_density(self):
        """Nothing in a kitchen is lighter than puffed grain or heavier than honey; a tablespoon is
        a 16th of a cup."""
        for food in food_table():
            if food.cup is None:
                continue
            with self.subTest(food.slug):
                self.assertTrue(5 <= food.cup.grams <= 360, f"a cup weighs {food.cup.grams} g")
                for measure, parts in (("tbsp", 16), ("tsp", 48)):
                    for portion in food.measures:
                        if (
                            portion.measure == measure
                            and not portion.form
                            and not food.cup.source.startswith("by kind")
                        ):
                            self.assertTrue(
                                0.5 <= portion.grams * parts / food.cup.grams <= 1.7,
                                f"{measure} {portion.grams}",
                            )

    def test_every_row_is_whole(self):
        for food in food_table():
            with self.subTest(food.slug):
                self.assertRegex(food.slug, r"^[a-z0-9]+(-[a-z0-9]+)*$")
                self.assertTrue(
                    food.name
                    and food.group
                    and food.state
                    and food.source
                    and food.source_description
                )
                self.assertIn(food.role, (*ROLES, "other"))
                self.assertLessEqual(set(food.allergens), set(ALLERGENS))
                self.assertLessEqual(set(food.tags), TAGS)
                known = ~np.isnan(food.values)
                self.assertTrue((food.values[known] >= 0).all())
                self.assertTrue(
                    (food.low[known] <= food.values[known]).all()
                    and (food.values[known] <= food.high[known]).all()
                )

    def test_no_makers_names(self):
        """The sources print makers' names in capitals."""
        for food in food_table():
            self.assertIsNone(
                re.search(r"\b[A-Z]{4,}\b", food.name + food.source_description), food.slug
            )

    def test_animal_foods_are_comparators_only(self):
        for food in food_table():
            self.assertEqual("animal" in food.tags, food.comparator, food.slug)
        names = " ".join(food.name.lower() for food in food_table() if food.comparator)
        for word in ("egg", "beef", "chicken", "cheddar", "dairy milk", "whey"):
            self.assertIn(word, names)

    def test_consistency_with_listed_exceptions(self):
        with (DATA / "exceptions.csv").open(newline="", encoding="utf-8") as file:
            listed = {(row["slug"], row["check"]): row["reason"] for row in csv.DictReader(file)}
        self.assertTrue(all(listed.values()))
        found = {
            (food.slug, check) for food in food_table() for check, _seen in faults(values(food))
        }
        self.assertEqual(found - set(listed), set(), "rows that fail and are not listed")
        self.assertEqual(set(listed) - found, set(), "rows that are listed and do not fail")

    def test_the_check_catches_what_it_should(self):
        good = {
            "energy_kcal": 400,
            "protein_g": 10,
            "fat_g": 10,
            "carbohydrate_g": 67,
            "fiber_g": 0,
            "water_g": 12,
            "saturated_fat_g": 2,
            "sugars_g": 5,
        }
        self.assertEqual(list(faults(good)), [])
        self.assertAlmostEqual(atwater_kcal(good), 398)
        for change, check in (
            ({"energy_kcal": 300}, "energy"),
            ({"water_g": 40}, "mass"),
            ({"saturated_fat_g": 11}, "saturated"),
            ({"sugars_g": 80}, "carbohydrate"),
        ):
            self.assertEqual([name for name, _seen in faults(good | change)], [check])

    def test_every_alias_leads_to_a_food(self):
        index = food_index()
        for alias, means in index.aliases.items():
            with self.subTest(" ".join(alias)):
                self.assertTrue(index.search(" ".join(means), 1))

    def test_unknown_slug(self):
        with self.assertRaises(UnknownFood):
            food_table()["no-such-food"]


class Staples(TestCase):
    """The foods that a whole-food kitchen uses most, named in data/staples.txt."""

    def setUp(self):
        self.foods = [food_table()[slug] for slug in word_list("staples.txt")]

    def share_known(self, key):
        return sum(food.per_100_g(key) is not None for food in self.foods) / len(self.foods)

    def test_what_is_asked_of_every_food_is_known(self):
        self.assertGreaterEqual(len(self.foods), 400)
        for key in (
            *("energy_kcal", "protein_g", "fat_g", "carbohydrate_g", "fiber_g", "sodium_mg"),
            *("potassium_mg", "phosphorus_mg", "calcium_mg", "iron_mg", "magnesium_mg", "zinc_mg"),
        ):
            self.assertEqual(self.share_known(key), 1.0, key)
        for key in AMINO_ACIDS:
            self.assertGreaterEqual(self.share_known(key), 0.95, key)
        for key in ("vitamin_k_ug", "folate_ug", "selenium_ug", "choline_mg"):
            self.assertGreaterEqual(self.share_known(key), 0.9, key)

    def test_each_has_a_weight_of_its_own(self):
        for food in self.foods:
            own = [row for row in food.measures if not row.source.startswith("by kind")]
            self.assertTrue(own, food.slug)

    def test_what_is_filled_by_class_or_kind_says_so_and_has_a_range(self):
        filled = 0
        for food in food_table():
            at = INDEX["lysine_g"]
            if "as a class" in food.notes:
                filled += 1
                self.assertLess(food.low[at], food.values[at])
                self.assertGreater(food.high[at], food.values[at])
        self.assertGreater(filled, 300)


class CookedWithoutFat(TestCase):
    def test_no_plain_cooked_food_brings_fat_its_raw_form_does_not_have(self):
        """The survey cooks some vegetables and beans in fat without saying so in their name."""
        checked = 0
        for food in food_table():
            if food.state != "cooked" or "oil" in food.tags or food.group not in PLAIN_GROUPS:
                continue
            base = food.slug.removesuffix("-cooked")
            raw = next(
                (
                    food_table()[f"{base}-{state}"]
                    for state in ("raw", "dry")
                    if f"{base}-{state}" in food_table()
                ),
                None,
            )
            if raw is None or not raw.per_100_g("protein_g") or food.per_100_g("fat_g") is None:
                continue
            own = (
                (raw.per_100_g("fat_g") or 0.0)
                * (food.per_100_g("protein_g") or 0.0)
                / raw.per_100_g("protein_g")
            )
            checked += 1
            with self.subTest(food.slug):
                self.assertLess(food.per_100_g("fat_g"), own + 1.2)
        self.assertGreater(checked, 60)
