"""Composite dishes of the composition data, rebuilt from plausible recipes: energy within 15 %,
protein within 20 %, per 100 g.

The published values are those of the data set the table is built from (public domain); no recipe
comes with them, so each recipe is ours, in the proportions the dish is usually made in. Seven of
eleven came right as first written; gazpacho and tabbouleh were given less water and more oil
afterwards, and the other two are listed as misses.
"""

from unittest import TestCase

from nutrition.formats.recipe_files import read_recipe
from nutrition.recipe.reckoning import reckon

# dish as published: kcal and g protein per 100 g, the recipe
DISHES = {
    "Hummus, home prepared": (
        177.0,
        4.86,
        """
        1 3/4 cups canned chickpeas, drained
        1/3 cup tahini
        1/4 cup lemon juice
        1 tbsp olive oil
        2 cloves garlic
        6 tbsp water""",
    ),
    "Guacamole with tomatoes": (
        145.0,
        1.87,
        """
        3 avocados
        1 small tomato, chopped
        1/4 cup onion, chopped
        1 tbsp lime juice
        1 tbsp cilantro, chopped
        1/2 tsp salt""",
    ),
    "Salsa, red, homemade": (
        34.0,
        1.44,
        """
        4 medium tomatoes, chopped
        1 medium onion, chopped
        2 jalapenos
        1/4 cup cilantro, chopped
        3 tbsp tomato paste
        1 tbsp lime juice
        1 tsp salt""",
    ),
    "Soup, gazpacho": (
        26.0,
        0.81,
        """
        4 medium tomatoes, chopped
        1 medium cucumber
        1/2 green bell pepper
        1/2 small onion
        1 clove garlic
        2 tsp olive oil
        1 tbsp red wine vinegar
        1/4 cup water
        1/2 tsp salt""",
    ),
    "Ratatouille": (
        67.0,
        1.09,
        """
        # method: simmered, reduced by 10 %
        1 medium eggplant
        2 medium zucchini
        3 medium tomatoes
        1 green bell pepper
        1 medium onion
        2 cloves garlic
        1/4 cup olive oil
        1/2 tsp salt""",
    ),
    "Tabbouleh": (
        127.0,
        1.64,
        """
        1/4 cup bulgur, dry
        2 cups parsley, chopped
        3 medium tomatoes
        1/2 medium cucumber
        1/3 cup olive oil
        3 tbsp lemon juice
        2 scallions
        1 tsp salt""",
    ),
    "Lentil curry": (
        111.0,
        3.68,
        """
        # method: simmered, reduced by 10 %
        1 cup lentils, cooked
        1 medium tomato
        1 medium onion
        1 medium carrot
        2 tbsp olive oil
        1/2 cup coconut milk drink
        1 tbsp curry powder
        1/2 tsp salt""",
    ),
    # the survey reckons its canned beans as cooked ones: ours are leached, and hold more water
    "Black bean salad": (
        94.0,
        3.08,
        """
        1 cup cooked black beans
        3/4 cup corn, canned, drained
        1 cup tomatoes, chopped
        1/2 red bell pepper
        1/4 cup onion, chopped
        2 tsp olive oil
        1/2 avocado
        2 tbsp lime juice""",
    ),
    "Granola, homemade": (
        489.0,
        13.67,
        """
        # method: baked
        3 cups rolled oats
        1 cup almonds
        1/2 cup wheat germ
        1/2 cup sunflower seeds
        1/4 cup maple syrup
        1/4 cup olive oil
        1/4 cup raisins""",
    ),
    "Succotash (corn and limas), raw": (
        98.9,
        5.03,
        """
        250 g corn kernels
        250 g lima beans, fresh, raw""",
    ),
    "Trail mix with nuts and fruit": (
        454.0,
        10.9,
        """
        1/2 cup peanuts
        1/4 cup almonds
        3/4 cup raisins
        1/4 cup sunflower seeds
        1/2 cup dried cranberries""",
    ),
}
# Named here with the reason, and not counted as right.
NOT_REBUILT = {
    "Hummus, home prepared": "the published row has less protein than its chickpeas and sesame "
    "bring in any usual proportion",
    "Salsa, red, homemade": "the published row is a fifth denser than raw tomatoes make it: cooked "
    "down, or with more paste",
}


class Dishes(TestCase):
    def test_rebuilt(self):
        right = []
        for name, (kcal, protein, text) in DISHES.items():
            facts = reckon(
                read_recipe("\n".join(line.strip() for line in text.strip().splitlines())).recipe
            )
            own = facts.per_100_g
            close = (
                abs(own["energy_kcal"].amount / kcal - 1) <= 0.15
                and abs(own["protein_g"].amount / protein - 1) <= 0.20
            )
            with self.subTest(name):
                self.assertEqual([line.text for line in facts.unresolved], [])
                self.assertEqual(
                    close,
                    name not in NOT_REBUILT,
                    (own["energy_kcal"].amount, own["protein_g"].amount),
                )
            if close:
                right.append(name)
        self.assertGreaterEqual(len(right), 8)
