"""The day plans."""

from django.apps import AppConfig


class PlannerConfig(AppConfig):
    name = "planner"

    def ready(self) -> None:
        from django.db.models.signals import post_delete, post_save

        from bowls.models import Bowl
        from changes.changeable import changes_with
        from changes.places import says_day, says_meal
        from clients.plan.looks import after_saving
        from pantry.models import OwnFood
        from planner.changeable import DayChanges
        from planner.models import Day
        from planner.planned import planned_food, planned_with, stays_planned
        from planner.stands import day_it_stands_in, meal_it_stands_in
        from practice.removal import put_away_or_back
        from practice.uses import says_moves, says_uses
        from recipes.models import Recipe

        for model in (Recipe, Bowl):
            says_uses(model, planned_with)
        says_uses(OwnFood, planned_food)
        says_moves(Recipe, stays_planned)
        says_meal(meal_it_stands_in)
        says_day(day_it_stands_in)
        changes_with(DayChanges)
        # whether a day is planned is said on the list of clients
        post_save.connect(after_saving, sender=Day)
        post_delete.connect(after_saving, sender=Day)
        put_away_or_back.connect(after_saving, sender=Day)
