"""The foods that hold in a practice: the table, with its own foods, words and values laid over
it."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import lru_cache
from typing import Any
from uuid import uuid4

from django.http import HttpResponse
from django_scopes import scope, scopes_disabled

from nutrition.composition.food_names import TABLES_KEPT, food_names
from nutrition.composition.foods import Food, FoodTable, foods_in_force, shipped_foods
from nutrition.composition.overrides import Overruling, overruled
from nutrition.labels.food_data import from_plain, made_with, to_plain
from nutrition.labels.label import Label
from nutrition.labels.own_food import OwnFood as MadeFood
from nutrition.labels.own_food import own_food
from nutrition.written.naming import said_words
from pantry.models import Overrule, OwnFood, OwnFoods, Word
from practice.models import Practice
from practice.requests import SignedInRequest, rendered


def changed(practice: Practice) -> None:
    """Note that a practice's foods are no longer what they were. Within the transaction of the
    change."""
    OwnFoods.objects.update_or_create(practice=practice, defaults={"stamp": uuid4().hex})


def made_of(slug: str, label: Label) -> MadeFood:
    """The food that a label makes, with what was read of it. Raises BadLabel."""
    with foods_in_force(shipped_foods):
        return own_food(slug, label, shipped_foods(), food_names())


def make(row: OwnFood) -> MadeFood:
    """Put the food that its label makes with a row that has a key, not saved. Raises BadLabel."""
    made = made_of(row.slug, row.label())
    row.made, row.made_with = to_plain(made.food), made_with()
    return made


def _food_of(row: OwnFood) -> Food:
    if row.made_with != made_with():
        # the tables it was made with are no longer these
        make(row)
        OwnFood.objects.filter(pk=row.pk).update(made=row.made, made_with=row.made_with)
    kept: dict[str, Any] = row.made
    return from_plain({**kept, "slug": row.slug}, retired=row.retired is not None)


def remake() -> int:
    """Make every food anew that was made with other tables than these; how many there were. Asked
    for when the database is made ready, so that nobody waits for it."""
    with scopes_disabled():
        rows = list(OwnFood.objects.exclude(made_with=made_with()))
        for row in rows:
            _food_of(row)
    return len(rows)


@lru_cache(maxsize=TABLES_KEPT)
def _table(practice_pk: int, stamp: str) -> FoodTable:
    practice = Practice(pk=practice_pk)
    with scope(practice=practice):
        # one that is retired gives way to one of the same name
        rows = sorted(OwnFood.objects.all(), key=lambda row: row.retired is None)
        own = {row.slug: _food_of(row) for row in rows}
        ruled: dict[str, list[Overruling]] = {}
        for one in Overrule.objects.filter(ended=None).select_related("by"):
            ruled.setdefault(one.food, []).append(one.core())
        settled = {said_words(row.name): row.slug for row in rows if row.takes_name}
        settled |= {
            tuple(word.said.split()): word.food for word in Word.objects.filter(undone=None)
        }
    shipped = shipped_foods()
    foods = [overruled(food, ruled[food.slug]) if food.slug in ruled else food for food in shipped]
    return FoodTable([*foods, *own.values()], (practice_pk, stamp), settled, shipped.uppers)


def foods_of(practice: Practice) -> Callable[[], FoodTable]:
    """Gives the practice's foods when they are asked for: the first time it looks which state they
    are in."""
    found: list[FoodTable] = []

    def table() -> FoodTable:
        if not found:
            stamp = OwnFoods.objects.filter(practice=practice).values_list("stamp", flat=True)
            state = stamp.first()
            found.append(_table(practice.pk, state) if state else shipped_foods())
        return found[0]

    return table


@contextmanager
def foods_of_practice(practice: Practice) -> Iterator[None]:
    """Within this the foods are the practice's, as they are when the first is looked for."""
    with foods_in_force(foods_of(practice)):
        yield


class OwnFoodsMiddleware:
    """The foods of the practice that a request is for, for its length."""

    def __init__(self, get_response: Callable[[Any], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: SignedInRequest) -> HttpResponse:
        practice = getattr(request, "practice", None)
        if practice is None:
            return self.get_response(request)
        with foods_of_practice(practice):
            return rendered(self.get_response(request))
