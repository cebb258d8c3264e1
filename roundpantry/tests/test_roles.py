"""Every address, for every role, in one's own practice and in another's. Who may what stands in
routes.tsv, written out."""

import csv
from pathlib import Path

from django.test import Client as Browser
from django.urls import get_resolver

from nutrition.tests.thorough import thorough
from planner.testing import DayCase
from practice.access import may, route_of
from practice.models import User
from practice.roles import ROLES

ROLE_ORDER = ("reader", "assistant", "practitioner", "owner")
BACKEND = "django.contrib.auth.backends.ModelBackend"
# nothing of this key is stored
SAMPLES = {
    "int": "999999",
    "str": "nothing",
    "slug": "nothing",
}
OFTEN = {"on": "2026-11-20", "kind": "txt", "of": "bowl-999999", "key": "protein_g"}


def table():
    path = Path(__file__).with_name("routes.tsv")
    with path.open(encoding="utf-8") as lines:
        return {row["address"]: row for row in csv.DictReader(lines, delimiter="\t")}


def addresses(resolver=None, space="", prefix="/"):
    """Each address's full name, with a path to it that leads to nothing stored."""
    for pattern in (resolver or get_resolver()).url_patterns:
        route = prefix + str(pattern.pattern)
        if hasattr(pattern, "url_patterns"):
            inner = f"{space}{pattern.namespace}:" if pattern.namespace else space
            yield from addresses(pattern, inner, route)
            continue
        for name, converter in pattern.pattern.converters.items():
            kind = type(converter).__name__.removesuffix("Converter").lower()
            kind = "str" if kind == "string" else kind
            sample = OFTEN.get(name, SAMPLES[kind])
            route = route.replace(f"<{kind}:{name}>", sample).replace(f"<{name}>", sample)
        yield space + pattern.name, route


def least(row, method):
    return row["looks" if method == "GET" else "changes"]


def allowed(row, method, role):
    """What the table says; `role` is None for somebody who is not signed in."""
    at_least = least(row, method)
    if at_least in ("anybody", "-"):
        return at_least == "anybody"
    if role is None:
        return False
    return at_least == "oneself" or ROLE_ORDER.index(role) >= ROLE_ORDER.index(at_least)


@thorough
class Roles(DayCase):
    @classmethod
    def make_rows(cls):
        super().make_rows()
        cls.people = {
            role: User.objects.create_user(role, practice=cls.practice, role=role)
            for role in ROLE_ORDER
        }

    def browser(self, user):
        out = Browser(raise_request_exception=False)
        out.force_login(user, backend=BACKEND)
        return out

    def test_the_table_has_every_address_and_no_other(self):
        names = [name for name, _path in addresses()]
        self.assertGreater(len(names), 180)
        self.assertEqual(sorted(names), sorted(table()))
        self.assertEqual([name for name in names if route_of(name) is None], [])
        self.assertEqual(list(ROLE_ORDER), list(ROLES))

    def test_the_rules_say_what_the_table_says(self):
        for name, row in table().items():
            for method in ("GET", "POST"):
                for role, user in self.people.items():
                    with self.subTest(name, method=method, role=role):
                        self.assertEqual(may(user, name, method), allowed(row, method, role))
            self.assertEqual(route_of(name).kept_as, row["kept as"], name)

    def test_nobody_reaches_what_the_table_denies(self):
        rows = table()
        for role, user in self.people.items():
            browser = self.browser(user)
            for name, path in addresses():
                for method in ("GET", "POST"):
                    if not allowed(rows[name], method, role):
                        answer = getattr(browser, method.lower())(path)
                        with self.subTest(name, method=method, role=role):
                            self.assertEqual(answer.status_code, 403)
        self.assertEqual(self.bowl.parts.count(), 3)

    def test_the_least_role_that_may_is_let_in(self):
        rows = table()
        browsers = {role: self.browser(user) for role, user in self.people.items()}
        for name, path in addresses():
            for method in ("GET", "POST"):
                role = least(rows[name], method)
                if role in browsers and name != "finder:find":
                    answer = getattr(browsers[role], method.lower())(path)
                    with self.subTest(name, method=method, role=role):
                        self.assertNotIn(answer.status_code, (403, 500))

    def test_one_who_left_and_one_without_a_role_reach_nothing(self):
        gone, roleless = self.people["owner"], self.people["practitioner"]
        gone_browser, roleless_browser = self.browser(gone), self.browser(roleless)
        User.objects.filter(pk=gone.pk).update(is_active=False)
        User.objects.filter(pk=roleless.pk).update(role="")
        for name, path in addresses():
            if table()[name]["looks"] in ("anybody", "oneself"):
                continue
            with self.subTest(name):
                self.assertEqual(gone_browser.get(path).status_code, 302)
                self.assertEqual(roleless_browser.get(path).status_code, 403)

    def test_what_is_anothers_is_not_there_for_any_role(self):
        records = {
            "clients": self.client_row.pk,
            "recipes": self.recipe.pk,
            "bowls": self.bowl.pk,
            "planner": self.day.pk,
        }
        paths = [
            (name, path.replace("999999", str(records[name.split(":")[0]]), 1))
            for name, path in addresses()
            if name.split(":")[0] in records and "999999" in path
        ]
        paths += [
            (name, f"/for/{self.client_row.pk}{path}")
            for name, path in addresses()
            if name.split(":")[0] in ("journal", "week", "shopping")
        ]
        self.assertGreater(len(paths), 100)
        rows = table()
        for role in ROLE_ORDER:
            stranger = self.browser(
                User.objects.create_user(f"far-{role}", practice=self.other_practice, role=role)
            )
            for name, path in paths:
                for method in ("GET", "POST"):
                    answer = getattr(stranger, method.lower())(path)
                    with self.subTest(path, method=method, role=role):
                        let_in = allowed(rows[name], method, role)
                        expected = (404, 405) if let_in else (403, 404)
                        self.assertIn(answer.status_code, expected)
                        self.assertNotIn(b"Osk", answer.content)

    def test_what_a_role_may_not_send_is_closed_on_its_pages(self):
        page = f"/for/{self.client_row.pk}/clients/{self.client_row.pk}/"
        closed = '<fieldset class="not-yours" disabled>'
        for role, shut in (("reader", True), ("assistant", True), ("practitioner", False)):
            shown = self.browser(self.people[role]).get(page, follow=True).content.decode()
            self.assertEqual(closed in shown, shut, role)
            self.assertEqual(shown.count("<fieldset"), shown.count("</fieldset>"), role)
        # an assistant weighs in, and does not set targets anew
        shown = self.browser(self.people["assistant"]).get(page, follow=True).content.decode()
        weigh, retarget = (
            shown.index(f"/clients/{self.client_row.pk}/{what}/")
            for what in ("weigh-in", "retarget")
        )
        self.assertFalse(shown[shown.index(">", weigh) :].lstrip("> ").startswith(closed))
        self.assertTrue(shown[shown.index(">", retarget) + 1 :].lstrip().startswith(closed))
