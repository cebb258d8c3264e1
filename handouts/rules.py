"""Who may print what a client is handed."""

import rules

from practice.access import PRINTED, Route, allow
from practice.rules import looks

rules.add_perm("handouts.look", looks)

allow("handouts", Route("bowl day", "handouts.look", None, PRINTED))
