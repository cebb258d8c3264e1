"""A bowl built on the scale, and the simulated scale on its socket."""

import asyncio
import contextlib
import json

from django.test import SimpleTestCase
from websockets.asyncio.client import connect

from bowls.models import Bowl, BowlPart
from kitchen.models import BowlWeighing
from kitchen.scale_server import ScaleServer, serve_scale
from kitchen.tests.kitchen_case import KitchenCase
from nutrition.prep.scale import KITCHEN, Act


class BowlOnTheScale(KitchenCase):
    def setUp(self):
        super().setUp()
        self.bowl = Bowl.objects.create(practice=self.practice, name="Scale bowl", vessel_ml=900)
        self.kale = BowlPart.objects.create(
            bowl=self.bowl,
            role="greens",
            food="kale-raw",
            grams=60,
            basis="by eye",
            low_g=40,
            high_g=80,
        )
        self.nuts = BowlPart.objects.create(
            bowl=self.bowl, role="topping", food="walnuts", grams=20, place=1
        )

    def send(self, name, **data):
        version = Bowl.objects.get(pk=self.bowl.pk).version
        return self.post(self.at(name, self.bowl.pk), {"version": version} | data, True)

    def test_live_shows_what_lies_on_it_and_keeps_nothing(self):
        page = self.client.get(self.at("bowl-scale", self.bowl.pk))
        self.assertContains(page, "60 g planned")
        lives = [
            self.send("bowl-live", part=self.kale.pk, grams=grams).content.decode()
            for grams in ("60", "200", "-5", "x")
        ]
        self.assertIn("80 g", lives[0])
        self.assertIn("220 g", lives[1])
        # scraped back below nothing there is none of it; what is no number is as planned
        self.assertIn("20 g", lives[2])
        self.assertIn("80 g", lives[3])
        self.kale.refresh_from_db()
        self.assertEqual(self.kale.grams, 60)
        self.assertFalse(BowlWeighing.objects.exists())

    def test_what_is_taken_is_weighed_and_its_range_narrows(self):
        self.send("bowl-take", part=self.kale.pk, grams="57")
        self.kale.refresh_from_db()
        self.assertEqual((self.kale.grams, self.kale.basis), (57, "weighed"))
        self.assertLess(self.kale.high_g - self.kale.low_g, 5)
        nuts = self.send("bowl-take", part=self.nuts.pk, grams="28")
        self.assertContains(nuts, "8 g more walnuts than planned")
        self.send("bowl-end")
        row = BowlWeighing.objects.get()
        self.assertIsNotNone(row.ended)
        self.assertEqual(row.planned, {str(self.kale.pk): 60.0, str(self.nuts.pk): 20.0})
        self.assertEqual(row.taken, {str(self.kale.pk): 57.0, str(self.nuts.pk): 28.0})
        page = self.client.get(self.at("bowl-scale", self.bowl.pk))
        self.assertContains(page, "8 g more walnuts than planned")
        # one step back brings the plan again
        self.assertEqual(len(Bowl.objects.get(pk=self.bowl.pk).history), 2)

    def test_the_rest_is_balanced_around_what_is_in(self):
        self.send("bowl-take", part=self.nuts.pk, grams="28")
        answer = self.post(self.at("bowl-rest", self.bowl.pk), {})
        self.assertEqual(answer.status_code, 302)
        self.assertIn("balance", answer["Location"])
        self.nuts.refresh_from_db()
        self.kale.refresh_from_db()
        self.assertEqual((self.nuts.locked, self.kale.locked), (True, False))
        self.send("bowl-end")
        self.nuts.refresh_from_db()
        self.assertFalse(self.nuts.locked)

    def test_nothing_of_it_takes_the_part_out_and_odd_weights_are_refused(self):
        for data in (
            {"part": 999, "grams": "5"},
            {"part": self.kale.pk, "grams": "-1"},
            {"part": self.kale.pk, "grams": "5001"},
            {"part": self.kale.pk, "grams": "nan"},
        ):
            self.send("bowl-take", **data)
        self.assertFalse(BowlWeighing.objects.exists())
        self.send("bowl-take", part=self.nuts.pk, grams="0")
        self.assertFalse(BowlPart.objects.filter(pk=self.nuts.pk).exists())

    def test_the_weigh_in_page_offers_the_body_scale(self):
        page = self.client.get(f"/clients/{self.client_row.pk}/")
        self.assertContains(page, "ws://127.0.0.1:8138/")


class OnASocket(SimpleTestCase):
    """The protocol of docs/scale.md, spoken."""

    def talk(self, script, until, origin="http://127.0.0.1:8000", port=8237):
        async def run():
            server = ScaleServer(KITCHEN, script)
            serving = asyncio.create_task(serve_scale(server, port, ["https://practice.example"]))
            await asyncio.sleep(0.2)
            heard = []
            try:
                async with connect(f"ws://127.0.0.1:{port}/", origin=origin) as socket:
                    async for message in socket:
                        heard.append(json.loads(message))
                        if until(heard):
                            break
                        if len(heard) == 20:
                            await socket.send(json.dumps({"do": "tare"}))
                            await socket.send("no JSON")
                            await socket.send("[]")
            finally:
                serving.cancel()
                with contextlib.suppress(asyncio.CancelledError):
                    await serving
            return heard

        return asyncio.run(run())

    def test_it_says_what_it_is_settles_and_is_set_to_zero(self):
        heard = self.talk([Act(0.0, "put", 250)], lambda all_of: len(all_of) > 40)
        self.assertEqual(heard[0]["kind"], "scale")
        self.assertEqual(
            (heard[0]["capacity_g"], heard[0]["step_g"], heard[0]["body"]), (5000, 1, False)
        )
        self.assertTrue(any(one.get("stable") and abs(one["g"] - 250) <= 1 for one in heard[1:21]))
        self.assertLessEqual(abs(heard[-1]["g"]), 1)

    def test_a_lost_connection_is_closed_and_too_much_is_said(self):
        heard = self.talk([Act(0.3, "lay", 6000), Act(0.8, "lose")], lambda _all: False)
        self.assertTrue(heard[-1]["overload"] or any(one.get("overload") for one in heard))

    def test_only_pages_that_may_listen_hear_a_weight(self):
        for origin, heard in (
            ("https://practice.example", True),
            ("https://elsewhere.example", False),
            ("http://localhost:8100", True),
        ):
            with self.subTest(origin):
                try:
                    rows = self.talk([], lambda all_of: len(all_of) > 2, origin)
                except Exception:
                    rows = []
                self.assertEqual(bool(rows), heard)
