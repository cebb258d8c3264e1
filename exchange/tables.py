"""Plans and logs as CSV: a row for everything that is eaten, with what it is read back by, its
grams and what it brings."""

from __future__ import annotations

from collections.abc import Iterable
from io import StringIO

from clients.models import Client
from journal.eaten.spoken_log import dish_name
from journal.models import LoggedDay, LoggedEntry
from journal.record.days import portion_of
from nutrition.composition.foods import food_table
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Profile
from nutrition.formats.csv_cells import SafeWriter
from planner.day import reckon_day
from planner.models import Day, Eaten

# The nutrients that a row has, each with its range.
KEYS = (
    *("energy_kcal", "protein_g", "carbohydrate_g", "fiber_g", "fat_g", "saturated_fat_g"),
    *("sodium_mg", "potassium_mg", "phosphorus_mg", "calcium_mg", "iron_mg"),
)
# What a row is read back by: the day, the meal by its key, what kind of thing, its name, how many
# servings or bowls of it, or grams of a food.
PLAN = ("date", "meal", "kind", "what", "amount [servings, bowls; g of a food]")
# ... and of a log: how much of what was planned it was, its range, how it was measured, what was
# said, and whether the day is all there.
LOG = (*PLAN, "how", "least", "most", "measured", "said", "all of the day")


def csv_of(heads: Iterable[str], rows: Iterable[Iterable[object]]) -> bytes:
    """A table as CSV (RFC 4180) in UTF-8; what is not known is an empty cell."""
    out = StringIO()
    writer = SafeWriter(out)
    writer.writerow(list(heads))
    for row in rows:
        writer.writerow(["" if cell is None else cell for cell in row])
    return out.getvalue().encode()


def _amount_heads() -> list[str]:
    parts = [
        f"{NUTRIENT[key].name}{edge} [{NUTRIENT[key].unit}]"
        for key in KEYS
        for edge in ("", ", at least", ", at most", ", lines unknown")
    ]
    return ["how much", "grams [g]", *parts]


def _amounts(said: str, profile: Profile) -> list[object]:
    out: list[object] = [said, round(profile.grams, 2)]
    for key in KEYS:
        amount = profile[key]
        known = amount.known > 0 or amount.amount > 0
        edges = (amount.amount, amount.low, amount.high)
        out += [round(value, 4) if known else None for value in edges]
        out.append(amount.unknown_lines)
    return out


def kind_of_row(row: Eaten) -> str:
    """ "food", "recipe", "bowl"; "other" for what was eaten out or is not settled."""
    if row.food:
        return "food"
    return "recipe" if row.recipe_id else "bowl" if row.bowl_id else "other"


def name_of_row(row: Eaten) -> str:
    """What a row is read back by: a food by its key, a dish by its name."""
    if row.food:
        return row.food
    return row.recipe.title if row.recipe else row.bowl.name if row.bowl else dish_name(row)


def plans_csv(client: Client) -> bytes:
    """Every planned day of a client."""
    rows = []
    for day in Day.objects.filter(client=client).order_by("date", "pk"):
        day.practice = client.practice
        for entry in reckon_day(day).entries:
            row = entry.row
            own = [day.date, row.meal, kind_of_row(row), name_of_row(row), row.amount]
            rows.append([*own, *_amounts(entry.said, entry.profile)])
    return csv_of([*PLAN, *_amount_heads()], rows)


def logs_csv(client: Client) -> bytes:
    """Every logged day of a client; a day of which nothing is known is a row without a thing."""
    rows = []
    for day in LoggedDay.objects.filter(client=client).order_by("date"):
        whole = "yes" if day.whole else "no"
        for row in day.entries.select_related("recipe", "bowl", "planned", "day"):
            rows.append([*_of_log(row), whole, *_of_portion(row, client)])
    return csv_of([*LOG, *_amount_heads()], rows)


def _of_log(row: LoggedEntry) -> list[object]:
    low, high = (row.low_g, row.high_g) if row.food else (row.low, row.high)
    own = [row.day.date, row.meal, kind_of_row(row), name_of_row(row), row.amount]
    return [*own, row.how, low, high, row.basis, row.said]


def _of_portion(row: LoggedEntry, client: Client) -> list[object]:
    portion = portion_of(row, client.practice.measures)
    return _amounts(portion.said if row.food in food_table() else "", portion.profile)
