"""Put a food and its grams to a line that was read: the best match, its range, its basis and what
was assumed."""

from __future__ import annotations

import re
from collections.abc import Hashable
from dataclasses import replace
from functools import lru_cache

from nutrition.composition.animal_foods import animal_foods
from nutrition.composition.cooking_methods import UNCOOKED_STATES, as_cooked, before_cooking
from nutrition.composition.food_names import FoodNames, food_names
from nutrition.composition.food_search import Match
from nutrition.composition.food_words import take_apart
from nutrition.composition.foods import Food, food_table
from nutrition.written import grammar as measures
from nutrition.written import units
from nutrition.written.grammar import Quantity, Reading
from nutrition.written.line import Choice, Line, by_own_weight
from nutrition.written.line_patterns import NO_AMOUNT
from nutrition.written.naming import NamedFood, name_food
from nutrition.written.two_foods import TWO_FOODS, two_foods
from nutrition.written.weighing import CannotWeigh, needs_no_amount, weigh
from nutrition.written.wording import plain

# Only a fresh herb comes by the sprig.
FRESH_UNITS, ROOT_UNITS = {"sprig", "bunch", "leaf"}, {"inch", "thumb", "knob"}
# Eaten and weighed, up to so much of a grain or pulse was more likely weighed dry: it asks all the
# same. Common practice, no source. [g]
WEIGHED_DRY_G = 100.0
# What is served in one of these was cooked.
SERVED_IN = {"bowl", "plate", "katori", "fist"}
PARTS_OF_ONE = {"slice", "wedge"}
# By the cup or the bowl these are dishes; by the spoon or the piece a spice or a pepper.
DISH_UNITS = {"cup", "bowl", "plate", "serving", "ladle", "katori", "pint", "quart"}
DISHES_TOO = dict.fromkeys(("chili", "chilli", "chile"), "chili dish")
PEPPER_TOO = re.compile(r"\bsalt (?:and|&|\+) .*\bpepper\b", re.I)
# More than this on one line is asked about. Common practice, no source. [g]
MOST_GRAMS = 25_000.0


def reckon_line(
    text: str,
    names: FoodNames | None = None,
    choice: Choice | None = None,
    system: str = "us",
    *,
    eaten: bool = False,
) -> Line:
    """Read a line, match its food and weigh it. A line that cannot be settled says why; it never
    counts as zero.

    `system` says whose cups and spoons are meant, a key of written.units.SYSTEM_WORDS. What is
    written into a recipe is measured before it is cooked, what was `eaten` after.
    """
    if names is not None:
        return _reckoned(text, names, choice, system, eaten)
    return _kept(text, choice, system, eaten, food_table().key)


@lru_cache(maxsize=8192)
def _kept(text: str, choice: Choice | None, system: str, eaten: bool, _foods: Hashable) -> Line:
    """A line once read stays read, as long as the foods are the same: while a recipe is typed only
    the line under the cursor is new."""
    return _reckoned(text, food_names(), choice, system, eaten)


