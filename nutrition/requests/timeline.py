"""What is to be cooked at one time: dishes with their recipes, a kitchen, and when it is wanted."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Annotated

from annotated_types import Ge, Le, Len

from nutrition.prep.steps.reading import read_work
from nutrition.prep.timeline.clock import DAY, NIGHT_ENDS, read_moment
from nutrition.prep.timeline.kitchen import (
    MOST_BLENDERS,
    MOST_BURNERS,
    MOST_COOKS,
    MOST_DISHES,
    MOST_OVENS,
    MOST_SHELVES,
    BadKitchen,
    Kitchen,
    Session,
    ToCook,
)
from nutrition.recipe.model import MAX_LINES, Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.requests.dishes import Size
from nutrition.requests.fields import OnDay, Word
from nutrition.requests.structure import Structure, decoded

MOST_STEPS, LONGEST_STEP = 60, 2000
# Without a time to begin the work may begin so long before. [min]
USUAL_WINDOW = 6 * 60


class KitchenGiven(Structure):
    """How many cooks, burners, ovens, shelves in each of them, and blenders there are."""

    cooks: Annotated[int, Ge(1), Le(MOST_COOKS)] = 1
    burners: Annotated[int, Ge(0), Le(MOST_BURNERS)] = 4
    ovens: Annotated[int, Ge(0), Le(MOST_OVENS)] = 1
    shelves: Annotated[int, Ge(0), Le(MOST_SHELVES)] = 2
    blenders: Annotated[int, Ge(0), Le(MOST_BLENDERS)] = 1

    def kitchen(self) -> Kitchen:
        return Kitchen(
            cooks=self.cooks,
            burners=self.burners,
            ovens=self.ovens,
            shelves=self.shelves,
            blenders=self.blenders,
        )


class RecipeToCook(Structure):
    """A recipe by its lines and its steps as they are written."""

    lines: Annotated[list[str], Len(0, MAX_LINES)] = []
    steps: Annotated[list[Annotated[str, Len(0, LONGEST_STEP)]], Len(1, MOST_STEPS)]
    servings: Size = 1.0
    title: str = ""


class DishToCook(Structure):
    """A dish and when it is wanted, where that is not when all is; `stored`: it is put away instead
    of eaten at once."""

    id: Word = ""
    name: str = ""
    recipe: RecipeToCook
    ready_at: Word | None = None
    stored: bool = False


class TimelineAsked(Structure):
    """Dishes to be cooked at one time: when they are wanted, when the work may begin, on which day,
    and with what kitchen. `now` is the present time, where the evening before may be past."""

    ready_at: Word
    earliest: Word | None = None
    now: Word | None = None
    date: OnDay | None = None
    kitchen: KitchenGiven = KitchenGiven()
    dishes: Annotated[list[DishToCook], Len(1, MOST_DISHES)]


@dataclass(frozen=True, kw_only=True)
class AskedTimeline:
    """The session that is asked for, and the day on which it is ready."""

    session: Session
    day: date


def read_timeline(given: object, today: date) -> AskedTimeline:
    """What is asked for; `today` is the day where the file names none. Raises BadKitchen."""
    asked = decoded(TimelineAsked, given, BadKitchen)
    day = asked.date or today
    ready, dated = _moment(asked.ready_at, "ready_at", day)
    if dated and asked.date is None:
        day = day.fromordinal(day.toordinal() + ready // DAY)
        ready %= DAY
    dishes = tuple(_dish(dish, at, ready, day) for at, dish in enumerate(asked.dishes))
    _told_apart(dishes)
    last = max(dish.ready_at for dish in dishes)
    return AskedTimeline(
        session=Session(
            kitchen=asked.kitchen.kitchen(),
            dishes=dishes,
            earliest=_earliest(asked, min(dish.ready_at for dish in dishes), last, day),
            now=None if asked.now is None else _moment(asked.now, "now", day)[0],
        ),
        day=day,
    )


def _told_apart(dishes: tuple[ToCook, ...]) -> None:
    seen: set[str] = set()
    for at, dish in enumerate(dishes):
        if dish.key in seen:
            raise BadKitchen(f"dishes[{at}].id", f"dishes[{at}].id: “{dish.key}” stands twice.")
        seen.add(dish.key)


def _moment(text: str, field: str, day: date) -> tuple[int, bool]:
    try:
        return read_moment(text, day)
    except ValueError as error:
        raise BadKitchen(field, f"{field}: {error}.") from None


def _earliest(asked: TimelineAsked, first: int, last: int, day: date) -> int:
    """When the work may begin. [min]"""
    if asked.earliest is None:
        return last - USUAL_WINDOW
    earliest, dated = _moment(asked.earliest, "earliest", day)
    if not dated and earliest >= first and first <= NIGHT_ENDS:
        earliest -= DAY
    if earliest >= first:
        raise BadKitchen(
            "earliest",
            f"earliest: {asked.earliest} is not before the first dish is wanted. If it is the day "
            "before, write its date: 2026-12-04 22:00.",
        )
    if last - earliest > DAY:
        raise BadKitchen("earliest", "earliest: a session is within one day.")
    return earliest


def _dish(dish: DishToCook, at: int, ready: int, day: date) -> ToCook:
    field, recipe = f"dishes[{at}]", dish.recipe
    name = dish.name or recipe.title or dish.id or f"dish {at + 1}"
    try:
        facts = reckon(Recipe(tuple(recipe.lines), title=name, servings=recipe.servings))
    except ValueError as error:
        raise BadKitchen(f"{field}.recipe", f"{field}.recipe: {error}") from None
    work = read_work(recipe.steps, facts.lines, name)
    if not work.tasks:
        raise BadKitchen(f"{field}.recipe.steps", f"{field}.recipe.steps: nothing is done in them.")
    own = ready
    if dish.ready_at is not None:
        own = _moment(dish.ready_at, f"{field}.ready_at", day)[0]
    return ToCook(
        key=dish.id or f"dish-{at + 1}", name=name, work=work, ready_at=own, stored=dish.stored
    )
