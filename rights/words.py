"""An entry of the record in words: who did what to what, before and after."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from datetime import datetime
from functools import lru_cache
from typing import Any

from django.apps import apps
from django.db import models
from django.utils.dateparse import parse_datetime

from practice.models import User
from record.models import CHANGED, Entry
from record.sealing import unseal

# So much of a value is shown; the archive has all of it. [characters]
LONGEST = 160
# What an address is called by people, where its name alone does not say it.
PAGES = {
    "clients:list": "the list of clients",
    "clients:page": "the client's page",
    "clients:edit": "the person",
    "clients:target": "a target",
    "week:door": "the door page of a week",
    "week:cooking": "the cooking page of a week",
    "week:labels": "the labels of a week",
    "handouts:bowl": "a bowl's handout",
    "handouts:day": "a day's handout",
    "shopping:csv": "a shopping list as CSV",
    "rights:archive": "everything about the client, as one archive",
    "rights:practice-archive": "everything of the practice, as one archive",
    "rights:record": "this record",
    "journal:page": "the follow-up",
    "journal:visit": "a visit note",
    "journal:visits": "the visits",
    "journal:blood": "the blood values",
}
NAMES = {"planner": "days", "plates": "compare", "week": "week"}


@dataclass(frozen=True)
class Change:
    """One field before and after, in words; `before` is None for what was made."""

    what: str
    before: str
    after: str


@dataclass
class Said:
    """One entry in words."""

    act: str
    what: str
    changes: list[Change] = field(default_factory=list)
    gone: bool = False
    kind: str = ""
    thing: int | None = None


@dataclass
class Deed:
    """What somebody did at once."""

    at: datetime
    who: str
    entries: list[Said] = field(default_factory=list)


@lru_cache
def _model(kind: str) -> type[models.Model] | None:
    try:
        return apps.get_model(kind)
    except (LookupError, ValueError):
        return None


def page_words(name: str) -> str:
    """What an address is called by people."""
    if name in PAGES:
        return PAGES[name]
    space, _, own = name.rpartition(":")
    return f"{NAMES.get(space, space)}: {own.replace('-', ' ')}".strip(": ")


def thing_words(kind: str) -> str:
    model = _model(kind)
    return str(model._meta.verbose_name) if model is not None else page_words(kind)


def _value(value: Any, of: models.Field | None) -> str:
    if value is None or value in ("", [], {}):
        return "nothing"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if of is not None and of.choices:
        return str(dict(of.flatchoices).get(value, value))
    if isinstance(of, models.ForeignKey):
        return f"no. {value}"
    if isinstance(of, models.DateTimeField) and (at := parse_datetime(str(value))):
        return f"{at:%b} {at.day}, {at:%H:%M}"
    if isinstance(value, list):
        value = ", ".join(str(one) for one in value)
    elif isinstance(value, dict):
        value = "; ".join(f"{name}: {one}" for name, one in value.items() if one not in ("", []))
    elif isinstance(value, float):
        value = f"{value:g}"
    text = " ".join(str(value).split())
    return text if len(text) <= LONGEST else f"{text[:LONGEST]} …"


def _field(model: type[models.Model] | None, attname: str) -> models.Field | None:
    if model is None:
        return None
    return next((one for one in model._meta.concrete_fields if one.attname == attname), None)


def _label(of: models.Field | None, attname: str) -> str:
    words = str(of.verbose_name) if of is not None else attname.removesuffix("_id")
    return re.sub(r"_", " ", words)


# What every row has and nobody asks about.
UNTOLD = {"practice_id", "client_id", "by_id", "made", "day_id", "bowl_id", "week_id", "recipe_id"}


def _changes(entry: Entry, says: dict[str, Any]) -> list[Change]:
    model, how = _model(entry.kind), says.get("how")
    out = []
    for attname, (before, after) in says.get("changes", {}).items():
        of = _field(model, attname)
        if how != "changed" and (
            attname in UNTOLD
            or before in (None, "", [], {}, False)
            and after in (None, "", [], {}, False)
        ):
            continue
        out.append(Change(_label(of, attname), _value(before, of), _value(after, of)))
    return out


def said(entry: Entry) -> Said:
    """One entry in words; of what is sealed and gone, that it was done."""
    says = unseal(entry.practice, entry.client, bytes(entry.contents) if entry.contents else None)
    what = thing_words(entry.kind)
    if says is None:
        gone = bool(entry.digest)
        return Said(entry.act, what, gone=gone, kind=entry.of_kind, thing=entry.of_thing)
    if entry.act != CHANGED:
        times = says.get("times", 1)
        more = f", {times} times" if times > 1 else ""
        return Said(entry.act, f"{what}{more}")
    name, of = says.get("name", ""), says.get("of", "")
    about = f"{what} {name}".strip() if name else what
    if of and entry.of_kind != entry.kind and of not in about:
        about = f"{about} ({of})"
    how = {"made": "made", "taken away": "took away"}.get(says.get("how", ""), "changed")
    return Said(how, about, _changes(entry, says), kind=entry.of_kind, thing=entry.of_thing)


def deeds(entries: list[Entry]) -> list[Deed]:
    """Entries, newest first, as what was done at once."""
    names = {
        user.pk: user.shown_name
        for user in User.objects.filter(pk__in={entry.who for entry in entries if entry.who})
    }
    out: list[tuple[tuple[str, int | None], Deed]] = []
    for entry in entries:
        key = (entry.deed, entry.who) if entry.act == CHANGED else ("", None)
        if not out or not entry.deed or out[-1][0] != key or key[0] == "":
            who = names.get(entry.who or 0, "the application itself")
            out.append((key, Deed(entry.at, who)))
        out[-1][1].entries.insert(0, said(entry))
    return [deed for _key, deed in out]
