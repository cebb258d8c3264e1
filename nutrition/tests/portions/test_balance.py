"""Balance against all portions there are, against scipy's MILP, and by its laws."""

from dataclasses import replace
from unittest import TestCase
from unittest.mock import patch

from hypothesis import given, settings
from hypothesis import strategies as st

from nutrition.composition.foods import food_table
from nutrition.composition.portion import Limits, food_portion
from nutrition.portions.added_to_a_meal import added_to, helping_of
from nutrition.portions.hints import hints
from nutrition.portions.obstacles import closest, colliding, misses
from nutrition.portions.problem import BadProblem, PlateShare, Problem, totals
from nutrition.portions.serving_limits import limits_around
from nutrition.portions.serving_rules import servable
from nutrition.portions.solver import balance
from nutrition.portions.work import Work
from nutrition.requests.balance import read_problem
from nutrition.requests.balance_answer import solve
from nutrition.targets.aim import Aim
from nutrition.tests.portions.balance_cases import by_hand, enumerated, highs, keeps_hard, problem
from nutrition.tests.thorough import thorough

FOODS = food_table()
LONG = 5.0


class AllPortions(TestCase):
    def test_no_portions_come_nearer(self):
        for seed in range(24):
            asked = problem(
                seed, 3 + seed % 2, 3 + seed % 5, most_choices=5, hard=seed % 3, far=seed % 2 == 1
            )
            with self.subTest(seed=seed):
                found, wanted = balance(asked, Work.of(LONG)), enumerated(asked)
                self.assertEqual(found.status, "optimal")
                self.assertTrue(keeps_hard(asked, found.portions))
                for got, want, own in zip(
                    (found.violation, found.deviation),
                    wanted,
                    by_hand(asked, found.portions),
                    strict=True,
                ):
                    self.assertAlmostEqual(got, want, places=6)
                    self.assertAlmostEqual(got, own, places=6)

    @thorough
    def test_what_the_solver_proves_is_so(self):
        """The solver alone, as where there are too many ways to look at all of them."""
        proved = 0
        for seed in range(24):
            asked = problem(
                seed, 3 + seed % 2, 3 + seed % 5, most_choices=5, hard=seed % 3, far=seed % 2 == 1
            )
            with self.subTest(seed=seed), patch("nutrition.portions.enumeration.COUNTED_OUT", 0):
                found, wanted = balance(asked, Work.of(1.0)), enumerated(asked)
                self.assertTrue(keeps_hard(asked, found.portions))
                self.assertAlmostEqual(found.violation, wanted[0], places=6)
                if found.status == "optimal":
                    proved += 1
                    self.assertAlmostEqual(found.deviation, wanted[1], places=6)
        self.assertGreaterEqual(proved, 20)

    @thorough
    def test_a_wished_calorie_density_is_the_ratio_it_is(self):
        exact = 0
        for seed in range(12):
            asked = problem(seed, 4, 4, most_choices=6, far=seed % 2 == 0)
            wish = 0.5 + 0.15 * seed
            asked = replace(
                asked,
                aims=(
                    *asked.aims,
                    Aim(key="kcal_per_gram", low=wish * 0.9, aim=wish, high=wish * 1.1, weight=2.0),
                ),
            )
            found, wanted = balance(asked, Work.of(LONG)), enumerated(asked)
            with self.subTest(seed=seed):
                self.assertEqual(found.status, "optimal")
                self.assertAlmostEqual(found.violation, wanted[0], places=6)
                self.assertAlmostEqual(found.deviation, wanted[1], places=6)
            # as where there are too many ways to look at all of them: near, and never said to be
            # proved
            with patch("nutrition.portions.enumeration.COUNTED_OUT", 0):
                near = balance(asked, Work.of(0.5))
            self.assertEqual(near.status, "feasible")
            self.assertGreaterEqual(near.violation, wanted[0] - 1e-6)
            exact += near.violation < wanted[0] + 1e-6
        self.assertGreaterEqual(exact, 9)

    def test_impossible_exactly_when_no_portions_keep_the_limits(self):
        for seed in range(8):
            asked = problem(seed, 3, 3, most_choices=4)
            least = min(
                sum(part.amount("sodium_mg") * part.limits.least for part in asked.parts), 1e9
            )
            for share, status in ((0.9, "infeasible"), (1.001, "optimal")):
                if least > 0:
                    bound = Aim(
                        key="sodium_mg",
                        low=None,
                        aim=least * share,
                        high=least * share,
                        firm_low=True,
                        firm_high=True,
                    )
                    self.assertEqual(
                        balance(
                            replace(asked, aims=(*asked.aims[:3], bound)), Work.of(LONG)
                        ).status,
                        status,
                    )


