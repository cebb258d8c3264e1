"""Who may do what with clients. Who plans weighs in and chooses what is watched, and leaves the
person, the targets, the orders and the cautions as they are."""

import rules

from practice.access import OF_ALL, Route, allow
from practice.rules import looks, plans, treats

rules.add_perm("clients.look", looks)
rules.add_perm("clients.plan", plans)
rules.add_perm("clients.treat", treats)

allow(
    "clients",
    Route("weigh-in correct-weigh-in remove-weigh-in watched", "clients.look", "clients.plan"),
    Route("list", "clients.look", "clients.treat", OF_ALL),
    Route("new intake keep-intake drop-intake", "clients.look", "clients.treat"),
    Route("page edit remove shares retarget hold", "clients.look", "clients.treat"),
    Route("dismiss bring-back target use-computed", "clients.look", "clients.treat"),
)
