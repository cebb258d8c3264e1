"""A change offered, looked at, taken, refused: on a plate that is only there for these tests."""

from dataclasses import replace
from types import SimpleNamespace
from unittest.mock import patch

from django.contrib.messages.storage.cookie import CookieStorage
from django.core import signing
from django.http import HttpResponse
from django.test import RequestFactory, SimpleTestCase

from changes.aims import WHOLE_DAY, meal_of, meal_options, plan_aims
from changes.changeable import Changeable, Look, limited, of_kind
from changes.gate_findings import held
from changes.offers import LEFT_OUT_G, SALT, Edit, Outdated, swapped_in, taken, token_for
from changes.views import OUTDATED, balance, swap, without
from clients.plan.gate import gate_of
from clients.plan.in_force import plan_of
from clients.testing import ClientCase
from nutrition.composition.foods import food_table
from nutrition.composition.portion import food_portion
from nutrition.composition.profile import Profile
from nutrition.portions.serving_limits import limits_around
from nutrition.portions.serving_rules import servable
from nutrition.safety.gate import OPEN
from nutrition.swaps.swap import Step
from nutrition.targets.aims import ALL
from practice.versioned import StaleSave

TABLE = food_table()


def step(food=None, grams=30.0, key="line-1"):
    return Step(id=key, kind="instead", food=food, grams=grams, words="")


def portion(key, slug, grams):
    limits = limits_around(servable(TABLE[slug], TABLE[slug].role), grams)
    return replace(food_portion(TABLE[slug], grams, key=key), limits=limits)


class Signed(SimpleTestCase):
    def test_what_was_offered_is_taken_as_it_was_offered(self):
        token = token_for("bowl-3", 7, [step(TABLE["tahini"], 12.5)], "less salt")
        edits, why = taken(token, "bowl-3", 7)
        self.assertEqual(edits, [Edit(key="line-1", food="tahini", grams=12.5)])
        self.assertEqual(why, "less salt")

    def test_for_another_record_another_version_or_nobody_it_is_outdated(self):
        token = token_for("bowl-3", 7, [step()], "")
        strange = signing.dumps({"of": "bowl-3"}, salt=SALT)
        for sent, key, version in (
            (token, "bowl-4", 7),
            (token, "bowl-3", 8),
            (token[:-2] + "xx", "bowl-3", 7),
            ("", "bowl-3", 7),
            (strange, "bowl-3", 7),
            (signing.dumps({"of": "bowl-3", "edits": [{"sql": 1}]}, salt=SALT), "bowl-3", 7),
            (signing.dumps({"of": "bowl-3", "edits": []}, salt="other"), "bowl-3", 7),
        ):
            with self.assertRaises(Outdated):
                taken(sent, key, version)

    def test_a_food_that_is_gone_cannot_be_swapped_in(self):
        self.assertEqual(swapped_in("tahini"), TABLE["tahini"])
        with self.assertRaises(Outdated):
            swapped_in("moon-dust")

    def test_nothing_is_left_out(self):
        self.assertEqual(LEFT_OUT_G, 0.4)
        self.assertTrue(Edit(key="k", grams=0.0).left_out)
        self.assertFalse(Edit(key="k", grams=0.1).left_out)


class Plate(Changeable):
    """Portions in a list; what is written is remembered."""

    kind, pages = "plate", "plates_here"
    no_plan, nothing = "Nobody's targets.", "Nothing on it."
    rows = ()
    written, fails = [], None

    @classmethod
    def opened(cls, request, pk):
        practice = SimpleNamespace(measures="us")
        record = SimpleNamespace(pk=pk, version=4, practice=practice)
        return cls(request, record), HttpResponse("elsewhere") if pk == 99 else None

    def look(self, asked, swaps=False):
        meal = meal_of(self.day, asked.get("meal", "lunch"))
        return Look(
            portions=[limited(one, self.gate) for one in self.rows],
            besides=Profile.empty(),
            chosen="lunch",
            options=meal_options(self.day),
            meal=meal,
            words="",
        )

    def dishes(self, look):
        return {}

    def known(self):
        return {one.key for one in self.rows}

    def write(self, edits, why, asked, version):
        if self.fails:
            raise self.fails
        self.written.append((list(edits), why, version))
        return "it was changed"

    def remake(self, key):
        if self.fails:
            raise self.fails
        return f"made again without {key}"

    def answer(self, key=""):
        return HttpResponse("answered")

    def page(self, context):
        self.written.append(context)
        return HttpResponse("page")

    def stale(self, current, what):
        return HttpResponse(f"overtaken: {what}", status=409)


