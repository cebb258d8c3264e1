"""What would help a week, and what bounds its search: on both sides of an edge, and on it."""

import unittest
from dataclasses import replace
from random import Random

from nutrition.composition.foods import food_table
from nutrition.composition.portion import food_portion
from nutrition.planning.candidates import SERVINGS, aims_of_day, candidate_of, usual_day_g
from nutrition.planning.enumeration import can_try_all
from nutrition.planning.model import LEVELS, Model
from nutrition.planning.obstacles import _added, _gap, would_help
from nutrition.planning.score import score
from nutrition.planning.search import plan
from nutrition.planning.week import MOST_POTS, Choice, Slot, Turns, Wishes
from nutrition.portions.work import Work
from nutrition.targets.aim import Aim
from nutrition.targets.day import day_targets
from nutrition.targets.person import Person
from nutrition.tests.planning.test_edges import ENERGY, dish, slots, week
from nutrition.tests.planning.week_cases import week as made_week

PROTEIN = Aim(key="protein_g", low=70.0, aim=80.0, high=None, weight=2.0)


def one_choice(count):
    """So many dishes that can stand in a slot in one size only."""
    return [dish(f"d{n}", least=1.0, most=1.0) for n in range(count)]


def pinned(case, *counts):
    """The week with so much of its first dish pinned on each day."""
    first = case.candidates[0].key
    return replace(
        case,
        slots=tuple(
            replace(slot, pinned=True, placed=Choice(candidate=first, count=count))
            for slot, count in zip(case.slots, counts, strict=True)
        ),
    )


def placed(case):
    return {slot.key: slot.placed for slot in case.slots}


class Candidates(unittest.TestCase):
    def test_no_more_of_a_dish_than_a_meal_may_take(self):
        soup = food_portion(food_table()["lentil-soup-canned"], 400.0)
        self.assertGreater(soup.volume_ml, 0.0)
        for room, most in ((3.1, 1.5), (1.6, 1.5), (1.4, 1.0), (0.3, 0.5)):
            at_once = soup.volume_ml * room
            found = candidate_of(soup, ["main"], SERVINGS, ["energy_kcal"], at_once_ml=at_once)
            self.assertEqual(found.most, most, room)
            # nor where the skeleton wishes for more
            self.assertLessEqual(max(found.counts_for(2.0)), max(room, 0.5))
        nothing = replace(soup, volume_ml=0.0)
        found = candidate_of(nothing, ["main"], SERVINGS, ["energy_kcal"], at_once_ml=1.0)
        self.assertEqual(found.most, 1.5)

    def test_a_large_bowl_is_eaten_whole_where_the_stomach_is_not_small(self):
        """1,200 mL are what is usually eaten at once; a bowl of 1,500 is one bowl all the same."""
        bowl = replace(food_portion(food_table()["lentil-soup-canned"], 400.0), volume_ml=1500.0)
        for at_once, most in ((1200.0, 1.0), (1199.0, 0.5)):
            found = candidate_of(bowl, ["bowl"], SERVINGS, ["energy_kcal"], at_once_ml=at_once)
            self.assertEqual(found.most, most, at_once)

    def test_what_whole_plants_pass_is_asked_of_a_day_only_where_it_is_watched(self):
        day = day_targets(Person(sex="female", age_years=40, height_cm=170, weight_kg=65))
        for watched, asked in ((["protein_g"], False), (["protein_g", "manganese_mg"], True)):
            each = aims_of_day(day, watched, lambda _key: 1.0)
            self.assertEqual("manganese_mg" in {aim.key for aim in each}, asked, watched)

    def test_a_usual_day_weighs_what_its_density_says_down_to_three_tenths(self):
        day = day_targets(Person(sex="female", age_years=40, height_cm=170, weight_kg=65))
        energy = replace(day.targets["energy_kcal"], aim=1800.0)
        thin = replace(energy, key="kcal_per_gram", low=None, high=None)
        for aim, grams in ((0.6, 3000.0), (0.32, 5625.0), (0.3, 6000.0), (0.25, 6000.0)):
            targets = {"energy_kcal": energy, "kcal_per_gram": replace(thin, aim=aim)}
            self.assertAlmostEqual(usual_day_g(replace(day, targets=targets)), grams)
        # of no density is known: one kilocalorie a gram
        self.assertEqual(usual_day_g(replace(day, targets={"energy_kcal": energy})), 1800.0)

    def test_a_recipe_is_cooked_in_up_to_four_pots(self):
        self.assertEqual(MOST_POTS, 4.0)


