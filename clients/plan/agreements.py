"""What was agreed on with a client, for whoever plans for them: asked of the later stages."""

from __future__ import annotations

from clients.models import Client
from webkit.extension_points import Question

# What stands agreed on with a client? In words; empty where nothing does.
AGREED: Question[[Client], str] = Question()


def agreed_with(client: Client) -> str:
    """What stands agreed on, in words; empty where nothing does."""
    return "; ".join(said for said in AGREED.ask(client) if said)
