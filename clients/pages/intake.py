"""A first visit while it is written down: kept as typed, looked at as far as it goes, finished into
a client."""

from __future__ import annotations

from dataclasses import dataclass

from django.db import transaction
from django.db.models import Field
from django.http import QueryDict
from django.utils import timezone

from clients.models import Client, Intake
from clients.person.forms import FIELDS, ClientForm, SupplementRows
from clients.plan.in_force import InForce
from clients.plan.versions import make_version
from nutrition.safety.cautions import Caution, cautions_in
from nutrition.safety.situations import body_numbers, planned_situation, situation
from nutrition.targets.day import DayTargets, day_targets
from nutrition.targets.person import OutOfRange, Referred
from nutrition.targets.watched_targets import watched_keys
from practice.models import User
from practice.versioned import StaleSave, version_in
from schools.choices import school_named

NOT_KEPT = {"csrfmiddlewaretoken", "visit_version", "finish", "later"}
MOST_KEPT = 60_000
NO_SUPPLEMENTS = {"supplements-TOTAL_FORMS": ["3"], "supplements-INITIAL_FORMS": ["0"]}
NEEDED = (
    "sex",
    "birth_year",
    "height_cm",
    "weight_kg",
    "activity",
    "life_stage",
    "goal",
    "formula",
    "weight_basis",
    "meals",
)


@dataclass(frozen=True)
class SoFar:
    """What can be said of what is written so far."""

    day: DayTargets | None
    rows: list[InForce]
    cautions: list[Caution]
    waiting_for: str


def keep(intake: Intake, post: QueryDict, page: str) -> bool:
    """Keep what stands in the form of an open page, valid or not. False if it is too much to keep.
    Raises StaleSave where somebody else kept more."""
    data = {
        name: [value.replace("\x00", "") for value in values]
        for name, values in post.lists()
        if name not in NOT_KEPT
    }
    if (
        sum(len(name) + sum(len(value) for value in values) for name, values in data.items())
        > MOST_KEPT
    ):
        return False
    asked = version_in(post.get("visit_version"))
    with transaction.atomic():
        stored = Intake.with_removed.get(pk=intake.pk)
        own = asked is None or (bool(page) and page == stored.kept_from)
        if not own and asked != stored.version:
            raise StaleSave(stored)
        intake.version, intake.data, intake.kept_from = stored.version, data, page
        intake.save_over(stored.version)
    return True


# What a form says before anybody typed.
_TYPED = ("name", "about", "wish", "birth_year", "height_cm", "weight_kg", "sex", "notes")


def is_blank(intake: Intake) -> bool:
    """Whether nobody has written anything in it yet."""
    return not any("".join(intake.data.get(name, [])).strip() for name in _TYPED)


def differing(intake: Intake, post: QueryDict) -> list[tuple[str, str, str]]:
    """What is kept of a first visit otherwise than it stands in a form: the field, as it is kept,
    as it was sent."""
    labels = {name: str(field.label or name) for name, field in ClientForm().fields.items()}
    out = []
    for name in dict.fromkeys([*intake.data, *post]):
        theirs, mine = intake.data.get(name, []), post.getlist(name)
        if (
            name not in NOT_KEPT
            and theirs != mine
            and [*filter(None, theirs)] != [*filter(None, mine)]
        ):
            out.append(
                (labels.get(name, name.replace("-", " ")), ", ".join(theirs), ", ".join(mine))
            )
    return out


def _field(name: str) -> Field:
    """A field of a client, none of them a relation that leads back."""
    found = Client._meta.get_field(name)
    assert isinstance(found, Field)
    return found


def kept(intake: Intake) -> QueryDict:
    """What was kept, as a form would send it."""
    data = QueryDict(mutable=True)
    # a field that was never sent shows what a new client begins with, not the first of its choices
    begins = {
        name: [str(_field(name).get_default())] for name in NEEDED if _field(name).has_default()
    }
    for name, values in {
        **NO_SUPPLEMENTS,
        **begins,
        "takes_effect": [str(timezone.localdate())],
        **intake.data,
    }.items():
        data.setlist(name, values)
    return data


def so_far(form: ClientForm) -> SoFar:
    """Targets and cautions as far as the form goes, for the side of the page."""
    form.full_clean()
    data = form.cleaned_data if hasattr(form, "cleaned_data") else {}
    missing = [str(form[name].label).lower() for name in NEEDED if data.get(name) in (None, "")]
    if missing:
        return SoFar(
            None, [], [], f"Targets appear here once these are there: {', '.join(missing)}."
        )
    client = form.as_typed({name: data.get(name, _field(name).get_default()) for name in FIELDS})
    client.school = data.get("school", "")
    person = client.person()
    try:
        day = day_targets(person, school_named(client.school))
    except Referred as error:
        return SoFar(
            None,
            [],
            cautions_in(situation(person, client.school, body_numbers(person))),
            f"{error} Turn to {error.refer_to}.",
        )
    except OutOfRange as error:
        return SoFar(None, [], [], str(error))
    found = cautions_in(planned_situation(day))
    # a condition may watch what only a school sets
    keys = [key for key in watched_keys(person, day.school) if key in day.targets]
    rows = [InForce(day.targets[key], day.computed.get(key), None, True) for key in keys]
    return SoFar(day, rows, found, "")


def finish(intake: Intake, form: ClientForm, supplements: SupplementRows, by: User) -> Client:
    """The client, with supplements and first targets, from forms that are valid."""
    with transaction.atomic():
        client = form.save(commit=False)
        client.practice = intake.practice
        client.save()
        supplements.save(client)
        # what they weigh at the first visit is their first weigh-in
        client.weigh(timezone.localdate(), client.weight_kg, by)
        make_version(client, by, "First visit", form.cleaned_data.get("takes_effect"))
        intake.client, intake.data = client, {}
        intake.save(update_fields=["client", "data", "updated"])
    return client
