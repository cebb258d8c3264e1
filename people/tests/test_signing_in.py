"""Signing in: slowed after wrong passwords, with a second step, at rest."""

import time
from datetime import datetime, timedelta
from unittest.mock import patch

from django.core import mail
from django.test import Client as Browser
from django.utils import timezone
from django_otp.oath import TOTP
from django_otp.plugins.otp_totp.models import TOTPDevice

from people import second_step, slowing
from people.links import password_path
from people.models import FailedTry, SignedIn
from practice.models import Practice, User
from practice.testing import PracticeCase
from record.models import Entry
from record.sealing import unseal

RIGHT = "a-long-password"


class Signing(PracticeCase):
    def at(self, minutes=0.0, seconds=0.0):
        """So much later, within this."""
        later = timezone.now() + timedelta(minutes=minutes, seconds=seconds)
        return patch("django.utils.timezone.now", return_value=later)

    def send(self, browser, name="marin", password="wrong", address="192.0.2.1", **more):
        said = {"username": name, "password": password}
        return browser.post("/sign-in/", said, REMOTE_ADDR=address, **more)

    def fail(self, times, name="marin", address="192.0.2.1", browser=None):
        for _ in range(times):
            answer = self.send(browser or Browser(), name, address=address)
        return answer.status_code


class Slowed(Signing):
    def test_eight_of_a_name_from_an_address_and_it_waits_a_quarter_of_an_hour(self):
        self.assertEqual(self.fail(8), 200)
        refused = self.send(Browser(), password=RIGHT)
        self.assertEqual(refused.status_code, 429)
        self.assertContains(refused, "Wait 15 minutes", status_code=429)
        with self.at(minutes=14.9):
            self.assertEqual(self.send(Browser(), password=RIGHT).status_code, 429)
        with self.at(minutes=15.1):
            self.assertEqual(self.send(Browser(), password=RIGHT).status_code, 302)

    def test_seven_and_the_right_one_lets_in_and_forgets(self):
        self.fail(7)
        self.assertEqual(self.send(Browser(), password=RIGHT).status_code, 302)
        self.assertEqual(FailedTry.objects.count(), 0)

    def test_a_name_is_slowed_from_many_addresses(self):
        for at in range(16):
            self.assertEqual(self.fail(1, address=f"192.0.2.{at}"), 200)
        # the wait after the sixteenth: five seconds, then ten, never over a quarter of an hour
        self.assertEqual(self.fail(1, address="192.0.2.100"), 429)
        with self.at(seconds=5.5):
            self.assertEqual(self.fail(1, address="192.0.2.101"), 200)
            self.assertEqual(self.fail(1, address="192.0.2.102"), 429)
        with self.at(seconds=14):
            self.assertEqual(self.fail(1, address="192.0.2.102"), 429)
        with self.at(seconds=16):
            self.assertEqual(self.fail(1, address="192.0.2.102"), 200)

    def test_a_name_waits_a_quarter_of_an_hour_at_the_longest(self):
        now = timezone.now()
        key = slowing.digest("marin")
        FailedTry.objects.bulk_create(
            FailedTry(name=key, address=f"192.0.2.{at}", at=now) for at in range(60)
        )
        for minutes, status in ((14.8, 429), (15.2, 200)):
            with self.at(minutes=minutes):
                self.assertEqual(self.fail(1, address="198.51.100.9"), status)

    def test_a_device_is_known_for_half_a_year(self):
        for days, status in ((179, 302), (181, 429)):
            known = Browser()
            self.send(known, password=RIGHT)
            known.post("/sign-out/")
            self.fail(8)
            later = time.time() + days * 86_400
            with patch("django.core.signing.time.time", return_value=later):
                self.assertEqual(self.send(known, password=RIGHT).status_code, status, days)

    def test_an_address_is_slowed_with_many_names(self):
        for at in range(10):
            self.assertEqual(self.fail(1, name=f"nobody{at}"), 200)
        self.assertEqual(self.fail(1, name="nobody-else"), 429)
        # elsewhere it goes on
        self.assertEqual(self.fail(1, name="nobody-else", address="198.51.100.1"), 200)
        # however many there were, a minute is the longest that an address waits
        now = timezone.now()
        FailedTry.objects.bulk_create(
            FailedTry(name=f"x{at}", address="192.0.2.1", at=now) for at in range(100)
        )
        with self.at(seconds=58):
            self.assertEqual(self.fail(1, name="a"), 429)
        with self.at(seconds=62):
            self.assertEqual(self.fail(1, name="a"), 200)

    def test_who_signed_in_there_before_is_not_kept_out_by_who_guesses(self):
        known = Browser()
        self.assertEqual(self.send(known, password=RIGHT).status_code, 302)
        known.post("/sign-out/")
        self.fail(8)
        self.fail(12, name="somebody")
        self.assertEqual(self.send(Browser(), password=RIGHT).status_code, 429)
        self.assertEqual(self.send(known, password=RIGHT).status_code, 302)

    def test_a_known_device_has_eight_tries_of_its_own(self):
        known = Browser()
        self.send(known, password=RIGHT)
        known.post("/sign-out/")
        self.assertEqual(self.fail(8, browser=known), 200)
        self.assertEqual(self.send(known, password=RIGHT).status_code, 429)

    def test_a_device_cookie_of_somebody_else_helps_nobody(self):
        theirs = Browser()
        self.send(theirs, "solveig", RIGHT)
        theirs.post("/sign-out/")
        self.fail(8)
        self.assertEqual(self.send(theirs, password=RIGHT).status_code, 429)
        theirs.cookies[slowing.COOKIE] = "made up"
        self.assertEqual(self.send(theirs, password=RIGHT).status_code, 429)

    def test_what_is_typed_as_a_name_is_not_kept(self):
        self.fail(1, name="my-secret-word")
        row = FailedTry.objects.get()
        self.assertNotIn("secret", f"{row.name} {row.address} {row.device}")

    def test_a_clock_that_was_set_back_locks_nobody(self):
        with self.at(minutes=60 * 24):
            self.fail(8)
        self.assertEqual(self.send(Browser(), password=RIGHT).status_code, 302)


