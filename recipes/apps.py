"""The recipes area."""

from django.apps import AppConfig


class RecipesConfig(AppConfig):
    name = "recipes"

    def ready(self) -> None:
        from django.db.models.signals import post_save

        from changes.changeable import changes_with
        from clients.archive_files import FILES
        from clients.places import PLANS
        from pantry.models import OwnFood
        from practice.uses import USES, some
        from recipes.archive_files import recipes_of
        from recipes.changeable import RecipeChanges
        from recipes.models import Recipe
        from recipes.numbers import after_saving
        from recipes.uses import holding_food
        from recipes.versions import naming

        USES.answered_by(
            lambda recipe: some([one.title for one in naming(recipe)], "recipe"), Recipe
        )
        USES.answered_by(holding_food, OwnFood)
        FILES.answered_by(recipes_of)
        changes_with(RecipeChanges)
        PLANS.filled_by(
            "recipes/_of_client.html",
            3,
            lambda page: {"recipes": page["client"].recipes.filter(archived=None)[:4]},
        )
        post_save.connect(after_saving, sender=Recipe)
