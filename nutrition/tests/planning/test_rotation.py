"""How often the same dish comes: each rule on both sides of its edge, which gives way first, and
what is said to be missing."""

import unittest
from dataclasses import replace

from nutrition.planning.rotation import (
    ADDED_OFTEN,
    GIVES_WAY,
    IN_A_ROW,
    IN_A_WEEK,
    KINDS_FEW,
    OVER_ALL,
    TO_A_HALF,
    TWICE_A_DAY,
    broken,
    missing,
    weight_of,
)
from nutrition.planning.search import plan
from nutrition.planning.week import Candidate, Choice, Prepared, Slot, Turns, Week, Wishes
from nutrition.portions.work import Work


def dish(key, *kinds, batch=False, **more):
    return Candidate(
        key=key,
        name=key,
        kinds=frozenset(kinds or ("main",)),
        amounts={"energy_kcal": 600.0},
        grams=400.0,
        parts={"pot": 1.0} if batch else {},
        **more,
    )


def slot(day, meal, kind="main", **more):
    more = {"varies": True, "repeats": False} | more
    return Slot(key=f"{day}-{meal}-{kind}", day=day, meal=meal, kind=kind, **more)


def week(slots, candidates, days=7, **more):
    pot = Prepared(key="pot", name="pot", keeps=6)
    return Week(
        days=days, slots=tuple(slots), candidates=tuple(candidates), prepared=(pot,), **more
    )


def planned(case, names):
    """A dish for each slot, in turn."""
    return {
        one.key: Choice(candidate=name, count=1.0)
        for one, name in zip(case.slots, names, strict=True)
    }


def rules(case, names):
    """What is broken: the rule, the dish, how often."""
    return [(one.rule, one.candidate, one.times) for one in broken(case, planned(case, names))]


class AtAMeal(unittest.TestCase):
    def of(self, meal, kind="main", **more):
        some = [dish(name, kind, **more) for name in "abcdefg"]
        return week([slot(day, meal, kind) for day in range(7)], some)

    def test_a_dinner_comes_twice_in_a_row_and_three_times_a_week(self):
        case = self.of("dinner")
        self.assertEqual(rules(case, "aabcadd"), [])
        self.assertEqual(rules(case, "aaabcde"), [(IN_A_ROW, "a", 1)])
        self.assertEqual(rules(case, "aabacad"), [(IN_A_WEEK, "a", 1)])

    def test_a_lunch_that_is_a_batch_three_times_in_a_row_and_five_times_a_week(self):
        case = self.of("lunch", batch=True)
        self.assertEqual(rules(case, "aaabaac"), [])
        self.assertEqual(rules(case, "aaaabac"), [(IN_A_ROW, "a", 1)])
        self.assertEqual(rules(case, "aaabaaa"), [(IN_A_WEEK, "a", 1), (KINDS_FEW, "", 1)])

    def test_a_lunch_that_is_none_goes_by_the_dinners(self):
        case = self.of("lunch")
        self.assertEqual(rules(case, "aabbacd"), [])
        self.assertEqual(rules(case, "aaabbcd"), [(IN_A_ROW, "a", 1)])
        self.assertEqual(rules(case, "aabaacd"), [(IN_A_WEEK, "a", 1)])

    def test_a_breakfast_three_times_in_a_row_and_four_times_a_week(self):
        case = self.of("breakfast", "breakfast")
        self.assertEqual(rules(case, "aaababb"), [])
        self.assertEqual(rules(case, "aaaabbb"), [(IN_A_ROW, "a", 1)])
        self.assertEqual(rules(case, "aaabaab"), [(IN_A_WEEK, "a", 1)])

    def test_each_of_two_weeks_counts_by_itself_and_rows_go_over_its_end(self):
        some = [dish(name) for name in "abcdefg"]
        case = week([slot(day, "dinner") for day in range(14)], some, 14)
        self.assertEqual(rules(case, "abcdaea" + "bacdaea"), [])
        self.assertEqual(rules(case, "bcdefaa" + "abcdefg"), [(IN_A_ROW, "a", 1)])

    def test_what_stays_and_what_is_no_dish_comes_as_often_as_it_likes(self):
        stays = week([slot(day, "dinner", varies=False) for day in range(7)], [dish("a")])
        self.assertEqual(rules(stays, "aaaaaaa"), [])
        plain = self.of("dinner", dish=False)
        kinds_few = [(KINDS_FEW, "", 2)]
        self.assertEqual(rules(plain, "aaaaaaa"), kinds_few)

    def test_fruit_that_somebody_cooks_goes_by_the_rotation(self):
        places = [slot(day, "breakfast", "fruit", varies=False, repeats=False) for day in range(7)]
        baked, apple = dish("b", "fruit", batch=True), dish("a", "fruit")
        case = week(places, [baked, apple])
        self.assertEqual(rules(case, "aaaaaaa"), [])
        self.assertEqual(rules(case, "bbbabaa"), [])
        self.assertEqual(rules(case, "bbbabab"), [(IN_A_WEEK, "b", 1)])

    def test_the_client_may_like_it_otherwise(self):
        case = self.of("dinner")
        often = replace(case, wishes=Wishes(turns={**case.wishes.turns, "dinner": Turns(4, 4)}))
        self.assertEqual(rules(often, "aaaabcd"), [])
        self.assertEqual(rules(often, "aaaabca"), [(IN_A_WEEK, "a", 1)])


