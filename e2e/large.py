"""A large practice beside the demo's: many clients and recipes in its database, for the times.

python -m e2e.large CLIENTS RECIPES
"""

import os
import sys

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "roundpantry.settings")


def fill(clients: int, recipes: int) -> None:
    """Copies of the demo's clients and recipes under other names, until there are so many."""
    from django_scopes import scope

    from clients.models import Client
    from practice.models import Practice
    from recipes.models import Recipe

    practice = Practice.objects.get(name="Tern Point Wellness")
    with scope(practice=practice):
        own = list(Client.objects.all())
        Client.objects.bulk_create(
            _copy(own[n % len(own)], name=f"Deckhand {n:04} {own[n % len(own)].name}")
            for n in range(clients - len(own))
        )
        written = list(Recipe.objects.filter(client=None))
        Recipe.objects.bulk_create(
            _copy(written[n % len(written)], title=f"{written[n % len(written)].title} {n:05}")
            for n in range(recipes - len(written))
        )


def _copy(row, **changed):
    copy = type(row)(
        **{
            field.attname: getattr(row, field.attname)
            for field in row._meta.concrete_fields
            if not field.primary_key
        }
    )
    for name, value in changed.items():
        setattr(copy, name, value)
    return copy


if __name__ == "__main__":
    django.setup()
    fill(int(sys.argv[1]), int(sys.argv[2]))
