"""The pantry's pages and its command."""

import json
from io import StringIO

from django.core.management import call_command

from roundpantry.testing import PracticeCase


class Pantry(PracticeCase):
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

    def test_half_a_package_with_its_range(self):
        # 2.5 servings of 18 g are 45 g, half is 22.5 g; a printed 18 is 17.5 to 18.5
        page = self.client.get("/pantry/package/?servings=2.5&amount=1/2&protein_g=18")
        for text in ("22.5 g", "21.9–23.1", "45.0 g"):
            self.assertContains(page, text)
        refused = self.client.get("/pantry/package/?servings=2.5&amount=80 g&protein_g=18")
        self.assertContains(refused, "Grams of a package need its serving size")
        self.assertContains(refused, 'value="80 g"')

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
