"""Balance as a cook would: few changes that earn their moves, against all portions there are,
against scipy's MILP, and by its laws."""

from dataclasses import replace
from itertools import product
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, milp

from nutrition.composition.foods import food_table
from nutrition.composition.portion import food_portion
from nutrition.portions.added_to_a_meal import added_to, helping_of
from nutrition.portions.hints import hints
from nutrition.portions.judge import A_PLATEFUL, A_STEP, NEAR, Judge
from nutrition.portions.problem import Problem
from nutrition.portions.proposals import balanced, proposals
from nutrition.portions.serving_limits import limits_around
from nutrition.portions.serving_rules import servable
from nutrition.portions.smallest_changes import best_of_all, best_single
from nutrition.portions.work import Work
from nutrition.requests.balance import read_problem
from nutrition.requests.balance_answer import as_text, solve
from nutrition.targets.aim import SLACK, Aim
from nutrition.tests.portions.balance_cases import problem
from nutrition.tests.thorough import thorough

FOODS = food_table()


def cooked(*args, **more):
    return replace(problem(*args, **more), cooks=True)


def served(slug, grams, role="", star=False, **more):
    food = FOODS[slug]
    role = role or food.role
    whole = food_portion(food, grams, role=role)
    return replace(whole, star=star, limits=limits_around(servable(food, role), grams, **more))


def every_way(judge):
    ranges = [
        range(int(low), int(high) + 1) for low, high in zip(judge.least, judge.most, strict=True)
    ]
    return np.array(list(product(*ranges)), dtype=np.int64)


def by_hand(judge, way):
    """What a way costs, from the definition alone."""
    asked, portions = judge.problem, judge.portions(way)
    cost = 0.0
    for aim in asked.aims:
        total = asked.base.get(aim.key, 0.0) + sum(
            part.amount(aim.key) * portions[part.key] for part in asked.parts
        )
        cost += (
            aim.weight
            * (
                max((aim.low if aim.low is not None else total) - total, 0.0)
                + max(total - (aim.high if aim.high is not None else total), 0.0)
            )
            / aim.per
        )
        if aim.key == "energy_kcal" and aim.weight:
            cost += NEAR * abs(total - aim.aim) / aim.per
    for part, steps in zip(judge.grid.free, way, strict=True):
        against = (part.limits.last and steps > 0) or (part.limits.keeps and steps < 0)
        cost += (judge.earned * (3 if against else 1) if steps else 0.0) + A_STEP * abs(steps)
        if asked.eats_little and steps > 0:
            cost += A_PLATEFUL / 100.0 * steps * part.limits.step
    return cost


class EveryWay(TestCase):
    def test_nothing_costs_less_than_what_is_found(self):
        proved = 0
        for seed in range(20):
            asked = cooked(seed, 3 + seed % 2, 3 + seed % 4, most_choices=5, far=seed % 2 == 1)
            asked = replace(asked, eats_little=seed % 3 == 0)
            judge = Judge(asked)
            ways = every_way(judge)
            costs = judge.cost(ways)
            least = float(costs.min())
            found, sure = best_of_all(judge, ways[0] * 0, Work.of(5.0))
            with self.subTest(seed=seed):
                self.assertAlmostEqual(float(judge.cost(found[None, :])[0]), least, places=6)
                self.assertAlmostEqual(by_hand(judge, found), least, places=5)
                single = best_single(judge)
                ones = ways[(ways != 0).sum(axis=1) == 1]
                self.assertAlmostEqual(
                    float(judge.cost(single[None, :])[0]), float(judge.cost(ones).min())
                )
                proved += sure
        self.assertGreaterEqual(proved, 18)

    def test_highs_finds_nothing_better_either(self):
        for seed in range(40, 52):
            asked = cooked(seed, 8, 8, far=seed % 2 == 0)
            judge = Judge(replace(asked, eats_little=seed % 3 == 0))
            found, _sure = best_of_all(judge, np.zeros(len(judge.grid.free), int), Work.of(3.0))
            with self.subTest(seed=seed):
                self.assertLessEqual(float(judge.cost(found[None, :])[0]), highs_cost(judge) + 1e-4)


