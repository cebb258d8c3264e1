"""The roof: what is checked before anything is served."""

from django.apps import AppConfig


class RoundPantryConfig(AppConfig):
    name = "roundpantry"

    def ready(self) -> None:
        import roundpantry.checks  # noqa: F401
