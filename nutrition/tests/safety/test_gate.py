"""The gate before everything that proposes; unknown amounts; upper levels; first helpings; measures
that go both ways; where loss stops."""

import json
from dataclasses import replace
from unittest import TestCase
from unittest.mock import patch

from hypothesis import given
from hypothesis import strategies as st

from nutrition.composition.food_mosts import ceiling_g, food_mosts, most_of
from nutrition.composition.foods import food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.portion import Limits, food_portion
from nutrition.composition.profile import INDEX
from nutrition.composition.unknown_amounts import upper_per_100_g
from nutrition.formats.recipe_files import read_recipe
from nutrition.insight.summary import tell
from nutrition.portions.hints import hints
from nutrition.portions.problem import Problem, at_most, totals
from nutrition.portions.solver import balance
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.requests.balance import read_problem
from nutrition.requests.balance_answer import solve
from nutrition.safety.caution_rules import LEVELS, rules
from nutrition.safety.cautions import Situation, cautions_in
from nutrition.safety.gate import OPEN, Gate
from nutrition.safety.limits_in_force import limits_of
from nutrition.targets.aim import Aim
from nutrition.targets.body import bmi, least_weight
from nutrition.targets.day import day_targets
from nutrition.targets.person import Person, Referred
from nutrition.targets.weight_forecast import forecast
from nutrition.tests.safety.orders import order
from nutrition.tests.thorough import thorough
from nutrition.written.household import spoken
from nutrition.written.line import Choice
from nutrition.written.matching import reckon_line

FOODS = food_table()
# Who must not be given what.
MUST_NOT = (
    ({"allergies": {"tree nuts"}}, ("walnuts", "almonds", "cashew-butter-salted")),
    ({"allergies": {"mustard"}}, ("mustard-greens-cooked", "mustard-leaves-raw", "dijon-mustard")),
    ({"life_stage": "pregnant_3"}, ("cooking-wine", "alfalfa-sprouts-raw", "kelp-dried")),
    ({"conditions": {"celiac"}}, ("sourdough-bread", "barley-pearled-cooked", "seitan")),
    (
        {"conditions": {"maoi"}},
        ("white-miso", "soy-sauce", "sauerkraut-canned-drained", "fava-beans-cooked"),
    ),
    ({"conditions": {"texture_soft"}}, ("almonds", "walnuts", "pumpkin-seeds")),
    ({"conditions": {"grapefruit_medicine"}}, ("grapefruit-raw",)),
    ({"conditions": {"ckd_4"}}, ("star-fruit-raw", "salt-substitute-potassium-chloride")),
    ({"conditions": {"g6pd_deficiency"}}, ("fava-beans-cooked",)),
    ({"conditions": {"bowel_narrowing"}}, ("psyllium-husk", "wheat-bran")),
)


DAY_OF_AN_ORDER = day_targets(
    Person(sex="male", age_years=50, height_cm=178, weight_kg=78),
    None,
    [order("potassium_mg", high=1500)],
)


def gate(who):
    return Gate(
        Situation(
            conditions=frozenset(who.get("conditions", ())),
            life_stage=who.get("life_stage", "adult"),
            allergies=frozenset(who.get("allergies", ())),
        )
    )


