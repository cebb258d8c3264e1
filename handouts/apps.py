"""The handouts area."""

from django.apps import AppConfig


class HandoutsConfig(AppConfig):
    name = "handouts"

    def ready(self) -> None:
        import bowls.places
        import clients.places
        import planner.places
        import recipes.places
        from handouts.bundles import KIND, make
        from jobs.work import does

        does(KIND, make)
        clients.places.DOING.filled_by("handouts/_of_client.html", 80)
        bowls.places.DOING.filled_by("handouts/_of_bowl.html", 2)
        recipes.places.DOING.filled_by("handouts/_of_recipe.html", 2)
        planner.places.DOING.filled_by("handouts/_of_day.html", 2)
