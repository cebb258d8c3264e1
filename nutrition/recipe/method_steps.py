"""The steps of a recipe as the cook wrote them: minutes, heat, equipment, and the lines each one
uses."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.food_names import TABLES_KEPT
from nutrition.composition.food_words import words
from nutrition.composition.foods import FoodTable, food_table
from nutrition.written.line import Line

# Work that goes on by itself, and work for the hands. What is neither counts as alone when it takes
# long.
ALONE = re.compile(
    r"\b(simmer|bake|roast|boil|soak|chill|rest|stand|cool|rise|steam|marinate|freeze|stew"
    r"|swell)\w*",
    re.I,
)
HEATS = (
    ("off the heat", r"\boff the heat\b"),
    ("low heat", r"\b(low|gentle) heat\b|\bgently\b|\bsimmer"),
    ("medium heat", r"\bmedium\b"),
    ("high heat", r"\bhigh heat\b|\bhot pan\b|\bboil"),
    ("oven", r"\bbake|\broast|\boven\b"),
)
EQUIPMENT = (
    "pot",
    "pan",
    "skillet",
    "oven",
    "tray",
    "sheet",
    "bowl",
    "blender",
    "food processor",
    "jar",
    "colander",
    "steamer",
    "lid",
    "grater",
    "whisk",
    "knife",
    "sieve",
    "slow cooker",
    "pressure cooker",
)
# Foods that every kitchen has and no line needs to list.
ALWAYS_THERE = {"water", "steam", "ice"}
# Groups whose names, met in a step, must stand in a line.
NAMED_GROUPS = {
    "vegetable",
    "leafy green",
    "starchy vegetable",
    "mushroom",
    "fruit",
    "legume",
    "grain",
    "soy",
    "nut",
    "seed",
    "fresh herb",
    "oil",
    "condiment",
    "vinegar",
    "nut butter",
    "dried fruit",
}
# Words of food names that mean something else in a step.
COMMON_WORDS = frozenset(
    (
        "raw fresh dry dried cooked ground whole white red green black yellow brown orange baby "
        "sweet long short hot cold mixed light split young wild bell head leaf seed bean nut oil "
        "salt paste juice sauce butter milk cream powder flake large small firm soft silken star "
        "date pear sea ice winter summer spring water egg king sour bitter field horse pan rock "
        "sugar sprout root bread canned drained rinsed bottle snake round sponge pod tip stem "
        "flower garden dock moth pearl steel cut rolled peel skin half piece stew poor job "
        "butternut mash air popped with little spread floret vegetable mix clove slice sheet"
    ).split()
)
GAS_MARK_F = {
    "1": 275.0,
    "2": 300.0,
    "3": 325.0,
    "4": 350.0,
    "5": 375.0,
    "6": 400.0,
    "7": 425.0,
    "8": 450.0,
    "9": 475.0,
}
_OVEN = re.compile(r"\b(\d{2,3})\s*(?:°|º|degrees?)?\s*([FC])\b")
_GAS = re.compile(r"\bgas(?: mark)? ([1-9])\b", re.I)
# "the rest but miso": what follows is not meant.
_NOT_MEANT = re.compile(
    r"\b(?:but|except|bar(?= the| for)|without|other than|leaving out)\b (?!also)[^.,;]*", re.I
)
_TOGETHER = re.compile(
    r"\b(blend|shake|mix|toss|whisk|stir|combine|simmer|mash|layer|pur[eé]e)\w*", re.I
)
_MINUTES = re.compile(
    r"(\d+(?:\.\d+)?)(?:\s*(?:-|to|or)\s*(\d+(?:\.\d+)?))?\s*(minutes?|mins?|hours?|hrs?|h\b)"
    r"|\b(half an|an|one) hour|\bovernight\b",
    re.I,
)


@dataclass(frozen=True, kw_only=True)
class Step:
    """One step. [minutes] at hand and alone, 0 where nothing is said; `uses` are the places of the
    lines it names."""

    number: int
    text: str
    hand_min: float
    alone_min: float
    heat: str
    equipment: tuple[str, ...]
    uses: tuple[int, ...]
    not_listed: tuple[str, ...]
    ovens: tuple[str, ...] = ()

    @property
    def minutes(self) -> float:
        return self.hand_min + self.alone_min


@dataclass(frozen=True)
class Worked:
    """All steps, and the places of lines that no step names."""

    steps: tuple[Step, ...]
    unused: tuple[int, ...]

    @property
    def hand_min(self) -> float:
        return sum(step.hand_min for step in self.steps)

    @property
    def alone_min(self) -> float:
        return sum(step.alone_min for step in self.steps)


def split(text: str) -> list[str]:
    """Steps as written: a line each, or the sentences of a single paragraph; a leading number is
    dropped."""
    lines = [
        re.sub(r"^\s*(?:step\s*)?\d+[.):]\s*", "", line, flags=re.I).strip()
        for line in text.splitlines()
    ]
    lines = [line for line in lines if line]
    if len(lines) == 1:
        lines = [
            part.strip()
            for part in re.split(r"(?<=[.;])\s+(?=[A-Z])|;\s+", lines[0])
            if part.strip()
        ]
    return lines


def minutes_of(text: str) -> float:
    """All the times a step states, added; a range counts as its middle. [minutes]"""
    total = 0.0
    for low, high, unit, hour in _MINUTES.findall(text):
        if hour:
            total += 30.0 if hour.lower().startswith("half") else 60.0
        elif low:
            value = (float(low) + float(high)) / 2 if high else float(low)
            total += value * (60.0 if unit.lower().startswith("h") else 1.0)
        else:
            total += 8 * 60.0
    return total


def meant(text: str) -> str:
    """A step without what it says is not meant: "Add the rest but miso"."""
    return _NOT_MEANT.sub(" ", text)


def ovens_in(text: str) -> tuple[str, ...]:
    """Oven temperatures a step states, each in both scales and as a gas mark: "350 °F = 180 °C, gas
    mark 4".

    Celsius to the nearest ten and Fahrenheit to the nearest 25, as ovens are marked; gas marks:
    common practice, no source.
    """
    out = []
    for value, scale in _OVEN.findall(text):
        fahrenheit = float(value) if scale.upper() == "F" else float(value) * 9 / 5 + 32
        out.append(_oven_words(fahrenheit, exact=float(value), scale=scale.upper()))
    for mark in _GAS.findall(text):
        fahrenheit = GAS_MARK_F.get(mark, 0.0)
        if fahrenheit:
            out.append(
                f"gas mark {mark} = {fahrenheit:.0f} °F = "
                f"{round((fahrenheit - 32) * 5 / 9 / 10) * 10:.0f} °C"
            )
    return tuple(dict.fromkeys(out))


def _oven_words(fahrenheit: float, exact: float, scale: str) -> str:
    celsius = (fahrenheit - 32) * 5 / 9
    mark = min(GAS_MARK_F, key=lambda name: abs(GAS_MARK_F[name] - fahrenheit))
    gas = f", gas mark {mark}" if abs(GAS_MARK_F[mark] - fahrenheit) <= 15 else ""
    if scale == "F":
        return f"{exact:.0f} °F = {round(celsius / 10) * 10:.0f} °C{gas}"
    return f"{exact:.0f} °C = {round(fahrenheit / 25) * 25:.0f} °F{gas}"


def _heat(text: str) -> str:
    return next((name for name, pattern in HEATS if re.search(pattern, text, re.I)), "")


@lru_cache(maxsize=TABLES_KEPT)
def _kitchen_words(table: FoodTable) -> dict[str, set[str]]:
    """Single words that name a food, each with the slugs it names."""
    out: dict[str, set[str]] = {}
    for food in table:
        if food.group in NAMED_GROUPS:
            for word in words(food.name.split(",")[0]):
                if len(word) > 3 and word not in COMMON_WORDS:
                    out.setdefault(word, set()).add(food.slug)
    return out


def line_words(line: Line) -> set[str]:
    """What a step may call a line: the words of its food and of what was written."""
    told = set(words(line.text)) | (set(words(line.food.name)) if line.food else set())
    return {
        word for word in told if len(word) > 2 and not word.isdigit() and word not in COMMON_WORDS
    } | ({"salt"} & told | {"oil"} & told | {"bean"} & told | {"juice"} & told)


def read_steps(text: str, lines: Sequence[Line]) -> Worked:
    """The steps of `text` against the recipe's lines.

    A step that says "everything", "all" or "the rest" uses every line. What the hands do is what is
    not done alone.
    """
    named = [line_words(line) for line in lines]
    known = _kitchen_words(food_table())
    steps, used = [], set()
    for number, said in enumerate(split(text), 1):
        step_words = set(words(meant(said)))
        left_out = set(words(said)) - step_words
        if re.search(
            r"\b(everything|all (the )?ingredients|the rest|all together|all)\b", said, re.I
        ):
            rest = "the rest" in said.lower()
            uses = tuple(
                i for i, own in enumerate(named) if not own & left_out and not (rest and i in used)
            )
        else:
            uses = tuple(i for i, own in enumerate(named) if own & step_words)
            if number == 1 and not uses and _TOGETHER.search(said):
                # "Shake in a jar": nothing is named, and everything is meant
                uses = tuple(range(len(lines)))
        used |= set(uses)
        listed = set().union(*named) if named else set()
        strange = {
            word
            for word in set(words(said)) & set(known)
            if word not in listed and word not in ALWAYS_THERE
        }
        minutes = minutes_of(said)
        alone = minutes if ALONE.search(said) else 0.0
        equipment = tuple(name for name in EQUIPMENT if re.search(rf"\b{name}s?\b", said, re.I))
        steps.append(
            Step(
                number=number,
                text=said,
                hand_min=minutes - alone,
                alone_min=alone,
                heat=_heat(said),
                equipment=equipment,
                uses=uses,
                not_listed=tuple(sorted(strange)),
                ovens=ovens_in(said),
            )
        )
    unused = (
        tuple(i for i in range(len(lines)) if i not in used and not _is_background(lines[i]))
        if steps
        else ()
    )
    return Worked(tuple(steps), unused)


def _is_background(line: Line) -> bool:
    return line.food is not None and line.food.slug == "water"
