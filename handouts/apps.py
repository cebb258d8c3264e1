"""The handouts area."""

from django.apps import AppConfig


class HandoutsConfig(AppConfig):
    name = "handouts"
