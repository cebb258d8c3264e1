"""The running application with demo data, and a browser on it."""

import atexit
import os
from datetime import timedelta
from urllib.parse import quote, urlencode

# Playwright keeps an event loop in this thread; the database is used from it all the same, one call
# at a time.
os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")

from axe_playwright_python.sync_playwright import Axe  # noqa: E402
from django.conf import settings  # noqa: E402
from django.contrib.staticfiles.testing import StaticLiveServerTestCase  # noqa: E402
from django.test import Client as Signing  # noqa: E402
from django.utils import timezone  # noqa: E402
from playwright.sync_api import expect  # noqa: E402

from demo.load import NAME  # noqa: E402
from demo.tests.demo_rows import fill  # noqa: E402
from e2e.browser import chromium  # noqa: E402
from practice.models import User  # noqa: E402

# How long is waited for what never comes; on a machine with much else to do a search of a week
# alone may take a minute. [ms]
LONGEST_WAIT = 240_000
expect.set_options(timeout=LONGEST_WAIT)
# Nobody clicks on a page before it is there: until its scripts have taken over, nothing of it can
# be clicked or typed into here either. (A sheet that is made so needs no leave of the page.)
NOT_BEFORE_READY = """
    const sheet = new CSSStyleSheet(), early = "html[data-takes-over]:not([data-ready]) body";
    sheet.replaceSync(`${early} { visibility: hidden !important }`);
    document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
    // what is hidden cannot have the cursor: a field that begins with it gets it now
    new MutationObserver((_changes, watch) => {
        if (!document.documentElement.dataset.ready) return;
        watch.disconnect();
        const first = document.querySelector("[autofocus]");
        if (first && document.activeElement === document.body) first.focus();
    }).observe(document, { attributes: true, subtree: true, attributeFilter: ["data-ready"] });
"""
# What is said of a request that was under way when the page was left: nobody waits for it.
CUT_OFF = (
    "htmx:afterRequest",
    "htmx:sendError",
    "htmx:sendAbort",
    "Failed to load resource: net::ERR",
)


# Targets of 24 px and more are asked for as well; what is well is not listed, which takes as long
# as finding what is not.
ASKED = {
    "rules": {"target-size": {"enabled": True}},
    "resultTypes": ["violations"],
    "iframes": False,
    "preload": False,
}


class BrowserCase(StaticLiveServerTestCase):
    """Every test starts from freshly loaded demo data, signed in, on an empty page."""

    javascript = True
    viewport = {"width": 1280, "height": 800}

    # one for all tests of a process
    browser = None

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        if BrowserCase.browser is None:
            running = chromium()
            BrowserCase.browser = running.__enter__()
            atexit.register(running.__exit__, None, None, None)

    def setUp(self):
        fill()
        signing = Signing()
        signing.force_login(User.objects.get(username=NAME), settings.AUTHENTICATION_BACKENDS[-1])
        self.complaints = []
        self.context = self.browser.new_context(
            viewport=self.viewport, java_script_enabled=self.javascript
        )
        self.addCleanup(self.context.close)
        # how long something may take is no matter of a test: bin/bench has the times
        self.context.set_default_timeout(LONGEST_WAIT)
        if self.javascript:
            self.context.add_init_script(NOT_BEFORE_READY)
        self.left_behind = 0
        self.context.add_cookies(
            [
                {
                    "name": "sessionid",
                    "value": signing.cookies["sessionid"].value,
                    "url": self.live_server_url,
                }
            ]
        )
        self.page = self.new_page()

    def new_page(self):
        """A tab whose complaints are listened to."""
        page = self.context.new_page()
        page.on(
            "console",
            lambda message: (
                self.complaints.append(message.text) if message.type == "error" else None
            ),
        )
        page.on(
            "response",
            lambda answer: (
                self.complaints.append(f"{answer.status} {answer.url}")
                if answer.status == 409
                else None
            ),
        )
        page.on("pageerror", lambda error: self.complaints.append(str(error)))
        page.on("requestfailed", self._failed)
        return page

    def _failed(self, request):
        """A request that the page left behind, or took back for a newer one."""
        if request.failure == "net::ERR_ABORTED":
            self.left_behind += 1

    def tearDown(self):
        # each request that was left behind may be complained of twice: by the browser, and by htmx
        forgiven = 2 * self.left_behind
        for words in list(self.complaints):
            if forgiven and words.startswith(CUT_OFF):
                self.complaints.remove(words)
                forgiven -= 1
        self.assertEqual(self.complaints, [], "the browser complained")

    def axe_finds(self):
        """What axe-core has against the page, a line each."""
        return [
            f"{violation['id']}: {violation['help']} ({violation['nodes'][0]['html'][:160]})"
            for violation in Axe().run(self.page, options=ASKED).response["violations"]
        ]

    def kept(self, words):
        """Waits, in a with, until what was typed has reached the server by itself."""
        typed = quote(words)
        return self.page.expect_response(
            lambda answer: "/keep" in answer.url and typed in (answer.request.post_data or "")
        )

    def settled(self):
        """Waits until what was sent is answered and drawn."""
        expect(self.page.locator(".htmx-request, .htmx-swapping, .htmx-settling")).to_have_count(0)

    def there(self):
        """Waits until the page is whole, its scripts have taken over, and it asks for no more."""
        self.page.wait_for_load_state()
        if self.javascript:
            ready = self.page.locator("html[data-ready], html:not([data-takes-over])")
            expect(ready).to_be_attached()
            self.settled()

    def free_date(self):
        """A date, as it is typed, for which the demo has nothing planned."""
        return (timezone.localdate() + timedelta(days=60)).isoformat()

    def type_new_client(self):
        """Types what a first visit needs of a new client, from the field that it begins in."""
        page = self.page
        page.wait_for_url("**/first-visits/*/")
        expect(page.get_by_label("Name", exact=True)).to_be_focused()
        page.keyboard.type("Isa Korhonen")
        for label, value in (
            ("Birth date or age", "41"),
            ("Height [cm]", "168"),
            ("Weight [kg]", "66"),
        ):
            field = page.get_by_label(label, exact=True)
            field.click()
            page.keyboard.type(value)
        page.get_by_label("Sex used in equations").focus()
        page.keyboard.type("f")
        page.get_by_role("button", name="Make the client").first.click()
        expect(page.get_by_role("heading", name="Isa Korhonen")).to_be_visible()

    def open(self, path):
        self.page.goto(self.live_server_url + path)
        self.there()

    def recipe(self, title):
        """The page of a recipe, from the list, for the client whom the page is for."""
        stage = "/recipes/"
        if self.page.url.startswith(self.live_server_url):
            stage = self.page.get_by_role("link", name="Recipes", exact=True).get_attribute("href")
        self.open(f"{stage}?{urlencode({'q': title})}")
        self.follow(title)

    def person(self, name):
        """The page of a client, from the list."""
        self.open(f"/clients/?{urlencode({'q': name})}")
        self.follow(name)

    def follow(self, name):
        link = self.page.get_by_role("link", name=name, exact=True).first
        if link.get_attribute("hx-get") is None:
            self.go(link)
        else:
            link.click()
            self.there()

    def send(self, button):
        """Sends a form whose answer is a page anew, and waits for it."""
        with self.page.expect_event("load"):
            button.click()
        self.there()

    def go(self, link):
        """A click that leads to another page."""
        before = self.page.url
        link.click()
        self.page.wait_for_url(lambda url: url != before)
        self.there()
