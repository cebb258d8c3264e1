"""Who may set what is printed on everything."""

import rules

from practice.access import Route, allow
from practice.rules import owns

rules.add_perm("paper.own", owns)

allow("paper", Route("mark", "paper.own", "paper.own"))
