"""A client's skeleton: of each weekday the meals, of each meal its slots, who eats along, which
meals are packed or away, when there is time to cook and to shop; and the days of a week made of
it."""

from __future__ import annotations

import difflib
import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from functools import lru_cache
from typing import Any

from nutrition.composition.errors import CoreError
from nutrition.composition.tables import BadTable, toml_rows
from nutrition.planning.kinds import KINDS, STAYS
from nutrition.planning.week import Slot, Wishes
from nutrition.targets.meals import MEAL_NAMES, PATTERN_SHARES

WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
MOST_IN_A_MEAL, MOST_EATERS, MOST_LIMIT = 6, 12, 12
PORTIONS = (0.25, 4.0)
# How many favorites of a kind a client has, where nothing was chosen. Common practice, no source.
USUAL_LIMIT = 4
# The weekdays with time to cook, where nothing was chosen: Sunday and Wednesday. Common practice,
# no source.
USUAL_COOKING = frozenset({6, 2})
ROW = ("breakfast", "lunch", "dinner", "snack", "in_a_row", "plants", "colors")


class BadSkeleton(CoreError):
    """A skeleton that cannot be; `field` names the cell or the setting."""

    def __init__(self, field_name: str, message: str) -> None:
        super().__init__(message, field_name)


@dataclass(frozen=True)
class Place:
    """A slot of a meal: its kind, and the portion as a multiple of the usual one."""

    kind: str
    portion: float = 1.0


@dataclass(frozen=True)
class Eater:
    """Somebody who eats along: their portion as a share of the client's, and at which meals, all
    where none is named."""

    name: str
    share: float
    meals: frozenset[str] = frozenset()

    def eats(self, meal: str) -> bool:
        return not self.meals or meal in self.meals


@dataclass(frozen=True)
class Weekday:
    """The meals of a weekday with their slots; those that are packed, and those that are eaten away
    from home and not planned."""

    meals: Mapping[str, tuple[Place, ...]]
    packed: frozenset[str] = frozenset()
    away: frozenset[str] = frozenset()


@dataclass(frozen=True, kw_only=True)
class Skeleton:
    """A week as it usually is: seven weekdays from Monday on. `limits` are how many favorites of a
    kind there are at most; `cooking` and `shopping` the weekdays for it; with a `flask` a packed
    soup stays hot."""

    days: tuple[Weekday, ...]
    eaters: tuple[Eater, ...] = ()
    cooking: frozenset[int] = USUAL_COOKING
    shopping: frozenset[int] = frozenset()
    limits: Mapping[str, int] = field(default_factory=dict)
    wishes: Wishes = Wishes()
    flask: bool = False

    @property
    def meals(self) -> list[str]:
        """The meals that some day has, in the order of the day."""
        return [key for key in MEAL_NAMES if any(key in day.meals for day in self.days)]

    @property
    def kinds(self) -> list[str]:
        """The kinds of slot that it has, in the order of a menu."""
        there = {one.kind for day in self.days for places in day.meals.values() for one in places}
        return [kind for kind in KINDS if kind in there]

    def limit(self, kind: str) -> int:
        return self.limits.get(kind, USUAL_LIMIT)

    def portions_of(self, meal: str) -> float:
        """How many portions are made of what the client eats at a meal at home."""
        return 1.0 + sum(one.share for one in self.eaters if one.eats(meal))


