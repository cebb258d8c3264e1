"""What must be stopped and asked about for a client whatever is eaten: said on every page that
works for them, and on what is printed of it."""

from __future__ import annotations

from collections.abc import Sequence

from django.utils import timezone

from clients.models import Client
from clients.plan.attention import judged_now, weekly_pace
from clients.plan.cautions import Told, of_the_client
from clients.plan.in_force import plan_of
from nutrition.safety.caution_rules import LEVELS
from nutrition.safety.cautions import Caution
from practice.models import Practice

# What is said of a stop for which the client has no words of their own.
UNSAID = (
    "Something has to be settled before you eat by this page. Call us first: it does not stand "
    "here for others to read."
)


def stands_anyway(client: Client | None) -> list[Caution]:
    """The stop-and-asks that no change of a plate settles; nothing for nobody."""
    if client is None:
        return []
    pace = weekly_pace(judged_now(client, timezone.localdate()))
    told = of_the_client(plan_of(client), client, pace.kg_per_week if pace else None)
    return [one for one in told.standing if one.level == LEVELS[0]]


def asked_first(client: Client | None, told: Told) -> list[Caution]:
    """All that is to be asked about before something is eaten: of what is shown, then what stands
    anyway; what was settled by name is not among it."""
    shown = [one for one, _holders in told.stops]
    known = {one.code for one in shown}
    return [*shown, *(one for one in stands_anyway(client) if one.code not in known)]


def in_the_clients_words(asks: Sequence[Caution]) -> list[str]:
    """Each stop as the client reads it: what has no words for them is said once, without what it
    is."""
    said = [one.client for one in asks if one.client]
    return said if len(said) == len(asks) else [*said, UNSAID]


def for_the_household(practice: Practice, asks: Sequence[Caution]) -> str:
    """What a page says that anybody in the house reads: no diagnosis, value or medicine. Empty
    where there is nothing to ask."""
    if not asks:
        return ""
    where = f" {practice.contact.rstrip('.')}." if practice.contact else ""
    return f"Ask {practice.name} before you cook from this.{where}"