def highs_cost(judge):
    """The least cost by scipy's MILP. Columns: ups, downs, whether each is used, misses, the
    energy's distance."""
    n, aims = len(judge.grid.free), len(judge.aims)
    columns = 4 * n + aims + 1
    cost = np.concatenate(
        [judge.step_up, np.full(n, A_STEP), judge.up, judge.down, judge.weight, [0.0]]
    )
    rows, low = [], []

    def at_least(terms, bound):
        row = np.zeros(columns)
        for column, value in terms:
            row[column] += value
        rows.append(row)
        low.append(bound)

    def signed(i, sign):
        each = judge.each[i] / judge.per[i] * sign
        return [*((k, each[k]) for k in range(n)), *((n + k, -each[k]) for k in range(n))]

    for i in range(aims):
        start = judge.start[i] / judge.per[i]
        if np.isfinite(judge.low[i]):
            at_least([*signed(i, 1), (4 * n + i, 1)], judge.low[i] / judge.per[i] - start)
        if np.isfinite(judge.high[i]):
            at_least([*signed(i, -1), (4 * n + i, 1)], start - judge.high[i] / judge.per[i])
            if judge.start[i] <= judge.high[i]:
                # a most that is kept stays kept
                at_least(signed(i, -1), start - judge.high[i] / judge.per[i])
    if judge.energy_at is not None:
        i = judge.energy_at
        cost[-1] = NEAR
        gap = judge.start[i] / judge.per[i] - judge.aims[i].aim / judge.per[i]
        at_least([*signed(i, 1), (columns - 1, 1)], -gap)
        at_least([*signed(i, -1), (columns - 1, 1)], gap)
    for k in range(n):
        at_least([(2 * n + k, float(judge.most[k])), (k, -1)], 0.0)
        at_least([(3 * n + k, float(-judge.least[k])), (n + k, -1)], 0.0)
    upper = np.concatenate(
        [judge.most, -judge.least, np.ones(2 * n), np.full(aims + 1, np.inf)]
    ).astype(float)
    whole = np.concatenate([np.ones(4 * n), np.zeros(aims + 1)])
    done = milp(
        cost,
        constraints=[LinearConstraint(np.array(rows), np.array(low), np.inf)],
        integrality=whole,
        bounds=Bounds(np.zeros(columns), upper),
        options={"time_limit": 10.0, "mip_rel_gap": 1e-6},
    )
    return float(done.fun)


PLATE = (
    served("barley-pearled-cooked", 200, "base"),
    served("white-beans-cooked", 120, "protein", star=True),
    served("kale-raw", 60, "greens"),
    served("carrots-cooked", 100, "vegetable"),
    served("tahini", 20, "sauce"),
    served("sunflower-seeds", 10, "topping"),
    served("lemon-zest", 2, "topping"),
)


class AsACook(TestCase):
    def asked(self, *aims, **more):
        return Problem(parts=PLATE, aims=aims, cooks=True, **more)

    def test_nothing_is_proposed_where_all_is_inside(self):
        told = proposals(self.asked(Aim(key="energy_kcal", low=300, aim=500, high=900)))
        self.assertEqual(told, [])

    def test_one_change_then_two_then_more_each_closing_more(self):
        told = proposals(
            self.asked(
                Aim(key="energy_kcal", low=760, aim=800, high=900, weight=3),
                Aim(key="protein_g", low=34, aim=38, high=None, weight=3),
                Aim(key="sodium_mg", low=None, aim=80, high=100, weight=2),
            )
        )
        self.assertTrue(1 <= len(told) <= 3)
        moves = [len(one.changes) for one in told]
        self.assertEqual(moves, sorted(moves))
        self.assertEqual([one.closes for one in told], sorted(one.closes for one in told))
        self.assertLess(told[0].closes, told[-1].closes + 1e-9)
        for one in told:
            self.assertTrue(one.sentence.endswith("."))
            self.assertTrue(all(change.limited_by for change in one.changes))
            own = {part.key: part.grams for part in PLATE}
            for key in ("kale-raw", "carrots-cooked"):
                if one.answer.portions[key] < own[key] - 1e-6:
                    self.assertEqual(one.because, ("Sodium",))
            self.assertLessEqual(one.answer.portions["lemon-zest"], 4)

    def test_vegetables_shrink_for_a_most_that_is_named_and_only_then(self):
        small = tuple(
            replace(part, limits=replace(part.limits, least=part.grams, most=part.grams))
            if part.key not in ("kale-raw", "carrots-cooked")
            else part
            for part in PLATE
        )
        asked = Problem(
            parts=small,
            aims=(Aim(key="vitamin_k_ug", low=None, aim=100, high=150, weight=2),),
            cooks=True,
        )
        told = proposals(asked)
        self.assertLess(told[-1].answer.portions["kale-raw"], 60)
        self.assertEqual(told[-1].because, ("Vitamin K",))
        short = replace(asked, aims=(Aim(key="protein_g", low=90, aim=95, high=None),))
        for one in proposals(short):
            self.assertGreaterEqual(one.answer.portions["kale-raw"], 60)

    def test_a_broken_limit_is_never_made_worse(self):
        for most in (60.0, 100.0, 200.0):
            asked = self.asked(
                Aim(key="energy_kcal", low=900, aim=950, high=1000, weight=3),
                Aim(key="potassium_mg", low=None, aim=most, high=most, weight=1, firm_high=True),
                vessel_ml=250.0,
            )
            now = sum(part.amount("potassium_mg") * part.grams for part in PLATE)
            room = sum(part.ml_per_gram * part.grams for part in PLATE)
            for one in proposals(asked):
                self.assertLessEqual(one.answer.totals["potassium_mg"], now + 1e-6)
                filled = sum(part.ml_per_gram * one.answer.portions[part.key] for part in PLATE)
                self.assertLessEqual(filled, room + 1e-6)

    def test_a_larger_bowl_is_said_first(self):
        asked = self.asked(
            Aim(key="energy_kcal", low=300, aim=500, high=900, weight=3), vessel_ml=300.0
        )
        found = balanced(asked)
        self.assertEqual(hints(found.problem, found.answer)[0].kind, "vessel")


