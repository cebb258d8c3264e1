"""What a stage lays beside the data of a client's archive: the same in formats that others read."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from io import StringIO

from django.db import models

from clients.models import BloodValue, Client, WeighIn
from nutrition.formats.csv_cells import SafeWriter
from webkit.extension_points import Question

# The rows of an archive by table and key.
Rows = Mapping[type[models.Model], Mapping[int, models.Model]]
# What more is there of a client: paths within "open/", and what is there.
FILES: Question[[Client, Rows], list[tuple[str, bytes]]] = Question()


def _csv(heads: list[str], rows: Iterable[Iterable[object]]) -> bytes:
    out = StringIO()
    writer = SafeWriter(out)
    writer.writerow(heads)
    for row in rows:
        writer.writerow(["" if one is None else one for one in row])
    return out.getvalue().encode()


def tables_of(client: Client, rows: Rows) -> list[tuple[str, bytes]]:
    """Weights and blood values as CSV, also those that were taken away."""
    weights = WeighIn.with_removed.filter(client=client).order_by("date", "pk")
    blood = BloodValue.with_removed.filter(client=client).order_by("date", "pk")
    return [
        (
            "weights.csv",
            _csv(
                ["date", "weight [kg]", "when", "dressed", "scale", "remark", "taken away"],
                [
                    [row.date, row.kg, row.time, row.dressed, row.scale, row.remark, row.removed]
                    for row in weights
                ],
            ),
        ),
        (
            "blood-values.csv",
            _csv(
                [
                    *("date", "what", "value", "unit", "range from", "range to"),
                    *("laboratory", "remark", "taken away"),
                ],
                [
                    [
                        *(row.date, row.key, row.value, row.unit, row.low, row.high),
                        *(row.laboratory, row.remark, row.removed),
                    ]
                    for row in blood
                ],
            ),
        ),
    ]
