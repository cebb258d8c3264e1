"""How far a session is: what was begun and done when, told by the page in events that may come late
and twice, and the rest planned around it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Any

from django.db import transaction

from kitchen.models import CookingSession, StepTime
from kitchen.planning import Planned, plan_data, planned_of
from nutrition.prep.timeline.kitchen import Fixed
from nutrition.prep.timeline.schedule import Row, Timeline
from nutrition.prep.timeline.solving import moved

# So many events are kept, so that one that comes twice is known.
MOST_EVENTS = 2000
# A step takes at most so much longer. [min]
MOST_LONGER = 240
# The rest is planned so often while others go on telling.
PLANNED_AT_MOST = 3
KINDS = ("done", "undone", "longer", "ended")
# Events of a clock that is far off are of now.
OFF_CLOCK = timedelta(days=2)


@dataclass
class Progress:
    """What is done of a session: for each step of its rows ("d1 3 0") when it was done, how much
    longer a task takes than was planned [min], and the events that are known."""

    done: dict[str, str] = field(default_factory=dict)
    longer: dict[str, int] = field(default_factory=dict)
    known: list[str] = field(default_factory=list)

    def data(self) -> dict[str, Any]:
        """As it is kept."""
        return {"done": self.done, "longer": self.longer, "known": self.known[-MOST_EVENTS:]}


def progress_in(data: object) -> Progress:
    """Progress as it was kept; what is of another shape is nothing."""
    given = data if isinstance(data, dict) else {}
    done, longer, known = given.get("done"), given.get("longer"), given.get("known")
    return Progress(
        done={str(k): v for k, v in done.items() if isinstance(v, str)}
        if isinstance(done, dict)
        else {},
        longer={str(k): v for k, v in longer.items() if isinstance(v, int)}
        if isinstance(longer, dict)
        else {},
        known=[one for one in known if isinstance(one, str)] if isinstance(known, list) else [],
    )


def row_key(row: Row) -> str:
    """What a step is known by: its dish, its task, its part."""
    return f"{row.dish} {row.task} {row.part}"


@dataclass(frozen=True, kw_only=True)
class Event:
    """Something that the cook told: its own key, of which kind, about which step, when [UTC], and
    how many minutes more."""

    key: str
    kind: str
    about: str
    at: datetime
    minutes: int = 0


def event_in(data: object, now: datetime) -> Event | None:
    """An event as a page sent it; None for what is none."""
    if not isinstance(data, dict):
        return None
    key, kind, about = data.get("id"), data.get("kind"), data.get("about", "")
    if not isinstance(key, str) or not 0 < len(key) <= 60 or kind not in KINDS:
        return None
    if not isinstance(about, str) or len(about) > 40:
        return None
    at, minutes = data.get("at"), data.get("minutes", 0)
    moment = now
    if isinstance(at, int | float) and not isinstance(at, bool) and abs(at) < 1e14:
        moment = datetime.fromtimestamp(at / 1000, UTC)
        if abs(moment - now) > OFF_CLOCK:
            moment = now
    more = minutes if isinstance(minutes, int) and not isinstance(minutes, bool) else 0
    return Event(
        key=key,
        kind=kind,
        about=about,
        at=moment,
        minutes=max(-MOST_LONGER, min(more, MOST_LONGER)),
    )


def take(session: CookingSession, events: list[Event]) -> bool:
    """Put events into a session's progress: whether the rest is to be planned anew. An event that
    is known is passed over."""
    progress = progress_in(session.progress)
    again = False
    for event in events:
        if event.key in progress.known:
            continue
        progress.known.append(event.key)
        if event.kind == "done":
            progress.done.setdefault(event.about, event.at.isoformat())
        elif event.kind == "undone":
            progress.done.pop(event.about, None)
        elif event.kind == "longer":
            task = event.about.rpartition(" ")[0]
            progress.longer[task] = max(progress.longer.get(task, 0) + event.minutes, 0)
            again = True
        elif event.kind == "ended" and session.ended is None:
            session.ended = event.at
    session.progress = progress.data()
    return again


def told(session: CookingSession, events: list[Event], now: datetime) -> CookingSession:
    """The session with events put into it, kept, and the rest planned anew where they ask it.

    Two tablets may tell at once: events go into the session as it is stored, and the rest is
    planned outside of that, again where something moved it meanwhile."""
    if not events:
        return session
    with transaction.atomic():
        row = session.stored()
        again = take(row, events)
        row.save(update_fields={"progress", "ended"})
    for _time in range(PLANNED_AT_MOST):
        if not again:
            break
        rest = plan_the_rest(row, now)
        with transaction.atomic():
            stored = row.stored()
            again = progress_in(stored.progress).longer != progress_in(row.progress).longer
            if rest is not None and not again:
                stored.plan = row.plan
                stored.save(update_fields={"plan"})
        row = stored
    return row


def plan_the_rest(session: CookingSession, now: datetime) -> Timeline | None:
    """The rest of a session planned around what is done and goes on, kept with it; None where
    nothing is planned, or no order would do: then it stays as it is."""
    planned = planned_of(session)
    found = planned.timeline
    if found is None:
        return None
    at = session.minutes_at(now)
    fixed = fixed_of(session, planned, at)
    rest = moved(planned.posed(at, fixed))
    if rest is None:
        return None
    session.plan = plan_data(rest)
    return rest


def fixed_of(session: CookingSession, planned: Planned, now: int) -> dict[tuple[str, int], Fixed]:
    """What is done, or was begun and goes on, by dish and task. [min] A task was begun when its
    first step was done; what stands since an evening that is past was put there."""
    found, progress = planned.timeline, progress_in(session.progress)
    out: dict[tuple[str, int], Fixed] = {}
    for (dish, task), rows in _by_task(found.rows if found else ()).items():
        work = planned.works.get(dish)
        if work is None or task < 0:
            continue
        first = rows[0]
        name = f"{dish} {task}"
        told = [progress.done[row_key(row)] for row in rows if row_key(row) in progress.done]
        standing = task < len(work.tasks) and work.tasks[task].overnight and first.start < now
        if not told and not standing:
            continue
        more = progress.longer.get(name, 0)
        length = rows[-1].end - first.start + more
        begun = first.start
        if row_key(first) in progress.done:
            moment = datetime.fromisoformat(progress.done[row_key(first)])
            begun = session.minutes_at(moment) - first.hands
        if len(told) == len(rows) and rows[-1].end - rows[-1].start <= rows[-1].hands:
            # all of it is done, the last of it by hand: it is over
            last = session.minutes_at(datetime.fromisoformat(max(told)))
            length = max(min(last, now) - begun, 0)
        out[dish, task] = Fixed(start=begun, minutes=max(length, 0))
    return out


def _by_task(rows: tuple[Row, ...]) -> dict[tuple[str, int], list[Row]]:
    out: dict[tuple[str, int], list[Row]] = {}
    for row in rows:
        if row.kind not in ("preheat", "wash"):
            out.setdefault((row.dish, row.task), []).append(row)
    return out


def learn_times(session: CookingSession) -> None:
    """What the recipes learn of how long their steps took alone: kept once, when the session
    ended."""
    planned, progress = planned_of(session), progress_in(session.progress)
    if StepTime.objects.filter(session=session).exists():
        return
    recipes: Mapping[str, int] = {dish.key: dish.recipe_id for dish in planned.dishes}
    for name, more in progress.longer.items():
        dish, _space, number = name.rpartition(" ")
        work = planned.works.get(dish)
        if work is None or not number.isdigit() or int(number) >= len(work.tasks) or not more:
            continue
        task = work.tasks[int(number)]
        if task.step is None or task.alone.usual <= 0:
            continue
        StepTime.objects.create(
            recipe_id=recipes[dish],
            session=session,
            words=task.text.lower()[:400],
            minutes=task.alone.usual + more,
        )
