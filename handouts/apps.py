"""The handouts area."""

from django.apps import AppConfig


class HandoutsConfig(AppConfig):
    name = "handouts"

    def ready(self) -> None:
        import bowls.places
        import planner.places

        bowls.places.DOING.filled_by("handouts/_of_bowl.html", 2)
        planner.places.DOING.filled_by("handouts/_of_day.html", 2)
