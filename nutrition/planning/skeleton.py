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

from nutrition.composition.dish_names import KINDS
from nutrition.composition.errors import CoreError
from nutrition.composition.tables import BadTable, toml_rows
from nutrition.planning.kinds import LEAST_OF_KIND, REPEATS, STAYS
from nutrition.planning.skeleton_words import AWAY, kind_of_word, skeleton_words
from nutrition.planning.week import OVER_ALL, TURNS, Slot, Turns, Wishes
from nutrition.targets.meals import MEAL_NAMES, PATTERN_SHARES

WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
MOST_IN_A_MEAL, MOST_EATERS, MOST_LIMIT, MOST_OF_A_WORD = 6, 12, 12, 60
PORTIONS = (0.25, 4.0)
# Between meals one eats no more than a serving. Common practice, no source. [servings]
MOST_OF_A_SNACK = 1.0
# How many favorites of a kind a client has, where nothing was chosen. Common practice, no source.
USUAL_LIMIT = 4
# The weekdays with time to cook, where nothing was chosen: Sunday and Wednesday. Common practice,
# no source.
USUAL_COOKING = frozenset({6, 2})
ROW = ("breakfast", "lunch", "dinner", "snack", "in_a_row", "plants", "colors", "proteins")
# The same dish at most so many days in a row, and so many times a week.
MOST_TURNS = 14


