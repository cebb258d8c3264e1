"""Which food a name means: every word accounted for, contradictions excluded, doubts said."""

from unittest import TestCase

from nutrition.composition.food_names import STAND_IN, food_names, other_names
from nutrition.portions.problem import BadProblem
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.requests.balance import read_problem
from nutrition.tests.thorough import thorough
from nutrition.written.finding import find_foods, surely_meant
from nutrition.written.matching import reckon_line
from nutrition.written.naming import name_food


def named(phrase, remark=""):
    return name_food(phrase, food_names(), remark=remark)


class EveryWord(TestCase):
    def test_a_word_that_is_not_accounted_for_asks(self):
        for phrase in ("granite kale", "kale from the moon base", "tofu cheesecake", "chair"):
            with self.subTest(phrase):
                found = named(phrase)
                self.assertIsNone(found.food)
                self.assertTrue(found.why)

    def test_a_word_that_contradicts_a_row_excludes_it(self):
        for said, other in (
            ("nutritional yeast, unfortified", "nutritional-yeast-unfortified"),
            ("peanuts, dry roasted, unsalted", "peanuts-dry-roasted-unsalted"),
            ("peanuts, dry roasted, salted", "peanuts-dry-roasted-salted"),
            ("black beans, canned, with liquid", "black-beans-canned-undrained"),
            ("couscous, dry", "couscous-dry"),
            ("couscous, prepared", "couscous-cooked"),
            ("fresh oregano", "oregano-fresh"),
            ("sprouted lentils", "lentil-sprouts-raw"),
            ("whole wheat penne", "whole-wheat-pasta-dry"),
            ("smoked tofu", "smoked-tofu"),
            ("lite coconut milk", "coconut-milk-light-canned"),
        ):
            with self.subTest(said):
                name, _comma, remark = said.partition(",")
                self.assertEqual(named(name, remark).food.slug, other)
        for said in ("smoked kale", "sprouted walnuts", "unsalted soy sauce", "dried tofu cream"):
            with self.subTest(said):
                self.assertIsNone(named(said).food)

    def test_a_misspelling_is_mended_only_where_one_word_is_near_and_is_said(self):
        found = named("chickpaes")
        self.assertEqual(found.food.slug, "chickpeas-cooked")
        self.assertFalse(found.sure)
        self.assertIn("“chickpae” read as “chickpea”", found.notes)
        # a food's own name, another first letter, a short word, a word for something else
        for phrase in ("prosecco", "granola", "sake", "honey", "bale", "juniperr oak"):
            with self.subTest(phrase):
                self.assertFalse(any("read as" in note for note in named(phrase).notes))

    def test_a_stand_in_is_offered_and_never_taken(self):
        for name, other in other_names().items():
            if other.kind == STAND_IN:
                with self.subTest(" ".join(name)):
                    found = named(" ".join(name))
                    self.assertIsNone(found.food)
                    self.assertIn("may stand in for it", found.why)
                    self.assertTrue(found.candidates)

    def test_vague_words_take_the_likeliest_and_ask(self):
        for word in ("nuts", "seeds", "beans", "greens", "oil", "milk", "bread", "tofu"):
            with self.subTest(word):
                found = named(word)
                self.assertIsNotNone(found.food)
                self.assertFalse(found.sure)

    @thorough
    def test_every_other_name_leads_to_a_food_without_a_doubt(self):
        for name, other in other_names().items():
            if other.kind in ("same", "usual") and name != ("soya",):
                with self.subTest(" ".join(name)):
                    self.assertTrue(named(" ".join(name)).sure or name == ("yoghurt",))

    def test_the_same_matcher_everywhere(self):
        for phrase in ("honey", "chair", "unicorn steak", "beef burger"):
            with self.subTest(phrase):
                asked = {"parts": [{"food": phrase}], "targets": {"protein_g": {"aim": 10}}}
                with self.assertRaises(BadProblem):
                    read_problem(asked, lambda name: "")
                self.assertIsNone(reckon_line(f"100 g {phrase}").food)
                self.assertIsNone(surely_meant(phrase))
        self.assertEqual(find_foods("cooked rice", 3)[0].food.slug, "white-rice-cooked")
        self.assertEqual(find_foods("galang", 3, typing=True)[0].food.slug, "galangal-raw")


