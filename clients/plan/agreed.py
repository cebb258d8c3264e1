"""What was agreed on with a client, for whoever plans for them: asked of the later stages."""

from __future__ import annotations

from collections.abc import Callable

from clients.models import Client

_ASKED: list[Callable[[Client], str]] = []


def says_agreed(ask: Callable[[Client], str]) -> None:
    """A later stage registers when it starts."""
    if ask not in _ASKED:
        _ASKED.append(ask)


def agreed_with(client: Client) -> str:
    """What stands agreed on, in words; empty where nothing does."""
    return "; ".join(said for ask in _ASKED if (said := ask(client)))
