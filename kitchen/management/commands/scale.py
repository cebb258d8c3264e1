"""A simulated scale on this machine, for the page that builds a bowl on one."""

import asyncio
import contextlib
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from kitchen.scale_server import HOST, ScaleServer, serve_scale
from nutrition.prep.scale import BODY, KITCHEN, script_in
from webkit.command_file import read_given


class Command(BaseCommand):
    help = (
        "Simulate a kitchen scale, or a body scale, on a socket of this machine: it settles, "
        "drifts, is set to zero, says when too much lies on it, and loses its connection. The "
        "address that is printed opens its window; docs/scale.md has the protocol."
    )

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--body", action="store_true", help="a body scale")
        parser.add_argument("--port", type=int, help="the port to speak on")
        parser.add_argument("--script", help="a file of acts by the second: 1.5 put 120")
        parser.add_argument(
            "--for",
            dest="sites",
            action="append",
            default=[],
            help="a site whose pages may listen besides this machine's: https://practice.example",
        )
        parser.add_argument("--seed", type=int, default=1, help="the same seed reads the same")

    def handle(self, *args: object, **options: Any) -> None:
        kind, port = (
            (BODY, settings.BODY_SCALE_PORT) if options["body"] else (KITCHEN, settings.SCALE_PORT)
        )
        port = options["port"] or port
        try:
            script = script_in(read_given(options["script"])) if options["script"] else []
        except ValueError as error:
            raise CommandError(f"{options['script']}, {error}") from None
        server = ScaleServer(kind, script, options["seed"])
        self.stdout.write(f"A {kind.name} is at http://{HOST}:{port} (Ctrl-C stops it)")
        self.stdout.flush()
        with contextlib.suppress(KeyboardInterrupt):
            try:
                asyncio.run(serve_scale(server, port, options["sites"]))
            except OSError as error:
                raise CommandError(f"Port {port} cannot be used: {error.strerror}.") from None
