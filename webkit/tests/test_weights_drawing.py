"""The line of weight: where things stand on it."""

from datetime import date, timedelta
from unittest import TestCase

from webkit.drawing.weights import Band, Drawn, weight_chart

FIRST = date(2026, 9, 1)


def days(count):
    return [FIRST + timedelta(days=at) for at in range(count)]


def weighed(count=10, start=90.0, each=-0.1):
    return [(on, start + each * at, f"{on}", at == 3) for at, on in enumerate(days(count))]


def band(count, low, high, middle=()):
    return Band(says="a band", days=days(count), low=low, high=high, middle=middle)


class Chart(TestCase):
    def test_later_is_further_right_and_lighter_lower_down(self):
        drawn = weight_chart(Drawn(weighed=weighed()), 400, 200)
        xs, ys = [dot.x for dot in drawn.dots], [dot.y for dot in drawn.dots]
        self.assertEqual(xs, sorted(xs))
        self.assertEqual(ys, sorted(ys))
        self.assertEqual([dot.odd for dot in drawn.dots].index(True), 3)
        self.assertIsNone(weight_chart(Drawn(weighed=weighed(1)), 400, 200))

    def test_the_axes_have_round_numbers_and_dates_within_it(self):
        drawn = weight_chart(Drawn(weighed=weighed(90)), 660, 300)
        said = [float(words) for _y, words in drawn.ticks]
        self.assertGreaterEqual(len(said), 4)
        steps = {round(b - a, 3) for a, b in zip(said, said[1:], strict=False)}
        self.assertEqual(len(steps), 1)
        self.assertTrue(all(drawn.left <= x <= drawn.right for x, _said in drawn.dates))
        self.assertIn("Oct 1", [words for _x, words in drawn.dates])

    def test_what_is_far_off_does_not_flatten_the_line(self):
        near = weight_chart(Drawn(weighed=weighed(), goal_kg=88.0), 400, 200)
        far = weight_chart(Drawn(weighed=weighed(), goal_kg=60.0), 400, 200)
        self.assertIsNotNone(near.goal_y)
        self.assertIsNone(far.goal_y)

    def test_layers_and_marks(self):
        level = [90.0 - 0.1 * at for at in range(30)]
        drawn = weight_chart(
            Drawn(
                weighed=weighed(),
                trend=band(10, level[:10], level[:10], level[:10]),
                ahead=band(30, [kg - 1 for kg in level], [kg + 1 for kg in level], level),
                usual=band(30, [70.0] * 30, level),
                happened=[(FIRST, FIRST + timedelta(days=3), "illness")],
                today=FIRST + timedelta(days=9),
            ),
            400,
            200,
        )
        self.assertEqual(drawn.usual.edges.count("M"), 1, "the edge off the scale is not drawn")
        self.assertTrue(drawn.ahead.line.startswith("M"))
        self.assertEqual(drawn.marks[0].number, 1)
        self.assertLess(drawn.marks[0].x, drawn.marks[0].until)
        self.assertLess(drawn.today_x, drawn.right)
