"""Who may see the record and the archive of a client, and who may erase one."""

import rules

from practice.access import Route, allow
from practice.rules import owns, treats
from record.models import EXPORTED

rules.add_perm("rights.treat", treats)
rules.add_perm("rights.own", owns)

allow(
    "rights",
    Route("client consent withdraw", "rights.treat", "rights.treat"),
    Route("record thing", "rights.treat", None),
    Route("archive", "rights.treat", None, EXPORTED),
    Route("erase keep practice take-in", "rights.own", "rights.own"),
    Route("practice-record", "rights.own", None),
    Route("practice-archive", "rights.own", None, EXPORTED),
)
