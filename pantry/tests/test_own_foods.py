"""Packages copied into foods, and found wherever foods are; words settled; rows overruled."""

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client as Browser

from nutrition.composition.foods import food_table
from pantry.in_force import foods_of_practice, remake
from pantry.models import Overrule, OwnFood, Word
from pantry.testing import LABEL, OwnFoodsCase


class Packages(OwnFoodsCase):
    def test_it_is_nobody_elses(self):
        row = self.copy()
        stranger = Browser()
        stranger.force_login(self.other_user, backend="django.contrib.auth.backends.ModelBackend")
        self.assertNotContains(stranger.get("/pantry/?q=gannet"), "Gannet seed spread")
        for address in (f"/pantry/packages/{row.pk}/", f"/pantry/{row.slug}/"):
            self.assertEqual(stranger.get(address).status_code, 404)
        for address in (f"/pantry/packages/{row.pk}/", f"/pantry/packages/{row.pk}/retire/"):
            self.assertEqual(stranger.post(address, LABEL | {"retire": "1"}).status_code, 404)
        row.refresh_from_db()
        self.assertIsNone(row.retired)

    def test_what_is_wrong_is_said_beside_its_field_and_nothing_is_lost(self):
        page = self.post("/pantry/packages/new/", LABEL | {"protein_g": "six", "fiber_g": "9"})
        self.assertEqual(page.status_code, 400)
        self.assertContains(page, "“six” is no value", status_code=400)
        self.assertContains(page, 'value="six"', status_code=400)
        self.assertContains(page, "Sunflower seeds, cane sugar", status_code=400)
        odd = self.post("/pantry/packages/new/", LABEL | {"energy_kcal": "90"})
        self.assertContains(odd, "Is every number as printed?", status_code=400)
        self.assertFalse(OwnFood.objects.exists())
        self.copy(energy_kcal="90", sure="on")

    def test_it_is_read_while_it_is_typed(self):
        look = self.post(
            "/pantry/packages/look/", LABEL | {"amount": "half the package"}, htmx=True
        )
        for text in ("224 g", "42.0 g", "no. 2 of 4 by weight", "Does not hold", "not added"):
            self.assertContains(look, text)
        missing = self.post("/pantry/packages/look/", {"name": "x"}, htmx=True)
        self.assertContains(missing, "Not a food yet")
        self.assertContains(self.post("/pantry/packages/look/", {}, htmx=True), "Not a food yet")
        self.assertFalse(OwnFood.objects.exists())

    def test_what_it_is_like_is_asked_where_its_name_does_not_say(self):
        guess = LABEL | {"name": "Gannet crunch with sunflower and rye", "like": ""}
        look = self.post("/pantry/packages/look/", guess, htmx=True)
        self.assertContains(look, "Nothing is filled until you say what it is most like")
        chosen = self.post("/pantry/packages/look/", guess | {"like": "Rye crispbread"}, htmx=True)
        self.assertContains(chosen, "Filled as of <strong>Rye crispbread</strong>")
        self.assertFalse(self.copy(name=guess["name"], like="").like_sure)

    def test_against_a_client_it_says_what_offends_and_why(self):
        row = self.copy()
        page = self.client.get(self.for_client(f"/pantry/packages/{row.pk}/"))
        self.assertContains(page, "may contain what the client does not tolerate")
        self.assertContains(page, "Traces can be enough")
        found = self.client.get(self.for_client(f"/pantry/{row.slug}/"))
        self.assertContains(found, "may contain what the client does not tolerate")

    def test_edited_with_a_version_and_a_stale_save_is_refused(self):
        row = self.copy()
        address = f"/pantry/packages/{row.pk}/"
        self.post(address, LABEL | {"version": "1", "protein_g": "7", "name_means": "package"})
        row.refresh_from_db()
        self.assertEqual(row.version, 2)
        self.assertContains(self.client.get(address), "Protein: 6 → 7")
        stale = self.post(address, LABEL | {"version": "1", "protein_g": "9"})
        self.assertEqual(stale.status_code, 409)
        self.assertContains(stale, "Somebody else saved this package", status_code=409)
        self.assertContains(stale, 'value="9"', status_code=409)
        row.refresh_from_db()
        self.assertEqual(row.printed["protein_g"], "7")

    def test_a_name_the_table_has_is_asked_about(self):
        asked = self.post("/pantry/packages/new/", LABEL | {"name": "Sunflower seed butter"})
        self.assertContains(asked, "is in the table already", status_code=400)
        row = self.copy(name="Sunflower seed butter", name_means="table")
        line = {"text": "32 g sunflower seed butter", "servings": "1"}
        self.assertNotContains(
            self.post("/recipes/preview/", line, htmx=True), f'{row.slug}" selected'
        )
        with foods_of_practice(self.practice):
            self.assertNotIn(("sunflower", "seed", "butter"), food_table().settled)
        twice = self.post(
            "/pantry/packages/new/",
            LABEL | {"name": "sunflower Seed butter", "name_means": "table"},
        )
        self.assertContains(twice, "package of that name already", status_code=400)

    def test_out_as_csv_and_in_again(self):
        row = self.copy()
        text = self.client.get("/pantry/packages/packages.csv").content.decode()
        self.post(f"/pantry/packages/{row.pk}/retire/", {"delete": "1"})
        file = SimpleUploadedFile("packages.csv", text.encode("utf-8-sig"))
        self.client.post("/pantry/packages/import/", {"file": file})
        back = OwnFood.objects.get()
        self.assertEqual(back.label(), row.label())
        again = self.post("/pantry/packages/import/", {"text": text.replace(",120,", ",130,")})
        self.assertEqual(again.status_code, 302)
        back.refresh_from_db()
        self.assertEqual((back.version, back.printed["sodium_mg"]), (2, "130"))

    def test_a_file_with_a_wrong_row_is_taken_in_not_at_all(self):
        head = "name;serving_size;energy_kcal;protein_g\r\n"
        page = self.post(
            "/pantry/packages/import/", {"text": head + "Good;30 g;100;2\r\nBad;30 g;many;2\r\n"}
        )
        self.assertContains(page, "Line", status_code=400)
        self.assertContains(page, "“many” is no value", status_code=400)
        self.assertContains(page, "Good;30 g", status_code=400)
        self.assertFalse(OwnFood.objects.exists())
        for text in ("a,b\n1,2\n", head, '"', "\x00"):
            refused = self.post("/pantry/packages/import/", {"text": text})
            self.assertEqual(refused.status_code, 400)

    def test_made_anew_when_the_tables_are_others(self):
        row = self.copy()
        OwnFood.objects.update(made_with="old", made={})
        self.assertEqual((remake(), remake()), (1, 0))
        row.refresh_from_db()
        self.assertEqual(row.made["name"], "Gannet seed spread")

    def test_two_side_by_side(self):
        one, other = self.copy(), self.copy(name="Another spread", protein_g="9", sodium_mg="125")
        page = self.client.get(
            f"/pantry/packages/beside/?one={one.pk}&other={other.pk}&base=serving"
        )
        self.assertContains(page, "Another spread has more")
        self.assertContains(page, "the rounding hides which has more")
        self.assertEqual(self.client.get("/pantry/packages/beside/?base=moon").status_code, 404)


