"""Making targets: every change that moves them becomes a version with a date, a name and a
reason."""

from datetime import date
from typing import NamedTuple

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from clients.models import Client, TargetOverride, TargetVersion
from clients.plan.target_data import same_targets, to_data
from nutrition.targets.day import DayTargets, day_targets
from nutrition.targets.person import Referred
from practice.models import User
from schools.choices import school_named
from webkit.page_cache import once


def standing_overrides(client: Client) -> QuerySet[TargetOverride]:
    """The orders that stand, the oldest first."""
    return client.overrides.filter(ended=None).select_related("by").order_by("made")


def compute(client: Client) -> DayTargets:
    """The targets of a client as they stand, orders included. Raises OutOfRange, or Referred."""
    orders = [row.order() for row in standing_overrides(client)] if client.pk else []
    person, school = client.person(), school_named(client.school)
    return day_targets(person, school, orders, client.meal_shares or None)


def make_version(
    client: Client, by: User | None, why: str, takes_effect: date | None = None
) -> TargetVersion | None:
    """A new version if the targets came out differently from the latest; None if they did not.

    A client whom the formulas do not cover gets a version without targets, so that the older ones
    are no longer in force. Raises OutOfRange for figures that are not possible.
    """
    try:
        data = to_data(compute(client))
    except Referred as error:
        data = {"referred": str(error), "refer_to": error.refer_to}
    data["overrides"] = {row.key: row.pk for row in standing_overrides(client)}
    with transaction.atomic():
        latest = client.target_versions.first()
        if (
            latest is not None
            and same_targets(latest.data, data)
            and takes_effect in (None, latest.takes_effect)
        ):
            return None
        return TargetVersion.objects.create(
            client=client,
            number=latest.number + 1 if latest else 1,
            takes_effect=takes_effect or timezone.localdate(),
            why=why[:300],
            by=by,
            data=data,
        )


class Made(NamedTuple):
    """A version in short: when it takes effect, why it was made, and of the person it was made for
    the goal, the weight [kg] and the factors for plants alone; None where that is not kept."""

    number: int
    takes_effect: date
    why: str
    goal: str | None
    weight_kg: float | None
    vegan_iron: bool | None
    vegan_zinc: bool | None


_IN_SHORT = ("number", "takes_effect", "why")
_OF_THE_PERSON = ("goal", "weight_kg", "vegan_iron", "vegan_zinc")


def versions_made(client: Client) -> list[Made]:
    """Every version of a client's targets, the newest first; none of one who is not stored."""
    if client.pk is None:
        return []
    fields = (*_IN_SHORT, *(f"data__person__{name}" for name in _OF_THE_PERSON))
    rows = client.target_versions.order_by("-number").values_list(*fields)
    return once(("versions made", client.pk), lambda: [Made(*row) for row in rows])


def version_on(client: Client, on: date) -> TargetVersion | None:
    """The version in force on a date: the latest made of those that have taken effect; None before
    the first."""
    latest = [row for row in client.__dict__.get("fetched_versions", ()) if row.takes_effect <= on]
    if latest:
        return max(latest, key=lambda row: row.number)
    # a version made later knows of everything that an earlier one meant to begin with
    rows = client.target_versions.filter(takes_effect__lte=on).order_by("-number")
    return once(("version", client.pk, on), rows.first)
