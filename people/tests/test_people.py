"""The people of a practice: asked in, changed, ended, by an owner."""

from datetime import timedelta

from django.core import mail
from django.test import Client as Browser
from django.utils import timezone

from people.models import Invitation
from practice.models import User
from practice.testing import PracticeCase

PASSWORD = "harbor light seven"
NEW_BOWL = {"name": "x", "vessel_ml": "900"}


class Inviting(PracticeCase):
    def ask(self, role="assistant", email=""):
        page = self.post("/people/invite/", {"name": "Joss Pell", "email": email, "role": role})
        return page.content.decode().split('value="http://testserver')[1].split('"')[0]

    def take(self, link, name="joss", browser=None):
        said = {"username": name, "password1": PASSWORD, "password2": PASSWORD}
        said |= {"first_name": "Joss", "last_name": "Pell"}
        return (browser or Browser()).post(link, said)

    def test_a_link_makes_somebody_with_the_role_once(self):
        link = self.ask()
        page = Browser().get(link)
        self.assertContains(page, "Tern Point Wellness")
        self.assertContains(page, "Joss")
        self.assertRedirects(self.take(link), "/sign-in/", fetch_redirect_response=False)
        person = User.objects.get(username="joss")
        self.assertEqual((person.practice, person.role), (self.practice, "assistant"))
        self.assertTrue(person.check_password(PASSWORD))
        self.assertEqual(self.take(link, "joss2").status_code, 410)
        self.assertFalse(User.objects.filter(username="joss2").exists())

    def test_the_link_is_kept_nowhere(self):
        token = self.ask().strip("/").split("/")[-1]
        self.assertNotIn(token, str(Invitation.objects.values().get()))
        self.assertNotContains(self.client.get("/people/"), token)

    def test_seven_days_and_taken_back(self):
        link = self.ask()
        made = Invitation.objects.get()
        self.assertAlmostEqual((made.until - timezone.now()) / timedelta(days=1), 7.0, delta=0.01)
        Invitation.objects.update(until=timezone.now() - timedelta(seconds=1))
        self.assertEqual(Browser().get(link).status_code, 410)
        link = self.ask()
        self.post(f"/people/invited/{Invitation.objects.latest('pk').pk}/", {})
        self.assertEqual(self.take(link).status_code, 410)

    def test_a_name_that_is_taken_and_a_weak_password_are_said_beside_the_field(self):
        link = self.ask()
        said = {"username": "MARIN", "password1": "short", "password2": "short"}
        page = Browser().post(link, said)
        self.assertContains(page, "signs in with that name already", status_code=400)
        self.assertContains(page, "too short", status_code=400)
        self.assertContains(page, "MARIN", status_code=400)

    def test_it_goes_by_mail_where_there_is_an_address(self):
        link = self.ask(email="joss@tern.example")
        self.assertIn(link, mail.outbox[0].body)

    def test_a_role_that_is_none_is_refused(self):
        page = self.post("/people/invite/", {"name": "x", "role": "captain"})
        self.assertEqual(page.status_code, 400)
        self.assertEqual(Invitation.objects.count(), 0)


class Changing(PracticeCase):
    def setUp(self):
        super().setUp()
        self.joss = User.objects.create_user(
            "joss", password=PASSWORD, practice=self.practice, role="assistant"
        )

    def change(self, person, **said):
        return self.post(f"/people/{person.pk}/", said)

    def test_a_role_holds_at_once(self):
        browser = Browser()
        browser.force_login(self.joss, backend="django.contrib.auth.backends.ModelBackend")
        self.assertEqual(browser.post("/bowls/new/", NEW_BOWL).status_code, 302)
        self.change(self.joss, role="reader")
        self.assertEqual(browser.post("/bowls/new/", NEW_BOWL).status_code, 403)

    def test_there_is_always_an_owner(self):
        for said in ({"role": "reader"}, {"end": "1"}):
            self.change(self.user, **said)
            self.user.refresh_from_db()
            self.assertEqual((self.user.role, self.user.is_active), ("owner", True))
        self.change(self.joss, role="owner")
        self.change(self.user, role="practitioner")
        self.user.refresh_from_db()
        self.assertEqual(self.user.role, "practitioner")

    def test_who_leaves_is_out_at_once_and_can_come_back(self):
        browser = Browser()
        browser.post("/sign-in/", {"username": "joss", "password": PASSWORD})
        self.assertEqual(browser.get("/bowls/").status_code, 200)
        self.change(self.joss, end="1")
        self.assertEqual(browser.get("/bowls/").status_code, 302)
        self.assertContains(
            browser.post("/sign-in/", {"username": "joss", "password": PASSWORD}),
            "do not go together",
        )
        self.change(self.joss, back="1")
        answer = browser.post("/sign-in/", {"username": "joss", "password": PASSWORD})
        self.assertEqual(answer.status_code, 302)

    def test_a_link_to_a_new_password(self):
        page = self.change(self.joss, password="1")
        link = page.context["link"]["address"].removeprefix("http://testserver")
        browser = Browser()
        form = browser.get(link, follow=True)
        new = {"new_password1": "another light nine", "new_password2": "another light nine"}
        browser.post(form.redirect_chain[-1][0], new)
        self.joss.refresh_from_db()
        self.assertTrue(self.joss.check_password("another light nine"))

    def test_nobody_of_another_practice_is_reached(self):
        self.assertEqual(self.change(self.other_user, role="reader").status_code, 404)
        self.other_user.refresh_from_db()
        self.assertEqual(self.other_user.role, "owner")
        self.assertNotContains(self.client.get("/people/"), "solveig")

    def test_rest_has_bounds(self):
        for minutes, status in (("4", 400), ("5", 302), ("720", 302), ("721", 400)):
            answer = self.post("/people/rules/", {"rest_minutes": minutes})
            self.assertEqual(answer.status_code, status, minutes)