class Milp(TestCase):
    @thorough
    def test_the_first_objective_of_fifty_bowls(self):
        for seed in range(50):
            asked = problem(1000 + seed, 6 + seed % 7, 5 + seed % 8, hard=seed % 2, far=True)
            with self.subTest(seed=seed):
                found, (wanted, _second) = balance(asked, Work.of(1.0)), highs(asked, both=False)
                self.assertLessEqual(found.violation, wanted * 1.001 + 1e-6)
                self.assertGreaterEqual(found.violation, wanted * 0.999 - 1e-6)


class Laws(TestCase):
    @settings(max_examples=15, deadline=None)
    @given(st.integers(0, 10_000), st.integers(3, 9), st.integers(2, 8))
    def test_hard_limits_and_ranges_are_kept(self, seed, parts, targets):
        asked = problem(seed, parts, targets, hard=2, far=True)
        found = balance(asked, Work.of(0.4))
        self.assertNotEqual(found.status, "infeasible")
        self.assertTrue(keeps_hard(asked, found.portions))
        for part in asked.parts:
            steps = (found.portions[part.key] - part.limits.least) / part.limits.step
            self.assertAlmostEqual(steps, round(steps), places=6)
            self.assertTrue(
                part.limits.least - 1e-6 <= found.portions[part.key] <= part.limits.most + 1e-6
            )

    @settings(max_examples=15, deadline=None)
    @given(st.integers(0, 10_000))
    def test_all_locked_changes_nothing(self, seed):
        asked = problem(seed, 6, 6, far=True)
        locked = replace(asked, parts=tuple(replace(part, locked=True) for part in asked.parts))
        found = balance(locked, Work.of(0.2))
        self.assertEqual(found.portions, {part.key: part.grams for part in asked.parts})
        self.assertEqual(found.change, 0)

    @settings(max_examples=12, deadline=None)
    @given(st.integers(0, 10_000), st.integers(0, 4), st.floats(1.05, 2.0))
    def test_a_looser_target_never_misses_more(self, seed, which, by):
        asked = problem(seed, 4, 5, most_choices=6, far=True)
        aim = asked.aims[which]
        loose = replace(
            aim,
            low=None if aim.low is None else aim.low / by,
            high=None if aim.high is None else aim.high * by,
        )
        before, after = balance(asked, Work.of(LONG)), balance(asked.with_aim(loose), Work.of(LONG))
        self.assertEqual((before.status, after.status), ("optimal", "optimal"))
        self.assertLessEqual(after.violation, before.violation + 1e-6)

    def test_hints_do_what_they_say(self):
        followed = 0
        for seed in range(6):
            asked = problem(500 + seed, 5, 5, most_choices=4, far=True)
            answer = balance(asked, Work.of(LONG))
            for hint in hints(asked, answer, added_to(asked)[:6]):
                if hint.kind == "less":
                    part = next(part for part in asked.parts if part.key == hint.id)
                    least = min(part.limits.least, hint.to)
                    changed = asked.with_part(
                        replace(part, grams=hint.to).within(least=least, most=max(hint.to, least))
                    )
                elif hint.kind == "larger":
                    part = next(part for part in asked.parts if part.key == hint.id)
                    changed = asked.with_part(part.within(most=hint.to))
                elif hint.kind == "add":
                    changed = asked.with_part(
                        replace(helping_of(FOODS[hint.id]), grams=hint.to, locked=True)
                    )
                else:
                    aim = next(aim for aim in asked.aims if aim.key == hint.id)
                    lower = aim.low is not None and hint.to < aim.low
                    changed = asked.with_aim(
                        replace(aim, low=hint.to) if lower else replace(aim, high=hint.to)
                    )
                with self.subTest(hint.words, seed=seed):
                    self.assertAlmostEqual(
                        balance(changed, Work.of(LONG)).violation, hint.violation, places=4
                    )
                    self.assertLess(hint.violation, answer.violation)
                followed += 1
        self.assertGreater(followed, 8)


