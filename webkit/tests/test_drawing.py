"""Geometry and number words."""

import math
from unittest import TestCase

from nutrition.composition.profile import Amount
from webkit import figures
from webkit.drawing.round import BOWL, CENTER, Slice, draw
from webkit.drawing.track import INSET, WIDTH, track


class TheRound(TestCase):
    def test_sectors_follow_volume_and_rim_follows_shares(self):
        drawing = draw(
            [
                Slice(role="base", volume=300, share=0.2),
                Slice(role="protein", volume=100, share=0.8),
            ],
            1000,
        )
        first, second = drawing.sectors
        self.assertAlmostEqual(first.end - first.start, 2 * math.pi * 0.75, places=3)
        self.assertAlmostEqual(second.end, 2 * math.pi, places=3)
        self.assertGreater(len(second.rim_path), 0)

    def test_area_stands_for_how_full_it_is(self):
        self.assertAlmostEqual(
            draw([Slice(role="base", volume=250, share=1.0)], 1000).fill_radius, BOWL / 2, places=1
        )
        spilled = draw([Slice(role="base", volume=1500, share=1.0)], 1000)
        self.assertEqual(
            (spilled.fill_radius, spilled.overflowing, spilled.full), (BOWL, True, 1.5)
        )

    def test_the_star_is_lifted_outward(self):
        star = draw(
            [
                Slice(role="base", volume=100, share=0.5),
                Slice(role="protein", volume=100, share=0.5, star=True),
            ],
            1000,
        ).sectors[1]
        self.assertLess(star.dx, 0)
        self.assertEqual(star.label_x < CENTER, True)

    def test_odd_bowls(self):
        self.assertEqual(draw([], 1000).sectors, [])
        self.assertIn(
            "A160.0", draw([Slice(role="base", volume=1000, share=None)], 1000).sectors[0].path
        )
        self.assertEqual(draw([Slice(role="base", volume=0, share=None)], 1000).full, 0)


class TheTrack(TestCase):
    def test_marker_band_and_whisker_lie_in_order(self):
        laid = track(50, 60, 80, 65, 60, 72)
        self.assertLess(laid.band_x, laid.aim_x)
        self.assertLess(laid.aim_x, laid.marker_x)
        self.assertLess(laid.marker_x, laid.band_x + laid.band_width)
        self.assertTrue(laid.whisker_x < laid.marker_x < laid.whisker_x + laid.whisker_width)

    def test_far_beyond_stays_on_the_track(self):
        laid = track(None, 1500, 2300, 90_000, 80_000, 99_000)
        self.assertEqual(laid.marker_x, WIDTH - INSET)
        self.assertIsNone(track(10, 12, None, None).marker_x)


class Words(TestCase):
    def test_amounts(self):
        self.assertEqual(
            figures.amount(Amount(amount=31.04, low=28, high=34, known=1.0), "protein_g"), "31 g"
        )
        self.assertEqual(
            figures.amount(
                Amount(amount=41.2, low=40, high=43, known=0.6, unknown_lines=3, lines=9),
                "iodine_ug",
            ),
            "at least 41 µg",
        )
        self.assertEqual(
            figures.amount(
                Amount(amount=0, low=0, high=0, known=0.0, unknown_lines=9, lines=9), "iodine_ug"
            ),
            "unknown",
        )
        self.assertEqual(
            figures.unknown(
                Amount(amount=41.2, low=40, high=43, known=0.6, unknown_lines=3, lines=9)
            ),
            "3 of 9 unknown",
        )
        self.assertEqual(
            figures.span(Amount(amount=31.04, low=28.1, high=34.2, known=1.0), "protein_g"),
            "28–34",
        )
        self.assertEqual(
            figures.span(Amount(amount=31.0, low=31.0, high=31.01, known=1.0), "protein_g"), ""
        )

    def test_digits(self):
        self.assertEqual(
            [
                figures.digits(-0.02, 1),
                figures.digits(1234.5),
                figures.grams(9.04),
                figures.grams(9.5),
                figures.grams(80.4),
            ],
            ["0.0", "1,234", "9 g", "9.5 g", "80 g"],
        )
