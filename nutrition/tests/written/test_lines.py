"""A line with its food and grams. Expected grams are worked by hand from the portion rows of the
table."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.written.line import Choice
from nutrition.written.matching import reckon_line
from nutrition.written.typed_amounts import UnreadableAmount, read_amount, read_batch_amount

# line, food, grams by hand
WORKED = [
    ("1 1/2 cups cooked buckwheat", "buckwheat-roasted-cooked", 1.5 * 168),
    ("½ tsp salt", "salt", 3),
    ("3 tbsp plus 1 tsp lemon juice", "lemon-juice", 3 * 15 + 5),
    ("a handful of parsley", "parsley-fresh", 12),
    ("2 medium carrots, grated", "carrots-raw", 122),
    # 15 oz is 425.2 g, of which 60 % is left when drained
    (
        "1 (15 oz) can white beans, drained and rinsed",
        "white-beans-canned-drained-and-rinsed",
        255.1,
    ),
    ("200 g firm tofu", "tofu-firm", 200),
    ("2-3 cloves garlic", "garlic-raw", 7.5),
    ("juice of half a lemon", "lemon-juice", 23.5),
    ("8 oz mushrooms", "mushrooms-white-raw", 226.8),
    ("1 cup lentils", "lentils-dry", 192),
    ("1 (14 oz) block extra firm tofu", "tofu-extra-firm", 396.9),
    ("2 sprigs thyme", "thyme-fresh", 2.4),
    ("1 lb broccoli, untrimmed", "broccoli-raw", 453.6 * 0.61),
    ("1 heaping tbsp nutritional yeast", "nutritional-yeast-fortified", 1.25 * 5),
    ("3 dates", "dates-medjool", 72),
    ("1 can lupini beans, drained", "lupini-beans-in-brine-drained", 425 * 0.6),
    ("1 cup carrots, grated", "carrots-raw", 110),
    ("400 g tin diced tomatoes", "tomatoes-diced-canned", 400),
    ("1 bulb fennel, sliced", "fennel-bulb-raw", 234),
    ("1/4 cup dill, chopped", "dill-fresh", 5.5),
    ("1 small apple", "apple-with-skin-raw", 149),
    ("250 ml water", "water", 250),
    ("1-inch piece fresh ginger, grated", "ginger-root-raw", 11),
    ("1 cup unsweetened almond milk", "almond-milk-unsweetened-fortified", 243),
    ("1 small head cauliflower", "cauliflower-raw", 575 * 0.65),
    ("1 cup green lentils, cooked", "lentils-cooked", 198),
    ("1 jalapeño, minced", "jalapeno-pepper-raw", 14),
    ("1 cup corn kernels", "corn-yellow-raw", 145),
    ("1 orange, juiced", "orange-juice", 86),
    (
        "1 can (15 ounces) black beans, rinsed and drained",
        "black-beans-canned-drained-and-rinsed",
        255.1,
    ),
    ("1 (14.5-ounce) can diced tomatoes", "tomatoes-diced-canned", 411),
]


class WorkedLines(TestCase):
    def test_food_and_grams(self):
        for text, slug, grams in WORKED:
            with self.subTest(text):
                line = reckon_line(text)
                self.assertTrue(line.resolved, line.why)
                self.assertEqual(line.food.slug, slug)
                self.assertAlmostEqual(line.grams, grams, delta=0.01 * grams)
                self.assertLess(line.low, line.grams)
                self.assertGreater(line.high, line.grams)

    def test_how_sure_follows_how_it_was_measured(self):
        def width(text):
            line = reckon_line(text)
            return (line.high - line.low) / line.grams

        self.assertLess(width("60 g parsley"), width("1 cup parsley, chopped"))
        self.assertLess(width("1 cup parsley, chopped"), width("5 handfuls parsley"))
        self.assertEqual(reckon_line("60 g parsley").basis, "weighed")
        self.assertEqual(reckon_line("a handful of parsley").basis, "by eye")

    def test_what_cannot_be_settled_never_counts_as_zero(self):
        for text, why in (
            ("1 tbsp unicorn dust", "no food found"),
            ("kale from the garden", "no amount"),
            ("1 wedge oats", "no weight known"),
        ):
            with self.subTest(text):
                line = reckon_line(text)
                self.assertIsNone(line.grams)
                self.assertIn(why, line.why)
        self.assertIn(
            "kale-raw",
            [match.food.slug for match in reckon_line("kale from the garden").candidates],
        )

    def test_an_animal_food_is_never_matched(self):
        for text in ("2 eggs, boiled", "50 g cheddar cheese", "100 g minced beef"):
            with self.subTest(text):
                line = reckon_line(text)
                self.assertFalse(line.resolved and line.food.comparator)
                self.assertFalse(any(match.food.comparator for match in line.candidates))

    def test_bare_grain_is_dry_in_a_recipe_and_cooked_where_it_was_eaten(self):
        for text, dry, cooked in (
            ("1 cup millet", ("millet-dry", 200), ("millet-cooked", 174)),
            ("2 cups pasta", ("pasta-white-dry", 200), ("pasta-white-enriched-cooked", 268)),
            ("1 cup split peas", ("split-peas-dry", 196), ("split-peas-cooked", 196)),
            ("1 cup black beans", ("black-beans-cooked", 172), ("black-beans-cooked", 172)),
        ):
            for eaten, (slug, grams) in ((False, dry), (True, cooked)):
                with self.subTest(text, eaten=eaten):
                    line = reckon_line(text, eaten=eaten)
                    self.assertEqual(line.food.slug, slug)
                    self.assertAlmostEqual(line.grams, grams, delta=0.1 * grams)
                    self.assertEqual(line.ask, "")
                    self.assertTrue(line.sure)

    def test_what_was_eaten_and_weighed_asks_whether_it_was_dry(self):
        for grams, state, other in ((100, "dry", "cooked"), (101, "cooked", "dry")):
            line = reckon_line(f"{grams} g millet", eaten=True)
            self.assertEqual(line.food.slug, f"millet-{state}")
            self.assertEqual(line.ask, f"Taken as {state}. Was it weighed {other}?")
            self.assertEqual(line.twin, f"millet-{other}")
        self.assertEqual(reckon_line("80 g cooked millet", eaten=True).ask, "")
        self.assertEqual(reckon_line("80 g millet").ask, "")

    def test_the_cooks_choice_wins(self):
        text = "1 cup millet"
        other = reckon_line(text, choice=Choice(food="millet-cooked"))
        self.assertEqual((other.food.slug, other.grams, other.ask), ("millet-cooked", 174, ""))
        weighed = reckon_line(text, choice=Choice(grams=90))
        self.assertEqual(
            (weighed.food.slug, weighed.grams, weighed.basis), ("millet-dry", 90, "weighed")
        )
        settled = reckon_line("salt to taste", choice=Choice(food="salt", grams=1.5))
        self.assertEqual((settled.food.slug, settled.grams), ("salt", 1.5))


class TypedAmounts(TestCase):
    def test_amounts_of_a_known_food(self):
        kale = food_table()["kale-raw"]
        for text, grams in (
            ("80", 80),
            ("80 g", 80),
            ("1 oz", 28.35),
            ("2 leaves", 50),
            ("1/2 cup", 10.3),
        ):
            with self.subTest(text):
                self.assertAlmostEqual(read_amount(text, kale).grams, grams, delta=0.5)
        for text in ("lots", "", "0", "-3 g", "9000 g", "2 sheets"):
            with self.subTest(text), self.assertRaises(UnreadableAmount):
                read_amount(text, kale)

    def test_amounts_of_a_dish(self):
        self.assertEqual(read_batch_amount("1 1/2 servings", 200, 250).grams, 300)
        self.assertEqual(read_batch_amount("150", 200, None).grams, 150)
        self.assertAlmostEqual(
            read_batch_amount("1 cup", 200, 250).grams, 200 / 250 * 236.588, places=2
        )
        with self.assertRaises(UnreadableAmount):
            read_batch_amount("1 cup", 200, None)