class DemoPassword(Signing):
    def test_it_opens_the_demo_from_this_machine_alone(self):
        self.user.set_password("tern-point-kettle")
        self.user.save()
        ask = {"name": "marin", "password": "tern-point-kettle"}
        self.assertEqual(self.send(Browser(), **ask, address="127.0.0.1").status_code, 302)
        for address, more in (
            ("192.0.2.7", {}),
            ("127.0.0.1", {"headers": {"X-Forwarded-For": "192.0.2.7"}}),
        ):
            refused = self.send(Browser(), **ask, address=address, **more)
            self.assertContains(refused, "which everybody knows")
        with self.settings(DEMO=False):
            refused = self.send(Browser(), **ask, address="127.0.0.1")
            self.assertContains(refused, "which everybody knows")

    def test_nobody_can_choose_it(self):
        page = self.post(
            "/you/password/",
            {
                "old_password": RIGHT,
                "new_password1": "gull-rock-ladle",
                "new_password2": "gull-rock-ladle",
            },
        )
        self.assertContains(page, "which everybody knows")


class SecondStep(Signing):
    def set_up(self):
        self.client.get("/you/second-step/")
        device = TOTPDevice.objects.get(user=self.user)
        page = self.post("/you/second-step/", {"code": self.code(device)})
        self.assertContains(page, "Write these ten codes down")
        device.refresh_from_db()
        # the same code is good once: the next sign-in is in the next half minute
        TOTPDevice.objects.update(last_t=-1)
        codes = [line.split("</code>")[0] for line in page.content.decode().split("<code>")[1:]]
        return device, codes

    def code(self, device):
        return f"{TOTP(device.bin_key, device.step, device.t0, device.digits).token():06d}"

    def test_it_is_asked_for_after_the_password(self):
        device, _codes = self.set_up()
        browser = Browser()
        answer = self.send(browser, password=RIGHT)
        self.assertRedirects(answer, "/sign-in/code/", fetch_redirect_response=False)
        self.assertEqual(browser.get("/clients/").status_code, 302)
        self.assertEqual(browser.post("/sign-in/code/", {"code": "000000"}).status_code, 400)
        # a wrong code slows the next on the phone itself
        TOTPDevice.objects.update(throttling_failure_count=0, throttling_failure_timestamp=None)
        done = browser.post("/sign-in/code/", {"code": self.code(device)})
        self.assertRedirects(done, "/clients/", fetch_redirect_response=False)
        self.assertEqual(browser.get("/clients/").status_code, 200)

    def test_a_code_is_good_once(self):
        device, _codes = self.set_up()
        code = self.code(device)
        for expected in (302, 400):
            browser = Browser()
            self.send(browser, password=RIGHT)
            self.assertEqual(browser.post("/sign-in/code/", {"code": code}).status_code, expected)

    def test_ten_codes_on_paper_each_good_once_and_nowhere_to_be_read(self):
        _device, codes = self.set_up()
        self.assertEqual([len(code) for code in codes], [len("abcde-fghjk")] * 10)
        self.assertEqual(second_step.codes_left(self.user), 10)
        kept = [
            row.token for paper in self.user.staticdevice_set.all() for row in paper.token_set.all()
        ]
        self.assertFalse({code.replace("-", "") for code in codes} & set(kept))
        browser = Browser()
        self.send(browser, password=RIGHT)
        self.assertEqual(browser.post("/sign-in/code/", {"code": codes[0]}).status_code, 302)
        self.assertEqual(second_step.codes_left(self.user), 9)
        browser = Browser()
        self.send(browser, password=RIGHT)
        self.assertEqual(browser.post("/sign-in/code/", {"code": codes[0]}).status_code, 400)

    def test_half_way_is_over_after_five_minutes_and_with_another_password(self):
        device, _codes = self.set_up()
        browser = Browser()
        self.send(browser, password=RIGHT)
        with self.at(minutes=4.9):
            self.assertEqual(browser.get("/sign-in/code/").status_code, 200)
        with self.at(minutes=5.1):
            answer = browser.post("/sign-in/code/", {"code": self.code(device)})
            self.assertRedirects(answer, "/sign-in/", fetch_redirect_response=False)
        self.send(browser, password=RIGHT)
        self.user.set_password("another-long-one")
        self.user.save()
        answer = browser.post("/sign-in/code/", {"code": self.code(device)})
        self.assertRedirects(answer, "/sign-in/", fetch_redirect_response=False)

    def test_an_owner_can_ask_it_of_everybody(self):
        Practice.objects.filter(pk=self.practice.pk).update(second_step=True)
        self.assertRedirects(
            self.client.get("/bowls/"), "/you/second-step/", fetch_redirect_response=False
        )
        self.assertEqual(self.client.get("/you/").status_code, 200)
        self.set_up()
        self.assertEqual(self.client.get("/bowls/").status_code, 200)

    def test_it_comes_off_with_the_password_alone(self):
        self.set_up()
        self.post("/you/second-step/off/", {"password": "wrong"})
        self.assertTrue(second_step.has_one(self.user))
        page = self.post("/you/second-step/off/", {"password": RIGHT, "codes": "1"})
        self.assertContains(page, "Write these ten codes down")
        self.post("/you/second-step/off/", {"password": RIGHT})
        self.assertFalse(second_step.has_one(self.user))

    def test_no_passkeys_where_the_site_has_no_name(self):
        with self.settings(OTP_WEBAUTHN_RP_ID=""):
            self.assertEqual(
                Browser().post("/sign-in/passkey/authentication/begin/").status_code, 404
            )
            self.assertNotContains(Browser().get("/sign-in/"), "passkey")
        with self.settings(OTP_WEBAUTHN_RP_ID="pantry.example"):
            self.assertContains(Browser().get("/sign-in/"), "passkey")


