"""What a week gives up for what beside another, and how that is said."""

import unittest
from dataclasses import replace

from nutrition.planning.cooking import cookings
from nutrition.planning.orders import LEAST_COOKING, MOST_VARIETY, NEAREST
from nutrition.planning.proposals import offered
from nutrition.planning.rotation import missing
from nutrition.planning.score import score
from nutrition.planning.search import Planning
from nutrition.planning.trades import trades
from nutrition.planning.week import Candidate, Choice, Prepared, Slot, Week
from nutrition.planning.words import (
    gave_way_words,
    gives_words,
    listed,
    missing_words,
    proved_words,
    starved_words,
    stops_words,
)
from nutrition.targets.aim import Aim

ENERGY = Aim(key="energy_kcal", low=1800.0, aim=2000.0, high=2200.0, weight=3.0)
FIBER = Aim(key="fiber_g", low=30.0, aim=30.0, high=None, weight=2.0)


def dish(key, kcal=2000.0, fiber=30.0, plants=(), pot=None):
    return Candidate(
        key=key,
        name=key,
        kinds=frozenset({"main"}),
        amounts={"energy_kcal": kcal, "fiber_g": fiber},
        grams=400.0,
        parts={pot: 1.0} if pot else {},
        plants=frozenset(plants),
    )


CASE = Week(
    days=3,
    slots=tuple(
        Slot(key=f"{day}", day=day, meal="dinner", kind="main", varies=True, repeats=False)
        for day in range(3)
    ),
    candidates=(
        dish("stew", plants=("bean", "leek"), pot="stew"),
        dish("pilaf", plants=("barley",), pot="pilaf"),
        dish("light", kcal=1700.0, fiber=15.0, plants=("kale", "pea", "rye"), pot="light"),
    ),
    prepared=tuple(Prepared(key=one, name=one) for one in ("stew", "pilaf", "light")),
    aims=(ENERGY, FIBER),
    cook_days=frozenset({-1, 0}),
)


def stands(*keys):
    return {str(day): Choice(candidate=key, count=1.0) for day, key in enumerate(keys)}


def found(order, *keys, also=()):
    planned = stands(*keys)
    planning = Planning(planned=planned, score=score(CASE, planned), order=order)
    return replace(offered(CASE, planning), also=also)


def compared(one, other):
    of = [(some, cookings(CASE, some)) for some in (one, other)]
    return {(row.kind, row.bound and row.bound.key): row for row in trades(CASE, *of)}


class Trades(unittest.TestCase):
    def test_pots_dishes_and_plants(self):
        rows = compared(stands("stew", "stew", "stew"), stands("stew", "pilaf", "stew"))
        pots, dishes = rows["pots", None], rows["dishes", None]
        self.assertEqual((pots.one, pots.other, pots.better), (1, 2, True))
        self.assertEqual((dishes.one, dishes.other, dishes.better), (1, 2, False))
        plants = rows["plants", None]
        self.assertEqual((plants.one, plants.other, plants.better), (2, 3, False))
        self.assertEqual(compared(stands("stew", "stew", "stew"), stands(*["stew"] * 3)), {})

    def test_what_the_average_misses_and_days_beyond_their_tenth(self):
        rows = compared(stands("light", "light", "stew"), stands("stew", "stew", "stew"))
        fiber = rows["missed", "fiber_g"]
        self.assertAlmostEqual(fiber.one, 10.0)
        self.assertEqual((fiber.other, fiber.better, fiber.days), (0.0, False, None))
        energy = rows["missed", "energy_kcal"]
        self.assertEqual((energy.one, energy.days), (100.0, 2))

    def test_a_difference_that_nobody_notices_is_none(self):
        """A fiftieth of an aim: 0.6 of 30 g."""
        for missing_g, told in ((0.5, False), (0.7, True)):
            light = dish("light", fiber=30.0 - 3 * missing_g, pot="light")
            case = replace(CASE, candidates=(*CASE.candidates[:2], light))
            one, other = stands("light", "stew", "stew"), stands("pilaf", "stew", "stew")
            of = [(some, cookings(case, some)) for some in (one, other)]
            keys = [row.bound.key for row in trades(case, *of) if row.bound]
            self.assertEqual("fiber_g" in keys, told, missing_g)


class Words(unittest.TestCase):
    def weeks(self):
        first = found(NEAREST, "stew", "pilaf", "stew")
        least = found(LEAST_COOKING, "stew", "stew", "stew")
        most = found(MOST_VARIETY, "stew", "pilaf", "light")
        return [
            first,
            *(
                replace(
                    one,
                    gives=tuple(trades(CASE, (one.planned, one.pots), (first.planned, first.pots))),
                )
                for one in (least, most)
            ),
        ]

    def test_each_says_in_one_sentence_what_it_gave_up_for_what(self):
        first, least, most = (gives_words(self.weeks(), at) for at in range(3))
        self.assertEqual(
            least,
            "1 pot instead of 2; for that 1 different dish instead of 2 and 2 plants instead of 3.",
        )
        self.assertTrue(
            most.startswith("3 different dishes instead of 2 and 6 plants instead of 3")
        )
        self.assertIn("for that 3 pots instead of 2", most)
        self.assertIn("fiber 5.0 g under on the average", most)
        self.assertEqual(
            first,
            "Nearest to the targets; for that 2 pots, where 1 are possible and 2 different dishes, "
            "where 3 are possible.",
        )

    def test_one_that_is_all_of_them_says_so(self):
        alone = [found(NEAREST, "stew", "stew", "stew", also=("least cooking",))]
        self.assertEqual(gives_words(alone, 0), "It is also the one with least cooking.")
        alone = [found(NEAREST, "stew", "stew", "stew")]
        self.assertEqual(
            gives_words(alone, 0), "No week was found that comes nearer to the targets."
        )

    def test_what_is_proved_is_named_and_no_more(self):
        plain = found(NEAREST, "stew", "stew", "stew").planning
        self.assertIn("not ruled out", proved_words(plain))
        some = replace(plain, proved=("hard", "pattern", "starved"))
        self.assertEqual(
            proved_words(some),
            "No week is better by its limits and rotation; the rest is the best found.",
        )
        whole = replace(plain, proved=NEAREST.levels)
        self.assertTrue(proved_words(whole).startswith("Proved"))
        self.assertIn("Stopped", proved_words(replace(whole, stopped=True)))

    def test_rules_that_gave_way_and_dishes_that_are_missing(self):
        one = found(NEAREST, "stew", "stew", "stew")
        said = gave_way_words(CASE, one.gave_way)
        self.assertEqual(
            said,
            [
                "stew comes on more than 2 days in a row at dinner",
                "3 different dishes of “main” were asked for, 2 fewer came",
            ],
        )
        few = missing(replace(CASE, candidates=CASE.candidates[:1]))
        self.assertEqual(
            missing_words(few),
            ["2 more of “main” (there is 1, a week that keeps its rotation needs 3)"],
        )

    def test_a_draft_and_a_stop(self):
        self.assertEqual(starved_words(1234.4), "1,234 kcal under its least: no plan, a draft")
        for condition in ("insulin", "sulfonylurea"):
            self.assertTrue(stops_words({condition}).startswith("Stop"))
        self.assertEqual(stops_words({"metformin"}), "")

    def test_a_list_in_words(self):
        self.assertEqual(listed(["a"]), "a")
        self.assertEqual(listed(["a", "b", "c"]), "a, b and c")
        self.assertEqual(listed([]), "")


if __name__ == "__main__":
    unittest.main()
