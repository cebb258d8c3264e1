"""The first visit: kept as it is typed, nothing lost, finished into a client with targets."""

from django.urls import reverse
from django.utils import timezone

from clients.models import Client, Intake
from clients.testing import ClientCase

PERSON = {
    "name": "Tove Calder",
    "sex": "female",
    "birth_year": "1979",
    "height_cm": "171",
    "weight_kg": "66",
    "activity": "low_active",
    "goal": "hold",
    "life_stage": "adult",
    "formula": "dri_2023",
    "weight_basis": "auto",
    "meals": "3",
    "supplements-TOTAL_FORMS": "3",
    "supplements-INITIAL_FORMS": "0",
    "supplements-0-key": "vitamin_b12_ug",
    "supplements-0-dose": "50",
    "supplements-0-per_week": "7",
    "supplements-1-per_week": "7",
    "supplements-2-per_week": "7",
}


class FirstVisit(ClientCase):
    def setUp(self):
        super().setUp()
        self.client.post("/clients/new/")
        self.intake = Intake.objects.get()
        self.address = reverse("clients:intake", args=[self.intake.pk])
        self.keep = reverse("clients:keep-intake", args=[self.intake.pk])

    def test_it_is_kept_half_written_and_waits(self):
        answer = self.post(
            self.keep,
            {"name": "Tove Calder", "height_cm": "17", "has_medicine": ["warfarin", "maoi"]},
            htmx=True,
        )
        self.assertContains(answer, "Saved at")
        self.assertContains(answer, "Targets appear here once these are there")
        self.assertContains(self.client.get("/clients/"), "First visit begun")
        page = self.client.get(self.address)
        for text in ('value="Tove Calder"', 'value="17"'):
            self.assertContains(page, text)
        self.assertContains(page, "checked", count=2)
        self.assertNotContains(page, "This field is required")

    def test_targets_and_cautions_appear_as_soon_as_they_can(self):
        answer = self.post(
            self.keep,
            PERSON
            | {"goal": "lose", "has_history": ["eating_disorder_history"], "school": "strength"},
            htmx=True,
        )
        for text in ("Protein", "g, aim", "before any number is given", "Actual weight 66 kg"):
            self.assertContains(answer, text)
        self.assertContains(
            self.post(self.keep, PERSON | {"birth_year": "2015"}, htmx=True), "pediatric dietitian"
        )

    def test_finishing_makes_the_client_with_supplements_and_targets(self):
        response = self.client.post(
            self.address,
            PERSON | {"finish": "1", "takes_effect": timezone.localdate(), "dislikes": "fennel"},
        )
        client = Client.objects.get(name="Tove Calder")
        self.assertRedirects(response, reverse("clients:page", args=[client.pk]))
        self.assertEqual(
            (client.practice, client.supplements.get().words),
            (self.practice, "Vitamin B12 50 µg, every day"),
        )
        version = client.target_versions.get()
        self.assertEqual((version.number, version.why, version.by), (1, "First visit", self.user))
        self.assertRedirects(
            self.client.get(self.address), reverse("clients:page", args=[client.pk])
        )
        self.assertNotContains(self.client.get("/clients/"), "First visit begun")

    def test_what_cannot_be_is_refused_beside_its_field_and_kept(self):
        page = self.client.post(
            self.address, PERSON | {"finish": "1", "height_cm": "900", "notes": "Likes barley"}
        )
        self.assertContains(page, "Height 900 cm is not possible", status_code=400)
        self.assertContains(page, "Likes barley", status_code=400)
        self.assertEqual(Client.objects.count(), 1)
        self.intake.refresh_from_db()
        self.assertEqual(self.intake.data["notes"], ["Likes barley"])

    def test_later_and_thrown_away(self):
        self.assertRedirects(self.client.post(self.address, PERSON | {"later": "1"}), "/clients/")
        self.client.post(reverse("clients:drop-intake", args=[self.intake.pk]))
        self.assertFalse(Intake.objects.exists())

    def test_too_much_is_refused(self):
        self.assertEqual(self.post(self.keep, {"notes": "x" * 70_000}, htmx=True).status_code, 413)
