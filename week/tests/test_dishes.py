"""What can stand in a week, fetched together by its keys."""

from bowls.models import Bowl, BowlPart
from nutrition.composition.helpings import first_helping_g
from week.dishes import thing_of, things_of
from week.tests.test_week import WeekCase


class Things(WeekCase):
    def test_each_by_its_key_in_their_order_and_what_is_gone_is_not_there(self):
        bowl = Bowl.objects.create(practice=self.practice, name="Harbor bowl", meal="lunch")
        BowlPart.objects.create(bowl=bowl, role="base", food="millet-cooked", grams=150)
        keys = [
            f"bowl-{bowl.pk}",
            "food-walnuts",
            f"recipe-{self.stew.pk}",
            "recipe-999999",
            "food-none",
            "elsewhere-1",
            "recipe-x",
            f"recipe-{self.soup.pk}",
            "food-walnuts",
        ]
        found = things_of(keys, self.client_row)
        self.assertEqual(
            list(found),
            [keys[0], "food-walnuts", f"recipe-{self.stew.pk}", f"recipe-{self.soup.pk}"],
        )
        self.assertEqual(found[keys[0]].bowl, bowl)
        self.assertEqual(found[f"recipe-{self.stew.pk}"].recipe, self.stew)
        walnuts = found["food-walnuts"]
        self.assertEqual(walnuts.portion.grams, first_helping_g(walnuts.food))

    def test_they_are_fetched_together(self):
        keys = [f"recipe-{one.pk}" for one in (self.soup, self.stew, self.sesame)]
        things_of(keys, self.client_row)
        with self.assertNumQueries(1):
            found = things_of(keys, self.client_row)
        self.assertEqual(
            [one.name for one in found.values()], ["Bean soup", "Lentil stew", "Sesame stew"]
        )

    def test_one_client_s_recipe_is_nobody_else_s(self):
        self.soup.client = self.client_row
        self.soup.save()
        key = f"recipe-{self.soup.pk}"
        self.assertEqual(thing_of(key, self.client_row).recipe, self.soup)
        self.assertIsNone(thing_of(key))
