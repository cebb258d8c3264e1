"""The demo practice's kitchens: a stove, a session that was cooked and one that is planned, what
came out, what is in the house and what was thrown away."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import timedelta
from decimal import Decimal

from django.utils import timezone

from clients.models import Client
from kitchen.batch_days import BatchDay, batch_days_of
from kitchen.dishes import dish_of_pot
from kitchen.models import CookingSession, Stove, Thrown
from kitchen.planning import plan_anew, planned_of
from kitchen.weighing import pots_shown, weigh
from nutrition.prep.timeline.kitchen import USUAL_EARLIEST, USUAL_READY
from practice.models import Practice, User
from shopping.models import Stock

# Whose batch day was cooked, and whose is planned.
COOKED, PLANNED = "family", "ferry"
# What the pots came to, against what was reckoned: in turn.
CAME_TO = (0.93, 1.06, 1.0)
# How many days from today what stands opened in the refrigerator is good.
OPENED = (("soy-milk-unsweetened", 700.0, 1), ("tofu-firm", 280.0, 2), ("kale-raw", 180.0, 0))
# What was thrown away so many days ago, how much, and what it had cost.
THROWN = (
    ("Spinach, raw", 120.0, "1.10", 3),
    ("Split pea and dill pot", 380.0, None, 12),
    ("Rye bread", 150.0, "0.92", 40),
)


def load_kitchen(practice: Practice, user: User, clients: Mapping[str, Client]) -> None:
    """All of it. The weeks must be there."""
    Stove.objects.create(client=clients[COOKED], burners=4, ovens=1, shelves=2, blenders=1)
    Stove.objects.create(client=clients[PLANNED], burners=3, ovens=1, shelves=2, blenders=1)
    planned = batch_days_of(clients[PLANNED])
    if planned:
        _session(practice, clients[PLANNED], planned[0])
    days = batch_days_of(clients[COOKED])
    if days:
        _cook(_session(practice, clients[COOKED], days[0]), user)
    _house(clients[COOKED])


def _session(practice: Practice, client: Client, batch: BatchDay) -> CookingSession:
    row = CookingSession(
        practice=practice,
        client=client,
        week=batch.week,
        day=batch.on,
        ready_at=USUAL_READY,
        earliest=USUAL_EARLIEST,
        dishes=[dish_of_pot(pot, at).data() for at, pot in enumerate(batch.pots)],
    )
    plan_anew(row)
    row.save()
    return row


def _cook(session: CookingSession, user: User) -> None:
    """It was cooked, and each pot weighed."""
    for at, shown in enumerate(pots_shown(planned_of(session))):
        share = CAME_TO[at % len(CAME_TO)]
        weigh(session, shown, round(shown.reckoned_g * share), None, user)
    session.ended = session.at(session.ready_at)
    session.save()


def _house(client: Client) -> None:
    today = timezone.localdate()
    for food, grams, days in OPENED:
        Stock.objects.create(
            client=client,
            food=food,
            grams=grams,
            place="refrigerator",
            opened=today - timedelta(days=1),
            use_by=today + timedelta(days=days),
        )
    for name, grams, cost, days in THROWN:
        Thrown.objects.create(
            client=client,
            name=name,
            grams=grams,
            cost=None if cost is None else Decimal(cost),
            on=today - timedelta(days=days),
        )
