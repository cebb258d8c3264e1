"""The day plans."""

from django.apps import AppConfig


class PlannerConfig(AppConfig):
    name = "planner"

    def ready(self) -> None:
        from bowls.models import Bowl
        from changes.changeable import changes_with
        from planner.changeable import DayChanges
        from planner.planned import planned_with, stays_planned
        from practice.uses import says_moves, says_uses
        from recipes.models import Recipe

        for model in (Recipe, Bowl):
            says_uses(model, planned_with)
        says_moves(Recipe, stays_planned)
        changes_with(DayChanges)
