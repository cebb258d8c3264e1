"""What a client's kitchen has of each food: more of it, less of it, where it stands."""

from __future__ import annotations

from datetime import date

from clients.models import Client
from nutrition.composition.foods import food_table
from nutrition.prep.shopping import CRUMB_G
from nutrition.prep.use_first import usual_place
from shopping.models import MOST_G, Stock


def add_to(client: Client, food: str, grams: float, place: str = "") -> None:
    """So much more of a food, or less; never less than none. [g] More goes to where it stands
    already, or usually does; less is taken from what is opened, and from what ends first."""
    rows = list(Stock.objects.filter(client=client, food=food))
    if grams < 0:
        _take(sorted(rows, key=_first_out), -grams)
        return
    if not place and rows:
        place = rows[0].place
    place = place or (usual_place(food_table()[food]) if food in food_table() else "shelf")
    row = next((one for one in rows if one.place == place), None)
    now = min((row.grams if row else 0.0) + grams, MOST_G)
    if now >= CRUMB_G:
        Stock.objects.update_or_create(
            client=client, food=food, place=place, defaults={"grams": now}
        )


def _first_out(row: Stock) -> tuple[bool, date, int]:
    return row.opened is None, row.use_by or date.max, row.pk


def _take(rows: list[Stock], grams: float) -> None:
    """So much out of some rows, one after the other. [g]"""
    for row in rows:
        taken = min(row.grams, grams)
        grams -= taken
        if row.grams - taken < CRUMB_G:
            row.delete()
        else:
            row.grams -= taken
            row.save()
        if grams <= 0:
            return


def stock_of(client: Client) -> dict[str, float]:
    """What a client's kitchen has of each food, wherever it stands. [g]"""
    out: dict[str, float] = {}
    for row in Stock.objects.filter(client=client):
        out[row.food] = out.get(row.food, 0.0) + row.grams
    return out
