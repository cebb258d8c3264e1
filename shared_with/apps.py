"""What a client sees and tells by their link."""

from django.apps import AppConfig


class SharedWithConfig(AppConfig):
    name = "shared_with"

    def ready(self) -> None:
        from clients.pages.listing import STEP
        from clients.plan.attention import NEEDS
        from clients.plan.looks import looked_at_anew_with
        from handouts.places import MORE
        from shared_with.attention import step, to_attend
        from shared_with.models import Told

        NEEDS.answered_by(to_attend)
        STEP.answered_by(step)
        looked_at_anew_with(Told)
        MORE.filled_by("shared_with/_of_client.html", 5)
