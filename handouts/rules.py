"""Who may print what a client is handed."""

import rules

from practice.access import Route, allow
from practice.rules import looks, plans
from record.models import EXPORTED, PRINTED

rules.add_perm("handouts.look", looks)

rules.add_perm("handouts.plan", plans)

allow(
    "handouts",
    Route("page", "handouts.look", None),
    Route("make making", "handouts.look", "handouts.look"),
    Route("calendar", "handouts.look", "handouts.plan"),
    Route("calendar-file", "handouts.look", None, EXPORTED),
    Route("made", "handouts.look", None, PRINTED),
    Route("bowl day recipe", "handouts.look", None, PRINTED),
)
