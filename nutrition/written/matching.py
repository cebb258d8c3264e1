"""Put a food and its grams to a line that was read: the best match, its range, its basis and what
was assumed."""

from __future__ import annotations

import re
from collections.abc import Hashable
from dataclasses import dataclass, replace
from functools import lru_cache

from nutrition.composition.animal_foods import animal_foods
from nutrition.composition.cooking import before_cooking
from nutrition.composition.errors import CoreError
from nutrition.composition.food_names import FoodNames, food_names
from nutrition.composition.food_search import Match
from nutrition.composition.food_words import words
from nutrition.composition.foods import Food, HouseholdMeasure, food_table
from nutrition.written import grammar as measures
from nutrition.written import units
from nutrition.written.basis import BASIS_SPREAD, basis_range
from nutrition.written.grammar import FILLS, NO_AMOUNT, Quantity, Reading
from nutrition.written.household import volume_row
from nutrition.written.naming import NamedFood, name_food
from nutrition.written.plain import plain

BY_EYE = {
    "smidgen",
    "glug",
    "dollop",
    "handful",
    "pinch",
    "dash",
    "splash",
    "drizzle",
    "squeeze",
    "knob",
    "thumb",
    "bunch",
}
# What one of these weighs when the food has no row of its own. Common practice, no source. [g]
COMMON_GRAMS = {
    "smidgen": 0.15,
    "glug": 14.0,
    "dollop": 20.0,
    "pinch": 0.3,
    "dash": 0.6,
    "splash": 10.0,
    "drizzle": 7.0,
    "squeeze": 5.0,
    "knob": 15.0,
    "scoop": 30.0,
    # cooking spray: a third of a second is a label's serving of 0.25 g
    "second": 0.75,
    "spray": 0.25,
    "strip": 5.0,
    "square": 8.0,
}
# Room in a glass, a mug or a bowl as it is filled: best, least, most. Common practice, no source.
# [mL]
VESSELS = {
    "glass": (240.0, 180.0, 300.0),
    "mug": (280.0, 220.0, 350.0),
    "bowl": (350.0, 240.0, 470.0),
    "shot": (30.0, 25.0, 45.0),
}
HANDFUL_GRAMS = {
    "fresh herb": 12.0,
    "leafy green": 25.0,
    "nut": 30.0,
    "seed": 25.0,
    "dried fruit": 30.0,
    "fruit": 60.0,
    "vegetable": 50.0,
    "mushroom": 40.0,
    "pasta": 50.0,
    "grain": 40.0,
}
# A bunch of what has no bunch of its own: best, least, most. Common practice, no source. [g]
BUNCH_GRAMS = {
    "fresh herb": (50.0, 25.0, 100.0),
    "leafy green": (250.0, 150.0, 400.0),
    "vegetable": (300.0, 150.0, 500.0),
}
# What "to taste", "as needed" or "for serving" comes to for a whole dish: best, least, most. Common
# practice, no source. [g]
LOOSE_GRAMS = (
    (("salt",), (2.0, 0.0, 6.0)),
    (("spice", "dried herb"), (0.7, 0.0, 2.5)),
    (("fresh herb",), (6.0, 0.0, 20.0)),
    (("oil",), (9.0, 0.0, 28.0)),
    (("drink", "broth", "plant milk"), (60.0, 0.0, 250.0)),
)
# Given without an amount, so much of these is meant.
UNMEASURED = ("salt", "spice", "dried herb", "fresh herb")
# A pan that is sprayed: best, least, most. Common practice, no source. [g]
SPRAY, SPRAYED_GRAMS = "spray", (1.0, 0.2, 4.0)
LOOSE_OTHER = (10.0, 0.0, 40.0)
# A small or large one against the usual, where it has no weight of its own. Common practice, no
# source.
SIZE_FACTOR = {"small": 0.65, "large": 1.4}
# Only a fresh herb comes by the sprig.
FRESH_UNITS = {"sprig", "bunch", "leaf"}
# The usual can, when the line does not say which. Common practice, no source. [g]
COMMON_CAN_G = 425.0
# Of a can of beans so much is left when drained, where the bean has no share of its own: best,
# least, most. Common practice, no source.
CAN_DRAINED_SHARE = (0.6, 0.55, 0.66)
LIKE_FORM = {
    "chopped": ("chopped",),
    "sliced": ("sliced", "chopped"),
    "grated": ("grated", "shredded"),
    "mashed": ("mashed",),
    "shredded": ("shredded", "grated"),
    "minced": ("minced", "grated", "chopped"),
    "packed": ("packed",),
    "whole": ("whole",),
    "halves": ("halves",),
}
# One that is called so weighs much less or more than the usual one.
UNUSUAL_SIZES = frozenset({"baby", "mini", "miniature", "dwarf", "petite", "giant", "gem", "pak"})
# Weighed or measured like this, much is not eaten.
IN_ITS_SHELL = re.compile(
    r"\b(?:in|with) (?:the |their |its )?(?:pods?|shells?)\b|\bunshelled\b|\bin-shell\b", re.I
)
# What a punnet holds. Common practice, no source. [g]
PUNNET_GRAMS = (250.0, 150.0, 400.0)
# Of a can or jar of other things so much is left when drained: best, least, most. Common practice,
# no source.
DRAINED_SHARE = (0.6, 0.5, 0.72)
# A row that says so counts the skin as eaten.
WITH_SKIN = "with skin"
PEPPER_TOO = re.compile(r"\bsalt (?:and|&|\+) .*\bpepper\b", re.I)
# More than this on one line is asked about. Common practice, no source. [g]
MOST_GRAMS = 25_000.0
CAN_DRAINED_STATES = ("canned, drained", "canned, drained and rinsed")


