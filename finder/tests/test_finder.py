"""Finding from anywhere, and where the numbers of a page come from."""

from datetime import date

from django.urls import reverse
from django.utils import timezone

from clients.models import Client
from finder.places import date_in, places
from planner.models import DayEntry
from planner.testing import DayCase
from recipes.models import Recipe


class Find(DayCase):
    def names(self, words, client=None):
        return {(place.kind, place.name) for place in places(words, client)}

    def test_everything_is_found_by_a_few_letters(self):
        self.day.note = "shore leave"
        self.day.save()
        for words, found in (
            ("osk", ("client", "Osk Brannigan")),
            ("barley dill", ("recipe", "Dill barley")),
            ("harb", ("bowl", "Harbor bowl")),
            ("shore", ("day", "Monday, November 23")),
            ("2026-11-23", ("day", "Monday, November 23")),
            ("kohlrabi", ("food", "Kohlrabi, raw")),
            ("time zone", ("page", "Settings of the practice")),
            ("shortcuts", ("page", "Your own settings")),
        ):
            with self.subTest(words):
                self.assertIn(found, self.names(words))
        self.assertEqual(places("", None), [])

    def test_each_opens(self):
        for words in ("osk", "dill", "harbor", "2026-11-23", "settings", "kale"):
            for place in places(words, None):
                with self.subTest(place.url):
                    self.assertIn(self.client.get(place.url).status_code, (200, 302))

    def test_what_is_of_another_client_opens_for_them_and_what_is_archived_is_not_found(self):
        other = Client.objects.get(pk=self.client_row.pk)
        other.pk, other.name = None, "Tove Calder"
        other._state.adding = True
        other.save()
        # one of another client is opened for them
        (place,) = (one for one in places("harbor", other) if one.kind == "bowl")
        self.assertEqual(place.url, self.for_client(f"/bowls/{self.bowl.pk}/"))
        self.recipe.archive(True)
        self.assertNotIn(("recipe", "Dill barley"), self.names("dill"))

    def test_a_date_without_its_year_is_the_nearest(self):
        today = date(2026, 11, 26)
        self.assertEqual(date_in("Nov 24", today), date(2026, 11, 24))
        self.assertEqual(date_in("24 November", today), date(2026, 11, 24))
        self.assertEqual(date_in("Jan 3", today), date(2027, 1, 3))
        self.assertEqual(date_in("12/31", date(2027, 1, 2)), date(2026, 12, 31))
        self.assertIsNone(date_in("kale", today))
        self.assertIsNone(date_in("Feb 30", today))

    def test_the_page_without_and_with_script(self):
        self.assertContains(self.client.get("/find/", {"q": "osk"}), "Osk Brannigan")
        live = self.client.get("/find/", {"q": "zzzz"}, headers={"HX-Request": "true"})
        self.assertContains(live, "Nothing is called")


class Why(DayCase):
    def why(self, of, key="protein_g"):
        return self.client.get(reverse("finder:why", args=[of, key]))

    def test_down_to_the_row_and_its_source(self):
        DayEntry.objects.create(day=self.day, meal="dinner", food="walnuts", amount=30)
        for of, told in (
            (f"bowl-{self.bowl.pk}", ("Tofu, firm", "1 cup pearl barley, dry", "SR Legacy")),
            (f"day-{self.day.pk}", ("Harbor bowl", "Walnuts", "in 100 g")),
            (f"meal-{self.day.pk}.dinner", ("Walnuts",)),
            (f"recipe-{self.recipe.pk}", ("100 g leeks", "of the batch")),
            ("food-kale-raw", ("Kale, raw",)),
        ):
            page = self.why(of)
            for text in told:
                with self.subTest(of, text=text):
                    self.assertContains(page, text)
        self.assertNotContains(self.why(f"meal-{self.day.pk}.dinner"), "Harbor bowl")

    def test_a_score_of_all_foods_says_what_each_has_in_it(self):
        for of in (f"bowl-{self.bowl.pk}", f"day-{self.day.pk}", f"recipe-{self.recipe.pk}"):
            for key, told in (
                ("amino_acid_score", ("pattern of 2013", "Digestibility", "Barley, pearled")),
                ("glycemic_load", ("Salmerón et al. 1997", "Atkinson", "Barley, pearled")),
            ):
                page = self.why(of, key)
                for text in told:
                    with self.subTest(of, key=key, text=text):
                        self.assertContains(page, text)
        self.assertEqual(self.why("cloud-1", "glycemic_load").status_code, 404)
        self.assertEqual(self.why("food-kale-raw", "glycemic_load").status_code, 404)

    def test_the_numbers_that_are_told_lead_to_where_they_come_from(self):
        page = self.client.get(self.for_client(reverse("bowls:page", args=[self.bowl.pk])))
        for key in ("kcal_per_gram", "leucine_g", "amino_acid_score", "glycemic_load"):
            with self.subTest(key):
                self.assertContains(page, reverse("finder:why", args=[f"bowl-{self.bowl.pk}", key]))

    def test_what_is_not_there(self):
        for of in ("bowl-99999", "bowl-x", "cloud-1", "food-unicorn", "day-"):
            with self.subTest(of):
                self.assertEqual(self.why(of).status_code, 404)
        self.assertEqual(self.why(f"bowl-{self.bowl.pk}", "nonsense").status_code, 404)

    def test_a_planned_dish_is_told_as_it_was_planned(self):
        self.client.post(
            self.for_client(reverse("planner:add", args=[self.day.pk])),
            {"recipe": self.recipe.pk, "meal": "dinner"},
        )
        Recipe.objects.filter(pk=self.recipe.pk).update(text="100 g kohlrabi")
        self.assertContains(self.why(f"meal-{self.day.pk}.dinner"), "1 cup pearl barley, dry")


class Zone(DayCase):
    def test_dates_are_the_practices(self):
        for zone in ("Pacific/Kiritimati", "Pacific/Pago_Pago"):
            with self.subTest(zone):
                settings = {"name": "Tern Point", "measures": "us", "time_zone": zone}
                self.client.post("/practice/", settings, follow=True)
                with timezone.override(zone):
                    today = timezone.localdate().isoformat()
                page = self.client.get(self.for_client("/days/"))
                self.assertContains(page, f'value="{today}"')
        refused = {"name": "Tern Point", "measures": "us", "time_zone": "Mars/Base"}
        self.assertEqual(self.client.post("/practice/", refused).status_code, 400)

    def test_letters_as_commands_can_be_turned_off(self):
        self.assertContains(self.client.get("/you/"), "data-letter-keys")
        self.client.post("/you/", {"first_name": "Marin", "last_name": "Oakes"})
        self.assertNotContains(self.client.get("/you/"), "data-letter-keys")