class OverAll(unittest.TestCase):
    def case(self, days=7):
        some = [dish(name, batch=True) for name in "abcdefghijklmn"]
        return week([slot(d, m) for d in range(days) for m in ("lunch", "dinner")], some, days)

    def test_five_times_a_week_over_all_meals(self):
        case = self.case()
        # lunch and dinner of each day
        self.assertEqual(rules(case, "ab" + "ac" + "da" + "ef" + "ag" + "ha" + "ij"), [])
        found = rules(case, "ab" + "ac" + "da" + "ae" + "fg" + "ah" + "ia")
        self.assertEqual(found, [(IN_A_ROW, "a", 1), (OVER_ALL, "a", 1)])

    def test_three_days_in_a_row_over_all_meals(self):
        case = self.case()
        self.assertEqual(rules(case, "ab" + "ca" + "ad" + "ef" + "gh" + "ij" + "kl"), [])
        found = rules(case, "ab" + "ca" + "ad" + "ea" + "gh" + "ij" + "kl")
        self.assertEqual(found, [(IN_A_ROW, "a", 1)])

    def test_never_twice_on_a_day(self):
        case = self.case(1)
        self.assertEqual(rules(case, "ab"), [])
        self.assertEqual(rules(case, "aa")[0], (TWICE_A_DAY, "a", 1))
        fruit = week([slot(0, m, "fruit", varies=False) for m in ("lunch", "dinner")], [], 1)
        fruit = replace(fruit, candidates=(dish("a", "fruit"), dish("b", "fruit")))
        self.assertEqual(rules(fruit, "aa"), [(TWICE_A_DAY, "a", 1)])
        bread = [replace(one, repeats=True) for one in fruit.slots]
        self.assertEqual(rules(replace(fruit, slots=tuple(bread)), "aa"), [])


class Different(unittest.TestCase):
    def test_so_many_of_a_kind_as_there_are(self):
        for kind, least in (("main", 3), ("bowl", 2), ("soup", 2), ("breakfast", 2), ("salad", 2)):
            for there in (1, 2, 3, 4):
                some = [dish(f"{kind}{n}", kind) for n in range(there)]
                case = week([slot(day, "snack", kind) for day in range(5)], some)
                names = [f"{kind}0"] * 5
                short = min(least, there) - 1
                said = [one for one in broken(case, planned(case, names)) if one.rule == KINDS_FEW]
                self.assertEqual([one.times for one in said], [short] if short else [], kind)

    def test_of_another_kind_one_is_enough(self):
        some = [dish(name, "greens") for name in "abc"]
        case = week([slot(0, "lunch", "greens"), slot(3, "lunch", "greens")], some)
        self.assertEqual(rules(case, "aa"), [])


class Added(unittest.TestCase):
    def test_nothing_is_added_beside_less_than_a_portion(self):
        stew = dish("stew", least=0.5, most=1.5)
        bread = dish("bread", "added", least=1.0, most=1.0)
        places = [slot(0, "dinner"), slot(0, "dinner", "added", optional=True)]
        case = week(places, [stew, bread], 1)
        for count, with_bread, told in (
            (1.0, True, 0),
            (0.5, True, 1),
            (0.5, False, 0),
            (1.5, True, 0),
        ):
            stands = {
                "0-dinner-main": Choice(candidate="stew", count=count),
                "0-dinner-added": Choice(candidate="bread", count=1.0) if with_bread else None,
            }
            said = [one.times for one in broken(case, stands) if one.rule == TO_A_HALF]
            self.assertEqual(sum(said), told, (count, with_bread))
        # nor does one and a half times the portion make less of what is served once at most
        large = replace(case.slots[0], portion=1.5)
        small = replace(stew, most=1.0, ceiling=1.0)
        case = replace(case, slots=(large, case.slots[1]), candidates=(small, bread))
        stands["0-dinner-main"] = Choice(candidate="stew", count=1.0)
        stands["0-dinner-added"] = Choice(candidate="bread", count=1.0)
        self.assertEqual(broken(case, stands), [])

    def test_the_same_is_added_to_four_meals_of_a_week_and_to_one_of_a_day(self):
        things = [dish(name, "added") for name in ("bread", "beans", "rice")]
        usual = {"optional": True, "varies": False, "repeats": True}
        places = [slot(day, "dinner", "added", **usual) for day in range(7)]
        case = week(places, things)

        def often(names, of=case):
            return [row for row in rules(of, names) if row[0] == ADDED_OFTEN]

        four = ["bread"] * 4 + ["beans", "rice", "beans"]
        self.assertEqual(often(four), [])
        self.assertEqual(often(["bread"] * 5 + ["beans", "rice"]), [(ADDED_OFTEN, "bread", 1)])
        day = week([slot(0, meal, "added", **usual) for meal in ("lunch", "dinner")], things, 1)
        self.assertEqual(often(["bread", "beans"], day), [])
        self.assertEqual(often(["bread", "bread"], day), [(ADDED_OFTEN, "bread", 1)])
        # where there is nothing else it comes as often as it must
        self.assertEqual(often(["bread"] * 7, week(places, things[:1])), [])


