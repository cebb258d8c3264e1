"""A week to be planned: its slots, what can stand in them, what is cooked in batches, and what the
days are held against."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any, TypeVar

from nutrition.composition.amounts import DENSITY
from nutrition.composition.errors import CoreError
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.profile import Profile
from nutrition.targets.aim import Aim

Found = TypeVar("Found")
MOST_DAYS, MOST_SLOTS, MOST_CANDIDATES, MOST_COUNTS = 14, 200, 120, 12
# A pot is no larger than this many times the recipe. Common practice, no source.
MOST_POTS = 4.0
# A batch may be cooked on the day before the first. Common practice, no source.
DAY_BEFORE = -1
# What is soaked for it stands in water from the evening before that.
EVENING_BEFORE = DAY_BEFORE - 1
# A week has so many days: what is asked of a week is asked of each of two.
DAYS_OF_A_WEEK = 7


class BadWeek(CoreError):
    """A week that cannot be planned; `field` names what is wrong."""

    def __init__(self, field_name: str, message: str) -> None:
        super().__init__(message, field_name)


@dataclass(frozen=True, kw_only=True)
class Prepared:
    """What is cooked in batches: servings from `least` on to `most`, in whole packages of `package`
    servings where it comes in packages. It may be eaten `keeps` days after the day it is cooked;
    frozen it keeps beyond the week. `cooks`: it takes the stove or the oven, which belongs to the
    cook's days. `soaks`: something in it stands in water from the evening before."""

    key: str
    name: str
    least: float = 0.0
    most: float = math.inf
    package: float | None = None
    keeps: int = 3
    freezes: bool = False
    cooks: bool = True
    soaks: bool = False

    def made_for(self, eaten: float) -> float:
        """The smallest batch that so many servings can be eaten of."""
        wanted = max(eaten, self.least)
        if self.package:
            wanted = math.ceil(wanted / self.package - 1e-6) * self.package
        return wanted


@dataclass(frozen=True, kw_only=True)
class Candidate:
    """What can stand in a slot of one of its `kinds`, counted from `least` to `most` in steps of
    `step`; `usual` is what is commonly eaten, `ceiling` what nobody may eat more of at once.

    `amounts` is what one of it brings, by key, in the key's unit; `unknown` what it could bring
    besides, at most; `grams` what one weighs [g]; `profile` and `foods` are of one of it, where
    they are known. `parts` are the servings of what is prepared that one of it takes. `cold`: good
    cold; `travels`: it can be carried. What is no `dish`, plain rice or bread, may come as often as
    it likes. `liked` is its place in the client's order.
    """

    key: str
    name: str
    kinds: frozenset[str]
    amounts: Mapping[str, float]
    grams: float
    least: float = 0.5
    most: float = 2.0
    step: float = 0.5
    usual: float = 1.0
    ceiling: float = math.inf
    unknown: Mapping[str, float] = field(default_factory=dict)
    parts: Mapping[str, float] = field(default_factory=dict)
    plants: frozenset[str] = frozenset()
    colors: frozenset[str] = frozenset()
    proteins: frozenset[str] = frozenset()
    cold: bool = True
    travels: bool = True
    dish: bool = True
    liked: int = 0
    foods: Sequence[Ingredient] = field(default=(), compare=False, repr=False)
    profile: Profile = field(default_factory=Profile.empty, compare=False, repr=False)

    @property
    def counts(self) -> tuple[float, ...]:
        """How much of it can be served."""
        return self.counts_for(1.0)

    def counts_for(
        self, portion: float, least: float = 0.0, at_most: float = math.inf
    ) -> tuple[float, ...]:
        """How much of it can be served where so many times the usual portion is wished for, no less
        than `least` and no more than `at_most`: in steps, from its least times the portion on to
        what a person eats, or to the portion where that is more."""
        most = self._steps(min(self.most * min(portion, 1.0), at_most), math.ceil)
        most = max(most, self._steps(self.usual * portion, round))
        most = max(min(most, self._steps(self.ceiling, math.floor)), self.least)
        first = min(max(self._steps(self.least * portion, math.ceil), self.least, least), most)
        steps = int(math.floor((most - first) / self.step + 1e-9))
        return tuple(first + n * self.step for n in range(min(steps, MOST_COUNTS - 1) + 1))

    def _steps(self, count: float, to: Callable[[float], float]) -> float:
        """A count as one of its steps from the least on."""
        if math.isinf(count):
            return count
        return self.least + to(round((count - self.least) / self.step, 6)) * self.step

    def brings(self, key: str, at_most: bool = False) -> float:
        """What one of it brings of a target's key, with what is unknown at its largest if that is
        asked for."""
        more = self.unknown.get(key, 0.0) if at_most else 0.0
        return self.amounts.get(key, 0.0) + more


