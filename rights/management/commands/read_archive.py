"""bin/manage read_archive: an archive of a practice, or of a client, read back."""

from __future__ import annotations

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from people.links import password_path
from practice.models import Practice
from practice.roles import OWNER
from rights.archive.layout import OF_CLIENT, UnreadableArchive
from rights.archive.reading import Opened, opened, read_client, read_practice
from webkit.command_file import path_given


class Command(BaseCommand):
    help = (
        "Read an archive of a practice into this installation, or of a client into a practice "
        "that is here. Everybody of a practice gets a link to a password of their own."
    )

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file")
        parser.add_argument("--into", metavar="PRACTICE", help="which practice takes a client in")

    def handle(self, *args: object, **options: str) -> None:
        call_command("migrate", verbosity=0)
        try:
            archive = opened(path_given(options["file"]).read_bytes())
            if archive.of == OF_CLIENT:
                self._client(archive, options["into"])
            else:
                practice, people = read_practice(archive)
                self.stdout.write(f"{practice.name} is here. Links to a password, for a day each:")
                for one in people:
                    if one.is_active:
                        self.stdout.write(f"  {one.username}  {password_path(one)}")
        except OSError as error:
            raise CommandError(f"{options['file']} cannot be read: {error.strerror}") from None
        except UnreadableArchive as error:
            raise CommandError(f"{error} Nothing was taken in.") from None

    def _client(self, archive: Opened, into: str | None) -> None:
        practice = Practice.objects.filter(name__iexact=into or "").first()
        if practice is None:
            raise CommandError("Say which practice takes the client in: --into NAME")
        owner = practice.users.filter(role=OWNER, is_active=True).first()
        if owner is None:
            raise CommandError(f"{practice.name} has no owner.")
        client = read_client(archive, practice, owner)
        self.stdout.write(f"{client.name} is at {practice.name}.")
