"""The record of who did what."""

from django.apps import AppConfig


class RecordConfig(AppConfig):
    name = "record"

    def ready(self) -> None:
        from record import recorded

        recorded.listen()
