"""What to warn about, how strongly, why, and to whom to turn: the rules of data/cautions.toml
against a situation."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import lru_cache

from nutrition.composition.allergens import ALLERGENS
from nutrition.composition.allergies import allergy, refused_in, sees_no_more, texts_of
from nutrition.composition.food_classes import kinds_of
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.other_substances import carried_by
from nutrition.safety.caution_rules import LEVELS, MEASURED, Rule, rules
from nutrition.safety.contributions import brought_by, named_for
from nutrition.safety.evidence import because_of
from nutrition.safety.known_numbers import FOOD_NUMBERS, numbers_at_hand
from nutrition.safety.limits_in_force import (
    Limit,
    passed_limits,
    passed_uppers,
)
from nutrition.safety.word_dangers import found_words, said_of
from nutrition.targets.conditions import doctor_for
from nutrition.written.wording import uncapitalized


@dataclass(frozen=True, kw_only=True)
class Situation:
    """What is known where a decision is made: the person, the numbers and words at hand by name,
    and the foods in question.

    A number that is not known is left out, and no rule that needs it fires. `foods` is None where
    no foods are in question; `lines` are those that nobody could read, looked through for words.
    `limits` are the orders and the limits of conditions in force.
    """

    conditions: frozenset[str] = frozenset()
    life_stage: str = "adult"
    goal: str = "hold"
    school: str = ""
    allergies: frozenset[str] = frozenset()
    dislikes: tuple[str, ...] = ()
    numbers: Mapping[str, float] = field(default_factory=dict)
    foods: Sequence[Ingredient] | None = None
    lines: Sequence[str] = ()
    limits: Sequence[Limit] = ()
    words: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True, kw_only=True)
class Caution:
    """A rule that fired. `about` names the foods that triggered it, empty otherwise; `names` has
    them one by one, and `because` says them and the numbers that set it off. `client` says it to
    the client. It is about a value that was `measured`, by its key. `by_amount`: less of these
    foods would settle it."""

    code: str
    level: str
    text: str
    why: str
    refer_to: str
    source: str
    about: str = ""
    names: tuple[str, ...] = ()
    because: tuple[str, ...] = ()
    client: str = ""
    by_amount: bool = False
    urgent: str = ""
    todo: str = ""
    measured: str = ""

    @property
    def sentence(self) -> str:
        """All of it in one sentence: what, why, and to whom to turn."""
        why = self.why.rstrip(".")
        return f"{self.text.rstrip('.')} ({uncapitalized(why)}); turn to {self.refer_to}."


@lru_cache(maxsize=64)
def _rules_for(
    have: frozenset[str], allergies: frozenset[str], life_stage: str, goal: str, school: str
) -> tuple[Rule, ...]:
    """The rules that may fire for such a person, whatever they eat: many dishes are asked about for
    one person."""
    return tuple(
        rule
        for rule in rules()
        if (not rule.any_condition or not have.isdisjoint(rule.any_condition))
        and rule.all_condition <= have
        and have.isdisjoint(rule.no_condition)
        and (not rule.any_allergy or not allergies.isdisjoint(rule.any_allergy))
        and (not rule.life_stage or life_stage.startswith(rule.life_stage))
        and (not rule.goal or goal in rule.goal)
        and (not rule.school or school in rule.school)
    )


def rules_for(situation: Situation) -> tuple[Rule, ...]:
    """The rules that may fire for a person, whatever they eat."""
    return _rules_for(
        situation.conditions,
        situation.allergies,
        situation.life_stage,
        situation.goal,
        situation.school.partition(":")[0],
    )


def _foods_of(rule: Rule, situation: Situation) -> list[str] | None:
    """Names of the foods that trigger the rule, empty where it asks for none; None where it asks
    and there is none."""
    foods = situation.foods or ()
    if rule.uncooked:
        foods = [part for part in foods if not part.heated]
    if rule.allergen:
        found = [
            f"{part.food.name} ({', '.join(hit)})"
            for part in foods
            if (hit := _refused(part, situation))
        ]
    elif rule.traces:
        found = [said for part in foods if (said := _traces(part, situation))]
    elif rule.crosses:
        found = list(_crossing(rule.crosses, situation))
    elif rule.in_words:
        found = list(_in_words(situation))
    elif rule.disliked:
        found = [
            part.food.name
            for part in foods
            if any(_is_called(part.food.name, word) for word in situation.dislikes)
        ]
    elif rule.holds:
        found = [part.food.name for part in foods if not rule.holds.isdisjoint(part.allergens)]
    elif rule.often:
        found = [
            f"{part.food.name} (often {', '.join(hit)})"
            for part in foods
            if (hit := [name for name in part.may_contain if name in rule.often])
        ]
    elif rule.food:
        found = [part.food.name for part in foods if not rule.food.isdisjoint(kinds_of(part))]
    else:
        return _bringing(rule, foods)
    return list(dict.fromkeys(found)) or None


def _bringing(rule: Rule, foods: Sequence[Ingredient]) -> list[str]:
    """Names of the foods that bring most of what a rule finds too much in them together."""
    found = []
    for key in (one.left for one in rule.number if one.sign == ">"):
        found += named_for(foods, [_brought(part, key) for part in foods])
    return list(dict.fromkeys(found))


def _brought(part: Ingredient, key: str) -> float:
    """What one food brings of a number that the foods give by themselves; 0 for other numbers."""
    nutrient = key.removeprefix("food_")
    if nutrient in FOOD_NUMBERS and nutrient != key:
        return brought_by(part, nutrient)
    return carried_by([part]).get(key, 0.0)


def _refused(part: Ingredient, situation: Situation) -> list[str]:
    return refused_in(part, situation.allergies)


def _crossing(level: str, situation: Situation) -> Iterator[str]:
    """What a food or a line has that is close to what is not tolerated, where that is told at this
    level; what holds the allergen itself is no kin of it."""
    parts = situation.foods or ()
    kin = [one for code in sorted(situation.allergies) if (one := allergy(code)).kin == level]
    for one in kin:
        for part in parts:
            texts = texts_of(part)
            if not one.holds(part) and any(one.crosses(text, part.is_cooked) for text in texts):
                yield f"{part.food.name} ({one.code})"
        for line in situation.lines:
            if not one.in_text(line) and one.crosses(line, cooked=False):
                yield f"{line} ({one.code})"


def _in_words(situation: Situation) -> Iterator[str]:
    """The lines nobody could read that speak of what is not tolerated."""
    # celiac disease is no allergy, and gluten hides in the same words
    also = {"gluten"} if "celiac" in situation.conditions else set()
    for line in situation.lines:
        hit = [code for code in sorted(situation.allergies | also) if allergy(code).in_text(line)]
        if hit:
            yield f"{line} ({', '.join(hit)})"


def _traces(part: Ingredient, situation: Situation) -> str:
    """A food that may contain what is not tolerated, and what; empty for one that may not."""
    unknown = len(part.may_contain) == len(ALLERGENS)
    hit = [
        name
        for name in sorted(situation.allergies)
        if name in part.may_contain or (unknown and name not in ALLERGENS)
    ]
    why = "its ingredients are not entered" if unknown else ", ".join(hit)
    return f"{part.food.name} ({why})" if hit else ""


def _is_called(name: str, word: str) -> bool:
    """Whether a food's name has the word, in one or many: "mushroom" is in "Mushrooms, white,
    raw"."""
    stem = word.strip().lower().removesuffix("s")
    return bool(stem) and re.search(rf"\b{re.escape(stem)}", name.lower()) is not None


