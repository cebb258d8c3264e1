"""bin/upgrade: the database brought up to this version, with a backup before and a way back."""

from __future__ import annotations

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError

from running import backing_up, holding, places
from running.backing_up import NoBackup
from running.steps import not_done, said_of


class Command(BaseCommand):
    help = "Make a backup, then take the database through the steps of this version."
    requires_migrations_checks = False

    def handle(self, *args: object, **options: object) -> None:
        try:
            with holding.nobody_else():
                self._take_steps()
        except holding.Held as error:
            raise CommandError(str(error)) from None

    def _take_steps(self) -> None:
        path = places.database()
        fresh = not path.exists() or not path.stat().st_size
        steps = not_done()
        if not steps:
            self.stdout.write("The database is up to this version.")
            return
        back = ""
        if not fresh:
            try:
                made, _looked = backing_up.make()
            except NoBackup as error:
                raise CommandError(f"{error}. Nothing was changed.") from None
            back = f"The way back: the program as it was before, and bin/restore {made.path}"
            self.stdout.write(f"Backup before: {made.path}")
        for one in steps:
            if not fresh and (said := said_of(one)):
                self.stdout.write(f"{one.app_label} {one.name}: {said}")
        try:
            call_command("migrate", verbosity=0)
        except Exception as error:
            raise CommandError(f"A step failed: {type(error).__name__}. {back}") from error
        self.stdout.write(f"{len(steps)} steps taken.")
        if back:
            self.stdout.write(back)
