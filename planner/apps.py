"""The day plans."""

from django.apps import AppConfig


class PlannerConfig(AppConfig):
    name = "planner"

    def ready(self) -> None:
        from django.db.models import Prefetch

        import bowls.places
        import clients.places
        from bowls.models import Bowl
        from changes.changeable import changes_with
        from changes.places import MEAL_OF
        from clients.models import Client
        from clients.pages.listing import STEP
        from clients.plan.attention import PLANNED_UNTIL
        from clients.plan.looks import FETCHED_TOO, looked_at_anew_with
        from pantry.models import OwnFood
        from planner.bowl_meal import (
            first_day,
            meal_it_stands_in,
            planned_until,
            stands_in,
            step_to_plan,
        )
        from planner.changeable import DayChanges
        from planner.models import Day
        from planner.planned_copies import planned_food, planned_with, stays_planned
        from practice.uses import MOVES, USES, counted
        from recipes.models import Recipe

        for model in (Recipe, Bowl):
            USES.answered_by(planned_with, model)
        USES.answered_by(planned_food, OwnFood)
        MOVES.answered_by(stays_planned, Recipe)
        MEAL_OF.answered_by(meal_it_stands_in)
        changes_with(DayChanges)
        # whether a day is planned is said on the list of clients
        looked_at_anew_with(Day)
        FETCHED_TOO.answered_by(
            lambda: [
                Prefetch("days", Day.objects.order_by("-date", "-pk")[:1], to_attr="fetched_days")
            ]
        )
        PLANNED_UNTIL.answered_by(planned_until)
        STEP.answered_by(step_to_plan)
        USES.answered_by(lambda client: counted(client.days.count(), "planned day"), Client)
        clients.places.DOING.filled_by("planner/_plan_a_day.html", 1)
        clients.places.PLANS.filled_by(
            "planner/_of_client.html",
            1,
            lambda page: {"planned_days": page["client"].days.filter(archived=None)[:5]},
        )
        bowls.places.FIRST_STEPS.filled_by("planner/_first_day.html", more=first_day)
        bowls.places.INTO.filled_by("planner/_put_into.html")
        bowls.places.STANDS.filled_by("planner/_stands_in.html", more=stands_in)
