"""Who may do what with days."""

import rules

from practice.access import Route, allow
from practice.rules import looks, plans

rules.add_perm("planner.look", looks)
rules.add_perm("planner.plan", plans)

allow(
    "planner",
    Route("list new put page settings copy archive remove", "planner.look", "planner.plan"),
    Route("without add find newer-targets balance", "planner.look", "planner.plan"),
    Route("swap undo change", "planner.look", "planner.plan"),
)