# What is sent with two portions ticked of three, one of them hardly anything.
TICKS = {
    "take": ["base", "beans", "stranger"],
    "grams-base": "180",
    "grams-beans": "0.3",
    "grams-kale": "90",
    "grams-stranger": "50",
}


class Panels(ClientCase):
    def setUp(self):
        super().setUp()
        Plate.rows = (
            portion("base", "millet-cooked", 150.0),
            portion("beans", "white-beans-cooked", 60.0),
            portion("kale", "kale-raw", 60.0),
        )
        Plate.written, Plate.fails = [], None
        kinds = patch.dict("changes.changeable._KINDS", {"plate": Plate})
        addresses = patch("changes.changeable.reverse", lambda name, args: f"/{name}/{args[0]}/")
        for one in (kinds, addresses):
            one.start()
            self.addCleanup(one.stop)

    def ask(self, view, data=None, pk=1, client=True, htmx=False, **query):
        factory = RequestFactory()
        request = factory.post("/", data) if data is not None else factory.get("/", query)
        request.user, request.htmx = self.user, htmx
        request.for_client = self.client_row if client else None
        request._messages = CookieStorage(request)
        answer = view(request, pk, "plate")
        said = [str(one) for one in request._messages]
        return answer, said

    def test_a_kind_that_no_stage_registered(self):
        self.assertIs(of_kind("plate"), Plate)
        with self.assertRaises(KeyError):
            of_kind("boat")

    def test_what_is_proposed_can_be_taken(self):
        self.ask(balance)
        context = Plate.written.pop()
        self.assertEqual((context["version"], context["kind"]), (4, "plate"))
        self.assertIn("portions", context)
        answer, _said = self.ask(balance, TICKS | {"version": "4"})
        self.assertEqual(answer.content, b"answered")
        edits, _why, version = Plate.written.pop()
        self.assertEqual(version, 4)
        self.assertEqual({one.key: one.grams for one in edits}, {"base": 180.0, "beans": 0.0})

    def test_what_was_overtaken_is_said_and_not_written(self):
        for error in (Outdated("gone"), StaleSave(SimpleNamespace(version=5))):
            Plate.fails = error
            _answer, said = self.ask(balance, TICKS | {"version": "4"})
            self.assertEqual((said, Plate.written), ([OUTDATED], []))

    def test_nothing_is_proposed_without_a_plan_or_without_portions(self):
        self.ask(balance, client=False)
        self.assertTrue(Plate.written.pop()["problem"])
        Plate.rows = ()
        self.ask(balance)
        self.assertEqual(Plate.written.pop()["problem"], Plate.nothing)

    def test_a_swap_is_taken_once_offered(self):
        token = token_for("plate-1", 4, [step(TABLE["barley-pearled-cooked"], 140.0, "base")], "w")
        answer, said = self.ask(swap, {"change": token})
        self.assertEqual((answer.content, said), (b"answered", ["It was changed."]))
        edits, why, version = Plate.written.pop()
        self.assertEqual((edits[0].food, why, version), ("barley-pearled-cooked", "w", 4))
        old = token_for("plate-1", 3, [step()], "w")
        for sent in (old, "nonsense"):
            _answer, said = self.ask(swap, {"change": sent})
            self.assertEqual(len(said), 1)
        self.assertEqual(Plate.written, [])

    def test_a_look_at_what_is_outdated_draws_nothing(self):
        answer, _said = self.ask(swap, show="nonsense")
        self.assertEqual(answer.status_code, 204)

    def test_swaps_beside_the_gap(self):
        self.ask(swap)
        self.assertTrue(Plate.written.pop()["swapped"])

    def test_another_page_is_gone_to(self):
        for view, data in ((balance, None), (swap, None), (without, {"item": "x"})):
            self.assertEqual(self.ask(view, data, pk=99)[0].content, b"elsewhere")

    def test_made_again_without(self):
        answer, said = self.ask(without, {"item": "sauce"})
        self.assertEqual((answer.content, said), (b"answered", ["made again without sauce"]))
        Plate.fails = Outdated("That cannot be.")
        _answer, said = self.ask(without, {"item": "sauce"})
        self.assertEqual(said, ["That cannot be."])
        Plate.fails = StaleSave(SimpleNamespace(version=5))
        answer, _said = self.ask(without, {"item": "sauce"})
        self.assertEqual(answer.status_code, 409)

    def test_what_a_client_must_not_have_is_named_first_with_what_could_take_its_place(self):
        """Osk does not tolerate sesame."""
        rows = [portion("kale", "kale-raw", 60.0), portion("sauce", "tahini", 30.0)]
        (one,) = held(rows, gate_of(plan_of(self.client_row)), "plate-1", 4)
        self.assertEqual(one.item.key, "sauce")
        self.assertTrue(one.limit.stops)
        words = [words for words, _token in one.offers]
        self.assertEqual(words[-1], "Leave it out")
        for _words, token in one.offers:
            edits, _why = taken(token, "plate-1", 4)
            self.assertEqual(edits[0].key, "sauce")
            self.assertTrue(edits[0].left_out or "tahini" not in edits[0].food)
        self.assertEqual(held(rows, OPEN, "plate-1", 4), [])

    def test_limits_as_far_as_the_gate_lets_them(self):
        gate = gate_of(plan_of(self.client_row))
        sauce = limited(portion("sauce", "tahini", 30.0), gate)
        self.assertEqual((sauce.limits.most, sauce.limits.ceiling), (0.0, 0.0))
        kale = portion("kale", "kale-raw", 60.0)
        self.assertEqual(limited(kale, gate).limits.most, kale.limits.most)


