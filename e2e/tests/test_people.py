"""People at the door: a passkey, a rest with something typed, a reader who can press nothing."""

import re
from datetime import timedelta

from django.conf import settings
from django.test import Client as Signing
from django.test import override_settings
from django.utils import timezone
from playwright.sync_api import expect

from demo.load import NAME, PASSWORD
from e2e.case import BrowserCase
from people.models import SignedIn
from practice.models import Practice, User


class AtTheDoor(BrowserCase):
    def tearDown(self):
        # a session that ended is told by the browser too
        self.complaints = [
            one
            for one in self.complaints
            if not re.search("Failed to load resource|Response Status Error", one)
        ]
        super().tearDown()

    def as_somebody(self, name):
        signing = Signing()
        signing.force_login(User.objects.get(username=name), settings.AUTHENTICATION_BACKENDS[-1])
        self.context.clear_cookies()
        self.context.add_cookies(
            [
                {
                    "name": "sessionid",
                    "value": signing.cookies["sessionid"].value,
                    "url": self.live_server_url,
                }
            ]
        )

    def rest(self):
        SignedIn.objects.update(used=timezone.now() - timedelta(hours=3))

    def password(self, page):
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Go on").click()

    def test_a_rest_keeps_what_was_typed(self):
        page = self.page
        self.open("/practice/")
        page.get_by_label("Town").fill("Harrow Sound, by the slip")
        self.rest()
        page.get_by_role("button", name="Save").click()
        failing = page.locator("#not-sent")
        expect(failing).to_contain_text("signed out")
        with self.context.expect_page() as opened:
            failing.get_by_role("link", name="Sign in, in a new tab").click()
        other = opened.value
        expect(other.get_by_text("You were signed out after a rest")).to_be_visible()
        self.password(other)
        other.wait_for_url("**/clients/")
        # in the first tab everything is as it was, and goes on its way
        expect(page.get_by_label("Town")).to_have_value("Harrow Sound, by the slip")
        failing.get_by_role("button", name="Try again").click()
        expect(page.get_by_text("Saved.")).to_be_visible()
        self.assertEqual(
            Practice.objects.get(name="Tern Point Wellness").town, "Harrow Sound, by the slip"
        )

    def test_a_reader_sees_everything_and_presses_nothing(self):
        self.as_somebody("wilma")
        self.person("Osk Brannigan")
        page = self.page
        expect(page.get_by_role("heading", name="Osk Brannigan")).to_be_visible()
        pressed = page.locator("main form[method=post] button:visible:not([type=button])")
        expect(pressed).to_have_count(0)
        typed = page.locator("main form[method=post] input:visible:enabled")
        expect(typed).to_have_count(0)
        self.open("/people/")
        expect(page.get_by_role("heading", name="Not for you")).to_be_visible()

    def test_a_passkey_signs_in_without_a_password(self):
        page = self.page
        device = self.context.new_cdp_session(page)
        device.send("WebAuthn.enable")
        device.send(
            "WebAuthn.addVirtualAuthenticator",
            {
                "options": {
                    "protocol": "ctap2",
                    "transport": "internal",
                    "hasResidentKey": True,
                    "hasUserVerification": True,
                    "isUserVerified": True,
                    "automaticPresenceSimulation": True,
                }
            },
        )
        with override_settings(
            OTP_WEBAUTHN_RP_ID="localhost", OTP_WEBAUTHN_ALLOWED_ORIGINS=[self.live_server_url]
        ):
            self.open("/you/second-step/")
            with page.expect_response("**/registration/complete/", timeout=20_000) as made:
                page.get_by_role("button", name="Make a passkey").click()
            self.assertEqual(made.value.status, 200)
            self.open("/you/second-step/")
            expect(page.get_by_role("heading", name="Your second step")).to_be_visible()
            # signed out, the password alone no longer lets in
            self.context.clear_cookies()
            self.open("/sign-in/")
            page.get_by_label("Name").fill(NAME)
            page.get_by_label("Password").fill(PASSWORD)
            page.get_by_role("button", name="Sign in", exact=True).click()
            page.wait_for_url("**/sign-in/code/")
            self.open("/sign-in/")
            page.get_by_role("button", name="Sign in with a passkey").click()
            page.wait_for_url("**/clients/")
            expect(page.get_by_role("link", name="Marin Oakes")).to_be_visible()
