"""Who may do what with the follow-up. Who plans writes down what happened and what was eaten; blood
values, what is agreed on and the notes are for who treats."""

import rules

from practice.access import Route, allow
from practice.rules import looks, plans, treats
from record.models import PRINTED

rules.add_perm("journal.look", looks)
rules.add_perm("journal.plan", plans)
rules.add_perm("journal.treat", treats)

allow(
    "journal",
    Route("page happening weights paste-weights days day", "journal.look", "journal.plan"),
    Route("change felt recall eaten liked decided", "journal.look", "journal.plan"),
    Route("appoint", "journal.look", "journal.plan"),
    Route("stall take outcome write", "journal.look", "journal.treat"),
    Route("blood add-blood paste-blood remove-blood", "journal.look", "journal.treat"),
    Route("visit-paper letter-paper", "journal.look", None, PRINTED),
    Route(
        "letters new-letter letter letter-answered remove-letter", "journal.look", "journal.treat"
    ),
    Route("visits new-visit visit addendum remove-visit", "journal.look", "journal.treat"),
)
