"""What is printed, and how."""

from django.apps import AppConfig


class PaperConfig(AppConfig):
    name = "paper"

    def ready(self) -> None:
        from practice.places import MORE

        MORE.filled_by("paper/_of_practice.html", 1)
