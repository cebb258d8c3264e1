"""Who may do what with recipes."""

import rules

from practice.access import Route, allow
from practice.rules import looks, plans
from record.models import EXPORTED

rules.add_perm("recipes.look", looks)
rules.add_perm("recipes.plan", plans)

allow(
    "recipes",
    Route(
        "list new import import-many shelf shelf-copy preview page foods",
        "recipes.look",
        "recipes.plan",
    ),
    Route("keep-typing archive copy remove", "recipes.look", "recipes.plan"),
    Route("versions keep back cook swap scale", "recipes.look", "recipes.plan"),
    Route("export", "recipes.look", None, EXPORTED),
)
