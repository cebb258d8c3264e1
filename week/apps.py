"""The week of a client."""

from django.apps import AppConfig


class WeekConfig(AppConfig):
    name = "week"

    def ready(self) -> None:
        from bowls.models import Bowl
        from jobs.work import does
        from planner.origins import ORIGIN
        from practice.uses import USES
        from recipes.models import Recipe
        from week.planner_days import origin_of_day
        from week.search import KIND, work
        from week.uses import weeks_with

        does(KIND, work)
        ORIGIN.answered_by(origin_of_day)
        for model in (Recipe, Bowl):
            USES.answered_by(weeks_with, model)
