"""The bowls area."""

from django.apps import AppConfig


class BowlsConfig(AppConfig):
    name = "bowls"

    def ready(self) -> None:
        import clients.places
        import recipes.places
        from bowls.changeable import BowlChanges
        from bowls.models import Bowl
        from bowls.sauce_bowls import worn_by
        from bowls.uses import holding, holding_food, moved, of_client
        from changes.changeable import changes_with
        from changes.places import WORN_IN
        from clients.models import Client
        from pantry.models import OwnFood
        from practice.uses import MOVES, USES, counted
        from recipes.models import Recipe

        USES.answered_by(holding, Recipe)
        USES.answered_by(holding_food, OwnFood)
        MOVES.answered_by(moved, Recipe)
        WORN_IN.answered_by(worn_by)
        changes_with(BowlChanges)
        USES.answered_by(lambda client: counted(client.bowl_set.count(), "bowl"), Client)
        recipes.places.BENCHES.filled_by("bowls/_to_sauce_bench.html")
        clients.places.DOING.filled_by("bowls/_build_a_bowl.html", 2)
        clients.places.FIRST_STEPS.filled_by(
            "bowls/_first_bowl.html", more=lambda page: {"first_bowl": not Bowl.objects.exists()}
        )
        clients.places.NEXT.filled_by("bowls/_next_of_client.html", more=of_client)
        clients.places.PLANS.filled_by("bowls/_of_client.html", 2, of_client)