class DryOrCooked(TestCase):
    def test_steps_after_the_amount_are_steps(self):
        """What it makes, and how it is cooked then: the amount is dry."""
        for text, slug, grams in (
            ("1 cup rice (makes 3 cups cooked)", "white-rice-dry", 185),
            ("8 oz spaghetti, cooked according to package directions", "pasta-white-dry", 226.8),
            ("1 cup barley, rinsed and cooked until tender", "barley-pearled-dry", 200),
            ("1 cup navy beans, simmered for an hour", "navy-beans-dry", 208),
            ("1 cup dry quinoa, cooked", "quinoa-dry", 170),
            ("100 g quinoa (dry weight)", "quinoa-dry", 100),
            ("1 cup uncooked amaranth", "amaranth-dry", 193),
            ("1/2 cup millet, yields 2 cups cooked", "millet-dry", 100),
            ("300 g cooked (about 100 g dry) quinoa", "quinoa-cooked", 300),
            ("2 cups cooked barley (from 1 cup dry)", "barley-pearled-cooked", 314),
        ):
            with self.subTest(text):
                line = reckon_line(text)
                self.assertEqual(line.food and line.food.slug, slug, line.why)
                self.assertTrue(line.sure)
                self.assertAlmostEqual(line.grams, grams, delta=0.03 * grams)

    def test_how_it_is_cooked_then_is_a_step(self):
        for text, steps in (
            ("1 cup rice, rinsed and cooked until tender", ("boiled_kept",)),
            ("8 oz penne, boiled for 9 minutes", ("boiled_drained",)),
            ("1 cup millet", ()),
        ):
            with self.subTest(text):
                self.assertEqual(reckon_line(text).steps, steps)

    def test_words_that_conflict_ask_and_take_no_third_row(self):
        for text, dry, cooked in (
            ("1 cup dry cooked chickpeas", "chickpeas-dry", "chickpeas-cooked"),
            ("1 cup cooked dried quinoa", "quinoa-dry", "quinoa-cooked"),
        ):
            with self.subTest(text):
                line = reckon_line(text)
                self.assertIsNone(line.food)
                self.assertEqual(
                    line.why, "dry and cooked are both said: which was it when it was measured?"
                )
                self.assertEqual({one.food.slug for one in line.candidates}, {dry, cooked})


class DishOrSpice(TestCase):
    def test_by_the_cup_it_is_the_dish(self):
        for text, slug, sure in (
            ("1 cup sambar", "sambar", True),
            ("2 tsp sambar powder", "sambar-powder", True),
            ("2 cups chili", "vegetarian-chili-canned", False),
            ("1 chili, minced", "chili-pepper-red-raw", True),
            ("1 cup soup", "lentil-soup-canned", False),
            ("1 cup cereal", "bran-flakes-cereal", False),
            ("1 cup curd", "soy-yogurt-unsweetened", False),
            ("1 cup labneh", "soy-yogurt-unsweetened", False),
            ("2 tbsp pesto", "pesto-vegan", False),
            ("1 sheet puff pastry", "puff-pastry", False),
        ):
            with self.subTest(text):
                line = reckon_line(text)
                self.assertEqual((line.food and line.food.slug, line.sure), (slug, sure))

    def test_one_amount_for_two_foods_asks(self):
        line = reckon_line("1/2 cup walnuts and chia")
        self.assertIsNone(line.food)
        self.assertEqual(line.several, ("0.25 cup walnuts", "0.25 cup chia"))
        self.assertEqual(
            reckon_line("1/4 tsp each thyme, sage and salt").several,
            ("1/4 tsp thyme", "1/4 tsp sage", "1/4 tsp salt"),
        )
        # water is no food: it is said and not counted
        line = reckon_line("1 tbsp ground flaxseed + 3 tbsp water")
        self.assertEqual((line.food.slug, line.sure), ("flaxseed-ground", True))
        self.assertIn("not counted: the 3 tbsp water", line.assumed)

    def test_the_row_that_says_so(self):
        for text, slug in (
            ("1 cup lupini beans in brine", "lupini-beans-in-brine-drained"),
            ("1 baked potato with skin", "potato-with-skin-baked"),
            ("1 tsp kosher salt", "coarse-salt"),
            ("2 tbsp oil-free hummus", "hummus-oil-free"),
            ("1 cup wakame, dried", "wakame-dried"),
            ("1 cup ripe jackfruit", "jackfruit-raw"),
        ):
            with self.subTest(text):
                line = reckon_line(text)
                self.assertEqual((line.food and line.food.slug, line.sure), (slug, True))
        self.assertIsNone(reckon_line("1/4 cup low-fat hummus").food)


