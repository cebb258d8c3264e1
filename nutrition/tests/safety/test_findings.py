"""What an audit of targets, cautions and balance found, each as it should be: what somebody with
this body, these conditions and these meals is told, and what is not said without need."""

from itertools import product
from unittest import TestCase

from nutrition.composition.food_mosts import most_of
from nutrition.composition.foods import food_table
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.requests.balance import read_problem
from nutrition.requests.balance_answer import as_text as balance_text
from nutrition.requests.balance_answer import solve
from nutrition.requests.cautions import CautionsAnswer, as_text, report
from nutrition.requests.day import report as day_report
from nutrition.requests.person import read_asked
from nutrition.safety.caution_rules import rules
from nutrition.safety.cautions import cautions_in
from nutrition.safety.situations import planned_situation
from nutrition.targets.conditions import conditions
from nutrition.targets.day import day_targets
from nutrition.targets.person import GOAL_WORDS, OutOfRange, Person, Referred
from nutrition.tests.thorough import thorough

FOODS = food_table()
SOMEONE = {"sex": "male", "age_years": 45, "height_cm": 178, "weight_kg": 78}
WOMAN = SOMEONE | {"sex": "female", "height_cm": 165, "weight_kg": 66}


def told(*lines, conditions=(), **changes):
    """Codes by level for a person and one or more meals, each a list of lines."""
    person = SOMEONE | changes
    if conditions:
        person["conditions"] = list(conditions)
    meals = [list(one) if not isinstance(one, str) else [one] for one in lines]
    data = report({"person": person, "meals": meals}).data()
    return {row["code"]: row["level"] for row in data["cautions"]}, data


