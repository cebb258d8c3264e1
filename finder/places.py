"""What a few typed letters find: clients, recipes, bowls, days, foods, and the pages of the
application."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import KW_ONLY, dataclass
from datetime import date, datetime

from django.db.models import Case, Q, QuerySet, When
from django.urls import reverse
from django.utils import timezone

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from clients.models import Client
from clients.plan.gate import gate_of
from clients.plan.in_force import plan_of
from clients.plan.marks import Marked, marked_dish, marked_food
from nutrition.safety.gate import Gate
from nutrition.written.finding import find_foods
from planner.models import Day
from recipes.adding import very_food, with_words
from recipes.facts import facts_of
from recipes.models import Recipe
from webkit.client_address import addresses_for

MOST = 6
# How a date is typed, without the year, which is the one nearest to today.
DATE_FORMS = ("%b %d", "%B %d", "%d %b", "%d %B", "%m/%d", "%Y-%m-%d")
# Pages by their name in the addresses, what they are called, and other words for them.
PAGES = (
    ("clients:list", "Clients", ""),
    ("recipes:list", "Recipes", ""),
    ("recipes:new", "Write a recipe", "new"),
    ("recipes:import", "Bring recipes in from a file", "import upload csv json text"),
    ("bowls:list", "Bowls", "build new"),
    ("planner:list", "Days", "plan"),
    ("week:list", "Weeks", "plan week prep"),
    ("week:skeleton", "Skeleton of the week", "meals slots usual eats cooks shops"),
    ("week:favorites", "Favorites", "liked refused tried rotation"),
    ("journal:page", "Follow-up", "journal weight trend pace weigh-ins"),
    ("journal:weights", "Weigh-ins", "paste csv scale"),
    ("journal:days", "Log a day", "eaten food diary recall"),
    ("journal:eaten", "Eaten", "averages plate plan hunger"),
    ("journal:stall", "Why it stalls", "plateau levers change"),
    ("journal:blood", "Blood values", "laboratory potassium pressure waist"),
    ("journal:liked", "Liked, kept, refused", "dishes favorites"),
    ("journal:visits", "Visits", "note sign addendum"),
    ("kitchen:house", "In the house", "stock pantry freezer at hand use first waste"),
    ("kitchen:list", "Kitchen", "cooking timeline prep stove oven"),
    ("kitchen:pieces", "Pieces of a mix", "balls patties weight wrung"),
    ("shopping:packages", "Packages and prices", "shop units cost"),
    ("pantry:search", "Pantry: all foods", "food table composition"),
    ("pantry:own-list", "Foods of the practice", "packages labels own"),
    ("pantry:own-new", "Copy a package's label", "new food own label"),
    ("pantry:words", "Words of the practice", "meaning names settled"),
    ("schools:list", "Schools", "rules habits plate"),
    ("plates:compare", "Compare", "two plates side by side"),
    ("plates:ladder", "Density ladder", "calorie density kcal pound"),
    ("practice", "Settings of the practice", "time zone cups spoons handout contact name town"),
    ("you", "Your own settings", "keys shortcuts single letter"),
)


@dataclass(frozen=True)
class Place:
    """Something to open: what kind it is, what it is called, more of it, and its address."""

    kind: str
    name: str
    more: str
    url: str
    _: KW_ONLY
    marked: Marked | None = None


def _clients(words: str) -> Iterator[Place]:
    for row in with_words(Client.objects.all(), "name", words)[:MOST]:
        yield Place(
            "client", row.name, row.get_goal_display(), reverse("clients:page", args=[row.pk])
        )


def _own_first(rows: QuerySet, client: Client | None) -> QuerySet:
    """The page's own client's and everybody's first, then those of other clients."""
    own = Case(
        When(client=client.pk if client else None, then=0), When(client=None, then=1), default=2
    )
    return rows.order_by(own, *rows.model._meta.ordering)