class TheGate(TestCase):
    def test_what_somebody_must_not_have_is_held_back_from_them_alone(self):
        for who, slugs in MUST_NOT:
            for slug in slugs:
                if slug not in FOODS:
                    continue
                with self.subTest(who=who, slug=slug):
                    limit = gate(who).limit([Ingredient(FOODS[slug], 20)], 20)
                    self.assertTrue(limit.stops)
                    self.assertTrue(gate(who).why_not(FOODS[slug]))
        self.assertFalse(OPEN.why_not(FOODS["walnuts"]))

    def test_a_dish_is_held_back_by_one_of_its_foods_and_what_is_only_warned_of_is_not_made_larger(
        self,
    ):
        dish = [Ingredient(FOODS["millet-cooked"], 200), Ingredient(FOODS["tahini"], 15)]
        self.assertTrue(gate({"allergies": {"sesame"}}).limit(dish, 215, dish=True).stops)
        soy = gate({"conditions": {"thyroid_tablets"}}).limit(
            [Ingredient(FOODS["tofu-firm"], 100)], 100
        )
        self.assertEqual((soy.stops, soy.most), (False, 100))

    def test_what_is_only_too_much_is_cut_to_what_passes(self):
        for slug, much, little, situation in (
            ("potato-boiled", 2500.0, 400.0, Situation(conditions=frozenset({"ace_inhibitor"}))),
            ("coffee-brewed", 700.0, 200.0, Situation(life_stage="pregnant_2")),
        ):
            gate, food = Gate(situation), FOODS[slug]
            limit = gate.limit([Ingredient(food, much)], much)
            with self.subTest(food=slug):
                self.assertFalse(limit.stops, "it is not left out")
                self.assertTrue(all(food.name in bar.why or bar.by_amount for bar in limit.bars))
                self.assertTrue(little < limit.most < much)
                stops = [bar for bar in gate.bars([Ingredient(food, limit.most)]) if bar.stops]
                self.assertFalse(stops)
                further = gate.bars([Ingredient(food, limit.most + 15.0)])
                self.assertTrue(any(bar.stops for bar in further), "and no less than needs be")
                less = gate.limit([Ingredient(food, little)], little)
                self.assertGreaterEqual(less.most, little)

    def test_what_was_settled_by_name_is_let_through_for_those_foods_only(self):
        who = Situation(allergies=frozenset({"sesame"}))
        settled = Gate(who, settled={("allergen", "Tahini (sesame)")})
        self.assertFalse(settled.why_not(FOODS["tahini"]))
        self.assertTrue(settled.why_not(FOODS["sesame-seeds"]))

    def test_a_food_whose_label_was_corrected_is_looked_at_again(self):
        """It keeps its slug and its name; what is in it is another."""
        asked = Gate(Situation(limits=limits_of(DAY_OF_AN_ORDER), numbers={"meals": 3.0}))
        food = FOODS["potato-boiled"]
        values = food.values.copy()
        values[INDEX["potassium_mg"]] = 5.0
        corrected = replace(food, values=values)
        self.assertEqual(food, corrected)
        for _again in range(2):
            self.assertIn("1,500 mg", asked.why_not(food, 900.0))
            self.assertEqual(asked.why_not(corrected, 900.0), "")

    def test_the_same_question_is_looked_at_once_and_another_person_anew(self):
        foods = [Ingredient(FOODS["walnuts"], 23.25)]
        with patch("nutrition.safety.gate.cautions_in", wraps=cautions_in) as looked:
            for _again in range(3):
                stops = gate({"allergies": {"tree nuts"}}).bars(foods)
                self.assertTrue(any(bar.stops for bar in stops))
            self.assertEqual(looked.call_count, 1)
            self.assertFalse(any(bar.stops for bar in gate({}).bars(foods)))
            raw, heated = (replace(foods[0], heated=one) for one in (False, True))
            gate({}).bars([raw])
            self.assertEqual(looked.call_count, 2)
            gate({}).bars([heated])
            self.assertEqual(looked.call_count, 3)

    def test_whatever_is_known_of_a_situation_makes_another_question(self):
        """Each of its fields but the foods, which are asked about."""
        for name, value in {
            "conditions": frozenset({"celiac"}),
            "life_stage": "pregnant_1",
            "goal": "lose",
            "school": "balanced_plate",
            "allergies": frozenset({"sesame"}),
            "dislikes": ("kale",),
            "numbers": {"meals": 3.0},
            "lines": ["a line"],
            "limits": limits_of(DAY_OF_AN_ORDER),
            "words": {"opened": "so"},
        }.items():
            changed = replace(Situation(), **{name: value})
            self.assertNotEqual(Gate(changed).content, Gate(Situation()).content, name)
            hash(Gate(changed).content)

    def test_foods_with_a_most_of_their_own(self):
        self.assertGreaterEqual(len(food_mosts()), 10)
        for slug, most in (
            ("brazil-nuts", 10),
            ("kelp-dried", 0),
            ("kidney-beans-dry", 0),
            ("cassava-raw", 0),
            ("nutmeg-ground", 2),
        ):
            self.assertEqual(most_of(FOODS[slug]).most_g, most, slug)
        self.assertEqual(OPEN.limit([Ingredient(FOODS["brazil-nuts"], 40)], 40).most, 10)
        cooked = reckon(Recipe(("200 g kidney beans, dry",), method="simmered"))
        self.assertEqual(
            ceiling_g(cooked.foods(), 100.0, cooked=True)[0], float("inf"), "cooked they are eaten"
        )
        self.assertEqual(ceiling_g(cooked.foods(), 100.0)[0], 0.0)

    def test_every_stop_about_food_or_a_day_has_the_clients_words(self):
        for rule in rules():
            of_food = rule.food or rule.allergen or rule.holds
            of_day = any(one.left.startswith(("day_", "week_")) for one in rule.number)
            if rule.level == LEVELS[0] and (of_food or of_day):
                with self.subTest(rule.code):
                    self.assertGreater(len(rule.client), 30)


