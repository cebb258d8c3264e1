"""What is changed, and how a change is offered and taken: the same for a recipe, a bowl, a day."""

from django.apps import AppConfig


class ChangesConfig(AppConfig):
    name = "changes"
