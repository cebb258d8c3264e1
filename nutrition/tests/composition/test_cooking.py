"""Through the kitchen: weights, what is poured off, measured batches, methods in the text."""

from dataclasses import replace
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from nutrition.composition.cooking import cook
from nutrition.composition.cooking_methods import (
    METHOD_WORDS,
    UnknownMethod,
    as_cooked,
    before_cooking,
    raw_for_cooked,
    read_method,
)
from nutrition.composition.foods import food_table
from nutrition.composition.profile import INDEX
from nutrition.formats.recipe_files import read_recipe
from nutrition.recipe.model import Recipe, UnreadableRecipe
from nutrition.recipe.notation import own_method
from nutrition.recipe.reckoning import reckon
from nutrition.recipe.serving_measure import UnreadableServing, measured
from nutrition.requests.recipe_answer import as_text, report
from nutrition.written.matching import reckon_line

FOODS = food_table()


def done(slug, grams, method):
    return cook(FOODS[slug], grams, grams, grams, method)


class Foods(TestCase):
    def test_dry_goods_grow_and_vegetables_shrink(self):
        for slug, method, least, most in (
            ("millet-dry", "boiled_drained", 280, 360),
            ("chickpeas-dry", "boiled_drained", 210, 260),
            ("quinoa-dry", "boiled_drained", 270, 320),
            ("carrots-raw", "roasted", 55, 85),
            ("mushrooms-white-raw", "pan_fried_dry", 45, 75),
            ("spinach-raw", "steamed", 65, 95),
            ("tofu-firm", "squeezed", 75, 92),
            ("chickpeas-dry", "soaked", 190, 240),
        ):
            with self.subTest(slug, method=method):
                self.assertTrue(least <= done(slug, 100, method).grams <= most)

    def test_what_is_poured_off_takes_its_share(self):
        kept, drained = (
            done("potato-no-skin-raw", 200, method).profile
            for method in ("simmered", "boiled_drained")
        )
        self.assertLess(drained["potassium_mg"].amount, kept["potassium_mg"].amount)
        self.assertEqual(
            kept["potassium_mg"].amount,
            FOODS["potato-no-skin-raw"].profile(200)["potassium_mg"].amount,
        )
        self.assertEqual(done("water", 500, "boiled_drained").grams, 0)
        self.assertEqual(done("water", 500, "simmered").grams, 500)
        self.assertLess(done("salt", 5, "boiled_drained").grams, 2)

    def test_what_is_cooked_already_stays(self):
        beans = done("white-beans-cooked", 150, "roasted")
        self.assertEqual((beans.grams, beans.assumed), (150, ("cooked already: taken as it is",)))
        self.assertEqual(done("olive-oil", 10, "roasted").grams, 10)

    def test_before_and_after(self):
        self.assertAlmostEqual(
            done(
                "millet-dry",
                raw_for_cooked(FOODS["millet-dry"], 320, "boiled_drained"),
                "boiled_drained",
            ).grams,
            320,
        )
        self.assertIsNone(raw_for_cooked(FOODS["olive-oil"], 10, "boiled_drained"))
        dry, grams = before_cooking(FOODS["millet-cooked"], 320)
        self.assertEqual(dry.slug, "millet-dry")
        self.assertAlmostEqual(done("millet-dry", grams, "boiled_drained").grams, 320)
        self.assertIn(
            "320 g cooked come from about 100 g dry", reckon_line("320 g cooked millet").assumed
        )
        self.assertIsNone(before_cooking(FOODS["olive-oil"], 10))

    @given(
        st.sampled_from([food.slug for food in FOODS]),
        st.sampled_from(list(METHOD_WORDS)),
        st.floats(1, 2000),
    )
    def test_laws(self, slug, method, grams):
        once, twice = done(slug, grams, method), done(slug, 2 * grams, method)
        self.assertAlmostEqual(twice.grams, 2 * once.grams, places=6)
        raw = FOODS[slug].profile(grams)
        for key in ("energy_kcal", "protein_g", "potassium_mg", "vitamin_c_mg"):
            self.assertLessEqual(once.profile[key].amount, raw[key].amount * (1 + 1e-9) + 1e-9)
            self.assertAlmostEqual(
                twice.profile[key].amount, 2 * once.profile[key].amount, places=5
            )
        self.assertTrue(once.low <= once.grams + 1e-9 <= once.high + 2e-9)


