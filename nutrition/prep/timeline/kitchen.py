"""A kitchen, the dishes that are wanted of it, and when: what the timeline is posed with."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from nutrition.composition.errors import CoreError
from nutrition.prep.steps.task import Task, Worked

# So many of each a kitchen may have.
MOST_COOKS, MOST_BURNERS, MOST_OVENS, MOST_SHELVES, MOST_BLENDERS = 6, 12, 4, 6, 4
# A session is ready at six in the evening and begun three hours before, where nothing is said.
# Common practice, no source. [min of the day]
USUAL_READY, USUAL_EARLIEST = 18 * 60, 15 * 60
# Nothing is cooked in one go for more dishes than this.
MOST_DISHES = 24


class BadKitchen(CoreError):
    """What is asked of a kitchen cannot be; `field` names what is wrong."""

    def __init__(self, field_name: str, message: str) -> None:
        super().__init__(message, field_name)


@dataclass(frozen=True, kw_only=True)
class Kitchen:
    """How many cooks, burners, ovens, shelves in each of them, and blenders there are."""

    cooks: int = 1
    burners: int = 4
    ovens: int = 1
    shelves: int = 2
    blenders: int = 1


@dataclass(frozen=True, kw_only=True)
class ToCook:
    """A dish that is wanted: by when [min of the day it is ready], and whether it is put away
    instead of eaten at once."""

    key: str
    name: str
    work: Worked
    ready_at: int
    stored: bool = False


@dataclass(frozen=True, kw_only=True)
class Fixed:
    """A task that is done or going on: when it was begun, and how long it takes. [min]"""

    start: int
    minutes: int


@dataclass(frozen=True, kw_only=True)
class Session:
    """What is to be cooked at one time, in minutes from the midnight before it is ready: below zero
    the day before. `earliest` is when the work may begin; what stands overnight may be begun
    before, but not before `now` where that is known. `fixed` is what is done already, `pinned`
    when a task is wanted, both by dish and task. [min]"""

    kitchen: Kitchen
    dishes: tuple[ToCook, ...]
    earliest: int
    now: int | None = None
    fixed: Mapping[tuple[str, int], Fixed] = field(default_factory=dict)
    pinned: Mapping[tuple[str, int], int] = field(default_factory=dict)

    @property
    def ready_at(self) -> int:
        """When the last dish is wanted. [min]"""
        return max(dish.ready_at for dish in self.dishes)

    def tasks(self) -> list[tuple[ToCook, Task]]:
        """All tasks, each with its dish."""
        return [(dish, task) for dish in self.dishes for task in dish.work.tasks]
