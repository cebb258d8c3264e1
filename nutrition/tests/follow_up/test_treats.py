"""Alcohol, sweets and rare treats are no chips to bargain with in advice."""

import unittest
from datetime import date, timedelta

from nutrition.composition.foods import food_table
from nutrition.composition.portion import food_portion
from nutrition.follow_up.intake import Bite, Grew, LoggedDay
from nutrition.follow_up.levers import Usual, levers, usual_fillers

FOODS = food_table()
MONDAY = date(2026, 11, 2)


def day(at, *rows):
    bites = [Bite("dinner", food_portion(FOODS[slug], grams, grams, grams)) for slug, grams in rows]
    on = MONDAY + timedelta(days=at)
    return LoggedDay(on=on, whole=True, eaten=tuple(bites), planned=())


def found(days, gap=120.0, grew=()):
    usual = Usual(days=days, aims=(), fillers=usual_fillers())
    return levers(usual, gap, grew)


BASE = (("brown-rice-cooked", 400.0), ("white-beans-cooked", 300.0))


class Treats(unittest.TestCase):
    def test_wine_is_never_offered_against_lettuce(self):
        every = [day(at, *BASE, ("red-wine", 250.0)) for at in range(5)]
        self.assertEqual(found(every), [])
        grew = [
            Grew(name=FOODS["red-wine"].name, before_g=0.0, after_g=250.0, kcal=200.0, sd=5.0),
            Grew(name=FOODS["walnuts"].name, before_g=0.0, after_g=30.0, kcal=190.0, sd=5.0),
        ]
        with_nuts = [day(at, *BASE, ("red-wine", 250.0), ("walnuts", 40.0)) for at in range(5)]
        told = found(with_nuts, grew=grew)
        self.assertTrue(told)
        self.assertFalse(any("wine" in one.words for one in told))

    def test_a_treat_of_two_days_in_five_is_left_alone_and_of_three_is_a_habit(self):
        def days(of):
            sweet = ("dark-chocolate-60-69-cocoa", 60.0)
            return [day(at, *BASE, *([sweet] if at < of else [])) for at in range(5)]

        self.assertEqual(found(days(2)), [])
        told = found(days(3))
        self.assertTrue(told)
        # nothing is offered for it, and it is not spread over days without it
        self.assertFalse(any(" more " in one.words for one in told))
        self.assertTrue(all("each time" in one.words for one in told))

    def test_of_what_is_eaten_every_day_less_a_day_is_said(self):
        told = found([day(at, *BASE, ("walnuts", 60.0)) for at in range(5)])
        self.assertTrue(told)
        self.assertTrue(all(" a day" in one.words for one in told))
