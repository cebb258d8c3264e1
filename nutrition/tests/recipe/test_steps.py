"""Steps as the cook wrote them, what they use, and what kitchen sense says of their order."""

import re
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from nutrition.recipe.kitchen_notes import notes_on, senses
from nutrition.recipe.method_steps import minutes_of, ovens_in, read_steps, split
from nutrition.tests.thorough import thorough
from nutrition.written.matching import reckon_line


def lines(*texts):
    return [reckon_line(text) for text in texts]


def codes(method, *texts):
    own = lines(*texts)
    return {note.code for note in notes_on(read_steps(method, own), own)}


class Steps(TestCase):
    def test_minutes(self):
        for text, minutes in (
            ("Simmer 20 minutes", 20),
            ("Bake 25 to 35 min", 30),
            ("Roast for an hour", 60),
            ("Soak 4 hours, boil 10 minutes", 250),
            ("Soak overnight", 480),
            ("Stir", 0),
            ("half an hour", 30),
        ):
            with self.subTest(text):
                self.assertEqual(minutes_of(text), minutes)

    def test_what_a_step_needs_and_uses(self):
        own = lines(
            "1 cup millet", "2 leeks, sliced", "3 tbsp lemon juice", "1/4 tsp salt", "2 cups water"
        )
        worked = read_steps(
            "1. Simmer the millet in a pot, 18 minutes.\n2. Sweat the leeks 5 minutes.\n3. Fold in "
            "paprika; lemon.",
            own,
        )
        self.assertEqual([step.uses for step in worked.steps], [(0,), (1,), (2,)])
        self.assertEqual((worked.hand_min, worked.alone_min), (5, 18))
        self.assertEqual((worked.steps[0].heat, worked.steps[0].equipment), ("low heat", ("pot",)))
        self.assertEqual([own[i].text for i in worked.unused], ["1/4 tsp salt"])

    def test_a_food_that_stands_in_no_line(self):
        worked = read_steps("Fry the leeks with fennel and walnuts.", lines("2 leeks"))
        self.assertEqual(worked.steps[0].not_listed, ("fennel", "walnut"))

    def test_everything_the_rest_and_but(self):
        own = lines("8 oz mushrooms", "1 onion", "4 cups vegetable broth", "1 tbsp white miso")
        worked = read_steps(
            "Brown the mushrooms.\nAdd the rest but miso.\nStir in the miso off the heat.", own
        )
        self.assertEqual([step.uses for step in worked.steps], [(0,), (1, 2), (3,)])
        self.assertEqual(read_steps("Shake in a jar.", own).unused, ())

    def test_ovens_in_both_scales(self):
        """As practitioners pair them: 340/170, 350/180, 375/190, 400/200, 430/220 °F/°C."""
        for fahrenheit, celsius in ((340, 170), (350, 180), (375, 190), (400, 200), (430, 220)):
            with self.subTest(fahrenheit):
                self.assertTrue(
                    ovens_in(f"Bake at {fahrenheit} °F.")[0].startswith(
                        f"{fahrenheit} °F = {celsius} °C"
                    )
                )
        self.assertEqual(ovens_in("Roast at 180 C"), ("180 °C = 350 °F, gas mark 4",))
        self.assertEqual(ovens_in("gas mark 6"), ("gas mark 6 = 400 °F = 200 °C",))

    def test_a_paragraph_is_split(self):
        self.assertEqual(split("Boil it. Drain it; salt it."), ["Boil it.", "Drain it", "salt it."])

    @thorough
    @given(st.text(max_size=200))
    def test_no_text_breaks_it(self, text):
        own = lines("1 cup millet")
        notes_on(read_steps(text, own), own)


class KitchenSense(TestCase):
    def test_there_are_enough_and_each_can_be_read(self):
        self.assertGreaterEqual(len(senses()), 40)
        for sense in senses():
            with self.subTest(sense.code):
                for pattern in (sense.says, sense.before, sense.missing):
                    re.compile(pattern)
                self.assertTrue(sense.text and sense.why and sense.source)
                self.assertTrue(sense.food or sense.any_food or sense.says)

    def test_orders_it_forbids(self):
        for code, wrong, right, texts in (
            (
                "citrus_before_simmer",
                "Add the lemon juice.\nSimmer 30 minutes.",
                "Simmer 30 minutes.\nAdd the lemon juice.",
                ["1 cup red lentils", "2 tbsp lemon juice"],
            ),
            (
                "garlic_first",
                "Fry the garlic.\nSimmer the lentils 40 minutes.",
                "Simmer the lentils 40 minutes.\nAdd the garlic.",
                ["1 cup lentils", "2 cloves garlic"],
            ),
            (
                "mushrooms_salted_first",
                "Salt the mushrooms.\nFry until brown.",
                "Fry the mushrooms until brown.\nSalt them.",
                ["8 oz mushrooms", "1/4 tsp salt"],
            ),
            (
                "sulfur_salt_before_heat",
                "Add the kala namak.\nFry the tofu.",
                "Fry the tofu.\nAdd the kala namak.",
                ["1/4 tsp kala namak", "200 g firm tofu"],
            ),
            (
                "starch_not_cooked_out",
                "Stir in the cornstarch.",
                "Stir in the cornstarch.\nStir five minutes until clear.",
                ["1 tbsp cornstarch", "1 cup soy milk"],
            ),
            (
                "kidney_beans_boil",
                "Simmer the beans until soft.",
                "Soak the beans, then boil 30 minutes in fresh water.",
                ["1 cup kidney beans, dry"],
            ),
            (
                "miso_boiled",
                "Stir in the miso.\nBoil 10 minutes.",
                "Boil 10 minutes.\nStir in the miso.",
                ["1 tbsp white miso", "1 cup kale"],
            ),
            (
                "herbs_early",
                "Add the dill.\nSimmer 20 minutes.",
                "Simmer 20 minutes.\nAdd the dill.",
                ["2 tbsp dill, chopped", "1 cup millet"],
            ),
            (
                "salt_before_beans_soft",
                "Add the beans and vinegar.\nSimmer 60 minutes until soft.",
                "Simmer 60 minutes until soft.\nAdd vinegar.",
                ["1 cup white beans, dry", "1 tbsp apple cider vinegar"],
            ),
            (
                "flax_egg_rest",
                "Mix the flaxseed to bind.",
                "Mix the flaxseed to bind; let it stand 5 minutes.",
                ["1 tbsp ground flaxseed"],
            ),
            (
                "bay_leaf_left",
                "Simmer with the bay leaf.",
                "Simmer with the bay leaf, then remove it.",
                ["1 bay leaf", "1 cup lentils"],
            ),
            (
                "roast_not_turned",
                "Roast the carrots 35 minutes.",
                "Roast the carrots 35 minutes, turn at half time.",
                ["4 carrots"],
            ),
        ):
            with self.subTest(code):
                self.assertIn(code, codes(wrong, *texts))
                self.assertNotIn(code, codes(right, *texts))
