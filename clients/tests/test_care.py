"""Care on the pages: any allergy, wishes, dates of surgery, lines nobody could read."""

from datetime import timedelta

from django.urls import reverse
from django.utils import timezone

from clients.models import Client, WeighIn
from clients.plan.cautions import of_foods, of_the_client
from clients.plan.gate import gate_of
from clients.plan.in_force import plan_of
from clients.testing import ClientCase
from clients.tests.test_intake import PERSON
from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient

FOODS = food_table()


def codes(told):
    return {one.code for one in told.standing}


class Care(ClientCase):
    def made(self, **fields):
        given = {
            "name": "Tove Calder",
            "sex": "female",
            "birth_year": 1979,
            "height_cm": 171,
            "weight_kg": 66,
        }
        return Client.objects.create(practice=self.practice, **given | fields)

    def save(self, client, **changes):
        address = reverse("clients:edit", args=[client.pk])
        return self.client.post(address, PERSON | {"version": str(client.version)} | changes)

    def test_any_allergy_is_kept_and_gates(self):
        client = self.made()
        self.save(client, allergies=["sesame"], other_allergies="Kiwis, zanthine gum")
        client.refresh_from_db()
        self.assertEqual(client.allergies, ["kiwi", "sesame", "zanthine gum"])
        self.assertEqual(client.allergy_words, "sesame, kiwi, zanthine gum")
        plan = plan_of(client)
        self.assertTrue(gate_of(plan).why_not(FOODS["kiwi-green-raw"]))
        self.assertFalse(gate_of(plan).why_not(FOODS["pear-raw"]))
        told = of_the_client(plan, client, None)
        self.assertIn("allergy_by_its_word_alone", codes(told))
        page = self.client.get(reverse("clients:edit", args=[client.pk]))
        self.assertContains(page, "kiwi, zanthine gum")

    def test_a_slip_is_asked_about_and_what_was_typed_stays(self):
        client = self.made()
        answer = self.save(client, other_allergies="sesami")
        self.assertContains(answer, "did you mean sesame?")
        self.assertContains(answer, "sesami")

    def test_an_allergy_is_no_wish(self):
        client = self.made()
        answer = self.save(client, dislikes="mushrooms, allergic to soy")
        self.assertContains(answer, "a dislike protects nobody")
        client.refresh_from_db()
        self.assertEqual(client.dislikes, "")

    def test_the_months_since_surgery(self):
        today = timezone.localdate()
        client = self.made(conditions=["gastric_sleeve"])
        told = of_the_client(plan_of(client), client, None)
        self.assertIn("gastric_surgery_not_dated", codes(told))
        client.surgery_on = today - timedelta(days=100)
        client.save()
        self.assertEqual(client.person().surgery_months, 3)
        client.surgery_on = today
        self.assertEqual(client.person().surgery_months, 0)

    def test_a_line_nobody_could_read_warns_by_its_words(self):
        client = self.made(allergies=["tree nuts"])
        parts = [Ingredient(FOODS["white-rice-cooked"], 100.0)]
        told = of_foods(plan_of(client), parts, lines=("40 g marzipan", "1 tsp mulethi"))
        self.assertLessEqual({"allergen_in_words", "words_licorice_root"}, codes(told))
        self.assertEqual(codes(of_foods(plan_of(client), parts)), set())

    def test_nothing_is_proposed_to_phenylketonuria_without_the_clinic_s_numbers(self):
        client = self.made(conditions=["pku"])
        plan = plan_of(client)
        self.assertIsNone(plan.day)
        for slug in ("tofu-firm", "apple-with-skin-raw"):
            self.assertTrue(gate_of(plan).why_not(FOODS[slug]), slug)

    def test_water_in_heart_failure_is_called_about(self):
        client = self.made(conditions=["heart_failure"])
        today = timezone.localdate()
        for ago, kg in ((7, 66.0), (0, 71.0)):
            WeighIn.objects.create(client=client, date=today - timedelta(days=ago), kg=kg)
        told = of_the_client(plan_of(client), client, None)
        caution = next(one for one in told.standing if one.code == "heart_failure_gain")
        self.assertIn("5.0 kg in 7 days", caution.text)
        self.assertEqual(caution.urgent, "now")
