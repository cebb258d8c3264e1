"""Who may give a client a link, and look at what came back. What a link itself opens is said by its
address, and by nobody's sign-in."""

import rules

from practice.access import ANYBODY, Route, allow
from practice.rules import looks, plans, treats

rules.add_perm("shared_with.look", looks)
rules.add_perm("shared_with.plan", plans)
rules.add_perm("shared_with.treat", treats)

allow(
    "shared_with",
    Route("links new change", "shared_with.treat", "shared_with.treat"),
    Route("seen", "shared_with.look", "shared_with.plan"),
    Route("today cooking cook shopping tell lesson calendar nothing worker", ANYBODY, ANYBODY),
    Route("cook-told tick told", ANYBODY, ANYBODY),
)
