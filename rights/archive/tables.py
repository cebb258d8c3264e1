"""Which tables an archive has, and how each hangs on a client or a practice. Every table of ours is
in it unless it says here why not: what comes later is in it by itself."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from django.apps import apps
from django.db import models

from record.recorded import kind_of

Model = type[models.Model]

# Why a table is not in an archive.
LEFT_OUT = {
    "clients.clientlook": "what the list says of a client, reckoned from the rest",
    "exchange.begun": "a file that waits to be taken over",
    "handouts.calendarevent": "what calendars were given by this installation, numbered by it",
    "handouts.bundle": "papers that wait to be fetched, made anew",
    "jobs.chore": "of the installation",
    "jobs.job": "work under way",
    "pantry.ownfoods": "a stamp of the state of the foods, made anew",
    "people.failedtry": "of the sign-in",
    "people.invitation": "places that are offered, by link",
    "people.signedin": "of the sign-in",
    "practice.user": "as people.json: names and roles, without passwords",
    "shared_with.link": "an address that opens what this installation holds",
    "shared_with.use": "of the addresses",
    "record.entry": "as record.json, in words that can be read",
    "record.key": "what is sealed is in record.json as it reads",
    "rights.erased": "what is no longer here",
}
# What is reckoned or made anew: fields that no archive has.
FIELDS_LEFT_OUT = {
    "planner.planneddish": {"digest"},
    "pantry.ownfood": {"made", "made_with"},
    "week.week": {"proposals"},
    "recipes.recipe": {"kcal", "protein_g", "kcal_per_gram", "unsettled"},
}
# ... and the steps of undo, which the record has in words.
STEPS = "history"
OURS = "nutrition"


def ours() -> list[Model]:
    """Every table of ours, each after those that it points to, its own kind aside."""
    return list(_ours())


@lru_cache
def _ours() -> tuple[Model, ...]:
    from django.conf import settings

    labels = {config.label for config in apps.get_app_configs() if _is_ours(config, settings)}
    waiting = sorted(
        (model for model in apps.get_models() if model._meta.app_label in labels),
        key=lambda model: model._meta.label_lower,
    )
    done: list[Model] = []
    while waiting:
        ready = [
            model
            for model in waiting
            if all(to is model or to in done or to not in waiting for to in _pointed(model))
        ]
        if not ready:
            raise ValueError(f"these tables point to each other: {waiting}")
        done += ready
        waiting = [model for model in waiting if model not in ready]
    return tuple(done)


def _is_ours(config: Any, settings: Any) -> bool:
    return str(config.path).startswith(str(settings.BASE_DIR)) and ".venv" not in config.path


def _pointed(model: Model) -> set[Model]:
    return {
        field.related_model
        for field in model._meta.concrete_fields
        if isinstance(field, models.ForeignKey)
    }


def archived() -> list[Model]:
    """The tables of an archive, each after those that it points to."""
    return [model for model in ours() if kind_of(model) not in LEFT_OUT]


def fields_of(model: Model) -> list[models.Field]:
    """The fields of a table that an archive has, without its key."""
    left_out = FIELDS_LEFT_OUT.get(kind_of(model), set()) | {STEPS}
    return [
        field
        for field in model._meta.concrete_fields
        if not field.primary_key and field.name not in left_out
    ]


# What a client's plan is made of, and is nobody's alone.
USED_BY_CLIENTS = frozenset(
    {
        "bowls.bowl",
        "bowls.bowlpart",
        "pantry.ownfood",
        "planner.planneddish",
        "recipes.recipe",
        "schools.ownschool",
    }
)


def of_a_client() -> set[str]:
    """The tables that a client's archive may have: no value, word or rule of another practice comes
    in with somebody."""
    own = {kind_of(model) for model in archived() if path_to(model, "client") is not None}
    return own | USED_BY_CLIENTS


@lru_cache
def path_to(model: Model, name: str) -> str | None:
    """How rows of a table are found by what they belong to: "day__client" for a client's; None
    where they belong to none but by being used."""
    if kind_of(model) == {"client": "clients.client", "practice": "practice.practice"}[name]:
        return "pk"
    fields = {field.name: field for field in model._meta.concrete_fields}
    if name in fields:
        return name
    up = getattr(model, "record_of", "") or ("client" if "client" in fields else "")
    if not up:
        return None
    above = path_to(fields[up].related_model, name)
    return None if above is None else f"{up}__{above}".removesuffix("__pk")