class Tried(unittest.TestCase):
    def test_every_week_is_tried_where_there_are_300000(self):
        """Ten, ten, ten, ten, ten and three choices are as many; four at the end are too many."""
        for last, all_of_them in ((3, True), (4, False)):
            some = one_choice(10)
            kinds = [frozenset({"main", "few"} if n < last else {"main"}) for n in range(10)]
            some = [replace(one, kinds=kind) for one, kind in zip(some, kinds, strict=True)]
            places = list(slots(6))
            places[5] = replace(places[5], kind="few")
            self.assertEqual(can_try_all(week(6, some, slots=tuple(places))), all_of_them)


class Helps(unittest.TestCase):
    def test_twelve_foods_are_tried_and_four_told(self):
        case = week(1, [dish("stew", 1000.0, least=1.0, most=1.0)])
        planned = plan(case).planned
        some = [dish(f"f{n}", 300.0 + n) for n in range(14)]
        self.assertEqual(len(_added(case, planned, some, 1.0)), 12)
        self.assertEqual(len(would_help(case, planned, some)), 4)

    def test_of_a_food_that_helps_with_two_targets_the_better_is_told(self):
        """All days are short of protein, and only the last is of energy: on that day alone it
        closes more, for on the others it is too much."""
        stew = replace(
            dish("stew", 2150.0, least=0.5, most=1.0),
            amounts={"energy_kcal": 2150.0, "protein_g": 62.0},
        )
        beans = replace(dish("beans", 600.0), amounts={"energy_kcal": 600.0, "protein_g": 20.0})
        case = pinned(week(4, [stew], aims=(ENERGY, PROTEIN)), 1.0, 1.0, 1.0, 0.8)
        closes = {
            days: 1.0 - _gap(case, placed(case), {day: [(beans, 1.0)] for day in days})
            for days in ((0, 1, 2, 3), (3,))
        }
        self.assertGreater(closes[3,], closes[0, 1, 2, 3])
        for aims in ((ENERGY, PROTEIN), (PROTEIN, ENERGY)):
            (found,) = _added(replace(case, aims=aims), placed(case), [beans], 1.0)
            self.assertEqual(found.days, (3,), aims)
            self.assertAlmostEqual(found.closes, closes[3,])

    def test_a_step_is_told_of_what_is_pinned_or_beyond_what_is_served(self):
        """A stew of 1,500 kcal is half a portion short; what is not pinned the search had tried."""
        stew = dish("stew", 1500.0, least=0.5, most=1.0, step=0.5)
        case = week(1, [stew])
        bound = pinned(case, 0.5)
        kinds = {(one.kind, one.count) for one in would_help(bound, placed(bound))}
        self.assertIn(("more", 1.0), kinds)
        self.assertNotIn(("less", 0.0), kinds)
        free = replace(bound, slots=tuple(replace(one, pinned=False) for one in bound.slots))
        kinds = {(one.kind, one.count) for one in would_help(free, placed(free))}
        self.assertNotIn(("more", 1.0), kinds)

    def test_a_limit_would_have_to_allow_the_farther_of_two_days(self):
        stew = dish("stew", 1000.0, least=0.5, most=3.0, step=0.5)
        firm = replace(ENERGY, low=None, firm_high=True, high=1200.0, aim=1100.0)
        for counts in ((1.5, 2.5), (2.5, 1.5)):
            case = pinned(week(2, [stew], aims=(firm,)), *counts)
            (allowed,) = [one for one in would_help(case, placed(case)) if one.kind == "allow"]
            self.assertEqual(allowed.count, 2500.0)
            self.assertEqual(allowed.days, (0, 1))