class AtRest(Signing):
    def rest(self, minutes=61):
        SignedIn.objects.update(used=timezone.now() - timedelta(minutes=minutes))

    def test_an_hour_at_rest_and_the_password_is_asked_for(self):
        self.client.get("/bowls/")
        self.rest(59)
        self.assertEqual(self.client.get("/bowls/").status_code, 200)
        self.rest(61)
        page = self.client.get("/bowls/?q=x")
        self.assertContains(page, "signed out after a rest", status_code=401)
        # nothing else opens it, the sign-in neither
        self.assertEqual(self.client.get("/recipes/").status_code, 401)
        wrong = self.post("/sign-in/again/", {"again-password": "wrong", "to": "/bowls/"})
        self.assertContains(wrong, "That is not the password", status_code=400)
        self.assertEqual(self.client.get("/bowls/").status_code, 401)
        done = self.post("/sign-in/again/", {"again-password": RIGHT, "to": "/bowls/?q=x"})
        self.assertRedirects(done, "/bowls/?q=x", fetch_redirect_response=False)
        self.assertEqual(self.client.get("/bowls/").status_code, 200)

    def test_that_it_is_used_is_noted_once_a_minute(self):
        self.client.get("/bowls/")
        for seconds, noted in ((50, False), (70, True)):
            before = timezone.now() - timedelta(seconds=seconds)
            SignedIn.objects.update(used=before)
            self.client.get("/bowls/")
            self.assertEqual(SignedIn.objects.get().used != before, noted, seconds)

    def test_the_practice_says_how_long(self):
        Practice.objects.filter(pk=self.practice.pk).update(rest_minutes=5)
        self.client.get("/bowls/")
        self.rest(4)
        self.assertEqual(self.client.get("/bowls/").status_code, 200)
        self.rest(6)
        self.assertEqual(self.client.get("/bowls/").status_code, 401)

    def test_what_was_typed_is_kept_and_sent(self):
        self.client.get("/bowls/")
        self.rest()
        typed = {
            "name": 'Bowl of <dill> & "barley"',
            "vessel_ml": "900",
            "csrfmiddlewaretoken": "x",
        }
        page = self.post("/bowls/new/", typed)
        self.assertContains(page, "What you typed is kept", status_code=401)
        kept = page.context["kept"]
        page = self.post(
            "/sign-in/again/",
            {"again-password": RIGHT, "to": "/bowls/new/", "posted": "1", "kept": kept},
        )
        self.assertContains(page, "Send it now")
        self.assertEqual(dict(page.context["fields"]), {"name": typed["name"], "vessel_ml": "900"})

    def test_a_page_that_sends_by_itself_is_told(self):
        self.client.get("/bowls/")
        self.rest()
        answer = self.post("/bowls/new/", {"name": "x"}, htmx=True)
        self.assertEqual(
            (answer.status_code, answer.content), (401, b"You were signed out after a rest.")
        )

    def test_it_leads_nowhere_else(self):
        self.client.get("/bowls/")
        for to in ("https://elsewhere.example/", "//elsewhere.example/", "javascript:x", ""):
            done = self.post("/sign-in/again/", {"again-password": RIGHT, "to": to})
            self.assertRedirects(done, "/", fetch_redirect_response=False)

    def test_what_another_site_sends_is_not_kept(self):
        strict = Browser(enforce_csrf_checks=True)
        strict.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        strict.get("/bowls/")
        self.rest()
        page = strict.post("/bowls/new/", {"name": "from elsewhere"})
        self.assertEqual((page.status_code, page.context["kept"]), (401, "[]"))

    def test_nothing_is_set_up_at_rest(self):
        self.client.get("/bowls/")
        self.rest()
        with self.settings(OTP_WEBAUTHN_RP_ID="pantry.example"):
            answer = self.client.post(
                "/sign-in/passkey/registration/begin/", {}, content_type="application/json"
            )
        self.assertEqual(answer.status_code, 401)

    def test_a_clock_set_back_signs_nobody_out(self):
        self.client.get("/bowls/")
        SignedIn.objects.update(used=timezone.now() + timedelta(days=30))
        self.assertEqual(self.client.get("/bowls/").status_code, 200)
        self.assertLess(SignedIn.objects.get().used, timezone.now() + timedelta(days=1))


