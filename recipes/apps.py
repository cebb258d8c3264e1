"""The recipes area."""

from django.apps import AppConfig


class RecipesConfig(AppConfig):
    name = "recipes"

    def ready(self) -> None:
        from changes.changeable import changes_with
        from practice.uses import says_uses, some
        from recipes.changeable import RecipeChanges
        from recipes.models import Recipe
        from recipes.versions import naming

        says_uses(Recipe, lambda recipe: some([one.title for one in naming(recipe)], "recipe"))
        changes_with(RecipeChanges)
