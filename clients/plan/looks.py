"""What the list says of each client, kept and made anew: after a change of what is theirs, and on
another day."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from typing import Any

from django.db.models import Model, Prefetch, Q, QuerySet
from django.db.models.signals import post_delete, post_save

from clients.models import (
    HALF_A_YEAR_WEIGH_INS,
    BloodValue,
    CautionDismissal,
    Client,
    ClientLook,
    TargetOverride,
    TargetVersion,
    WeighIn,
)
from clients.plan.attention import judged_now, reasons, weekly_pace
from clients.plan.cautions import of_the_client
from clients.plan.in_force import plan_of
from nutrition.safety.caution_rules import LEVELS, URGENT
from nutrition.safety.cautions import Caution
from nutrition.targets.conditions import groups_of, in_play
from practice.passing_notes import note_in_passing
from practice.removal import put_away_or_back
from webkit.extension_points import Question

# A version that is in force is among so many latest ones, or is looked up.
LATEST_VERSIONS = 4
# Of those that are not up to date so many are looked at with each list, beside those it shows.
AT_ONCE = 20
ASK = "ask"

# What else of the clients is looked at, to be fetched for all of them at once?
FETCHED_TOO: Question[[], list[Prefetch]] = Question()


def fetched(clients: QuerySet[Client]) -> QuerySet[Client]:
    """The clients with the rows that are looked at, fetched for all of them at once."""
    overrides = TargetOverride.objects.select_related("by").order_by("made")
    dismissals = CautionDismissal.objects.filter(ended=None).select_related("by")
    return clients.select_related("look").prefetch_related(
        "supplements",
        Prefetch("blood_values", BloodValue.objects.all(), to_attr="fetched_blood"),
        Prefetch(
            "weigh_ins",
            WeighIn.objects.order_by("-date")[:HALF_A_YEAR_WEIGH_INS],
            to_attr="fetched_weigh_ins",
        ),
        Prefetch(
            "target_versions",
            TargetVersion.objects.order_by("-number")[:LATEST_VERSIONS],
            to_attr="fetched_versions",
        ),
        Prefetch("overrides", overrides, to_attr="fetched_overrides"),
        Prefetch("dismissals", dismissals, to_attr="fetched_dismissals"),
        *(prefetch for more in FETCHED_TOO.ask() for prefetch in more),
    )


def look_at(client: Client, today: date) -> ClientLook:
    """What the list says of a client today; not saved."""
    judged = judged_now(client, today)
    pace = weekly_pace(judged)
    told = of_the_client(plan_of(client), client, pace.kg_per_week if pace else None)
    stops = [one for one in told.standing if one.level == LEVELS[0]]
    needs = reasons(client, today, judged)
    before = getattr(client, "look", None)
    watched = looked_for(told.standing)
    known = {mark_of(one): _since(client, one, before, today) for one in watched}
    seen = [mark for mark in (before.seen if before else ()) if mark in known]
    waiting = [one for one in watched if mark_of(one) not in seen]
    codes = in_play(client.conditions, client.age_years)
    tags = [*groups_of(codes), client.goal, "pregnant" if client.life_stage != "adult" else "adult"]
    words, step, since, urgency = "", "", None, 0
    if needs:
        words, step, since, urgency = needs[0].words, needs[0].step, needs[0].since, NEED
    if waiting:
        first = waiting[0]
        words, step, urgency = first.text, first.todo or ASK, urgency_of(first)
        since = date.fromisoformat(known[mark_of(first)])
    elif watched and not needs:
        # what was seen is watched, and quiet
        words = watched[0].text
    return ClientLook(
        client=client,
        on=today,
        stale=False,
        stops=len(stops),
        needs=len(waiting) + len(needs),
        urgency=urgency,
        known=known,
        seen=seen,
        words=words[:400],
        step=step,
        since=since,
        weight_kg=client.last_weight_kg or client.weight_kg,
        pace_kg=pace.kg_per_week if pace else None,
        pace_low=pace.low if pace else None,
        pace_high=pace.high if pace else None,
        tags=f",{','.join(tags)},",
    )


# What waits before anything else, from a stop that nobody has looked at yet to a plain need.
NOW, TODAY, STOP, SOON, NEED = 5, 4, 3, 2, 1


def urgency_of(caution: Caution) -> int:
    """How early a caution stands on the list."""
    if caution.urgent in URGENT[:2]:
        return NOW if caution.urgent == URGENT[0] else TODAY
    return STOP if caution.level == LEVELS[0] else SOON


def looked_for(standing: Iterable[Caution]) -> list[Caution]:
    """The cautions that the list speaks of: every stop, and what is urgent; the most urgent
    first."""
    found = [one for one in standing if one.level == LEVELS[0] or one.urgent]
    return sorted(found, key=lambda one: -urgency_of(one))


def mark_of(caution: Caution) -> str:
    """What tells a caution that was looked at from one that came anew."""
    return f"{caution.code}|{caution.about}"[:200]


def _since(client: Client, caution: Caution, before: ClientLook | None, today: date) -> str:
    """Since when it waits: since the value was measured, or since the list first knew of it."""
    measured = client.blood().get(caution.measured)
    known = (before.known if before else {}).get(mark_of(caution))
    return measured.on.isoformat() if measured is not None else str(known or today.isoformat())


def seen_now(client: Client, standing: Iterable[Caution]) -> None:
    """Somebody has looked at a client's page: what stands there is watched from now on, and no
    longer cries on the list."""
    marks = [mark_of(one) for one in looked_for(standing)]
    row = ClientLook.objects.filter(client=client).first()
    if row is None or set(marks) <= set(row.seen):
        return

    def write() -> None:
        ClientLook.objects.filter(pk=row.pk).update(seen=marks, stale=True)

    note_in_passing(write)


_FIELDS = (
    *("on", "stale", "stops", "needs", "words", "step", "since", "urgency", "known", "seen"),
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


def looked_at_anew_with(*models: type[Model]) -> None:
    """The list looks at a client anew when a record of one of these models changes."""
    for model in models:
        post_save.connect(after_saving, sender=model)
        post_delete.connect(after_saving, sender=model)
        put_away_or_back.connect(after_saving, sender=model)
