"""Where an amount stands on a target, its unknown part considered."""

from dataclasses import replace
from unittest import TestCase

from nutrition.composition.profile import Amount
from nutrition.targets.standing import NEAR_EDGE, Standing, judge, standing
from nutrition.targets.voices import Target

PROTEIN = Target(key="protein_g", low=50, aim=60, high=80, unit="g", source="", reason="")


def known(amount, share=1.0, lines=4):
    return Amount(
        amount=amount,
        low=amount,
        high=amount,
        known=share,
        lines=lines,
        unknown_lines=0 if share == 1.0 else 1,
    )


class Stands(TestCase):
    def test_judge(self):
        self.assertEqual(
            [judge(PROTEIN, amount) for amount in (38, 50, 80, 92)],
            [("under", 12), ("inside", 0), ("inside", 0), ("over", 12)],
        )

    def test_inside_is_near_within_a_share_of_the_aim_of_either_bound(self):
        near = NEAR_EDGE * PROTEIN.aim
        for amount, state in (
            (50 + near - 0.1, "near"),
            (50 + near + 0.1, "inside"),
            (80 - near - 0.1, "inside"),
            (80 - near + 0.1, "near"),
        ):
            with self.subTest(amount):
                self.assertEqual(standing(PROTEIN, known(amount)), Standing(state=state))

    def test_what_is_unknown_can_only_add_to_an_amount(self):
        self.assertEqual(standing(PROTEIN, known(0.0, 0.0)), Standing(state="none"))
        self.assertEqual(
            standing(PROTEIN, known(38.0, 0.9)), Standing(state="under", by=12.0, up_to=True)
        )
        self.assertEqual(
            standing(PROTEIN, known(60.0, 0.9)), Standing(state="inside", part_unknown=True)
        )
        # so little is known that it is shown and not judged; what is over is over at any rate
        self.assertTrue(standing(PROTEIN, known(38.0, 0.5)).too_little)
        self.assertEqual(standing(PROTEIN, known(92.0, 0.5)).state, "over")
        could = replace(known(70.0, 0.9), could_add=30.0)
        self.assertAlmostEqual(standing(PROTEIN, could).could_be_over, 20.0)
        self.assertEqual(standing(PROTEIN, known(92.0, 0.9)), Standing(state="over", by=12.0))

    def test_an_index_can_move_either_way(self):
        acid = Target(key="pral_meq", low=None, aim=0, high=10, unit="mEq", source="", reason="")
        self.assertEqual(
            standing(acid, known(12.0, 0.9)), Standing(state="over", by=2.0, part_unknown=True)
        )
