"""What a client tells by their link, put into the record as theirs: once, however often it is sent.
What is doubtful is held back and asked about."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from typing import Any

from django.db import IntegrityError, transaction
from django.utils import timezone

from clients.models import Client, WeighIn
from journal.eaten.log_day import decide, open_log
from journal.eaten.spoken_log import MOST_PIECE, Names, hear
from journal.models import FELT, Felt, LoggedDay, LoggedEntry
from nutrition.follow_up.doubts import doubt
from nutrition.follow_up.kitchen_line import LEFT_OUT
from nutrition.follow_up.told_amounts import AS_PLANNED, IN_A_TOUCH, LESS
from nutrition.follow_up.weigh_in import KG_PER_LB, Weighed
from nutrition.targets.person import LIMITS
from planner.models import DayEntry
from shared_with.models import Link, Told
from shared_with.today import DishToday, today_of
from webkit.request_values import TooLong, number_in

# A phone was out of reach for no longer; what is older is asked about by hand. [days]
LONGEST_AWAY = 60
HOW_WORDS = {"planned": "as planned", "less": "less of it", "none": "not eaten"}
BY_CLIENT = "told by the client"
MOST_SAID = 200
_NAME = re.compile(r"^[\w-]{8,40}$")


class NotTold(ValueError):
    """What cannot be taken; the message says why to who told it, and it is not sent again."""


@dataclass(frozen=True)
class Heard:
    """What became of something told: its words, what it made, why it is held back."""

    said: str
    made: tuple[int, ...] = ()
    held: str = ""
    kind: str = ""


def take(link: Link, data: Mapping[str, Any], now: datetime) -> tuple[Told, bool]:
    """Put what was told into the record; the row of it, and whether it is new. Raises NotTold."""
    name, kind = str(data.get("name", "")), str(data.get("kind", ""))
    if not _NAME.match(name):
        raise NotTold("This was not told in a way that can be kept.")
    if kind not in _KINDS or _KINDS[kind][0] not in link.shows:
        raise NotTold("Your link does not take this.")
    before = Told.objects.filter(client=link.client, name=name).first()
    if before is not None:
        return before, False
    on = _day(data.get("on"), now)
    try:
        with transaction.atomic():
            heard = _KINDS[kind][1](link, data, on)
            row = Told.objects.create(
                client=link.client,
                name=name,
                kind=kind,
                on=on,
                said=heard.said[:400],
                data={key: data[key] for key in sorted(data) if key in _KEPT},
                held=heard.held[:200],
                made_of=list(heard.made),
                at=_moment(data.get("at"), now),
            )
    except IntegrityError:
        # sent twice at once: the other one was first
        return Told.objects.get(client=link.client, name=name), False
    return row, True


_KEPT = {"kg", "lb", "dish", "how", "text", *FELT}


def _day(value: object, now: datetime) -> date:
    today = timezone.localtime(now).date()
    try:
        on = date.fromisoformat(str(value)) if value else today
    except ValueError:
        raise NotTold("Of which day it is cannot be read.") from None
    if not today - timedelta(days=LONGEST_AWAY) <= on <= today:
        raise NotTold("It is of a day too long ago, or to come: tell us by phone.")
    return on


def _moment(value: object, now: datetime) -> datetime:
    """When it was told, by the phone's clock where that can be; no later than now."""
    number = number_in(str(value), (0.0, 4e12)) if value is not None else None
    at = datetime.fromtimestamp(number / 1000, UTC) if number else now
    return min(at, now) if at > now - timedelta(days=LONGEST_AWAY) else now


def _weight(link: Link, data: Mapping[str, Any], on: date) -> Heard:
    client = link.client
    if client.numbers_hidden:
        raise NotTold("Your link does not take this.")
    kg, lb = (number_in(str(data.get(name) or "")) for name in ("kg", "lb"))
    value = kg if kg is not None else lb * KG_PER_LB if lb is not None else None
    if value is None:
        raise NotTold("Write the weight as a number, such as 71.5.")
    low, high = LIMITS["weight_kg"]
    if not low <= value <= high:
        raise NotTold(f"{value:.1f} kg cannot be: look at the number once more.")
    said = f"{value:.1f} kg"
    rows = [row.weighed() for row in client.newest_weigh_ins() if row.date != on]
    found = doubt(rows, Weighed(on, value))
    there = client.weigh_ins.filter(date=on).first()
    if found is not None:
        return Heard(said, held="it lies far off the others: ask before it counts")
    if there is not None and there.remark != BY_CLIENT:
        return Heard(said, held=f"there is one of {there.kg:g} kg on that day already")
    client.weigh(on, round(value, 2), link.by, remark=BY_CLIENT)
    made = WeighIn.objects.get(client=client, date=on)
    return Heard(said, (made.pk,))