def read_places(text: str) -> tuple[Place, ...]:
    """The slots of a meal from words: "soup, salad x1.5, fruit". Raises BadSkeleton for a kind that
    is not known, or a portion that is none."""
    out = []
    for word in re.split(r"[,;+]| and ", text.strip().lower()):
        said = word.strip()
        if not said:
            continue
        match = re.fullmatch(r"(?P<kind>[a-z ]+?)(?:\s*[x×*]\s*(?P<times>[0-9./]+))?", said)
        kind = match["kind"].strip() if match else said
        if kind not in KINDS and kind.removesuffix("s") in KINDS:
            kind = kind.removesuffix("s")
        if match is None or kind not in KINDS:
            near = difflib.get_close_matches(kind, KINDS, 1, 0.5)
            hint = f" Did you mean “{near[0]}”?" if near else ""
            raise BadSkeleton("meal", f"“{said}” is no kind of dish.{hint} ({', '.join(KINDS)})")
        times = _times(match["times"]) if match["times"] else 1.0
        if not PORTIONS[0] <= times <= PORTIONS[1]:
            raise BadSkeleton("meal", f"“{said}”: a portion is {PORTIONS[0]:g} to {PORTIONS[1]:g}")
        out.append(Place(kind, times))
    if len(out) > MOST_IN_A_MEAL:
        raise BadSkeleton("meal", f"A meal has up to {MOST_IN_A_MEAL} dishes.")
    return tuple(out)


def _times(text: str) -> float:
    whole, _slash, part = text.partition("/")
    try:
        value = float(whole) / float(part) if part else float(whole)
    except (ValueError, ZeroDivisionError):
        return math.nan
    return value


def say_places(places: Sequence[Place]) -> str:
    """The slots of a meal in the words that are read."""
    return ", ".join(
        one.kind if one.portion == 1 else f"{one.kind} x{one.portion:g}" for one in places
    )


@lru_cache(maxsize=1)
def _rows() -> dict[str, Any]:
    rows = toml_rows("skeletons.toml", ROW, ("lunch", "dinner", "in_a_row"))
    for code, row in rows.items():
        for meal in MEAL_NAMES:
            for text in row.get(meal, ()):
                try:
                    read_places(text)
                except BadSkeleton as error:
                    raise BadTable(f"skeletons.toml, {code}: {error}", code) from None
    return rows


def skeleton_of_school(code: str, pattern: str) -> Skeleton:
    """The skeleton that a school brings to begin with, for a pattern of meals; that of the balanced
    plate for no school, or one of a practice's own."""
    rows = _rows()
    row = rows.get(code, rows["balanced_plate"])
    meals = [meal for meal in PATTERN_SHARES[pattern] if row.get(meal)]
    days = tuple(
        Weekday({meal: read_places(row[meal][at % len(row[meal])]) for meal in meals})
        for at in range(len(WEEKDAYS))
    )
    wishes = Wishes(
        in_a_row=row["in_a_row"], plants=row.get("plants", 0), colors=row.get("colors", 0)
    )
    return Skeleton(days=days, wishes=wishes)


def slots_of(skeleton: Skeleton, start: date, days: int) -> tuple[Slot, ...]:
    """The slots of so many days from a date on. What is eaten away is left out."""
    out = []
    for at in range(days):
        weekday = skeleton.days[(start + timedelta(days=at)).weekday()]
        for meal, places in weekday.meals.items():
            if meal in weekday.away:
                continue
            packed = meal in weekday.packed
            for n, place in enumerate(places):
                out.append(
                    Slot(
                        key=f"{at}-{meal}-{n}",
                        day=at,
                        meal=meal,
                        kind=place.kind,
                        portion=place.portion,
                        # a packed lunch is the client's alone
                        eaters=1.0 if packed else skeleton.portions_of(meal),
                        packed=packed,
                        flask=skeleton.flask,
                        varies=meal == "dinner" and place.kind not in STAYS,
                    )
                )
    return tuple(out)


def days_of(weekdays: frozenset[int], start: date, days: int, first: int = -1) -> frozenset[int]:
    """The days from `first` on that fall on some weekdays, counted from a date."""
    return frozenset(
        at for at in range(first, days) if (start + timedelta(days=at)).weekday() in weekdays
    )


