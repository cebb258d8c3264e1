"""What the page of a session shows: the picture, the steps in the order of work, what does not fit,
the dishes."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta
from typing import Any

from clients.pages.context import PageRequest
from clients.plan.cautions import of_foods
from clients.plan.in_force import plan_of
from clients.plan.standing import asked_first, for_the_household
from kitchen.dishes import Dish, factor_of
from kitchen.drawing import letters_of, picture_of
from kitchen.forms import SessionForm, time_of
from kitchen.models import CookingSession
from kitchen.planning import Planned, kitchen_of, planned_of
from nutrition.prep.cooling import Cooling, cooling_of
from nutrition.prep.keeping import is_heated
from nutrition.prep.steps.task import Worked
from nutrition.prep.timeline.clock import clock
from nutrition.prep.timeline.schedule import Row, Timeline
from nutrition.prep.timeline.sheet import SheetPart, sheet_of
from nutrition.prep.timeline.solving import WORDS
from practice.models import Practice
from recipes.facts import facts_of, serving_room_ml
from recipes.models import Recipe
from recipes.ownership import open_to

MOST_OFFERED = 200
# How a note begins that says only that a time is a usual one: those are marked "about".
USUAL = "the time is a usual one"


@dataclass(frozen=True, kw_only=True)
class DishShown:
    """A dish of the session as its row shows it."""

    dish: Dish
    recipe: Recipe
    letter: str
    ready: str
    factor: float
    work: Worked | None
    wanted: str

    @property
    def has_steps(self) -> bool:
        return bool(self.work and self.work.tasks)


def asks_of(practice: Practice, planned: Planned) -> str:
    """What the household reads where something is to be settled first."""
    client = planned.session.client
    plan, asks = plan_of(client), []
    for recipe in planned.recipes.values():
        facts = facts_of(recipe)
        # what somebody eats of it at once is a serving, and not the pot, nor all that is cooked
        told = of_foods(plan, facts.foods(), lines=facts.unread)
        asks += asked_first(client, told)
    return for_the_household(practice, asks)


def shown_dishes(planned: Planned) -> list[DishShown]:
    """The dishes with their letters and when each is ready."""
    letters = letters_of([dish.key for dish in planned.dishes])
    found = planned.timeline
    out = []
    for dish in planned.dishes:
        recipe = planned.recipes.get(dish.recipe_id)
        if recipe is None:
            continue
        ready = found.ready.get(dish.key) if found else None
        out.append(
            DishShown(
                dish=dish,
                recipe=recipe,
                letter=letters[dish.key],
                ready="" if ready is None else clock(ready),
                factor=factor_of(dish, recipe),
                work=planned.works.get(dish.key),
                wanted="" if dish.ready_at is None else clock(dish.ready_at),
            )
        )
    return out


@dataclass(frozen=True, kw_only=True)
class StepShown:
    """A step as a list shows it."""

    row: Row
    at: str
    until: str
    letter: str
    waits_for: str = ""
    sink: str = ""

    @property
    def minutes(self) -> int:
        return self.row.end - self.row.start

    @property
    def about(self) -> bool:
        """Whether its time is a usual one and not the writer's."""
        return any(USUAL in note for note in self.row.notes)

    @property
    def notes(self) -> list[str]:
        """What is to be known of it besides."""
        return [note for note in self.row.notes if USUAL not in note]


@dataclass(frozen=True, kw_only=True)
class PartShown:
    """A stretch of the prep sheet with its heading."""

    heading: str
    steps: tuple[StepShown, ...]
    today: bool


def parts_of(planned: Planned, found: Timeline) -> list[PartShown]:
    """The prep sheet in stretches: the evenings and mornings before, then the day."""
    letters = letters_of([dish.key for dish in planned.dishes])
    return [
        PartShown(
            heading=_heading(planned.session, part),
            today=part.days_before == 0,
            steps=tuple(
                StepShown(
                    row=line.row,
                    at=clock(line.row.start),
                    until=clock(line.row.end),
                    letter=letters.get(line.row.dish, ""),
                    waits_for=line.waits_for,
                    sink=line.sink,
                )
                for line in part.lines
            ),
        )
        for part in sheet_of(found.rows, planned.works)
    ]


def _heading(session: CookingSession, part: SheetPart) -> str:
    on = session.day - timedelta(days=part.days_before)
    when = f", in the {part.when}" if part.when else ""
    return f"{on:%A, %B} {on.day}{when}"


def proof_words(found: Timeline) -> str:
    """How sure it is that no order is better."""
    if found.proved:
        return "No other order is better by what counts: proved."
    gaps = [
        f"{WORDS[stage]} by up to {gap:g}"
        for stage, gap in found.within.items()
        if stage in WORDS and gap < 1e6
    ]
    if not gaps:
        return "The best that was found in the time."
    return f"The best that was found; there may be one with fewer {', '.join(gaps)}."


def _cooling(planned: Planned) -> Cooling | None:
    """What to mind of what is put away hot, by the largest pot; None for pots that cool by
    themselves."""
    pots = [
        serving_room_ml(recipe.role, facts) * dish.servings
        for dish in planned.dishes
        if dish.stored and dish.key in planned.works
        for recipe in [planned.recipes[dish.recipe_id]]
        for facts in [facts_of(recipe)]
        if is_heated(facts.foods())
    ]
    return cooling_of(max(pots), True) if pots else None


def context_of(
    request: PageRequest, session: CookingSession, form: SessionForm | None = None
) -> dict[str, Any]:
    """What the page of a session needs."""
    planned = planned_of(session)
    found = planned.timeline
    letters = letters_of([dish.key for dish in planned.dishes])
    names = {dish.key: planned.name(dish.key) for dish in planned.dishes}
    initial = {
        "day": session.day,
        "ready_at": time_of(session.ready_at),
        "earliest": time_of(session.earliest),
    }
    drawn = found is not None and bool(found.rows)
    return {
        "session": session,
        "client": session.client,
        "version": session.version,
        "planned": planned,
        "found": found,
        "picture": picture_of(found, letters, names) if found and drawn else None,
        "parts": parts_of(planned, found) if found else [],
        "dishes": shown_dishes(planned),
        "without_steps": planned.without_steps,
        "form": form or SessionForm(initial=initial),
        "stove": kitchen_of(session),
        "proof": proof_words(found) if found else "",
        "cooling": _cooling(planned),
        "begins": clock(found.begins) if found and drawn else "",
        "hands": found.hands if found else 0,
        "offered": open_to(session.client)
        .exclude(pk__in=[dish.recipe_id for dish in planned.dishes])
        .order_by("title")[:MOST_OFFERED],
        "ask_household": asks_of(request.practice, planned),
    }