class OfOnesOwn(Signing):
    """What makes a sign-in somebody's is not changed by whoever finds a page open."""

    def test_the_second_step_asks_for_the_password_after_a_quarter_of_an_hour(self):
        self.assertEqual(self.client.get("/you/second-step/").status_code, 200)
        with self.at(minutes=14.5):
            self.assertEqual(self.client.get("/you/second-step/").status_code, 200)
        with self.at(minutes=15.5):
            page = self.client.get("/you/second-step/")
            self.assertContains(page, "first your password again", status_code=401)
            with self.settings(OTP_WEBAUTHN_RP_ID="pantry.example"):
                begun = self.client.post(
                    "/sign-in/passkey/registration/begin/", {}, content_type="application/json"
                )
            self.assertEqual(begun.status_code, 403)
            said = {"again-password": RIGHT, "to": "/you/second-step/"}
            self.post("/sign-in/again/", said)
            self.assertEqual(self.client.get("/you/second-step/").status_code, 200)

    def test_nor_where_links_to_a_new_password_go(self):
        said = {"first_name": "Marin", "email": "other@tern.example"}
        with self.at(minutes=15.5):
            page = self.post("/you/", said)
            self.assertContains(page, "Sign out, sign in again", status_code=400)
            # what is no matter of the sign-in is saved as ever
            self.assertEqual(self.post("/you/", {"first_name": "Marin"}).status_code, 302)
        self.assertEqual(self.post("/you/", said).status_code, 302)
        self.user.refresh_from_db()
        self.assertEqual(self.user.email, "other@tern.example")

    def test_it_is_in_the_record_that_it_was_changed_and_not_what_it_was(self):
        new = "harbor light seven"
        self.post(
            "/you/password/",
            {"old_password": RIGHT, "new_password1": new, "new_password2": new},
        )
        entry = Entry.objects.filter(kind="practice.user", act="changed").last()
        says = unseal(entry.practice, None, bytes(entry.contents))
        self.assertEqual(says["changes"], {"password": ["", "changed"]})
        said = self.client.get("/rights/practice/record/").content.decode()
        self.assertIn("password", said)
        self.assertNotIn(new, said)


