"""The clients area."""

from django.apps import AppConfig


class ClientsConfig(AppConfig):
    name = "clients"

    def ready(self) -> None:
        from clients.archive_files import FILES, tables_of
        from clients.models import (
            BloodValue,
            CautionDismissal,
            Client,
            ClientSupplement,
            TargetOverride,
            TargetVersion,
            WeighIn,
        )
        from clients.plan.looks import looked_at_anew_with
        from practice.uses import USES, counted, some
        from schools.models import OwnSchool
        from webkit.places import SHELF, STANDS

        looked_at_anew_with(
            *(Client, ClientSupplement, WeighIn, TargetOverride, TargetVersion),
            *(CautionDismissal, BloodValue),
        )
        USES.answered_by(
            lambda own: some(
                [client.name for client in Client.objects.filter(school=own.code)], "client"
            ),
            OwnSchool,
        )
        USES.answered_by(lambda client: counted(client.weigh_ins.count(), "weigh-in"), Client)
        FILES.answered_by(tables_of)
        SHELF.filled_by("clients/_shelf.html")
        STANDS.filled_by("clients/_stands.html")