class Unknown(TestCase):
    def problem(self, *foods, **aim):
        parts = tuple(
            replace(
                food_portion(FOODS[slug], 100.0),
                name=slug,
                grams=grams,
                limits=Limits(least=0, most=most, step=5),
            )
            for slug, grams, most in foods
        )
        return Problem(
            parts=parts,
            aims=(
                Aim(
                    key="phosphorus_mg", low=None, aim=100, high=150, firm_low=True, firm_high=True
                ),
                Aim(key="protein_g", low=35, aim=40, high=None),
            ),
        )

    def test_for_a_most_an_unknown_counts_at_its_largest(self):
        asked = self.problem(
            ("plant-protein-powder-vanilla", 30, 60),
            ("macadamia-milk-unsweetened", 240, 500),
            ("vegan-mince-ready-to-cook", 5, 60),
        )
        answer = balance(asked)
        self.assertLessEqual(answer.at_most["phosphorus_mg"], 150 + 1e-6)
        self.assertGreater(answer.at_most["phosphorus_mg"], answer.totals["phosphorus_mg"])
        self.assertEqual(
            at_most(asked, answer.portions)["phosphorus_mg"], answer.at_most["phosphorus_mg"]
        )
        everything = {part.key: part.limits.most for part in asked.parts}
        self.assertLess(
            totals(asked, everything)["phosphorus_mg"],
            150,
            "as if it were zero it would all have fitted",
        )

    def test_what_is_unknown_is_named_with_its_span(self):
        asked = {
            "parts": [
                {
                    "id": "a",
                    "food": "vegan mince, ready to cook",
                    "grams": 30,
                    "min_grams": 0,
                    "max_grams": 60,
                    "step_grams": 5,
                },
                {
                    "id": "c",
                    "food": "tofu firm",
                    "grams": 100,
                    "min_grams": 0,
                    "max_grams": 300,
                    "step_grams": 10,
                },
            ],
            "targets": {
                "phosphorus_mg": {"max": 150, "hard": True},
                "protein_g": {"min": 35, "aim": 40},
            },
        }
        told = solve(read_problem(asked, lambda name: "")).data()
        unknown = {row["nutrient"]: row for row in told["unknown"]}
        if told["portions"]["a"] > 0:
            self.assertEqual(unknown["phosphorus_mg"]["parts"], ["Vegan mince, ready to cook"])
            self.assertLessEqual(unknown["phosphorus_mg"]["to"], 150 + 1e-6)

    def test_the_largest_plausible_is_that_of_the_kind(self):
        at = INDEX["phosphorus_mg"]
        milk = upper_per_100_g(FOODS["macadamia-milk-unsweetened"])[at]
        known = [
            food.per_100_g("phosphorus_mg")
            for food in FOODS
            if food.group == "plant milk" and food.per_100_g("phosphorus_mg")
        ]
        self.assertTrue(min(known) <= milk <= max(known))

    def test_upper_levels_and_a_foods_own_most_stand_whoever_asks(self):
        asked = {
            "parts": [
                {"id": "rice", "food": "brown rice cooked", "grams": 200},
                {"id": "nuts", "food": "brazil nuts", "grams": 20, "max_grams": 60},
                {"id": "kelp", "food": "kelp-dried", "grams": 1, "max_grams": 10},
            ],
            "targets": {
                "energy_kcal": {"min": 700, "max": 720},
                "selenium_ug": {"min": 55},
                "iron_mg": {"min": 5},
            },
        }
        problem = read_problem(json.loads(json.dumps(asked)), lambda name: "")
        told = solve(problem).data()
        self.assertLessEqual(told["portions"]["nuts"], 10)
        self.assertEqual(told["portions"]["kelp"], 0)
        self.assertLessEqual(told["totals"]["selenium_ug"], 400)
        self.assertIn("nuts", told["held"])
        for hint in hints(problem, balance(problem), ()):
            self.assertFalse(hint.kind == "larger" and hint.id in ("nuts", "kelp"), hint.words)