@dataclass(frozen=True, kw_only=True)
class Line:
    """A line with its food and grams, or the reason it has none. `low` and `high` bound the grams.
    [g]

    `ask` is the question to put to the cook and `twin` the food that answers it with yes; `chosen`
    and `typed` say that the cook settled the food or the grams. `sure` says that the food wants no
    look, `several` are the lines to write instead where one amount stands for several foods,
    `animal` is the animal food that was named, `steps` are the methods named in the line, and
    `phrase` the words for its food.
    """

    text: str
    food: Food | None = None
    grams: float | None = None
    low: float | None = None
    high: float | None = None
    basis: str = ""
    assumed: tuple[str, ...] = ()
    ask: str = ""
    why: str = ""
    candidates: tuple[Match, ...] = ()
    twin: str = ""
    chosen: bool = False
    typed: bool = False
    sure: bool = False
    several: tuple[str, ...] = ()
    animal: str = ""
    steps: tuple[str, ...] = ()
    phrase: str = ""

    @property
    def resolved(self) -> bool:
        return self.food is not None and self.grams is not None


@dataclass(frozen=True)
class Choice:
    """What the cook decided for a line: another food, the grams on the scale, or both."""

    food: str | None = None
    grams: float | None = None


def reckon_line(
    text: str, names: FoodNames | None = None, choice: Choice | None = None, system: str = "us"
) -> Line:
    """Read a line, match its food and weigh it. A line that cannot be settled says why; it never
    counts as zero.

    `system` says whose cups and spoons are meant, a key of written.units.SYSTEM_WORDS.
    """
    if names is not None:
        return _reckoned(text, names, choice, system)
    return _kept(text, choice, system, food_table().key)


@lru_cache(maxsize=8192)
def _kept(text: str, choice: Choice | None, system: str, _foods: Hashable) -> Line:
    """A line once read stays read, as long as the foods are the same: while a recipe is typed only
    the line under the cursor is new."""
    return _reckoned(text, food_names(), choice, system)


