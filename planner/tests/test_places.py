"""What something is judged by: a bowl by the meal it stands in, a meal by what the rest of the day
leaves, a sauce in the bowls that wear it; and what is settled before anything is proposed."""

from datetime import timedelta

from django.http import QueryDict
from django.urls import reverse
from django.utils import timezone

from bowls.changeable import BowlChanges
from bowls.models import Bowl, BowlPart
from bowls.page import UNSAID_MEAL
from changes.places import meal_of_bowl, worn_in
from changes.proposals import problem_of
from clients.models import Client
from clients.testing import asked_for
from nutrition.portions.proposals import balanced
from planner.changeable import DayChanges
from planner.models import Day, DayEntry
from planner.testing import DayCase
from recipes.changeable import RecipeChanges
from recipes.models import Recipe

LIVE = {"HX-Request": "true"}


class Places(DayCase):
    def setUp(self):
        super().setUp()
        self.sauce = Recipe.objects.create(
            practice=self.practice,
            title="Sunflower pour",
            client=self.client_row,
            role="sauce",
            servings=4,
            text="1/2 cup sunflower seeds\n1/2 cup water\n1/2 tsp salt\n1 tsp dijon mustard",
        )
        self.plate = Bowl.objects.create(
            practice=self.practice, name="Pier plate", client=self.client_row, vessel_ml=1500
        )
        for place, (role, food, grams) in enumerate(
            (("base", "millet-cooked", 200), ("protein", "white-beans-cooked", 120))
        ):
            BowlPart.objects.create(bowl=self.plate, role=role, food=food, grams=grams, place=place)
        self.worn = BowlPart.objects.create(
            bowl=self.plate, role="sauce", recipe=self.sauce, grams=40, place=3
        )

    def day_with(self, meal, **more):
        day, _new = Day.objects.get_or_create(
            practice=self.practice, client=self.client_row, date=timezone.localdate()
        )
        return DayEntry.objects.create(day=day, meal=meal, **more)

    def test_a_bowl_is_the_meal_that_it_stands_in(self):
        it = BowlChanges(asked_for(self.client_row), self.plate)
        look = it.look(QueryDict(""))
        self.assertEqual((look.chosen, look.chosen_words), ("lunch", UNSAID_MEAL))
        self.day_with("dinner", bowl=self.plate, amount=1)
        self.assertEqual(meal_of_bowl(self.plate, self.client_row), "dinner")
        look = BowlChanges(asked_for(self.client_row), self.plate).look(QueryDict(""))
        self.assertEqual((look.chosen, look.chosen_words), ("dinner", "As it stands in a day."))
        far = Day.objects.create(
            practice=self.practice,
            client=self.client_row,
            date=timezone.localdate() + timedelta(days=9),
        )
        DayEntry.objects.create(day=far, meal="lunch", bowl=self.plate, amount=1)
        self.assertEqual(
            meal_of_bowl(self.plate, self.client_row), "dinner", "the first it was put in"
        )
        look = it.look(QueryDict("meal=lunch"))
        self.assertEqual((look.chosen, look.chosen_words), ("lunch", ""))

    def test_a_meal_answers_for_what_the_rest_of_the_day_leaves(self):
        for meal, food, grams in (
            ("breakfast", "rolled-oats-cooked", 300),
            ("lunch", "lentils-cooked", 250),
        ):
            self.day_with(meal, food=food, amount=grams)
        entry = self.day_with("dinner", food="brown-rice-cooked", amount=200)
        it = DayChanges(asked_for(self.client_row), entry.day)
        problem = problem_of(it, it.look(QueryDict("meal=dinner")))
        fiber = next(aim for aim in problem.aims if aim.key == "fiber_g")
        whole = it.day["fiber_g"].low
        self.assertLess(fiber.low, whole)
        self.assertGreater(fiber.low, 0)
        sodium = next(aim for aim in problem.aims if aim.key == "sodium_mg")
        self.assertLess(sodium.high, it.day["sodium_mg"].high)
        alone = BowlChanges(asked_for(self.client_row), self.plate)
        keys = {a.key for a in problem_of(alone, alone.look(QueryDict(""))).aims if a.weight}
        self.assertEqual(keys, {"energy_kcal", "protein_g"}, "of a meal alone no more is asked")

    def test_a_sauce_is_judged_in_the_bowl_that_wears_it(self):
        self.assertEqual([one.name for one in worn_in(self.sauce, self.client_row)], ["Pier plate"])
        it = RecipeChanges(asked_for(self.client_row), self.sauce)
        look = it.look(QueryDict(""), swaps=True)
        self.assertGreater(look.profile["energy_kcal"].amount, 300, "the whole bowl")
        self.assertIn("Pier plate", dict(look.options)[look.chosen])
        page = self.client.get(reverse("recipes:swap", args=[self.sauce.pk]), headers=LIVE)
        self.assertContains(page, "worn by Pier plate")
        self.worn.delete()
        alone = RecipeChanges(asked_for(self.client_row), self.sauce)
        look = alone.look(QueryDict(""), swaps=True)
        self.assertTrue(look.only_mosts)
        page = self.client.get(reverse("recipes:swap", args=[self.sauce.pk]), headers=LIVE)
        self.assertNotContains(page, "Energy under")

    def test_what_a_dish_must_not_hold_is_settled_before_it_is_balanced(self):
        Client.objects.filter(pk=self.client_row.pk).update(allergies=["mustard"])
        address = reverse("bowls:balance", args=[self.plate.pk])
        page = self.client.get(address, headers=LIVE)
        self.assertContains(page, "settle this first")
        self.assertContains(page, "Make it without Dijon mustard")
        self.assertNotContains(page, "Take what is")
        self.client.post(
            reverse("bowls:without", args=[self.plate.pk]),
            {"version": self.plate.version, "item": str(self.worn.pk)},
        )
        page = self.client.get(address, headers=LIVE)
        self.assertNotContains(page, "settle this first")

    def test_a_like_food_is_offered_before_a_food_is_left_out(self):
        Client.objects.filter(pk=self.client_row.pk).update(allergies=["sesame"])
        BowlPart.objects.create(bowl=self.plate, role="sauce", food="tahini", grams=20, place=4)
        page = self.client.get(
            reverse("bowls:balance", args=[self.plate.pk]), headers=LIVE
        ).content.decode()
        held = page[page.index("Tahini") :]
        self.assertIn(" instead, ", held)
        self.assertLess(held.index(" instead, "), held.index("Leave it out"))

    def test_nothing_is_proposed_where_all_is_inside(self):
        self.plate.parts.filter(food="white-beans-cooked").update(food="tempeh", grams=200)
        row = self.plate.parts.get(food="millet-cooked")
        for grams in range(100, 500, 10):
            row.grams = grams
            row.save()
            it = BowlChanges(asked_for(self.client_row), self.plate)
            if not balanced(problem_of(it, it.look(QueryDict("meal=breakfast&asked=1")))).told:
                break
        page = self.client.get(
            reverse("bowls:balance", args=[self.plate.pk]),
            {"meal": "breakfast", "asked": "1"},
            headers=LIVE,
        )
        self.assertContains(page, "Nothing to change")


class BowlInADay(DayCase):
    def test_it_is_judged_as_the_meal_it_stands_in(self):
        page = self.client.get(self.for_client(reverse("bowls:page", args=[self.bowl.pk])))
        self.assertContains(page, "As it stands in a day.")
        self.assertContains(page, "the rest of the day has")
