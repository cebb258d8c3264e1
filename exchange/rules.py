"""Who may give a client out in the formats of others, and take one in."""

import rules

from practice.access import Route, allow
from practice.rules import looks, treats
from record.models import EXPORTED

rules.add_perm("exchange.look", looks)
rules.add_perm("exchange.treat", treats)

allow(
    "exchange",
    Route("fhir plans logs", "exchange.treat", None, EXPORTED),
    Route("coming values tables", "exchange.look", "exchange.treat"),
)
