"""A planned day keeps what it was planned with, whatever becomes of recipes, bowls and cups; a
stale change is refused; tabs."""

from datetime import date

from django.urls import reverse

from bowls.models import Bowl, BowlPart
from clients.models import Client
from planner.day import reckon_day
from planner.models import Day, DayEntry
from planner.testing import DayCase
from practice.models import Practice, User
from recipes.models import Recipe

WAY_OUT = 'class="for-nobody" href="'


class AsPlanned(DayCase):
    def setUp(self):
        super().setUp()
        self.dressing = Recipe.objects.create(
            practice=self.practice,
            title="Dill dressing",
            role="sauce",
            servings=4,
            text="2 tbsp tahini\n1/4 tsp salt",
        )
        self.salad = Recipe.objects.create(
            practice=self.practice,
            title="Bean salad",
            servings=2,
            text="200 g white beans, cooked\n30 g [recipe: Dill dressing]\n1/8 tsp salt",
        )
        DayEntry.objects.all().delete()
        address = reverse("planner:add", args=[self.day.pk])
        self.post(address, {"meal": "lunch", "bowl": self.bowl.pk})
        self.post(address, {"meal": "dinner", "recipe": self.salad.pk})

    def sodium(self):
        return reckon_day(Day.objects.get(pk=self.day.pk)).profile["sodium_mg"].amount

    def save(self, recipe, **changes):
        recipe = Recipe.objects.get(pk=recipe.pk)
        data = {
            name: getattr(recipe, name) or ""
            for name in (
                "title",
                "role",
                "text",
                "servings",
                "claims",
                "serving_measure",
                "cooked_by",
                "method",
            )
        }
        address = reverse("recipes:page", args=[recipe.pk])
        return self.client.post(
            address,
            data | {"version": recipe.version, "measures": recipe.measures} | changes,
            follow=True,
        )

    def test_saving_a_recipe_leaves_the_planned_day_and_offers_the_newer_one(self):
        before = self.sodium()
        said = self.save(self.salad, text=self.salad.text + "\n1 tsp salt")
        self.assertContains(said, "1 planned day keeps the version planned with")
        self.assertEqual(self.sodium(), before)
        page = self.client.get(reverse("planner:page", args=[self.day.pk]))
        self.assertContains(page, "It was changed since: sodium")
        row = self.day.entries.get(recipe=self.salad)
        self.post(reverse("planner:change", args=[self.day.pk, row.pk]), {"newer": "1"})
        self.assertGreater(self.sodium(), before + 500)
        self.assertNotContains(
            self.client.get(reverse("planner:page", args=[self.day.pk])), "It was changed since"
        )
        self.post(reverse("planner:undo", args=[self.day.pk]), {})
        self.assertEqual(self.sodium(), before)

    def test_what_was_there_before_a_save_without_a_reason_is_a_version(self):
        self.save(self.salad, text="100 g walnuts")
        self.save(self.salad, text="100 g pecans")
        texts = [row.data["text"] for row in self.salad.versions.all()]
        self.assertEqual(texts, ["100 g pecans", "100 g walnuts", self.salad.text])

    def test_a_part_of_a_part_a_bowl_and_the_cups_do_not_reach_back(self):
        before = self.sodium()
        self.save(self.dressing, text="2 tbsp tahini\n2 tsp salt")
        self.save(self.recipe, text="1 cup pearl barley, dry\n2 tsp salt")
        self.post(reverse("bowls:change", args=[self.bowl.pk, self.tofu.pk]), {"remove": "1"})
        self.client.post(
            "/practice/",
            {"name": "Tern Point Wellness", "town": "", "contact": "", "measures": "australian"},
        )
        self.assertEqual(Practice.objects.get(pk=self.practice.pk).measures, "australian")
        self.assertEqual(self.sodium(), before)
        self.assertContains(
            self.client.get(reverse("planner:page", args=[self.day.pk])),
            "It was changed since",
            count=2,
        )

    def test_renaming_a_part_keeps_it_in_what_names_it(self):
        before = self.sodium()
        self.save(self.dressing, title="Dill sauce")
        salad = Recipe.objects.get(pk=self.salad.pk)
        self.assertIn("[recipe: Dill sauce]", salad.text)
        self.assertEqual(salad.versions.first().why, "“Dill dressing” is called “Dill sauce” now")
        page = self.client.get(reverse("recipes:page", args=[salad.pk]))
        self.assertEqual(page.context["facts"].unresolved, ())
        self.assertEqual(self.sodium(), before)

    def test_a_bowl_says_what_a_save_changed_in_it(self):
        said = self.save(self.recipe, text="1 cup pearl barley, dry\n3 tsp salt")
        self.assertContains(said, "Harbor bowl holds it and changes with it: ")

    def test_a_version_made_for_one_client_is_theirs(self):
        address = self.for_client(reverse("recipes:swap", args=[self.salad.pk]))
        page = self.client.get(address)
        gaps = page.context["gaps"]
        token = next(one.token for gap in gaps for one in gap.swaps)
        self.client.post(address, {"change": token}, follow=True)
        own = Recipe.objects.get(client=self.client_row)
        self.assertEqual(own.title, "Bean salad, Osk Brannigan")
        self.assertEqual(
            Recipe.objects.get(pk=self.salad.pk).text, self.salad.text, "everybody's stays as it is"
        )
        other = Client.objects.create(
            practice=self.practice,
            name="Other",
            sex="male",
            birth_year=1980,
            height_cm=180,
            weight_kg=80,
        )
        self.assertNotContains(self.client.get(f"/for/{other.pk}/recipes/"), "Bean salad, Osk")
        self.assertContains(self.client.get(self.for_client("/recipes/")), "only for Osk Brannigan")


