"""Who may do what where plates are compared."""

import rules

from practice.access import Route, allow
from practice.rules import looks, plans

rules.add_perm("plates.look", looks)
rules.add_perm("plates.plan", plans)

allow(
    "plates",
    Route("compare ladder lesson", "plates.look", None),
    Route("old-new old old-find old-change old-remove", "plates.look", "plates.plan"),
)
