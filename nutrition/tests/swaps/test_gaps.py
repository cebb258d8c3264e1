"""Which changes and foods are offered for which gap."""

from dataclasses import replace
from unittest import TestCase

from nutrition.composition.amounts import amount_of
from nutrition.composition.foods import food_table
from nutrition.composition.portion import food_portion
from nutrition.composition.profile import Profile
from nutrition.safety.caution_rules import LEVELS
from nutrition.safety.cautions import Caution
from nutrition.safety.gate import OPEN
from nutrition.swaps.fillers import COMPLEMENT_KEYS
from nutrition.swaps.gaps import (
    MOST_FILLERS,
    MOST_PAIRS,
    MOST_UNDER_A_GAP,
    Judged,
    also_short,
    gaps,
)
from nutrition.swaps.ranking import plain_profile, ranked
from nutrition.swaps.swap import gap, totals_of
from nutrition.targets.aim import Aim

FOODS = food_table()
LINES = tuple(
    food_portion(FOODS[slug], grams)
    for slug, grams in (
        ("white-beans-canned-drained", 150),
        ("tamari", 20),
        ("brown-rice-cooked", 180),
        ("tahini", 20),
    )
)
EATEN = Profile.total(line.profile for line in LINES)
AIMS = (
    Aim(key="sodium_mg", low=None, aim=300, high=500, weight=2.0),
    Aim(key="protein_g", low=30, aim=35, high=None),
    Aim(key="energy_kcal", low=300, aim=500, high=700),
)


def judged(**more):
    asked = Judged(
        profile=EATEN, times=1.0, aims=AIMS, system="us", gate=OPEN, liked=(), say=lambda foods: []
    )
    return replace(asked, **more)


def swaps(aims=AIMS):
    return ranked(LINES, aims, OPEN, plain_profile, EATEN, (), "us")


class Gaps(TestCase):
    def test_every_target_that_is_missed_the_most_missed_first(self):
        found = gaps(judged(), swaps())
        totals = totals_of(AIMS, EATEN)
        missed = [aim.weight * abs(aim.miss(totals[aim.key])) / aim.per for aim in AIMS]
        self.assertEqual(
            [one.aim.key for one in found],
            [
                aim.key
                for size, aim in sorted(zip(missed, AIMS, strict=True), key=lambda row: -row[0])
                if size > 0
            ],
        )
        self.assertIn("sodium_mg", [one.aim.key for one in found])

    def test_no_more_than_can_be_read_and_the_gentlest_among_it(self):
        for one in gaps(judged(), swaps()):
            self.assertLessEqual(len(one.swaps), MOST_UNDER_A_GAP + 1)
            self.assertLessEqual(len(one.fillers), MOST_FILLERS)
            pairs = [offer for offer in one.swaps if len(offer.swap.steps) > 1]
            self.assertLessEqual(len(pairs), MOST_PAIRS)
            own = [swap for swap in swaps() if swap.helps(AIMS) == one.aim.key]
            singles = [swap for swap in own if len(swap.steps) == 1]
            if singles:
                least = min(swap.felt for swap in singles)
                self.assertIn(least, [offer.swap.felt for offer in one.swaps])

    def test_fillers_fill_what_is_short_and_close_more_than_they_open(self):
        fillers = [offer for one in gaps(judged(), swaps()) for offer in one.fillers]
        self.assertTrue(fillers)
        for offer in fillers:
            after = totals_of(AIMS, EATEN + offer.filler.food.profile(offer.filler.grams))
            self.assertLess(gap(AIMS, after), gap(AIMS, totals_of(AIMS, EATEN)))
            moved = {move.key: move for move in offer.moves}
            self.assertAlmostEqual(moved["protein_g"].after, after["protein_g"])
            self.assertGreater(moved["protein_g"].after, moved["protein_g"].before)

    def test_what_is_made_together_fills_each_of_its_servings(self):
        alone = gaps(judged(), swaps())
        fours = gaps(judged(times=4.0), swaps())
        grams = [
            {offer.filler.food.slug: offer.filler.grams for one in found for offer in one.fillers}
            for found in (alone, fours)
        ]
        both = grams[0].keys() & grams[1].keys()
        self.assertTrue(both)
        for slug in both:
            # rounded to a kitchen measure, each time
            self.assertAlmostEqual(grams[1][slug] / grams[0][slug], 4.0, delta=1.2)

    def test_what_is_to_be_asked_about_first_is_not_offered(self):
        def stop(foods):
            return [
                Caution(
                    code="test",
                    level=LEVELS[0],
                    text="",
                    why="",
                    refer_to="",
                    source="",
                    about="",
                )
            ]

        open_offers = gaps(judged(), swaps())
        for one in gaps(judged(say=stop), swaps()):
            self.assertEqual(one.fillers, ())
            for offer in one.swaps:
                self.assertTrue(
                    all(step.kind in ("less", "out") for step in offer.swap.steps),
                    "nothing new comes in",
                )
        self.assertTrue(any(one.fillers for one in open_offers))

    def test_what_is_unknown_and_could_break_a_limit_is_not_offered(self):
        firm = tuple(
            replace(aim, firm_high=True) if aim.key == "sodium_mg" else aim for aim in AIMS
        )
        for one in gaps(judged(aims=firm), swaps(firm)):
            for offer in (*one.swaps, *one.fillers):
                for row in offer.unknown:
                    if row.key == "sodium_mg":
                        after = (row.between or (0.0, 0.0))[1]
                        self.assertLessEqual(after, 500 + 1e-6)

    def test_also_short_is_what_the_targets_do_not_watch(self):
        wider = [
            Aim(key=key, low=1.5 * amount, aim=2 * amount, high=None)
            for key in COMPLEMENT_KEYS
            if (amount := amount_of(EATEN, key).amount) > 0
        ]
        found = also_short(judged(), wider)
        self.assertTrue(found)
        self.assertTrue(all(one.fillers and not one.swaps for one in found))
        self.assertNotIn("protein_g", [one.aim.key for one in found])
        self.assertEqual(also_short(judged(), [aim for aim in wider if aim.key == "protein_g"]), [])
