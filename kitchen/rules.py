"""Who may do what in the kitchen."""

import rules

from practice.access import Route, allow
from practice.rules import looks, plans
from record.models import PRINTED

rules.add_perm("kitchen.look", looks)
rules.add_perm("kitchen.plan", plans)

allow(
    "kitchen",
    Route("list new stove page change move remove", "kitchen.look", "kitchen.plan"),
    Route("steps right cook events", "kitchen.look", "kitchen.plan"),
    Route("house stock new-box box", "kitchen.look", "kitchen.plan"),
    Route("bowl-scale bowl-live bowl-take bowl-rest bowl-end", "kitchen.look", "kitchen.plan"),
    Route("weigh learn", "kitchen.look", "kitchen.plan"),
    Route("pieces", "kitchen.look", None),
    Route("sheet labels", "kitchen.look", None, PRINTED),
)
