"""What was changed for a client, by whom and why, newest first."""

from dataclasses import dataclass
from datetime import datetime

from clients.models import Client
from nutrition.safety.caution_rules import rules

MOST = 30


@dataclass(frozen=True)
class Change:
    when: datetime
    who: str
    what: str
    why: str


def history_of(client: Client) -> list[Change]:
    """Versions of the targets and cautions put aside or brought back."""
    out = [
        Change(
            row.made,
            row.by.shown_name if row.by else "",
            f"Targets {row.number}, from {row.takes_effect:%b %-d, %Y}",
            row.why,
        )
        for row in client.target_versions.select_related("by").defer("data")[:MOST]
    ]
    known = {rule.code: rule.level for rule in rules()}
    for row in client.dismissals.select_related("by")[:MOST]:
        name = row.code.replace("_", " ")
        out.append(
            Change(
                row.made,
                row.by.shown_name,
                f"Caution put aside ({known.get(row.code, 'note')}): {name}",
                row.why,
            )
        )
        if row.ended:
            out.append(Change(row.ended, "", f"Caution brought back: {name}", ""))
    return sorted(out, key=lambda change: change.when, reverse=True)[:MOST]
