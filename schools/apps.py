"""The schools area."""

from django.apps import AppConfig


class SchoolsConfig(AppConfig):
    """The schools of practice, and a practice's own copies of them."""

    name = "schools"
    default_auto_field = "django.db.models.BigAutoField"
