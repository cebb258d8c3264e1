"""Who may do what with weeks."""

import rules

from practice.access import Route, allow
from practice.rules import looks, plans
from record.models import PRINTED

rules.add_perm("week.look", looks)
rules.add_perm("week.plan", plans)

allow(
    "week",
    Route("list new skeleton skeleton-copy favorites decided", "week.look", "week.plan"),
    Route("page slot change plan drop progress take days copy", "week.look", "week.plan"),
    Route("settings newer-targets undo archive remove", "week.look", "week.plan"),
    Route("door cooking labels", "week.look", None, PRINTED),
)
