"""The pantry's pages and its command."""

import json
from io import StringIO

from django.core.management import call_command

from clients.testing import ClientCase


class Pantry(ClientCase):
    def test_search(self):
        self.assertContains(self.client.get("/pantry/?q=courgette"), "Zucchini, raw")
        live = self.client.get("/pantry/?q=zuchin", headers={"HX-Request": "true"})
        self.assertContains(live, "Zucchini, raw")
        self.assertNotContains(live, "<html")
        self.assertContains(self.client.get("/pantry/?q=xqzzyw"), "No food found")

    def test_a_food_tells_its_source_and_what_is_unknown(self):
        page = self.client.get("/pantry/freekeh-dry/")
        for text in ("median of the kind", "label records", "unknown", "gluten"):
            self.assertContains(page, text)
        self.assertContains(self.client.get("/pantry/egg-boiled/"), "to compare with only")
        self.assertEqual(self.client.get("/pantry/no-such-food/").status_code, 404)

    def test_command(self):
        out = StringIO()
        call_command("foods", "coriander", "leaf", "--json", stdout=out)
        rows = json.loads(out.getvalue())
        self.assertEqual(rows[0]["slug"], "cilantro-fresh")
        self.assertEqual(
            set(rows[0]), {"slug", "name", "state", "energy_kcal", "protein_g", "source"}
        )
        out = StringIO()
        call_command("foods", "kohlrabi", stdout=out)
        self.assertIn("Kohlrabi, raw", out.getvalue())
