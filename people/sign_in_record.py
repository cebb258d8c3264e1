"""What happens with somebody's sign-in, for the record of their practice: that it did, and nothing
of what it was."""

from __future__ import annotations

from practice.models import User
from record import chain
from record.acting import acting_now
from record.models import CHANGED, HANDED_OVER


def tell(user: User, what: str, how: str) -> None:
    """Something of somebody's sign-in was changed, by whoever acts, or by themselves."""
    _write(CHANGED, user, {"how": "changed", "name": user.shown_name, "changes": {what: ["", how]}})


def tell_link(user: User) -> None:
    """A link to a new password was handed over."""
    _write(HANDED_OVER, user, {"what": f"a link to a new password for {user.shown_name}"})


def _write(act: str, user: User, contents: dict[str, object]) -> None:
    if user.practice_id is None:
        return
    now = acting_now()
    who, deed = (now.who, now.deed) if now is not None else (user.pk, "")
    chain.write(
        act,
        "practice.user",
        user.pk,
        of=("practice.user", user.pk),
        contents=contents,
        practice=user.practice_id,
        who=who,
        deed=deed,
    )
