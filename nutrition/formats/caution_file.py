"""What is to be warned of for a person and what they eat, as plain data: read from JSON, written
back with every caution that stands, why, and what could not be read."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Profile
from nutrition.composition.supplements import Supplement, per_day
from nutrition.formats.day_file import Asked, outside, read_asked
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.safety.cautions import LEVELS, Caution, cautions_in
from nutrition.safety.meal_size import meal_sizes
from nutrition.safety.situations import (
    PlannedDay,
    body_numbers,
    day_numbers,
    planned_situation,
    situation,
    tablet_numbers,
)
from nutrition.targets.conditions import conditions
from nutrition.targets.day import DayTargets, day_targets
from nutrition.targets.person import LIFE_STAGE_WORDS, OutOfRange, Referred
from nutrition.targets.voices import GENERAL

LEVEL_WORDS = dict(zip(LEVELS, ("stop", "caution", "note"), strict=True))
# What labels of tablets call what the table has by another name.
SUPPLEMENT_WORDS = {
    "vitamin_a_retinol_ug": "vitamin_a_rae_ug",
    "retinol_ug": "vitamin_a_rae_ug",
    "folic_acid_ug": "folate_ug",
}
MOST_MEALS, MOST_LINES, MAIN_MEALS = 12, 80, 3


@dataclass(frozen=True, kw_only=True)
class Eaten:
    """What is eaten: all of it and each meal of it, its foods, and the lines that were not
    taken."""

    meals: tuple[Profile, ...]
    foods: tuple[Ingredient, ...]
    refused: tuple[tuple[str, str], ...]
    unresolved: tuple[tuple[str, str], ...]
    by_meal: tuple[tuple[Ingredient, ...], ...] = ()

    @property
    def profile(self) -> Profile:
        return Profile.total(self.meals)

    def planned(self) -> PlannedDay:
        """As the cautions look at it; None of a meal's carbohydrate where nothing is eaten."""
        mains = [one["carbohydrate_g"].amount for one in self.meals[:MAIN_MEALS] if one.lines]
        return PlannedDay(
            profile=self.profile,
            foods=self.foods,
            main_meals=len(mains),
            least_meal_carbohydrate_g=min(mains, default=None),
            lines=self.unread,
            **meal_sizes(self.by_meal),
        )

    @property
    def unread(self) -> tuple[str, ...]:
        """The lines nobody could read; what is of animals is refused, and looked through too."""
        return tuple(line for line, _why in (*self.unresolved, *self.refused))


def named_meals(meals: object) -> list[tuple[str, object]]:
    """Meals as a list or by name, each with its name or its place. Raises OutOfRange, naming
    "meals", for anything else."""
    if isinstance(meals, list):
        meals = dict(enumerate(meals))
    if not isinstance(meals, dict) or len(meals) > MOST_MEALS:
        raise OutOfRange("meals", f"meals is a list of up to {MOST_MEALS} lists of lines.")
    return [(str(name), lines) for name, lines in meals.items()]


def read_meal(lines: object) -> Eaten:
    """One meal of lines. Raises OutOfRange, naming "meals", for anything else."""
    if isinstance(lines, str):
        lines = lines.splitlines()
    if not isinstance(lines, list) or not all(isinstance(one, str) for one in lines):
        raise OutOfRange("meals", "a meal is a list of lines of text.")
    if len(lines) > MOST_LINES:
        raise OutOfRange("meals", f"a meal has up to {MOST_LINES} lines.")
    facts = reckon(Recipe(tuple(one for one in lines if one.strip()), eaten=True))
    missed = [(line.animal, (line.text, line.why)) for line in facts.unresolved]
    return Eaten(
        meals=(facts.batch,),
        foods=tuple(facts.batch_foods()),
        by_meal=(tuple(facts.batch_foods()),),
        refused=tuple(said for animal, said in missed if animal),
        unresolved=tuple(said for animal, said in missed if not animal),
    )


def read_meals(meals: object) -> Eaten:
    """Meals as lists of lines, or by name. Raises OutOfRange, naming "meals", for anything else."""
    read = [read_meal(lines) for _name, lines in named_meals(meals)]
    return Eaten(
        meals=tuple(one for meal in read for one in meal.meals),
        foods=tuple(one for meal in read for one in meal.foods),
        by_meal=tuple(meal.foods for meal in read),
        refused=tuple(one for meal in read for one in meal.refused),
        unresolved=tuple(one for meal in read for one in meal.unresolved),
    )


