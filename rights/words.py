"""An entry of the record in words: who did what to what, before and after."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from datetime import datetime
from functools import lru_cache
from typing import Any

from django.apps import apps
from django.db import models
from django.utils import timezone
from django.utils.dateparse import parse_date, parse_datetime

from practice.models import User
from record.models import CHANGED, Entry
from record.sealing import unseal

# So much of a value is shown; the archive has all of it. [characters]
LONGEST = 160
# What an address is called by people, where what its stage is about does not say it.
PAGES = {
    "clients:edit": "the person",
    "clients:target": "a target",
    "week:door": "the door page of a week",
    "week:cooking": "the cooking page of a week",
    "week:labels": "the labels of a week",
    "week:skeleton": "how a week usually is",
    "week:favorites": "the favorites",
    "handouts:bowl": "a bowl's handout",
    "handouts:day": "a day's handout",
    "shopping:csv": "a shopping list as CSV",
    "pantry:own-csv": "the packages as CSV",
    "pantry:words-csv": "the words as CSV",
    "recipes:export": "a recipe as a file",
    "rights:client": "the page of rights",
    "rights:archive": "everything about the client, as one archive",
    "rights:practice-archive": "everything of the practice, as one archive",
    "rights:record": "this record",
    "journal:page": "the follow-up",
    "journal:visit": "a visit note",
    "journal:visits": "the visits",
    "journal:blood": "the blood values",
    "journal:stall": "why it stalls",
    "plates:compare": "two plates",
    "plates:ladder": "the density ladder",
    "plates:lesson": "the lesson of two plates",
    "people": "in",
}
# What the pages of a stage are about: one, and all of them.
ABOUT = {
    "clients": ("the client's page", "the list of clients"),
    "recipes": ("a recipe", "the recipes"),
    "bowls": ("a bowl", "the bowls"),
    "planner": ("a day", "the days"),
    "week": ("a week", "the weeks"),
    "shopping": ("a shopping list", "the shopping lists"),
    "journal": ("the journal", "the journal"),
    "schools": ("a school", "the schools"),
    "pantry": ("a food", "the pantry"),
    "plates": ("plates", "plates"),
    "finder": ("what was searched for", "what was searched for"),
    "rights": ("rights", "rights"),
}


@dataclass(frozen=True)
class Change:
    """One field before and after, in words; `before` is None for what was made."""

    what: str
    before: str
    after: str


@dataclass(kw_only=True)
class Said:
    """One entry in words."""

    act: str
    what: str
    changes: list[Change] = field(default_factory=list)
    gone: bool = False
    kind: str = ""
    thing: int | None = None
    # where what became of it stands
    address: str = ""


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
    one, every = ABOUT.get(space, (space, space))
    if own == "list":
        return every
    said = own.replace("-", " ")
    return one if own == "page" or not one else f"{one}, {said}" if one != said else one


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
        here = timezone.localtime(at)
        return f"{here:%b} {here.day}, {here.year}, {here:%H:%M}"
    if isinstance(of, models.DateField) and (on := parse_date(str(value))):
        return f"{on:%b} {on.day}, {on.year}"
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
        return Said(act=entry.act, what=what, gone=gone, kind=entry.of_kind, thing=entry.of_thing)
    if entry.act != CHANGED:
        what = str(says.get("what", what))
        times = says.get("times", 1)
        more = f", {times} times" if times > 1 else ""
        return Said(act=entry.act, what=f"{what}{more}")
    name, of = says.get("name", ""), says.get("of", "")
    about = f"{what} {name}".strip() if name else what
    if of and entry.of_kind != entry.kind and of not in about:
        about = f"{about} ({of})"
    how = {"made": "made", "taken away": "took away"}.get(says.get("how", ""), "changed")
    return Said(
        act=how,
        what=about,
        changes=_changes(entry, says),
        kind=entry.of_kind,
        thing=entry.of_thing,
    )


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
