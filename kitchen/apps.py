"""Cooking: the timeline, the session, what is in the house, the scale."""

from django.apps import AppConfig


class KitchenConfig(AppConfig):
    name = "kitchen"

    def ready(self) -> None:
        from bowls.places import DOING as BOWL_DOING
        from kitchen.house import for_week, wants_using
        from shopping.places import DOING as SHOPPING_DOING
        from week.places import DOING, IN_THE_HOUSE, USED_FIRST

        IN_THE_HOUSE.answered_by(for_week)
        USED_FIRST.answered_by(wants_using)
        DOING.filled_by("kitchen/_of_week.html", order=1)
        SHOPPING_DOING.filled_by("kitchen/_of_shopping.html")
        BOWL_DOING.filled_by("kitchen/_of_bowl.html", order=5)
