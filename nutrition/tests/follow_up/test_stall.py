"""Whether it stalls: found where it does, and no alarm where it does not."""

from collections import Counter
from dataclasses import replace
from datetime import timedelta
from unittest import TestCase

from nutrition.follow_up import stall
from nutrition.follow_up.stall import Record, judge_pace, span
from nutrition.follow_up.trend import Pace
from nutrition.follow_up.weigh_in import Weighed
from nutrition.targets.person import Person
from nutrition.tests.follow_up.synthetic import made
from nutrition.tests.thorough import thorough


def person(**more):
    return Person(
        **{
            "sex": "female",
            "age_years": 44,
            "height_cm": 168,
            "weight_kg": 90,
            "goal": "lose",
            "target_weight_kg": 62,
            "pace_kg_per_week": 0.5,
        }
        | more
    )


def record(one, **more):
    expected = more.pop("pace", abs(one.pace))
    return Record(
        person=person(weight_kg=one.weighed[-1].kg, pace_kg_per_week=expected, **more),
        school=None,
        weighed=one.weighed,
        today=one.today,
    )


class OnMadeSeries(TestCase):
    def kinds(self, kind, count, first):
        return [judge_pace(record(made(first + seed, kind))) for seed in range(count)]

    @thorough
    def test_false_alarms_are_under_one_in_twenty(self):
        for kind in ("plain", "gaps", "odd", "water"):
            found = Counter(one.kind for one in self.kinds(kind, 40, 7000))
            alarms = found[stall.STALL] + found[stall.AWAY]
            self.assertLess(alarms / 40, 0.05, kind)
            well = found[stall.ON_THE_WAY] + found[stall.TOO_FAST]
            self.assertGreaterEqual(well, 34, kind)

    def test_a_plateau_is_found_with_the_day_it_began(self):
        rows = [made(8000 + seed, "plateau") for seed in range(40)]
        judged = [judge_pace(record(one)) for one in rows]
        found = [(one, row) for one, row in zip(judged, rows, strict=True) if one.stalled]
        self.assertGreaterEqual(len(found) / 40, 0.6)
        for one in judged:
            # what is not called one yet is never called well
            self.assertNotEqual(one.kind, stall.ON_THE_WAY)
        near = [abs((one.since - row.stopped).days) <= 14 for one, row in found]
        self.assertGreaterEqual(sum(near) / len(near), 0.75)
        for one, row in found:
            low, high = one.gap_kcal[1], one.gap_kcal[2]
            true = (row.true_pace(one.pace.days) - one.expected) * 1100.0
            self.assertTrue(low - 60 <= true <= high + 60)

    def test_within_what_mornings_differ_is_an_answer(self):
        noisy = made(11, "plain", days=24, pace=-0.25)
        wild = [
            replace(one, kg=one.kg + (1.6 if at % 3 else -1.6))
            for at, one in enumerate(noisy.weighed)
        ]
        judged = judge_pace(replace(record(noisy, pace=0.25), weighed=wild))
        self.assertFalse(judged.stalled)
        self.assertIn(judged.kind, (stall.WITHIN, stall.ON_THE_WAY, stall.SLOWER))


class Edges(TestCase):
    def rows(self, days, every, kg, per_week):
        one = made(21, "plain", days=days, pace=per_week)
        return replace(
            record(one),
            weighed=[
                Weighed(row.on, round(kg + per_week * at / 7, 1))
                for at, row in enumerate(one.weighed)
                if at % every == 0
            ],
        )

    def test_too_little_to_say(self):
        one = made(22, "plain")
        full = record(one)
        for asked, words in (
            (replace(full, weighed=one.weighed[:2]), "three weigh-ins"),
            (replace(full, weighed=one.weighed[-5:]), "6 weigh-ins"),
            (replace(full, today=one.today + timedelta(days=15)), "15 days ago"),
        ):
            judged = judge_pace(asked)
            self.assertEqual(judged.kind, stall.TOO_LITTLE)
            self.assertIn(words, judged.words)

    def test_a_plan_of_twenty_days_has_no_stall_and_one_of_twenty_one_may(self):
        flat = made(7100, "plateau")
        for days, kind in ((20, stall.TOO_LITTLE), (21, None), (0, stall.TOO_LITTLE)):
            began = flat.today - timedelta(days=days)
            judged = judge_pace(replace(record(flat, pace=0.5), planned_since=began))
            with self.subTest(days):
                if kind is None:
                    self.assertNotEqual(judged.kind, stall.TOO_LITTLE)
                else:
                    self.assertEqual(judged.kind, kind)
                    self.assertIn(f"{days} days old", judged.words)
                    self.assertFalse(judged.stalled)

    def test_a_stall_does_not_begin_before_its_plan(self):
        flat = made(7100, "plateau", pace=-0.7)
        began = flat.today - timedelta(days=21)
        judged = judge_pace(replace(record(flat), planned_since=began))
        if judged.since is not None:
            self.assertGreaterEqual(judged.since, began)

    def test_nothing_is_expected_where_no_change_is_planned(self):
        one = made(23, "plateau")
        for more in (
            {"goal": "hold"},
            {"life_stage": "pregnant_2"},
            {"conditions": frozenset({"cancer_treatment"})},
            {"target_weight_kg": one.weighed[-1].kg + 3},
        ):
            self.assertEqual(judge_pace(record(one, **more)).kind, stall.NOT_EXPECTED, more)

    def test_a_loss_too_fast_is_no_success(self):
        one = made(24, "plain", pace=-1.4)
        judged = judge_pace(record(one, pace=0.5))
        self.assertEqual(judged.kind, stall.TOO_FAST)
        self.assertIn("1 %", judged.words)

    def test_the_other_way(self):
        one = made(25, "plain", pace=0.5)
        self.assertEqual(judge_pace(record(one, pace=0.5)).kind, stall.AWAY)

    def test_gaining_stalls_too(self):
        one = made(26, "plateau", pace=0.0)
        judged = judge_pace(record(one, pace=0.4, goal="gain", target_weight_kg=130))
        self.assertTrue(judged.stalled)
        self.assertGreater(judged.gap_kcal[0], 200)

    def test_words(self):
        said = span(Pace(-0.43, -0.66, -0.20, 28))
        self.assertEqual(said, "0.43 kg lost a week, between 0.20 and 0.66")
        self.assertIn("steady", span(Pace(0.01, -0.2, 0.22, 28)))
