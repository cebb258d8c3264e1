"""Words that warn though no food is found: each row has a line that it hears and one that clears
it, whom it harms and with whom it stops."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.safety.caution_rules import LEVELS
from nutrition.safety.cautions import Situation, cautions_in
from nutrition.safety.word_dangers import dangers_in, word_dangers

FOODS = food_table()
# A line, the row that it is heard by, conditions and a stage of life, and the level.
HEARD = (
    ("2 cups mulethi tea", "licorice_root", (), "adult", "caution"),
    ("2 cups mulethi tea", "licorice_root", ("spironolactone",), "adult", "stop and ask"),
    ("1 cup licorice tea", "licorice_root", (), "pregnant_2", "stop and ask"),
    ("1 tsp hypericum", "st_johns_wort", ("warfarin",), "adult", "stop and ask"),
    ("1 cup kava-kava", "kava", ("liver_disease",), "adult", "stop and ask"),
    ("comfrey salad", "comfrey", (), "adult", "stop and ask"),
    ("1 tbsp borage seed oil", "pyrrolizidine_herbs", (), "pregnant_1", "stop and ask"),
    ("ma-huang powder", "ephedra", (), "adult", "stop and ask"),
    ("a pinch of foxglove", "poisonous_plants", (), "adult", "stop and ask"),
    ("1 cup senna tea", "stimulant_laxatives", ("digoxin",), "adult", "stop and ask"),
    ("1 tsp red yeast rice", "red_yeast_rice", (), "adult", "caution"),
    ("ginseng capsule", "bleeding_herbs", ("warfarin",), "adult", "caution"),
    ("echinacea drops", "immune_herbs", ("kidney_transplant",), "adult", "caution"),
    ("10 apricot kernels", "cyanide_kernels", (), "adult", "stop and ask"),
    ("red kidney beans, slow cooked", "kidney_beans_half_done", (), "adult", "stop and ask"),
    ("3 green potatoes", "green_potatoes", (), "adult", "caution"),
    ("death cap", "deadly_mushrooms", (), "adult", "stop and ask"),
    ("hijiki salad", "arsenic", (), "lactating_0_6", "stop and ask"),
    ("1 tsp lite salt", "salt_substitute_by_words", ("sartan",), "adult", "stop and ask"),
    ("60 g cookie dough", "raw_flour_grave", (), "pregnant_3", "caution"),
    ("a shot of brandy", "alcohol_by_words", (), "pregnant_1", "stop and ask"),
    ("kefir grains", "living_bacteria", ("weak_immunity",), "adult", "stop and ask"),
)
# A line that has a word and is harmless, or of nobody that it harms.
CLEARED = (
    ("200 g boiled cassava", "cassava_raw"),
    ("4 apricots, pitted", "cyanide_kernels"),
    ("green beans and potatoes", "green_potatoes"),
    ("200 g canned kidney beans, slow cooked", "kidney_beans_half_done"),
    ("1 tbsp rum extract", "alcohol_by_words"),
    ("1 tbsp red wine vinegar", "alcohol_by_words"),
    ("Brussels sprouts, raw weight", "raw_sprouts_by_words"),
    ("pasteurized sauerkraut", "unpasteurized"),
    ("cookie dough, baked", "raw_flour_grave"),
    ("lupini beans in a jar, debittered", "lupin_half_done"),
)


def found(line, conditions=(), stage="adult", food=None):
    parts = [Ingredient(FOODS[food], 50.0, said=line)] if food else None
    asked = Situation(
        conditions=frozenset(conditions),
        life_stage=stage,
        lines=() if food else (line,),
        foods=parts,
    )
    return {one.code.removeprefix("words_"): one for one in cautions_in(asked)}


class Words(TestCase):
    def test_there_are_enough_and_each_can_be_heard(self):
        rows = word_dangers()
        self.assertGreaterEqual(sum(row.said.pattern.count("|") + 1 for row in rows.values()), 300)
        for code, row in rows.items():
            with self.subTest(code):
                self.assertIn(row.level, LEVELS)
                self.assertTrue(row.text and row.why and row.refer_to and row.source)
                self.assertIn("{foods}", row.text)
                if row.level == LEVELS[0] or row.stop_with:
                    self.assertTrue(row.client or row.stop_with, "a stop has words for the client")

    def test_a_line_is_heard(self):
        for line, code, conditions, stage, level in HEARD:
            with self.subTest(line, with_=conditions or stage):
                caution = found(line, conditions, stage)[code]
                self.assertEqual(caution.level, level)
                self.assertEqual(caution.names, (line,))
                self.assertEqual(bool(caution.client), level == LEVELS[0])
                self.assertNotIn("{", caution.text + caution.client)

    def test_a_line_is_cleared(self):
        for line, code in CLEARED:
            with self.subTest(line):
                self.assertNotIn(code, dangers_in(line))

    def test_whom_it_does_not_harm_hears_nothing(self):
        self.assertNotIn("alcohol_by_words", found("a shot of brandy"))
        self.assertNotIn("bleeding_herbs", found("ginseng capsule"))
        self.assertNotIn("salt_substitute_by_words", found("1 tsp lite salt", ("gout",)))

    def test_a_food_of_a_kind_with_its_own_rule_is_left_to_it(self):
        codes = found(
            "1 tsp salt substitute", ("ckd_4",), food="salt-substitute-potassium-chloride"
        )
        self.assertIn("salt_substitute", codes)
        self.assertNotIn("salt_substitute_by_words", codes)

    def test_what_is_heated_is_not_raw(self):
        part = Ingredient(FOODS["cornstarch"], 60.0, heated=True, said="cookie dough")
        asked = Situation(life_stage="pregnant_2", foods=[part])
        self.assertNotIn("words_raw_flour_grave", {one.code for one in cautions_in(asked)})

    def test_no_food_of_the_table_alarms_anybody_by_its_name_alone(self):
        """But those that are poisonous or asked about for anybody, by name."""
        told = {
            food.slug
            for food in FOODS
            for code in dangers_in(food.name)
            if not word_dangers()[code].whom and word_dangers()[code].level == LEVELS[0]
        }
        self.assertLessEqual(
            {slug for slug in told if not slug.endswith("-raw") and "sprout" not in slug}, set()
        )