def part(slug, grams, least, most, step, **more):
    food = FOODS[slug]
    limits = Limits(least=least, most=most, step=step)
    whole = food_portion(food, 100.0)
    return replace(whole, grams=grams, volume_ml=100.0, foods=(), limits=limits, **more)


class Bowl(TestCase):
    parts = (
        part("barley-pearled-cooked", 200, 100, 320, 20),
        part("white-beans-cooked", 100, 60, 200, 20),
        part("kale-raw", 40, 20, 100, 10),
        part("tahini", 30, 0, 60, 5),
    )
    aims = (
        Aim(key="energy_kcal", low=450, aim=500, high=560),
        Aim(key="protein_g", low=18, aim=22, high=None, weight=2.0),
    )

    def test_constraints_that_are_switched_on(self):
        free = balance(Problem(parts=self.parts, aims=self.aims), Work.of(LONG))
        self.assertEqual((free.status, free.violation), ("optimal", 0.0))
        small = balance(Problem(parts=self.parts, aims=self.aims, vessel_ml=330.0), Work.of(LONG))
        self.assertLessEqual(sum(small.portions.values()), 330.0 + 1e-3)
        star = tuple(replace(one, star=one.key == "kale-raw") for one in self.parts)
        starred = balance(Problem(parts=star, aims=self.aims), Work.of(LONG)).portions
        self.assertTrue(
            all(
                starred["kale-raw"] >= starred[name] - 1e-6
                for name in ("white-beans-cooked", "tahini")
            )
        )
        half = PlateShare("vegetables", frozenset({"kale-raw"}), 0.25, 0.05)
        plated = balance(
            Problem(parts=self.parts, aims=self.aims, plate=(half,)), Work.of(LONG)
        ).portions
        self.assertTrue(0.2 - 1e-6 <= plated["kale-raw"] / sum(plated.values()) <= 0.3 + 1e-6)

    def test_calorie_density_and_what_is_eaten_besides(self):
        light = balance(
            Problem(
                parts=self.parts,
                aims=(
                    Aim(
                        key="kcal_per_gram",
                        low=None,
                        aim=0.9,
                        high=1.0,
                        firm_low=True,
                        firm_high=True,
                    ),
                    *self.aims,
                ),
            ),
            Work.of(LONG),
        )
        self.assertLessEqual(light.totals["kcal_per_gram"], 1.0 + 1e-6)
        besides = Problem(
            parts=self.parts, aims=self.aims, base={"energy_kcal": 200.0}, base_grams=150.0
        )
        self.assertAlmostEqual(
            totals(besides, {one.key: 0.0 for one in self.parts})["energy_kcal"], 200.0
        )

    def test_what_stands_in_the_way_is_named(self):
        asked = Problem(
            parts=self.parts,
            aims=(
                Aim(key="protein_g", low=15, aim=20, high=None, firm_low=True, firm_high=True),
                Aim(key="potassium_mg", low=None, aim=300, high=320, firm_low=True, firm_high=True),
                self.aims[0],
            ),
        )
        answer = balance(asked, Work.of(LONG))
        self.assertEqual(answer.status, "infeasible")
        self.assertEqual(
            set(colliding(asked)) & {"potassium_mg", "protein_g"}, set(colliding(asked))
        )
        self.assertIn("potassium_mg", colliding(asked))
        least = sum(one.amount("potassium_mg") * one.limits.least for one in self.parts)
        self.assertGreaterEqual(closest(asked, "potassium_mg"), least - 1e-6)
        short = replace(asked, aims=(Aim(key="protein_g", low=90, aim=95, high=None),))
        why = misses(short, balance(short, Work.of(LONG)))[0].why
        self.assertIn("even with every part at its largest", why)

    def test_sensible_limits_hold_ones_own_portion(self):
        sauce, base = servable(None, "sauce"), servable(None, "base")
        limits = limits_around(sauce, 30.0)
        self.assertAlmostEqual(
            (30.0 - limits.least) / limits.step, round((30.0 - limits.least) / limits.step)
        )
        # a sauce may shrink to nothing
        self.assertTrue(0 == limits.least <= 30.0 <= limits.most)
        self.assertEqual(limits_around(base, 900.0).most, 900.0)
        for food in FOODS:
            served = servable(food, food.role)
            self.assertTrue(0 <= served.least_g <= served.most_g and served.step_g > 0, food.slug)
        self.assertLessEqual(servable(FOODS["lemon-zest"], "topping").most_g, 5)
        self.assertLessEqual(servable(FOODS["walnuts"], "topping").most_g, 30)


