"""The client list: what is asked of it, and the next step with each client."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from django.db.models import Q
from django.urls import reverse

from clients.models import Client, ClientLook
from clients.plan.looks import ASK, NEED, STOP, fetched, keep, not_up_to_date
from nutrition.follow_up.attention import (
    CORRECT,
    LOOK_AT_CHANGE,
    LOOK_AT_DAYS,
    PLAN,
    RETARGET,
    SIGN,
    TELL,
    WEIGH,
    Need,
)
from webkit.listing import Lists

# The most urgent first, of them what has waited longest.
BY_NEED = ("-look__urgency", "look__since", "-look__needs", "name")
CLIENT_LISTS = Lists(
    search=("name", "about"),
    sorts={
        "need": ("who needs a look", BY_NEED),
        "name": ("name", ("name",)),
        "pace": ("pace, fastest loss first", ("look__pace_kg", "name")),
        "goal": ("goal", ("goal", "name")),
        "new": ("newest", ("-pk",)),
    },
    filters={
        "all": ("everybody", Q()),
        "look": ("needs a look", Q(look__needs__gt=0)),
        "stop": ("stop and ask", Q(look__stops__gt=0)),
        "kidney": ("kidney", Q(look__tags__contains=",kidney,")),
        "diabetes": ("diabetes", Q(look__tags__contains=",diabetes,")),
        "heart": ("heart and pressure", Q(look__tags__contains=",heart,")),
        "lose": ("loses weight", Q(goal="lose")),
        "gain": ("gains weight", Q(goal="gain")),
        "muscle": ("builds muscle", Q(goal="muscle")),
        "pregnant": ("pregnant or nursing", ~Q(life_stage="adult")),
    },
)
# The next step, what it is called, and the page and place where it is done.
STEPS = {
    ASK: ("Look and ask", "clients:page", "#cautions"),
    CORRECT: ("Correct it", "clients:edit", ""),
    WEIGH: ("Record a weight", "clients:page", "#weight"),
    LOOK_AT_DAYS: ("See why", "journal:stall", ""),
    LOOK_AT_CHANGE: ("Look at the change", "journal:stall", "#changes"),
    SIGN: ("Sign it", "journal:visits", ""),
    TELL: ("Look at the weights", "journal:page", ""),
    RETARGET: ("Make new targets", "clients:page", "#retarget"),
    PLAN: ("Plan a day", "planner:list", ""),
}


@dataclass(frozen=True)
class Row:
    """A client with what the list says of them, and the next step: what it is called and where."""

    client: Client
    look: ClientLook
    step: str
    url: str

    @property
    def stops(self) -> bool:
        """Whether a stop that nobody has looked at yet is what waits."""
        return self.look.urgency >= STOP

    @property
    def watched(self) -> bool:
        """Whether all that stands was looked at, and nothing else waits."""
        return self.look.urgency == 0 and bool(self.look.words)


def _next(client: Client, look: ClientLook) -> tuple[str, str]:
    usual = ("Open the plan", "planner:list", "")
    if look.urgency > NEED:
        usual = (look.step, "clients:page", "#cautions")
    called, name, place = STEPS.get(look.step, usual)
    to = reverse(name, args=[client.pk] if name.startswith("clients:") else [])
    return called, f"/for/{client.pk}{to}{place}"


def next_steps(client: Client, needs: Sequence[Need]) -> list[tuple[Need, str, str]]:
    """Each thing to attend to, with what settles it and where."""
    out = []
    for need in needs:
        called, name, place = STEPS[need.step]
        to = reverse(name, args=[client.pk] if name.startswith("clients:") else [])
        out.append((need, called, f"{to}{place}"))
    return out


def rows_of(clients: list[Client], today: date) -> list[Row]:
    """The clients of a page, each looked at today."""
    pks = [client.pk for client in clients]
    waiting = not_up_to_date(Client.objects.filter(pk__in=pks), today)
    behind = list(waiting.values_list("pk", flat=True))
    fresh = keep(fetched(Client.objects.filter(pk__in=behind)), today) if behind else []
    known = ClientLook.objects.filter(client__in=pks).exclude(client__in=behind)
    looks = {row.client_id: row for row in (*known, *fresh)}
    return [Row(client, looks[client.pk], *_next(client, looks[client.pk])) for client in clients]