# Conditions, what is eaten, the caution that must stand, and its level.
STANDS = (
    (
        ("heart_failure", "potassium_raising", "hypertension"),
        ("1 kg boiled potatoes", "300 g cooked spinach", "300 g cooked white beans", "3 bananas"),
        "day_potassium_held_back",
        "stop",
    ),
    (
        ("heart_failure", "spironolactone"),
        ("2 kg boiled potatoes", "200 g dried apricots", "1 cup tomato paste"),
        "day_potassium_held_back",
        "stop",
    ),
    (("ace_inhibitor", "sartan"), ("1.5 kg boiled potatoes",), "day_potassium_held_back", "stop"),
    (("sartan",), ("900 g boiled potatoes", "2 bananas"), "day_potassium_much", "caution"),
    (
        ("ckd_4",),
        ("200 g pumpkin seeds", "400 g cooked lentils"),
        "day_phosphorus_far_over_the_aim",
        "stop",
    ),
    (("hemodialysis",), ("1 kg boiled potatoes",), "day_potassium", "stop"),
    (("warfarin",), ("300 g cooked kale",), "greens_on_warfarin", "caution"),
    (("warfarin",), ("1/2 cup natto",), "natto_and_warfarin", "stop"),
    (("warfarin",), ("1 cup raw kale",), "greens_on_warfarin", "caution"),
    (("texture_pureed",), ("1 cup cooked chickpeas",), "not_smooth", "stop"),
    (("texture_pureed",), ("1 cup cooked brown rice",), "not_smooth", "stop"),
    (("texture_pureed",), ("1 cup grapes",), "hard_dry_or_stringy", "stop"),
    (("texture_soft",), ("1 apple",), "hard_dry_or_stringy", "stop"),
    (("texture_soft",), ("1 cup raw broccoli",), "hard_dry_or_stringy", "stop"),
    (("texture_soft",), ("1 cup corn kernels, cooked",), "hard_dry_or_stringy", "stop"),
    (("swallowing",), ("30 g psyllium husk",), "psyllium_and_swallowing", "stop"),
    (("bowel_narrowing",), ("200 g raw kale",), "coarse_in_a_narrow_bowel", "stop"),
    (("bowel_narrowing",), ("1 cup raw mushrooms",), "coarse_in_a_narrow_bowel", "stop"),
    (("bowel_narrowing",), ("1 apple",), "coarse_in_a_narrow_bowel", "stop"),
    (("celiac",), ("1 tbsp miso",), "allergens_to_read_for_celiac", "caution"),
    (("celiac",), ("1 veggie burger",), "allergens_to_read_for_celiac", "caution"),
    (("celiac",), ("1 tbsp gochujang",), "allergens_to_read_for_celiac", "caution"),
    (("celiac",), ("1 cup cooked bulgur",), "gluten_in_celiac", "stop"),
    ((), ("1 cup kidney bean sprouts, raw",), "poisonous_as_it_is", "stop"),
    ((), ("170 g raw cassava",), "poisonous_as_it_is", "stop"),
    ((), ("1 cup bamboo shoots, raw",), "poisonous_as_it_is", "stop"),
    ((), ("100 g raw taro leaves",), "poisonous_as_it_is", "stop"),
    ((), ("1 cup raw elderberries",), "poisonous_as_it_is", "stop"),
    ((), ("100 g dry navy beans",), "uncooked_legumes", "caution"),
    ((), ("100 g lupini beans, dry",), "uncooked_legumes", "caution"),
    ((), ("100 g kidney beans, dry",), "uncooked_kidney_beans", "caution"),
    ((), ("1 tbsp ground nutmeg",), "nutmeg", "stop"),
    ((), ("20 g dried wakame",), "likely_iodine_over_the_upper_level", "stop"),
    (("hypothyroid",), ("1 sheet nori",), "sea_vegetables_and_thyroid", "caution"),
    (("thyroid_tablets",), ("1 tsp dried kelp",), "kelp_and_thyroid", "stop"),
    (("maoi",), ("1 tsp yeast extract",), "tyramine", "stop"),
    (("maoi",), ("1 glass red wine (150 ml)",), "tyramine", "stop"),
    (("maoi",), ("1 cup kombucha",), "tyramine", "stop"),
    (("maoi",), ("100 g tempeh",), "tyramine", "stop"),
    (("insulin", "diabetes"), ("1 liter orange juice",), "fast_sugar_on_diabetes_medicine", "stop"),
    (("sulfonylurea",), ("100 g sugar",), "fast_sugar_on_diabetes_medicine", "stop"),
    (("grapefruit_medicine",), ("2 tbsp orange marmalade",), "bitter_orange", "stop"),
    (("kidney_transplant",), ("1 grapefruit",), "grapefruit", "stop"),
    (("kidney_transplant",), ("1 cup alfalfa sprouts",), "raw_sprouts_weak", "stop"),
    (("cancer_treatment",), ("1 cup kombucha",), "live_ferments_weak", "stop"),
    (("liver_disease",), ("1/4 cup cooking wine",), "alcohol_and_liver", "stop"),
    (("heart_rhythm",), ("4 cups coffee",), "caffeine_and_rhythm", "caution"),
    (("ibs",), ("1 onion",), "high_fodmap", "note"),
    (("bisphosphonate",), ("1 cup soy milk",), "calcium_and_tablets", "caution"),
    (("levodopa",), ("200 g seitan",), "protein_and_levodopa", "caution"),
    ((), ("1/2 cup salt",), "day_sodium_dangerous", "stop"),
    ((), ("3 tbsp soy sauce", "1 tsp salt"), "day_sodium_anyone", "caution"),
)
# The same where it must be silent: codes that may not stand.
SILENT = (
    (("heart_failure",), ("200 g boiled potatoes",), "day_potassium_held_back"),
    (("warfarin",), ("1 cup cooked cauliflower",), "greens_on_warfarin"),
    (("texture_pureed",), ("1 cup applesauce",), "not_smooth"),
    (("texture_soft",), ("1 cup applesauce",), "hard_dry_or_stringy"),
    (("celiac",), ("1 cup cooked quinoa",), "allergens_to_read_for_celiac"),
    ((), ("1 cup cooked cassava",), "poisonous_as_it_is"),
    ((), ("1 cup cooked navy beans",), "uncooked_legumes"),
    ((), ("1/4 tsp ground nutmeg",), "nutmeg"),
    (("hypothyroid",), ("1 cup cooked kale",), "sea_vegetables_and_thyroid"),
    (("insulin",), ("1 cup cooked lentils", "1 cup cooked barley"), "fast_sugar_in_diabetes"),
    (("grapefruit_medicine",), ("1 orange",), "bitter_orange"),
    (("diuretic",), ("1 cup cooked lentils",), "day_potassium_much"),
    ((), ("1 cup cooked lentils",), "day_sodium_anyone"),
    (("ibs",), ("1 cup cooked quinoa",), "high_fodmap"),
)


