"""Who may look for what, and where a number comes from."""

import rules

from practice.access import Route, allow
from practice.rules import looks

rules.add_perm("finder.look", looks)

allow("finder", Route("find why", "finder.look", None))
