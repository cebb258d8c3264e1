"""A real practice, without demo data, and its first owner."""

import getpass
import os
import sys

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction

from nutrition.written.units import SYSTEM_WORDS
from practice.models import Practice, User
from practice.roles import OWNER

PASSWORD_VARIABLE = "ROUNDPANTRY_PASSWORD"


class Command(BaseCommand):
    help = (
        "Create a practice and its first owner, in an empty database or beside what is there. The "
        f"password is asked for; where nobody can be asked, it is read from {PASSWORD_VARIABLE}."
    )

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name", help="the practice's name")
        parser.add_argument("owner", help="the name the owner signs in with")
        parser.add_argument("--town", default="")
        parser.add_argument("--contact", default="", help="printed at the foot of handouts")
        parser.add_argument("--measures", choices=list(SYSTEM_WORDS), default="us")
        parser.add_argument("--first-name", default="")
        parser.add_argument("--last-name", default="")

    def handle(self, *args: object, **options: str) -> None:
        call_command("migrate", verbosity=0)
        name, owner = options["name"].strip(), options["owner"].strip()
        if not name or not owner:
            raise CommandError("The practice and its owner each need a name.")
        if Practice.objects.filter(name__iexact=name).exists():
            raise CommandError(f"There is a practice called {name} already.")
        if User.objects.filter(username__iexact=owner).exists():
            raise CommandError(f"There is somebody who signs in as {owner} already.")
        person = User(
            username=owner, first_name=options["first_name"], last_name=options["last_name"]
        )
        password = self._password()
        try:
            validate_password(password, person)
        except ValidationError as error:
            raise CommandError(" ".join(error.messages)) from None
        person.set_password(password)
        with transaction.atomic():
            person.practice = Practice.objects.create(
                name=name,
                town=options["town"],
                contact=options["contact"],
                measures=options["measures"],
            )
            person.role = OWNER
            person.save()
        self.stdout.write(f"{name} is there. Sign in as {owner}.")

    def _password(self) -> str:
        given = os.environ.get(PASSWORD_VARIABLE)
        if given is not None:
            return given
        if not sys.stdin.isatty():
            raise CommandError(f"Nobody can be asked for a password here: set {PASSWORD_VARIABLE}.")
        first, second = (getpass.getpass(said) for said in ("Password: ", "Once more: "))
        if first != second:
            raise CommandError("The two passwords differ.")
        return first
