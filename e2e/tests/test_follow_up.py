"""A follow-up in the browser: from opening the client to a signed note with a changed plan; and a
phone's log of a day, by count of touches."""

from datetime import timedelta

from django.utils import timezone
from django_scopes import scopes_disabled
from playwright.sync_api import expect

from clients.models import Client
from e2e.case import BrowserCase
from journal.models import LoggedDay, TakenChange, Visit
from planner.models import Day, DayEntry

DESK, PHONE = (1280, 800), (390, 844)
# A day as planned is one touch; one with a change of two dishes and something besides is no more
# than so many.
AS_PLANNED_TOUCHES, CHANGED_TOUCHES = 1, 8


class FollowUp(BrowserCase):
    def client_called(self, name):
        with scopes_disabled():
            return Client.objects.get(name=name)

    def test_from_the_client_to_a_signed_note_with_a_changed_plan(self):
        page, osk = self.page, self.client_called("Osk Brannigan")
        with scopes_disabled():
            ahead = Day.objects.create(
                practice=osk.practice,
                client=osk,
                date=timezone.localdate() + timedelta(days=9),
            )
            DayEntry.objects.create(day=ahead, meal="snack", food="walnuts", amount=55)
        self.open(f"/clients/{osk.pk}/")
        expect(page.locator(".next-step")).to_contain_text("Not losing as expected")
        page.get_by_role("link", name="see why").click()
        page.wait_for_url("**/journal/stall/")
        expect(
            page.get_by_role("heading", name="Portions of a few dense foods grew")
        ).to_be_visible()
        first = page.locator(".cause", has=page.get_by_role("button", name="Take this one")).first
        expect(first).to_contain_text("kcal less a day")
        first.get_by_role("button", name="Take this one").click()
        page.get_by_role("button", name="Write it into").click()
        expect(page.get_by_text("Written into the plans on")).to_be_visible()
        with scopes_disabled():
            self.assertLess(ahead.entries.get(food="walnuts").amount, 55)
            self.assertEqual(TakenChange.objects.filter(client=osk, ended=None).count(), 1)
        page.get_by_role("link", name="Visits", exact=True).click()
        page.get_by_role("button", name="Begin a note for today").click()
        expect(page.locator(".figures").get_by_text("Change agreed on").first).to_be_visible()
        page.get_by_role("textbox", name="Assessment").fill(
            "Seeds on the bridge have grown into handfuls."
        )
        page.get_by_role("textbox", name="Intervention").fill("A spoon each watch, as before.")
        page.get_by_label("Questions for the next visit").fill("How many spoons?")
        page.get_by_label("Sign as").fill("Marin Oakes, RDN")
        page.get_by_role("button", name="Sign and close").click()
        said = page.locator(".notice[role=status]")
        expect(said).to_contain_text("closed.")
        page.emulate_media(media="print")
        expect(said).to_be_hidden()
        page.emulate_media(media="screen")
        expect(page.locator("textarea#f-assessment")).to_have_count(0)
        with scopes_disabled():
            note = Visit.objects.get(client=osk, date=timezone.localdate())
            self.assertEqual(note.signed_as, "Marin Oakes, RDN")
            self.assertTrue(any("as before" in row[2] for row in note.figures))

    def test_the_follow_up_stands_on_the_first_screen(self):
        page, osk = self.page, self.client_called("Osk Brannigan")
        self.open(f"/for/{osk.pk}/journal/")
        chart = page.locator(".follow-grid .weight-chart").bounding_box()
        self.assertLessEqual(chart["y"] + chart["height"], DESK[1])
        stands = page.get_by_role("region", name="How it stands").bounding_box()
        self.assertLessEqual(stands["y"] + stands["height"], DESK[1])
        page.set_viewport_size({"width": PHONE[0], "height": PHONE[1]})
        chart = page.locator(".follow-grid .weight-chart").bounding_box()
        self.assertLessEqual(chart["y"] + chart["height"], PHONE[1])

    def test_a_weight_that_cannot_be_is_asked_about_where_it_was_typed(self):
        page, osk = self.page, self.client_called("Osk Brannigan")
        self.open(f"/for/{osk.pk}/journal/")
        page.get_by_label("Weight [kg]").fill("228")
        page.get_by_role("button", name="Record").click()
        expect(page.get_by_text("Was it in pounds?")).to_be_visible()
        expect(page.get_by_label("Weight [kg]")).to_have_value("228")
        page.get_by_label("Weight [kg]").fill("228 lb")
        page.get_by_role("button", name="Record").click()
        expect(page.get_by_text("103.42 kg recorded")).to_be_visible()
        expect(page.get_by_role("heading", name="Follow-up")).to_be_visible()
        # the answer 400 that asked is what the browser notes
        self.complaints = [one for one in self.complaints if "400" not in one]