class Methods(TestCase):
    def test_names(self):
        for words, code in (
            ("boiled, drained", "boiled_drained"),
            ("Roasted", "roasted"),
            ("sautéed", "pan_fried_oil"),
            ("steam-fried", "pan_fried_water"),
            ("boiled_kept", "boiled_kept"),
        ):
            self.assertEqual(read_method(words), code)
        with self.assertRaisesRegex(UnknownMethod, "steamed"):
            read_method("enchanted")
        self.assertEqual(own_method("2 carrots [method: roasted]"), ("2 carrots", "roasted"))
        self.assertEqual(own_method("2 carrots [a note]"), ("2 carrots [a note]", ""))

    def test_a_recipe_cooked_as_a_whole_and_line_by_line(self):
        head = (
            "# servings: 4 to 6\n# yield: 5 x 1/2 cup heaping\n# method: boiled, drained\n# "
            "measured: 900 g"
        )
        facts = reckon(
            read_recipe(
                f"{head}\n1 cup pearl barley, dry\n2 medium carrots [method: roasted]\n6 cups water"
            ).recipe
        )
        data = report(facts).data()
        self.assertAlmostEqual(data["yield"].pop("computed_grams"), 600 + 122 * 0.7, places=3)
        wanted = {
            "claimed": "4 to 6",
            "measured_grams": 900,
            "servings": 5,
            "serving_measure": "1/2 cup heaping",
        }
        self.assertEqual(data["yield"], wanted)
        self.assertAlmostEqual(facts.computed_g, 600 + 122 * 0.7, places=3)
        self.assertAlmostEqual(facts.serving.grams, 180)
        self.assertEqual([line["cooked_grams"] for line in data["lines"]], [600, 85.4, 0])
        self.assertIn("200 g weigh 600 g cooked", data["lines"][0]["assumptions"][-1])
        self.assertTrue(facts.asks_what_was_left_out)
        self.assertIn("was a line left out", as_text(facts))

    def test_simmered_down(self):
        lines = ("400 g carrots", "600 g vegetable broth")
        usual, half = (
            reckon(Recipe(lines, method="simmered")),
            reckon(read_recipe("# method: simmered, reduced by half\n" + "\n".join(lines)).recipe),
        )
        self.assertAlmostEqual(usual.batch.grams, 900)
        self.assertAlmostEqual(half.batch.grams, 500)
        self.assertEqual(usual.batch["energy_kcal"].amount, half.batch["energy_kcal"].amount)

    def test_what_it_weighed_has_a_unit(self):
        for said, grams in (("620 g", 620), ("620", 620), ("1.2 kg", 1200), ("2 lb", 907.18474)):
            self.assertAlmostEqual(
                read_recipe(f"# measured: {said}\n1 cup millet").recipe.batch_g, grams
            )
        with self.assertRaisesRegex(UnreadableRecipe, "needs a weight"):
            read_recipe("# measured: 1.2 l\n1 cup millet")

    def test_what_is_no_method_says_so(self):
        for head in (
            "# method: enchanted",
            "# method: simmered, reduced by 140 %",
            "# yield: many",
        ):
            text = f"{head}\n1 cup millet"
            with self.subTest(text), self.assertRaises(UnreadableRecipe):
                read_recipe(text)

    def test_a_line_nobody_can_cook_does_not_refuse_the_file(self):
        recipe = read_recipe("2 leeks [method: enchanted]\n1 cup millet").recipe
        facts = reckon(recipe)
        line = facts.lines[0]
        self.assertTrue(line.resolved)
        self.assertFalse(line.sure)
        self.assertIn("how it is cooked is not known here: counted as it went in", line.assumed)
        self.assertAlmostEqual(facts.cooked[0].grams, line.grams)

    def test_boiled_keeps_the_water_that_is_taken_up_and_pours_off_the_rest(self):
        for slug, method in (
            ("rolled-oats-dry", "boiled_kept"),
            ("red-lentils-dry", "boiled_kept"),
            ("white-rice-dry", "boiled_kept"),
            ("lentils-dry", "boiled_drained"),
            ("pasta-white-dry", "boiled_drained"),
            ("potato-with-skin-raw", "boiled_drained"),
        ):
            with self.subTest(slug):
                self.assertEqual(as_cooked(FOODS[slug], "boiled"), method)
        self.assertEqual(as_cooked(FOODS["broccoli-raw"], "cooked"), "steamed")
        porridge = reckon(Recipe(("1 cup rolled oats", "2 cups water"), method="boiled"))
        oats = reckon(Recipe(("1 cup rolled oats",)))
        self.assertAlmostEqual(
            porridge.batch["potassium_mg"].amount, oats.batch["potassium_mg"].amount, delta=1
        )
        # 81 g of oats and 473 g of water, less a twentieth as steam
        self.assertAlmostEqual(porridge.batch.grams, 527, delta=6)

    def test_potassium_that_boiled_vegetables_keep(self):
        for slug, kept in (
            ("cauliflower-raw", 0.45),
            ("carrots-raw", 0.70),
            ("broccoli-raw", 0.88),
        ):
            raw = FOODS[slug].per_100_g("potassium_mg")
            after = done(slug, 100, "boiled_drained").profile["potassium_mg"]
            with self.subTest(slug):
                self.assertAlmostEqual(after.amount / raw, kept, places=2)
                food, at = FOODS[slug], INDEX["potassium_mg"]
                # a quarter more or less leaches, as long as no more than all of it stays
                self.assertAlmostEqual(after.low, food.low[at] * kept * 0.75, delta=0.5)
                most = food.high[at] * min(kept * 1.25, 1.0)
                self.assertAlmostEqual(after.high, most, delta=0.5)

    def test_soaked_bulgur(self):
        self.assertAlmostEqual(done("bulgur-dry", 100, "soaked").grams, 280)

    def test_rinsed_brine(self):
        for slug in ("sauerkraut-canned", "capers-drained", "olives-green-in-brine"):
            before = FOODS[slug].per_100_g("sodium_mg")
            after = done(slug, 100, "rinsed").profile["sodium_mg"]
            with self.subTest(slug):
                self.assertAlmostEqual(after.amount / before, 0.65, places=2)
                for key, best, least, most in (
                    ("sodium_mg", 0.65, 0.4, 0.9),
                    ("potassium_mg", 0.85, 0.7, 1.0),
                ):
                    food, at = FOODS[slug], INDEX[key]
                    amount = done(slug, 100, "rinsed").profile[key]
                    self.assertAlmostEqual(amount.amount, food.values[at] * best, delta=0.1)
                    self.assertAlmostEqual(amount.low, food.low[at] * least, delta=0.1)
                    self.assertAlmostEqual(amount.high, food.high[at] * most, delta=0.1)

    def test_a_strained_nut_milk_is_mostly_water(self):
        lines = ("1 cup almonds", "4 cups water")
        for method in ("soaked_squeezed", "strained"):
            milk = reckon(Recipe(lines, method=method))
            with self.subTest(method):
                # 946 g of water, of which 93 % passes, and 45 % of 143 g of almonds
                self.assertAlmostEqual(milk.batch.grams, 946 * 0.93 + 143 * 0.45, delta=15)
                nuts = FOODS["almonds"].profile(143)
                passed = milk.batch["protein_g"]
                self.assertAlmostEqual(passed.amount / nuts["protein_g"].amount, 0.45, delta=0.02)
                self.assertLess(passed.low / nuts["protein_g"].amount, 0.33)
                self.assertGreater(passed.high / nuts["protein_g"].amount, 0.57)
                self.assertLess(milk.batch["energy_kcal"].amount / milk.batch.grams, 0.6)
        food = FOODS["almonds"]
        passed = done("almonds", 100, "strained")
        self.assertEqual((passed.grams, passed.low, passed.high), (45, 30, 60))
        water = done("water", 100, "strained")
        self.assertEqual((water.grams, water.low, water.high), (93, 85, 98))
        for key, best, least, most in (
            ("protein_g", 0.45, 0.30, 0.60),
            ("fiber_g", 0.08, 0.02, 0.2),
            ("magnesium_mg", 0.45, 0.25, 0.65),
        ):
            at, amount = INDEX[key], passed.profile[key]
            with self.subTest(key):
                self.assertAlmostEqual(amount.amount, food.values[at] * best, places=2)
                self.assertAlmostEqual(amount.low, food.low[at] * least, places=2)
                self.assertAlmostEqual(amount.high, food.high[at] * most, places=2)
        # under one and a half grams of water to a gram of nuts they were soaked and wrung out
        for water, milk in ((140, False), (160, True)):
            lines = ("100 g almonds", f"{water} g water")
            batch = reckon(Recipe(lines, method="soaked_squeezed")).batch
            self.assertEqual(batch.grams > 100 * 0.45 + water * 0.8, milk, water)
        squash = reckon(Recipe(("500 g zucchini, grated",), method="squeezed"))
        self.assertAlmostEqual(squash.batch.grams, 500 * 0.75, delta=5)

    def test_methods_of_a_kitchen(self):
        for slug, method, factor in (
            ("onion-raw", "caramelized", 0.35),
            ("tomato-raw", "dehydrated", 0.12),
            ("apple-with-skin-raw", "dehydrated", 0.2),
            ("tomato-raw", "reduced", 0.6),
            ("tofu-firm", "marinated", 1.03),
        ):
            with self.subTest(slug, method=method):
                self.assertAlmostEqual(done(slug, 100, method).grams, 100 * factor, places=1)
        for words, code in (
            ("dehydrated", "dehydrated"),
            ("cooked down", "reduced"),
            ("caramelised", "caramelized"),
            ("marinated", "marinated"),
            ("rinsed and drained", "rinsed"),
        ):
            self.assertEqual(read_method(words), code)


