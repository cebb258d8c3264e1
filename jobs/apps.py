"""Work that takes longer than a page waits."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    name = "jobs"
