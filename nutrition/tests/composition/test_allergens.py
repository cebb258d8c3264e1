"""Allergens: the words people use for them, and what foods hold or often hold."""

from unittest import TestCase

from nutrition.composition.allergens import ALLERGENS, UnknownAllergen
from nutrition.composition.allergies import allergies_named, allergy, refused_in, sees_no_more
from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient

FOODS = food_table()


class Words(TestCase):
    def test_other_words_are_mapped(self):
        for word, meant in (
            ("nuts", ("tree nuts", "peanut")),
            ("Peanuts", ("peanut",)),
            ("dairy", ("milk",)),
            ("soya", ("soy",)),
            ("lupine", ("lupin",)),
            ("sulphites", ("sulfites",)),
            ("walnuts", ("tree nuts",)),
            ("celeriac", ("celery",)),
            ("shellfish", ("shellfish",)),
        ):
            self.assertEqual(allergies_named(word), meant)
        for name in ALLERGENS:
            self.assertEqual(allergies_named(name.upper()), (name,))

    def test_the_rest_is_refused_with_the_nearest(self):
        with self.assertRaises(UnknownAllergen) as caught:
            allergies_named("sesami")
        self.assertIn("did you mean sesame?", str(caught.exception))
        for word in ("", "  ", "7", "x" * 61):
            with self.assertRaises(UnknownAllergen):
                allergies_named(word)

    def test_any_other_is_kept_as_an_allergy(self):
        for word, meant in (
            ("Kiwis", "kiwi"),
            ("allergic to buckwheat", "buckwheat"),
            ("birch pollen allergy", "birch"),
            ("soba", "buckwheat"),
            ("strawberry", "strawberry"),
            ("Zanthine-gum", "zanthine gum"),
        ):
            self.assertEqual(allergies_named(word), (meant,), word)
        self.assertTrue(sees_no_more("zanthine gum"))
        self.assertFalse(sees_no_more("strawberry"), "foods of the table are called so")
        self.assertFalse(sees_no_more("latex"))


class Held(TestCase):
    def part(self, slug, said=""):
        return Ingredient(FOODS[slug], 50.0, said=said)

    def test_by_words_of_names_and_lines(self):
        for code, slug, said in (
            ("buckwheat", "soba-noodles-cooked", ""),
            ("kiwi", "kiwi-green-raw", ""),
            ("cumin", "garam-masala", ""),
            ("lentil", "red-lentils-cooked", ""),
            ("mango", "white-rice-cooked", "200 g rice with mango"),
        ):
            with self.subTest(code):
                self.assertEqual(refused_in(self.part(slug, said), [code]), [code])
        self.assertEqual(refused_in(self.part("white-rice-cooked"), ["buckwheat", "kiwi"]), [])
        self.assertEqual(refused_in(self.part("water-chestnuts-raw"), ["latex"]), [])

    def test_what_says_it_is_free_of_gluten_is(self):
        self.assertEqual(refused_in(self.part("soy-sauce"), ["wheat"]), ["wheat"])
        free = self.part("soy-sauce", "1 tbsp gluten-free soy sauce")
        self.assertEqual(refused_in(free, ["wheat", "gluten"]), [])
        self.assertEqual(refused_in(free, ["soy"]), ["soy"])

    def test_kin_is_told_apart_raw_and_cooked(self):
        birch = allergy("birch")
        self.assertTrue(birch.crosses("1 raw apple", cooked=False))
        self.assertFalse(birch.crosses("1 raw apple", cooked=True))
        self.assertFalse(birch.crosses("1 pineapple", cooked=False))
        self.assertTrue(allergy("mugwort").crosses("celery", cooked=True))
        self.assertEqual(
            (birch.kin, allergy("mango").kin, allergy("rice").kin), ("caution", "note", "")
        )


class Foods(TestCase):
    def test_held(self):
        for slug, allergen in (
            ("bulgur-cooked", "wheat"),
            ("seitan", "wheat"),
            ("soy-sauce", "wheat"),
            ("coconut-milk-canned", "coconut"),
            ("red-wine", "sulfites"),
            ("mustard-spinach-raw", "mustard"),
            ("celeriac-raw", "celery"),
        ):
            self.assertIn(allergen, FOODS[slug].allergens, slug)
        for slug in ("barley-pearled-cooked", "rye-berries-cooked", "rolled-oats-cooked"):
            self.assertNotIn("wheat", FOODS[slug].allergens, slug)

    def test_often_held_by_what_is_put_together(self):
        for slug, allergen in (
            ("miso", "gluten"),
            ("gochujang", "wheat"),
            ("veggie-burger-bean", "gluten"),
            ("falafel", "gluten"),
            ("vegetable-broth", "celery"),
            ("vegetable-bouillon", "gluten"),
            ("dark-chocolate-70-85-cocoa", "milk"),
            ("curry-paste", "shellfish"),
            ("kimchi", "fish"),
            ("tamari", "gluten"),
            ("curry-powder", "mustard"),
            ("apricots-dried", "sulfites"),
        ):
            self.assertIn(allergen, FOODS[slug].may_contain, slug)
        for slug in ("lentils-cooked", "kale-raw", "white-rice-cooked", "almonds"):
            self.assertFalse(FOODS[slug].may_contain, slug)
