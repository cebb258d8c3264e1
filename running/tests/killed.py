"""Writes, and is killed while it does, so many times; tells what was lost."""

from __future__ import annotations

import json
import os
import random
import signal
import sys
import time
from datetime import date, timedelta

import django


def _write(practice: int, client: int, out: int) -> None:
    """Weigh in day after day, in the record too; each is told once it is stored."""
    from django.db import connection
    from django_scopes import scopes_disabled

    from clients.models import Client
    from record.acting import acting

    connection.close()
    with scopes_disabled():
        there = Client._base_manager.get(pk=client)
        latest = there.weigh_ins(manager="with_removed").order_by("-date").first()
        day = latest.date if latest else date(1900, 1, 1)
        while True:
            day += timedelta(days=1)
            with acting(practice, None):
                there.weigh_ins.create(date=day, kg=70.0)
            os.write(out, f"{day.isoformat()}\n".encode())


def main(kills: int, practice: int) -> None:
    django.setup()
    from django.db import connection
    from django_scopes import scopes_disabled

    from clients.models import Client, WeighIn
    from record import chain
    from record.models import Entry

    with scopes_disabled():
        client = Client.objects.create(
            practice_id=practice,
            name="Somebody",
            sex="male",
            birth_year=1980,
            height_cm=180,
            weight_kg=90,
        )
    # the same moments each time
    chance = random.Random(30)
    acknowledged: set[str] = set()
    for _kill in range(kills):
        connection.close()
        reads, writes = os.pipe()
        child = os.fork()
        if not child:
            os.close(reads)
            try:
                _write(practice, client.pk, writes)
            finally:
                os._exit(1)
        os.close(writes)
        # from the first that is stored, at any moment after
        told = os.read(reads, 11)
        time.sleep(chance.uniform(0.0, 0.02))
        os.kill(child, signal.SIGKILL)
        os.waitpid(child, 0)
        while more := os.read(reads, 4096):
            told += more
        os.close(reads)
        # a line that was cut off was never told
        acknowledged |= {line for line in told.decode().split("\n")[:-1] if len(line) == 10}
    with scopes_disabled(), connection.cursor() as cursor:
        stored = {row.isoformat() for row in WeighIn.objects.values_list("date", flat=True)}
        integrity = cursor.execute("PRAGMA integrity_check").fetchone()[0]
        told_all = {
            "kills": kills,
            "acknowledged": len(acknowledged),
            "lost": sorted(acknowledged - stored)[:10],
            "faults": list(chain.faults(practice))[:10],
            "entries": Entry.objects.filter(practice=practice).count(),
            "integrity": integrity,
        }
    sys.stdout.write(json.dumps(told_all) + "\n")


if __name__ == "__main__":
    main(int(sys.argv[1]), int(sys.argv[2]))
