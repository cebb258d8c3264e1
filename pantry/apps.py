"""The pantry area."""

from django.apps import AppConfig


class PantryConfig(AppConfig):
    name = "pantry"
