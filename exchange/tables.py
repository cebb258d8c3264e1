"""Plans and logs as CSV: a row for everything that is eaten, with its grams and what it brings."""

from __future__ import annotations

from collections.abc import Iterable
from io import StringIO

from clients.models import Client
from exchange.chart import logged_of
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Profile
from nutrition.formats.csv_cells import SafeWriter
from planner.day import reckon_day
from planner.models import Day

# The nutrients that a row has, each with its range.
KEYS = (
    *("energy_kcal", "protein_g", "carbohydrate_g", "fiber_g", "fat_g", "saturated_fat_g"),
    *("sodium_mg", "potassium_mg", "phosphorus_mg", "calcium_mg", "iron_mg"),
)


def csv_of(heads: Iterable[str], rows: Iterable[Iterable[object]]) -> bytes:
    """A table as CSV (RFC 4180) in UTF-8; what is not known is an empty cell."""
    out = StringIO()
    writer = SafeWriter(out)
    writer.writerow(list(heads))
    for row in rows:
        writer.writerow(["" if cell is None else cell for cell in row])
    return out.getvalue().encode()


def heads() -> list[str]:
    """The columns of both tables."""
    parts = [
        f"{NUTRIENT[key].name}{edge} [{NUTRIENT[key].unit}]"
        for key in KEYS
        for edge in ("", ", at least", ", at most", ", lines unknown")
    ]
    return ["date", "meal", "what", "how much", "grams [g]", *parts]


def _amounts(profile: Profile) -> list[object]:
    out: list[object] = []
    for key in KEYS:
        amount = profile[key]
        known = amount.known > 0 or amount.amount > 0
        edges = (amount.amount, amount.low, amount.high)
        out += [round(value, 4) if known else None for value in edges]
        out.append(amount.unknown_lines)
    return out


def plans_csv(client: Client) -> bytes:
    """Every planned day of a client."""
    rows = []
    for day in Day.objects.filter(client=client).order_by("date", "pk"):
        day.practice = client.practice
        for meal in reckon_day(day).meals:
            for entry in meal.entries:
                rows.append(
                    [
                        *(day.date, meal.name, entry.name, entry.said),
                        round(entry.profile.grams, 2),
                        *_amounts(entry.profile),
                    ]
                )
    return csv_of(heads(), rows)


def logs_csv(client: Client) -> bytes:
    """Every logged day of a client; `how much` is as it was told."""
    rows = []
    for day in logged_of(client):
        for one in day.eaten:
            portion = one.portion
            rows.append(
                [
                    *(day.on, one.meal, portion.name, portion.said),
                    round(portion.grams, 2),
                    *_amounts(portion.profile),
                    "yes" if day.whole else "no",
                ]
            )
    return csv_of([*heads(), "all of the day"], rows)