class BadSkeleton(CoreError):
    """A skeleton that cannot be; `field` names the cell or the setting, `word` one whose meaning is
    not known, `likely` the kind that is near it, if one is."""

    def __init__(self, field_name: str, message: str, word: str = "", likely: str = "") -> None:
        super().__init__(message, field_name)
        self.word, self.likely = word, likely


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
    soup stays hot; `means` are words whose meaning somebody was asked for, with their kind."""

    days: tuple[Weekday, ...]
    eaters: tuple[Eater, ...] = ()
    cooking: frozenset[int] = USUAL_COOKING
    shopping: frozenset[int] = frozenset()
    limits: Mapping[str, int] = field(default_factory=dict)
    wishes: Wishes = Wishes()
    flask: bool = False
    means: Mapping[str, str] = field(default_factory=dict)

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


def read_places(
    text: str, meal: str = "", means: Mapping[str, str] | None = None
) -> tuple[Place, ...]:
    """The slots of a meal from words: "soup, big salad x1.5, oats". What a word `means` goes before
    what it usually does. Raises BadSkeleton for a word that is not known, a portion that is none,
    or a meal that is not planned."""
    places, away = read_meal(text, meal, means)
    if away:
        raise BadSkeleton("meal", f"“{text.strip()}” is a meal that is not planned.")
    return places


def read_meal(
    text: str, meal: str = "", means: Mapping[str, str] | None = None
) -> tuple[tuple[Place, ...], bool]:
    """The slots of a meal from words, and whether it is not planned at all: "out". Raises
    BadSkeleton."""
    out, away = [], False
    for word in re.split(r"[,;+&]| and | with ", text.strip().lower()):
        said = word.strip()
        if not said:
            continue
        kind, times = _read_place(said, meal, means or {})
        if kind == AWAY:
            away = True
            continue
        if not PORTIONS[0] <= times <= PORTIONS[1]:
            raise BadSkeleton("meal", f"“{said}”: a portion is {PORTIONS[0]:g} to {PORTIONS[1]:g}")
        out.append(Place(kind, times))
    if len(out) > MOST_IN_A_MEAL:
        raise BadSkeleton("meal", f"A meal has up to {MOST_IN_A_MEAL} dishes.")
    return tuple(out), away and not out


PLACE = re.compile(
    r"(?:(?P<first>[0-9./]+)\s*[x×*]?\s*)?(?P<kind>[^0-9x×*]*?[^\s0-9×*].*?)"
    r"(?:\s*[x×*]\s*(?P<times>[0-9./]+))?"
)
# A large one is one and a half, a small one a half. Common practice, no source.
SIZES = {"large": 1.5, "big": 1.5, "double": 2.0, "small": 0.5, "half": 0.5, "half a": 0.5}


def _read_place(said: str, meal: str, means: Mapping[str, str]) -> tuple[str, float]:
    """A kind and how many times its usual portion. Raises BadSkeleton."""
    match = PLACE.fullmatch(said)
    word = match["kind"].strip() if match else said
    number = match and (match["times"] or match["first"])
    times = _times(number) if number else 1.0
    kind = means.get(word) or kind_of_word(word, meal)
    if kind is None:
        size, _space, rest = word.rpartition(" ")
        if size in SIZES:
            kind, times = means.get(rest) or kind_of_word(rest, meal), times * SIZES[size]
    if kind is None:
        near = difflib.get_close_matches(word, (*KINDS, *skeleton_words()), 1, 0.7)
        hint = f" Did you mean “{near[0]}”?" if near else ""
        said = f"“{word}” is not known as a dish of a meal.{hint} ({', '.join(KINDS)})"
        likely = kind_of_word(near[0], meal) if near else None
        raise BadSkeleton("meal", said, word, likely or "")
    return kind, times


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
        turns=turns_with({}, row["in_a_row"]),
        plants=row.get("plants", 0),
        colors=row.get("colors", 0),
        proteins=row.get("proteins", 0),
    )
    return Skeleton(days=days, wishes=wishes)


def turns_with(
    given: Mapping[str, Sequence[int]], dinners_in_a_row: int | None = None
) -> dict[str, Turns]:
    """How often the same dish comes, by meal: as usual, but for what is given as days in a row and
    times a week, and for the dinners in a row."""
    out = TURNS | {meal: Turns(*map(int, some)) for meal, some in given.items() if meal in TURNS}
    if dinners_in_a_row is not None:
        a_week = max(out["dinner"].a_week, dinners_in_a_row)
        out["dinner"] = Turns(dinners_in_a_row, a_week)
    return out


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
                        least=LEAST_OF_KIND.get(place.kind, 0.0),
                        most=MOST_OF_A_SNACK if meal == "snack" else math.inf,
                        # a packed lunch is the client's alone
                        eaters=1.0 if packed else skeleton.portions_of(meal),
                        packed=packed,
                        flask=skeleton.flask,
                        varies=place.kind not in STAYS,
                        repeats=place.kind in REPEATS,
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
        "turns": {
            meal: [turns.in_a_row, turns.a_week] for meal, turns in skeleton.wishes.turns.items()
        },
        "over_all": [skeleton.wishes.over_all.in_a_row, skeleton.wishes.over_all.a_week],
        "plants": skeleton.wishes.plants,
        "colors": skeleton.wishes.colors,
        "proteins": skeleton.wishes.proteins,
        "flask": skeleton.flask,
        "means": dict(skeleton.means),
    }


def from_data(data: Mapping[str, Any]) -> Skeleton:
    """A skeleton as it was kept. Raises BadSkeleton for what is none."""
    try:
        days = tuple(_weekday(day) for day in data["days"])
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
                turns=turns_with(
                    data.get("turns", {}), int(data["in_a_row"]) if "in_a_row" in data else None
                ),
                over_all=Turns(
                    *map(int, data.get("over_all", (OVER_ALL.in_a_row, OVER_ALL.a_week)))
                ),
                plants=int(data.get("plants", 0)),
                colors=int(data.get("colors", 0)),
                proteins=int(data.get("proteins", 0)),
            ),
            flask=bool(data.get("flask", False)),
            means={str(word): str(kind) for word, kind in data.get("means", {}).items()},
        )
    except (KeyError, TypeError, ValueError, AttributeError, OverflowError) as error:
        if isinstance(error, BadSkeleton):
            raise
        raise BadSkeleton("skeleton", f"this is no skeleton of a week: {error}") from None
    return checked(skeleton)


def _weekday(data: Mapping[str, Any]) -> Weekday:
    """A weekday as it was kept, or written. Raises BadSkeleton."""
    meals, away = {}, set(data.get("away", ()))
    for meal, text in data.get("meals", {}).items():
        if meal in MEAL_NAMES:
            meals[meal], not_planned = read_meal(text, meal)
            away |= {meal} if not_planned else set()
    return Weekday(meals, frozenset(data.get("packed", ())), frozenset(away))


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
    for word, kind in skeleton.means.items():
        if kind not in (*KINDS, AWAY) or not 0 < len(word) <= MOST_OF_A_WORD:
            raise BadSkeleton("means", f"“{word}”: “{kind}” is no kind of dish.")
    for kind, most in skeleton.limits.items():
        if kind not in KINDS or not 1 <= most <= MOST_LIMIT:
            raise BadSkeleton("limits", f"{kind}: 1 to {MOST_LIMIT} favorites.")
    wishes = skeleton.wishes
    for meal, turns in {**wishes.turns, "over_all": wishes.over_all}.items():
        if not 1 <= turns.in_a_row <= MOST_TURNS or not 1 <= turns.a_week <= MOST_TURNS:
            raise BadSkeleton(
                f"turns.{meal}", f"The same dish 1 to {MOST_TURNS} days in a row, and times a week."
            )
    if not 0 <= wishes.plants <= 60:
        raise BadSkeleton("plants", "0 to 60 plants a week.")
    if not 0 <= wishes.proteins <= 20:
        raise BadSkeleton("proteins", "0 to 20 kinds of protein a week.")
    if not 0 <= wishes.colors <= 6:
        raise BadSkeleton("colors", "0 to 6 colors a day.")
    return skeleton


def check_skeletons() -> None:
    """Reads the table. Raises BadTable."""
    _rows()
