"""The recipes area."""

from django.apps import AppConfig


class RecipesConfig(AppConfig):
    name = "recipes"

    def ready(self) -> None:
        from django.db.models.signals import post_save

        from changes.changeable import changes_with
        from pantry.models import OwnFood
        from practice.uses import says_uses, some
        from recipes.changeable import RecipeChanges
        from recipes.models import Recipe
        from recipes.numbers import after_saving
        from recipes.uses import holding_food
        from recipes.versions import naming

        says_uses(Recipe, lambda recipe: some([one.title for one in naming(recipe)], "recipe"))
        says_uses(OwnFood, holding_food)
        changes_with(RecipeChanges)
        post_save.connect(after_saving, sender=Recipe)
