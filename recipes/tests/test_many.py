"""Many recipes at once, with a report of what was read how surely."""

import io
import json
import zipfile

from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse

from nutrition.tests.formats.test_bare_page import LIST
from practice.testing import PracticeCase
from recipes.models import Recipe

LD = json.dumps(
    {
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": "Freekeh with dill",
        "recipeYield": "3",
        "recipeIngredient": ["1 cup freekeh", "1 bunch dill", "3 glorps of zyx"],
    }
)


class Many(PracticeCase):
    def take(self, *files):
        given = [SimpleUploadedFile(name, content) for name, content in files]
        return self.client.post(reverse("recipes:import-many"), {"file": given})

    def test_each_is_read_or_refused_by_itself(self):
        page = self.take(
            ("barley.html", LIST.encode()),
            ("freekeh.json", LD.encode()),
            ("soup.txt", b"Bean soup\n2 cups white beans, cooked\n1 onion"),
            ("picture.png", b"\x89PNG\r\n\x1a\n\xff\xfe"),
            ("again.html", LIST.encode()),
        )
        self.assertContains(page, "3 of 5 taken in")
        self.assertContains(page, "1 of 3 to settle")
        self.assertContains(page, "hold it against it")
        self.assertContains(page, "Not taken: it is not text in UTF-8")
        self.assertContains(page, "there already: Barley with fennel")
        titles = set(Recipe.objects.values_list("title", flat=True))
        self.assertLessEqual({"Barley with fennel", "Freekeh with dill"}, titles)
        self.assertEqual(len(titles), 3)

    def test_a_zip_of_them(self):
        packed = io.BytesIO()
        with zipfile.ZipFile(packed, "w") as made:
            made.writestr("pages/barley.html", LIST)
            made.writestr("__MACOSX/pages/x", "x")
            made.writestr("freekeh.json", LD)
        page = self.take(("all.zip", packed.getvalue()))
        self.assertContains(page, "2 of 2 taken in")
        self.assertContains(page, "pages/barley.html")

    def test_what_unpacks_to_too_much_is_refused(self):
        packed = io.BytesIO()
        with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as made:
            made.writestr("huge.txt", b"0" * 50_000_001)
            made.writestr("freekeh.json", LD)
        page = self.take(("all.zip", packed.getvalue()))
        self.assertContains(page, "it is too large, or locked", count=2)
        self.assertFalse(Recipe.objects.exists())

    def test_nothing_chosen(self):
        page = self.client.post(reverse("recipes:import-many"), {})
        self.assertContains(page, "Choose at least one file", status_code=400)
