"""What lies beside a client's archive for other programs: FHIR, plans and logs as CSV."""

from __future__ import annotations

import json

from clients.archive_files import Rows
from clients.models import Client
from exchange.chart import chart_of, made_on
from exchange.tables import logs_csv, plans_csv
from nutrition.formats.fhir.writing import to_bundle


def fhir_of(client: Client) -> bytes:
    """The client as a FHIR R4 bundle in JSON."""
    chart = chart_of(client)
    bundle = to_bundle(chart, made_on(chart))
    return json.dumps(bundle, ensure_ascii=False, indent=1).encode()


def files_of(client: Client, _rows: Rows) -> list[tuple[str, bytes]]:
    """All of them, by name."""
    return [
        ("client.fhir.json", fhir_of(client)),
        ("plans.csv", plans_csv(client)),
        ("logs.csv", logs_csv(client)),
    ]