def _reckoned(text: str, names: FoodNames, choice: Choice | None, system: str) -> Line:
    reading = measures.read(text, system)
    named, phrase = _named(reading, names), (reading.counted or reading.phrase).strip()
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
    if food is None:
        return Line(
            text=text,
            why=reading.problem or named.why,
            candidates=candidates,
            several=reading.several,
        )
    if choice and choice.grams is not None:
        return replace(
            by_own_weight(text, food, choice.grams),
            candidates=candidates,
            chosen=chosen,
            sure=named.sure,
            steps=named.steps,
            phrase=phrase,
        )
    if reading.problem and not (reading.problem == NO_AMOUNT and _needs_no_amount(food, reading)):
        return Line(text=text, why=reading.problem, candidates=candidates, several=reading.several)
    try:
        weighed = weigh(replace(reading, forms=(*reading.forms, *named.variety)), food)
    except CannotWeigh as error:
        return Line(text=text, why=str(error), candidates=candidates)
    if (weighed.grams or 0.0) > MOST_GRAMS:
        said = f"{weighed.grams:,.0f} g on one line is more than a kitchen cooks: is it meant?"
        return Line(text=text, why=said, candidates=candidates)
    ask, twin = ("", "") if chosen else _ask(reading, food, names)
    assumed = (*named.notes, *weighed.assumed, *_said_too(reading, food, weighed.grams or 0.0))
    return replace(
        weighed,
        text=text,
        food=food,
        sure=named.sure and not (ask and food.state == "cooked"),
        steps=named.steps,
        candidates=candidates,
        assumed=assumed,
        ask=ask,
        twin=twin,
        chosen=chosen,
        phrase=phrase,
    )


def _needs_no_amount(food: Food, reading: Reading) -> bool:
    """What is used without an amount: salt and spices, and what a pan is sprayed with."""
    return food.group in UNMEASURED or SPRAY in words(reading.phrase)


def by_own_weight(text: str, food: Food, grams: float) -> Line:
    """A line whose weight the cook typed in. [g]"""
    low, high = basis_range(grams, "weighed")
    return Line(text=text, food=food, grams=grams, low=low, high=high, basis="weighed", typed=True)


def _said_too(reading: Reading, food: Food, grams: float) -> list[str]:
    """What else a cook wants to know of a line: the other foods it allows, and what a cooked food
    was before."""
    out = (
        [f"the first is counted; it may also be {' or '.join(reading.alternatives)}"]
        if reading.alternatives
        else []
    )
    if PEPPER_TOO.search(reading.text):
        out.append("the salt is counted; the pepper beside it is not")
    if food.overruled:
        out.append(f"overruled here: {'; '.join(food.overruled)}")
    before = before_cooking(food, grams)
    if before is not None:
        out.append(f"{grams:.0f} g cooked come from about {before[1]:.0f} g {before[0].state}")
    return out


def _named(reading: Reading, names: FoodNames) -> NamedFood:
    """The food a reading names. What the amount implies counts where the words say nothing: what
    comes in a can is canned, what comes by the sprig is fresh."""
    phrase = reading.counted or reading.phrase
    if reading.take:
        phrase = f"{plain(reading.phrase)} {reading.take}"
    units_said = {term.unit for term in reading.terms}
    more = []
    if "can" in units_said:
        more.append(("state", "canned"))
    if "bowl" in units_said:
        more.append(("state", "cooked"))
    if units_said & FRESH_UNITS:
        fresh = name_food(f"fresh {phrase}", names, remark=reading.note)
        if fresh.food is not None and not {"dried", "ground"} & set(reading.forms):
            return fresh
    found = name_food(phrase, names, remark=reading.note, more=more)
    if "can" in units_said and not found.sure:
        # "1 can pumpkin": what comes in a can has names of its own
        canned = name_food(f"canned {phrase}", names, remark=reading.note)
        if canned.food is not None and (canned.sure or found.food is None):
            found = canned
    if reading.shared:
        # "soy or almond milk": milk belongs to both, if there is such a food
        shared = name_food(reading.shared, names, remark=reading.note, more=more)
        if shared.food is not None and (shared.sure or not found.sure):
            found = shared
    return found


