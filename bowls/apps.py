"""The bowls area."""

from django.apps import AppConfig


class BowlsConfig(AppConfig):
    name = "bowls"
