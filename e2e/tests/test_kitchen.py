"""The kitchen in the browser: a timeline moved by key, a session cooked through a reload, a sleep
and a dropped connection, a bowl on a scale that settles, says too much and is lost."""

import asyncio
import re
import threading
from dataclasses import replace

from django.utils import timezone
from django_scopes import scopes_disabled
from playwright.sync_api import expect

from bowls.models import Bowl
from e2e.case import BrowserCase
from kitchen.models import BowlWeighing, CookingSession
from kitchen.scale_server import ScaleServer, serve_scale
from nutrition.prep.scale import BODY, KITCHEN

# What it drifts by the minute a slow machine would show; the scale's own tests hold that.
STILL = replace(KITCHEN, noise_g=0.0, drift_g_per_min=0.0)
DESK, TABLET, PHONE = (1280, 800), (820, 1180), (390, 844)


class InTheKitchen(BrowserCase):
    def session(self, name="Osk Brannigan"):
        with scopes_disabled():
            return CookingSession.objects.select_related("client").get(client__name=name)

    def open_session(self, tail=""):
        session = self.session()
        self.open(f"/for/{session.client_id}/kitchen/{session.pk}/{tail}")
        return session

    def kept(self):
        return self.page.locator("#cook-kept")


class Timeline(InTheKitchen):
    def test_the_picture_stands_on_the_first_screen_and_nothing_is_wider(self):
        for size in (DESK, TABLET, PHONE):
            with self.subTest(size=size):
                self.page.set_viewport_size({"width": size[0], "height": size[1]})
                self.open_session()
                wide = self.page.evaluate("document.documentElement.scrollWidth")
                self.assertLessEqual(wide, size[0])
                box = self.page.locator(".stove").bounding_box()
                self.assertLess(box["y"], size[1] * 2 / 3)
        self.page.set_viewport_size({"width": DESK[0], "height": DESK[1]})
        self.open_session()
        box = self.page.locator(".stove").bounding_box()
        self.assertLessEqual(box["y"] + box["height"], DESK[1])

    def test_a_step_is_moved_by_key_and_by_mouse_and_let_go(self):
        page = self.page
        self.open_session()
        bar = page.locator(".stove-bar.burner[data-task]").first
        task, start = bar.get_attribute("data-task"), int(bar.get_attribute("data-start"))
        bar.focus()
        for _press in range(3):
            page.keyboard.press("ArrowLeft")
        moved = page.locator(f'.stove-bar.burner[data-task="{task}"]').first
        expect(moved).to_have_attribute("data-start", str(start - 3))
        expect(page.get_by_text("1 moved by hand")).to_be_visible()
        box = moved.bounding_box()
        per = float(page.locator(".stove").get_attribute("data-per-minute"))
        scale = page.locator(".stove").bounding_box()["width"] / 1060
        page.mouse.move(box["x"] + 8, box["y"] + box["height"] / 2)
        page.mouse.down()
        page.mouse.move(box["x"] + 8 - 4 * per * scale, box["y"] + box["height"] / 2, steps=4)
        page.mouse.up()
        expect(moved).to_have_attribute("data-start", str(start - 7))
        page.get_by_role("button", name="Let it go").click()
        expect(moved).to_have_attribute("data-start", str(start))


