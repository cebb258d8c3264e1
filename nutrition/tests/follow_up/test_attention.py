"""Who needs a look, and why."""

from datetime import date, timedelta
from unittest import TestCase

from nutrition.follow_up.attention import WEIGH_IN_DAYS, attention, judged_for, pace_of
from nutrition.follow_up.weigh_in import Weighed
from nutrition.targets.person import Person

TODAY = date(2026, 3, 20)


def weighed(*kilograms, every=7, newest=0):
    """Weigh-ins, newest first."""
    return [
        Weighed(TODAY - timedelta(days=newest + at * every), kg) for at, kg in enumerate(kilograms)
    ]


def flat(kg=80.0):
    """Six weeks of the same weight, as scales show it."""
    return weighed(*(kg + (0.2 if at % 3 else -0.2) for at in range(22)), every=2)


class Attention(TestCase):
    def asked(self, rows, goal="hold", made_for=None, planned=TODAY, **more):
        person = Person(
            sex="male",
            age_years=50,
            height_cm=180,
            weight_kg=rows[0].kg if rows else 80,
            activity="low_active",
            goal=goal,
            **more,
        )
        return " ".join(map(str, attention(person, rows, made_for, planned, TODAY)))

    def test_nothing_is_said_where_all_is_well(self):
        self.assertEqual(self.asked(weighed(80.0, 80.1, 79.9), made_for=80.0), "")

    def test_each_reason_alone(self):
        for words, said in (
            ("Not weighed yet", self.asked([])),
            ("days ago", self.asked(weighed(80.0, newest=WEIGH_IN_DAYS + 1))),
            ("Not losing as expected", self.asked(flat(), goal="lose")),
            ("more than 1 %", self.asked(weighed(80.0, 81.2, 82.4, 83.6), goal="lose")),
            ("made for 84 kg", self.asked(weighed(80.0), made_for=84.0)),
            ("No day planned", self.asked(weighed(80.0), planned=TODAY - timedelta(days=2))),
        ):
            with self.subTest(words):
                self.assertIn(words, said)

    def test_no_loss_is_missed_where_none_is_planned(self):
        rows, under = flat(), flat(58.0)
        self.assertNotIn("Not losing", self.asked(rows, "lose", target_weight_kg=80.0))
        self.assertNotIn(
            "Not losing", self.asked(rows, "lose", conditions=frozenset({"cancer_treatment"}))
        )
        self.assertNotIn("Not losing", self.asked(under, "lose"))
        self.assertIn("Not losing", self.asked(rows, "lose", target_weight_kg=70.0))

    def test_at_the_edge_nothing_is_said_yet(self):
        self.assertEqual(self.asked(weighed(80.0, newest=WEIGH_IN_DAYS)), "")
        self.assertEqual(self.asked(weighed(80.0), made_for=82.4), "")
        self.assertEqual(self.asked(weighed(80.0), planned=TODAY - timedelta(days=1)), "")

    def test_since_when(self):
        person = Person(sex="male", age_years=50, height_cm=180, weight_kg=80, goal="lose")
        needs = attention(person, flat(), 80.0, TODAY, TODAY)
        self.assertLess(needs[0].since, TODAY - timedelta(days=20))

    def test_the_pace_is_that_of_the_last_four_weeks(self):
        person = Person(sex="male", age_years=50, height_cm=180, weight_kg=80)
        rows = weighed(*(79.0 + 0.1 * at for at in range(30)), every=2)
        pace = pace_of(judged_for(person, rows, TODAY))
        self.assertTrue(pace.low < -0.35 < pace.high)
        for few in (weighed(80.0, 80.5), []):
            self.assertIsNone(pace_of(judged_for(person, few, TODAY)))