class Words(OwnFoodsCase):
    LINES = {
        "title": "Rinsed",
        "role": "dish",
        "servings": "2",
        "text": "10 g dillisk",
        "measures": "us",
        "line-1": "10 g dillisk",
        "food-1": "dulse-dried",
        "grams-1": "",
    }

    def test_what_is_chosen_once_is_settled_listed_and_undone(self):
        offered = self.post("/recipes/preview/", self.LINES, htmx=True)
        self.assertContains(offered, "always so here: “dillisk”")
        self.post("/recipes/new/", self.LINES | {"always-1": "on", "save": "1"})
        word = Word.objects.get()
        self.assertEqual((word.said, word.food), ("dillisk", "dulse-dried"))
        line = {"text": "5 g dillisk, rinsed", "servings": "1"}
        settled = self.post("/recipes/preview/", line, htmx=True)
        self.assertContains(settled, "Always so here: dulse")
        self.assertContains(settled, "every line settled")
        self.assertContains(self.client.get("/pantry/words/"), "dillisk")
        out = self.client.get("/pantry/words/words.csv").content.decode()
        self.assertIn("dillisk,dulse-dried", out)
        self.post(f"/pantry/words/{word.pk}/undo/", {})
        self.assertContains(self.post("/recipes/preview/", line, htmx=True), "not counted")
        self.assertContains(self.client.get("/pantry/words/"), "Undone lately")

    def test_not_ticked_is_not_settled(self):
        self.post("/recipes/new/", self.LINES | {"save": "1"})
        self.assertFalse(Word.objects.exists())

    def test_one_meaning_at_a_time_and_no_animal(self):
        for food in ("dulse-dried", "nori-sheets-dried"):
            self.post("/pantry/words/", {"phrase": "Dillisk", "food": food})
        self.assertEqual(Word.objects.filter(undone=None).get().food, "nori-sheets-dried")
        for phrase, food in (("beef", "soy-mince-dry"), ("dillisk", "moon cheese"), ("", "salt")):
            page = self.post("/pantry/words/", {"phrase": phrase, "food": food})
            self.assertEqual(page.status_code, 400, phrase)
        self.assertEqual(Word.objects.filter(undone=None).count(), 1)


class Overruled(OwnFoodsCase):
    def test_a_value_with_its_reason_and_back(self):
        address = "/pantry/freekeh-dry/"
        said = {
            "key": "protein_g",
            "value": "15,5",
            "low": "15",
            "high": "16",
            "reason": "a laboratory",
        }
        self.assertEqual(self.post(address, said).status_code, 302)
        page = self.client.get(address)
        for text in ("15.5 g", "The table says", "a laboratory", "marin"):
            self.assertContains(page, text)
        self.assertContains(self.client.get("/pantry/?q=freekeh"), "overruled here")
        line = {"text": "100 g freekeh, dry", "servings": "1"}
        self.assertContains(self.post("/recipes/preview/", line, htmx=True), "15.5 g")
        row = Overrule.objects.get()
        self.post(address, said | {"value": "15,2"})
        self.assertEqual(Overrule.objects.filter(ended=None).get().value, 15.2)
        self.post(f"/pantry/overruled/{Overrule.objects.get(ended=None).pk}/end/", {})
        self.assertNotContains(self.client.get("/pantry/?q=freekeh"), "overruled here")
        self.assertContains(self.client.get(address), "until")
        row.refresh_from_db()
        self.assertIsNotNone(row.ended)

    def test_what_cannot_be_keeps_what_was_typed(self):
        for wrong in (
            {"value": "lots"},
            {"value": "150"},
            {"reason": ""},
            {"low": "20"},
            {"key": "moon"},
        ):
            with self.subTest(wrong):
                said = {"key": "protein_g", "value": "15", "reason": "why"}
                page = self.post("/pantry/freekeh-dry/", said | wrong)
                self.assertEqual(page.status_code, 400)
                name, typed = next(iter(wrong.items()))
                if typed and name != "key":
                    self.assertContains(page, f'value="{typed}"', status_code=400)
        self.assertFalse(Overrule.objects.exists())
