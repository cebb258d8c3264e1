"""Ingredient lists: what is in them, in which order, and what is not said."""

import tomllib
from pathlib import Path
from unittest import TestCase

from nutrition.composition.food_names import food_names
from nutrition.labels.ingredients import read_ingredients

LISTS = tomllib.loads((Path(__file__).parent / "lists.toml").read_text(encoding="utf-8"))["lists"]


def listed(text):
    return read_ingredients(text, food_names())


class Lists(TestCase):
    def test_what_is_in_them(self):
        for case in LISTS:
            with self.subTest(case["text"][:60]):
                found = listed(case["text"])
                for kind, names in case["has"].items():
                    self.assertEqual(list(found.classes.get(kind, ())), names, kind)
                for kind in case["not"]:
                    self.assertNotIn(kind, found.classes)
                self.assertEqual(set(found.fortified), set(case["fortified"]))
                self.assertEqual(set(found.allergens), set(case["allergens"]))
                self.assertEqual(set(found.may_contain), set(case["may"]))
                self.assertEqual(set(found.animals), set(case.get("animals", ())))

    def test_order_is_by_weight_and_shares_are_read(self):
        found = listed("Lentils 22,5 %, water, sauce (tomatoes (40%), sugar), salt")
        self.assertEqual([item.name for item in found.items], ["Lentils", "water", "sauce", "salt"])
        self.assertEqual(found.items[0].percent, 22.5)
        self.assertEqual(found.items[2].inside[0].percent, 40.0)
        self.assertEqual((found.place_of("sugar"), found.place_of("salt")), (3, 4))
        with self.assertRaises(KeyError):
            found.place_of("oil")

    def test_what_is_said_not_to_be_in_it_is_not(self):
        for said in ("Free from milk and eggs.", "Contains no dairy.", "Does not contain soy."):
            with self.subTest(said):
                self.assertEqual(set(listed(f"Rice, water, salt. {said}").allergens), set())
        self.assertEqual(set(listed("Oats, milk. Free from eggs.").allergens), {"gluten", "milk"})

    def test_no_list_is_not_an_empty_one(self):
        self.assertFalse(listed("").given)
        self.assertTrue(listed("Water").given)

    def test_what_is_not_known_is_said(self):
        self.assertEqual(listed("Water, zorblax gum base, blorbium").unread, ("blorbium",))

    def test_a_bracket_left_open_and_signs_alone(self):
        found = listed("Oats (whole, sugar, , ;; salt")
        self.assertEqual(found.classes["added sugar"], ("sugar",))
        self.assertFalse(listed(" ,;. ()").given)