class TheModel(unittest.TestCase):
    """What the solver is told counts exactly as the score does that weeks are judged by."""

    def counted(self, case, planned):
        """Each sum at its smallest, in their order, for a week that is given."""
        model, out = Model(case), {}
        for level in LEVELS:
            found = model.solve(model.levels[level], Work.of(3.0), fixed=planned)
            self.assertIsNotNone(found.planned, level)
            out[level] = found.value
            model.hold(level, found.value)
        return out

    def test_any_week_counts_as_the_score_says(self):
        seen = {level: set() for level in LEVELS}
        for seed in range(6):
            rng = Random(seed)
            wishes = Wishes(
                turns=dict.fromkeys(("breakfast", "lunch", "dinner"), Turns(1, 2)), plants=26 + seed
            )
            case = made_week(seed, days=4, meals=2, count=8, wishes=wishes)
            some = [
                replace(slot, placed=rng.choice(case.choices(slot))) if at % 2 else slot
                for at, slot in enumerate(case.slots)
            ]
            first, *others = case.aims
            firm = replace(first, firm_low=first.low is not None, firm_high=first.high is not None)
            case = replace(case, slots=tuple(some), aims=(firm, *others), cook_days=frozenset({0}))
            place = Slot(key="more", day=1, meal="lunch", kind="kind 0", optional=True)
            case = replace(case, slots=(*case.slots, place))
            planned = {slot.key: rng.choice(case.choices(slot)) for slot in case.slots}
            planned["more"] = planned["more"] if seed % 2 else None
            wanted = score(case, planned)
            counted = self.counted(case, planned)
            # each of the nine places is rounded to a hundred-thousandth of an aim
            self.assertAlmostEqual(counted["hard"], wanted.hard, delta=9)
            for level in LEVELS[1:]:
                self.assertEqual(counted[level], getattr(wanted, level), (seed, level))
            for level, value in counted.items():
                seen[level].add(value)
        # every sum was more than nothing somewhere
        for level in LEVELS:
            self.assertGreater(max(seen[level]), 0, level)

    def test_what_may_not_be_eaten_together_in_so_many_servings_may_in_fewer(self):
        case = week(2, [dish("stew"), dish("soup")])
        both = replace(case, slots=(*slots(2), *slots(2, "lunch")))
        counts = both.by_key["soup"].counts
        self.assertGreater(len(counts), 1)
        model = Model(both)
        model.forbid({"stew": 0.0, "soup": counts[1]})
        for count, found in ((counts[0], "optimal"), (counts[1], "infeasible")):
            stew, soup = Choice(candidate="stew", count=1.0), Choice(candidate="soup", count=count)
            planned = {slot.key: stew for slot in both.slots} | {"1-lunch": soup}
            status = model.solve(model.levels["rest"], Work.of(2.0), fixed=planned).status
            self.assertEqual(status, found)

    def test_what_may_not_be_eaten_together_stands_on_no_day(self):
        case = week(2, [dish("stew"), dish("soup")])
        one, other = (Choice(candidate=key, count=1.0) for key in ("stew", "soup"))
        both = replace(case, slots=(*slots(2), *slots(2, "lunch")))
        model = Model(both)
        model.forbid({"stew": 0.0, "soup": 0.0})
        for lunch, found in ((one, "optimal"), (other, "infeasible")):
            planned = {slot.key: one for slot in both.slots} | {"1-lunch": lunch}
            status = model.solve(model.levels["rest"], Work.of(2.0), fixed=planned).status
            self.assertEqual(status, found)


if __name__ == "__main__":
    unittest.main()
