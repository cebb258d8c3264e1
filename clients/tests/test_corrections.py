"""Weigh-ins that cannot be, second ones, corrections; clients archived and brought back; orders; a
stale save of a client."""

from datetime import timedelta

from django.urls import reverse
from django.utils import timezone

from clients.models import Client, ClientSupplement, TargetOverride, WeighIn
from clients.plan.in_force import plan_of
from clients.testing import ClientCase
from practice.models import Practice

TODAY = timezone.localdate()


def edited(**changes):
    """The client's form as a browser sends it."""
    rows = {"supplements-TOTAL_FORMS": "0", "supplements-INITIAL_FORMS": "0"}
    person = {
        "name": "Osk Brannigan",
        "sex": "male",
        "birth_year": TODAY.year - 45,
        "height_cm": 183,
        "weight_kg": 100,
        "activity": "low_active",
        "goal": "lose",
        "life_stage": "adult",
        "formula": "dri_2023",
        "weight_basis": "auto",
        "meals": "3",
        "version": 1,
        "allergies": ["sesame"],
    }
    return rows | person | changes


class WeighIns(ClientCase):
    def weigh(self, date, kg, **more):
        return self.client.post(
            reverse("clients:weigh-in", args=[self.client_row.pk]), {"date": date, "kg": kg} | more
        )

    def test_none_lies_in_the_future_or_before_the_client(self):
        for date in (
            TODAY + timedelta(days=1),
            "9999-12-31",
            "2031-01-01",
            "0001-01-01",
            f"{TODAY.year - 60}-01-01",
        ):
            with self.subTest(date):
                self.assertEqual(self.weigh(date, 99).status_code, 400)
        self.assertContains(
            self.weigh(TODAY + timedelta(days=1), 99), "has not come yet", status_code=400
        )
        self.assertFalse(WeighIn.objects.exists())
        self.assertEqual(Client.objects.get().person().weight_kg, 100)

    def test_a_second_one_of_a_day_asks(self):
        self.weigh(TODAY, 99)
        self.assertContains(
            self.weigh(TODAY, 89), "There is one of 99 kg on that day", status_code=400
        )
        self.assertEqual(WeighIn.objects.get().kg, 99)
        self.weigh(TODAY, 89, replace="on")
        self.assertEqual(WeighIn.objects.get().kg, 89)
        self.assertEqual(WeighIn.with_removed.count(), 2, "what was there is kept")

    def test_one_is_corrected_removed_and_brought_back(self):
        self.weigh(TODAY, 999 / 10)
        row = WeighIn.objects.get()
        correct = reverse("clients:correct-weigh-in", args=[self.client_row.pk, row.pk])
        self.assertContains(
            self.client.post(correct, {"date": TODAY, "kg": "9"}),
            "outside 30 to 300 kg",
            status_code=400,
        )
        self.client.post(correct, {"date": TODAY - timedelta(days=1), "kg": "98.5"})
        row.refresh_from_db()
        self.assertEqual((row.kg, row.date), (98.5, TODAY - timedelta(days=1)))
        remove = reverse("clients:remove-weigh-in", args=[self.client_row.pk, row.pk])
        self.client.post(remove)
        self.assertIsNone(Client.objects.get().last_weight_kg)
        self.assertContains(
            self.client.get(reverse("clients:page", args=[self.client_row.pk])), "Bring back"
        )
        self.client.post(remove, {"back": "1"})
        self.assertEqual(Client.objects.get().last_weight_kg, 98.5)

    def test_a_weight_changed_in_the_form_is_a_weigh_in(self):
        address = reverse("clients:edit", args=[self.client_row.pk])
        form = edited(name="Osk", weight_kg=97)
        self.client.post(address, form)
        self.assertEqual(Client.objects.get().last_weight_kg, 97)
        page = self.client.post(address, form | {"weight_kg": 96, "version": 2}, follow=True)
        self.assertContains(page, "in place of 97 kg, which can be brought back")
        self.assertEqual(
            (Client.objects.get().last_weight_kg, WeighIn.with_removed.count()), (96, 2)
        )