def _ask(reading: Reading, food: Food, names: FoodNames) -> tuple[str, str]:
    """The question to put where dry and cooked both make sense and the line says neither, and the
    other food."""
    if set(reading.forms) & {
        "dry",
        "dried",
        "cooked",
        "raw",
        "canned",
        "drained",
        "rinsed",
        "prepared",
    } or food.state not in ("dry", "cooked"):
        return "", ""
    if any(term.unit in ("can", "bowl") for term in reading.terms) or food.group not in (
        "grain",
        "legume",
        "pasta",
    ):
        return "", ""
    other = "cooked" if food.state == "dry" else "dry"
    twin = food.slug.rsplit("-", 1)[0] + "-" + other
    return (
        (f"Taken as {food.state}. Was it measured {other}?", twin)
        if twin in names.table
        else ("", "")
    )


class CannotWeigh(CoreError):
    """The grams that are meant are not known; the message says why."""


def weigh(reading: Reading, food: Food) -> Line:
    """The grams a reading means for this food. Raises CannotWeigh, saying why, where they are not
    known."""
    if not reading.terms and (reading.loose or _needs_no_amount(food, reading)):
        best, low, high = next(
            (grams for groups, grams in LOOSE_GRAMS if food.group in groups), LOOSE_OTHER
        )
        if SPRAY in words(reading.phrase):
            best, low, high = SPRAYED_GRAMS
        said = (
            f"{reading.loose or 'no amount'}: taken as {best:g} g, between {low:g} and {high:g}; "
            f"weigh it to know"
        )
        return Line(text="", grams=best, low=low, high=high, basis="by eye", assumed=(said,))
    if IN_ITS_SHELL.search(reading.text) and not IN_ITS_SHELL.search(food.name):
        what = "pod" if "pod" in reading.text.lower() else "shell"
        said = f"measured with the {what}: say what is left without it"
        raise CannotWeigh(said)
    lines = [_term(term, reading, food) for term in reading.terms]
    if len(lines) == 1:
        return lines[0]
    grams = sum(line.grams or 0.0 for line in lines)
    low, high = sum(line.low or 0.0 for line in lines), sum(line.high or 0.0 for line in lines)
    assumed = tuple(dict.fromkeys(note for line in lines for note in line.assumed))
    worst = max(lines, key=lambda line: list(BASIS_SPREAD).index(line.basis))
    return Line(text="", grams=grams, low=low, high=high, basis=worst.basis, assumed=assumed)


def _term(term: Quantity, reading: Reading, food: Food) -> Line:
    assumed: list[str] = []
    fill = FILLS.get(reading.fill, 1.0)
    if fill != 1.0:
        assumed.append(f"{reading.fill} taken as {fill:g} level")
        term = term.times(fill)
    if reading.package is not None:
        return _package(term, reading.package, reading, food)
    per_gram = units.grams(term.unit)
    if per_gram is not None:
        return _by_weight(term, per_gram, reading, food)
    if reading.take:
        portion = _find(food, f"{reading.take} of 1", ())
        if portion is None:
            raise CannotWeigh(f"no weight known for the {reading.take} of one")
        return _by_portion(
            term, portion, 1.0, "counted", [f"{reading.take} of one: {portion.grams:g} g"]
        )
    if term.unit in VESSELS:
        best, low, high = VESSELS[term.unit]
        filled = Quantity(term.best * best, term.low * low, term.high * high, "ml")
        said = f"a {term.unit} taken as {best:g} mL"
        return replace(_by_volume(filled, reading, food, [said]), basis="by eye")
    if units.milliliters(term.unit) is not None:
        return _by_volume(term, reading, food, assumed)
    return _by_count(term, reading, food, assumed)


def _line(
    term: Quantity, grams: float, low: float, high: float, basis: str, assumed: list[str]
) -> Line:
    """One term at `grams` (from low to high) apiece. The written range and the basis widen it."""
    spread = BASIS_SPREAD[basis]
    best = term.best * grams
    down = (
        ((term.best - term.low) * grams) ** 2
        + (term.best * (grams - low)) ** 2
        + (best * spread) ** 2
    )
    up = (
        ((term.high - term.best) * grams) ** 2
        + (term.best * (high - grams)) ** 2
        + (best * spread) ** 2
    )
    return Line(
        text="",
        grams=best,
        low=max(best - down**0.5, 0.0),
        high=best + up**0.5,
        basis=basis,
        assumed=tuple(assumed),
    )