class Cautions(TestCase):
    def test_what_must_stand(self):
        for have, lines, code, level in STANDS:
            with self.subTest(have, lines=lines):
                found, data = told(lines, conditions=have)
                self.assertEqual(data["unresolved"], [])
                self.assertEqual(found.get(code), level, sorted(found))
                row = next(row for row in data["cautions"] if row["code"] == code)
                self.assertIn("turn to", row["text"])
                self.assertTrue(row["because"] and row["source"])

    def test_what_must_be_silent(self):
        for have, lines, code in SILENT:
            with self.subTest(have, lines=lines):
                found, data = told(lines, conditions=have)
                self.assertEqual(data["unresolved"], [])
                self.assertNotIn(code, found)

    def test_pregnancy(self):
        carrying = WOMAN | {"life_stage": "pregnant_2", "weight_before_kg": 60}
        for line, code, level in (
            ("6 cups coffee", "caffeine_in_pregnancy", "stop"),
            ("1 cup kombucha", "a_little_alcohol_in_pregnancy", "caution"),
            ("1 tbsp vanilla extract", "a_little_alcohol_in_pregnancy", None),
            ("1 cup cooking wine", "alcohol_in_pregnancy", "stop"),
            ("1 tsp dried kelp", "kelp_in_pregnancy", "stop"),
        ):
            with self.subTest(line):
                self.assertEqual(told(line, **carrying)[0].get(code), level)
        self.assertEqual(
            told("1 apple", conditions=["insulin"], **carrying)[0]["insulin_in_pregnancy"], "stop"
        )
        self.assertIn(
            "weight_before_pregnancy", told("1 apple", **carrying | {"weight_before_kg": None})[0]
        )

    def test_allergies(self):
        for allergy, line, code in (
            ("nuts", "1 handful almonds", "allergen"),
            ("peanuts", "2 tbsp peanut butter", "allergen"),
            ("wheat", "1 slice whole wheat bread", "allergen"),
            ("celery", "4 cups vegetable broth", "allergen_traces"),
            ("mustard", "1 cup mustard greens, cooked", "allergen"),
            ("mustard", "1 tsp curry powder", "allergen_traces"),
            ("sulfites", "1/2 cup dried apricots", "allergen_traces"),
            ("coconut", "1 cup coconut milk", "allergen"),
            ("peanut", "1 cup lupini beans, cooked", "lupin_and_peanut"),
            ("milk", "1 oz dark chocolate", "allergen_traces"),
        ):
            with self.subTest(allergy, line=line):
                found, data = told(line, allergies=[allergy])
                self.assertEqual(data["unresolved"], [])
                self.assertEqual(found.get(code), "stop", sorted(found))
        with self.assertRaises(OutOfRange) as caught:
            told("1 apple", allergies=["sesami"])
        self.assertEqual(caught.exception.field, "person.allergies")

    def test_animals_are_refused_and_what_is_not_read_is_said(self):
        _found, data = told("1 tbsp honey", "2 cups blargh")
        text = as_text(CautionsAnswer.model_validate(data))
        self.assertEqual([row["line"] for row in data["refused"]], ["1 tbsp honey"])
        self.assertEqual([row["line"] for row in data["unresolved"]], ["2 cups blargh"])
        self.assertIn("NOT READ", text)

    def test_what_is_unknown_is_told_where_it_could_pass_a_most(self):
        _found, data = told(
            "90 g pumpkin seed protein powder", "1 cup cooked white rice", conditions=["ckd_4"]
        )
        self.assertTrue([words for words in data["unknown"] if words.startswith("Phosphorus")])


