"""What is said in a system's cups and spoons is read back in them as the same grams."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.recipe.scaling import scale
from nutrition.written.basis import BASIS_SPREAD, basis_range
from nutrition.written.household import by_volume, spoken
from nutrition.written.line import Choice
from nutrition.written.matching import reckon_line
from nutrition.written.typed_amounts import leveled_range, read_amount
from nutrition.written.units import SYSTEM_WORDS, milliliters

FOODS = food_table()
POURED = ("tahini", "olive-oil", "soy-milk-unsweetened", "barley-pearled-cooked", "lemon-juice")


class SaidAndRead(TestCase):
    def test_every_system_reads_what_it_says(self):
        for system in SYSTEM_WORDS:
            for slug in POURED:
                for grams in (4, 11, 30, 62, 130, 300):
                    said = spoken(FOODS[slug], grams, system)
                    if said is None or said.words == "a pinch":
                        continue
                    with self.subTest(system=system, food=slug, said=said.words):
                        line = reckon_line(
                            f"{said.words} {FOODS[slug].name}", None, Choice(slug), system
                        )
                        self.assertAlmostEqual(line.grams / said.grams, 1.0, places=2)
                        typed = read_amount(said.words, FOODS[slug], system)
                        self.assertAlmostEqual(typed.grams / said.grams, 1.0, places=2)

    def test_an_australian_spoon_is_twenty_milliliters(self):
        self.assertAlmostEqual(milliliters("tbsp", "australian"), 20.0, places=2)
        us, ours = (spoken(FOODS["tahini"], 30, system) for system in ("us", "australian"))
        self.assertEqual(us.words, "2\xa0tbsp")
        self.assertNotEqual(ours.words, "2\xa0tbsp")
        self.assertEqual(by_volume(40.0, 42.0, "australian").words, "2\xa0tbsp")
        self.assertEqual(by_volume(40.0, 42.0, "us").words, "2¾\xa0tbsp")

    def test_a_scaled_recipe_speaks_its_own_measures(self):
        for system in SYSTEM_WORDS:
            facts = reckon(Recipe(("2 tbsp tahini", "100 g kale"), servings=2, system=system))
            row = scale(facts, 2.0).lines[0]
            with self.subTest(system=system, said=row.words):
                again = reckon_line(f"{row.words} tahini", None, None, system)
                self.assertAlmostEqual(again.grams / row.used_g, 1.0, places=2)


class OneRule(TestCase):
    def test_a_leveled_measure_strays_by_the_same_share_everywhere(self):
        spread = BASIS_SPREAD["leveled measure"]
        low, high = leveled_range(100.0)
        self.assertEqual((low, high), basis_range(100.0, "leveled measure"))
        self.assertAlmostEqual(high - 100.0, 100.0 * spread)
