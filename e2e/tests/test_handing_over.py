"""Handing over in the browser: papers made into one file while the page waits, and the client's own
link on a phone, without a connection and back."""

from django.test import Client as Signing
from django_scopes import scopes_disabled
from playwright.sync_api import expect

from e2e.case import BrowserCase
from jobs.testing import working
from journal.models import LoggedEntry
from shared_with.addresses import address_of
from shared_with.models import Link, Told

PHONE = {"width": 390, "height": 844}


class Papers(BrowserCase):
    def test_a_bundle_in_one_click_with_progress(self):
        self.person("Osk Brannigan")
        self.go(self.page.get_by_role("link", name="Hand over"))
        expect(self.page.get_by_role("button", name="First visit")).to_be_enabled()
        with working():
            self.page.get_by_role("button", name="Weekly").click()
            expect(self.page.locator("#making progress")).to_be_attached()
            made = self.page.get_by_role("link", name="Open the PDF")
            expect(made).to_be_visible()
        answer = self.context.request.get(self.live_server_url + made.get_attribute("href"))
        self.assertTrue(answer.body().startswith(b"%PDF"))


# Within a test that is out of reach nothing is sent.
OUT_OF_REACH = """
    const sent = window.fetch;
    window.fetch = (...asked) =>
        sessionStorage.getItem("out") ? Promise.reject(new TypeError("out")) : sent(...asked);
"""


class OnAPhone(BrowserCase):
    viewport = PHONE

    def setUp(self):
        super().setUp()
        self.context.clear_cookies()
        self.context.add_init_script(OUT_OF_REACH)
        with scopes_disabled():
            self.link = Link._base_manager.select_related("client", "practice").get()
        self.address = address_of(self.link)

    def told(self, kind):
        with scopes_disabled():
            return Told._base_manager.filter(kind=kind).exclude(name__startswith="demo").count()

    def fits(self):
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)

    def test_every_page_fits_a_phone_and_begins_with_what_it_is_for(self):
        for page in ("today", "cooking", "shopping", "tell", "lesson"):
            with self.subTest(page=page):
                self.open(address_of(self.link, page))
                self.fits()
                box = self.page.locator("main h1").bounding_box()
                self.assertLess(box["y"] + box["height"], 200)
                size = self.page.evaluate(
                    "parseFloat(getComputedStyle(document.querySelector('main p, main label, main "
                    "h1')).fontSize)"
                )
                self.assertGreaterEqual(size, 16)

    def test_what_is_told_without_a_connection_is_sent_once_when_there_is_one(self):
        self.open(self.address)
        expect(self.page.locator("html[data-kept='1']")).to_be_attached()
        self.page.reload()
        how = self.page.locator(".with-how").first
        # what is called offline here may let something through beside the worker: nothing leaves
        self.page.evaluate("sessionStorage.setItem('out', '1')")
        self.context.set_offline(True)
        how.get_by_role("button", name="As planned").click()
        expect(how.locator(".with-said")).to_have_text("as planned")
        expect(self.page.locator("#with-waiting")).to_contain_text("1 thing waits")
        # the page opens without a connection, and still says what waits
        self.page.reload()
        expect(self.page.locator("#with-waiting")).to_contain_text("1 thing waits")
        how = self.page.locator(".with-how").first
        how.get_by_role("button", name="Less").click()
        expect(self.page.locator("#with-waiting")).to_contain_text("2 things wait")
        self.assertEqual(self.told("ate"), 0)
        self.page.evaluate("sessionStorage.removeItem('out')")
        self.context.set_offline(False)
        expect(self.page.locator("#with-waiting")).to_be_hidden()
        self.page.reload()
        self.assertEqual(self.told("ate"), 2)
        with scopes_disabled():
            rows = LoggedEntry._base_manager.filter(day__client=self.link.client, how="less")
            self.assertEqual(rows.count(), 1)
        expect(self.page.locator(".with-how").first.locator(".with-said")).to_contain_text("less")
        self.complaints[:] = [one for one in self.complaints if "net::ERR" not in one]

    def test_something_else_and_a_weight_that_cannot_be(self):
        self.open(self.address)
        how = self.page.locator(".with-how").first
        how.get_by_role("button", name="Instead").click()
        how.get_by_role("textbox").fill("2 slices rye bread")
        how.get_by_role("button", name="Tell us").click()
        expect(how.locator(".with-said")).to_contain_text("instead: 2 slices rye bread")
        expect(self.page.locator("#with-waiting")).to_be_hidden()
        self.open(address_of(self.link, "tell"))
        self.page.get_by_label("kg", exact=True).fill("6")
        self.page.get_by_role("button", name="Tell us").first.click()
        expect(self.page.locator("#with-refused")).to_contain_text("cannot be")
        self.assertEqual((self.told("ate"), self.told("weight")), (1, 0))

    def test_it_works_without_script(self):
        page = Signing().get(self.address)
        self.assertContains(page, 'method="post"')
        self.assertNotContains(page, "csrfmiddlewaretoken")