@dataclass(frozen=True, kw_only=True)
class Choice:
    """What stands in a slot, and how much of it."""

    candidate: str
    count: float


@dataclass(frozen=True, kw_only=True)
class Slot:
    """A place in a meal of a day, for one of its kind. `portion` is its usual size, as a multiple
    of what is commonly eaten; never less than `least`, nor more than `most` where the portion is no
    larger. `eaters` is how many portions are made of
    what the client eats: three people at 1, 1 and 0.6 are 2.6. A packed one must travel, and be
    good cold where there is no `flask` to keep it hot. `placed` is what the practitioner put there;
    pinned it stays. `varies`: what stands there goes by the rotation; `repeats`: it may stand twice
    on a day, as bread may. `optional`: it may stay empty, for what is added where something is
    missing. Nothing of the kinds that it is `without` stands there."""

    key: str
    day: int
    meal: str
    kind: str
    portion: float = 1.0
    least: float = 0.0
    most: float = math.inf
    eaters: float = 1.0
    packed: bool = False
    flask: bool = False
    placed: Choice | None = None
    pinned: bool = False
    varies: bool = False
    repeats: bool = True
    optional: bool = False
    without: frozenset[str] = frozenset()

    def takes(self, candidate: Candidate) -> bool:
        """Whether it may stand here."""
        if self.kind not in candidate.kinds or not self.without.isdisjoint(candidate.kinds):
            return False
        return not self.packed or (candidate.travels and (candidate.cold or self.flask))


@dataclass(frozen=True)
class Turns:
    """How often the same dish comes: at most so many days in a row, and so many times a week."""

    in_a_row: int
    a_week: int


# What people eat gladly: a dinner twice in a row and three times a week, a pot for lunch three days
# and five times, a breakfast three mornings and four; over all meals together three days in a row
# and five times. What is no batch goes by the dinner's. Common practice, no source.
TURNS = {
    "breakfast": Turns(3, 4),
    "lunch": Turns(3, 5),
    "dinner": Turns(2, 3),
    "snack": Turns(3, 5),
}
OVER_ALL = Turns(3, 5)
# So many different ones of a kind are eaten in a week, where there are so many. Common practice, no
# source.
DIFFERENT = {"main": 3, "bowl": 2, "soup": 2, "breakfast": 2, "salad": 2}


@dataclass(frozen=True, kw_only=True)
class Wishes:
    """How much variety the client likes: how often the same comes, by meal, and over all meals; at
    least so many plants and kinds of protein in the week, and colors in a day."""

    turns: Mapping[str, Turns] = field(default_factory=lambda: dict(TURNS))
    over_all: Turns = OVER_ALL
    plants: int = 0
    colors: int = 0
    proteins: int = 0


# What is eaten on a day, by meal, and how much of each.
Meals = Mapping[str, Sequence[tuple[Candidate, float]]]
# What is wrong with a day, by a code and in words; nothing where all is well.
Check = Callable[[Meals], Mapping[str, str]]


def all_is_well(_meals: Meals) -> Mapping[str, str]:
    """No further check."""
    return {}


