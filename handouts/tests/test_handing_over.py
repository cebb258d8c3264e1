"""Papers in one file, the recipe on paper, and what stays off for whom numbers can harm."""

import io

from django.urls import reverse
from pypdf import PdfReader

from handouts.models import Bundle
from handouts.papers import bundled, offers
from jobs.models import Job
from jobs.testing import work_off_now
from nutrition.tests.thorough import thorough
from planner.models import DayEntry
from planner.testing import DayCase
from recipes.facts import facts_of
from recipes.models import Recipe

POT = (
    "1 cup pearl barley, dry\n1 (15 oz) can white beans, drained\n1 large onion, diced\n1 tsp salt"
)


class Case(DayCase):
    @classmethod
    def make_rows(cls):
        super().make_rows()
        cls.pot = Recipe.objects.create(
            practice=cls.practice,
            title="Barley pot",
            role="dish",
            servings=4,
            cooked_by="simmered",
            text=POT,
            method="Simmer the barley until tender, 30 minutes. Fold in the beans.",
        )


@thorough
class OnPaper(Case):
    def paper(self, **asked):
        address = self.for_client(reverse("handouts:recipe", args=[self.pot.pk]))
        return self.client.get(address, asked)

    def test_a_recipe_in_household_measures_first_and_grams_beside(self):
        page = self.paper()
        for words in ("Makes <strong>4 servings", "1\xa0cup</strong> pearl barley", "(200 g)"):
            self.assertContains(page, words)
        self.assertContains(page, "onion, diced")
        self.assertContains(page, "Simmer the barley until tender")
        self.assertContains(page, "One serving brings")
        self.assertContains(page, "does not replace care by a licensed professional")
        self.assertContains(page, "Reads at about grade")
        for address in (
            reverse("handouts:bowl", args=[self.bowl.pk]),
            reverse("handouts:day", args=[self.day.pk]),
            reverse("handouts:recipe", args=[self.pot.pk]),
        ):
            # what we write ourselves is no harder to read than is wanted
            page = self.client.get(self.for_client(address))
            self.assertNotContains(page, "shorter sentences and words help")

    def test_for_as_many_as_asked_in_the_cups_asked_for(self):
        page = self.paper(servings="8")
        self.assertContains(page, "2\xa0cups</strong> pearl barley")
        self.assertContains(page, "Makes <strong>8 servings")
        self.assertContains(self.paper(metric="1"), "metric (cup 250 mL")
        self.practice.measures = "metric"
        self.practice.save()
        self.assertContains(self.paper(), "In US cups")
        self.assertContains(self.paper(us="1"), "US (cup 237 mL")
        refused = self.paper(servings="4000")
        self.assertContains(refused, "Written here for 4")
        self.assertContains(refused, "pearl barley")

    def test_it_is_judged_by_a_serving_and_not_by_the_pot(self):
        serving = self.pot_facts().serving["potassium_mg"].amount
        for most, asks in ((serving * 1.5, False), (serving * 0.5, True)):
            self.client_row.overrides.all().delete()
            self.client_row.overrides.create(
                key="potassium_mg",
                high=most,
                kind="order",
                reason="letter",
                by=self.user,
                given_by="Dr. Solveig",
                license="MD",
            )
            page = self.paper().content.decode()
            self.assertEqual("Ask before you eat by this page" in page, asks, most)

    def pot_facts(self):
        return facts_of(self.pot)

    def test_the_same_as_pdf_large_and_without_color(self):
        answer = self.paper(pdf="1")
        self.assertEqual(answer["Content-Type"], "application/pdf")
        self.assertIn("barley-pot.pdf", answer["Content-Disposition"])
        text = PdfReader(io.BytesIO(answer.content)).pages[0].extract_text()
        self.assertIn("Barley pot", text)
        self.assertIn("Tern Point Wellness", text)
        self.assertIn("Energy", text)
        large = PdfReader(io.BytesIO(self.paper(pdf="1", large="1", gray="1").content))
        self.assertGreater(len(large.pages), 1)
        self.assertEqual(_colors(large), {(0.0, 0.0, 0.0)})

    def test_no_calories_and_no_weights_where_they_are_hidden(self):
        DayEntry.objects.create(day=self.day, meal="dinner", recipe=self.pot, amount=1)
        addresses = [
            self.for_client(reverse("handouts:recipe", args=[self.pot.pk])),
            self.for_client(reverse("handouts:bowl", args=[self.bowl.pk])) + "?plain",
            self.for_client(reverse("handouts:day", args=[self.day.pk])),
        ]
        for address in addresses:
            self.assertRegex(self.client.get(address).content.decode(), r"kcal|\(\d+ g\)")
        self.client_row.light_words = True
        self.client_row.save()
        for address in addresses[1:]:
            self.assertNotRegex(self.client.get(address).content.decode(), r"kcal|\(\d+ g\)")
        # what is cooked has to be measured; what it comes to is not said
        recipe = self.client.get(addresses[0]).content.decode()
        self.assertNotIn("kcal", recipe)
        self.assertIn("(200 g)", recipe)


