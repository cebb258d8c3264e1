"""Finding foods by other names and through misspelling."""

from unittest import TestCase

from nutrition.composition.food_search import food_index
from nutrition.composition.food_words import singular

FIRST = {
    "garbanzo": "chickpeas-cooked",
    "courgette": "zucchini-raw",
    "rocket": "arugula-raw",
    "coriander leaf": "cilantro-fresh",
    "cilantro": "cilantro-fresh",
    "spring onion": "scallion-raw",
    "aubergine": "eggplant-raw",
    "beetroot": "beets-raw",
    "butter bean": "lima-beans-cooked",
    "swede": "rutabaga-raw",
    "nooch": "nutritional-yeast-fortified",
    "gram flour": "chickpea-flour",
    "zuchini": "zucchini-raw",
    "quinua": "quinoa-dry",
    "onion": "onion-raw",
    "onions": "onion-raw",
    "kale": "kale-raw",
    "dry chickpeas": "chickpeas-dry",
    "cooked quinoa": "quinoa-cooked",
    "cannellini": "cannellini-beans-cooked",
    "tahini": "tahini",
    "celery root": "celeriac-raw",
    "bell pepper": "bell-pepper-red-raw",
    "dried parsley": "parsley-dried",
    "mangetout": "snow-peas-raw",
    "kohlrabbi": "kohlrabi-raw",
    "bukwheat": "buckwheat-roasted-dry",
    "adzuki": "adzuki-beans-cooked",
    "kasha": "buckwheat-roasted-dry",
    "moong dal": "split-mung-beans-dry",
}


class Search(TestCase):
    def test_best_match(self):
        for query, slug in FIRST.items():
            with self.subTest(query):
                self.assertEqual(food_index().search(query, 1)[0].food.slug, slug)

    def test_soya_finds_soy_foods_only(self):
        for match in food_index().search("soya", 8):
            self.assertIn("soy", match.food.slug)

    def test_nonsense_finds_nothing(self):
        self.assertEqual(food_index().search("xqzzyw"), [])
        self.assertEqual(food_index().search("  ,; "), [])

    def test_a_beginning_is_enough_while_typing(self):
        for typed, slug in (
            ("koh", "kohlrabi-raw"),
            ("adzu", "adzuki-beans-cooked"),
            ("buckw", "buckwheat-roasted-dry"),
        ):
            with self.subTest(typed):
                self.assertIn(
                    slug, [match.food.slug for match in food_index().search(typed, 5, typing=True)]
                )

    def test_singular(self):
        for many, one in (
            ("leaves", "leaf"),
            ("berries", "berry"),
            ("tomatoes", "tomato"),
            ("radishes", "radish"),
            ("hummus", "hummus"),
            ("couscous", "couscous"),
            ("peas", "pea"),
        ):
            self.assertEqual(singular(many), one)
