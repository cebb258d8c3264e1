"""A session planned: posed to the core, and what it found kept with it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, dataclass, fields, replace
from functools import cached_property
from typing import Any

from kitchen.dishes import Dish, dishes_in, factor_of, recipes_of
from kitchen.models import CookingSession, Stove
from kitchen.work import work_of
from nutrition.prep.steps.task import Worked
from nutrition.prep.timeline.kitchen import BadKitchen, Fixed, Kitchen, Session, ToCook
from nutrition.prep.timeline.schedule import Help, Missing, Row, Timeline
from nutrition.prep.timeline.solving import timeline
from recipes.models import Recipe

# A session's own stove overrides the client's where it was set for it.
NO_STEPS = "has no steps: write them under “Method” on its page"


def kitchen_of(session: CookingSession) -> Kitchen:
    """The stove that the session is cooked on."""
    row = Stove.objects.filter(client=session.client).first()
    return row.core() if row else Kitchen()


@dataclass(frozen=True, kw_only=True)
class Planned:
    """A session with its dishes, their recipes and their work, and the timeline that was kept."""

    session: CookingSession
    dishes: tuple[Dish, ...]
    recipes: Mapping[int, Recipe]

    @cached_property
    def works(self) -> dict[str, Worked]:
        """The work of each dish by its key; one whose recipe is gone has none."""
        return {
            dish.key: work_of(
                self.recipes[dish.recipe_id],
                factor_of(dish, self.recipes[dish.recipe_id]),
                dish.containers if dish.stored else 0,
            )
            for dish in self.dishes
            if dish.recipe_id in self.recipes
        }

    @cached_property
    def without_steps(self) -> list[Recipe]:
        """The recipes of which no work is known."""
        return [
            self.recipes[dish.recipe_id]
            for dish in self.dishes
            if dish.key in self.works and not self.works[dish.key].tasks
        ]

    @cached_property
    def timeline(self) -> Timeline | None:
        """The timeline as it was kept; None where none was made."""
        return timeline_in(self.session.plan)

    def name(self, key: str) -> str:
        """What a dish is called."""
        dish = next((one for one in self.dishes if one.key == key), None)
        recipe = self.recipes.get(dish.recipe_id) if dish else None
        return recipe.title if recipe else ""

    def posed(
        self, now: int | None = None, fixed: Mapping[tuple[str, int], Fixed] | None = None
    ) -> Session:
        """The session as the core plans it. [min]"""
        row = self.session
        to_cook = tuple(
            ToCook(
                key=dish.key,
                name=self.name(dish.key),
                work=self.works[dish.key],
                ready_at=row.ready_at if dish.ready_at is None else dish.ready_at,
                stored=dish.stored,
            )
            for dish in self.dishes
            if dish.key in self.works and self.works[dish.key].tasks
        )
        return Session(
            kitchen=kitchen_of(row),
            dishes=to_cook,
            earliest=row.earliest,
            now=now,
            fixed=fixed or {},
            pinned=_pins(row.pins, self.works),
        )


def planned_of(session: CookingSession) -> Planned:
    """A session with what it is made of."""
    dishes = dishes_in(session.dishes)
    return Planned(session=session, dishes=tuple(dishes), recipes=recipes_of(dishes))


def _pins(pins: object, works: Mapping[str, Worked]) -> dict[tuple[str, int], int]:
    """Where steps were put by hand, by dish and task; of what is no longer there none."""
    out = {}
    for name, start in pins.items() if isinstance(pins, dict) else ():
        dish, _space, task = name.rpartition(" ")
        there = len(works[dish].tasks) if dish in works else 0
        if task.isdigit() and int(task) < there and isinstance(start, int):
            out[dish, int(task)] = start
    return out


def plan_anew(session: CookingSession, now: int | None = None) -> Timeline | None:
    """The best timeline of a session, kept with it; None where there is nothing to cook. What was
    moved by hand stays where it is as long as all fits. [min]"""
    planned = planned_of(session)
    posed = planned.posed(now)
    try:
        found = timeline(posed)
    except BadKitchen:
        session.plan = {}
        return None
    if found.missing and posed.pinned:
        # what was moved by hand may not be what leaves a dish out
        free = timeline(replace(posed, pinned={}))
        if len(free.missing) < len(found.missing):
            session.pins, found = {}, free
    session.plan = plan_data(found)
    return found


def plan_data(found: Timeline) -> dict[str, Any]:
    """A timeline as it is kept."""
    return {
        "rows": [asdict(row) for row in found.rows],
        "ready": dict(found.ready),
        "missing": [asdict(one) for one in found.missing],
        "helps": [asdict(one) for one in found.helps],
        "proved": found.proved,
        "within": {key: value if value < 1e6 else None for key, value in found.within.items()},
        "late": found.late,
    }


def timeline_in(data: object) -> Timeline | None:
    """A timeline as it was kept; None for none, or one of another shape."""
    if not isinstance(data, dict) or not isinstance(data.get("rows"), list):
        return None
    known = {one.name for one in fields(Row)}
    try:
        rows = tuple(
            Row(**{name: _value(value) for name, value in row.items() if name in known})
            for row in data["rows"]
        )
        return Timeline(
            rows=rows,
            ready={str(key): int(at) for key, at in data["ready"].items()},
            missing=tuple(Missing(**one) for one in data["missing"]),
            helps=tuple(Help(**one) for one in data["helps"]),
            proved=bool(data["proved"]),
            within={
                key: float("inf") if gap is None else gap for key, gap in data["within"].items()
            },
            late=int(data["late"]),
        )
    except (KeyError, TypeError, ValueError, AttributeError):
        return None


def _value(value: Any) -> Any:
    return tuple(value) if isinstance(value, list) else value