class GivingWay(unittest.TestCase):
    def test_what_each_rule_counts(self):
        self.assertEqual(
            GIVES_WAY,
            {
                KINDS_FEW: 1,
                ADDED_OFTEN: 1,
                IN_A_ROW: 2,
                IN_A_WEEK: 8,
                OVER_ALL: 16,
                TO_A_HALF: 32,
                TWICE_A_DAY: 64,
            },
        )
        case = week([slot(day, "dinner") for day in range(7)], [dish(name) for name in "abcdefg"])
        self.assertEqual(weight_of(broken(case, planned(case, "aaabcda"))), 2 + 8)

    def test_what_is_pinned_is_no_fault_of_the_plan(self):
        case = week([slot(day, "dinner") for day in range(7)], [dish(name) for name in "abcdefg"])
        for day in (0, 1, 2, 4):
            choice = Choice(candidate="a", count=1.0)
            case = case.placed(f"{day}-dinner-main", choice, True)
        self.assertEqual(rules(case, "aaabacd"), [])
        self.assertEqual(rules(case, "aaabaca"), [(IN_A_WEEK, "a", 1)])

    def test_with_too_few_dishes_rows_give_way_before_times_and_times_before_a_day(self):
        """Two dishes for two meals on each of seven days: each stands seven times, and no day has
        one twice."""
        both = [slot(d, m) for d in range(7) for m in ("lunch", "dinner")]
        case = week(both, [dish("a", batch=True), dish("b", batch=True)])
        found = plan(case, Work.of(4.0))
        said = {one.rule for one in broken(case, found.planned)}
        self.assertNotIn(TWICE_A_DAY, said)
        self.assertLessEqual({IN_A_WEEK, OVER_ALL}, said)

    def test_one_dish_for_all_is_planned_all_the_same(self):
        case = week([slot(day, "dinner") for day in range(7)], [dish("a")])
        found = plan(case)
        self.assertEqual({one.candidate for one in found.planned.values()}, {"a"})
        self.assertEqual(found.score.pattern, 4 * 8 + 5 * 2)

    def test_enough_dishes_break_no_rule_whatever_the_targets(self):
        """The only dish with the energy of a day stands on no more than three of seven."""
        rich, poor = dish("rich"), [dish(name) for name in "abc"]
        rich = replace(rich, amounts={"energy_kcal": 1500.0})
        case = week([slot(day, "dinner") for day in range(7)], [rich, *poor])
        found = plan(case)
        self.assertEqual(found.score.pattern, 0)
        self.assertEqual(broken(case, found.planned), [])


class Missing(unittest.TestCase):
    def test_how_many_of_which_kind_more_are_needed(self):
        dinners = [slot(day, "dinner") for day in range(7)]
        for there, more in ((0, 3), (1, 2), (2, 1), (3, 0)):
            found = missing(week(dinners, [dish(f"d{n}") for n in range(there)]))
            self.assertEqual([(one.kind, one.more) for one in found], [("main", more)][: more > 0])

    def test_breakfasts_and_what_stands_at_two_meals(self):
        mornings = [slot(day, "breakfast", "breakfast") for day in range(7)]
        (found,) = missing(week(mornings, [dish("a", "breakfast")]))
        self.assertEqual((found.needs, found.there), (2, 1))
        # fourteen places of one kind, five times each at most
        both = [slot(d, m, "soup") for d in range(7) for m in ("lunch", "dinner")]
        (found,) = missing(week(both, [dish("a", "soup"), dish("b", "soup")]))
        self.assertEqual((found.needs, found.there), (3, 2))

    def test_what_is_pinned_or_optional_needs_nothing(self):
        places = [
            slot(0, "dinner", pinned=True, placed=Choice(candidate="a", count=1.0)),
            slot(1, "dinner", "added", optional=True),
        ]
        self.assertEqual(missing(week(places, [dish("a", "soup")])), [])


if __name__ == "__main__":
    unittest.main()