def _supplements(data: object) -> list[Supplement]:
    if data is None:
        return []
    if not isinstance(data, dict):
        raise OutOfRange("supplements", "supplements is an object: a nutrient and so much a day.")
    out = []
    for key, dose in data.items():
        key = SUPPLEMENT_WORDS.get(key, key)
        if key not in NUTRIENT or isinstance(dose, bool) or not isinstance(dose, int | float):
            raise OutOfRange("supplements", f"supplements: {key!r} is no nutrient with a dose.")
        if not 0 <= dose < 1e6:
            raise OutOfRange("supplements", f"supplements: {dose:g} is no dose.")
        out.append(Supplement(key=key, dose=float(dose), form="", per_week=7.0))
    return out


def _told(caution: Caution, people: Sequence[str]) -> dict[str, object]:
    return {
        "code": caution.code,
        "level": LEVEL_WORDS[caution.level],
        "text": caution.sentence,
        "because": list(caution.because) or list(people),
        "source": caution.source,
    }


def cautions_of(asked: Asked, eaten: Eaten, supplements: object = None) -> dict[str, Any]:
    """Everything that stands, the gravest first. Raises OutOfRange for a person who cannot be."""
    person = asked.person
    told: list[dict[str, object]] = []
    numbers: dict[str, float] = {}
    day: DayTargets | None = None
    try:
        day = day_targets(person, asked.school, asked.orders, asked.shares)
    except Referred as error:
        told.append(_told(outside(error), [str(error)]))
    taken = _supplements(supplements)
    if supplements is not None:
        numbers |= tablet_numbers(taken)
    if eaten.foods:
        planned = eaten.planned()
        numbers |= day_numbers(replace(planned, profile=planned.profile + per_day(taken)))
    foods, code = eaten.foods or None, asked.school.code if asked.school else ""
    told_of = (
        planned_situation(day, asked.orders, numbers=numbers, foods=foods, lines=eaten.unread)
        if day is not None
        else situation(person, code, body_numbers(person) | numbers, foods, lines=eaten.unread)
    )
    stage = [LIFE_STAGE_WORDS[person.life_stage]] if person.life_stage != "adult" else []
    people = [conditions()[code].name for code in sorted(person.conditions)] + stage
    told += [_told(caution, people) for caution in cautions_in(told_of)]
    order = list(LEVEL_WORDS.values())
    return {
        "cautions": sorted(told, key=lambda row: order.index(str(row["level"]))),
        "refused": [{"line": line, "why": why} for line, why in eaten.refused],
        "unresolved": [{"line": line, "why": why} for line, why in eaten.unresolved],
        "unknown": [] if day is None or not eaten.foods else unknown_words(day, eaten),
    }


def unknown_words(day: DayTargets, eaten: Eaten) -> list[str]:
    """What of the targets with a most is not known of what is eaten, where it could matter."""
    out = []
    for key, target in day.targets.items():
        if key not in NUTRIENT or NUTRIENT[key].group == "indices":
            continue
        if target.high is None or target.high_by.rank == GENERAL:
            # an upper level that nobody comes near is no reason to read labels
            continue
        amount = eaten.profile[key]
        unit = NUTRIENT[key].unit
        most = amount.amount + amount.could_add
        if amount.complete or not amount.amount <= target.high < most:
            continue
        reach = (
            f"between {amount.amount:,.0f} and {most:,.0f} {unit}"
            if most < float("inf")
            else f"at least {amount.amount:,.0f} {unit}"
        )
        out.append(
            f"{NUTRIENT[key].name} is not known of all of it: {reach}, the most {target.high:,.0f}"
        )
    return out


def report(data: object) -> dict[str, Any]:
    """The cautions for `{"person": {...}, "meals": [[line, ...], ...], "supplements": {...}}`.

    Raises OutOfRange naming the field.
    """
    if not isinstance(data, dict):
        raise OutOfRange("file", "The file holds no JSON object.")
    asked = read_asked(data.get("person"))
    eaten = read_meals(data.get("meals", []))
    return cautions_of(asked, eaten, data.get("supplements"))


def as_text(data: Mapping[str, Any]) -> str:
    """The report for reading in a terminal."""
    out = []
    for row in data["cautions"]:
        out.append(f"{row['level'].upper():8} {row['text']} ({row['source']})")
        if row["because"]:
            out.append(f"{'':8} because of: {', '.join(row['because'])}")
    out += [f"REFUSED  {row['line']}: {row['why']}" for row in data["refused"]]
    out += [f"NOT READ {row['line']}: {row['why']}" for row in data["unresolved"]]
    out += [f"UNKNOWN  {words}" for words in data["unknown"]]
    return "\n".join(out) or "Nothing to warn of."