class Stale(DayCase):
    def setUp(self):
        super().setUp()
        self.colleague = User.objects.create_user(
            "kari",
            password="a-long-password",
            practice=self.practice,
            first_name="Kari",
            role="practitioner",
        )
        self.second = self.client_class()
        self.second.force_login(self.colleague, backend="django.contrib.auth.backends.ModelBackend")

    def test_a_change_of_a_bowl_that_a_colleague_changed_is_refused_with_both(self):
        change = reverse("bowls:change", args=[self.bowl.pk, self.kale.pk])
        self.second.post(change, {"amount": "80 g", "version": 1})
        refused = self.client.post(
            change, {"amount": "100 g", "version": 1}, headers={"HX-Request": "true"}
        )
        for text in (
            "Kari changed this bowl",
            "Kale, raw 60 g → Kale, raw 80 g",
            "Kale, raw to 100 g",
            'value="100 g"',
        ):
            self.assertContains(refused, text, status_code=409)
        self.assertEqual(BowlPart.objects.get(pk=self.kale.pk).grams, 80)
        again = self.client.post(
            change,
            {"amount": "100 g", "version": Bowl.objects.get().version},
            headers={"HX-Request": "true"},
        )
        self.assertEqual(again.status_code, 200)
        self.assertEqual(BowlPart.objects.get(pk=self.kale.pk).grams, 100)

    def test_undo_says_whose_change_it_takes_back_and_does_not_without_seeing_it(self):
        self.second.post(
            reverse("bowls:change", args=[self.bowl.pk, self.kale.pk]),
            {"amount": "80 g", "version": 1},
        )
        undo = reverse("bowls:undo", args=[self.bowl.pk])
        self.assertEqual(
            self.client.post(undo, {"version": 1}, headers={"HX-Request": "true"}).status_code, 409
        )
        self.assertEqual(BowlPart.objects.get(pk=self.kale.pk).grams, 80)
        page = self.client.get(reverse("bowls:page", args=[self.bowl.pk]))
        self.assertContains(page, "Undo what Kari did")
        self.client.post(undo, {"version": Bowl.objects.get().version})
        self.assertEqual(BowlPart.objects.get(pk=self.kale.pk).grams, 60)

    def test_a_day_and_the_settings_of_a_bowl(self):
        change = reverse("planner:change", args=[self.day.pk, self.entry.pk])
        self.second.post(change, {"amount": "2", "version": 1})
        refused = self.client.post(
            change, {"amount": "1/2", "version": 1}, headers={"HX-Request": "true"}
        )
        self.assertContains(refused, "Kari changed this day", status_code=409)
        self.assertEqual(DayEntry.objects.get(pk=self.entry.pk).amount, 2)
        settings = reverse("bowls:settings", args=[self.bowl.pk])
        self.second.post(settings, {"name": "Quay bowl", "vessel_ml": "900", "version": 1})
        refused = self.client.post(
            settings, {"name": "Harbor bowl", "vessel_ml": "1200", "version": 1}
        )
        for text in ("Quay bowl", 'value="1200"'):
            self.assertContains(refused, text, status_code=409)

    def test_a_part_that_a_colleague_took_out(self):
        change = reverse("bowls:change", args=[self.bowl.pk, self.kale.pk])
        self.second.post(change, {"remove": "1"})
        refused = self.client.post(
            change, {"amount": "100 g", "version": 1}, headers={"HX-Request": "true"}
        )
        self.assertContains(refused, "somebody took it out", status_code=409)

    def test_a_recipe_shows_everything_that_differs(self):
        address = reverse("recipes:page", args=[self.recipe.pk])
        data = {
            "title": "Dill barley",
            "role": "base",
            "text": self.recipe.text,
            "servings": "4",
            "version": 1,
        }
        self.second.post(address, data | {"batch_g": "777", "method": "Boil it.", "role": "dish"})
        refused = self.client.post(address, data | {"claims": "4 to 6"})
        for text in ("777", "Boil it.", "4 to 6", "Weight of the batch", "Part of a bowl"):
            self.assertContains(refused, text, status_code=409)


