"""Anything beside anything; the lesson; the ladder."""

from django.urls import reverse
from django_scopes import scopes_disabled

from nutrition.composition.foods import food_table
from planner.testing import DayCase
from recipes.models import Recipe
from recipes.versions import keep


class Plates(DayCase):
    somebody = False

    def compare(self, *keys, name="plates:compare", **asked):
        address = self.for_client(reverse(name)) if self.somebody else reverse(name)
        return self.client.get(address, {"with": list(keys)} | asked)

    def test_every_kind_beside_every_other(self):
        version = keep(self.recipe, self.user, "as it was")
        keys = [
            f"bowl-{self.bowl.pk}",
            f"recipe-{self.recipe.pk}",
            f"version-{version.pk}",
            f"day-{self.day.pk}",
            "food-egg-boiled",
        ]
        for key in keys:
            with self.subTest(key):
                page = self.compare("food-walnuts", key)
                self.assertContains(page, "What differs, as served")
                self.assertContains(page, "Walnuts")
        page = self.compare(*keys[:3])
        self.assertContains(page, "Three plates")
        self.assertNotContains(page, "A third")

    def test_up_to_six_and_none_is_dropped_in_silence(self):
        keys = [
            f"food-{slug}"
            for slug in (
                "walnuts",
                "kale-raw",
                "tahini",
                "tofu-firm",
                "millet-cooked",
                "celeriac-raw",
            )
        ]
        for count in (4, 6):
            page = self.compare(*keys[:count])
            for key in keys[:count]:
                with self.subTest(key, count=count):
                    self.assertContains(page, food_table()[key[5:]].name)
        page = self.compare(*keys, "food-kohlrabi-raw")
        self.assertContains(page, "plates stand side by side at most")

    def test_per_spoon_and_per_hundred_calories(self):
        for basis, words in (("tbsp", "per tablespoon"), ("kcal_100", "per 100 kcal")):
            page = self.compare("food-tahini", "food-walnuts", basis=basis)
            with self.subTest(basis):
                self.assertContains(page, words)

    def test_at_equal_calories(self):
        page = self.compare("food-walnuts", "food-kale-raw", basis="calories")
        self.assertContains(page, "a handful")
        kcal = {
            row["plate"].key: row["plate"].profile["energy_kcal"].amount
            for row in page.context["plates"]
        }
        self.assertAlmostEqual(kcal["food-walnuts"], kcal["food-kale-raw"])
        self.assertNotIn("energy_kcal", [row["difference"].key for row in page.context["rows"]])
        scales = [row["round"]["drawing"].full for row in page.context["plates"]]
        volumes = [row["plate"].volume_ml for row in page.context["plates"]]
        self.assertAlmostEqual(
            scales[0] / scales[1], volumes[0] / volumes[1], msg="both in the same vessel"
        )

    def test_what_matters_to_the_client_leads(self):
        self.somebody = True
        rows = self.compare("food-walnuts", f"bowl-{self.bowl.pk}").context["rows"]
        leading = [row["difference"].matters for row in rows]
        self.assertEqual(leading, sorted(leading, reverse=True))
        self.assertTrue(leading[0])

    def test_what_is_not_there_or_not_comparable(self):
        page = self.compare("food-xyz", "recipe-999", "bowl-x", "nonsense", "day-1-2")
        self.assertContains(page, "Put anything beside anything")
        self.assertContains(
            self.compare("food-water", "food-walnuts", basis="calories"),
            "cannot be brought to the others",
        )
        with scopes_disabled():
            theirs = Recipe.objects.create(
                practice=self.other_practice, title="Theirs", text="100 g walnuts"
            )
        self.assertNotContains(self.compare(f"recipe-{theirs.pk}"), "Theirs")

    def test_find_one_to_put_beside_it(self):
        page = self.client.get(
            reverse("plates:compare"),
            {"with": "food-walnuts", "q": "barley"},
            headers={"HX-Request": "true"},
        )
        self.assertContains(page, f"with=food-walnuts&amp;with=recipe-{self.recipe.pk}")
        self.assertContains(self.compare("food-walnuts", q="chicken"), "animal food")

    def test_a_lesson_has_three_plates_and_names_what_it_leaves_out(self):
        foods = ("food-walnuts", "food-almonds", "food-tahini", "food-olive-oil")
        page = self.compare(*foods, name="plates:lesson")
        self.assertEqual(len(page.context["plates"]), 3)
        self.assertContains(page, "is not shown: three plates stand side by side at most")
        page = self.compare(*foods[:3], name="plates:lesson")
        self.assertEqual(len(page.context["plates"]), 3)
        self.assertNotContains(page, "is not shown")

    def test_the_lesson_is_without_calories_where_they_harm(self):
        self.assertContains(
            self.compare(
                "food-walnuts", f"bowl-{self.bowl.pk}", name="plates:lesson", basis="calories"
            ),
            "kcal",
        )
        self.client_row.conditions = ["eating_disorder_history"]
        self.client_row.save()
        self.somebody = True
        page = self.compare(
            "food-walnuts", f"bowl-{self.bowl.pk}", name="plates:lesson", basis="calories"
        )
        self.assertNotContains(page, "kcal")
        self.assertContains(page, "does not replace care")

    def test_the_ladder_has_what_the_client_eats_and_what_is_proposed(self):
        self.somebody = True
        page = self.compare("food-olive-oil", name="plates:ladder", kcal="200")
        names = [rung.plate.name for rung in page.context["rungs"]]
        self.assertEqual(names[0], "Olive oil")
        self.assertIn("Harbor bowl", names)
        for rung in page.context["rungs"]:
            self.assertAlmostEqual(rung.grams * rung.density, 200)
        places = [one.label_y for one in page.context["drawing"].rungs]
        self.assertTrue(
            all(b - a >= 21.9 for a, b in zip(places, places[1:], strict=False)),
            "labels do not lie on each other",
        )
        self.assertContains(self.compare(name="plates:ladder", kcal="many"), "One rung down")
