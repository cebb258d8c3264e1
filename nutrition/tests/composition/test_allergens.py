"""Allergens: the words people use for them, and what foods hold or often hold."""

from unittest import TestCase

from nutrition.composition.allergens import ALLERGENS, UnknownAllergen, allergens_named
from nutrition.composition.foods import food_table

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
            self.assertEqual(allergens_named(word), meant)
        for name in ALLERGENS:
            self.assertEqual(allergens_named(name.upper()), (name,))

    def test_the_rest_is_refused_with_the_nearest(self):
        with self.assertRaises(UnknownAllergen) as caught:
            allergens_named("sesami")
        self.assertIn("did you mean sesame?", str(caught.exception))
        with self.assertRaises(UnknownAllergen) as caught:
            allergens_named("strawberry")
        self.assertIn("choose soy", str(caught.exception))


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