def _of(row: Recipe | Bowl, name: str, client: Client | None) -> str:
    """The address of a record: one of another client is opened for them."""
    if client is None or row.client_id in (None, client.pk):
        return reverse(name, args=[row.pk])
    with addresses_for(row.client_id):
        return reverse(name, args=[row.pk])


def _recipes(words: str, client: Client | None, gate: Gate | None) -> Iterator[Place]:
    rows = Recipe.objects.filter(client__removed=None, archived=None).select_related("client")
    found = with_words(_own_first(rows, client), "title", words)[:MOST]
    for row in found:
        more = f"for {row.client.name}" if row.client else row.role
        marked = marked_dish(gate, row, facts_of(row).foods()) if gate else None
        yield Place("recipe", row.title, more, _of(row, "recipes:page", client), marked=marked)


def _bowls(words: str, client: Client | None, gate: Gate | None) -> Iterator[Place]:
    rows = Bowl.objects.filter(client__removed=None, archived=None).select_related("client")
    for row in with_words(_own_first(rows, client), "name", words)[:MOST]:
        more = f"for {row.client.name}" if row.client else "for anybody"
        marked = marked_dish(gate, row, reckon_bowl(row).ingredients) if gate else None
        yield Place("bowl", row.name, more, _of(row, "bowls:page", client), marked=marked)


def date_in(text: str, today: date) -> date | None:
    """The date that was typed, in the year nearest to today where none was; None for no date."""
    for form in DATE_FORMS:
        dated = form if "%Y" in form else f"{form} %Y"
        for year in (today.year, today.year - 1, today.year + 1):
            try:
                found = datetime.strptime(text if "%Y" in form else f"{text} {year}", dated).date()
            except ValueError:
                continue
            if "%Y" in form or abs((found - today).days) <= 183:
                return found
    return None


def _days(words: str, client: Client | None) -> Iterator[Place]:
    rows = _own_first(
        Day.objects.filter(client__removed=None, archived=None).select_related("client"), client
    )
    on = date_in(words, timezone.localdate())
    if on is not None:
        rows = rows.filter(date=on)
    elif words.lower() in ("day", "days", "today"):
        rows = rows.filter(date__lte=timezone.localdate())
    else:
        rows = (
            rows.filter(
                Q(note__icontains=words)
                | (Q(client__name__icontains=words) if len(words) > 2 else Q())
            )
            if len(words) > 2
            else rows.none()
        )
    for row in rows[:MOST]:
        more = f"{row.client.name}{f': {row.note}' if row.note else ''}"
        name = f"{row.date:%A, %B} {row.date.day}"
        yield Place("day", name, more, f"/for/{row.client_id}/days/{row.pk}/")


def _foods(words: str, gate: Gate | None) -> Iterator[Place]:
    for match in find_foods(words, MOST, typing=True, comparators=True):
        food = match.food
        marked = marked_food(gate, food) if gate else None
        yield Place(
            "food", food.name, food.state, reverse("pantry:food", args=[food.slug]), marked=marked
        )


def _pages(words: str) -> Iterator[Place]:
    asked = words.lower().split()
    for name, called, other in PAGES:
        said = f"{called} {other}".lower()
        if all(word in said for word in asked):
            yield Place("page", called, "", reverse(name))


def places(words: str, client: Client | None) -> list[Place]:
    """Everything that the words find, a few of each kind, what is worked on first; what the client
    must not have is marked."""
    if not words:
        return []
    gate = gate_of(plan_of(client)) if client is not None else None
    foods, food = list(_foods(words, gate)), very_food(words.lower())
    # a food that is called so stands before the dishes that hold its name
    very = [one for one in foods if food is not None and one.name == food.name]
    return [
        *_clients(words),
        *very,
        *_recipes(words, client, gate),
        *_bowls(words, client, gate),
        *_days(words, client),
        *_pages(words),
        *(one for one in foods if one not in very),
    ]
