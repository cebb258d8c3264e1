"""Who may print what a client is handed."""

import rules

from practice.access import Route, allow
from practice.rules import looks
from record.models import PRINTED

rules.add_perm("handouts.look", looks)

allow("handouts", Route("bowl day", "handouts.look", None, PRINTED))