class Targets(TestCase):
    def day(self, **person):
        return day_report(read_asked(WOMAN | person)).data()

    def codes(self, data):
        return {row["code"]: row for row in data["cautions"]}

    def test_an_order_without_a_license_stays_under_the_limit(self):
        order = {"key": "potassium_mg", "min": 8000, "by": "coach"}
        data = self.day(conditions=["ckd_5"], orders=[order])
        self.assertLessEqual(data["targets"]["potassium_mg"]["max"], 3000)
        self.assertEqual(self.codes(data)["choice_against_a_condition"]["level"], "stop and ask")
        data = self.day(conditions=["ckd_5"], orders=[order | {"by": "Dr. A", "license": "MD 1"}])
        row = self.codes(data)["order_opens_a_limit"]
        self.assertEqual(row["level"], "stop and ask")
        self.assertTrue("8,000" in row["text"] and "3,000" in row["text"])

    def test_no_number_is_impossible_and_none_crashes(self):
        for energy in (0, -500, 9000):
            with self.assertRaises(OutOfRange):
                self.day(orders=[{"key": "energy_kcal", "aim": energy, "by": "A", "license": "B"}])
        thin = self.day(age_years=40, weight_kg=50.7, goal={"kind": "lose"})
        self.assertIsNone(thin["forecast"])
        self.assertEqual(self.day(weight_kg=43.0)["targets"], {})

    def test_plants_ask_for_more_iron_and_the_plain_value_stands_beside_it(self):
        iron = self.day(age_years=30)["targets"]["iron_mg"]
        self.assertAlmostEqual(iron["min"], 32.4)
        self.assertEqual((iron["plain"], iron["vegan_factor"]), (18, 1.8))
        self.assertEqual(self.day(age_years=30, vegan_iron=False)["targets"]["iron_mg"]["min"], 18)

    def test_the_gain_of_a_pregnancy(self):
        data = self.day(life_stage="pregnant_3", weight_kg=74, weight_before_kg=66)
        self.assertEqual(
            (data["gestational_gain"]["low_kg"], data["gestational_gain"]["high_kg"]), (11.5, 16)
        )
        self.assertIn("pregnancy_gain", self.codes(data))


class Composition(TestCase):
    def test_staple_beans_have_their_energy(self):
        for slug, low in (
            ("great-northern-beans-cooked", 100),
            ("pinto-beans-dry", 320),
            ("small-red-beans-cooked", 90),
        ):
            self.assertGreater(FOODS[slug].per_100_g("energy_kcal") or 0, low, slug)

    def test_what_says_unfortified_is_not_fortified(self):
        for line in ("1 tbsp nutritional yeast, unfortified", "1 cup unfortified soy milk"):
            serving = reckon(Recipe((line,))).serving
            self.assertLess(serving["vitamin_b12_ug"].amount, 0.3, line)

    def test_a_spoon_of_kelp_is_a_spoon(self):
        grams = reckon(Recipe(("1 tsp kelp granules",))).serving.grams
        self.assertTrue(1.5 <= grams <= 5, grams)

    def test_what_is_never_a_part_as_it_is(self):
        for slug in (
            *("cassava-raw", "kidney-beans-dry", "navy-beans-dry", "lupini-beans-dry"),
            *("taro-raw", "ginkgo-nuts-raw", "kidney-bean-sprouts-raw", "potato-with-skin-raw"),
            *("kelp-dried", "elderberries-raw", "morel-mushrooms-raw"),
        ):
            self.assertEqual(most_of(FOODS[slug]).most_g, 0, slug)


