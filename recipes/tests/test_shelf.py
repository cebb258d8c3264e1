"""The shelf: every dish reckoned and ready, enough of each kind for every school, copied once."""

from django.urls import reverse
from django_scopes import scope

from clients.testing import ClientCase
from nutrition.planning.kinds import kinds_of_recipe
from nutrition.safety.cautions import Situation
from nutrition.safety.gate import Gate, avoided_kinds
from nutrition.targets.conditions import in_play
from nutrition.targets.schools import schools
from nutrition.tests.thorough import thorough
from practice.models import Practice
from recipes.facts import facts_of
from recipes.models import Recipe
from recipes.shelf.copying import copy_in
from recipes.shelf.dishes import as_recipe, read_dishes, schools_for, shelf

# What a week needs of each kind that it has (and a milk, a shake, a snack, a bread besides).
NEEDED = {"breakfast": 2, "soup": 2, "main": 3, "salad": 2}


class Shelf(ClientCase):
    def recipes(self):
        return [as_recipe(dish, self.practice) for dish in shelf()]

    def of_kinds(self, recipes):
        out = {}
        for recipe in recipes:
            for kind in kinds_of_recipe(recipe.title, recipe.role, facts_of(recipe).foods()):
                out.setdefault(kind, []).append(recipe.title)
        return out

    def titles(self):
        return set(Recipe.objects.values_list("title", flat=True))

    def test_a_block_is_read(self):
        (dish,) = read_dishes(
            "# A pot | dish | 4 | 900 | simmered\n1 cup millet\n-- Stir.\n-- Rest."
        )
        self.assertEqual((dish.title, dish.role, dish.servings), ("A pot", "dish", 4.0))
        self.assertEqual(
            (dish.batch_g, dish.cooked_by, dish.text), (900.0, "simmered", "1 cup millet")
        )
        self.assertEqual(dish.method, "Stir. Rest.")

    def test_every_dish_is_settled_has_steps_and_a_serving_that_somebody_eats(self):
        titles = [dish.title for dish in shelf()]
        self.assertGreaterEqual(len(titles), 80)
        self.assertEqual(len({title.lower() for title in titles}), len(titles))
        self.assertEqual([dish.key for dish in shelf()], list(range(len(titles))))
        for recipe in self.recipes():
            with self.subTest(recipe.title):
                facts = facts_of(recipe)
                self.assertEqual([line.text for line in facts.unresolved], [])
                self.assertTrue(recipe.method)
                self.assertLessEqual(facts.serving["energy_kcal"].amount, 650.0)
                self.assertLessEqual(facts.serving["sodium_mg"].amount, 800.0)

    @thorough
    def test_every_school_has_enough_for_a_week(self):
        recipes = self.recipes()
        for code in schools():
            some = self.of_kinds([one for one in recipes if code in schools_for(one)])
            for kind, least in NEEDED.items():
                with self.subTest(school=code, kind=kind):
                    self.assertGreaterEqual(len(some.get(kind, [])), least)

    @thorough
    def test_the_common_conditions_have_mains_soups_and_breakfasts(self):
        recipes = self.recipes()
        for codes, allergies in (
            ({"ckd_3b", "ckd_3"}, ()),
            ({"hypertension"}, ()),
            ({"diabetes", "insulin"}, ()),
            ({"celiac"}, ()),
            ({"gout"}, ()),
            ({"warfarin"}, ()),
            (set(), ("soy",)),
            (set(), ("tree nuts", "peanut")),
            (set(), ("sesame", "mustard")),
        ):
            have = in_play(codes, 50.0)
            gate = Gate(
                situation=Situation(conditions=have, allergies=frozenset(allergies)),
                avoided=avoided_kinds(codes, None),
            )
            fit = [one for one in recipes if not gate.why_not_dish(facts_of(one).foods())]
            some = self.of_kinds(fit)
            for kind in ("breakfast", "soup", "main"):
                with self.subTest(codes=codes, allergies=allergies, kind=kind):
                    self.assertGreaterEqual(len(some.get(kind, [])), 2, sorted(some))

    def test_it_is_looked_through_and_copied_one_by_school_and_all_of_it_once(self):
        address = reverse("recipes:shelf")
        page = self.client.get(address)
        self.assertContains(page, "Barley risotto with peas and lemon")
        one = next(dish for dish in shelf() if dish.title.startswith("Barley risotto"))
        copy = reverse("recipes:shelf-copy")
        self.client.post(copy, {"dish": one.key})
        made = Recipe.objects.get(title=one.title)
        self.assertEqual((made.text, made.servings, made.unsettled), (one.text, 4.0, 0))
        self.assertEqual(made.versions.get().why, "from the shelf")
        self.client.post(copy, {"dish": one.key})
        self.assertEqual(Recipe.objects.filter(title=one.title).count(), 1)
        self.client.post(copy, {"school": "light_starchy"})
        light = [
            dish
            for dish in shelf()
            if "light_starchy" in schools_for(as_recipe(dish, self.practice))
        ]
        titles = set(Recipe.objects.values_list("title", flat=True))
        self.assertLessEqual({dish.title for dish in light}, titles)
        self.client.post(copy)
        self.assertLessEqual(
            {dish.title for dish in shelf()}, set(Recipe.objects.values_list("title", flat=True))
        )
        self.assertContains(self.client.get(address), "in the practice")

    def test_another_practice_gets_nothing(self):
        other = Practice.objects.create(name="Gull Rock")
        copy_in(self.practice, shelf()[:2], self.user)
        with scope(practice=other):
            self.assertFalse(Recipe.objects.exists())