class Cooking(InTheKitchen):
    def done(self):
        self.page.get_by_role("button", name="Done", exact=True).click()

    def now(self):
        return (self.page.locator("#cook-now .step-text").text_content() or "").strip()

    def stored(self):
        with scopes_disabled():
            return CookingSession.objects.get(pk=self.session().pk)

    def cooked_now(self):
        """The session is today's, and begins now."""
        session, now = self.session(), timezone.now()
        with scopes_disabled():
            session.day = timezone.localdate()
            shift = session.minutes_at(now) - session.plan["rows"][0]["start"]
            for row in session.plan["rows"]:
                row["start"] += shift
                row["end"] += shift
            session.ready_at, session.earliest = session.ready_at + shift, session.earliest + shift
            session.plan["ready"] = {k: v + shift for k, v in session.plan["ready"].items()}
            session.save()
        return now

    def seconds(self, words):
        minutes, seconds = words.split(":")[-2:]
        return int(minutes) * 60 + int(seconds)

    def arrived(self):
        """Waits until all that was told here has reached the server."""
        expect(self.page.locator("#cooking")).to_have_attribute("data-waiting", "0")

    def until_a_timer(self):
        """Steps done until something goes on by itself."""
        for _step in range(6):
            before = self.now()
            self.done()
            self.page.wait_for_function(
                "before => document.querySelector('#cook-now .step-text').textContent.trim()"
                " !== before",
                arg=before,
            )
            if self.page.locator(".cook-timer").count():
                return
        self.fail("nothing goes on")

    def test_now_next_and_a_timer_that_runs_on_through_a_reload_and_a_sleep(self):
        page = self.page
        page.clock.install(time=self.cooked_now())
        self.open_session("cook/")
        self.until_a_timer()
        left = page.locator(".cook-timer strong").first
        before = left.text_content()
        self.assertRegex(before, r"^\d+:\d\d")
        page.clock.run_for(61_000)
        after = left.text_content()
        self.assertNotEqual(before, after)
        page.reload()
        self.there()
        expect(page.locator(".cook-timer strong").first).to_have_text(re.compile(r"^\d+:\d\d"))
        again = page.locator(".cook-timer strong").first.text_content()
        self.assertLess(abs(self.seconds(after) - self.seconds(again)), 30)
        # the tablet sleeps for hours: what is over says so by words when it wakes
        page.clock.fast_forward(3 * 3600 * 1000)
        expect(page.locator(".cook-timer.up").first).to_be_visible()
        expect(page.locator("#cook-rung")).to_contain_text("Time is up")

    def test_a_dropped_connection_loses_and_doubles_nothing(self):
        page = self.page
        self.open_session("cook/")
        first = self.now()
        self.context.set_offline(True)
        self.done()
        expect(page.locator("#cook-now .step-text")).not_to_have_text(first)
        second = self.now()
        self.done()
        expect(page.locator("#cook-now .step-text")).not_to_have_text(second)
        expect(self.kept()).to_contain_text("2 things wait")
        self.assertEqual(self.stored().progress.get("done", {}), {})
        third = self.now()
        self.context.set_offline(False)
        page.evaluate("window.dispatchEvent(new Event('online'))")
        self.arrived()
        self.assertEqual(len(self.stored().progress["done"]), 2)
        page.reload()
        self.there()
        self.assertEqual(self.now(), third)
        page.get_by_role("button", name="Back one").click()
        expect(page.locator("#cook-now .step-text")).to_have_text(second)
        self.complaints = [one for one in self.complaints if "ERR_INTERNET" not in one]

    def test_the_page_opens_again_without_a_connection(self):
        page = self.page
        self.open_session("cook/")
        shown = self.now()
        # kept with its styles and scripts, and answered for by the worker
        expect(page.locator("#cook-kept")).to_contain_text("kept on this device")
        self.context.set_offline(True)
        page.reload()
        expect(page.locator("#cook-now .step-text")).to_have_text(shown)
        self.context.set_offline(False)
        self.complaints = [
            one for one in self.complaints if "ERR_" not in one and "fetch" not in one
        ]

    def test_it_took_longer_and_the_rest_moves(self):
        page = self.page
        self.cooked_now()
        self.open_session("cook/")
        self.until_a_timer()
        ready = dict(self.stored().plan["ready"])
        for _time in range(2):
            page.locator(".cook-timer").first.get_by_role("button", name="5 min longer").click()
        self.arrived()
        self.assertEqual(sum(self.stored().progress["longer"].values()), 10)
        self.assertGreaterEqual(max(self.stored().plan["ready"].values()), max(ready.values()))

    def test_big_targets_for_floury_fingers(self):
        self.page.set_viewport_size({"width": PHONE[0], "height": PHONE[1]})
        self.open_session("cook/")
        box = self.page.get_by_role("button", name="Done", exact=True).bounding_box()
        self.assertGreaterEqual(box["height"], 60)
        self.assertLess(box["y"] + box["height"], PHONE[1], "on a phone's first screen")


