"""Labels as they are copied: what is read, what is refused and what is asked."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from nutrition.composition.food_names import food_names
from nutrition.composition.foods import food_table
from nutrition.labels.comparison import beside
from nutrition.labels.food_data import from_plain, to_plain
from nutrition.labels.label import BadLabel, Label, read_label
from nutrition.labels.like_kind import fits
from nutrition.labels.own_food import own_food
from nutrition.labels.printed_value import Unreadable, read_printed
from nutrition.labels.rounding import hidden_by_percent, label_values
from nutrition.labels.servings import eaten
from nutrition.written.typed_amounts import UnreadableAmount

SPREAD = {
    "energy_kcal": "190",
    "fat_g": "16 g",
    "saturated_fat_g": "3.5",
    "sodium_mg": "125mg",
    "carbohydrate_g": "8",
    "fiber_g": "2 g",
    "sugars_g": "3",
    "added_sugars_g": "2",
    "protein_g": "7",
}


def label(**more):
    fields = {
        "name": "Peanut spread, no stir",
        "serving": "2 tbsp",
        "serving_size": "32 g",
        "servings": "about 14",
        "printed": SPREAD,
        "ingredients": "Roasted peanuts, cane sugar, palm oil, salt",
        "like": "peanut-butter-smooth-salted",
    }
    return Label(**(fields | more))


def food(**more):
    return own_food("own-1", label(**more), food_table(), food_names())


class Printed(TestCase):
    def test_as_it_is_printed(self):
        for key, text, kind, amount, low, high in (
            ("protein_g", "8 g", "us", 8, 7.5, 8.5),
            ("protein_g", "<1 g", "us", 0.75, 0.5, 1.0),
            ("fat_g", "5", "us", 5, 4.75, 5.5),
            ("fat_g", "2.3", "us", 2.3, 2.25, 2.35),
            ("iron_mg", "20 %", "us", 3.6, 3.15, 4.05),
            ("vitamin_d_ug", "100 IU", "us", 2.5, 2.45, 2.55),
            ("potassium_mg", "0", "us", 0, 0, 94),
            ("sodium_mg", "0,75", "europe", 300, 298, 302),
            ("fat_g", "10,1", "europe", 10.1, 10.05, 10.15),
            ("fat_g", "12", "europe", 12, 11.5, 12.5),
            ("energy_kcal", "1046 kJ", "europe", 250, 249.5, 250.5),
        ):
            with self.subTest(key, text=text, kind=kind):
                found = read_printed(key, text, kind)
                self.assertAlmostEqual(found.amount, amount, places=2)
                self.assertAlmostEqual(found.low, low, delta=0.4 if key == "energy_kcal" else 0.01)
                self.assertAlmostEqual(
                    found.high, high, delta=0.4 if key == "energy_kcal" else 0.01
                )

    def test_what_is_no_value(self):
        for key, text, kind in (
            ("protein_g", "eight", "us"),
            ("protein_g", "-1", "us"),
            ("protein_g", "8 kcal", "us"),
            ("fat_g", "20 %", "europe"),
            ("sugars_g", "10 %", "us"),
            ("protein_g", "1e9", "us"),
            ("protein_g", "9" * 30, "us"),
        ):
            with self.subTest(text), self.assertRaises(Unreadable):
                read_printed(key, text, kind)

    @given(st.sampled_from(sorted(label_values())), st.floats(0, 120))
    def test_a_percentage_hides_what_it_may(self, key, percent):
        if label_values()[key].daily_value is None:
            with self.assertRaises(KeyError):
                hidden_by_percent(key, percent)
            return
        found = hidden_by_percent(key, percent)
        self.assertLessEqual(found.low, found.amount)
        self.assertLessEqual(found.amount, found.high)


class Labels(TestCase):
    def test_per_100_g_with_the_range_of_both_roundings(self):
        read = read_label(label())
        protein = read.per_100_g["protein_g"]
        self.assertAlmostEqual(protein.amount, 21.875)
        self.assertAlmostEqual(protein.low, 6.5 / 32.5 * 100)
        self.assertAlmostEqual(protein.high, 7.5 / 31.5 * 100)

    def test_measures_of_serving_spoon_and_package(self):
        grams = {row.measure: row.grams for row in read_label(label()).measures}
        self.assertEqual(grams, {"tbsp": 16.0, "serving": 32.0, "package": 448.0})
        crackers = read_label(label(serving="5 crackers (30 g)", serving_size=""))
        self.assertEqual(
            {row.measure for row in crackers.measures} - {"serving", "package"}, {"piece"}
        )
        self.assertEqual(crackers.serving_g.amount, 30.0)

    def test_milliliters_are_weighed_with_a_range(self):
        read = read_label(label(serving="1 cup", serving_size="240 mL"))
        self.assertAlmostEqual(read.serving_g.amount, 247.2)
        self.assertLess(read.serving_g.low, 240)
        spelled = read_label(label(serving="1 cup", serving_size="240 milliliters"))
        self.assertEqual(spelled.serving_g, read.serving_g)
        self.assertIn("240 mL taken as 247 g", read.notes[0])

    def test_carbohydrate_without_its_fiber(self):
        printed = SPREAD | {"carbohydrate_g": "12", "fiber_g": "7,5", "sodium_mg": "0.5"}
        read = read_label(label(kind="europe", printed=printed | {"energy_kcal": "280"}))
        self.assertAlmostEqual(read.per_100_g["carbohydrate_g"].amount, 19.5)
        self.assertAlmostEqual(read.per_100_g["sodium_mg"].amount, 200.0)

    def test_per_100_ml_of_what_is_poured(self):
        printed = {"energy_kcal": "46", "protein_g": "1,0"}
        read = read_label(label(kind="europe", serving="", serving_size="250 ml", printed=printed))
        self.assertAlmostEqual(read.per_100_g["energy_kcal"].amount, 46 / 1.03)
        self.assertAlmostEqual(read.per_serving["energy_kcal"].amount, 46 * 2.5)

    def test_grams_in_brackets_count(self):
        self.assertEqual(read_label(label(serving_size="5.3 oz (150 g)")).serving_g.amount, 150.0)

    def test_what_cannot_be_is_refused_beside_its_field(self):
        for more, field in (
            ({"name": " "}, "name"),
            ({"serving_size": "a scoop"}, "serving_size"),
            ({"serving_size": "0 g"}, "serving_size"),
            ({"serving": "as you like"}, "serving"),
            ({"servings": "many"}, "servings"),
            ({"kind": "martian"}, "kind"),
            ({"printed": {"energy_kcal": "100"}}, "protein_g"),
            ({"printed": SPREAD | {"saturated_fat_g": "20"}}, "saturated_fat_g"),
            ({"printed": SPREAD | {"fiber_g": "12"}}, "fiber_g"),
            ({"printed": SPREAD | {"added_sugars_g": "6"}}, "added_sugars_g"),
            ({"printed": SPREAD | {"carbohydrate_g": "28"}}, "serving_size"),
            ({"printed": SPREAD | {"sodium_mg": "14000"}}, "sodium_mg"),
        ):
            with self.subTest(more), self.assertRaises(BadLabel) as refused:
                read_label(label(**more))
            self.assertIn(field, refused.exception.errors)

    def test_odd_energy_is_asked_about_once(self):
        odd = SPREAD | {"energy_kcal": "100"}
        with self.assertRaises(BadLabel) as asked:
            read_label(label(printed=odd))
        self.assertIn("Is every number as printed?", asked.exception.errors["energy_kcal"])
        self.assertEqual(
            read_label(label(printed=odd, sure=True)).per_serving["energy_kcal"].amount, 100
        )


class OwnFoods(TestCase):
    def test_printed_values_and_what_is_filled(self):
        made = food().food
        profile = made.profile(100.0)
        self.assertEqual(made.allergens, ("peanut",))
        self.assertEqual(made.tags, ("oil", "added salt", "added sugar", "nuts in it"))
        self.assertEqual(
            (made.group, made.kind_slug), ("nut butter", "peanut-butter-smooth-salted")
        )
        # potassium is not printed: of the kind, with a range that holds the table's own
        like = food_table()["peanut-butter-smooth-salted"].per_100_g("potassium_mg")
        self.assertLess(profile["potassium_mg"].low, like)
        self.assertGreater(profile["potassium_mg"].high, like)
        # a plant without B12 in its list has none; nobody knows of its iodine
        self.assertEqual(profile["vitamin_b12_ug"].amount, 0.0)
        self.assertEqual(profile["vitamin_b12_ug"].known, 1.0)
        self.assertEqual(profile["iodine_ug"].known, 0.0)
        water = profile["water_g"]
        self.assertTrue(water.low <= water.amount <= water.high)

    def test_where_its_like_was_only_guessed_nothing_is_filled(self):
        made = food(like_sure=False)
        self.assertIsNone(made.like)
        profile = made.food.profile(100.0)
        self.assertEqual(profile["potassium_mg"].known, 0.0)
        # nor is it said that it has none of what plants lack: nobody knows yet what it is
        self.assertEqual(profile["vitamin_b12_ug"].known, 0.0)
        self.assertEqual(profile["protein_g"].known, 1.0)

    def test_what_it_prints_tells_whether_it_is_of_a_kind(self):
        table = food_table()
        for slug, fitting, apart in (
            # a burger is no seitan, a tomato sauce no raw tomato, a cereal no dry grain alone
            (
                "seitan",
                {"energy_kcal": 140, "protein_g": 26, "fat_g": 2},
                {"energy_kcal": 230, "protein_g": 9, "fat_g": 11, "carbohydrate_g": 22},
            ),
            (
                "tomato-raw",
                {"energy_kcal": 20, "protein_g": 1, "fat_g": 0.2, "carbohydrate_g": 4},
                {"energy_kcal": 55, "protein_g": 1.5, "fat_g": 1.8, "carbohydrate_g": 8},
            ),
            ("tofu-firm", {"protein_g": 15, "fat_g": 8}, {"protein_g": 15, "fat_g": 19}),
        ):
            with self.subTest(slug):
                self.assertTrue(fits(fitting, table[slug]))
                self.assertFalse(fits(apart, table[slug]))

    def test_without_a_list_nothing_is_said_to_be_absent(self):
        made = food(ingredients="").food
        self.assertEqual(made.tags, ("ingredients not entered",))
        self.assertIn("soy", made.may_contain)
        self.assertEqual(made.profile(100.0)["vitamin_b12_ug"].known, 0.0)

    def test_what_an_additive_brings_is_not_filled(self):
        plain = food(ingredients="Water, oats, salt", like="oat-milk-unfortified").food
        added = food(
            ingredients="Water, oats, tricalcium phosphate", like="oat-milk-unfortified"
        ).food
        self.assertEqual(plain.profile(100.0)["phosphorus_mg"].known, 1.0)
        self.assertEqual(added.profile(100.0)["phosphorus_mg"].known, 0.0)
        self.assertEqual(added.profile(100.0)["phosphorus_mg"].could_add, float("inf"))

    def test_carbohydrate_without_a_fiber_that_is_not_printed(self):
        printed = {"energy_kcal": "350", "fat_g": "2", "carbohydrate_g": "65", "protein_g": "11"}
        made = food(kind="europe", printed=printed, like="rolled-oats-dry", ingredients="Oats").food
        profile = made.profile(100.0)
        total, fiber = profile["carbohydrate_g"], profile["fiber_g"]
        self.assertAlmostEqual(total.amount, 65 + fiber.amount)
        self.assertGreater(total.high - total.low, 1.0)
        self.assertAlmostEqual(profile["water_g"].amount, 100 - 11 - 2 - total.amount - 1.5)

    def test_gluten_free_oats_and_others(self):
        oats = food(ingredients="Rolled oats, salt", claims="Gluten free")
        self.assertNotIn("gluten", oats.food.allergens)
        wheat = food(ingredients="Rolled oats, wheat flour", claims="Gluten-free")
        self.assertIn("gluten", wheat.food.allergens)

    def test_of_animals_it_is_there_to_compare_with(self):
        self.assertTrue(food(ingredients="Peanuts, honey").food.comparator)
        self.assertFalse(food(ingredients="Peanuts, vegan butter").food.comparator)

    def test_kept_and_brought_back_it_is_the_same(self):
        made = food().food
        back = from_plain(to_plain(made))
        self.assertEqual(back, made)
        for key in label_values():
            self.assertEqual(back.per_100_g(key), made.per_100_g(key))
        self.assertEqual(back.measures, made.measures)


class Eaten(TestCase):
    def test_in_the_words_people_use(self):
        made = food()
        for text, grams in (
            ("80 g", 80),
            ("80", 80),
            ("half the package", 224),
            ("the whole package", 448),
            ("2 servings", 64),
            ("1 tbsp", 16),
            ("a third of the jar", 448 / 3),
        ):
            with self.subTest(text):
                self.assertAlmostEqual(eaten(text, made).grams, grams, delta=1)
        crackers = food(serving="5 crackers", serving_size="30 g")
        self.assertAlmostEqual(eaten("8 crackers", crackers).grams, 48)

    def test_what_cannot_be_said(self):
        with self.assertRaises(UnreadableAmount):
            eaten("a lot", food())
        with self.assertRaisesRegex(UnreadableAmount, "how many servings"):
            eaten("half the package", food(servings=""))


class SideBySide(TestCase):
    def test_more_only_where_rounding_lets_one_say(self):
        one = read_label(label())
        other = read_label(label(printed=SPREAD | {"sodium_mg": "130", "protein_g": "9"}))
        rows = {row.key: row for row in beside(one, other)}
        self.assertIsNone(rows["fat_g"].more)
        self.assertIsNone(rows["sodium_mg"].more)
        self.assertEqual(rows["protein_g"].more, 1)
        self.assertEqual(beside(one, other, "100kcal")[0].one.amount, 100.0)
        with self.assertRaises(KeyError):
            beside(one, other, "moon")
