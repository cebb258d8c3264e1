"""What the list says of a client: kept, made anew after a change and on another day, and asked for
by filter, order and words."""

from datetime import date, timedelta

from django.utils import timezone

from clients.models import Client, ClientLook, WeighIn
from clients.plan.looks import bring_up_to_date, keep, not_up_to_date
from clients.plan.versions import make_version
from clients.testing import ClientCase
from nutrition.tests.thorough import thorough


class Looks(ClientCase):
    def waiting(self, on=None):
        return not_up_to_date(Client.objects.all(), on or timezone.localdate()).count()

    def fresh(self):
        keep(Client.objects.all(), timezone.localdate())
        self.assertEqual(self.waiting(), 0)

    def test_another_day_looks_again_a_few_at_a_time(self):
        self.fresh()
        tomorrow = timezone.localdate() + timedelta(days=1)
        self.assertEqual(self.waiting(tomorrow), 1)
        bring_up_to_date(Client.objects.all(), tomorrow, most=1)
        self.assertEqual(self.waiting(tomorrow), 0)

    def test_what_is_listed_is_of_today_whatever_was_kept(self):
        self.fresh()
        ClientLook.objects.update(words="long ago", stale=True)
        page = self.client.get("/clients/")
        self.assertNotContains(page, "long ago")
        self.assertContains(page, "Not weighed yet")
        self.assertContains(page, "Record a weight")

    def with_potassium(self, name, value, ago=1):
        row = Client.objects.create(
            practice=self.practice,
            name=name,
            sex="female",
            birth_year=1970,
            height_cm=165,
            weight_kg=62,
            goal="hold",
            conditions=["ckd_4"],
        )
        row.weigh_ins.create(date=timezone.localdate(), kg=62)
        row.blood_values.create(
            key="potassium",
            value=value,
            unit="mmol/L",
            date=timezone.localdate() - timedelta(days=ago),
            by=self.user,
        )
        return row

    def listed(self):
        page = self.client.get("/clients/").content.decode()
        names = [row.name for row in Client.objects.all()]
        return sorted(names, key=lambda name: page.find(f">{name}</a>")), page

    def test_what_waits_is_ranked_by_urgency_and_what_was_seen_is_quiet(self):
        self.with_potassium("Anna Aldern", 4.4)
        urgent = self.with_potassium("Zuzanna Quay", 6.4)
        order, page = self.listed()
        self.assertEqual(order[0], "Zuzanna Quay")
        self.assertIn("Potassium 6.4", page)
        # opening the client's page is looking at it
        self.client.get(f"/clients/{urgent.pk}/")
        order, page = self.listed()
        self.assertNotIn("Potassium 6.4", page)
        self.assertNotEqual(order[0], "Zuzanna Quay")
        # and the next value is new again
        urgent.blood_values.create(
            key="potassium",
            value=6.6,
            unit="mmol/L",
            date=timezone.localdate(),
            by=self.user,
        )
        order, page = self.listed()
        self.assertEqual(order[0], "Zuzanna Quay")
        self.assertIn("Potassium 6.6", page)

    def test_filters_orders_and_words(self):
        other = Client.objects.get(pk=self.client_row.pk)
        other.pk, other.name, other.goal = None, "Ilse Varga", "hold"
        other.conditions, other.about = ["ckd_3b"], "chart-maker"
        other._state.adding = True
        other.save()
        keep(Client.objects.all(), timezone.localdate())
        for asked, names in (
            ({"show": "kidney"}, ["Ilse Varga"]),
            ({"show": "lose"}, ["Osk Brannigan"]),
            ({"q": "chart"}, ["Ilse Varga"]),
            ({"sort": "name"}, ["Ilse Varga", "Osk Brannigan"]),
            ({"show": "kidney", "q": "osk"}, []),
        ):
            with self.subTest(asked):
                found = self.client.get("/clients/", asked)
                self.assertEqual([row.client.name for row in found.context["shown"]], names)

    def test_an_empty_practice_is_told_what_to_do_step_by_step(self):
        Client.objects.all().delete()
        self.assertContains(self.client.get("/clients/"), "Write down the")
        for path, told in (
            ("/days/", "Write down the"),
            ("/bowls/", "Build a bowl"),
            ("/compare/", "build a bowl"),
        ):
            with self.subTest(path):
                self.assertContains(self.client.get(path), told)


@thorough
class BirthDate(ClientCase):
    def saved(self, text):
        page = self.client.get(f"/clients/{self.client_row.pk}/edit/")
        form = page.context["form"]
        data = {name: form[name].value() for name in form.fields if form[name].value() is not None}
        data |= {"birth_year": text, "supplements-TOTAL_FORMS": 0, "supplements-INITIAL_FORMS": 0}
        answer = self.client.post(f"/clients/{self.client_row.pk}/edit/", data)
        return answer, Client.objects.get(pk=self.client_row.pk)

    def test_a_date_a_year_or_an_age(self):
        today = timezone.localdate()
        for text, born, year in (
            ("1985-04-12", date(1985, 4, 12), 1985),
            ("April 12, 1985", date(1985, 4, 12), 1985),
            ("1985", None, 1985),
            ("41", None, today.year - 41),
        ):
            with self.subTest(text):
                _page, stored = self.saved(text)
                self.assertEqual((stored.birth_date, stored.birth_year), (born, year))
        tomorrow = today + timedelta(days=1)
        _page, stored = self.saved(tomorrow.replace(year=1985).isoformat())
        self.assertEqual(stored.age_years, today.year - 1985 - (tomorrow.year == today.year))

    def test_what_is_no_date(self):
        for text in ("soon", "3085", "1899", "1985-13-40", "-4"):
            with self.subTest(text):
                page, _stored = self.saved(text)
                self.assertEqual(page.status_code, 200)
                self.assertTrue(page.context["form"].errors["birth_year"])

    def test_a_page_and_the_list_see_the_same_needs(self):
        """What is found once while a page is read is the same whoever asks first."""
        make_version(self.client_row, self.user, "first")
        WeighIn.objects.create(client=self.client_row, date=timezone.localdate(), kg=80)
        for page in (f"/clients/{self.client_row.pk}/", "/clients/"):
            with self.subTest(page):
                self.assertContains(self.client.get(page), "Targets were made for 100 kg")