class Places(Signing):
    def test_they_are_listed_and_ended(self):
        elsewhere = Browser()
        self.send(elsewhere, password=RIGHT, headers={"User-Agent": "X (iPad; OS)"})
        page = self.client.get("/you/")
        self.assertContains(page, "iPad")
        place = SignedIn.objects.get(browser__contains="iPad")
        self.post("/you/places/", {"place": place.pk})
        self.assertEqual(elsewhere.get("/bowls/").status_code, 302)
        self.assertEqual(self.client.get("/bowls/").status_code, 200)

    def test_nobody_ends_anothers(self):
        theirs = Browser()
        self.send(theirs, "solveig", RIGHT)
        place = SignedIn.objects.get(user=self.other_user)
        self.post("/you/places/", {"place": place.pk})
        self.post("/you/places/", {"all": "1"})
        self.assertEqual(theirs.get("/clients/").status_code, 200)

    def test_a_new_password_ends_all_others(self):
        elsewhere = Browser()
        self.send(elsewhere, password=RIGHT)
        self.client.get("/you/")
        done = self.post(
            "/you/password/",
            {
                "old_password": RIGHT,
                "new_password1": "harbor light seven",
                "new_password2": "harbor light seven",
            },
        )
        self.assertRedirects(done, "/you/", fetch_redirect_response=False)
        self.assertEqual(self.client.get("/you/").status_code, 200)
        self.assertEqual(elsewhere.get("/you/").status_code, 302)


class Forgotten(Signing):
    def test_a_link_by_mail_leads_to_a_new_password_once(self):
        User.objects.filter(pk=self.user.pk).update(email="marin@tern.example")
        for address in ("marin@tern.example", "nobody@tern.example"):
            page = Browser().post("/sign-in/forgot/", {"email": address}, follow=True)
            self.assertContains(page, "If somebody here has that address")
        self.assertEqual([sent.to for sent in mail.outbox], [["marin@tern.example"]])
        link = next(word for word in mail.outbox[0].body.split() if "/sign-in/new/" in word)
        browser = Browser()
        form = browser.get(link.removeprefix("http://testserver"), follow=True)
        new = {"new_password1": "harbor light seven", "new_password2": "harbor light seven"}
        browser.post(form.redirect_chain[-1][0], new)
        self.assertEqual(self.send(Browser(), password="harbor light seven").status_code, 302)
        self.assertContains(
            Browser().get(link.removeprefix("http://testserver")), "was used already"
        )

    def test_a_link_holds_for_a_day(self):
        path = password_path(self.user)
        for hours, holds in ((23.9, True), (24.1, False)):
            later = datetime.now() + timedelta(hours=hours)
            with patch(
                "django.contrib.auth.tokens.PasswordResetTokenGenerator._now", return_value=later
            ):
                page = Browser().get(path, follow=True)
                self.assertEqual(page.context["validlink"], holds, hours)

    def test_links_are_not_asked_for_without_end(self):
        for _ in range(8):
            Browser().post("/sign-in/forgot/", {"email": "marin@tern.example"})
        page = Browser().post("/sign-in/forgot/", {"email": "marin@tern.example"})
        self.assertContains(page, "Too many links", status_code=429)
