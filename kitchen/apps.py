"""Cooking: the timeline, the session, what is in the house, the scale."""

from django.apps import AppConfig


class KitchenConfig(AppConfig):
    name = "kitchen"
