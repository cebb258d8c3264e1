"""Every condition with every goal and school in turn: nothing breaks, no loss too fast is praised,
no corridor leads under what is safe, and nothing is said with a hole in it."""

from itertools import cycle
from unittest import TestCase

from nutrition.follow_up import stall
from nutrition.follow_up.causes import causes
from nutrition.follow_up.corridor import asked_corridor, heading
from nutrition.follow_up.stall import Record, judge_pace
from nutrition.safety.cautions import cautions_in
from nutrition.safety.situations import situation
from nutrition.targets.blood import (
    Measured,
    analytes,
    blood_numbers,
    blood_words,
    implied_by,
    latest,
)
from nutrition.targets.body import least_weight
from nutrition.targets.conditions import conditions
from nutrition.targets.person import GOAL_WORDS, OutOfRange, Person, check
from nutrition.targets.schools import schools
from nutrition.tests.follow_up.synthetic import made
from nutrition.tests.thorough import thorough

SERIES = [made(600 + at, kind) for at, kind in enumerate(("plain", "plateau", "odd", "gaps"))]


class EveryCondition(TestCase):
    @thorough
    def test_nothing_breaks_and_nothing_unsafe_is_said(self):
        ways, series = cycle([None, *schools().values()]), cycle(SERIES)
        seen = 0
        for code in conditions():
            for goal in GOAL_WORDS:
                school, one = next(ways), next(series)
                person = Person(
                    sex="female",
                    age_years=52,
                    height_cm=168,
                    weight_kg=one.weighed[-1].kg,
                    goal=goal,
                    conditions=frozenset({code}),
                )
                try:
                    check(person)
                except OutOfRange:
                    continue
                with self.subTest(code, goal=goal, school=school.code if school else ""):
                    self.look(person, school, one)
                    seen += 1
        self.assertGreater(seen, 150)

    def look(self, person, school, one):
        record = Record(
            person=person,
            school=school,
            weighed=one.weighed,
            today=one.today,
            made_for_kg=person.weight_kg + 6,
            target_kcal=1700,
        )
        judged = judge_pace(record)
        self.assertTrue(all(cause.kcal > 0 for cause in causes(record, judged)))
        pace = judged.trend.pace(28)
        if judged.kind == stall.ON_THE_WAY:
            self.assertLessEqual(-pace.kg_per_week, 0.01 * judged.trend.now)
        corridor = asked_corridor(person, school, judged.trend.first, one.weighed[0].kg, 150)
        if corridor is not None and person.goal == "lose":
            self.assertGreaterEqual(min(corridor.low), least_weight(person) - 1e-6)
        ahead = heading(judged.trend, person)
        if ahead is not None and pace.kg_per_week < 0:
            self.assertGreaterEqual(min(ahead.low), least_weight(person) - 1e-6)
        # every value at both ends of what is possible
        for end in (0, 1):
            values = latest(
                Measured(key=key, value=row.possible[end], unit=row.unit, on=one.today)
                for key, row in analytes().items()
            )
            numbers = blood_numbers(values, person, one.today)
            words = blood_words(values, numbers, one.today)
            told = cautions_in(situation(person, "", numbers, words=words))
            self.assertTrue(any(caution.code.startswith("blood_") for caution in told))
            for caution in told:
                self.assertNotIn("{", caution.text)
                self.assertNotIn(": :", caution.text)
            implied_by(values, person.conditions, one.today)
