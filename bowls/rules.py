"""Who may do what with bowls."""

import rules

from practice.access import Route, allow
from practice.rules import looks, plans

rules.add_perm("bowls.look", looks)
rules.add_perm("bowls.plan", plans)

allow(
    "bowls",
    Route("list new sauce page settings add copy archive meal", "bowls.look", "bowls.plan"),
    Route("remove without undo balance swap find change limits", "bowls.look", "bowls.plan"),
)
