"""What the people of the demo practice did, as their record has it: who agreed to what, who looked
at what, who printed what."""

from __future__ import annotations

from datetime import timedelta

from django.utils import timezone

from clients.models import Client
from practice.models import Practice, User
from record import chain
from record.acting import acting
from record.models import EXPORTED, PRINTED, READ
from rights.models import Consent

CONSENT = (
    "I agree that Tern Point Wellness keeps what I tell it about my health, weight and meals, "
    "plans with it, and shows it to nobody else without asking me. I can look at it, take it along "
    "and have it erased at any time."
)
# Who agreed, so many days ago, and how.
AGREED = (
    ("ferry", 62, "on paper, folder 3"),
    ("charts", 48, "on paper, folder 3"),
    ("rower", 40, "by voice, written down"),
    ("boats", 33, "on paper, folder 4"),
)
# Who looked at what, so many hours ago, and how often.
LOOKED = (
    ("ansel", "ferry", READ, "clients:page", 75, 3),
    ("joss", "ferry", READ, "week:page", 52, 5),
    ("joss", "ferry", PRINTED, "week:door", 51, 1),
    ("wilma", "ferry", READ, "clients:page", 28, 1),
    ("marin", "ferry", EXPORTED, "shopping:csv", 26, 1),
    ("marin", "charts", READ, "journal:blood", 25, 2),
    ("marin", "charts", PRINTED, "handouts:day", 24, 1),
)


def at_work(practice: Practice, user: User, clients: dict[str, Client]) -> None:
    """Their consents, and what of their work is in the record before today."""
    practice.consent_text, practice.keep_years = CONSENT, 10
    now = timezone.now()
    names = {one.username: one.pk for one in practice.users.all()}
    for who, key, act, what, hours, times in LOOKED:
        chain.write(
            act,
            what,
            client=clients[key].pk,
            contents={"times": times},
            at=now - timedelta(hours=hours),
            practice=practice.pk,
            who=names[who],
        )
    with acting(practice.pk, user.pk):
        practice.save()
        for key, ago, how in AGREED:
            Consent.objects.create(
                client=clients[key],
                text=CONSENT,
                on=timezone.localdate() - timedelta(days=ago),
                how=how,
                by=user,
            )