def _reckoned(text: str, names: FoodNames, choice: Choice | None, system: str, eaten: bool) -> Line:
    # Whole: a line from its words to its grams, in that order.
    reading = measures.read(text, system)
    named = _named(reading, names, eaten)
    phrase = (reading.counted or reading.phrase).strip()
    own = names.table.usable(choice.food) if choice and choice.food else None
    chosen = own is not None
    if own is not None:
        named = replace(named, food=own, sure=True, notes=(), animal=False)
    if named.animal:
        said, instead = animal_foods().instead_of(named.why, reading.phrase)
        return Line(
            text=text,
            why=f"“{said}” is from an animal and not in the table: choose what stands in its place",
            candidates=tuple(Match(names.table[slug], 1.0) for slug in instead),
            animal=named.why,
        )
    others = [
        Match(other.food, 1.0)
        for phrase in reading.alternatives
        if (other := name_food(phrase, names)).food is not None
    ]
    candidates = tuple(dict.fromkeys([*named.candidates[: 6 - len(others)], *others]))
    food = named.food
    two = () if chosen else two_foods(reading, named, names)
    if two:
        return Line(text=text, why=TWO_FOODS, candidates=candidates, several=two)
    if food is None:
        both = _dry_and_cooked(phrase, names)
        return Line(
            text=text,
            why=BOTH_SAID if both else reading.problem or named.why,
            candidates=both or candidates,
            several=reading.several,
        )
    if choice and choice.grams is not None:
        return replace(
            by_own_weight(text, food, choice.grams),
            candidates=candidates,
            chosen=chosen,
            sure=named.sure,
            steps=_steps(named, reading, food),
            phrase=phrase,
        )
    if eaten and reading.problem == NO_AMOUNT and (one := _one_of(food, reading)):
        reading = replace(reading, terms=(one,), problem="")
    if reading.problem and not (reading.problem == NO_AMOUNT and needs_no_amount(food, reading)):
        return Line(text=text, why=reading.problem, candidates=candidates, several=reading.several)
    try:
        weighed = weigh(replace(reading, forms=(*reading.forms, *named.variety)), food)
    except CannotWeigh as error:
        return Line(text=text, why=str(error), candidates=candidates)
    if (weighed.grams or 0.0) > MOST_GRAMS:
        said = f"{weighed.grams:,.0f} g on one line is more than a kitchen cooks: is it meant?"
        return Line(text=text, why=said, candidates=candidates)
    ask, twin = ("", "") if chosen else _ask(reading, food, names, eaten)
    assumed = (*named.notes, *weighed.assumed, *_said_too(reading, food, weighed.grams or 0.0))
    return replace(
        weighed,
        text=text,
        food=food,
        sure=named.sure and not (ask and food.state == "cooked"),
        steps=_steps(named, reading, food),
        candidates=candidates,
        assumed=assumed,
        ask=ask,
        twin=twin,
        chosen=chosen,
        phrase=phrase,
    )


def _said_too(reading: Reading, food: Food, grams: float) -> list[str]:
    """What else a cook wants to know of a line: the other foods it allows, and what a cooked food
    was before."""
    out = (
        [f"the first is counted; it may also be {' or '.join(reading.alternatives)}"]
        if reading.alternatives
        else []
    )
    if reading.beside:
        out.append(f"not counted: the {reading.beside}")
    if PEPPER_TOO.search(reading.text):
        out.append("the salt is counted; the pepper beside it is not")
    if food.overruled:
        out.append(f"overruled here: {'; '.join(food.overruled)}")
    before = before_cooking(food, grams)
    if before is not None:
        out.append(f"{grams:.0f} g cooked come from about {before[1]:.0f} g {before[0].state}")
    return out


_DRY = re.compile(r"\b(?:dry|dried|uncooked)\b", re.I)
_COOKED = re.compile(r"\b(?:cooked|boiled)\b", re.I)
BOTH_SAID = "dry and cooked are both said: which was it when it was measured?"


def _dry_and_cooked(phrase: str, names: FoodNames) -> tuple[Match, ...]:
    """The cooked and the dry food where a line says both of it; none where it does not."""
    if not (_DRY.search(phrase) and _COOKED.search(phrase)):
        return ()
    meant = (name_food(words.sub("", phrase), names).food for words in (_DRY, _COOKED))
    return tuple(Match(food, 1.0) for food in meant if food is not None)


# What is eaten by the piece: "banana" in a diary is one.
BY_THE_PIECE = ("fruit",)
MOST_WORDS_OF_ONE = 2


def _one_of(food: Food, reading: Reading) -> Quantity | None:
    """One of what was eaten, where its name alone was written and it comes in pieces or by the
    shot."""
    words = reading.phrase.split()
    if not 0 < len(words) <= MOST_WORDS_OF_ONE or words[-1].endswith("s") or reading.several:
        return None
    if "espresso" in food.slug:
        return Quantity(1.0, 0.8, 2.0, "shot")
    pieces = any(row.measure in ("medium", "piece") for row in food.measures)
    return Quantity(1.0, 1.0, 1.0) if pieces and food.group in BY_THE_PIECE else None


