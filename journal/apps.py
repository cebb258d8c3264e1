"""Following a client."""

from django.apps import AppConfig


class JournalConfig(AppConfig):
    name = "journal"

    def ready(self) -> None:
        from clients.pages.listing import STEP
        from clients.places import ORDERED_BY, WEIGHING, WEIGHT
        from clients.plan.agreements import AGREED
        from clients.plan.attention import NEEDS
        from clients.plan.cautions import MORE_NUMBERS, USUAL_NUMBERS
        from clients.plan.looks import looked_at_anew_with
        from journal.attention import (
            agreed,
            numbers_of_the_habit,
            numbers_of_the_log,
            step,
            to_attend,
        )
        from journal.body_scale import body_scale
        from journal.eaten.likings import eaten_gladly
        from journal.letters.draft import answered_last
        from journal.models import Happening, LoggedDay, TakenChange, Visit
        from week.places import EATEN_GLADLY

        NEEDS.answered_by(to_attend)
        AGREED.answered_by(agreed)
        MORE_NUMBERS.answered_by(numbers_of_the_log)
        USUAL_NUMBERS.answered_by(numbers_of_the_habit)
        looked_at_anew_with(LoggedDay, Happening, TakenChange, Visit)
        ORDERED_BY.answered_by(answered_last)
        STEP.answered_by(step)
        EATEN_GLADLY.answered_by(eaten_gladly)
        WEIGHT.filled_by("journal/_follow_up.html")
        WEIGHING.filled_by("journal/_body_scale.html", more=body_scale)
