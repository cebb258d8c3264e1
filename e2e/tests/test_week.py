"""The week in the browser: planned, pinned, planned again, carried by mouse and key, printed; the
list ticked in the shop, with a connection and without."""

import re

from django.db import connections
from django_scopes import scopes_disabled
from playwright.sync_api import expect

from e2e.case import BrowserCase
from jobs.testing import working
from shopping.models import Bought
from week.models import Week
from week.testing import planned_within

TAKE = re.compile("^Take this")
# Little work is an answer still.
LITTLE_WORK = 1.0
DESK, TABLET, PHONE = (1280, 800), (820, 1180), (390, 844)


class OnWeeks(BrowserCase):
    def size(self, size):
        self.page.set_viewport_size({"width": size[0], "height": size[1]})

    def week(self, name="Jens Halloran"):
        with scopes_disabled():
            return Week.objects.select_related("client").get(client__name=name)

    def open_week(self, name="Jens Halloran", tail=""):
        week = self.week(name)
        self.open(f"/for/{week.client_id}/weeks/{week.pk}/{tail}")
        return week

    def called(self, selector):
        """The dish in a place, without how much of it."""
        words = " ".join((self.page.locator(selector).text_content() or "").split())
        return words.split(" of ", 1)[-1]


class WeekBench(OnWeeks):
    def test_the_week_is_on_one_screen(self):
        self.size(DESK)
        self.open_week()
        heads = [one.bounding_box() for one in self.page.locator(".week-day-head").all()]
        self.assertEqual(len(heads), 7)
        self.assertEqual(len({round(one["y"]) for one in heads}), 1, "days across")
        for dish in self.page.locator(".week-dish").all():
            box = dish.bounding_box()
            self.assertLessEqual(box["y"] + box["height"], DESK[1])
            self.assertLessEqual(box["x"] + box["width"], DESK[0])
        # meals stand in rows across the days
        rows = self.page.locator(".week-day").evaluate_all(
            "days => days.map(day => [...day.querySelectorAll('.week-cell')]"
            ".map(cell => Math.round(cell.getBoundingClientRect().top)))"
        )
        self.assertEqual(len({tuple(row) for row in rows}), 1)
        # a pot's servings stand under the days on which they are eaten
        ribbon = self.page.locator(".ribbon").first
        cell = ribbon.locator(".ribbon-day.eaten, .ribbon-day.frozen").first.bounding_box()
        middles = [one["x"] + one["width"] / 2 for one in heads]
        self.assertTrue(any(cell["x"] < middle < cell["x"] + cell["width"] for middle in middles))

    def test_on_a_phone_the_first_screen_shows_a_day_and_nothing_is_wider(self):
        for size in (TABLET, PHONE):
            with self.subTest(size=size):
                self.size(size)
                self.open_week()
                wide = self.page.evaluate("document.documentElement.scrollWidth")
                self.assertLessEqual(wide, size[0])
                tops = [one.bounding_box()["y"] for one in self.page.locator(".week-dish").all()]
                self.assertLess(min(tops), size[1] * 2 / 3)

    def test_it_is_planned_pinned_and_planned_again(self):
        page = self.page
        self.open_week("Osk Brannigan")
        page.locator("#dish-1-dinner-0").click()
        page.get_by_role("button", name="Pin").click()
        pinned = page.locator("#dish-1-dinner-0.pinned")
        expect(pinned).to_be_visible()
        name = self.called("#dish-1-dinner-0")
        page.get_by_role("button", name="Plan the week").click()
        expect(page.locator("#planning")).to_contain_text("waits: about to begin")
        with planned_within(LITTLE_WORK), working():
            expect(page.get_by_role("button", name=TAKE).first).to_be_visible()
        self.assertEqual(page.locator("#work").count(), 1)
        page.get_by_role("button", name=TAKE).first.click()
        expect(page.locator("#proposals")).to_have_count(0)
        self.assertEqual(page.locator("#work h1").count(), 1)
        expect(page.locator("#dish-1-dinner-0")).to_contain_text(name)
        week = self.week("Osk Brannigan")
        self.assertTrue(week.proposals == [] and week.history)
        connections.close_all()

    def test_a_dish_is_carried_to_another_day_by_mouse_and_by_key(self):
        page = self.page
        self.open_week()
        names = {day: self.called(f"#dish-{day}-dinner-0") for day in range(6)}
        to = next(day for day in range(1, 6) if names[day] != names[0])
        there = page.locator(f".week-day[data-day='{to}'] .week-day-head")
        page.locator("#dish-0-dinner-0").drag_to(there)
        expect(page.locator(f"#dish-{to}-dinner-0")).to_contain_text(names[0])
        expect(page.locator("#dish-0-dinner-0")).to_contain_text(names[to])
        page.locator(f"#dish-{to}-dinner-0").focus()
        page.keyboard.press("Shift+ArrowRight")
        expect(page.locator(f"#dish-{to + 1}-dinner-0")).to_contain_text(names[0])

    def test_a_place_opens_with_the_cursor_in_it_and_gives_it_back(self):
        page = self.page
        self.open_week()
        page.locator("#dish-3-dinner-0").focus()
        page.keyboard.press("Enter")
        expect(page.locator("#slot")).to_be_focused()
        page.keyboard.press("Escape")
        expect(page.locator("#dish-3-dinner-0")).to_be_focused()
        page.locator("#dish-3-dinner-0").click()
        page.get_by_label("Something else").fill("celeriac")
        page.locator("#slot-options .found-one", has_text="Celeriac and white bean soup").click()
        expect(page.locator("#dish-3-dinner-0")).to_contain_text("Celeriac and white")

    def test_the_days_of_the_door_are_one_sheet_and_the_labels_a_sheet(self):
        page = self.page
        # a letter sheet on its side between margins of 7 mm, at 96 dots to the inch
        self.size((1003, 763))
        self.open_week(tail="door/")
        page.emulate_media(media="print")
        days = page.locator(".door-days").bounding_box()
        self.assertLessEqual(days["y"] + days["height"], 763, "all the days on the first sheet")
        pdf = page.pdf(prefer_css_page_size=True)
        self.assertLessEqual(len(re.findall(rb"/Type\s*/Page\b", pdf)), 2, "what is cooked after")
        page.emulate_media(media="screen")
        self.open_week(tail="labels/")
        page.emulate_media(media="print")
        self.assertGreater(page.locator(".container-label").count(), 8)
        tops = page.locator(".container-label").evaluate_all(
            "all => all.slice(0, 3).map(one => Math.round(one.getBoundingClientRect().top))"
        )
        self.assertEqual(len(set(tops)), 1, "three across")

    def test_the_list_is_ticked_on_a_phone_also_without_a_connection(self):
        page = self.page
        self.size(PHONE)
        week = self.week()
        self.open(f"/for/{week.client_id}/shopping/{week.pk}/")
        wide = page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(wide, PHONE[0])
        lines = page.locator("[data-tick]")
        with page.expect_response("**/tick/"):
            lines.nth(0).locator("input[type=checkbox]").check()
        expect(page.get_by_text("1 of").first).to_be_visible()
        page.get_by_role("button", name="Save on this phone").click()
        expect(page.locator("#kept-words")).to_contain_text("Saved")
        kept = page.evaluate(
            "caches.open('shopping-list').then(one => one.keys()).then("
            "all => all.map(one => new URL(one.url).pathname))"
        )
        self.assertIn(f"/for/{week.client_id}/shopping/{week.pk}/", kept)
        self.assertTrue([one for one in kept if one.endswith(".css")])
        self.context.set_offline(True)
        lines.nth(1).locator("input[type=checkbox]").check()
        expect(page.locator("#kept-words")).to_contain_text("1 tick waits")
        with page.expect_response("**/tick/"):
            self.context.set_offline(False)
        expect(page.locator("#kept-words")).to_have_text("")
        page.reload()
        expect(lines.nth(1).locator("input[type=checkbox]")).to_be_checked()
        with scopes_disabled():
            self.assertEqual(Bought.objects.filter(week=week).count(), 2)
        # without a connection the browser complains of what it could not send
        self.complaints = [one for one in self.complaints if "ERR_INTERNET" not in one]

    def test_one_tick_that_is_refused_does_not_hold_up_the_others(self):
        page = self.page
        self.size(PHONE)
        week = self.week()
        self.open(f"/for/{week.client_id}/shopping/{week.pk}/")
        lines = page.locator("[data-tick] input[type=checkbox]")
        words = page.locator("#kept-words")
        self.context.set_offline(True)
        for n, waits in enumerate(("1 tick waits", "2 ticks wait", "3 ticks wait")):
            lines.nth(n).check()
            expect(words).to_contain_text(waits)
        asked = []

        def first_refused(route):
            asked.append(route.request.post_data)
            if len(asked) == 1:
                route.fulfill(status=404, body="gone")
            else:
                route.continue_()

        page.route("**/tick/", first_refused)
        self.context.set_offline(False)
        expect(words).to_have_text("1 tick was refused: that list is no longer there.")
        self.assertEqual(len(asked), 3)
        with scopes_disabled():
            self.assertEqual(Bought.objects.filter(week=week).count(), 2)
        # what was without a connection and what was refused are told by the browser too
        self.complaints = [one for one in self.complaints if not one.startswith("Failed to load")]


class WithoutScript(OnWeeks):
    javascript = False

    def test_all_of_it_works_without_script(self):
        page = self.page
        self.open_week("Ilse Varga-Holm")
        page.locator("#dish-1-dinner-0").click()
        page.get_by_label("To another day").select_option(index=3)
        page.get_by_role("button", name="Move").click()
        page.wait_for_url("**/weeks/*/")
        with planned_within(LITTLE_WORK), working():
            page.get_by_role("button", name="Plan the week").click()
            # the page looks again by itself
            page.get_by_role("button", name=TAKE).first.click()
        expect(page.get_by_text("places changed.")).to_be_visible()
        week = self.week("Ilse Varga-Holm")
        self.open(f"/for/{week.client_id}/shopping/{week.pk}/")
        line = page.locator("[data-tick]").first
        line.locator("input[type=checkbox]").check()
        line.get_by_role("button", name="Set").click()
        expect(page.locator("[data-tick].ticked")).to_have_count(1)
