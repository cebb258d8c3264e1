"""Reading lines: amounts, units, packages, forms."""

from unittest import TestCase

from hypothesis import example, given
from hypothesis import strategies as st

from nutrition.written.grammar import read
from nutrition.written.household import fraction
from nutrition.written.wording import number, plain

# line: ((best, unit), ...), phrase, forms that must be among those read
READINGS = [
    ("1 1/2 cups cooked buckwheat", ((1.5, "cup"),), "cooked buckwheat", {"cooked"}),
    ("½ tsp salt", ((0.5, "tsp"),), "salt", set()),
    ("1½ cups kale", ((1.5, "cup"),), "kale", set()),
    ("1-1/2 cups rolled oats", ((1.5, "cup"),), "rolled oats", set()),
    ("3 tbsp plus 1 tsp lemon juice", ((3, "tbsp"), (1, "tsp")), "lemon juice", set()),
    ("a handful of parsley", ((1, "handful"),), "parsley", set()),
    ("2 medium carrots, grated", ((2, "medium"),), "carrots", {"grated"}),
    ("200 g firm tofu", ((200, "g"),), "firm tofu", set()),
    ("200g firm tofu", ((200, "g"),), "firm tofu", set()),
    ("2-3 cloves garlic", ((2.5, "clove"),), "garlic", set()),
    ("2 to 3 cloves garlic", ((2.5, "clove"),), "garlic", set()),
    ("8 oz mushrooms", ((8, "oz"),), "mushrooms", set()),
    ("a dozen brazil nuts", ((12, ""),), "brazil nuts", set()),
    ("half a cup of dry millet", ((0.5, "cup"),), "dry millet", {"dry"}),
    ("a couple of carrots", ((2, ""),), "carrots", set()),
    ("1 T tamari", ((1, "tbsp"),), "tamari", set()),
    ("1 t tamari", ((1, "tsp"),), "tamari", set()),
    ("- 2 cups spinach", ((2, "cup"),), "spinach", set()),
    ("0.25 cup hemp seeds", ((0.25, "cup"),), "hemp seeds", set()),
    ("2 large red onions, thinly sliced", ((2, "large"),), "red onions", {"sliced"}),
    ("1 cup (140 g) green peas", ((140, "g"),), "green peas", set()),
    ("1 head cauliflower", ((1, "head"),), "cauliflower", set()),
]


class Readings(TestCase):
    def test_amounts_units_and_names(self):
        for text, terms, phrase, forms in READINGS:
            with self.subTest(text):
                reading = read(text)
                self.assertEqual(tuple((term.best, term.unit) for term in reading.terms), terms)
                self.assertEqual(reading.phrase, phrase)
                self.assertLessEqual(forms, set(reading.forms))
                self.assertEqual(reading.problem, "")

    def test_a_written_range_is_kept(self):
        (term,) = read("2-3 cloves garlic").terms
        self.assertEqual((term.low, term.best, term.high), (2, 2.5, 3))

    def test_packages(self):
        for text, size in (
            ("1 (15 oz) can white beans, drained and rinsed", (15, "oz")),
            ("1 15-oz can white beans", (15, "oz")),
            ("400 g tin diced tomatoes", (400, "g")),
            ("2 x 400 g cans chickpeas, drained", (400, "g")),
            ("1 (14 oz) block firm tofu", (14, "oz")),
        ):
            with self.subTest(text):
                package = read(text).package
                self.assertIsNotNone(package)
                self.assertEqual((package.best, package.unit), size)
        self.assertEqual(read("2 x 400 g cans chickpeas").terms[0].best, 2)

    def test_juice_and_zest(self):
        for text, take, count in (
            ("juice of half a lemon", "juice", 0.5),
            ("juice of 2 limes", "juice", 2),
            ("zest of 1 orange", "zest", 1),
        ):
            with self.subTest(text):
                reading = read(text)
                self.assertEqual((reading.take, reading.terms[0].best), (take, count))

    def test_what_cannot_be_read_says_why(self):
        self.assertEqual(read("   ").problem, "empty line")
        self.assertEqual(read("salt and love").problem, "no amount given")
        self.assertEqual(
            (read("salt to taste").problem, read("salt to taste").loose), ("", "to taste")
        )
        self.assertEqual(read("2 cups").problem, "no food named")
        self.assertEqual(read("1/0 cup flour").problem, "the amount could not be read")

    @given(st.text(max_size=120))
    @example("1/0 cup flour")
    @example("999999999999999999999 cups of oats")
    @example("(15 oz can beans")
    def test_no_text_crashes_the_reader(self, text):
        reading = read(text)
        self.assertTrue(reading.problem or reading.phrase)

    @given(st.integers(0, 40), st.sampled_from([0.0, 0.25, 1 / 3, 0.5, 2 / 3, 0.75]))
    def test_a_printed_quantity_reads_back(self, whole, part):
        value = whole + part
        if value:
            printed = fraction(value)[1]
            self.assertAlmostEqual(number(plain(printed)), value)
            self.assertAlmostEqual(read(f"{printed} cups oats").terms[0].best, value)

    def test_plain_keeps_words(self):
        self.assertEqual(plain("  • 1¼  cups\toats "), "1 1/4 cups oats")
