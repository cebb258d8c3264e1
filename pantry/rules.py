"""Who may do what with foods. A package is copied by whoever plans; a value put in place of the
table's changes what every client's days come to."""

import rules

from practice.access import Route, allow
from practice.rules import looks, plans, treats
from record.models import EXPORTED

rules.add_perm("pantry.look", looks)
rules.add_perm("pantry.plan", plans)
rules.add_perm("pantry.treat", treats)

allow(
    "pantry",
    Route("search old-package", "pantry.look", None),
    Route("own-list own-new own-look own-beside own-import", "pantry.look", "pantry.plan"),
    Route("own own-retire words word-undo", "pantry.look", "pantry.plan"),
    Route("own-csv words-csv", "pantry.look", None, EXPORTED),
    Route("food overrule-end", "pantry.look", "pantry.treat"),
)
