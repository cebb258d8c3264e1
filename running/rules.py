"""Who may see how the installation stands."""

import rules

from practice.access import ANYBODY, Route, allow
from practice.rules import owns

rules.add_perm("running.own", owns)

allow("", Route("health ready", ANYBODY, None), Route("installation", "running.own", None))
