"""What a client has a right to."""

from django.apps import AppConfig


class RightsConfig(AppConfig):
    name = "rights"

    def ready(self) -> None:
        from clients.pages.listing import STEP
        from clients.places import DOING
        from clients.plan.attention import NEEDS
        from clients.plan.looks import looked_at_anew_with
        from jobs import chores
        from practice.places import MORE
        from record import reads
        from record.recorded import kind_of
        from rights.attention import step, to_attend
        from rights.models import Warned
        from rights.retention import keep_the_rules
        from webkit.places import PUT_AWAY

        NEEDS.answered_by(to_attend)
        STEP.answered_by(step)
        looked_at_anew_with(Warned)
        DOING.filled_by("rights/_of_client.html", 90)
        PUT_AWAY.filled_by(
            "rights/_of_thing.html",
            more=lambda page: {
                "history_kind": kind_of(page["record"]),
                "history_of": page["record"].pk,
            },
        )
        MORE.filled_by("rights/_of_practice.html", 2)
        chores.every("reads into the record", 60, lambda: f"{reads.fold()} entries")
        chores.nightly("how long is kept", keep_the_rules)