class Laws(TestCase):
    @thorough
    @settings(max_examples=40, deadline=None)
    @given(st.integers(0, 100_000), st.integers(3, 9), st.integers(2, 8), st.integers(0, 2))
    def test_limits_hold_and_greens_keep_their_size(self, seed, parts, targets, hard):
        asked = cooked(seed, parts, targets, hard=hard, far=True)
        start = Judge(asked)
        own = {part.key: part for part in asked.parts}
        begun = set(start.breaks(np.zeros(len(start.grid.free), int)))
        for one in proposals(asked, Work.of(0.2)):
            for key, grams in one.answer.portions.items():
                limits = own[key].limits
                self.assertTrue(limits.least - 1e-6 <= grams <= limits.most + 1e-6)
                if limits.keeps and grams < own[key].grams - 1e-6:
                    self.assertTrue(one.because, "a smaller vegetable names its reason")
            for aim in asked.aims:
                if aim.firm_high and aim.key not in begun:
                    self.assertLessEqual(
                        one.answer.totals[aim.key], aim.high + SLACK * aim.per + 1e-9
                    )
            self.assertGreaterEqual(one.closes, 0.08 - 1e-9)

    @settings(max_examples=15, deadline=None)
    @given(st.integers(0, 100_000))
    def test_all_locked_changes_nothing(self, seed):
        asked = cooked(seed, 5, 5, far=True)
        locked = replace(asked, parts=tuple(replace(part, locked=True) for part in asked.parts))
        found = balanced(locked)
        self.assertEqual(found.told, ())
        self.assertEqual(found.answer.portions, {part.key: part.grams for part in asked.parts})

    def test_an_unknown_never_helps(self):
        """The same with what nobody knows of a food counted in: no most is easier to keep."""
        part = served("macadamia-milk-unsweetened", 240, "sauce", most=480.0)
        tofu = served("tofu-firm", 100, "protein")
        most = Aim(key="phosphorus_mg", low=None, aim=200, high=230, weight=2)
        asked = Problem(parts=(part, tofu), aims=(most,), cooks=True)
        now = {one.key: one.grams for one in asked.parts}
        known = Judge(replace(asked, parts=(replace(part, foods=()), tofu)))
        aware = Judge(asked)
        nothing = np.zeros((1, 2), int)
        self.assertGreaterEqual(aware.misses(nothing)[0], known.misses(nothing)[0])
        for one in proposals(asked):
            self.assertLessEqual(one.answer.portions[part.key], now[part.key])

    @thorough
    def test_following_a_hint_does_what_it_said(self):
        followed = 0
        for seed in range(8):
            asked = cooked(700 + seed, 5, 5, far=True)
            found = balanced(asked, Work.of(0.2))
            held = {
                part.key: replace(
                    part,
                    grams=found.answer.portions[part.key],
                    limits=replace(
                        part.limits,
                        least=found.answer.portions[part.key],
                        most=found.answer.portions[part.key],
                    ),
                )
                for part in found.problem.parts
            }
            for hint in hints(found.problem, found.answer, added_to(found.problem)[:6]):
                parts = dict(held)
                if hint.kind in ("less", "larger"):
                    part = held[hint.id]
                    best = min(
                        self.missed(found.problem, parts | {hint.id: replace(part, grams=grams)})
                        for grams in np.linspace(0, hint.to, 400)
                    )
                    self.assertLessEqual(best, hint.violation + 0.02, hint.words)
                elif hint.kind == "add":
                    more = replace(helping_of(FOODS[hint.id]), grams=hint.to)
                    self.assertAlmostEqual(
                        self.missed(found.problem, parts | {hint.id: more}), hint.violation, 4
                    )
                else:
                    continue
                followed += 1
        self.assertGreater(followed, 6)

    def missed(self, asked, parts):
        total = 0.0
        for aim in asked.aims:
            amount = sum(part.amount(aim.key) * part.grams for part in parts.values())
            total += aim.weight * aim.missed(amount) / aim.per
        return total


