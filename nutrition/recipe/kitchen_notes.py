"""What kitchen sense says of a recipe's steps: an order it forbids, something nobody says, a
danger. From data/kitchen_notes.toml."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, fields
from functools import lru_cache

from nutrition.composition.food_classes import classes_of, food_classes
from nutrition.composition.food_words import words
from nutrition.composition.foods import Food
from nutrition.composition.tables import BadTable, toml_rows
from nutrition.recipe.method_steps import Step, Worked, line_words, meant
from nutrition.written.line import Line

COMMON_PRACTICE = "common practice, no source"


@dataclass(frozen=True, kw_only=True)
class Sense:
    """One piece of kitchen sense; see the head of the data for what makes it stand."""

    code: str
    text: str
    why: str
    source: str
    food: tuple[str, ...]
    any_food: tuple[str, ...]
    says: str
    before: str
    minutes: float
    minutes_here: float
    minutes_under: float
    missing: str


@dataclass(frozen=True, kw_only=True)
class Note:
    """A note on a step, or on the whole where `step` is None."""

    code: str
    step: int | None
    text: str
    why: str
    source: str


@lru_cache(maxsize=1)
def senses() -> tuple[Sense, ...]:
    """All of them. Raises BadTable for one that cannot be read."""
    known = ("source", *(one.name for one in fields(Sense) if one.name != "code"))
    data = toml_rows("kitchen_notes.toml", known, ("text", "why"))
    out = []
    for code, row in data.items():
        for kind in (*row.get("food", ()), *row.get("any_food", ())):
            if not kind.startswith(("slug:", "group:")) and kind not in food_classes():
                raise BadTable(
                    f"kitchen_notes.toml, {code}: there is no kind of food “{kind}”", code
                )
        out.append(
            Sense(
                code=code,
                text=row["text"],
                why=row["why"],
                source=row.get("source", COMMON_PRACTICE),
                food=tuple(row.get("food", ())),
                any_food=tuple(row.get("any_food", ())),
                says=row.get("says", ""),
                before=row.get("before", ""),
                minutes=float(row.get("minutes", 0)),
                minutes_here=float(row.get("minutes_here", 0)),
                minutes_under=float(row.get("minutes_under", 0)),
                missing=row.get("missing", ""),
            )
        )
    return tuple(out)


def _is(food: Food, kinds: Sequence[str]) -> bool:
    return any(
        re.match(kind[5:], food.kind_slug) is not None
        if kind.startswith("slug:")
        else food.group == kind[6:]
        if kind.startswith("group:")
        else kind in classes_of(food)
        for kind in kinds
    )


def _named_in(step: Step, line: Line) -> bool:
    return bool(line_words(line) & set(words(meant(step.text))))


def _stands_at(sense: Sense, step: Step, later: Sequence[Step], lines: Sequence[Line]) -> bool:
    if sense.food and not any(
        line.food is not None and _is(line.food, sense.food) and _named_in(step, line)
        for line in lines
    ):
        return False
    if sense.says and not re.search(sense.says, step.text, re.I):
        return False
    if sense.minutes_here and step.minutes < sense.minutes_here:
        return False
    if sense.minutes_under and not 0 < step.minutes < sense.minutes_under:
        return False
    if sense.before:
        return any(
            re.search(sense.before, other.text, re.I) and other.minutes >= sense.minutes
            for other in later
        )
    return True


def notes_on(worked: Worked, lines: Sequence[Line]) -> list[Note]:
    """Every note that stands, each once, at the first step that sets it off."""
    out = []
    everything = " ".join(step.text for step in worked.steps)
    for sense in senses():
        if not worked.steps:
            break
        if sense.any_food and not any(
            line.food is not None and _is(line.food, sense.any_food) for line in lines
        ):
            continue
        if sense.missing and re.search(sense.missing, everything, re.I):
            continue
        at_a_step = bool(
            sense.food or sense.says or sense.before or sense.minutes_here or sense.minutes_under
        )
        if not at_a_step:
            out.append(
                Note(
                    code=sense.code, step=None, text=sense.text, why=sense.why, source=sense.source
                )
            )
            continue
        for i, step in enumerate(worked.steps):
            # a long simmer in the same step counts only where the food is named before it
            if _stands_at(sense, step, worked.steps[i + 1 :], lines) or (
                sense.before and _same_step(sense, step, lines)
            ):
                out.append(
                    Note(
                        code=sense.code,
                        step=step.number,
                        text=sense.text,
                        why=sense.why,
                        source=sense.source,
                    )
                )
                break
    return out


def _same_step(sense: Sense, step: Step, lines: Sequence[Line]) -> bool:
    """The food, and after it in the same step the work it should come after."""
    match = re.search(sense.before, step.text, re.I)
    if match is None or step.minutes < max(sense.minutes, 1):
        return False
    head = step.text[: match.start()]
    if sense.says and not re.search(sense.says, head, re.I):
        return False
    told = set(words(meant(head)))
    return not sense.food or any(
        line.food is not None and _is(line.food, sense.food) and line_words(line) & told
        for line in lines
    )