def _colors(read: PdfReader) -> set:
    """The colors that text is written in. [red, green, blue]"""
    found = set()
    for page in read.pages:
        for operands, operator in page.get_contents().operations:
            if operator == b"rg":
                found.add(tuple(round(float(one), 2) for one in operands))
    # gray below the head and the foot is no color
    return {one for one in found if len(set(one)) > 1} or {(0.0, 0.0, 0.0)}


@thorough
class Bundles(Case):
    def page(self):
        return self.client.get(self.for_client(reverse("handouts:page")))

    def make(self, **asked):
        return self.post(self.for_client(reverse("handouts:make")), asked)

    def test_the_papers_there_are_and_the_bundles(self):
        page = self.page()
        self.assertContains(page, "Harbor bowl")
        self.assertContains(page, "Monday, November 23")
        self.assertContains(page, "First visit")
        self.assertContains(page, "nothing of it is there yet")

    def test_ticked_papers_become_one_file_while_the_page_waits(self):
        made = self.make(paper=[f"bowl-{self.bowl.pk}", f"day-{self.day.pk}"])
        job = Job.objects.get()
        waits = self.client.get(made["Location"])
        self.assertContains(waits, "progress")
        self.assertIn("Refresh", waits)
        self.assertEqual(work_off_now(), 1)
        done = self.client.get(made["Location"])
        self.assertNotIn("Refresh", done)
        bundle = Bundle.objects.get()
        self.assertContains(done, reverse("handouts:made", args=[bundle.pk]))
        answer = self.client.get(self.for_client(reverse("handouts:made", args=[bundle.pk])))
        read = PdfReader(io.BytesIO(answer.content))
        self.assertEqual(len(read.pages), bundle.sheets)
        text = "".join(page.extract_text() for page in read.pages)
        self.assertIn("Harbor bowl", text)
        self.assertIn("Monday, November 23", text)
        self.assertEqual(job.pk, Job.objects.get().pk)

    def test_a_bundle_in_one_click(self):
        self.make(bundle="first")
        self.assertEqual(
            Job.objects.get().asked["keys"], [f"day-{self.day.pk}", f"bowl-{self.bowl.pk}"]
        )

    def test_a_bowl_that_nothing_is_to_be_asked_about_comes_first(self):
        self.assertFalse(any(one.asks for one in offers(self.client_row) if one.kind == "bowl"))
        self.client_row.allergies = ["soy"]
        self.client_row.save()
        there = offers(self.client_row)
        self.assertTrue(next(one for one in there if one.kind == "bowl").asks)
        self.assertContains(self.page(), "something to be asked about is printed first")
        self.assertEqual([one.kind for one in bundled(there, "first")], ["day", "bowl"])

    def test_nothing_ticked_and_what_is_gone(self):
        self.assertEqual(self.make().status_code, 302)
        self.assertFalse(Job.objects.exists())
        self.make(paper=[f"bowl-{self.bowl.pk}"])
        self.bowl.remove(self.user)
        work_off_now()
        self.assertEqual(Job.objects.get().told, ["Nothing of what was ticked is there any more."])

    def test_nobody_else_fetches_it(self):
        self.make(paper=[f"bowl-{self.bowl.pk}"])
        work_off_now()
        bundle = Bundle.objects.get()
        self.client.force_login(
            self.other_user, backend="django.contrib.auth.backends.ModelBackend"
        )
        address = self.for_client(reverse("handouts:made", args=[bundle.pk]))
        self.assertEqual(self.client.get(address).status_code, 404)
