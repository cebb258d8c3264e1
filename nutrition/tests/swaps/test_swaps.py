"""Swaps, the library of substitutions, and what fills a shortfall."""

import re
from dataclasses import replace
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from nutrition.composition.foods import food_table
from nutrition.composition.portion import Portion, food_portion
from nutrition.composition.profile import Profile
from nutrition.safety.cautions import Situation
from nutrition.safety.gate import Gate
from nutrition.swaps.fillers import complement
from nutrition.swaps.library import for_food, library
from nutrition.swaps.ranking import ranked, single_steps, thinned
from nutrition.swaps.swap import gap, rank, reason, totals_of
from nutrition.targets.aim import Aim

FOODS = food_table()


def line(slug, grams, **more):
    return replace(food_portion(FOODS[slug], grams), **more)


def dish(key, name, profile):
    return Portion(
        key=key,
        name=name,
        role="dish",
        grams=profile.grams,
        profile=profile,
        volume_ml=profile.grams,
    )


SALTY = (
    line("white-beans-canned-drained", 150),
    line("tamari", 20),
    line("brown-rice-cooked", 180),
    line("tahini", 20),
)
SODIUM = (
    Aim(key="sodium_mg", low=None, aim=300, high=500, weight=2.0),
    Aim(key="protein_g", low=12, aim=20, high=None),
    Aim(key="energy_kcal", low=300, aim=500, high=700),
)


class Library(TestCase):
    def rows(self):
        return [(name, row) for name, rows in library().items() for row in rows]

    def test_at_least_150_each_saying_what_it_does_and_where_it_fails(self):
        self.assertGreaterEqual(len(self.rows()), 150)
        for name, row in self.rows():
            with self.subTest(name, to=row.to.slug):
                self.assertTrue(name.startswith("group:") or name in FOODS)
                self.assertTrue(row.effect and row.fails and row.use)
                self.assertTrue(0 < row.ratio <= 50)
                self.assertFalse(row.to.comparator, "nothing of an animal is offered")
        flax = next(row for row in library()["chia-seeds"] if row.to.slug == "flaxseed-ground")
        self.assertIn("rise", flax.fails)

    def test_what_it_says_of_nutrients_is_so(self):
        """A claim such as "half the fat" or "more protein" against the composition table, at the
        ratio of the row."""
        keys = {
            "calories": "energy_kcal",
            "protein": "protein_g",
            "fat": "fat_g",
            "sodium": "sodium_mg",
            "potassium": "potassium_mg",
            "fiber": "fiber_g",
            "iron": "iron_mg",
            "calcium": "calcium_mg",
            "phosphorus": "phosphorus_mg",
            "oxalate": "oxalate_mg",
            "saturated fat": "saturated_fat_g",
            "omega-3": "ala_g",
            "lysine": "lysine_g",
        }
        times = {
            "half": 0.5,
            "a third of": 1 / 3,
            "a quarter of": 0.25,
            "a fifth of": 0.2,
            "twice": 2.0,
            "three times": 3.0,
            "four times": 4.0,
        }
        checked = 0
        for name, row in self.rows():
            for word, key in keys.items() if name in FOODS else ():
                was, now = FOODS[name].per_100_g(key), row.to.per_100_g(key)
                if not was or now is None:
                    continue
                share = now * row.ratio / was
                bands = [
                    (value / 1.4, value * 1.4)
                    for said, value in times.items()
                    if re.search(rf"\b{said} (the )?{word}\b", row.effect)
                ]
                bands += (
                    [(1.0, 1e9)]
                    if re.search(rf"\b(more|better) (\w+ )?{word}\b", row.effect)
                    else []
                )
                bands += (
                    [(0.0, 1.0)]
                    if re.search(rf"\b(less|fewer|little) (\w+ )?{word}\b", row.effect)
                    else []
                )
                bands += [(0.75, 1.4)] if f"as much {word}" in row.effect else []
                for low, high in bands:
                    checked += 1
                    with self.subTest(name, to=row.to.slug, says=row.effect, key=key):
                        self.assertTrue(low <= share <= high, f"{share:.2f} times the {word}")
        self.assertGreater(checked, 70)

    def test_groups_stand_behind_names(self):
        found = [row.to.slug for row in for_food(FOODS["olive-oil"])]
        self.assertLess(found.index("avocado-raw"), found.index("water"))


