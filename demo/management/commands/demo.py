"""Make the database ready and fill it with the demo practice if it is empty."""

from django.core.management import call_command
from django.core.management.base import BaseCommand

from demo.load import COLLEAGUES, NAME, PASSWORD, load
from practice.models import Practice, User


class Command(BaseCommand):
    help = "Migrate, and load the demo practice into an empty database."

    def handle(self, *args: object, **options: object) -> None:
        call_command("migrate", verbosity=0)
        if not Practice.objects.exists():
            self.stderr.write("Loading the demo practice ...")
            load()
        if User.objects.filter(username=NAME).exists():
            self.stdout.write(f"Sign in as {NAME} with the password {PASSWORD}")
            others = ", ".join(f"{name} ({role})" for name, _first, _last, role in COLLEAGUES)
            self.stdout.write(f"Others see what their role may, with the same password: {others}")
        else:
            self.stdout.write("There is a practice already: no demo data was loaded.")