class Orders(ClientCase):
    def setUp(self):
        super().setUp()
        Client.objects.filter(pk=self.client_row.pk).update(conditions=["ckd_5"])

    def set(self, key, **data):
        address = reverse("clients:target", args=[self.client_row.pk, key])
        return self.client.post(
            address, {"reason": "letter", "takes_effect": TODAY, "kind": "order"} | data
        )

    def in_force(self, key):
        return plan_of(Client.objects.get()).rows[key].target

    def test_an_order_names_who_gave_it_and_their_license(self):
        self.assertContains(
            self.set("potassium_mg", high=2000), "names who gave it and their license"
        )
        self.assertFalse(TargetOverride.objects.exists())
        self.set("potassium_mg", high=2000, given_by="Dr. A", license="MD 1")
        target = self.in_force("potassium_mg")
        self.assertEqual((target.low, target.high), (None, 2000), "a most alone can be ordered")
        self.assertLessEqual(target.aim, 2000)
        self.assertIn("Dr. A, MD 1", target.voice)

    def test_a_coachs_choice_stays_within_what_the_condition_sets(self):
        self.set("potassium_mg", low=8000, kind="choice")
        self.assertEqual(self.in_force("potassium_mg").high, 3000)
        self.assertContains(
            self.client.get(reverse("clients:page", args=[self.client_row.pk])), "It is a wish"
        )
        self.set("potassium_mg", high=2000, kind="choice")
        self.assertEqual(self.in_force("potassium_mg").high, 2000, "less room may be asked for")

    def test_an_order_that_opens_a_limit_asks_with_both_numbers_until_it_is_settled(self):
        self.set("potassium_mg", low=8000, given_by="Dr. A", license="MD 1")
        page = self.client.get(reverse("clients:page", args=[self.client_row.pk]))
        self.assertContains(
            page,
            "Potassium at least 8,000 mg, where kidney disease, stage 5 sets at most 3,000 mg",
        )
        about = next(
            caution.about
            for caution in page.context["told"].standing
            if caution.code == "order_opens_a_limit"
        )
        self.post(
            reverse("clients:dismiss", args=[self.client_row.pk]),
            {"code": "order_opens_a_limit", "about": about, "why": "asked Dr. A"},
        )
        page = self.client.get(reverse("clients:page", args=[self.client_row.pk]))
        self.assertNotIn(
            "order_opens_a_limit", {caution.code for caution in page.context["told"].standing}
        )
        self.set("potassium_mg", low=7000, given_by="Dr. A", license="MD 1")
        page = self.client.get(reverse("clients:page", args=[self.client_row.pk]))
        self.assertIn(
            "order_opens_a_limit",
            {caution.code for caution in page.context["told"].standing},
            "another number asks again",
        )

    def test_a_choice_does_not_end_an_order_unasked(self):
        self.set("sodium_mg", high=1800, given_by="Dr. A", license="MD 1")
        asked = self.set("sodium_mg", high=2200, kind="choice")
        self.assertContains(asked, "Stop and ask: a clinician")
        self.assertEqual(self.in_force("sodium_mg").high, 1800)
        self.set("sodium_mg", high=2200, kind="choice", confirm="on")
        self.assertEqual(self.in_force("sodium_mg").high, 2200)

    def test_numbers_no_body_lives_on_are_refused_by_name(self):
        for kcal in ("0", "-500", "9000", "nan", "inf", "1e400"):
            with self.subTest(kcal):
                self.set("energy_kcal", low=kcal, high=kcal, given_by="Dr. A", license="MD 1")
                self.assertFalse(TargetOverride.objects.exists())
        self.assertContains(
            self.set("energy_kcal", low=9000, given_by="Dr. A", license="MD 1"),
            "No body lives on 9000 kcal",
        )


class Stale(ClientCase):
    def test_a_colleagues_insulin_is_shown_and_dropping_it_takes_a_decision(self):
        address = reverse("clients:edit", args=[self.client_row.pk])
        pill = {
            "supplements-TOTAL_FORMS": "1",
            "supplements-0-key": "iodine_ug",
            "supplements-0-dose": "150",
            "supplements-0-per_week": "5",
        }
        self.client.post(address, edited(has_medicine=["insulin"]) | pill)
        mine = edited(name="Osk B.", who_cooks="himself")
        refused = self.client.post(address, mine)
        for text in ("insulin", "Iodine 150", "Osk B.", "Conditions and medicines"):
            self.assertContains(refused, text, status_code=409)
        version = Client.objects.get().version
        again = self.client.post(
            address, mine | {"version": version, "differs": ["name", "conditions", "supplements"]}
        )
        self.assertContains(again, "Decide: this can hurt", status_code=409)
        self.assertEqual(Client.objects.get().conditions, ["insulin"])
        decided = {
            "differs": ["name", "conditions", "supplements"],
            "decide-conditions": "theirs",
            "decide-supplements": "theirs",
        }
        self.client.post(address, mine | {"version": version} | decided)
        client = Client.objects.get()
        self.assertEqual(
            (client.name, client.conditions, client.supplements.get().per_week),
            ("Osk B.", ["insulin"], 5),
        )

    def test_how_often_a_supplement_is_taken_stays_as_it_is(self):
        for per_week in (2.0, 14.0, 7.0, 3.5, 0.25, 5.0, 1.0):
            with self.subTest(per_week):
                ClientSupplement.objects.all().delete()
                ClientSupplement.objects.create(
                    client=self.client_row, key="vitamin_b12_ug", dose=1000, per_week=per_week
                )
                page = self.client.get(reverse("clients:edit", args=[self.client_row.pk]))
                form = page.context["supplements"].forms[0]
                chosen = [
                    value
                    for value, _words in form.fields["per_week"].choices
                    if f'value="{value}" selected' in str(form["per_week"])
                ]
                self.assertEqual(chosen, [f"{per_week:g}"], "what a browser sends back")

    def test_the_settings_of_the_practice(self):
        version = Practice.objects.get(pk=self.practice.pk).version
        data = {
            "name": "Tern Point Wellness",
            "town": "",
            "contact": "at the desk",
            "measures": "us",
            "version": version,
        }
        self.client.post("/practice/", data)
        refused = self.client.post("/practice/", data | {"contact": "", "town": "Harrow Sound"})
        self.assertContains(refused, "at the desk", status_code=409)
        self.assertContains(refused, "Harrow Sound", status_code=409)
        self.assertEqual(Practice.objects.get(pk=self.practice.pk).contact, "at the desk")