class Ranked(TestCase):
    def test_each_does_what_it_says(self):
        whole = Profile.total(one.profile for one in SALTY)
        before = totals_of(SODIUM, whole)
        for swap in ranked(SALTY, SODIUM):
            total = whole
            for step in swap.steps:
                own = next(one for one in SALTY if one.key == step.id)
                brought = (
                    step.food.profile(step.grams)
                    if step.kind in ("instead", "form")
                    else own.profile * (step.grams / own.grams)
                )
                total = total + own.profile * -1.0 + brought
            after = totals_of(SODIUM, total)
            with self.subTest(swap.words):
                self.assertAlmostEqual(swap.before, gap(SODIUM, before))
                self.assertAlmostEqual(swap.after, gap(SODIUM, after))
                for key in after:
                    self.assertAlmostEqual(swap.totals[key][1], after[key])

    def test_most_closed_first_and_pairs_only_where_two_do_more_than_one(self):
        found = ranked(SALTY, SODIUM)
        self.assertEqual([rank(swap) for swap in found], sorted(rank(swap) for swap in found))
        gutted = [any(step.guts for step in swap.steps) for swap in found]
        self.assertEqual(gutted, sorted(gutted), "what takes the dish apart comes last")
        singles = [swap for swap in found if len(swap.steps) == 1]
        self.assertTrue(singles)
        for swap in found:
            if len(swap.steps) == 2:
                alone = [one.closed for one in singles if one.steps[0] in swap.steps]
                self.assertGreater(swap.closed, max(alone, default=0.0))
        kinds = {swap.steps[0].kind for swap in singles}
        self.assertTrue({"form", "instead"} & kinds and {"less", "out"} & kinds)
        self.assertIn("sodium", reason(singles[0], SODIUM))
        self.assertEqual(singles[0].helps(SODIUM), "sodium_mg")

    def test_a_limit_that_is_never_broken_is_not_traded_for_something_else(self):
        soft = (
            Aim(key="protein_g", low=40, aim=45, high=None, weight=3.0),
            Aim(key="sodium_mg", low=None, aim=1500, high=2200),
        )
        hard = (
            soft[0],
            Aim(key="sodium_mg", low=None, aim=1500, high=2200, firm_low=True, firm_high=True),
        )
        beans = line("white-beans-cooked", 300)
        salty = dish(
            "recipe-2",
            "Salty tempeh",
            FOODS["tempeh"].profile(300.0) + FOODS["salt"].profile(6.0),
        )
        lines = [dish(beans.key, beans.name, beans.profile)]
        instead = {beans.key: (salty,)}
        self.assertTrue(
            any(swap.steps[0].dish for swap in ranked(lines, soft, dishes=instead)),
            "worth it where sodium is only a wish",
        )
        self.assertFalse(any(swap.steps[0].dish for swap in ranked(lines, hard, dishes=instead)))

    def test_nothing_to_close_offers_nothing(self):
        self.assertEqual(ranked(SALTY, (Aim(key="sodium_mg", low=None, aim=300, high=5000),)), [])

    def test_what_is_refused_is_never_offered(self):
        gate = Gate(
            Situation(allergies=frozenset({"soy"}), dislikes=("rice",)), {"oil": "the school"}
        )
        for one in (*SALTY, line("olive-oil", 10), line("tofu-firm", 100)):
            for step in single_steps(one, gate):
                if step.kind in ("instead", "form"):
                    with self.subTest(one.name, step=step.words):
                        self.assertFalse(gate.why_not(step.food))
                        self.assertNotIn("soy", step.food.allergens)
        self.assertIn("does not tolerate", gate.why_not(FOODS["tofu-firm"]))
        self.assertIn(
            "does not like (a wish, no allergy)", gate.why_not(FOODS["brown-rice-cooked"])
        )
        self.assertIn("the school", gate.why_not(FOODS["olive-oil"]))

    def test_another_dish_in_its_place(self):
        plain = dish("recipe-1", "Plain beans", FOODS["white-beans-cooked"].profile(150.0))
        salty = dish("part", "Salty beans", FOODS["white-beans-canned-drained"].profile(150.0))
        aims = (Aim(key="sodium_mg", low=None, aim=50, high=100),)
        found = ranked([salty], aims, dishes={"part": (plain,)})
        best = next(swap for swap in found if swap.steps[0].dish)
        self.assertEqual(best.steps[0].dish.key, "recipe-1")
        self.assertAlmostEqual(best.totals["sodium_mg"][1], plain.profile["sodium_mg"].amount)

    @settings(max_examples=25, deadline=None)
    @given(st.floats(20, 400), st.floats(50, 2000))
    def test_less_is_less_and_never_nothing(self, grams, most):
        for step in single_steps(line("barley-pearled-cooked", grams), Gate()):
            if step.kind == "less":
                self.assertTrue(0 < step.grams < grams)
        for swap in ranked(
            [line("tamari", grams)], (Aim(key="sodium_mg", low=None, aim=most / 2, high=most),)
        ):
            self.assertLess(swap.after, swap.before)


