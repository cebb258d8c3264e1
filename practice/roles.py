"""The four roles of a practice, each of which may all that the ones before it may."""

from __future__ import annotations

from dataclasses import dataclass

READER, ASSISTANT, PRACTITIONER, OWNER = "reader", "assistant", "practitioner", "owner"


@dataclass(frozen=True)
class Role:
    """A role as a person reads it, and how far it reaches beside the others."""

    name: str
    may: str
    reach: int


ROLES = {
    READER: Role("reader", "looks at everything and prints it; changes nothing", 0),
    ASSISTANT: Role(
        "assistant",
        "plans, weighs in and logs what was eaten; leaves targets, orders, blood values, cautions "
        "and notes as they are",
        1,
    ),
    PRACTITIONER: Role(
        "practitioner", "all the work with clients: targets, orders, blood values, notes", 2
    ),
    OWNER: Role(
        "owner", "all of that, and the practice itself: people, record, archives, erasure", 3
    ),
}


def reach_of(role: str) -> int:
    """How far a role reaches; less than any for one that is not known."""
    return ROLES[role].reach if role in ROLES else -1
