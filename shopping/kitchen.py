"""What the kitchen has, kept by ticking what was bought and by cooking."""

from __future__ import annotations

from django.db import transaction

from practice.models import User
from shopping.lists import Line, taken_by
from shopping.models import Bought, CookedPot
from shopping.stock import add_to, stock_of
from week.models import Week
from week.pots import Pot


def tick(week: Week, line: Line | None, key: str, on: bool, by: User) -> None:
    """A line ticked off, or the tick taken back. Ticked twice it is bought once: a phone that was
    out of reach may send it again."""
    with transaction.atomic():
        row = Bought.objects.filter(week=week, key=key).first()
        if not on:
            if row is not None:
                add_to(week.client, row.food, -row.grams)
                row.delete()
            return
        if row is not None or line is None:
            return
        item = line.item
        grams = item.count * item.sold.grams
        Bought.objects.create(
            week=week, key=key, food=item.food.slug, grams=grams, words=item.words, by=by
        )
        add_to(week.client, item.food.slug, grams)


def cooked(week: Week, pot: Pot | None, key: str, on: bool, by: User) -> None:
    """A pot was cooked, and took its foods out of the kitchen; or it was not."""
    with transaction.atomic():
        row = CookedPot.objects.filter(week=week, key=key).first()
        if not on:
            if row is not None:
                for food, grams in row.took.items():
                    add_to(week.client, food, float(grams))
                row.delete()
            return
        if row is not None or pot is None:
            return
        have = stock_of(week.client)
        took = {
            food: min(grams, have.get(food, 0.0))
            for food, grams in taken_by(pot).items()
            if have.get(food, 0.0) > 0
        }
        for food, grams in took.items():
            add_to(week.client, food, -grams)
        CookedPot.objects.create(week=week, key=key, took=took, by=by)
