"""Claims by the law of the label's region: each limit on both sides of its edge."""

from unittest import TestCase

from nutrition.composition.food_names import food_names
from nutrition.labels.claims import held
from nutrition.labels.ingredients import read_ingredients
from nutrition.labels.label import Label, read_label

LISTED = "oats, water"


def verdicts(claim, kind, ingredients=LISTED, serving_size="40 g", **printed):
    energy = "150" if kind == "us" else "400"
    values = {"energy_kcal": energy, "protein_g": "10"} | printed
    label = Label(
        name="A package",
        serving_size=serving_size,
        kind=kind,
        printed=values,
        ingredients=ingredients,
        sure=True,
    )
    return held(claim, read_label(label), read_ingredients(ingredients, food_names()))


def verdict(claim, kind, **more):
    (one,) = verdicts(claim, kind, **more)
    return one.holds


class Europe(TestCase):
    def test_limits_per_100_g(self):
        for claim, key, holds, fails in (
            ("low fat", "fat_g", "3", "3.6"),
            ("fat free", "fat_g", "0.5", "0.7"),
            ("low sugar", "sugars_g", "5", "6"),
            ("sugar free", "sugars_g", "0.5", "0.7"),
            ("low salt", "sodium_mg", "0.3 g salt", "0.38 g salt"),
            ("very low salt", "sodium_mg", "0.1 g salt", "0.13 g salt"),
            ("low in saturated fat", "saturated_fat_g", "1.5", "1.8"),
        ):
            with self.subTest(claim):
                self.assertEqual(verdict(claim, "europe", **{key: holds}), "holds")
                self.assertEqual(verdict(claim, "europe", **{key: fails}), "does not hold")

    def test_fiber_by_100_g_or_100_kcal(self):
        self.assertEqual(verdict("high fiber", "europe", fiber_g="6"), "holds")
        self.assertEqual(verdict("high fiber", "europe", fiber_g="4.7"), "does not hold")
        self.assertEqual(verdict("high fiber", "europe", energy_kcal="100", fiber_g="3.2"), "holds")
        self.assertEqual(verdict("source of fiber", "europe", fiber_g="3"), "holds")
        self.assertEqual(verdict("source of fiber", "europe", fiber_g="2.2"), "does not hold")

    def test_protein_by_its_share_of_the_energy(self):
        self.assertEqual(verdict("high protein", "europe", protein_g="20"), "holds")
        self.assertEqual(verdict("high protein", "europe", protein_g="19"), "does not hold")
        self.assertEqual(verdict("source of protein", "europe", protein_g="12"), "holds")
        self.assertEqual(verdict("source of protein", "europe", protein_g="11"), "does not hold")

    def test_a_vitamin_by_the_reference_value(self):
        for claim, holds, fails in (
            ("high in iron", "4.3 mg", "4 mg"),
            ("source of iron", "2.2 mg", "2 mg"),
        ):
            self.assertEqual(verdict(claim, "europe", iron_mg=holds), "holds")
            self.assertEqual(verdict(claim, "europe", iron_mg=fails), "does not hold")

    def test_a_drink_has_its_own_limits(self):
        drink = {"serving_size": "200 mL"}
        self.assertEqual(verdict("low fat", "europe", fat_g="1.5", **drink), "holds")
        self.assertEqual(verdict("low fat", "europe", fat_g="1.8", **drink), "does not hold")

    def test_each_names_its_law(self):
        (one,) = verdicts("high fiber", "europe", fiber_g="6")
        self.assertIn("1924/2006", one.source)
        (one,) = verdicts("gluten free", "europe", ingredients="rice, water")
        self.assertIn("828/2014", one.source)
        (one,) = verdicts("made with love", "europe")
        self.assertIn("European Union", one.why)


class Elsewhere(TestCase):
    def test_australia_goes_by_the_serving(self):
        for claim, grams in (
            ("excellent source of fiber", 7),
            ("good source of fiber", 4),
            ("source of fiber", 2),
        ):
            enough, little = f"{grams / 0.4:.1f}", f"{grams / 0.4 - 2:.1f}"
            self.assertEqual(verdict(claim, "australia", fiber_g=enough), "holds", claim)
            self.assertEqual(verdict(claim, "australia", fiber_g=little), "does not hold", claim)
        self.assertEqual(verdict("good source of protein", "australia", protein_g="25"), "holds")
        self.assertEqual(verdict("source of protein", "australia", protein_g="11"), "does not hold")

    def test_australia_s_gluten_free_bears_no_oats(self):
        self.assertEqual(
            verdict("gluten free", "australia", ingredients="oats, water"), "does not hold"
        )
        self.assertEqual(verdict("gluten free", "us", ingredients="oats, water"), "cannot be told")
        self.assertEqual(verdict("gluten free", "australia", ingredients="rice, water"), "holds")

    def test_india(self):
        self.assertEqual(verdict("high fibre", "india", fiber_g="6"), "holds")
        self.assertEqual(verdict("low sodium", "india", sodium_mg="120 mg"), "holds")
        self.assertEqual(verdict("low sodium", "india", sodium_mg="150 mg"), "does not hold")
        self.assertEqual(verdict("source of protein", "india", protein_g="5"), "does not hold")


class Once(TestCase):
    def test_excellent_is_not_also_good(self):
        found = verdicts("excellent source of fiber", "us", fiber_g="6 g")
        self.assertEqual([one.taken_as for one in found][:1], ["high"])
        self.assertNotIn("good source", [one.taken_as for one in found])

    def test_what_nobody_could_read_may_be_anything(self):
        for claim in ("vegan", "dairy free", "gluten free", "oil free"):
            self.assertEqual(verdict(claim, "us", ingredients="rice, blarghate"), "cannot be told")
            self.assertEqual(verdict(claim, "us", ingredients="rice, water"), "holds")
        self.assertEqual(
            verdict("gluten free", "us", ingredients="wheat, blarghate"), "does not hold"
        )


class Ingredients(TestCase):
    def read(self, text):
        return read_ingredients(text, food_names())

    def test_what_is_no_wheat_and_no_honey(self):
        for text in ("gram pulse flour", "flour (rice)", "flour treatment agent", "rice flour"):
            self.assertNotIn("wheat", self.read(text).allergens, text)
        self.assertIn("wheat", self.read("flour (wheat)").allergens)
        self.assertIn("wheat", self.read("flour").allergens)
        self.assertEqual(self.read("date honey, water").animals, {})
        self.assertIn("honey", self.read("honey, water").animals)

    def test_what_may_be_of_an_animal(self):
        self.assertIn("fish", self.read("water, isinglass").animals)
        self.assertIn("milk", self.read("khoya").animals)
        self.assertIn("may animal", self.read("non-dairy creamer").classes)
        self.assertIn("milk", self.read("non-dairy creamer").may_contain)
        self.assertIn("fish", self.read("kimchi").may_contain)
        self.assertIn("soy", self.read("lecithin").may_contain)
        self.assertNotIn("soy", self.read("sunflower lecithin").may_contain)