def as_data(skeleton: Skeleton) -> dict[str, Any]:
    """The skeleton as plain data, as it is kept."""
    return {
        "days": [
            {
                "meals": {meal: say_places(places) for meal, places in day.meals.items()},
                "packed": sorted(day.packed),
                "away": sorted(day.away),
            }
            for day in skeleton.days
        ],
        "eaters": [
            {"name": one.name, "share": one.share, "meals": sorted(one.meals)}
            for one in skeleton.eaters
        ],
        "cooking": sorted(skeleton.cooking),
        "shopping": sorted(skeleton.shopping),
        "limits": dict(skeleton.limits),
        "in_a_row": skeleton.wishes.in_a_row,
        "plants": skeleton.wishes.plants,
        "colors": skeleton.wishes.colors,
        "flask": skeleton.flask,
    }


def from_data(data: Mapping[str, Any]) -> Skeleton:
    """A skeleton as it was kept. Raises BadSkeleton for what is none."""
    try:
        days = tuple(
            Weekday(
                {
                    meal: read_places(text)
                    for meal, text in day.get("meals", {}).items()
                    if meal in MEAL_NAMES
                },
                frozenset(day.get("packed", ())),
                frozenset(day.get("away", ())),
            )
            for day in data["days"]
        )
        eaters = tuple(
            Eater(str(one["name"]), float(one["share"]), frozenset(one.get("meals", ())))
            for one in data.get("eaters", ())
        )
        skeleton = Skeleton(
            days=days,
            eaters=eaters,
            cooking=_weekdays(data.get("cooking", USUAL_COOKING)),
            shopping=_weekdays(data.get("shopping", ())),
            limits={str(kind): int(most) for kind, most in data.get("limits", {}).items()},
            wishes=Wishes(
                in_a_row=int(data.get("in_a_row", 3)),
                plants=int(data.get("plants", 0)),
                colors=int(data.get("colors", 0)),
            ),
            flask=bool(data.get("flask", False)),
        )
    except (KeyError, TypeError, ValueError, AttributeError, OverflowError) as error:
        if isinstance(error, BadSkeleton):
            raise
        raise BadSkeleton("skeleton", f"this is no skeleton of a week: {error}") from None
    return checked(skeleton)


def _weekdays(values: Any) -> frozenset[int]:
    return frozenset(int(value) for value in values)


def checked(skeleton: Skeleton) -> Skeleton:
    """The skeleton, if it can be. Raises BadSkeleton."""
    if len(skeleton.days) != len(WEEKDAYS):
        raise BadSkeleton("days", "A week has seven days.")
    if not all(0 <= day < len(WEEKDAYS) for day in (*skeleton.cooking, *skeleton.shopping)):
        raise BadSkeleton("cooking", "A weekday is 0 for Monday to 6 for Sunday.")
    if len(skeleton.eaters) > MOST_EATERS:
        raise BadSkeleton("eaters", f"Up to {MOST_EATERS} people eat along.")
    for one in skeleton.eaters:
        if not PORTIONS[0] <= one.share <= PORTIONS[1]:
            raise BadSkeleton(
                "eaters", f"{one.name}: a portion is {PORTIONS[0]:g} to {PORTIONS[1]:g} of yours."
            )
    for kind, most in skeleton.limits.items():
        if kind not in KINDS or not 1 <= most <= MOST_LIMIT:
            raise BadSkeleton("limits", f"{kind}: 1 to {MOST_LIMIT} favorites.")
    wishes = skeleton.wishes
    if not 1 <= wishes.in_a_row <= 14:
        raise BadSkeleton("in_a_row", "The same dinner 1 to 14 days in a row.")
    if not 0 <= wishes.plants <= 60:
        raise BadSkeleton("plants", "0 to 60 plants a week.")
    if not 0 <= wishes.colors <= 6:
        raise BadSkeleton("colors", "0 to 6 colors a day.")
    return skeleton


def check_skeletons() -> None:
    """Reads the table. Raises BadTable."""
    _rows()
