"""The client list: what is asked of it, and the next step with each client."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from django.db.models import Q
from django.urls import reverse

from clients.models import Client, ClientLook
from clients.plan.looks import ASK, NEED, STOP, fetched, keep, not_up_to_date
from nutrition.follow_up.attention import CORRECT, RETARGET, WEIGH, Need
from nutrition.targets.conditions import GROUPS
from webkit.client_address import without_client
from webkit.extension_points import Question
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
        **{
            group: (called, Q(look__tags__contains=f",{group},"))
            for group, called in GROUPS.items()
        },
        "lose": ("loses weight", Q(goal="lose")),
        "gain": ("gains weight", Q(goal="gain")),
        "muscle": ("builds muscle", Q(goal="muscle")),
        "pregnant": ("pregnant or nursing", ~Q(life_stage="adult")),
    },
)
# What a step that somebody needs is called, and the address where it is done for a client.
Step = tuple[str, str]
# ... for a need, or for none at all ("")
STEP: Question[[str, Client], Step | None] = Question()


def own_step(need: str, client: Client) -> Step | None:
    """The steps that are done on a client's own pages."""
    page = reverse("clients:page", args=[client.pk])
    steps = {
        ASK: ("Look and ask", f"{page}#cautions"),
        CORRECT: ("Correct it", reverse("clients:edit", args=[client.pk])),
        WEIGH: ("Record a weight", f"{page}#weight"),
        RETARGET: ("Make new targets", f"{page}#retarget"),
    }
    return steps.get(need)


STEP.answered_by(own_step)


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


def _next(client: Client, look: ClientLook) -> Step:
    found = STEP.first(look.step, client)
    if found is None and look.urgency > NEED:
        found = look.step, f"{reverse('clients:page', args=[client.pk])}#cautions"
    called, to = found or STEP.first("", client) or ("", "")
    return called, f"/for/{client.pk}{without_client(to)}"


def next_steps(client: Client, needs: Sequence[Need]) -> list[tuple[Need, str, str]]:
    """Each thing to attend to, with what settles it and where."""
    known = ((need, STEP.first(need.step, client)) for need in needs)
    return [(need, *step) for need, step in known if step is not None]


def rows_of(clients: list[Client], today: date) -> list[Row]:
    """The clients of a page, each looked at today."""
    pks = [client.pk for client in clients]
    waiting = not_up_to_date(Client.objects.filter(pk__in=pks), today)
    behind = list(waiting.values_list("pk", flat=True))
    fresh = keep(fetched(Client.objects.filter(pk__in=behind)), today) if behind else []
    known = ClientLook.objects.filter(client__in=pks).exclude(client__in=behind)
    looks = {row.client_id: row for row in (*known, *fresh)}
    return [Row(client, looks[client.pk], *_next(client, looks[client.pk])) for client in clients]