class Amounts(TestCase):
    def test_what_was_dropped_before_is_read_or_asked_about(self):
        for text, grams in (
            ("1 medium onion, half of it", 55.0),
            ("1 tbsp tahini, plus 1 tsp", 20.0),
            ("1,000 g potatoes", 1000.0),
            ("1,5 cups oats", 121.5),
            ("1 glass of orange juice (200 ml)", 209.0),
        ):
            with self.subTest(text):
                self.assertAlmostEqual(reckon_line(text).grams, grams, delta=0.05 * grams)
        for text, why in (
            ("-1 cup rice", "below zero"),
            ("0 cups rice", "nothing"),
            ("99999 g tofu", "more than a kitchen cooks"),
            ("1.000 g potatoes", "decimal point"),
        ):
            with self.subTest(text):
                line = reckon_line(text)
                self.assertIsNone(line.grams)
                self.assertIn(why, line.why)

    def test_one_amount_for_several_foods_says_what_to_write(self):
        self.assertEqual(
            reckon_line("1/2 tsp each cumin and coriander").several,
            ("1/2 tsp cumin", "1/2 tsp coriander"),
        )
        facts = reckon(Recipe(("1 cup each carrots, celery and leeks [method: roasted]",)))
        self.assertEqual(
            facts.lines[0].several,
            tuple(f"1 cup {food} [method: roasted]" for food in ("carrots", "celery", "leeks")),
        )

    def test_spices_and_salt_without_an_amount_are_by_eye(self):
        for text in ("salt", "black pepper", "water to thin", "paprika, for dusting"):
            with self.subTest(text):
                line = reckon_line(text)
                self.assertEqual((line.basis, line.low), ("by eye", 0.0))
                self.assertIn("weigh it to know", " ".join(line.assumed))
        self.assertIsNone(reckon_line("kale").grams)


class Steps(TestCase):
    """Words that are methods work. Factors: common practice, no source."""

    def cooked(self, *lines, **kept):
        return reckon(Recipe(lines, **kept)).cooked

    def test_pressed_squeezed_wilted(self):
        for text, least, most in (
            ("400 g firm tofu, pressed", 300, 360),
            ("100 g spinach, wilted", 60, 95),
            ("300 g frozen spinach, thawed and squeezed", 130, 230),
            ("1 kg sweet potato, roasted", 700, 900),
        ):
            with self.subTest(text):
                (done,) = self.cooked(text)
                self.assertTrue(least <= done.grams <= most, done.grams)

    def test_dry_soy_mince_takes_up_water_and_is_wrung_out(self):
        (soaked,) = self.cooked("100 g dry soy mince, soaked")
        (wrung,) = self.cooked("100 g dry soy mince, rehydrated and squeezed")
        self.assertAlmostEqual(wrung.grams, 220, delta=25)
        self.assertLess(wrung.grams, soaked.grams)
        kept = wrung.profile["potassium_mg"].amount / soaked.profile["potassium_mg"].amount
        self.assertTrue(0.6 < kept < 0.9)

    def test_seaweed_and_dried_mushrooms_grow_and_leach(self):
        (wakame,) = self.cooked("10 g dried wakame, soaked")
        (shiitake,) = self.cooked("10 g dried shiitake, soaked")
        self.assertTrue(70 <= wakame.grams <= 110 and 35 <= shiitake.grams <= 55)
        raw = reckon_line("10 g dried wakame").food.profile(10)["sodium_mg"].amount
        self.assertLess(wakame.profile["sodium_mg"].amount, 0.5 * raw)

    def test_soaked_then_boiled_is_weighed_once(self):
        (one,) = self.cooked("100 g dried chickpeas, soaked [method: boiled]")
        (other,) = self.cooked("100 g dried chickpeas [method: boiled]")
        self.assertAlmostEqual(one.grams, other.grams)
        self.assertLess(one.profile["potassium_mg"].amount, other.profile["potassium_mg"].amount)

    def test_grain_without_a_water_line_takes_up_what_its_yield_says(self):
        for text, method, least, most in (
            ("100 g quinoa", "boiled_kept", 270, 320),
            ("100 g red lentils", "simmered", 240, 310),
            ("200 g dried chickpeas", "pressure_cooked", 420, 520),
        ):
            with self.subTest(text):
                facts = reckon(Recipe((text,), method=method))
                self.assertTrue(least <= facts.batch.grams <= most, facts.batch.grams)
                self.assertIn("no water is among the lines", facts.cooked[0].assumed[0])
        with_water = reckon(Recipe(("100 g quinoa", "200 g water"), method="boiled_kept"))
        self.assertLess(with_water.batch.grams, 300)

    def test_what_cannot_be_is_asked_about(self):
        facts = reckon(Recipe(("100 g olive oil [left: 150 %]",)))
        self.assertIn("more than all of it", facts.unresolved[0].why)
        self.assertTrue(reckon(Recipe(("200 g carrots",), batch_g=5)).asks_what_was_left_out)
        self.assertFalse(reckon(Recipe(("200 g carrots",), batch_g=180)).asks_what_was_left_out)


class Unknowns(TestCase):
    def test_an_unknown_that_cannot_matter_is_not_announced(self):
        little = reckon(Recipe(("1 kg tempeh", "6 g gochujang")))
        protein = little.batch["protein_g"]
        self.assertLess(protein.known, 0.995)
        self.assertTrue(protein.complete)
        self.assertLess(protein.could_add, 0.01 * protein.amount)
        much = reckon(Recipe(("50 g cooked lentils", "100 g gochujang")))
        self.assertFalse(much.batch["protein_g"].complete)
        # of what nobody can say how much it could be, nothing is taken for little
        self.assertFalse(little.batch["iodine_ug"].complete)
