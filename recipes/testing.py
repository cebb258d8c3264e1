"""A recipe for the tests of this area and of later ones."""

from clients.testing import ClientCase
from recipes.models import Recipe


class RecipeCase(ClientCase):
    """A client, and a recipe of the practice's."""

    @classmethod
    def make_rows(cls):
        super().make_rows()
        cls.recipe = Recipe.objects.create(
            practice=cls.practice,
            title="Dill barley",
            role="base",
            servings=4,
            text="1 cup pearl barley, dry\n100 g leeks\n1/4 tsp salt",
        )