def _by_portion(
    term: Quantity, portion: HouseholdMeasure, factor: float, basis: str, assumed: list[str]
) -> Line:
    return _line(
        term, portion.grams * factor, portion.low * factor, portion.high * factor, basis, assumed
    )


def _by_weight(term: Quantity, per_unit: float, reading: Reading, food: Food) -> Line:
    assumed: list[str] = []
    share = None if WITH_SKIN in food.name else food.share("edible")
    if share and set(reading.forms) & {"unpeeled", "untrimmed", "whole"}:
        assumed.append(f"weighed as bought; {share.share:.0%} is eaten")
        return _line(
            term,
            per_unit * share.share,
            per_unit * share.low,
            per_unit * share.high,
            "weighed",
            assumed,
        )
    if share and share.share < 0.85:
        assumed.append("weighed after peeling and trimming")
    return _line(term, per_unit, per_unit, per_unit, "weighed", assumed)


def _by_volume(term: Quantity, reading: Reading, food: Food, assumed: list[str]) -> Line:
    volume = units.milliliters(term.unit, reading.system) or 0.0
    portion = volume_row(food, term.unit, _wanted_forms(reading))
    if portion is None:
        raise CannotWeigh(f"no weight known for a {term.unit} of {food.name.lower()}")
    factor = volume / (units.milliliters(portion.measure) or 1.0)
    if portion.form:
        assumed.append(f"a cup taken as {portion.form}")
    if portion.source.startswith("by kind"):
        assumed.append(f"weight of a cup {portion.source.split(',')[0]}")
    if reading.fill in ("packed",) and portion.form != "packed":
        assumed.append("packed taken as a quarter more")
        factor *= 1.25
    return _by_portion(term, portion, factor, "leveled measure", assumed)


def _by_count(term: Quantity, reading: Reading, food: Food, assumed: list[str]) -> Line:
    unit = term.unit
    size = unit if unit in SIZE_FACTOR else reading.size
    factor_of_size = SIZE_FACTOR.get(size, 1.0)
    basis = (
        "by eye"
        if unit in BY_EYE
        else "label"
        if unit in ("can", "package", "jar", "block")
        else "counted"
    )
    wanted = [unit] if unit else ["medium", "piece", "head", "slice"]
    if unit in ("stalk", "rib"):
        wanted = [unit, "stalk", "rib", "medium"]
    elif unit in ("jar", "package", "block"):
        wanted = [unit, "package", "can", "block"]
    elif unit == "head" or unit in ("small", "medium", "large"):
        wanted = [unit, "medium", "head", "piece"]
    # a baby or a gem one may have a weight of its own
    forms = [*_wanted_forms(reading), *words(reading.phrase)]
    for name in wanted:
        portion = _find(food, name, forms)
        if portion is not None and name == "can" and _is_drained(reading, food):
            usual = Quantity(portion.grams, portion.low, portion.high, "g")
            return _package(term, usual, reading, food)
        if portion is not None:
            _not_of_another_size(food, portion, reading)
            factor = 1.0
            if name in ("medium", "head", "piece", "handful", "bunch") and factor_of_size != 1.0:
                factor = factor_of_size
                assumed.append(f"a {size} one taken as {factor:g} of a usual one")
            if not unit:
                assumed.append(
                    f"one taken as {'a ' if name != 'medium' else ''}{name}: {portion.grams:g} g"
                )
            return _by_portion(term, portion, factor, basis, assumed)
    beans = food.group == "legume" and food.state == "cooked"
    if unit in ("can", "jar") and (food.state.startswith("canned") or beans):
        usual = Quantity(COMMON_CAN_G, COMMON_CAN_G * 0.9, COMMON_CAN_G, "g")
        line = _package(term, usual, reading, food)
        said = f"a can taken as 15 oz ({COMMON_CAN_G:.0f} g)"
        return replace(line, assumed=(said, *line.assumed))
    if unit == "punnet":
        best, low, high = PUNNET_GRAMS
        return _line(term, best, low, high, "by eye", [*assumed, f"a punnet taken as {best:g} g"])
    if unit == "bunch" and food.group in BUNCH_GRAMS:
        best, low, high = BUNCH_GRAMS[food.group]
        said = f"a bunch taken as {best:g} g"
        return _line(term, best, low, high, "by eye", [*assumed, said])
    if unit == "handful" and food.group in HANDFUL_GRAMS:
        grams = HANDFUL_GRAMS[food.group] * factor_of_size
    elif unit in COMMON_GRAMS:
        grams = COMMON_GRAMS[unit]
    else:
        raise CannotWeigh(f"no weight known for one {unit or 'piece'} of {food.name.lower()}")
    return _line(term, grams, grams, grams, "by eye", [*assumed, f"a {unit} taken as {grams:g} g"])