class Aims(ClientCase):
    def test_of_a_meal_a_share_and_the_day(self):
        plan = plan_of(self.client_row)
        lunch = meal_of(plan.day, "lunch")
        self.assertIsNone(meal_of(plan.day, WHOLE_DAY))
        self.assertEqual(meal_options(plan.day)[-1], (WHOLE_DAY, "the whole day"))
        energy = {
            name: next(one for one in aims if one.key == "energy_kcal").aim
            for name, aims in (
                ("day", plan_aims(plan, None)),
                ("half", plan_aims(plan, None, share=0.5)),
                ("lunch", plan_aims(plan, lunch)),
            )
        }
        self.assertAlmostEqual(energy["half"], energy["day"] / 2)
        self.assertAlmostEqual(energy["lunch"], energy["day"] * lunch.share)

    def test_what_is_there_already_is_taken_off(self):
        plan = plan_of(self.client_row)
        lunch = meal_of(plan.day, "lunch")
        there = food_portion(TABLE["white-beans-cooked"], 200.0, key="x").profile
        before = {one.key: one for one in plan_aims(plan, lunch, rest=ALL)}
        after = {one.key: one for one in plan_aims(plan, lunch, rest=ALL, there=there)}
        of_day = [key for key, one in before.items() if one.of_day and one.low]
        self.assertTrue(of_day)
        for key in of_day:
            self.assertLess(after[key].low, before[key].low)

    def test_nobody_has_none(self):
        self.assertEqual(plan_aims(plan_of(None), None), ())
