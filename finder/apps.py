"""What is found from anywhere, and where a number comes from."""

from django.apps import AppConfig


class FinderConfig(AppConfig):
    name = "finder"
