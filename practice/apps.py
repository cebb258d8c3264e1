"""The practice area."""

from django.apps import AppConfig


class PracticeConfig(AppConfig):
    name = "practice"
