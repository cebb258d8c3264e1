"""What is bought for a week."""

from django.apps import AppConfig


class ShoppingConfig(AppConfig):
    name = "shopping"

    def ready(self) -> None:
        from week.places import DOING

        DOING.filled_by("shopping/_of_week.html")