class WhatIsEaten(TestCase):
    def test_left_in_the_dish(self):
        facts = reckon(
            Recipe(
                (
                    "1/2 cup tamari [left: 80 %]",
                    "200 g firm tofu",
                    "3 tbsp olive oil [left behind: half] [method: raw]",
                )
            )
        )
        whole = reckon(Recipe(("1/2 cup tamari", "200 g firm tofu", "3 tbsp olive oil")))
        share = (facts.batch["sodium_mg"].amount - 28) / (whole.batch["sodium_mg"].amount - 28)
        self.assertAlmostEqual(share, 0.2, delta=0.01)
        self.assertAlmostEqual(facts.cooked[2].grams, whole.cooked[2].grams / 2)
        self.assertIn("left in the dish", facts.cooked[0].assumed[-1])

    def test_alcohol(self):
        wine, cooked = FOODS["red-wine"].profile(150), done("red-wine", 150, "simmered").profile
        self.assertTrue(0.3 < cooked["energy_kcal"].amount / wine["energy_kcal"].amount < 0.55)
        self.assertEqual(cooked["potassium_mg"].amount, wine["potassium_mg"].amount)

    def test_a_serving_by_its_measure(self):
        facts = reckon(Recipe(("300 g cooked lentils", "300 g cooked millet"), servings=4))
        for text, count in (
            ("120 g", 5),
            ("5 pieces", 5),
            ("1/6 of the pan", 6),
            ("a quarter of the pot", 4),
            ("20 % of the batch", 5),
        ):
            with self.subTest(text):
                self.assertAlmostEqual(measured(facts, text).count, count)
        self.assertIn("should weigh 120 g each", measured(facts, "5 pieces").check)
        portioned = reckon(replace(facts.recipe, servings=5, serving_measure="5 x 1/2 cup heaping"))
        self.assertAlmostEqual(portioned.volume_ml, 5 * 118.294 * 1.25, places=1)
        self.assertAlmostEqual(portioned.computed_ml, facts.volume_ml)
        self.assertEqual(
            portioned.asks_about_volume, abs(portioned.volume_ml / facts.volume_ml - 1) > 0.15
        )
        self.assertIn(
            "5 of “1/2 cup heaping” came out, 120 g each",
            measured(portioned, "5 x 1/2 cup heaping").check,
        )
        level, heaping = (measured(facts, text).grams for text in ("1/2 cup", "1/2 cup heaping"))
        self.assertAlmostEqual(heaping / level, 1.25)
        for wrong in ("a lot", "0 pieces", "1 stalk", ""):
            with self.subTest(wrong), self.assertRaises(UnreadableServing):
                measured(facts, wrong)