def _not_of_another_size(food: Food, portion: HouseholdMeasure, reading: Reading) -> None:
    """Raises CannotWeigh where one of an unusual size was counted and only the usual is known."""
    said = UNUSUAL_SIZES.intersection(words(reading.phrase)) - set(words(food.name))
    if said and portion.form not in said:
        raise CannotWeigh(f"no weight known for a {min(said)} one of {food.name.lower()}")


def _is_drained(reading: Reading, food: Food) -> bool:
    """Whether a can of beans is said to be drained, and its row is not."""
    said = set(reading.forms) & {"drained", "rinsed"}
    return bool(said) and food.group == "legume" and food.state == "canned"


def _package(term: Quantity, package: Quantity, reading: Reading, food: Food) -> Line:
    assumed: list[str] = []
    grams = units.grams(package.unit)
    if grams is None:
        volume = units.milliliters(package.unit, reading.system) or 0.0
        if food.cup is None:
            said = f"{package.best:g} {package.unit} of {food.name.lower()}"
            raise CannotWeigh(f"no weight known for {said}")
        grams = food.cup.grams * volume / (units.milliliters("cup") or 1.0)
    each = grams * package.best
    share = food.share("drained")
    if share and food.state in CAN_DRAINED_STATES:
        assumed.append(f"{share.share:.0%} of the can's {each:.0f} g is left when drained")
        return _line(
            term, each * share.share, each * share.low, each * share.high, "label", assumed
        )
    if (
        food.group == "legume"
        and food.state in ("cooked", "canned")
        and (
            set(reading.forms) & {"drained", "rinsed"}
            or (food.state == "cooked" and term.unit != "package")
        )
    ):
        best, low, high = CAN_DRAINED_SHARE
        assumed.append(
            f"{best:.0%} of the can's {each:.0f} g is left when drained, as of other beans"
        )
        return _line(term, each * best, each * low, each * high, "label", assumed)
    drained = {"drained", "rinsed"} & set(reading.forms)
    if drained and term.unit in ("can", "jar") and food.group not in ("soy", "legume"):
        best, low, high = DRAINED_SHARE
        assumed.append(f"{best:.0%} of its {each:.0f} g is left when drained, as of others")
        return _line(term, each * best, each * low, each * high, "label", assumed)
    return _line(term, each, each, each, "label", assumed)


def _wanted_forms(reading: Reading) -> list[str]:
    forms = [like for form in reading.forms for like in LIKE_FORM.get(form, (form,))]
    if reading.fill in ("packed",):
        forms.insert(0, "packed")
    return list(dict.fromkeys(forms))


def _find(food: Food, measure: str, forms: list[str] | tuple[str, ...]) -> HouseholdMeasure | None:
    rows = [portion for portion in food.measures if portion.measure == measure]
    for form in (*forms, ""):
        for portion in rows:
            if portion.form == form:
                return portion
    return rows[0] if rows else None
