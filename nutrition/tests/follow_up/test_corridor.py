"""Where the weight is asked to be: the corridor bends where the school's pace does."""

from datetime import date, timedelta
from unittest import TestCase

from nutrition.follow_up.corridor import asked_corridor, heading, usual_corridor, walk
from nutrition.follow_up.trend import trend_of
from nutrition.follow_up.weigh_in import Weighed
from nutrition.targets.body import least_weight
from nutrition.targets.person import Person
from nutrition.targets.schools import schools

START = date(2026, 6, 1)


def person(**more):
    return Person(
        **{
            "sex": "male",
            "age_years": 45,
            "height_cm": 180,
            "weight_kg": 120,
            "goal": "lose",
            "target_weight_kg": 95.0,
        }
        | more
    )


class Corridors(TestCase):
    def test_a_pace_that_depends_on_the_distance_bends_there(self):
        """A pound in three days until ten pounds from the goal, then a pound a week: common
        practice of one school, no source."""
        school = schools()["greens_beans_seeds"]
        found = asked_corridor(person(), school, START, 104.0, 200)
        middle = [(low + high) / 2 for low, high in zip(found.low, found.high, strict=True)]

        def pace(at):
            return (middle[at + 7] - middle[at]) / 1.0

        far = next(at for at, kg in enumerate(middle) if kg < 103.0)
        near = next(at for at, kg in enumerate(middle) if kg < 98.5)
        self.assertAlmostEqual(pace(far), -1.06, delta=0.08)
        self.assertAlmostEqual(pace(near), -0.45, delta=0.08)
        self.assertIn("within 4.5 kg of the goal", found.says)
        self.assertEqual(found.low[-1], 95.0, "nothing is asked beyond the goal")

    def test_no_faster_than_is_planned_without_an_order(self):
        found = asked_corridor(
            person(weight_kg=70, target_weight_kg=64.0, pace_kg_per_week=1.4), None, START, 70.0, 7
        )
        self.assertAlmostEqual(70.0 - found.low[-1], 0.7 * 1.2, places=1)
        self.assertIn("held at", found.says)

    def test_never_under_the_least_weight(self):
        one = person(weight_kg=64, target_weight_kg=None)
        found = asked_corridor(one, None, START, 64.0, 400)
        self.assertGreaterEqual(min(found.low), least_weight(one) - 1e-9)
        # from where it is under that already nothing is asked for
        self.assertIsNone(asked_corridor(one, None, START, least_weight(one) - 1.0, 50))
        self.assertIsNone(usual_corridor(one, START, least_weight(one) - 1.0, 50))

    def test_none_where_no_change_is_planned(self):
        for more in ({"goal": "hold"}, {"conditions": frozenset({"cancer_treatment"})}):
            self.assertIsNone(asked_corridor(person(**more), None, START, 90.0, 50))
            self.assertIsNone(usual_corridor(person(**more), START, 90.0, 50))

    def test_usual_guidance_holds_half_a_pound_to_two_pounds(self):
        found = usual_corridor(person(), START, 110.0, 28)
        self.assertAlmostEqual(110.0 - found.high[-1], 1.0)
        self.assertAlmostEqual(110.0 - found.low[-1], 3.6)

    def test_a_walk_stops_at_the_goal_from_both_sides(self):
        self.assertEqual(walk(80.0, 100, 78.0, lambda _left: -1.0)[-1], 78.0)
        self.assertEqual(walk(50.0, 100, 53.0, lambda _left: 0.5)[-1], 53.0)


class Ahead(TestCase):
    def trend(self, per_week, kg=100.0):
        rows = [
            Weighed(START + timedelta(days=2 * at), round(kg + per_week * 2 * at / 7, 1))
            for at in range(30)
        ]
        return trend_of(rows)

    def test_the_spread_widens_and_the_pace_slows(self):
        found = heading(self.trend(-0.5), person(weight_kg=96))
        widths = [high - low for low, high in zip(found.low, found.high, strict=True)]
        self.assertEqual(widths, sorted(widths))
        first, last = found.kg[7] - found.kg[0], found.kg[-1] - found.kg[-8]
        self.assertLess(abs(last), abs(first), "a lighter body needs less")

    def test_nothing_beyond_the_goal_or_what_is_safe(self):
        near = heading(self.trend(-0.6), person(weight_kg=95.1, target_weight_kg=93.0))
        self.assertEqual((near.ends_at, near.kg[-1]), (93.0, 93.0))
        low = person(weight_kg=61, target_weight_kg=None)
        self.assertGreaterEqual(min(heading(self.trend(-0.6, 66.0), low).kg), least_weight(low))
        self.assertIsNone(heading(self.trend(-0.5), person(sex="female", life_stage="pregnant_2")))
        self.assertIsNone(heading(self.trend(-0.5, 58.0), low), "it is under that already")
