"""The people of a practice."""

from django.apps import AppConfig


class PeopleConfig(AppConfig):
    name = "people"

    def ready(self) -> None:
        from people import sessions
        from practice.places import MORE

        sessions.listen()
        MORE.filled_by("people/_of_practice.html")
