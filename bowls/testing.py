"""A bowl for the tests of this area and of later ones."""

from bowls.models import Bowl, BowlPart
from recipes.testing import RecipeCase


class BowlCase(RecipeCase):
    """A client's bowl of three parts, one of them a recipe."""

    @classmethod
    def make_rows(cls):
        super().make_rows()
        cls.bowl = Bowl.objects.create(
            practice=cls.practice, name="Harbor bowl", client=cls.client_row, vessel_ml=1000
        )
        cls.base = BowlPart.objects.create(
            bowl=cls.bowl, role="base", recipe=cls.recipe, grams=150, place=0
        )
        cls.kale = BowlPart.objects.create(
            bowl=cls.bowl, role="greens", food="kale-raw", grams=60, place=1
        )
        cls.tofu = BowlPart.objects.create(
            bowl=cls.bowl, role="protein", food="tofu-firm", grams=150, place=2
        )
