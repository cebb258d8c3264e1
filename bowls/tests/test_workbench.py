"""At the bench of a bowl: its meal's share, adding with an amount, archived and back."""

from django.urls import reverse

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from bowls.testing import BowlCase
from clients.models import CautionDismissal
from clients.plan.in_force import plan_of
from clients.plan.strip import in_one_line, strip
from nutrition.targets.aims import share_of_meal
from recipes.adding import typed


class MealShare(BowlCase):
    def address(self, name, *more):
        return self.for_client(reverse(f"bowls:{name}", args=[self.bowl.pk, *more]))

    def test_a_bowl_stands_beside_its_meal_and_not_the_day(self):
        plan = plan_of(self.client_row)
        lunch = next(meal for meal in plan.meals if meal.key == "lunch")
        profile = reckon_bowl(self.bowl).profile
        rows = {row.key: row for row in strip(plan, profile, lunch)}
        share = share_of_meal(plan.day, lunch, "energy_kcal")
        self.assertTrue(share.judged)
        self.assertAlmostEqual(share.target.aim, plan.day["energy_kcal"].aim * lunch.share)
        self.assertIn("under by", rows["energy_kcal"].word)
        day_word = {row.key: row for row in strip(plan, profile)}["energy_kcal"].word
        self.assertNotEqual(rows["energy_kcal"].word, day_word)
        # what is a matter of the day is not judged by one meal, and says its part
        self.assertEqual(rows["fiber_g"].state, "share")
        self.assertRegex(rows["fiber_g"].word, r"^\d+ % of the day's$")
        self.assertLessEqual(len(rows), 7)

    def test_what_passes_the_whole_days_most_is_over_at_one_meal(self):
        plan = plan_of(self.client_row)
        lunch = next(meal for meal in plan.meals if meal.key == "lunch")
        self.bowl.parts.create(role="topping", food="salt", grams=12, place=9)
        rows = {row.key: row for row in strip(plan, reckon_bowl(self.bowl).profile, lunch)}
        self.assertEqual(rows["sodium_mg"].state, "over")
        self.assertIn("sodium over", in_one_line(list(rows.values())))

    def test_the_meal_is_said_kept_and_the_same_in_balance(self):
        version = self.bowl.version
        self.client.post(self.address("meal"), {"meal": "dinner"})
        stored = Bowl.objects.get(pk=self.bowl.pk)
        self.assertEqual((stored.meal, stored.version), ("dinner", version))
        for name in ("page", "balance", "swap"):
            with self.subTest(name):
                self.assertContains(
                    self.client.get(self.address(name)), '<option value="dinner" selected>'
                )


class Adding(BowlCase):
    def add(self, **data):
        self.post(self.for_client(reverse("bowls:add", args=[self.bowl.pk])), data, htmx=True)
        return self.bowl.parts.order_by("-pk").first()

    def test_an_amount_before_the_name(self):
        for text, amount, words in (
            ("200 g cooked millet", "200 g", "cooked millet"),
            ("1/2 cup sunflower seeds", "1/2 cup", "sunflower seeds"),
            ("a handful of kale", "a handful", "kale"),
            ("2 dill barley", "2", "dill barley"),
            ("cooked millet", "", "cooked millet"),
            ("", "", ""),
        ):
            with self.subTest(text):
                self.assertEqual((typed(text).amount, typed(text).words), (amount, words))

    def test_it_is_found_and_added_with_its_amount(self):
        found = self.client.get(
            self.for_client(reverse("bowls:find", args=[self.bowl.pk])),
            {"q": "200 g cooked millet"},
            headers={"HX-Request": "true"},
        )
        self.assertContains(found, 'value="millet-cooked"')
        self.assertContains(found, 'name="amount" value="200 g"')
        part = self.add(food="millet-cooked", amount="200 g", role="base")
        self.assertEqual((part.food, part.grams, part.basis), ("millet-cooked", 200, "weighed"))
        part = self.add(recipe=self.recipe.pk, amount="2 servings")
        self.assertAlmostEqual(part.grams / 2, self.first_serving(), delta=0.1)
        part = self.add(food="brazil-nuts", amount="4")
        self.assertAlmostEqual(part.grams, 20, delta=2, msg="a bare number counts pieces")
        before = self.bowl.parts.count()
        self.add(food="millet-cooked", amount="4")
        self.add(food="kale-raw", amount="3 furlongs")
        self.assertEqual(self.bowl.parts.count(), before)

    def first_serving(self):
        self.bowl.parts.filter(food="").delete()
        return self.add(recipe=self.recipe.pk).grams

    def test_what_the_client_likes_stands_first(self):
        self.client_row.favorites = "sweet potato"
        self.client_row.save()
        page = self.client.get(
            self.for_client(reverse("bowls:find", args=[self.bowl.pk])),
            {"q": "potato"},
            headers={"HX-Request": "true"},
        ).content.decode()
        first = page.index('name="food"')
        self.assertIn("weet potato", page[first : first + 200])


class PutAside(BowlCase):
    def test_what_was_put_aside_of_a_day_holds_for_the_bowl_in_it(self):
        self.bowl.parts.create(role="topping", food="tahini", grams=15, place=9)
        page = self.for_client(reverse("bowls:page", args=[self.bowl.pk]))
        self.assertContains(self.client.get(page), "Stop and ask.")
        told = self.client.get(page).context["told"]
        caution = next(one for one, _holders in told.stops if one.names)
        CautionDismissal.objects.create(
            client=self.client_row,
            code=caution.code,
            about="more than this",
            names=[*caution.names, "Sesame seeds"],
            why="a mistake in the record",
            by=self.user,
        )
        self.assertEqual(self.client.get(page).context["told"].stops, [])
        CautionDismissal.objects.update(names=["Sesame seeds"])
        self.assertEqual(len(self.client.get(page).context["told"].stops), 1)

    def test_a_stop_has_its_ways_out(self):
        self.bowl.parts.create(role="topping", food="tahini", grams=15, place=9)
        page = self.client.get(self.for_client(reverse("bowls:page", args=[self.bowl.pk])))
        for way in (">Replace</a>", "Leave out", "Put aside"):
            self.assertContains(page, way)
