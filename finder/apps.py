"""What is found from anywhere, and where a number comes from."""

from django.apps import AppConfig


class FinderConfig(AppConfig):
    name = "finder"

    def ready(self) -> None:
        from django.urls import reverse

        from webkit.places import DIALOGS, SEARCH, WHERE_FROM

        SEARCH.filled_by("finder/_search.html")
        DIALOGS.filled_by("finder/_dialogs.html")
        WHERE_FROM.answered_by(lambda of, key: reverse("finder:why", args=[of, key]))