def _steps(named: NamedFood, reading: Reading, food: Food) -> tuple[str, ...]:
    """What is done to the food after it was measured, what its line says at its end among it."""
    if not reading.then or food.state not in UNCOOKED_STATES:
        return named.steps
    then = as_cooked(food, reading.then)
    return named.steps if then in named.steps else (*named.steps, then)


def _named(reading: Reading, names: FoodNames, eaten: bool) -> NamedFood:
    """The food a reading names. What the amount implies counts where the words say nothing: what
    comes in a can is canned, what comes by the sprig is fresh, what was eaten was cooked."""
    phrase = reading.counted or reading.phrase
    if reading.take:
        phrase = f"{plain(reading.phrase)} {reading.take}"
    units_said = {term.unit for term in reading.terms}
    more = []
    if "can" in units_said:
        more.append(("state", "canned"))
    elif reading.uncooked:
        more.append(("state", "uncooked"))
    elif units_said & SERVED_IN or (eaten and not 0 < _weight_g(reading) <= WEIGHED_DRY_G):
        more.append(("ready", "eaten"))
    if units_said & FRESH_UNITS:
        fresh = name_food(f"fresh {phrase}", names, remark=reading.note)
        if fresh.food is not None and not {"dried", "ground"} & set(reading.forms):
            return fresh
    for part in units_said & ROOT_UNITS:
        # an inch of turmeric is the root, of kombu the leaf that is sold dried
        root = name_food(f"fresh {phrase}", names, remark=reading.note)
        if root.sure and root.food and any(row.measure == part for row in root.food.measures):
            return root
    for part in units_said & PARTS_OF_ONE:
        # a slice of lemon is not its juice
        whole = name_food(f"{phrase} {part}", names, remark=reading.note)
        if whole.sure:
            return whole
    if units_said & DISH_UNITS and len(called := take_apart(phrase).name) == 1:
        dish = DISHES_TOO.get(called[0])
        if dish is not None:
            return name_food(dish, names)
    if "squeeze" in units_said and not reading.take:
        juice = name_food(f"{phrase} juice", names)
        if juice.sure:
            return juice
    found = name_food(phrase, names, remark=reading.note, more=more)
    if "can" in units_said and not found.sure:
        # "1 can pumpkin": what comes in a can has names of its own
        canned = name_food(f"canned {phrase}", names, remark=reading.note)
        if canned.food is not None and (canned.sure or found.food is None):
            found = canned
    if "cube" in units_said and found.food is not None and found.food.group == "broth":
        found = name_food("stock cube", names)
    if reading.shared:
        # "soy or almond milk": milk belongs to both, if there is such a food
        shared = name_food(reading.shared, names, remark=reading.note, more=more)
        if shared.food is not None and (shared.sure or not found.sure):
            found = shared
    return found


def _ask(reading: Reading, food: Food, names: FoodNames, eaten: bool) -> tuple[str, str]:
    """The question to put where something eaten was weighed, dry or cooked, and the line says
    neither; and the other food. In a recipe what is bare is dry, as recipes mean it."""
    said = {"dry", "dried", "cooked", "raw", "canned", "drained", "rinsed", "prepared"}
    weighed = _weight_g(reading) > 0
    if not eaten or not weighed or food.state not in ("dry", "cooked") or said & set(reading.forms):
        return "", ""
    other = "dry" if food.state == "cooked" else "cooked"
    twin = f"{food.slug.removesuffix('-' + food.state)}-{other}"
    if food.group not in ("grain", "legume", "pasta") or twin not in names.table:
        return "", ""
    return f"Taken as {food.state}. Was it weighed {other}?", twin


def _weight_g(reading: Reading) -> float:
    """The weight that was written; nothing where it was measured otherwise. [g]"""
    return sum(term.best * (units.grams(term.unit) or 0.0) for term in reading.terms)