class OnTheScale(InTheKitchen):
    def setUp(self):
        super().setUp()
        self.scale = self.serve(STILL, 8137)

    def serve(self, kind, port):
        server, loop = ScaleServer(kind), asyncio.new_event_loop()
        task = loop.create_task(serve_scale(server, port))

        def run():
            asyncio.set_event_loop(loop)
            try:
                loop.run_until_complete(task)
            except asyncio.CancelledError:
                pass
            finally:
                loop.close()

        thread = threading.Thread(target=run, daemon=True)
        thread.start()

        def stop():
            loop.call_soon_threadsafe(task.cancel)
            thread.join(10)

        self.addCleanup(stop)
        return server

    def grams(self):
        return self.page.locator("[data-scale-grams]")

    def open_bowl(self):
        with scopes_disabled():
            bowl = Bowl.objects.get(name="Harbor night flask")
        self.open(f"/for/{bowl.client_id}/kitchen/bowls/{bowl.pk}/")
        return bowl

    def test_live_settled_taken_by_press_and_by_itself(self):
        page = self.page
        bowl = self.open_bowl()
        self.scale.do("put", 310)
        expect(self.grams()).to_have_text("310 g")
        page.locator("[data-scale-zero]").click()
        expect(self.grams()).to_have_text("0 g")
        energy = page.locator("#scale-round strong").first.text_content()
        self.scale.do("put", 90)
        expect(self.grams()).to_have_text("90 g")
        expect(page.locator("#scale-round strong").first).not_to_have_text(energy)
        first = page.locator("#scale-title").text_content()
        page.get_by_role("button", name="Take it").click()
        expect(page.locator("#scale-title")).not_to_have_text(first)
        expect(self.grams()).to_have_text("0 g")
        second = page.locator("#scale-title").text_content()
        page.locator("[data-scale-auto]").check()
        self.scale.do("put", 150)
        expect(page.locator("#scale-title")).not_to_have_text(second)
        with scopes_disabled():
            row = BowlWeighing.objects.get(bowl=bowl)
            self.assertEqual([round(one / 10) for one in row.taken.values()], [9, 15])
            weighed = bowl.parts.filter(basis="weighed").count()
        self.assertGreaterEqual(weighed, 2)

    def test_scraped_back_too_much_and_lost(self):
        page = self.page
        self.open_bowl()
        self.scale.do("put", 200)
        expect(self.grams()).to_have_text("200 g")
        page.locator("[data-scale-zero]").click()
        self.scale.do("put", -30)
        expect(page.locator("[data-scale-said]")).to_contain_text("scraped back")
        page.locator("[data-scale-off]").check()
        expect(self.grams()).to_have_text("30 g")
        self.scale.do("lay", 9000)
        expect(self.grams()).to_have_text("too much")
        self.scale.do("lay", 100)
        self.scale.do("lose", 0)
        expect(page.locator("[data-scale-said]")).to_contain_text("lost")
        expect(self.grams()).to_have_text("–")
        self.scale.do("back", 0)
        expect(self.grams()).not_to_have_text("–")
        self.complaints = [one for one in self.complaints if "WebSocket" not in one]

    def test_a_body_weight_is_looked_at_before_it_is_kept(self):
        page = self.page
        body = self.serve(BODY, 8138)
        with scopes_disabled():
            client = self.session().client
            last = client.weigh_ins.order_by("-date").first()
        self.open(f"/clients/{client.pk}/")
        body.do("lay", (last.kg + 9.0) * 1000)
        page.get_by_role("button", name="From the scale").click()
        expect(page.locator("#body-scale-says")).to_contain_text("look at it, then keep it")
        with scopes_disabled():
            count = client.weigh_ins.count()
        page.get_by_role("button", name="Record", exact=True).click()
        self.there()
        # nine kilograms from the last: it asks, and keeps nothing
        expect(page.get_by_text("sure", exact=False).first).to_be_visible()
        with scopes_disabled():
            self.assertEqual(client.weigh_ins.count(), count)
