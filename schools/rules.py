"""Who may do what with the schools: a practice's own copy changes the targets of whoever follows
it."""

import rules

from practice.access import Route, allow
from practice.rules import looks, treats

rules.add_perm("schools.look", looks)
rules.add_perm("schools.treat", treats)

allow("schools", Route("list page edit remove copy", "schools.look", "schools.treat"))
