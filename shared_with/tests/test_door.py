"""The door of a link: every address of it against every stranger."""

import json
from datetime import timedelta

from django.core.signing import Signer
from django.test import Client as Phone
from django.urls import reverse
from django.utils import timezone
from django_scopes import scope

from clients.models import Client
from kitchen.models import CookingSession
from shared_with.addresses import address_of, token_of
from shared_with.models import SHOWS, Link, Told, Use
from shared_with.urls import urlpatterns
from week.models import Week
from week.tests.test_week import WeekCase

NAMES = [one.name for one in urlpatterns if "token" in str(one.pattern)]
# What takes a number besides: of a session, of a week.
NUMBERED = {"cook": 1, "cook-told": 1, "tick": 1}
POSTED = {"told", "cook-told", "tick"}


class LinkCase(WeekCase):
    def setUp(self):
        super().setUp()
        self.client_row.supplements.create(key="vitamin_b12_ug", dose=1000, per_week=2)
        self.link = self.give()
        # nobody is signed in on a client's phone
        self.phone = Phone()

    def give(self, client=None, **more):
        client = client or self.client_row
        data = {"until": timezone.localdate() + timedelta(days=30), "shows": list(SHOWS)}
        return Link.objects.create(
            **{"practice": client.practice, "client": client, "by": self.user} | data | more
        )

    def ask(self, phone, name, token, number=1):
        args = [token, number] if name in NUMBERED else [token]
        address = reverse(f"shared_with:{name}", args=args)
        if name in POSTED:
            return phone.post(address, "[]", content_type="application/json")
        return phone.get(address)

    def statuses(self, token, phone=None):
        return {name: self.ask(phone or self.phone, name, token).status_code for name in NAMES}


class Strangers(LinkCase):
    def test_no_address_opens_with_a_name_that_is_not_signed(self):
        good = token_of(self.link)
        nonce, _dot, sign = good.rpartition(".")
        flipped = f"{sign[:-1]}{'A' if sign[-1] != 'A' else 'B'}"
        other = Signer(salt="another purpose").sign(nonce)
        for token in (nonce, f"{nonce}.{flipped}", f"{nonce[1:]}.{sign}", other, "x", "a.b"):
            with self.subTest(token=token):
                self.assertEqual(set(self.statuses(token).values()), {404})

    def test_no_address_opens_after_it_was_taken_back_or_is_over(self):
        today = timezone.localdate()
        for change, status in (
            ({"taken_back": timezone.now()}, 410),
            ({"until": today - timedelta(days=1)}, 410),
        ):
            with self.subTest(change=change):
                link = self.give(**change)
                self.assertEqual(set(self.statuses(token_of(link)).values()), {status})
        # on its last day it opens
        last = self.give(until=today)
        self.assertEqual(self.ask(self.phone, "today", token_of(last)).status_code, 200)
        self.client_row.remove(self.user)
        self.assertEqual(set(self.statuses(token_of(self.link)).values()), {410})

    def test_nothing_is_shown_but_what_the_link_shows(self):
        link = self.give(shows=[])
        got = self.statuses(token_of(link))
        for name in (*NUMBERED, "cooking", "shopping", "lesson", "calendar", "tell"):
            self.assertEqual(got[name], 404, name)
        self.assertEqual(got["today"], 302)
        told = {"name": "p" * 20, "kind": "weight", "kg": "90"}
        answer = self.phone.post(
            address_of(link, "told"), json.dumps([told]), content_type="application/json"
        )
        self.assertIn("does not take this", answer.json()["refused"]["p" * 20])
        self.assertFalse(Told.objects.exists())

    def test_another_clients_sessions_and_weeks_are_not_there(self):
        other = Client.objects.create(
            practice=self.practice,
            name="Somebody Else",
            sex="male",
            birth_year=1970,
            height_cm=180,
            weight_kg=80,
        )
        with scope(practice=self.other_practice):
            stranger = Client.objects.create(
                practice=self.other_practice,
                name="Stranger",
                sex="male",
                birth_year=1970,
                height_cm=180,
                weight_kg=80,
            )
            theirs = [self.rows_of(stranger)]
        theirs.append(self.rows_of(other))
        token = token_of(self.link)
        for session, week in theirs:
            for name, number in (("cook", session), ("cook-told", session)):
                self.assertEqual(self.ask(self.phone, name, token, number).status_code, 404)
            self.assertEqual(self.ask(self.phone, "tick", token, week).status_code, 410)
        for name in NAMES:
            page = self.ask(self.phone, name, token)
            for words in (b"Somebody Else", b"Stranger"):
                self.assertNotIn(words, page.content)

    def rows_of(self, client):
        on = timezone.localdate()
        session = CookingSession.objects.create(
            practice=client.practice, client=client, day=on, ready_at=1080, earliest=900
        )
        week = Week.objects.create(practice=client.practice, client=client, start=on, skeleton={})
        return session.pk, week.pk

    def test_who_is_signed_in_elsewhere_reaches_no_more_by_it(self):
        phone = Phone()
        phone.force_login(self.other_user, backend="django.contrib.auth.backends.ModelBackend")
        page = self.ask(phone, "today", token_of(self.link))
        self.assertContains(page, self.client_row.name)
        self.assertNotContains(page, "Sign out")
        # the address of a link does not open what is the practice's
        for name in ("clients:list", "shared_with:links"):
            self.assertEqual(self.phone.get(reverse(name)).status_code, 302)

    def test_nothing_is_found_kept_or_told_on(self):
        for name in NAMES:
            answer = self.ask(self.phone, name, token_of(self.link))
            with self.subTest(name=name):
                self.assertIn("noindex", answer["X-Robots-Tag"])
                self.assertEqual(answer["Referrer-Policy"], "no-referrer")
                self.assertRegex(answer["Cache-Control"], "no-store|no-cache")
        for token in ("x", token_of(self.give(taken_back=timezone.now()))):
            page = self.ask(self.phone, "today", token)
            self.assertIn("noindex", page["X-Robots-Tag"])
            self.assertNotIn(self.client_row.name.encode(), page.content)


