"""The client list, those who need a look first, from a fixed number of queries however many there
are."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.apps import apps
from django.db.models import Prefetch, QuerySet

from clients.attention import reasons, weekly_pace
from clients.cautions import stops_of
from clients.models import (
    NEWEST_WEIGH_INS,
    CautionDismissal,
    Client,
    TargetOverride,
    TargetVersion,
    WeighIn,
)

# A version that is in force is among so many latest ones, or is looked up.
LATEST_VERSIONS = 4


@dataclass(frozen=True, kw_only=True)
class Listed:
    """A client with what the list says of them. [kg], [kg/week]"""

    client: Client
    reasons: list[str]
    weight: float
    pace: float | None
    day: object | None
    stops: int


def fetched(clients: QuerySet[Client]) -> QuerySet[Client]:
    """The clients with the rows that the list looks at, fetched for all of them at once."""
    day = apps.get_model("planner", "Day")
    overrides = TargetOverride.objects.select_related("by").order_by("made")
    dismissals = CautionDismissal.objects.filter(ended=None).select_related("by")
    return clients.prefetch_related(
        "supplements",
        Prefetch(
            "weigh_ins",
            WeighIn.objects.order_by("-date")[:NEWEST_WEIGH_INS],
            to_attr="fetched_weigh_ins",
        ),
        Prefetch(
            "target_versions",
            TargetVersion.objects.order_by("-number")[:LATEST_VERSIONS],
            to_attr="fetched_versions",
        ),
        Prefetch("overrides", overrides, to_attr="fetched_overrides"),
        Prefetch("dismissals", dismissals, to_attr="fetched_dismissals"),
        Prefetch("days", day.objects.order_by("-date", "-pk")[:1], to_attr="fetched_days"),
    )


def listed(clients: QuerySet[Client], today: date) -> list[Listed]:
    """Every client, the gravest first: what is to be asked about, then how much is to be attended
    to, then the name."""
    out = [
        Listed(
            client=client,
            reasons=reasons(client, today),
            weight=client.last_weight_kg or client.weight_kg,
            pace=weekly_pace(client),
            day=next(iter(client.at_hand("fetched_days", list)), None),
            stops=stops_of(client),
        )
        for client in fetched(clients)
    ]
    return sorted(out, key=lambda row: (-row.stops, -len(row.reasons), row.client.name))
