"""Sessions for the tests of the timeline."""

import json
from datetime import date
from pathlib import Path

from nutrition.prep.timeline.kitchen import Kitchen, Session, ToCook
from nutrition.requests.timeline import read_timeline
from nutrition.tests.prep.steps.dish import work_of

KITCHENS = Path(__file__).resolve().parents[2] / "kitchens"
DAY = date(2026, 12, 5)
ONE_COOK = Kitchen(cooks=1, burners=3, ovens=1, shelves=2, blenders=1)


def hour(text):
    hours, minutes = text.split(":")
    return int(hours) * 60 + int(minutes)


def dish(key, lines, steps, ready="18:30", name=None, stored=False):
    return ToCook(
        key=key,
        name=name or key,
        work=work_of(lines, steps, name or key),
        ready_at=hour(ready),
        stored=stored,
    )


def session(*dishes, kitchen=ONE_COOK, earliest="15:00", **more):
    return Session(kitchen=kitchen, dishes=dishes, earliest=hour(earliest), **more)


def kitchen_named(name):
    """One of the twelve kitchens as it is asked for."""
    given = json.loads((KITCHENS / f"{name}.json").read_text(encoding="utf-8"))
    return read_timeline(given, DAY)


def names():
    return sorted(one.stem for one in KITCHENS.glob("*.json"))
