"""21 CFR 101.54 to 101.65, in their own words as remembered: claims that hold, that do not, and
that cannot be told from a label."""

from unittest import TestCase

from nutrition.composition.food_names import food_names
from nutrition.labels.claims import FAILS, HOLDS, OPEN, claim_rules, held
from nutrition.labels.ingredients import read_ingredients
from nutrition.labels.label import Label, read_label

PRINTED = {
    "energy_kcal": "100",
    "fat_g": "3",
    "saturated_fat_g": "0.5",
    "sodium_mg": "140",
    "carbohydrate_g": "15",
    "fiber_g": "3",
    "sugars_g": "2",
    "added_sugars_g": "0",
    "protein_g": "5",
}


def verdict(claim, ingredients="Whole oats, sea salt", serving="55 g", **printed):
    label = Label(
        name="x",
        serving_size=serving,
        printed=PRINTED | printed,
        ingredients=ingredients,
        sure=True,
    )
    listed = read_ingredients(ingredients, food_names())
    return {row.taken_as: row.holds for row in held(claim, read_label(label), listed)}


class Claims(TestCase):
    def test_against_their_definitions(self):
        for claim, name, printed, expected in (
            # 101.61(b)(4): 140 mg or less
            ("Low sodium", "low sodium", {"sodium_mg": "140"}, HOLDS),
            ("Low sodium", "low sodium", {"sodium_mg": "150"}, FAILS),
            # 101.61(b)(2): 35 mg or less
            ("Very low sodium", "very low sodium", {"sodium_mg": "35"}, HOLDS),
            # 101.61(b)(1): less than 5 mg, and no salt in the list
            ("Sodium free", "sodium free", {"sodium_mg": "0"}, FAILS),
            # 101.60(b)(2): 40 kcal or less
            ("Low calorie", "low calorie", {"energy_kcal": "40"}, HOLDS),
            ("Low calorie", "low calorie", {"energy_kcal": "60"}, FAILS),
            # 101.62(b)(2): 3 g or less
            ("Low fat", "low fat", {"fat_g": "3"}, HOLDS),
            ("Low-fat", "low fat", {"fat_g": "4"}, FAILS),
            # 101.62(c)(2): 1 g or less and 15 % of the calories
            ("Low saturated fat", "low saturated fat", {"saturated_fat_g": "1"}, HOLDS),
            ("Low saturated fat", "low saturated fat", {"saturated_fat_g": "2"}, FAILS),
            # 101.54(b), (c): 20 % and 10 % of the daily value
            ("Good source of fiber", "good source", {"fiber_g": "3"}, HOLDS),
            ("Good source of fiber", "good source", {"fiber_g": "2"}, FAILS),
            ("High fiber", "high", {"fiber_g": "6"}, HOLDS),
            ("Excellent source of calcium", "high", {"calcium_mg": "260"}, HOLDS),
            ("Rich in iron", "high", {"iron_mg": "2"}, FAILS),
            # 101.54(b): protein counts by its quality, which the label need not print
            ("High protein", "high", {"protein_g": "12"}, OPEN),
            # 101.56, 101.60(b)(4), 101.54(e): against a food that the label must name
            ("Light", "light", {}, OPEN),
            ("Reduced calorie", "reduced calorie", {}, OPEN),
            ("More protein", "more", {}, OPEN),
            # 101.60(c): no definition of “low sugar”
            ("Low sugar", "low sugar", {"sugars_g": "1"}, FAILS),
            # 101.65(d): added sugars, sodium and saturated fat
            ("Healthy", "healthy", {"sodium_mg": "400"}, FAILS),
        ):
            with self.subTest(claim, **printed):
                self.assertEqual(verdict(claim, **printed).get(name), expected)

    def test_a_small_serving_is_held_to_50_g_too(self):
        # 101.61(b)(4)(i)(B): 30 g or less
        self.assertEqual(
            verdict("Low sodium", serving="30 g", sodium_mg="100")["low sodium"], FAILS
        )
        self.assertEqual(
            verdict("Low sodium", serving="31 g", sodium_mg="100")["low sodium"], HOLDS
        )

    def test_against_the_ingredient_list(self):
        for claim, name, listed, expected in (
            ("No added sugar", "no added sugar", "Oats, date syrup", FAILS),
            ("No added sugar", "no added sugar", "Oats, apple juice concentrate", FAILS),
            ("No added sugar", "no added sugar", "Oats, raisins", HOLDS),
            ("No salt added", "no salt added", "Oats, tamari", FAILS),
            ("Oil free", "oil free", "Oats, shea butter", FAILS),
            ("Oil-free", "oil free", "Oats, water", HOLDS),
            ("Vegan", "vegan", "Oats, whey", FAILS),
            ("Vegan", "vegan", "Oats, vitamin D3", OPEN),
            ("Gluten-free", "gluten free", "Oats, barley malt", FAILS),
            ("Gluten-free", "gluten free", "Oats, salt", OPEN),
            ("Gluten-free", "gluten free", "Rice, salt", HOLDS),
            ("Whole grain", "whole grain", "Whole wheat flour, wheat flour, white flour", FAILS),
            ("Sugar free", "sugar free", "", OPEN),
        ):
            with self.subTest(claim, listed=listed):
                printed = {"sugars_g": "0"} if name == "sugar free" else {}
                self.assertEqual(verdict(claim, listed, **printed).get(name), expected)

    def test_words_without_a_definition_promise_nothing(self):
        self.assertEqual(verdict("Clean, ancient wisdom"), {"": OPEN})

    def test_no_added_is_not_more(self):
        self.assertNotIn("more", verdict("No added sugar"))
        self.assertNotIn("fat free", verdict("98% fat free"))

    def test_every_rule_names_its_section_or_says_that_it_has_none(self):
        for name, row in claim_rules().items():
            with self.subTest(name):
                self.assertRegex(row["source"], r"21 CFR 101\.|not defined")
