"""What came in is tried before it is kept: everything that a page reckons of a client is reckoned
once, so that nothing is taken in that cannot be opened."""

from __future__ import annotations

from django.utils import timezone

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from clients.models import BloodValue, Client
from clients.plan.attention import reasons
from clients.plan.in_force import plan_of
from journal.record.reading import read
from journal.visits.notes import figures_of, sections_of
from nutrition.targets.blood import analytes, convert
from planner.day import reckon_day
from recipes.facts import facts_of
from recipes.models import Recipe
from rights.archive.readable import page_of
from week.reckoning import reckon_week


def try_client(client: Client, recipes: list[int]) -> None:
    """Reckon all there is of a client. Raises whatever a page would."""
    today = timezone.localdate()
    plan = plan_of(client)
    reasons(client, today)
    read(client, today, plan)
    for recipe in Recipe.with_removed.filter(pk__in=recipes):
        facts_of(recipe)
        for version in recipe.versions.all():
            version.as_recipe().core()
    for bowl in Bowl.with_removed.filter(client=client):
        reckon_bowl(bowl)
    for day in client.days(manager="with_removed").all():
        plan_of(client, on=day.date)
        reckon_day(day)
    for week in client.weeks(manager="with_removed").all():
        reckon_week(week)
    for visit in client.visits(manager="with_removed").all():
        sections_of(visit)
        figures_of(visit)
    for value in BloodValue.with_removed.filter(client=client):
        convert(value.key, value.value, value.unit, analytes()[value.key].unit)
    page_of(client)