def _doctor(rule: Rule, situation: Situation) -> str:
    """Whom the client turns to: with what they have of that which set the rule off, or else with
    anything."""
    of_the_rule = situation.conditions & (rule.any_condition | rule.all_condition)
    return doctor_for(of_the_rule)


def cautions_in(situation: Situation) -> list[Caution]:
    """All that is to be said in a situation, the gravest first."""
    numbers = numbers_at_hand(
        situation.conditions, situation.allergies, situation.numbers, situation.foods
    )
    out = []
    by_word = ", ".join(one for one in sorted(situation.allergies) if sees_no_more(one))
    kinds = frozenset().union(*map(kinds_of, situation.foods or ()))
    for rule in rules_for(situation):
        if rule.kinds_asked and kinds.isdisjoint(rule.kinds_asked):
            continue
        if not all(comparison.holds(numbers) for comparison in rule.number):
            continue
        found = _foods_of(rule, situation)
        if found is None:
            continue
        foods = ", ".join(found)
        known = {**numbers, **situation.words, "foods": foods, "by_word": by_word}
        text = rule.text.format_map(known)
        # what is about a number set by hand is about that number: another one brings it back
        by_hand = next((word for word in ("opened", "wished") if f"{{{word}}}" in rule.text), "")
        # what is about a value that was measured is about that value, whatever its age
        measured = MEASURED.search(rule.text)
        by_hand = f"about_{measured[1]}" if measured else by_hand
        about = situation.words.get(by_hand, "") if by_hand else foods
        out.append(
            Caution(
                code=rule.code,
                level=rule.level,
                text=text,
                why=rule.why,
                refer_to=rule.refer_to,
                source=rule.source,
                about=about,
                names=tuple(found),
                because=because_of(rule.compared, found, numbers),
                client=rule.client.format_map(
                    {"foods": foods, "your_doctor": _doctor(rule, situation)}
                ),
                by_amount=rule.names_no_food and bool(found),
                urgent=rule.urgent,
                todo=rule.todo,
                measured=measured[1] if measured else "",
            )
        )
    out += _of_words(situation)
    out += _in_force(situation, numbers, out)
    return sorted(out, key=lambda caution: LEVELS.index(caution.level))


