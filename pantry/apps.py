"""The pantry area."""

from django.apps import AppConfig


class PantryConfig(AppConfig):
    name = "pantry"

    def ready(self) -> None:
        from pantry.models import OwnFood, Word
        from practice.uses import says_uses, some

        def settled(food: OwnFood) -> str:
            words = Word.objects.filter(food=food.slug, undone=None)
            return some([word.phrase for word in words], "settled word")

        says_uses(OwnFood, settled)
