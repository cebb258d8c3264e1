"""What the list says of each client, kept and made anew: after a change of what is theirs, and on
another day."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from typing import Any

from django.apps import apps
from django.db.models import Prefetch, Q, QuerySet

from clients.attention import judged_now, reasons, weekly_pace
from clients.cautions import of_the_client
from clients.in_force import plan_of
from clients.models import (
    NEWEST_WEIGH_INS,
    BloodValue,
    CautionDismissal,
    Client,
    ClientLook,
    TargetOverride,
    TargetVersion,
    WeighIn,
)
from nutrition.safety.cautions import LEVELS
from nutrition.targets.conditions import in_play
from practice.in_passing import note_in_passing

# A version that is in force is among so many latest ones, or is looked up.
LATEST_VERSIONS = 4
# Of those that are not up to date so many are looked at with each list, beside those it shows.
AT_ONCE = 20
ASK = "ask"
# What clients are filtered by, and what they have in common: conditions whose code begins so.
KINDS = {
    "kidney": ("ckd", "dialysis", "hemodialysis", "peritoneal", "kidney_transplant"),
    "diabetes": ("diabetes", "gestational_diabetes", "insulin", "sulfonylurea"),
    "heart": ("hypertension", "heart", "high_cholesterol", "warfarin"),
}


def fetched(clients: QuerySet[Client]) -> QuerySet[Client]:
    """The clients with the rows that are looked at, fetched for all of them at once."""
    day = apps.get_model("planner", "Day")
    overrides = TargetOverride.objects.select_related("by").order_by("made")
    dismissals = CautionDismissal.objects.filter(ended=None).select_related("by")
    return clients.prefetch_related(
        "supplements",
        Prefetch("blood_values", BloodValue.objects.all(), to_attr="fetched_blood"),
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


def look_at(client: Client, today: date) -> ClientLook:
    """What the list says of a client today; not saved."""
    judged = judged_now(client, today)
    pace = weekly_pace(judged)
    told = of_the_client(plan_of(client), client, pace.kg_per_week if pace else None)
    stops = [one for one in told.standing if one.level == LEVELS[0]]
    needs = reasons(client, today, judged)
    codes = in_play(client.conditions, client.age_years)
    tags = [name for name, begins in KINDS.items() if any(one.startswith(begins) for one in codes)]
    tags += [client.goal, "pregnant" if client.life_stage != "adult" else "adult"]
    words, step, since = "", "", None
    if needs:
        words, step, since = needs[0].words, needs[0].step, needs[0].since
    if stops:
        words, step, since = stops[0].text, ASK, None
    return ClientLook(
        client=client,
        on=today,
        stale=False,
        stops=len(stops),
        needs=len(stops) + len(needs),
        words=words[:400],
        step=step,
        since=since,
        weight_kg=client.last_weight_kg or client.weight_kg,
        pace_kg=pace.kg_per_week if pace else None,
        pace_low=pace.low if pace else None,
        pace_high=pace.high if pace else None,
        tags=f",{','.join(tags)},",
    )


_FIELDS = (
    *("on", "stale", "stops", "needs", "words", "step", "since"),
    *("weight_kg", "pace_kg", "pace_low", "pace_high", "tags"),
)


def keep(clients: Iterable[Client], today: date) -> list[ClientLook]:
    """Look at these clients, and keep what the list says of them if nobody else is writing."""
    rows = [look_at(client, today) for client in clients]

    def write() -> None:
        ClientLook.objects.bulk_create(
            rows, update_conflicts=True, unique_fields=["client"], update_fields=_FIELDS
        )

    note_in_passing(write)
    return rows


def not_up_to_date(clients: QuerySet[Client], today: date) -> QuerySet[Client]:
    return clients.filter(Q(look=None) | Q(look__stale=True) | ~Q(look__on=today))


def bring_up_to_date(clients: QuerySet[Client], today: date, most: int = AT_ONCE) -> None:
    """Look again at some of those that changed or were not looked at today, at most so many."""
    waiting = not_up_to_date(clients, today).order_by("look__on", "pk")[:most]
    pks = list(waiting.values_list("pk", flat=True))
    if pks:
        keep(fetched(Client.objects.filter(pk__in=pks)), today)


def changed(client_id: int | None) -> None:
    """Something of a client changed: the list looks at them anew."""
    if client_id is not None:
        ClientLook._base_manager.filter(client_id=client_id).update(stale=True)


def after_saving(sender: type, instance: Any, **_more: object) -> None:
    """Whatever is saved or deleted of a client's."""
    changed(instance.pk if isinstance(instance, Client) else getattr(instance, "client_id", None))
