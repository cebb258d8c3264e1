"""Who may do what with lists, kitchens and shops."""

import rules

from practice.access import Route, allow
from practice.rules import looks, plans
from record.models import EXPORTED, PRINTED

rules.add_perm("shopping.look", looks)
rules.add_perm("shopping.plan", plans)

allow(
    "shopping",
    Route("packages page tick pot", "shopping.look", "shopping.plan"),
    Route("csv", "shopping.look", None, EXPORTED),
    Route("paper", "shopping.look", None, PRINTED),
    Route("worker", "shopping.look", None),
)
