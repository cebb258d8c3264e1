"""Plan the demo practice's weeks anew, and write them down."""

import tomllib

from django.core.management.base import BaseCommand
from django.db import transaction
from django_scopes import scope

from clients.models import Client
from demo.load import NAME
from demo.weeks import HERE, begin_weeks, name_of, posed_of, rows
from nutrition.planning.search import plan
from nutrition.portions.work import Work
from pantry.in_force import foods_of_practice
from practice.models import User
from week.models import ClientSkeleton, Favorite, Week

# These are planned once, and may take their time. [s, as work is counted]
WORK = 25.0


class Command(BaseCommand):
    help = "Plan the weeks of the demo practice in this database, and write demo/planned.toml."

    def handle(self, *args: object, **options: object) -> None:
        user = User.objects.get(username=NAME)
        practice = user.practice
        assert practice is not None
        out = ["# What stands in the demo's weeks, as `manage.py plan_demo` planned it."]
        with scope(practice=practice), foods_of_practice(practice), transaction.atomic():
            for model in (Week, ClientSkeleton, Favorite):
                model._base_manager.all().delete()
            names = client_names()
            clients = {key: Client.objects.get(name=name) for key, name in names.items()}
            begin_weeks(practice, user, clients)
            for key, client in clients.items():
                posed = posed_of(client)
                found = plan(posed.problem, Work.of(WORK))
                if found is None:
                    self.stderr.write(f"{client.name}: nothing found")
                    continue
                self.stdout.write(f"{client.name}: {found.score}, proved: {found.proved}")
                out += ["", f"[{key}]"]
                for slot, choice in found.planned.items():
                    if choice is not None:
                        name = name_of(choice.candidate).replace('"', "'")
                        out.append(f'{slot} = ["{name}", {choice.count}]')
            transaction.set_rollback(True)
        (HERE / "planned.toml").write_text("\n".join(out) + "\n", encoding="utf-8")


def client_names() -> dict[str, str]:
    """The names of the demo's clients that have weeks, by their keys."""
    found: dict[str, str] = {}
    for file in ("scenario.toml", "more_clients.toml"):
        data = tomllib.loads((HERE / file).read_text(encoding="utf-8"))
        found |= {row["key"]: row["name"] for row in data["clients"]}
    return {key: found[key] for key in rows()}
