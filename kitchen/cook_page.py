"""The cook page of a session, for whoever cooks: what it shows, and what it tells."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from django.http import HttpRequest, HttpResponse, JsonResponse
from django.utils import timezone

from kitchen.dishes import Dish
from kitchen.models import CookingSession
from kitchen.page import asks_of, shown_dishes
from kitchen.planning import Planned, planned_of
from kitchen.progress import event_in, learn_times, progress_in, row_key, told
from nutrition.prep.batches import batch_for
from nutrition.prep.timeline.clock import clock
from nutrition.prep.timeline.schedule import Row
from nutrition.recipe.kitchen_notes import notes_on
from nutrition.recipe.method_steps import read_steps
from practice.models import Practice
from recipes.facts import facts_of
from recipes.models import Recipe

MOST_SENT = 200


# The body of what a page sends is no longer. [bytes]
MOST_BYTES = 100_000


@dataclass(frozen=True, kw_only=True)
class LineShown:
    """A line of a dish made for this pot: what to take of it, and what it is."""

    words: str
    name: str
    caution: str


def lines_of(dish: Dish, recipe: Recipe) -> list[LineShown]:
    """The lines of a dish, scaled to the pot in measures that a cook uses; as written where nothing
    is known of how much. By their place in the recipe."""
    facts = facts_of(recipe)
    try:
        scaled = {one.line.text: one for one in batch_for(facts, dish.servings).lines}
    except ValueError:
        scaled = {}
    out = []
    for line in facts.lines:
        own = scaled.get(line.text)
        if own is None or line.food is None:
            out.append(LineShown(words="", name=line.text, caution=""))
        else:
            out.append(
                LineShown(
                    words=f"{own.words} ({own.used_g:.0f} g)"
                    if own.words
                    else f"{own.used_g:.0f} g",
                    name=line.food.name,
                    caution=own.caution,
                )
            )
    return out


def _step_data(
    row: Row, session: CookingSession, lines: Mapping[str, list[LineShown]]
) -> dict[str, Any]:
    """A step as the page works with it: its times in milliseconds of the clock."""
    own = lines.get(row.dish, [])
    return {
        "key": row_key(row),
        "task": f"{row.dish} {row.task}",
        "dish": row.dish,
        "name": row.name,
        "text": row.text,
        "start": int(session.at(row.start).timestamp() * 1000),
        "end": int(session.at(row.end).timestamp() * 1000),
        "at": clock(row.start),
        "until": clock(row.end),
        "hands": row.hands,
        "alone": max(row.end - row.start - row.hands, 0),
        "place": row.place,
        "celsius": row.celsius,
        "notes": [note[:1].upper() + note[1:] for note in row.notes if "usual one" not in note],
        "lines": [
            {
                "id": f"{row.dish}-{at}",
                "words": own[at].words,
                "name": own[at].name,
                "caution": own[at].caution,
            }
            for at in (row.lines if row.part <= 0 else ())
            if at < len(own)
        ],
    }


def _plan_data(planned: Planned) -> dict[str, Any]:
    """The plan as the cook page works with it."""
    session, found = planned.session, planned.timeline
    lines = {
        dish.key: lines_of(dish, planned.recipes[dish.recipe_id])
        for dish in planned.dishes
        if dish.recipe_id in planned.recipes
    }
    letters = {one.dish.key: one.letter for one in shown_dishes(planned)}
    progress = progress_in(session.progress)
    return {
        "session": session.pk,
        "steps": [_step_data(row, session, lines) for row in (found.rows if found else ())],
        "letters": letters,
        "done": progress.done,
        "late": found.late if found else 0,
        "ready": {letters.get(key, ""): clock(at) for key, at in found.ready.items()}
        if found
        else {},
        "ended": session.ended is not None,
        "known": progress.known[-MOST_SENT:],
    }


def cook_context(practice: Practice, row: CookingSession) -> dict[str, Any]:
    """What the cook page shows of a session, for whoever cooks."""
    planned = planned_of(row)
    notes = []
    for dish in planned.dishes:
        recipe = planned.recipes.get(dish.recipe_id)
        if recipe is not None:
            facts = facts_of(recipe)
            notes += [
                (recipe, note)
                for note in notes_on(read_steps(recipe.method, facts.lines), facts.lines)
            ]
    progress = progress_in(row.progress)
    steps = [
        {
            "row": step,
            "key": row_key(step),
            "at": clock(step.start),
            "done": row_key(step) in progress.done,
            "by_hand": step.hands > 0,
        }
        for step in (planned.timeline.rows if planned.timeline else ())
    ]
    return {
        "session": row,
        "client": row.client,
        "dishes": shown_dishes(planned),
        "steps": steps,
        "now": next((one for one in steps if not one["done"] and one["by_hand"]), None),
        "plan": _plan_data(planned),
        "notes": notes,
        "ask_household": asks_of(practice, planned),
    }


def events_of(request: HttpRequest, row: CookingSession) -> HttpResponse | None:
    """What a cook page told is kept; the answer to a page that told by script, None for a form."""
    now = timezone.now()
    given: object
    if request.content_type == "application/json":
        if len(request.body) > MOST_BYTES:
            return JsonResponse({"error": "more than a session can tell"}, status=400)
        try:
            given = json.loads(request.body)
        except ValueError:
            return JsonResponse({"error": "no JSON"}, status=400)
    else:
        minutes = request.POST.get("minutes", "0")
        given = [
            {
                "id": request.POST.get("id", ""),
                "kind": request.POST.get("kind", ""),
                "about": request.POST.get("about", ""),
                "minutes": int(minutes)
                if minutes.lstrip("-").isdigit() and len(minutes) < 5
                else 0,
            }
        ]
    rows = given[:MOST_SENT] if isinstance(given, list) else []
    given_events = [event for one in rows if (event := event_in(one, now)) is not None]
    row = told(row, given_events, now)
    if given_events and row.ended is not None:
        learn_times(row)
    if request.content_type == "application/json":
        return JsonResponse(_plan_data(planned_of(row)))
    return None