class File(TestCase):
    data = {
        "parts": [
            {
                "id": "base",
                "food": "barley cooked",
                "grams": 200,
                "min_grams": 100,
                "max_grams": 320,
                "step_grams": 20,
            },
            {
                "id": "beans",
                "food": "white-beans-cooked",
                "grams": 100,
                "min_grams": 60,
                "max_grams": 200,
                "step_grams": 20,
            },
            {
                "id": "sauce",
                "recipe": ["2 tbsp tahini", "1 tbsp lemon juice"],
                "grams": 30,
                "min_grams": 10,
                "max_grams": 60,
                "step_grams": 5,
            },
            {"id": "seeds", "food": "pumpkin seeds", "grams": 10, "locked": True},
        ],
        "targets": {
            "protein_g": {"min": 24, "aim": 26, "max": 40, "weight": 2},
            "sodium_mg": {"max": 300, "aim": 100, "hard": True},
        },
        "vessel_ml": 900,
    }

    def test_published_keys(self):
        out = solve(read_problem(self.data, str)).data()
        self.assertLessEqual(
            {"status", "portions", "totals", "violation", "deviation", "misses", "hints"}, set(out)
        )
        self.assertEqual(out["status"], "optimal")
        self.assertEqual(out["portions"]["seeds"], 10)
        self.assertEqual(set(out["totals"]), {"protein_g", "sodium_mg"})
        short = {**self.data, "targets": {"protein_g": {"min": 90, "aim": 95}}}
        missed = solve(read_problem(short, str)).data()
        self.assertEqual(missed["misses"][0]["nutrient"], "protein_g")
        self.assertLess(missed["misses"][0]["by"], 0)
        self.assertTrue(missed["hints"])

    def test_what_cannot_be_posed_names_its_field(self):
        parts = self.data["parts"]
        for wrong, field in (
            ({"parts": []}, "parts"),
            ({"targets": {}}, "targets"),
            ({"vessel_ml": -1}, "vessel_ml"),
            ({"parts": [{**parts[0], "step_grams": 0}]}, "parts[0].step_grams"),
            ({"parts": [{**parts[0], "food": "xqzzy"}]}, "parts[0].food"),
            ({"parts": [{"id": "a"}]}, "parts[0]"),
            ({"parts": [parts[0], parts[0]]}, "parts"),
            ({"parts": [{**parts[0], "min_grams": 400}]}, "parts[0].min_grams"),
            ({"targets": {"protien_g": {}}}, "targets.protien_g"),
            ({"targets": {"protein_g": {"min": 9, "max": 3}}}, "targets"),
            ({"parts": [{**parts[0], "grams": "a lot"}]}, "parts[0].grams"),
            ({"vessel_ml": 1e-320}, "vessel_ml"),
            ({"targets": {"protein_g": {"min": 1e308}}}, "targets.protein_g.min"),
            ({"targets": {"protein_g": {"min": 9, "weight": 1e308}}}, "targets.protein_g.weight"),
            ({"targets": {"protein_g": {"min": 9, "weight": 1e5}}}, "targets.protein_g.weight"),
            ({"targets": {"protein_g": {"min": 20, "aim": 10}}}, "targets.protein_g.aim"),
            ({"targets": {"protein_g": {"min": -10, "max": 5}}}, "targets.protein_g.min"),
            ({"targets": {"protein_g": {"max": -1}}}, "targets.protein_g.max"),
            (
                {"targets": {"protein_g": {"min": 100}, "energy_kcal": {"max": 300}}},
                "targets",
            ),
            ({"parts": [{**parts[0], "grams": 10**400}]}, "parts[0].grams"),
        ):
            with self.subTest(field), self.assertRaises(BadProblem) as caught:
                read_problem({**self.data, **wrong}, str)
            self.assertEqual(caught.exception.field, field)