PERSON = {
    "sex": "female",
    "age_years": 62,
    "height_cm": 165,
    "weight_kg": 68,
    "activity": "low_active",
}
BOWL = [
    {"id": "base", "food": "barley cooked", "grams": 180},
    {"id": "beans", "food": "white-beans-cooked", "grams": 110},
    {"id": "greens", "food": "kale raw", "grams": 50},
    {"id": "sauce", "food": "tahini", "grams": 20},
]


class File(TestCase):
    def read(self, **data):
        return read_problem({"parts": BOWL} | data, lambda name: "")

    def test_for_a_person_by_the_meal_that_it_is(self):
        asked = self.read(person=PERSON)
        self.assertTrue(asked.cooks)
        self.assertIn("its energy is nearest", asked.judged_as)
        keys = {aim.key for aim in asked.aims if aim.weight}
        self.assertEqual(keys, {"energy_kcal", "protein_g"}, "no share of iron, no share of a most")
        protein = next(aim for aim in asked.aims if aim.key == "protein_g")
        self.assertIsNone(protein.high, "a most of protein is not shared out")
        answer = solve(asked)
        self.assertIn("Judged as", as_text(asked, answer))
        day = self.read(person=PERSON, meal="day")
        self.assertLess({"energy_kcal", "protein_g", "fiber_g"}, {a.key for a in day.aims})

    def test_what_a_condition_asks_of_a_meal(self):
        insulin = self.read(person=PERSON | {"conditions": ["insulin", "diabetes"]}, meal="lunch")
        carbohydrate = next(aim for aim in insulin.aims if aim.key == "carbohydrate_g")
        self.assertIsNotNone(carbohydrate.low)
        heart = self.read(person=PERSON | {"conditions": ["heart_failure"]}, meal="lunch")
        sodium = next(aim for aim in heart.aims if aim.key == "sodium_mg")
        self.assertLess(sodium.high, 2300 * 0.5)
        healthy = self.read(person=PERSON, meal="lunch")
        self.assertFalse([aim for aim in healthy.aims if aim.key == "sodium_mg"])

    def test_what_the_rest_of_the_day_leaves(self):
        day = [["2 cups cooked brown rice", "1 cup cooked lentils"], ["1 cup soy milk"]]
        asked = self.read(person=PERSON, meal="dinner", day=day)
        fiber = next(aim for aim in asked.aims if aim.key == "fiber_g")
        self.assertGreater(asked.base["fiber_g"], 10)
        self.assertGreater(fiber.low, asked.base["fiber_g"], "the day's own, less what is there")
        self.assertNotIn("energy_kcal", asked.base, "a meal's energy is its own")

    def test_the_gate_of_the_person_holds(self):
        asked = self.read(person=PERSON | {"allergies": ["sesame"]})
        told = solve(asked).data()
        self.assertEqual(told["portions"]["sauce"], 0)
        self.assertIn("sauce", told["held"])
        self.assertEqual(told["proposals"][0]["name"], "What must change")

    def test_less_of_what_is_too_much_is_said_before_a_looser_target(self):
        parts = [*BOWL, {"id": "soy", "food": "soy-sauce", "grams": 15, "min_grams": 15}]
        told = solve(self.read(parts=parts, targets={"sodium_mg": {"max": 300}})).data()
        first = told["hints"][0]
        self.assertIn(first["kind"], ("less", "instead"))
        self.assertEqual(first["id"], "soy")
        kinds = [hint["kind"] for hint in told["hints"]]
        self.assertEqual(kinds, sorted(kinds, key=lambda kind: kind == "loosen"))
        tofu = [{"id": "tofu", "food": "tofu firm", "grams": 180, "min_grams": 150}, *BOWL[:1]]
        told = solve(self.read(parts=tofu, targets={"protein_g": {"max": 12, "hard": True}})).data()
        self.assertEqual((told["hints"][0]["kind"], told["hints"][0]["id"]), ("less", "tofu"))

    def test_portions_are_those_a_cook_weighs(self):
        told = solve(self.read(targets={"energy_kcal": {"min": 700, "max": 760}})).data()
        for part in BOWL:
            moved = told["portions"][part["id"]] - part["grams"]
            step = servable(
                FOODS[
                    read_problem({"parts": [part], "targets": {"energy_kcal": {"min": 1}}}, str)
                    .parts[0]
                    .food.slug
                ],
                "base",
            ).step_g
            self.assertAlmostEqual(moved / step, round(moved / step), places=6)
