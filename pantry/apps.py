"""The pantry area."""

from django.apps import AppConfig
from django.apps.registry import Apps
from django.db.models.signals import post_migrate


class PantryConfig(AppConfig):
    name = "pantry"

    def ready(self) -> None:
        from jobs.work import AROUND
        from pantry.in_force import foods_of_practice
        from pantry.models import OwnFood, Word
        from practice.uses import USES, some

        def settled(food: OwnFood) -> str:
            words = Word.objects.filter(food=food.slug, undone=None)
            return some([word.phrase for word in words], "settled word")

        USES.answered_by(settled, OwnFood)
        AROUND.answered_by(foods_of_practice)
        post_migrate.connect(_remake, sender=self)


def _remake(sender: AppConfig, apps: Apps | None = None, **_kwargs: object) -> None:
    """Packages are made anew where the tables that they were made with are others by now; not
    where their own table was just taken away (an emptied database tells no models)."""
    from pantry.in_force import remake

    if apps is None or "ownfood" in apps.all_models.get(sender.label, {}):
        remake()
