"""A client in the formats of others."""

from collections.abc import Mapping
from typing import Any

from django.apps import AppConfig


class ExchangeConfig(AppConfig):
    name = "exchange"

    def ready(self) -> None:
        from clients.archive_files import FILES
        from clients.places import LIST_DOING, NEXT
        from exchange.archive_files import files_of
        from exchange.coming import counted, waiting_for
        from handouts.places import MORE

        def waiting(page: Mapping[str, Any]) -> dict[str, Any]:
            begun = waiting_for(page["client"])
            return {"begun": begun, "waiting": counted(begun) if begun else None}

        FILES.answered_by(files_of)
        LIST_DOING.filled_by("exchange/_coming.html", 10)
        NEXT.filled_by("exchange/_waiting.html", 10, more=waiting)
        MORE.filled_by("exchange/_of_client.html", 10)
