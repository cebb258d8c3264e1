"""The clients area."""

from django.apps import AppConfig


class ClientsConfig(AppConfig):
    name = "clients"
