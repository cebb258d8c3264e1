"""The rules of data/cautions.toml: what each names, and the comparisons that it makes."""

from __future__ import annotations

import operator
import re
from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass, fields
from functools import cached_property, lru_cache

from nutrition.composition.allergens import ALLERGENS
from nutrition.composition.food_classes import food_classes
from nutrition.composition.tables import BadTable, toml_rows
from nutrition.safety.limits_in_force import (
    CAUTION,
    NOTE,
    STOP,
)
from nutrition.targets.conditions import conditions
from nutrition.targets.person import GOAL_WORDS, LIFE_STAGE_WORDS
from nutrition.targets.schools import schools

LEVELS = (STOP, CAUTION, NOTE)
# How soon somebody should look, the soonest first.
URGENT = ("now", "today", "soon")
_COMPARE: dict[str, Callable[[float, float], bool]] = {
    "<=": operator.le,
    ">=": operator.ge,
    "<": operator.lt,
    ">": operator.gt,
}
MEASURED = re.compile(r"\{said_(\w+)\}")
_COMPARISON = re.compile(r"^(.+?) (<=|>=|<|>) (.+)$")


@dataclass(frozen=True)
class Comparison:
    """ "day_selenium_ug > 400": two numbers by name or value."""

    left: str
    sign: str
    right: str

    @property
    def fixed(self) -> bool:
        """Whether it compares with a number of its own, rather than one that is in force."""
        return any(re.fullmatch(r"[\d.]+", side) for side in (self.left, self.right))

    @cached_property
    def _sides(self) -> tuple[float | None, float | None]:
        """The numbers that its sides are; None for a name."""
        return _fixed(self.left), _fixed(self.right)

    def holds(self, numbers: Mapping[str, float]) -> bool:
        """Whether both numbers are known and compare so."""
        left, right = self._sides
        left = numbers.get(self.left) if left is None else left
        right = numbers.get(self.right) if right is None else right
        return left is not None and right is not None and _COMPARE[self.sign](left, right)


@dataclass(frozen=True, kw_only=True)
class Rule:
    """One rule; see the head of data/cautions.toml for what makes it fire."""

    code: str
    level: str
    text: str
    why: str
    refer_to: str
    source: str
    any_condition: frozenset[str]
    all_condition: frozenset[str]
    no_condition: frozenset[str]
    life_stage: tuple[str, ...]
    goal: tuple[str, ...]
    school: tuple[str, ...]
    food: frozenset[str]
    number: tuple[Comparison, ...]
    allergen: bool
    traces: bool
    crosses: str
    in_words: bool
    holds: frozenset[str]
    often: frozenset[str]
    any_allergy: frozenset[str]
    uncooked: bool
    disliked: bool
    client: str
    urgent: str
    todo: str

    @property
    def compared(self) -> list[str]:
        """The numbers that it compares, by name or value."""
        return [side for one in self.number for side in (one.left, one.right)]

    @property
    def names_no_food(self) -> bool:
        """Whether it looks at no kind of food, only at numbers and the person."""
        return not (self.food or self.holds or self.often or self._by_person)

    @property
    def _by_person(self) -> bool:
        return bool(self.allergen or self.traces or self.crosses or self.in_words or self.disliked)

    @cached_property
    def kinds_asked(self) -> frozenset[str]:
        """The kinds of food of which one must be there, where it looks at nothing else."""
        return frozenset() if self.holds or self.often or self._by_person else self.food

    @cached_property
    def limits_said(self) -> frozenset[str]:
        """Of what it says that a limit in force is passed."""
        return frozenset(
            side.partition("_")[2].removeprefix("most_")
            for one in self.number
            if not one.fixed
            for side in (one.left, one.right)
            if side.startswith(("day_", "food_"))
        )


def _fixed(side: str) -> float | None:
    """The number that a side of a comparison is; None for a name."""
    try:
        return float(side)
    except ValueError:
        return None


def _comparison(text: str) -> Comparison:
    match = _COMPARISON.match(text)
    if match is None:
        raise BadTable(f"cautions.toml: “{text}” is no comparison", "number")
    return Comparison(*match.groups())


def _named() -> dict[str, Collection[str]]:
    """What the names that a rule gives must be among."""
    return {
        "food": food_classes(),
        "any_condition": conditions(),
        "all_condition": conditions(),
        "no_condition": conditions(),
        "school": schools(),
        "holds": ALLERGENS,
        "often": ALLERGENS,
        "any_allergy": ALLERGENS,
        "goal": GOAL_WORDS,
    }


@lru_cache(maxsize=1)
def rules() -> tuple[Rule, ...]:
    """All rules. Raises BadTable for a rule that cannot be read, or that could never fire."""
    known = [one.name for one in fields(Rule) if one.name != "code"]
    data = toml_rows("cautions.toml", known, ("level", "text", "why", "refer_to", "source"))
    out = []
    for code, row in data.items():
        food = frozenset(row.get("food", ()))
        where = f"cautions.toml, {code}"
        if row["level"] not in LEVELS:
            raise BadTable(f"{where}: there is no level “{row['level']}”", "level")
        if row.get("urgent", "soon") not in URGENT:
            raise BadTable(f"{where}: urgent is one of {', '.join(URGENT)}", "urgent")
        for key, names in _named().items():
            for name in row.get(key, ()):
                if name not in names:
                    raise BadTable(f"{where}: there is no {key} “{name}”", key)
        for stage in row.get("life_stage", ()):
            if not any(one.startswith(stage) for one in LIFE_STAGE_WORDS):
                raise BadTable(f"{where}: there is no life stage “{stage}”", "life_stage")
        out.append(
            Rule(
                code=code,
                level=row["level"],
                text=row["text"],
                why=row["why"],
                refer_to=row["refer_to"],
                source=row["source"],
                any_condition=frozenset(row.get("any_condition", ())),
                all_condition=frozenset(row.get("all_condition", ())),
                no_condition=frozenset(row.get("no_condition", ())),
                life_stage=tuple(row.get("life_stage", ())),
                goal=tuple(row.get("goal", ())),
                school=tuple(row.get("school", ())),
                food=food,
                number=tuple(_comparison(text) for text in row.get("number", ())),
                allergen=bool(row.get("allergen")),
                traces=bool(row.get("traces")),
                crosses=row.get("crosses", ""),
                in_words=bool(row.get("in_words")),
                holds=frozenset(row.get("holds", ())),
                often=frozenset(row.get("often", ())),
                any_allergy=frozenset(row.get("any_allergy", ())),
                uncooked=bool(row.get("uncooked")),
                disliked=bool(row.get("disliked")),
                client=row.get("client", ""),
                urgent=row.get("urgent", ""),
                todo=row.get("todo", ""),
            )
        )
    return tuple(out)
