"""The week of a client."""

from django.apps import AppConfig


class WeekConfig(AppConfig):
    name = "week"

    def ready(self) -> None:
        from bowls.models import Bowl
        from planner.origins import says_origin
        from practice.uses import says_uses
        from recipes.models import Recipe
        from week.made import origin_of_day
        from week.uses import weeks_with

        says_origin(origin_of_day)
        for model in (Recipe, Bowl):
            says_uses(model, weeks_with)
