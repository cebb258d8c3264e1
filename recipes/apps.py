"""The recipes area."""

from django.apps import AppConfig


class RecipesConfig(AppConfig):
    name = "recipes"

    def ready(self) -> None:
        from changes.changeable import changes_with
        from pantry.models import OwnFood
        from practice.uses import says_uses, some
        from recipes.changeable import RecipeChanges
        from recipes.models import Recipe
        from recipes.uses import holding_food
        from recipes.versions import naming

        says_uses(Recipe, lambda recipe: some([one.title for one in naming(recipe)], "recipe"))
        says_uses(OwnFood, holding_food)
        changes_with(RecipeChanges)