class Balance(TestCase):
    def answer(self, parts, targets):
        asked = read_problem({"parts": parts, "targets": targets}, lambda name: "")
        answer = solve(asked)
        return answer.data(), balance_text(asked, answer)

    def test_what_is_unknown_counts_at_its_largest_for_a_most(self):
        parts = [
            {"id": "a", "food": "pea protein powder", "grams": 30, "max_grams": 60},
            {"id": "b", "food": "hemp milk", "grams": 240, "max_grams": 500},
            {"id": "c", "food": "tofu firm", "grams": 100, "max_grams": 300},
            {"id": "d", "food": "nutritional yeast fortified", "grams": 5, "max_grams": 60},
        ]
        for part in parts:
            part |= {"min_grams": 0, "step_grams": 5}
        data, text = self.answer(
            parts,
            {"phosphorus_mg": {"max": 150, "hard": True}, "protein_g": {"min": 35, "aim": 40}},
        )
        for row in data["unknown"]:
            self.assertLessEqual(row["to"], 150 + 1e-6)
            self.assertIn("is unknown in", text)
        if data["unknown"]:
            self.assertIn("unknown", data["proved_for"])
            self.assertNotIn("Proved: no portions", text)

    def test_no_upper_level_is_passed_whoever_asks(self):
        parts = [
            {"id": "rice", "food": "brown rice cooked", "grams": 150},
            {"id": "nuts", "food": "brazil nuts", "grams": 5, "max_grams": 60},
            {"id": "beans", "food": "white-beans-cooked", "grams": 100},
        ]
        for targets in (
            {"energy_kcal": {"min": 900, "max": 1200}},
            {"selenium_ug": {"min": 500}},
            {"iron_mg": {"min": 5}, "energy_kcal": {"min": 800}},
        ):
            data, _text = self.answer(parts, targets)
            self.assertLessEqual(data["portions"]["nuts"], 10)
            self.assertLessEqual(data["totals"].get("selenium_ug", 0), 400)
            for hint in data["hints"]:
                self.assertFalse(hint["id"] == "nuts" and hint["to"] > 10)

    def test_raw_cassava_and_dry_beans_are_no_bowl(self):
        data, _text = self.answer(
            [
                {"id": "cassava", "food": "cassava-raw", "grams": 170},
                {"id": "beans", "food": "kidney-beans-dry", "grams": 100},
                {"id": "rice", "food": "white rice cooked", "grams": 100},
            ],
            {"energy_kcal": {"min": 600, "max": 700}},
        )
        self.assertEqual((data["portions"]["cassava"], data["portions"]["beans"]), (0, 0))
        self.assertIn("held", data)


class NoTargetStartsItsOwnCaution(TestCase):
    @thorough
    def test_for_no_condition_stage_or_goal(self):
        """A number that was computed here is not what a caution of numbers is about: those speak of
        what somebody asked for."""
        by_number = {
            rule.code
            for rule in rules()
            if rule.level != "note"
            and any(
                word in side
                for one in rule.number
                for side in (one.left, one.right)
                for word in ("aim_mg", "protein_g_per_kg", "energy_kcal", "pace", "potassium_most")
            )
        }
        self.assertGreater(len(by_number), 10)
        for code, stage, goal in product(
            conditions(), ("adult", "pregnant_2", "lactating_0_6"), GOAL_WORDS
        ):
            person = Person(
                sex="female",
                age_years=34,
                height_cm=168,
                weight_kg=68,
                weight_before_kg=62 if stage != "adult" else None,
                goal=goal,
                life_stage=stage,
                conditions=frozenset({code}),
            )
            try:
                day = day_targets(person)
            except Referred:
                continue
            found = {one.code for one in cautions_in(planned_situation(day))}
            self.assertEqual(found & by_number, set(), (code, stage, goal))
