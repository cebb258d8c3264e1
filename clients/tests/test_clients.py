"""Clients: the list that says who needs attention, targets by hand, stale saves."""

from datetime import timedelta

from django.urls import reverse
from django.utils import timezone

from clients.attention import reasons, weekly_pace
from clients.in_force import readings, strip, targets_in_force
from clients.models import Client, TargetOverride, WeighIn
from nutrition.foods import food_table
from roundpantry.testing import PracticeCase


class Clients(PracticeCase):
    def form(self, **changes):
        row = self.client_row
        data = {
            name: getattr(row, name)
            for name in (
                "name",
                "about",
                "sex",
                "birth_year",
                "height_cm",
                "weight_kg",
                "activity",
                "goal",
                "life_stage",
                "formula",
                "conditions",
                "notes",
                "version",
            )
        }
        return data | {"allergies": ["sesame"]} | changes

    def weigh(self, *kilograms, every=3, last_days_ago=0):
        today = timezone.localdate()
        for i, kg in enumerate(reversed(kilograms)):
            WeighIn.objects.create(client=self.client_row, date=today - timedelta(days=last_days_ago + i * every), kg=kg)

    def test_attention(self):
        today = timezone.localdate()
        self.assertEqual(reasons(self.client_row, today)[0], "Not weighed yet")
        self.weigh(100, 100.1, 100.0, 100.2)
        self.assertIn("Weight is not falling", reasons(self.client_row, today))
        self.client_row.weigh_ins.all().delete()
        self.weigh(108, 105, 102, 99, every=7)
        self.assertAlmostEqual(weekly_pace(self.client_row), -3.0, places=1)
        self.assertTrue(any("more than 1 %" in reason for reason in reasons(self.client_row, today)))
        self.client_row.weigh_ins.all().delete()
        self.weigh(100, last_days_ago=20)
        self.assertIn("Last weighed 20 days ago", reasons(self.client_row, today))
        self.assertContains(self.client.get("/clients/"), "Last weighed 20 days ago")

    def test_a_new_client(self):
        data = self.form(name="Ilse Varga", allergies=[])
        response = self.client.post("/clients/new/", data)
        client = Client.objects.get(name="Ilse Varga")
        self.assertRedirects(response, reverse("clients:page", args=[client.pk]))
        self.assertEqual(client.practice, self.practice)

    def test_bad_input_says_so_beside_the_field_and_keeps_what_was_typed(self):
        response = self.client.post("/clients/new/", self.form(name="Ilse Varga", height_cm="900"))
        self.assertContains(response, "Height 900 is outside 120 to 230 cm")
        self.assertContains(response, 'value="Ilse Varga"')
        self.assertContains(response, 'value="900"')
        self.assertFalse(Client.objects.filter(name="Ilse Varga").exists())

    def test_a_stale_save_is_refused_with_both_versions(self):
        address = reverse("clients:edit", args=[self.client_row.pk])
        self.assertEqual(self.client.post(address, self.form(about="first")).status_code, 302)
        refused = self.client.post(address, self.form(about="second"))
        self.assertContains(refused, "first", status_code=409)
        self.assertContains(refused, "second", status_code=409)
        self.client_row.refresh_from_db()
        self.assertEqual((self.client_row.about, self.client_row.version), ("first", 2))
        self.assertEqual(self.client.post(address, self.form(about="second", version=2)).status_code, 302)

    def test_the_last_weigh_in_is_the_weight_used(self):
        self.weigh(96)
        self.assertAlmostEqual(targets_in_force(self.client_row)["protein_g"].target.low, 1.2 * 96)
        response = self.client.post(reverse("clients:weigh-in", args=[self.client_row.pk]), {"date": timezone.localdate(), "kg": "9"})
        self.assertContains(response, "outside 30 to 300 kg", status_code=400)

    def test_a_number_set_by_hand_wins_and_the_computed_one_stays_visible(self):
        address = reverse("clients:target", args=[self.client_row.pk, "protein_g"])
        self.client.post(address, {"low": 60, "aim": 65, "high": 70, "kind": "order", "reason": "Nephrology letter"})
        row = targets_in_force(self.client_row)["protein_g"]
        self.assertEqual((row.target.low, row.target.aim, row.target.high), (60, 65, 70))
        self.assertAlmostEqual(row.computed.low, 120)
        page = self.client.get(reverse("clients:page", args=[self.client_row.pk]))
        for text in ("60–70 g, aim 65", "computed: at least 120 g", "Nephrology letter", "A clinician"):
            self.assertContains(page, text)
        self.client.post(reverse("clients:use-computed", args=[self.client_row.pk, "protein_g"]))
        self.assertIsNone(targets_in_force(self.client_row)["protein_g"].override)
        self.assertEqual(TargetOverride.objects.filter(client=self.client_row).count(), 1, "the history is kept")

    def test_all_targets_are_there_on_request(self):
        page = self.client.get(reverse("clients:page", args=[self.client_row.pk]))
        self.assertContains(page, "All the others")
        self.assertContains(page, "RDA for men of 31 to 50: 11 mg, at most 40 mg")
        watched, others = readings(self.client_row, food_table()["tofu-firm"].profile(200))
        self.assertEqual([row.key for row in watched], ["energy_kcal", "protein_g", "fiber_g", "sodium_mg"])
        self.assertGreater(len(others), 25)

    def test_a_life_stage_that_does_not_fit_is_refused_beside_its_field(self):
        address = reverse("clients:edit", args=[self.client_row.pk])
        self.assertContains(self.client.post(address, self.form(life_stage="pregnant_2")), "need the female equations")

    def test_a_target_needs_a_reason_and_a_band_around_its_aim(self):
        address = reverse("clients:target", args=[self.client_row.pk, "potassium_mg"])
        for data, message in (
            ({"low": 3000, "aim": 2000, "kind": "order", "reason": "x"}, "above the aim"),
            ({"aim": 2000, "high": 1000, "kind": "order", "reason": "x"}, "below the aim"),
            ({"aim": 2000, "kind": "order", "reason": "x"}, "Give a least"),
            ({"aim": 2000, "high": 2400, "kind": "order", "reason": ""}, "This field is required"),
        ):
            with self.subTest(message):
                self.assertContains(self.client.post(address, data), message)
        self.assertEqual(self.client.get(reverse("clients:target", args=[self.client_row.pk, "nonsense"])).status_code, 404)

    def test_the_strip_says_it_in_words(self):
        profile = food_table()["tofu-firm"].profile(200, 190, 210)
        rows = {row.key: row for row in strip(self.client_row, profile)}
        self.assertRegex(rows["protein_g"].word, r"^under by 101\.\d g$")
        self.assertEqual(rows["sodium_mg"].word, "inside")
        self.assertEqual(strip(None, profile), [])
        part = food_table()["walnuts"].profile(50) + food_table()["dijon-mustard"].profile(10)
        self.assertRegex({row.key: row for row in strip(self.client_row, part)}["protein_g"].word, r"^under by up to 112\.4 g$")
        self.assertEqual({row.key: row for row in readings(self.client_row, part)[1]}["iodine_ug"].word, "unknown")
        over = food_table()["salt"].profile(10)
        self.assertRegex({row.key: row for row in strip(self.client_row, over)}["sodium_mg"].word, "over by 1,5")

    def test_focus(self):
        self.client.get(reverse("clients:page", args=[self.client_row.pk]))
        self.assertContains(self.client.get("/recipes/"), "In focus")
        self.client.post("/clients/focus/", {"client": ""})
        self.assertNotContains(self.client.get("/recipes/"), "In focus")