class Thinned(TestCase):
    def test_the_serving_weighs_what_it_did_and_costs_less(self):
        sauce = FOODS["tahini"].profile(60.0) + FOODS["lemon-juice"].profile(30.0)
        aims = (Aim(key="energy_kcal", low=None, aim=40, high=60),)
        serving = sauce * (1 / 4)
        for swap in thinned(serving, aims, Gate(), 4):
            (step,) = swap.steps
            batch = sauce + step.food.profile(step.grams)
            self.assertAlmostEqual(
                swap.totals["energy_kcal"][1],
                batch["energy_kcal"].amount / batch.grams * serving.grams,
            )
            self.assertLess(swap.after, swap.before)
        self.assertEqual(
            thinned(FOODS["lemon-juice"].profile(30.0), aims, Gate(), 1), [], "nothing rich to thin"
        )


class Complement(TestCase):
    def test_fills_for_the_fewest_calories_the_liked_ones_first(self):
        liked, others = (
            [FOODS["walnuts"]],
            [FOODS["flaxseed-ground"], FOODS["hemp-seeds-hulled"], FOODS["white-rice-cooked"]],
        )
        found = complement("ala_g", 1.0, liked, others, Gate())
        self.assertEqual(found[0].food.slug, "walnuts")
        self.assertTrue(found[0].favorite)
        rest = [row.kcal / row.filled for row in found[1:]]
        self.assertEqual(rest, sorted(rest))
        self.assertEqual(found[1].food.slug, "flaxseed-ground")
        for row in found:
            brings = row.food.per_100_g("ala_g") * row.grams / 100
            self.assertAlmostEqual(brings, row.filled, delta=0.15)

    def test_no_more_than_is_sensible_then_it_fills_a_part(self):
        (tofu,) = complement("protein_g", 40.0, [FOODS["tofu-firm"]], [], Gate())
        self.assertLess(tofu.filled, 1.0)
        self.assertLessEqual(tofu.grams, 200)
        self.assertEqual(complement("protein_g", 100.0, [], [FOODS["chia-seeds"]], Gate()), [])

    def test_sums_of_amino_acids_are_filled_too(self):
        foods = [FOODS["tofu-firm"], FOODS["sesame-seeds"]]
        (tofu,) = complement(
            "methionine_cystine_g", 0.2, [], foods, Gate(Situation(allergies=frozenset({"sesame"})))
        )
        brings = tofu.food.per_100_g("methionine_g") + tofu.food.per_100_g("cystine_g")
        self.assertAlmostEqual(brings * tofu.grams / 100, 0.2, delta=0.03)
