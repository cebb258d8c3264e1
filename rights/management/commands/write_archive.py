"""bin/manage write_archive: everything of a practice, or about one client, as a file."""

from __future__ import annotations

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django_scopes import scope

from clients.models import Client
from pantry.in_force import foods_of_practice
from practice.models import Practice
from record import chain
from record.models import EXPORTED
from rights.archive.writing import archive_of_client, archive_of_practice
from webkit.command_file import path_given


class Command(BaseCommand):
    help = "Write an archive of a practice, or of one of its clients, to a file that is not there."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("practice", help="its name")
        parser.add_argument("file")
        parser.add_argument("--client", metavar="NAME", help="one client alone")

    def handle(self, *args: object, **options: str) -> None:
        practice = Practice.objects.filter(name__iexact=options["practice"]).first()
        if practice is None:
            raise CommandError(f"There is no practice called {options['practice']}.")
        path = path_given(options["file"])
        with scope(practice=practice), foods_of_practice(practice):
            client = None
            if options["client"]:
                client = Client.with_removed.filter(name=options["client"]).first()
                if client is None:
                    raise CommandError(f"{practice.name} has no client {options['client']}.")
            content = archive_of_client(client) if client else archive_of_practice(practice)
        try:
            with path.open("xb") as there:
                path.chmod(0o600)
                there.write(content)
        except OSError as error:
            raise CommandError(f"{options['file']} cannot be written: {error.strerror}.") from None
        what = "rights:archive" if client else "rights:practice-archive"
        chain.write(EXPORTED, what, client=client.pk if client else None, practice=practice.pk)
        self.stdout.write(f"{len(content):,} bytes in {options['file']}")