class Helpings(TestCase):
    def test_by_kind(self):
        for slug, low, high in (
            ("olive-oil", 4, 5),
            ("salt", 0.2, 0.5),
            ("cinnamon-ground", 0.2, 1),
            ("walnuts", 28, 32),
            ("kale-raw", 15, 40),
            ("orange-raw", 100, 160),
            ("sourdough-bread", 30, 60),
            ("lemon-zest", 1, 3),
            ("tahini", 14, 17),
            ("brazil-nuts", 5, 10),
            ("psyllium-husk", 3, 6),
        ):
            self.assertTrue(
                low <= first_helping_g(FOODS[slug]) <= high, (slug, first_helping_g(FOODS[slug]))
            )

    def test_no_first_helping_is_a_meal_by_itself(self):
        for food in FOODS:
            kcal = food.per_100_g("energy_kcal") or 0.0
            if not food.comparator:
                self.assertLess(kcal * first_helping_g(food) / 100, 420, food.slug)


class BothWays(TestCase):
    """Over the whole table: more grams are never said as less, and what is said is read back as the
    grams it stands for."""

    @thorough
    def test_grams_and_household_measures_go_both_ways(self):
        for food in FOODS:
            if food.comparator:
                continue
            last = 0.0
            for step in range(18):
                grams = 0.1 * 1.7**step
                said = spoken(food, grams)
                if said is None:
                    continue
                self.assertGreaterEqual(said.grams, last - 1e-9, (food.slug, grams))
                last = said.grams
                if said.words != "a pinch" and step % 6 == 0:
                    read = reckon_line(f"{said.words} {food.name}", None, Choice(food.slug))
                    self.assertAlmostEqual(
                        read.grams or 0.0,
                        said.grams,
                        delta=1e-6 * said.grams + 1e-9,
                        msg=(food.slug, said.words),
                    )

    def test_psyllium(self):
        self.assertEqual(
            [spoken(FOODS["psyllium-husk"], grams).words for grams in (5, 10, 20, 40)],
            ["1\xa0tbsp", "2\xa0tbsp", "¼\xa0cup", "½\xa0cup"],
        )


class AfterCooking(TestCase):
    def test_what_is_derived_starts_from_what_is_left(self):
        facts = reckon(Recipe(("500 g potatoes, peeled",), servings=2, method="double_boiled"))
        told = tell(facts.serving, facts.foods())
        self.assertAlmostEqual(
            told.phosphorus.total, facts.serving["phosphorus_mg"].amount, places=6
        )
        self.assertLess(told.phosphorus.amount, facts.serving["phosphorus_mg"].amount)
        raw = reckon(Recipe(("500 g potatoes, peeled",), servings=2))
        self.assertLess(told.phosphorus.total, tell(raw.serving, raw.foods()).phosphorus.total)

    @given(
        st.sampled_from(["boiled_drained", "steamed", "roasted", "simmered", ""]), st.integers(1, 8)
    )
    def test_whatever_the_method(self, method, servings):
        facts = reckon(
            Recipe(
                ("1 cup lentils, dry", "2 carrots", "1 tbsp tahini"),
                servings=servings,
                method=method,
            )
        )
        told = tell(facts.serving, facts.foods())
        self.assertAlmostEqual(
            told.phosphorus.total, facts.serving["phosphorus_mg"].amount, delta=0.01
        )


