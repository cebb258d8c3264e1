"""The simulated scale on a socket of this machine, speaking the protocol of docs/scale.md, with a
window of its own in the browser."""

from __future__ import annotations

import asyncio
import contextlib
import json
import re
from collections.abc import Sequence
from http import HTTPStatus
from pathlib import Path
from time import monotonic
from typing import Any

from websockets.asyncio.server import ServerConnection, broadcast, serve
from websockets.datastructures import Headers
from websockets.http11 import Request, Response

from nutrition.prep.scale import BODY, READ_EVERY_S, Act, ScaleKind, SimulatedScale

WINDOW = Path(__file__).resolve().parent / "scale_window.html"
HOST = "127.0.0.1"
# Pages of this machine may listen; others are named when it is started.
LOCAL = re.compile(r"http://(?:127\.0\.0\.1|localhost)(?::\d+)?")
MOST_BYTES = 2000


class ScaleServer:
    """One scale and whoever listens to it. `lost`: it answers nobody until it is back."""

    def __init__(self, kind: ScaleKind, script: Sequence[Act] = (), seed: int = 1) -> None:
        self.scale = SimulatedScale(kind, seed)
        self.script = list(script)
        self.began = monotonic()
        self.lost = False
        self.listening: set[ServerConnection] = set()

    def hello(self) -> str:
        """What is told first: which scale it is."""
        kind = self.scale.kind
        return json.dumps(
            {
                "kind": "scale",
                "name": kind.name,
                "body": kind is BODY,
                "capacity_g": kind.capacity_g,
                "step_g": kind.step_g,
            }
        )

    async def talk(self, connection: ServerConnection) -> None:
        """One who listens: told which scale it is, then every reading; may set it to zero."""
        if self.lost:
            return
        self.listening.add(connection)
        try:
            await connection.send(self.hello())
            async for message in connection:
                self.heard(message)
        finally:
            self.listening.discard(connection)

    def heard(self, message: str | bytes) -> None:
        """What a page or the window asks for; anything else is passed over."""
        with contextlib.suppress(ValueError, TypeError, AttributeError):
            asked: dict[str, Any] = json.loads(message)
            self.do(str(asked.get("do")), float(asked.get("grams", 0.0)))

    def do(self, what: str, grams: float) -> None:
        """One act on the scale. [g]"""
        if what == "tare":
            self.scale.tare()
        elif what == "put":
            self.scale.put(grams)
        elif what == "lay":
            self.scale.lay(grams)
        elif what in ("lose", "back"):
            self.lost = what == "lose"

    async def run(self) -> None:
        """Read it ten times a second, do what the script says, and tell everybody."""
        while True:
            at = monotonic() - self.began
            while self.script and self.script[0].at <= at:
                act = self.script.pop(0)
                self.do(act.do, act.grams)
            if self.lost:
                for one in list(self.listening):
                    await one.close()
            reading = self.scale.read(at)
            told = {
                "g": reading.grams,
                "stable": reading.stable,
                "overload": reading.overload,
                "t": round(at * 1000),
            }
            if not self.lost:
                broadcast(self.listening, json.dumps(told))
            await asyncio.sleep(READ_EVERY_S)


def window(_connection: ServerConnection, request: Request) -> Response | None:
    """The window, for whoever opens the address in a browser; None for a page that listens."""
    if request.headers.get("Upgrade", "").lower() == "websocket":
        return None
    body = WINDOW.read_bytes()
    headers = Headers(
        {"Content-Type": "text/html; charset=utf-8", "Content-Length": str(len(body))}
    )
    return Response(HTTPStatus.OK.value, "OK", headers, body)


async def serve_scale(server: ScaleServer, port: int, origins: Sequence[str] = ()) -> None:
    """Serve until stopped. `origins` are the addresses besides this machine's whose pages may
    listen: a weight is nobody else's."""
    allowed: Any = [LOCAL, *origins]
    async with serve(
        server.talk,
        HOST,
        port,
        process_request=window,
        origins=allowed,
        max_size=MOST_BYTES,
    ):
        await server.run()
