"""bin/backup: a backup of the database, while it is in use."""

from __future__ import annotations

from django.core.management.base import BaseCommand, CommandError, CommandParser

from record import heads
from running import backing_up
from running.backing_up import NoBackup
from webkit.command_file import path_given


class Command(BaseCommand):
    help = (
        "Make a backup of the database as it is now, open it and look through it; then take away "
        "those that are no longer kept. With ROUNDPANTRY_BACKUP_KEY it is sealed."
    )

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--to", metavar="DIR", help="where to; else ROUNDPANTRY_BACKUPS")
        parser.add_argument("--new-key", metavar="FILE", help="make a key to seal backups with")
        parser.add_argument("--list", action="store_true", help="which there are")

    def handle(self, *args: object, **options: str) -> None:
        folder = path_given(options["to"]) if options["to"] else None
        try:
            if options["new_key"]:
                public = backing_up.new_key(path_given(options["new_key"]))
                self.stdout.write(
                    f"The key is in {options['new_key']}, for {public}. Keep it somewhere else as "
                    "well: without it no sealed backup opens."
                )
                return
            if options["list"]:
                for one in backing_up.all_in(folder):
                    self.stdout.write(f"{one.made:%Y-%m-%d %H:%M}  {one.size:>12,}  {one.path}")
                return
            made, looked = backing_up.make(folder)
        except (NoBackup, OSError) as error:
            raise CommandError(str(error)) from None
        heads.note()
        sealed = "sealed, " if made.sealed else ""
        self.stdout.write(f"{made.path}\n{made.size:,} bytes, {sealed}opened: {looked.words}")
