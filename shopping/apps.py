"""What is bought for a week."""

from django.apps import AppConfig


class ShoppingConfig(AppConfig):
    name = "shopping"