class OnAPhone(BrowserCase):
    viewport = {"width": PHONE[0], "height": PHONE[1]}

    def setUp(self):
        super().setUp()
        self.touches = 0
        with scopes_disabled():
            self.osk = Client.objects.get(name="Osk Brannigan")
            today = timezone.localdate()
            day = Day.objects.get(client=self.osk, date=today)
            self.planned = day.entries.count()
            LoggedDay.objects.filter(client=self.osk, date=today).delete()

    def touch(self, what):
        what.click()
        self.touches += 1
        self.page.wait_for_load_state("networkidle")
        self.there()

    def open_today(self):
        self.open(f"/for/{self.osk.pk}/journal/days/{timezone.localdate().isoformat()}/")

    def log(self):
        with scopes_disabled():
            log = LoggedDay.objects.get(client=self.osk, date=timezone.localdate())
            return log, list(log.entries.all())

    def test_a_day_as_planned_is_one_touch(self):
        self.open_today()
        button = self.page.get_by_role("button", name="All of it as planned")
        box = button.bounding_box()
        self.assertLessEqual(box["y"] + box["height"], PHONE[1], "on the first screen")
        self.assertGreaterEqual(box["height"], 40, "for a thumb")
        self.touch(button)
        expect(self.page.get_by_text("Wholly logged.")).to_be_visible()
        log, rows = self.log()
        self.assertTrue(log.whole)
        self.assertEqual(len(rows), self.planned)
        self.assertEqual(self.touches, AS_PLANNED_TOUCHES)

    def test_a_day_with_changes_is_a_few(self):
        page = self.page
        self.open_today()
        lunch = page.get_by_role("region", name="Lunch")
        self.touch(lunch.get_by_role("button", name="half").first)
        expect(lunch.locator("[aria-pressed=true]")).to_have_text("half")
        dinner = page.get_by_role("region", name="Dinner")
        self.touch(dinner.get_by_role("button", name="none").first)
        expect(dinner.locator("[aria-pressed=true]")).to_have_text("none")
        self.touch(page.get_by_label("Something else, or more"))
        page.keyboard.type("a banana, 2 tbsp hummus")
        self.touch(page.get_by_role("button", name="Log it"))
        expect(page.get_by_text("Hummus 30 g")).to_be_visible()
        self.touch(page.get_by_role("button", name="All of it as planned"))
        expect(page.get_by_text("Wholly logged.")).to_be_visible()
        log, rows = self.log()
        self.assertTrue(log.whole)
        self.assertEqual(
            sorted({row.how for row in rows}), ["as planned", "besides", "left out", "less"]
        )
        self.assertLessEqual(self.touches, CHANGED_TOUCHES)

    def test_what_is_not_settled_is_settled_with_a_touch(self):
        page = self.page
        self.open_today()
        self.touch(page.get_by_label("Something else, or more"))
        page.keyboard.type("rye toast")
        self.touch(page.get_by_role("button", name="Log it"))
        expect(page.get_by_text("what was it?")).to_be_visible()
        self.touch(page.locator(".log-asks").get_by_role("button").first)
        expect(page.get_by_text("what was it?")).to_have_count(0)
        # nothing is wider than the phone
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), PHONE[0])


class WithoutScript(BrowserCase):
    javascript = False

    def test_a_day_and_a_note(self):
        page = self.page
        with scopes_disabled():
            osk = Client.objects.get(name="Osk Brannigan")
            LoggedDay.objects.filter(client=osk, date=timezone.localdate()).delete()
        self.open(f"/for/{osk.pk}/journal/days/")
        page.get_by_label("Something else, or more").fill("a banana")
        page.get_by_role("button", name="Log it").click()
        expect(page.get_by_text("Banana, raw 118 g")).to_be_visible()
        page.get_by_role("button", name="All of it as planned").click()
        expect(page.get_by_text("Wholly logged.")).to_be_visible()
        self.open(f"/for/{osk.pk}/journal/visits/")
        page.get_by_label("Form").select_option("short")
        page.get_by_role("button", name="Begin a note for today").click()
        page.get_by_role("textbox", name="How it goes").fill("Well.")
        page.get_by_role("button", name="Save as a draft").click()
        expect(page.get_by_role("textbox", name="How it goes")).to_have_value("Well.")
