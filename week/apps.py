"""The week of a client."""

from django.apps import AppConfig


class WeekConfig(AppConfig):
    name = "week"
