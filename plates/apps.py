"""Two plates: anything beside anything, the density ladder, the lesson for a client."""

from django.apps import AppConfig


class PlatesConfig(AppConfig):
    name = "plates"
