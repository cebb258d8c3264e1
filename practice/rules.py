"""Who may do what: the predicates that the rules of every area are made of, and the rules of the
practice itself. What no rule allows is denied."""

from __future__ import annotations

from typing import Any

import rules

from practice.access import Route, allow
from practice.roles import ASSISTANT, OWNER, PRACTITIONER, READER, reach_of


@rules.predicate
def at_work(user: Any) -> bool:
    """Whether somebody still works in a practice."""
    return bool(user.is_authenticated and user.is_active and user.practice_id)


def _as(role: str) -> rules.Predicate:
    """Whether somebody has this role, or one that reaches further."""
    return rules.Predicate(
        lambda user: at_work(user) and reach_of(user.role) >= reach_of(role), name=f"as_{role}"
    )


looks = _as(READER)
plans = _as(ASSISTANT)
treats = _as(PRACTITIONER)
owns = _as(OWNER)

rules.add_perm("practice.look", looks)
rules.add_perm("practice.own", owns)

allow("", Route("home", "practice.look", None))
allow("", Route("practice", "practice.look", "practice.own"))