def _ate(link: Link, data: Mapping[str, Any], on: date) -> Heard:
    client, how = link.client, str(data.get("how", ""))
    text = " ".join(str(data.get("text", "")).split())
    if len(text) > MOST_SAID:
        raise NotTold(f"That is longer than {MOST_SAID} characters: say it in two.")
    dish = today_of(client, on).dish(str(data.get("dish", "")))
    if how in IN_A_TOUCH and dish is None:
        raise NotTold("That dish is no longer planned for this day.")
    if how not in IN_A_TOUCH and not text:
        raise NotTold("Write what it was instead.")
    log = open_log(client, client.practice, on)
    with log.changing(None, link.by, remember=False) as stored:
        if how in IN_A_TOUCH and dish is not None:
            _forget(client, on, dish.key)
            made = _share(stored, dish, IN_A_TOUCH[how])
            return Heard(f"{dish.name}: {HOW_WORDS[how]}", made)
        return _instead(client, stored, dish, text, str(data.get("meal", "snack")))


def _share(log: LoggedDay, dish: DishToday, share: float) -> tuple[int, ...]:
    """So much of a dish was eaten, whatever was said of it before."""
    if isinstance(dish.row, DayEntry):
        decide(log, [dish.row], share)
        rows = log.entries.filter(of_entry=dish.row)
        if 0 < share < 1:
            for one in rows:
                one.low, one.high = one.amount * LESS[0], one.amount * LESS[1]
                one.save()
        return tuple(rows.values_list("pk", flat=True))
    row, spread = dish.row, AS_PLANNED if share == 1 else LESS
    amount = row.amount * share
    words = {1.0: "as planned", 0.0: LEFT_OUT}
    made = LoggedEntry.objects.create(
        day=log,
        meal=getattr(row, "meal", "snack"),
        bowl=row.bowl,
        recipe=row.recipe,
        food=row.food,
        planned=row.planned,
        amount=amount,
        low=amount * spread[0],
        high=amount * spread[1],
        how=words.get(share, "less"),
        basis=BY_CLIENT,
    )
    return (made.pk,)


def _forget(client: Client, on: date, dish: str) -> None:
    """What was told of a dish of a week before: the newer word holds."""
    rows = Told.objects.filter(client=client, on=on, kind="ate", data__dish=dish)
    gone = [pk for row in rows for pk in row.made_of]
    LoggedEntry.objects.filter(pk__in=gone, day__client=client).delete()


def _instead(client: Client, log: LoggedDay, dish: DishToday | None, text: str, meal: str) -> Heard:
    """Something else was eaten: the dish was not, and what was said is read; what is not settled
    asks."""
    made: list[int] = []
    if dish is not None:
        _forget(client, log.date, dish.key)
        made += _share(log, dish, 0.0)
        meal = getattr(dish.row, "meal", meal)
    try:
        heard = hear(text[:MOST_PIECE], log, meal, Names(client, []), client.practice.measures)
    except TooLong as error:
        raise NotTold(str(error)) from error
    for row in heard.rows:
        row.day, row.how = log, "instead" if dish is not None else "besides"
        row.save()
        made.append(row.pk)
    words = f"{dish.name}: instead {text}" if dish is not None else text
    return Heard(words, tuple(made))


def _felt(link: Link, data: Mapping[str, Any], on: date) -> Heard:
    scores = {}
    for name in FELT:
        number = number_in(str(data.get(name, "")), (0.0, 10.0))
        if number is not None:
            scores[name] = round(number)
    if not scores:
        raise NotTold("Choose a number from 0 to 10.")
    row, _made = Felt.objects.update_or_create(client=link.client, date=on, defaults=scores)
    said = ", ".join(f"{name} {value}" for name, value in scores.items())
    return Heard(said, (row.pk,))


# Each kind of telling: what the link must show for it, and how it is taken.
_KINDS: dict[str, tuple[str, Callable[[Link, Mapping[str, Any], date], Heard]]] = {
    "weight": ("weigh", _weight),
    "ate": ("today", _ate),
    "felt": ("felt", _felt),
}