class Loss(TestCase):
    def test_none_is_planned_at_or_into_underweight(self):
        for kg, target in ((50.7, None), (50.0, None), (55.0, 49.0)):
            day = day_targets(
                Person(
                    sex="female",
                    age_years=40,
                    height_cm=165,
                    weight_kg=kg,
                    goal="lose",
                    target_weight_kg=target,
                )
            )
            with self.subTest(kg=kg, target=target):
                self.assertEqual(day.energy.change, 0)
                self.assertIn("18.5", day.energy.held_because)
                self.assertIsNone(day.forecast)
        self.assertLess(
            day_targets(
                Person(
                    sex="female",
                    age_years=40,
                    height_cm=165,
                    weight_kg=60,
                    goal="lose",
                    target_weight_kg=55,
                )
            ).energy.change,
            0,
        )
        older = day_targets(
            Person(sex="female", age_years=70, height_cm=165, weight_kg=55.5, goal="lose")
        )
        self.assertIn("BMI 20", older.energy.held_because)

    @given(
        st.floats(46, 290),
        st.floats(-3000, 3000),
        st.one_of(st.none(), st.floats(40, 200)),
        st.floats(40, 60),
    )
    def test_no_forecast_goes_past_the_goal_or_below_the_line(self, kg, kcal, target, least):
        ahead = forecast(kg, kcal, target, least)
        if ahead is None:
            self.assertTrue(kcal < 0 and kg <= least)
            return
        for _weeks, *two in ahead.points:
            for one in (*two, ahead.eventual_kg):
                self.assertTrue(one >= least - 1e-9 or kcal >= 0)
                if target is not None and kcal < 0 and target < kg:
                    self.assertGreaterEqual(one, target - 1e-9)
                if target is not None and kcal > 0 and target > kg:
                    self.assertLessEqual(one, target + 1e-9)

    def test_no_change_leads_nowhere(self):
        ahead = forecast(70.0, 0.0, 75.0, 45.0)
        self.assertIsNone(ahead.static_weeks)
        self.assertIsNone(ahead.dynamic_weeks)

    def test_where_refeeding_threatens_nothing_is_computed(self):
        for kg, goal in ((44.5, "gain"), (37.3, "hold")):
            with self.assertRaises(Referred) as told:
                day_targets(
                    Person(sex="female", age_years=22, height_cm=168, weight_kg=kg, goal=goal)
                )
            self.assertIn("hospital", told.exception.refer_to)
        day_targets(Person(sex="female", age_years=22, height_cm=168, weight_kg=46, goal="gain"))

    def test_the_least_weight(self):
        person = Person(sex="male", age_years=40, height_cm=180, weight_kg=80)
        self.assertAlmostEqual(bmi(least_weight(person), 180), 18.5)


class Pasted(TestCase):
    def test_what_stands_between_the_lines_is_no_ingredient(self):
        rows = (
            "Quay pot",
            "Serves: 4 to 6 people",
            "Prep time: 10 minutes",
            "Ingredients:",
            "For the sauce:",
            "2 tbsp tahini",
        )
        found = read_recipe(
            "\n".join((*rows, "1&frac12; cups millet, dry", "Directions", "Stir."))
        ).recipe
        self.assertEqual((found.title, found.servings, found.claimed), ("Quay pot", 4, "4 to 6"))
        self.assertEqual(found.lines, ("2 tbsp tahini", "1½ cups millet, dry"))
        self.assertEqual(
            read_recipe("1 cup millet\n2 tbsp dill").recipe.lines, ("1 cup millet", "2 tbsp dill")
        )
