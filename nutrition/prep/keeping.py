"""How many days a cooked dish keeps in the refrigerator or the freezer, and whether it is good cold
and can be carried, from data/keeping.toml."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from nutrition.composition.food_classes import classes_of
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.tables import BadTable, toml_rows
from nutrition.targets.conditions import in_play
from nutrition.targets.person import Person

# From this share of its weight on, vinegar and citrus make a sauce sour. Common practice, no
# source. [share]
SOUR_SHARE = 0.10
SOUR = re.compile(r".*vinegar|lemon-juice|lime-juice|orange-juice|verjuice|yuzu-juice")
# What goes into a dish cooked already.
COOKED = ("cooked", "canned")
# Where an infection is a danger, what was cooked is eaten on its day and the two after. Common
# practice, no source. [days after]
DAYS_IN_DANGER = 2
IN_DANGER = frozenset({"weak_immunity", "cancer_treatment"})
# From this share of its weight on, what freezes badly spoils a dish in the freezer. Common
# practice, no source. [share]
FREEZES_BADLY, BAD_SHARE = "freezes badly", 0.05
DRESSING = re.compile(r"dressing|vinaigrette|mayonnaise|aioli")
# Seven days at 41 F, the day it is made counted. FDA Food Code 3-501.17, from memory. [days after]
MOST_DAYS = 6
ROW = (
    *("name", "roles", "groups", "heated", "sour", "chilled", "room_days", "frozen_months"),
    *("cold", "travels", "why", "source"),
)


@dataclass(frozen=True, kw_only=True)
class Keeping:
    """How long a kind of dish keeps. `days` are those after the day it is cooked on which it may be
    eaten, by the surest number of the source, `most_days` by the longest; `frozen_months` 0 where
    it does not freeze; `room_days` at room temperature, 0 for not at all."""

    kind: str
    days: int
    most_days: int
    frozen_months: int
    room_days: int
    cold: bool
    travels: bool
    why: str
    source: str

    @property
    def freezes(self) -> bool:
        return self.frozen_months > 0

    @property
    def words(self) -> str:
        """ "3 to 4 days in the refrigerator, 2 months in the freezer" """
        span = f"{self.most_days}"
        if self.days != self.most_days:
            span = f"{self.days} to {self.most_days}"
        days = f"{span} day{'s' if self.most_days > 1 else ''}"
        out = f"{days} in the refrigerator" if self.most_days else "eaten on the day it is made"
        if self.frozen_months:
            out += f", {self.frozen_months} months in the freezer"
        return out


@dataclass(frozen=True, kw_only=True)
class _Rule:
    keeping: Keeping
    name: str
    roles: frozenset[str]
    groups: frozenset[str]
    heated: bool | None
    sour: bool | None

    def fits(self, name: str, role: str, foods: Sequence[Ingredient]) -> bool:
        if self.name and not re.search(self.name, name.lower()):
            return False
        if self.roles and role not in self.roles:
            return False
        if self.groups and not any(one.food.group in self.groups for one in foods):
            return False
        if self.heated is not None and self.heated != is_cooked(foods):
            return False
        return self.sour is None or self.sour == is_sour(foods)


@lru_cache(maxsize=1)
def _rules() -> tuple[_Rule, ...]:
    out = []
    for kind, row in toml_rows("keeping.toml", ROW, ("chilled", "why", "source")).items():
        least, most = row["chilled"]
        if not 0 <= least <= most <= MOST_DAYS:
            raise BadTable(f"keeping.toml, {kind}: beyond {MOST_DAYS} days", kind)
        keeping = Keeping(
            kind=kind,
            days=least,
            most_days=most,
            frozen_months=row.get("frozen_months", 0),
            room_days=row.get("room_days", 0),
            cold=row.get("cold", True),
            travels=row.get("travels", True),
            why=row["why"],
            source=row["source"],
        )
        out.append(
            _Rule(
                keeping=keeping,
                name=row.get("name", ""),
                roles=frozenset(row.get("roles", ())),
                groups=frozenset(row.get("groups", ())),
                heated=row.get("heated"),
                sour=row.get("sour"),
            )
        )
    return tuple(out)


# What nobody wrote a row for is eaten within a day.
UNKNOWN = Keeping(
    kind="of no known kind",
    days=1,
    most_days=1,
    frozen_months=0,
    room_days=0,
    cold=True,
    travels=True,
    why="Nothing is known of how it keeps: the day it is made and the next.",
    source="common practice, no source",
)


def is_cooked(foods: Sequence[Ingredient]) -> bool:
    """Whether most of a dish, water apart, is cooked: in it, or before it went in."""
    solid = [one for one in foods if one.food.slug != "water"]
    done = sum(one.grams for one in solid if one.heated or _came_cooked(one))
    return done > 0.5 * sum(one.grams for one in solid)


def _came_cooked(one: Ingredient) -> bool:
    return one.food.state.startswith(COOKED) or one.food.group in ("soy", "seitan")


def is_heated(foods: Sequence[Ingredient]) -> bool:
    """Whether most of a dish, water apart, goes through the pot, the oven or the pan when it is
    made."""
    solid = [one for one in foods if one.food.slug != "water"]
    hot = sum(one.grams for one in solid if one.heated)
    return hot > 0.5 * sum(one.grams for one in solid)


def is_sour(foods: Sequence[Ingredient]) -> bool:
    """Whether so much of a dish is vinegar or citrus that it keeps longer."""
    sour = sum(one.grams for one in foods if SOUR.match(one.food.kind_slug))
    return sour >= SOUR_SHARE * sum(one.grams for one in foods) > 0


def endangered(person: Person) -> bool:
    """Whether an infection by food is a danger to a person beyond that to anybody."""
    have = in_play(person.conditions, person.age_years)
    return person.pregnant or not have.isdisjoint(IN_DANGER)


def keeping_of(
    name: str, role: str, foods: Sequence[Ingredient], in_danger: bool = False
) -> Keeping:
    """How long a dish of these foods keeps, by its name, what it is in a meal, and what it is made
    of; the shortest that is likely where no row fits. Shorter for who is `in_danger` of an
    infection."""
    found = next((rule.keeping for rule in _rules() if rule.fits(name, role, foods)), UNKNOWN)
    if found.freezes and not _may_freeze(name, foods):
        found = replace(found, frozen_months=0)
    if in_danger:
        days, most = (min(one, DAYS_IN_DANGER) for one in (found.days, found.most_days))
        found = replace(found, days=days, most_days=most, room_days=0)
    return found


def _may_freeze(name: str, foods: Sequence[Ingredient]) -> bool:
    """Whether a dish comes out of the freezer as it went in: no dressing, which parts, and little
    of what turns watery."""
    if DRESSING.search(name.lower()):
        return False
    bad = sum(one.grams for one in foods if FREEZES_BADLY in classes_of(one.food))
    return bad < BAD_SHARE * sum(one.grams for one in foods)


def keeping_kinds() -> list[Keeping]:
    """All kinds that are known, in the order in which they are looked at."""
    return [rule.keeping for rule in _rules()]