class Codes(LinkCase):
    def setUp(self):
        super().setUp()
        data = {"shows": list(SHOWS), "code": "4711"}
        data["until"] = f"{timezone.localdate() + timedelta(days=9):%Y-%m-%d}"
        self.post(self.for_client(reverse("shared_with:new")), data)
        self.link = Link.objects.exclude(code="").get()
        self.address = address_of(self.link)

    def test_nothing_opens_before_the_code_is_given(self):
        for name in NAMES:
            answer = self.ask(self.phone, name, token_of(self.link))
            self.assertNotIn(self.client_row.name.encode(), answer.content, name)
            self.assertIn(answer.status_code, (200, 403), name)
        wrong = self.phone.post(self.address, {"code": "4712"})
        self.assertContains(wrong, "not the code", status_code=403)
        right = self.phone.post(self.address, {"code": "4711"})
        self.assertEqual((right.status_code, right["Location"]), (303, self.address))
        self.assertContains(self.phone.get(self.address), self.client_row.name)
        # on this phone alone, and for this link alone
        self.assertNotContains(Phone().get(self.address), self.client_row.name)
        self.assertNotIn("4711", self.link.code)

    def test_after_five_tries_it_rests_for_a_quarter_of_an_hour(self):
        for _ in range(5):
            self.assertEqual(self.phone.post(self.address, {"code": "1"}).status_code, 403)
        self.assertEqual(self.phone.post(self.address, {"code": "4711"}).status_code, 429)
        almost = timezone.now() - timedelta(minutes=14, seconds=50)
        Link.objects.update(tried=almost)
        self.assertEqual(self.phone.post(self.address, {"code": "4711"}).status_code, 429)
        Link.objects.update(tried=timezone.now() - timedelta(minutes=15, seconds=1))
        self.assertEqual(self.phone.post(self.address, {"code": "4711"}).status_code, 303)


class Given(LinkCase):
    def page(self):
        return self.client.get(self.for_client(reverse("shared_with:links")))

    def new(self, **more):
        data = {"shows": ["today"], "until": f"{timezone.localdate():%Y-%m-%d}", "code": ""}
        return self.post(self.for_client(reverse("shared_with:new")), data | more)

    def test_it_is_given_used_and_taken_back(self):
        self.assertContains(self.page(), f"http://testserver/with/{token_of(self.link)}/")
        self.assertContains(self.page(), "Not opened yet")
        self.ask(self.phone, "today", token_of(self.link))
        self.ask(self.phone, "today", token_of(self.link))
        self.ask(self.phone, "shopping", token_of(self.link))
        self.assertContains(self.page(), "Opened 3 times")
        self.assertEqual(Use.objects.get(page="today").count, 2)
        change = self.for_client(reverse("shared_with:change", args=[self.link.pk]))
        self.post(change, {})
        self.assertContains(self.page(), "taken back")
        self.assertEqual(self.ask(self.phone, "today", token_of(self.link)).status_code, 410)
        # what was taken back does not come back
        self.post(change, {"longer": "1"})
        self.link.refresh_from_db()
        self.assertTrue(self.link.taken_back)

    def test_limits(self):
        today = timezone.localdate()
        for days, well in ((-1, False), (0, True), (400, True), (401, False)):
            page = self.new(until=f"{today + timedelta(days=days):%Y-%m-%d}")
            self.assertEqual(page.status_code == 302, well, days)
        for code, well in (("123", False), ("1234", True), ("12345678", True), ("abcd", False)):
            self.assertEqual(self.new(code=code).status_code == 302, well, code)
        self.assertContains(self.new(shows=[]), "Tick what it shows", status_code=400)

    def test_who_only_looks_gives_no_link(self):
        self.user.role = "reader"
        self.user.save()
        self.assertEqual(self.page().status_code, 403)
        self.assertEqual(self.new().status_code, 403)
