"""The bowls area."""

from django.apps import AppConfig


class BowlsConfig(AppConfig):
    name = "bowls"

    def ready(self) -> None:
        from bowls.changeable import BowlChanges
        from bowls.uses import holding, holding_food, moved
        from bowls.worn import worn_by
        from changes.changeable import changes_with
        from changes.places import says_worn
        from pantry.models import OwnFood
        from practice.uses import says_moves, says_uses
        from recipes.models import Recipe

        says_uses(Recipe, holding)
        says_uses(OwnFood, holding_food)
        says_moves(Recipe, moved)
        says_worn(worn_by)
        changes_with(BowlChanges)
