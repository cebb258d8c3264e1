"""bin/restore: a backup put back in the place of the database."""

from __future__ import annotations

from django.core.management.base import BaseCommand, CommandError, CommandParser

from running.backing_up import NoBackup
from running.holding import Held
from running.restoring import put_back
from webkit.command_file import path_given


class Command(BaseCommand):
    help = (
        "Put a backup back: it is opened and checked first, and what was there is kept. The server "
        "and the worker must not be running."
    )
    # what is there may be damaged: nothing is asked of it first
    requires_system_checks: list[str] = []
    requires_migrations_checks = False

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file")
        parser.add_argument("--key", metavar="FILE", help="the key of a sealed backup")

    def handle(self, *args: object, **options: str) -> None:
        given = path_given(options["key"]) if options["key"] else None
        try:
            done = put_back(path_given(options["file"]), given)
        except (NoBackup, Held, OSError) as error:
            raise CommandError(f"{error} Nothing was changed.") from None
        self.stdout.write(f"Put back: {done.words}.")
        if done.before:
            self.stdout.write(f"What was there is kept in {done.before}")
        if done.erased:
            self.stdout.write(f"{done.erased} who were erased since were erased again.")