def _of_words(situation: Situation) -> Iterator[Caution]:
    """What the words of lines and of names warn of."""
    if not situation.foods and not situation.lines:
        return
    have = situation.conditions | {situation.life_stage.partition("_")[0]}
    for row, stops, names in found_words(
        list(said_of(situation.foods or (), situation.lines)), have
    ):
        foods = ", ".join(names)
        level = LEVELS[0] if stops else row.level
        client = row.client or "Ask {your_doctor} before you eat or take this: {foods}."
        doctor = doctor_for(situation.conditions & (row.whom | row.stop_with))
        yield Caution(
            code=f"words_{row.code}",
            level=level,
            text=row.text.format_map({"foods": foods}),
            why=row.why,
            refer_to=row.refer_to,
            source=row.source,
            about=foods,
            names=names,
            because=names,
            client=client.format_map({"foods": foods, "your_doctor": doctor})
            if level == LEVELS[0]
            else "",
        )


def _in_force(
    situation: Situation, numbers: Mapping[str, float], told: Sequence[Caution]
) -> Iterator[Caution]:
    """What is in force and passed, where no rule of its own has said it."""
    codes = {caution.code for caution in told}
    said = {key for rule in rules() if rule.code in codes for key in rule.limits_said}
    passed = [
        *passed_limits(situation.limits, numbers, situation.foods, said),
        *passed_uppers(situation.life_stage, situation.conditions, numbers, said),
    ]
    doctor = doctor_for(situation.conditions)
    for one in passed:
        yield Caution(
            code=one.code,
            level=one.level,
            text=one.text,
            why=one.why,
            refer_to=one.refer_to,
            source=one.source,
            about=", ".join(one.names),
            names=one.names,
            because=(*one.names, one.because),
            client=f"{one.text} Ask {doctor} before you eat by it."
            if one.level == LEVELS[0]
            else "",
            by_amount=bool(one.names),
        )