class TwoTabs(DayCase):
    """Two tabs of one browser share a session: what is done in one is for the client in its own
    address."""

    def setUp(self):
        super().setUp()
        self.ilse = Client.objects.create(
            practice=self.practice,
            name="Ilse Varga",
            sex="female",
            birth_year=1954,
            height_cm=164,
            weight_kg=61,
            allergies=["tree nuts"],
        )
        self.first, self.second = f"/for/{self.client_row.pk}", f"/for/{self.ilse.pk}"

    def test_a_day_and_a_bowl_are_made_for_the_client_of_their_own_tab(self):
        self.client.get(f"{self.first}/days/")
        self.client.get(f"{self.second}/clients/{self.ilse.pk}/")
        self.client.post(f"{self.first}/days/new/", {"date": "2026-12-03"})
        self.client.post(f"{self.first}/bowls/new/", {"name": "Tab one", "vessel_ml": "900"})
        self.assertEqual(Day.objects.get(date=date(2026, 12, 3)).client, self.client_row)
        self.assertEqual(Bowl.objects.get(name="Tab one").client, self.client_row)

    def test_a_bowl_of_nobody_speaks_for_the_client_in_the_address_and_for_nobody_without(self):
        bowl = Bowl.objects.create(practice=self.practice, name="Anybody's", vessel_ml=900)
        BowlPart.objects.create(bowl=bowl, role="topping", food="walnuts", grams=30)
        self.client.get(f"{self.second}/clients/{self.ilse.pk}/")
        address = f"/bowls/{bowl.pk}/"
        self.assertNotContains(self.client.get(address), "does not tolerate")
        self.assertContains(self.client.get(address), "This bowl is for nobody")
        self.assertNotContains(self.client.get(self.first + address), "does not tolerate")
        self.assertContains(
            self.client.get(self.second + address), "does not tolerate what is in: Walnuts"
        )
        self.assertContains(
            self.client.get(f"/handouts/bowls/{bowl.pk}/"), "for nobody in particular"
        )
        self.assertContains(
            self.client.get(f"{self.second}/handouts/bowls/{bowl.pk}/"), "for Ilse Varga"
        )

    def test_somebody_elses_record_says_whose_it_is(self):
        page = self.client.get(f"{self.second}/bowls/{self.bowl.pk}/")
        self.assertContains(page, "This bowl is <strong>Osk Brannigan's</strong>", html=False)
        self.client.post(f"{self.second}/bowls/{self.bowl.pk}/copy/")
        self.assertEqual(Bowl.objects.get(client=self.ilse).parts.count(), 3)
        # a day, and a client's page, are their client's alone
        there = self.client.get(f"{self.second}/days/{self.day.pk}/")
        self.assertEqual(there.request["PATH_INFO"], f"{self.first}/days/{self.day.pk}/")

    def test_every_link_of_a_page_leads_on_for_its_client(self):
        for address in (
            "/recipes/",
            f"/bowls/{self.bowl.pk}/",
            "/days/",
            "/pantry/?q=kale",
            "/compare/",
            f"/recipes/{self.recipe.pk}/",
        ):
            page = self.client.get(self.second + address)
            links = [
                link
                # the way out leads on for nobody, on purpose
                for link in page.content.decode().replace(WAY_OUT, "").split('href="')[1:]
                if link.startswith("/") and not link.startswith("/static/")
            ]
            actions = [
                link for link in page.content.decode().split('action="')[1:] if link.startswith("/")
            ]
            strays = [
                link.split('"')[0]
                for link in links + actions
                if not link.startswith((self.second, "/sign-", "/practice/"))
            ]
            with self.subTest(address):
                self.assertEqual(strays, [])