@dataclass(frozen=True, kw_only=True)
class Week:
    """The problem. `aims` are each day's, but of a day in `aims_on_day`, of which only a part is
    planned; `over_week` are those that only the average of the days is held against; `base` is what
    is eaten besides each day, by key. `cook_days` are the days, from -1 on, on which there is time
    to cook; nothing is soaked before the evening of `first_evening`. `check` looks at a day as its
    own page does. `density_g` is the weight of a usual day, which a calorie density is referred to.
    [g]"""

    days: int
    slots: tuple[Slot, ...]
    candidates: tuple[Candidate, ...]
    prepared: tuple[Prepared, ...] = ()
    aims: tuple[Aim, ...] = ()
    aims_on_day: Mapping[int, tuple[Aim, ...]] = field(default_factory=dict)
    over_week: tuple[Aim, ...] = ()
    base: Mapping[str, float] = field(default_factory=dict)
    base_grams: float = 0.0
    cook_days: frozenset[int] = frozenset()
    first_evening: int = EVENING_BEFORE
    wishes: Wishes = field(default_factory=Wishes)
    density_g: float = 1800.0
    check: Check = field(default=all_is_well, compare=False, repr=False)
    _known: dict[str, Any] = field(init=False, default_factory=dict, compare=False, repr=False)

    def __post_init__(self) -> None:
        if not 1 <= self.days <= MOST_DAYS:
            raise BadWeek("days", f"a week has 1 to {MOST_DAYS} days")
        _different("slots", [slot.key for slot in self.slots], MOST_SLOTS)
        _different("candidates", [one.key for one in self.candidates], MOST_CANDIDATES)
        _different("prepared", [one.key for one in self.prepared], MOST_CANDIDATES)
        made = {one.key for one in self.prepared}
        for one in self.candidates:
            if not one.step > 0 or not 0 < one.least <= one.most:
                raise BadWeek("candidates", f"{one.name}: its portions are not above zero")
            if (one.most - one.least) / one.step > MOST_COUNTS:
                raise BadWeek("candidates", f"{one.name} has more than {MOST_COUNTS} portions")
            if set(one.parts) - made:
                raise BadWeek("candidates", f"{one.name} is made of what is not prepared")
        for slot in self.slots:
            if not 0 <= slot.day < self.days:
                raise BadWeek("slots", f"{slot.key} is not a day of the week")
            if slot.pinned and (slot.placed is None or slot.placed.candidate not in self.by_key):
                raise BadWeek("slots", f"{slot.key} is pinned, and nothing stands there")
        of_days = [aim for some in self.aims_on_day.values() for aim in some]
        for aim in (*self.aims, *of_days, *self.over_week):
            if aim.low is not None and aim.high is not None and aim.low > aim.high:
                raise BadWeek("targets", f"the least of {aim.key} is over its most")
        if any(aim.key == DENSITY for aim in self.over_week):
            raise BadWeek("targets", "a calorie density is a matter of the day")
        if self.first_evening > DAY_BEFORE:
            raise BadWeek("days", "what is soaked for the first day has an evening before it")

    def once(self, name: str, find: Callable[[Week], Found]) -> Found:
        """What is found about the week, found once."""
        if name not in self._known:
            self._known[name] = find(self)
        found: Found = self._known[name]
        return found

    @cached_property
    def by_key(self) -> dict[str, Candidate]:
        """The candidates by their keys."""
        return {one.key: one for one in self.candidates}

    @cached_property
    def made(self) -> dict[str, Prepared]:
        """What is prepared, by its key."""
        return {one.key: one for one in self.prepared}

    @cached_property
    def _by_day(self) -> dict[int, list[Slot]]:
        out: dict[int, list[Slot]] = {}
        for slot in self.slots:
            out.setdefault(slot.day, []).append(slot)
        return out

    def slots_of(self, day: int) -> list[Slot]:
        return self._by_day.get(day, [])

    @property
    def planned_days(self) -> list[int]:
        """The days on which something can stand."""
        return sorted(self._by_day)

    def aims_of(self, day: int) -> tuple[Aim, ...]:
        """What a day is held against."""
        return self.aims_on_day.get(day, self.aims)

    def may_cook(self, made: Prepared, day: int) -> bool:
        """Whether something can be cooked on a day: what is soaked needs the evening before."""
        return not made.soaks or day - 1 >= self.first_evening

    def choices(self, slot: Slot) -> list[Choice]:
        """All that may stand in a slot: what is pinned, or every portion of what fits, from the
        smallest. What is placed may stay even where nothing else would take it. That an optional
        one may stay empty is not among them."""
        if slot.pinned and slot.placed is not None:
            return [slot.placed]
        out = [
            Choice(candidate=one.key, count=count)
            for one in self.candidates
            if slot.takes(one)
            for count in one.counts_for(slot.portion, slot.least, slot.most)
        ]
        if slot.placed is not None and slot.placed.candidate in self.by_key:
            out += [slot.placed] if slot.placed not in out else []
        return out

    def placed(self, slot: str, choice: Choice | None, pinned: bool) -> Week:
        """The same with something placed in a slot."""
        return replace(
            self,
            slots=tuple(
                replace(one, placed=choice, pinned=pinned and choice is not None)
                if one.key == slot
                else one
                for one in self.slots
            ),
        )


# What stands in each slot, by its key; None where nothing fits.
Planned = Mapping[str, Choice | None]


def _different(name: str, keys: Sequence[str], most: int) -> None:
    if len(set(keys)) != len(keys):
        raise BadWeek(name, f"two {name} have the same key")
    if len(keys) > most:
        raise BadWeek(name, f"more than {most} {name}")


def eaten_by_day(week: Week, planned: Planned) -> dict[str, list[float]]:
    """Of what is prepared, the servings that are eaten on each day, by everybody who eats."""
    candidates = week.by_key
    out = {key: [0.0] * week.days for key in week.made}
    for slot in week.slots:
        choice = planned.get(slot.key)
        if choice is None:
            continue
        for key, servings in candidates[choice.candidate].parts.items():
            out[key][slot.day] += servings * choice.count * slot.eaters
    return out
