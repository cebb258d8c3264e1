"""What can be changed: a recipe, a bowl, a day, each in the same three answers: its portions, what
is eaten besides, and how a change is written into it."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any, ClassVar

from django.http import HttpResponse, QueryDict
from django.urls import reverse

from changes.offers import Edit, Outdated
from clients.models import Client
from clients.pages.context import PageRequest
from clients.plan.gate import gate_of
from clients.plan.in_force import Plan, plan_of
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Profile
from nutrition.portions.problem import PlateShare, Room
from nutrition.safety.gate import Gate
from nutrition.swaps.swap import Step, Swap
from nutrition.targets.aim import Aim
from nutrition.targets.aims import UNPLANNED
from nutrition.targets.day import DayTargets
from nutrition.targets.meals import MealTarget


@dataclass(frozen=True, kw_only=True)
class Look:
    """What of a record is looked at, by the options that were asked for.

    `portions` are those that are looked at, with their sensible limits; `besides` is what is eaten
    with them and not changed. They are judged by a `meal`, a `share` of the day [0 to 1], or the
    whole day; `by_calories` by as much of the day as their own calories are. `chosen` is the option
    that stands for that.
    """

    portions: Sequence[Portion]
    besides: Profile
    chosen: str
    options: Sequence[tuple[str, str]]
    meal: MealTarget | None = None
    share: float | None = None
    by_calories: bool = False
    words: str = ""
    chosen_words: str = ""
    vessel_ml: float | None = None
    rooms: tuple[Room, ...] = ()
    plate: tuple[PlateShare, ...] = ()
    star: bool = True
    switches: Sequence[tuple[str, str, bool]] = ()
    # for the swaps: all that is looked at, how a changed line is reckoned, what else is offered,
    # and how many of it are changed at once (servings of a batch)
    whole: Profile | None = None
    # what the other meals of the day bring, and how much of the day is planned
    rest: Profile = field(default_factory=Profile.empty)
    rest_planned: str = UNPLANNED
    # a dressing without a bowl is judged by what there may be too much of
    only_mosts: bool = False
    profile_of: Callable[[Portion, Step], Profile] | None = None
    extra: Callable[[Sequence[Aim]], list[Swap]] | None = None
    times: float = 1.0

    @property
    def profile(self) -> Profile:
        """All that is looked at: the portions and what is taken besides."""
        if self.whole is not None:
            return self.whole
        return Profile.total([*(one.profile for one in self.portions), self.besides])


class Changeable(ABC):
    """A record whose dish can be changed. Everything that is offered goes through the gate of the
    client it is for."""

    kind: ClassVar[str]
    # said where nobody's targets are known, and where there is nothing to change
    no_plan: ClassVar[str]
    nothing: ClassVar[str]
    # before the choice of what it is judged by: "This bowl is"
    balance_words: ClassVar[str] = ""
    swap_words: ClassVar[str] = ""
    # where its pages are, and which of them a panel sends to
    pages: ClassVar[str]
    sent: ClassVar[tuple[str, ...]] = ("balance", "swap", "without", "add")
    # a change makes a version of the record, or is a step that can be undone
    makes_version: ClassVar[bool] = False

    def __init__(self, request: PageRequest, record: Any) -> None:
        self.request, self.record = request, record

    @classmethod
    @abstractmethod
    def opened(cls, request: PageRequest, pk: int) -> tuple[Changeable, HttpResponse | None]:
        """The record, and where to go instead if not to its page."""

    @classmethod
    def key_of(cls, record: Any) -> str:
        """What a change that is offered for a record is signed for."""
        return f"{cls.kind}-{record.pk}"

    @property
    def key(self) -> str:
        return self.key_of(self.record)

    @property
    def client(self) -> Client | None:
        return self.request.for_client

    @property
    def system(self) -> str:
        """Whose cups and spoons it is said in."""
        return self.record.practice.measures

    @cached_property
    def plan(self) -> Plan:
        return plan_of(self.client)

    @property
    def day(self) -> DayTargets:
        """The day's targets that it is judged by. Only where there is no `problem`."""
        assert self.plan.day is not None
        return self.plan.day

    @cached_property
    def gate(self) -> Gate:
        return gate_of(self.plan)

    @property
    def problem(self) -> str:
        """Why nothing can be offered, in words; empty where it can."""
        return "" if self.plan.day else self.plan.problem or self.no_plan

    @abstractmethod
    def look(self, asked: QueryDict, swaps: bool = False) -> Look:
        """What of it is looked at. Only called where there is a plan with a day."""

    @abstractmethod
    def dishes(self, look: Look) -> Mapping[str, Sequence[Portion]]:
        """What may take the place of a dish among the portions, by its key."""

    @abstractmethod
    def known(self) -> set[str]:
        """The keys of everything in it."""

    @abstractmethod
    def write(self, edits: Sequence[Edit], why: str, asked: QueryDict, version: int) -> str:
        """Write the edits as one change over `version`, and say so. Raises Outdated, StaleSave."""

    @abstractmethod
    def remake(self, key: str) -> str:
        """Make a recipe in it again without what the client must not have, and say so. Raises
        Outdated with the reason where that cannot be, StaleSave."""

    def lessen(self, key: str, food: str, left: float) -> str:
        """Make a recipe in it again with so much left of a food [share], as the client's own, and
        say so. Raises Outdated, StaleSave."""
        raise Outdated("Only a recipe in a bowl or a day is made with less of something.")

    def bench_url(self, key: str, nutrient: str, most: float, ml: float) -> str:
        """Where a dish in it is looked at line by line so that it brings no more than `most` of a
        nutrient; empty for none. [mL]"""
        return ""

    @abstractmethod
    def answer(self, key: str = "") -> HttpResponse:
        """The working part of its page after a change, or back to the page."""

    @abstractmethod
    def page(self, context: dict[str, object]) -> HttpResponse:
        """Its page with a panel on it."""

    @abstractmethod
    def stale(self, current: Any, what: str) -> HttpResponse:
        """A change that was overtaken: what somebody else did, and what was not done."""

    def addresses(self, look: Look | None) -> dict[str, object]:
        """The addresses that a panel sends to, by the names its templates use."""
        to = {name: reverse(f"{self.pages}:{name}", args=[self.record.pk]) for name in self.sent}
        own: dict[str, object] = {f"{name}_url": address for name, address in to.items()}
        page = reverse(f"{self.pages}:page", args=[self.record.pk])
        return own | {"take_url": to["swap"], "held_url": to["swap"], "page_url": page}

    def besides(self, look: Look) -> Profile:
        """What the strip counts besides the portions that are looked at."""
        return look.besides

    def strip_meal(self, look: Look) -> MealTarget | None:
        """The meal by whose share the strip is drawn; None for the whole day."""
        return look.meal

    def pictures(self, look: Look, portions: Mapping[str, float]) -> dict[str, object]:
        """What is drawn beside the proposals, outlined as these portions. [g]"""
        return {}

    def outline(self, look: Look, portions: Sequence[Portion]) -> dict[str, object]:
        """What is drawn beside the swaps, outlined as these portions."""
        return {}


_KINDS: dict[str, type[Changeable]] = {}


def changes_with(kind: type[Changeable]) -> None:
    """A stage of the work registers what of it can be changed."""
    _KINDS[kind.kind] = kind


def of_kind(kind: str) -> type[Changeable]:
    """Raises KeyError for a kind that no stage registered."""
    return _KINDS[kind]


def limited(portion: Portion, gate: Gate) -> Portion:
    """The portion with its limits as far as the gate lets it. What is locked stays."""
    if portion.locked:
        return replace(portion, limits=replace(portion.limits, ceiling=portion.limits.most))
    limit = gate.limit(portion.foods, portion.grams, dish=portion.food is None)
    most = min(portion.limits.most, limit.most)
    why = " ".join(dict.fromkeys(bar.why for bar in limit.bars))
    least = min(portion.limits.least, most)
    ceiling = min(portion.limits.ceiling, limit.most)
    return portion.within(least=least, most=most, ceiling=ceiling, held=why)
