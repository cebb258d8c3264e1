"""A client as a colleague stored them meanwhile, beside what stands in a form: everything that
differs, and what has to be decided."""

from __future__ import annotations

from dataclasses import dataclass

from django.http import QueryDict

from clients.models import Client
from clients.person.forms import FIELDS, ClientForm, SupplementRows

# What can hurt if it is dropped unseen: each such difference is decided by hand, one way or the
# other.
DECIDED_BY_HAND = ("conditions", "allergies", "supplements", "life_stage")
CHOICES = ("mine", "theirs")


@dataclass(frozen=True)
class Difference:
    """A field with what is stored and what was sent, in words."""

    name: str
    label: str
    theirs: str
    mine: str

    @property
    def must_decide(self) -> bool:
        return self.name in DECIDED_BY_HAND


def _said(client: Client, name: str) -> str:
    if name == "conditions":
        return ", ".join(client.condition_words) or "none"
    if name == "allergies":
        return client.allergy_words or "none known"
    display = getattr(client, f"get_{name}_display", None)
    return str(display() if display else getattr(client, name)) or "empty"


def differences(stored: Client, form: ClientForm, supplements: SupplementRows) -> list[Difference]:
    """Everything in which the form is not what is stored."""
    out = []
    for name in (*FIELDS, "conditions"):
        if getattr(stored, name) != getattr(form.instance, name):
            label = (
                "conditions and medicines"
                if name == "conditions"
                else str(form.fields[name].label or name).lower()
            )
            out.append(Difference(name, label, _said(stored, name), _said(form.instance, name)))
    theirs, mine = sorted(row.words for row in stored.supplements.all()), supplements.words
    if theirs != mine:
        out.append(
            Difference(
                "supplements",
                "what they take",
                "; ".join(theirs) or "nothing",
                "; ".join(mine) or "nothing",
            )
        )
    return out


def decided(data: QueryDict, choice: str) -> list[str]:
    """The fields that were decided this way."""
    return [
        name
        for name in (*FIELDS, "conditions", "supplements")
        if data.get(f"decide-{name}") == choice
    ]


def undecided(data: QueryDict, differs: list[Difference]) -> list[str]:
    """The fields that were shown as differing, still differ, and are not decided."""
    shown = set(data.getlist("differs"))
    return [
        one.name
        for one in differs
        if one.name in shown and one.must_decide and data.get(f"decide-{one.name}") not in CHOICES
    ]
