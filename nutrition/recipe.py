"""A recipe: lines, servings and a measured batch, reckoned into facts per batch, per serving and
per 100 g."""

from __future__ import annotations

import json
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

from nutrition.bowl import Ingredient, cooked_food
from nutrition.cooking import STEAM, WATER_KEPT, Cooked, UnknownMethod, cook, read_method
from nutrition.lines import Choice, Line, reckon_line, weigh
from nutrition.measures import read
from nutrition.part import PartFood, part_food, part_named, without_part
from nutrition.pasted import decoded, parted
from nutrition.profile import Profile
from nutrition.search import FoodIndex
from nutrition.servings import counted, portioned_ml
from nutrition.units import UNIT_OF
from nutrition.units import grams as unit_grams

MAX_LINES = 200
_PARTS = {"half": 1 / 2, "third": 1 / 3, "quarter": 1 / 4, "fifth": 1 / 5}
# A measured batch this far from the computed one asks what was left out. [share of it]
LEFT_OUT_SHARE = 0.15
MAX_LINE_LENGTH, MAX_TEXT = 400, 20_000
# How many servings a recipe can be reckoned for, and what a batch can weigh. [1], [g]
SERVINGS, BATCH_G = (0.1, 1000.0), (0.1, 500_000.0)
# What a line can be said to weigh. [g]
LINE_G = (0.01, 100_000.0)


class UnreadableRecipe(ValueError):
    """The text is not a recipe; the message says why."""


@dataclass(frozen=True)
class Recipe:
    """What the cook wrote. `batch_g` is what the pan's content weighed, if it was weighed. [g]

    `method` is how the whole is cooked, a code of nutrition.cooking or empty; a line's own,
    "[method: roasted]" at its end, stands over it. `parts` are the recipes that lines name as
    "[recipe: ...]", by name in lower case, and `refused` why one cannot be used. `system` says
    whose cups and spoons are meant. `reduced` is the share of the whole that is boiled away [0 to
    1], None for the usual. `claimed` is how many it says it serves, `serving_measure` what servings
    were measured with, "1/2 cup heaping", or how many of them came out as well, "5 x 1/2 cup
    heaping".
    """

    lines: tuple[str, ...]
    title: str = ""
    servings: float = 1.0
    batch_g: float | None = None
    choices: Mapping[str, Choice] = field(default_factory=dict)
    method: str = ""
    reduced: float | None = None
    claimed: str = ""
    serving_measure: str = ""
    system: str = "us"
    parts: Mapping[str, Facts] = field(default_factory=dict)
    refused: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Facts:
    """A reckoned recipe. `computed_g` is what the lines come to after cooking, `batch.grams` the
    weight in force. [g]

    `cooked` has for each line what became of it, None for a line that is not settled.
    """

    recipe: Recipe
    lines: tuple[Line, ...]
    batch: Profile
    computed_g: float
    cooked: tuple[Cooked | None, ...] = ()

    @property
    def raw_g(self) -> float:
        """What went into the pot. [g]"""
        return sum(line.grams or 0.0 for line in self.lines)

    @property
    def measured_differs(self) -> float | None:
        """How far the measured batch is from the computed one, as a share of it; None where nothing
        was measured or computed."""
        if self.recipe.batch_g is None or self.computed_g <= 0:
            return None
        return self.recipe.batch_g / self.computed_g - 1.0

    @property
    def asks_what_was_left_out(self) -> bool:
        """Whether a cooked batch weighs so much more or less than computed that a line may be
        missing."""
        cooked = bool(self.recipe.method) or any(own_method(line)[1] for line in self.recipe.lines)
        return (
            cooked
            and self.measured_differs is not None
            and abs(self.measured_differs) > LEFT_OUT_SHARE
        )

    @property
    def asks_about_volume(self) -> bool:
        """Whether the portions filled so much more or less than computed that a line may be
        missing, or the measure was another."""
        return self.volume_differs is not None and abs(self.volume_differs) > LEFT_OUT_SHARE

    @property
    def rows(self) -> list[tuple[Line, Cooked | None]]:
        """Each line with what became of it."""
        return list(zip(self.lines, self.cooked, strict=True))

    @property
    def serving(self) -> Profile:
        return self.batch * (1.0 / self.recipe.servings)

    @property
    def per_100_g(self) -> Profile:
        return self.batch * (100.0 / self.batch.grams) if self.batch.grams > 0 else self.batch

    @property
    def unresolved(self) -> tuple[Line, ...]:
        return tuple(line for line in self.lines if not line.resolved)

    @property
    def measured_ml(self) -> float | None:
        """Room the batch took when it was portioned out by a cup or a spoon. [mL] None where it was
        not."""
        return portioned_ml(self.recipe.serving_measure, self.recipe.system)

    @property
    def volume_differs(self) -> float | None:
        """How far the measured volume is from the computed one, as a share of it; None where either
        is missing."""
        measured, computed = self.measured_ml, self.computed_ml
        return None if measured is None or not computed else measured / computed - 1.0

    @property
    def volume_ml(self) -> float | None:
        """Room the batch takes: measured, or else computed. [mL] None where neither is known."""
        return self.measured_ml or self.computed_ml

    @property
    def computed_ml(self) -> float | None:
        """Room the batch takes: each line as it lies in a cup, and a milliliter for each gram of
        water that a weighed batch took up or lost. Liquids fill gaps, so it is an upper estimate.
        None where a line's room is unknown. [mL]
        """
        volumes = [
            line.food.volume_ml(line.grams)
            for line in self.lines
            if line.food is not None and line.grams is not None
        ]
        if not volumes or any(volume is None for volume in volumes):
            return None
        total = sum(volume or 0.0 for volume in volumes) + self.batch.grams - self.raw_g
        return max(total, 0.5 * self.batch.grams)

    def brings(self, key: str) -> list[tuple[Line, float | None, float]]:
        """Per line: how much of a nutrient it brings to one serving (None: unknown), and its share
        of what is known [0 to 1]. Most first."""
        out: list[tuple[Line, float | None, float]] = []
        total = self.batch[key].amount
        for line, cooked in zip(self.lines, self.cooked, strict=True):
            if line.food is None or line.grams is None or cooked is None:
                continue
            amount = None if line.food.per_100_g(key) is None else cooked.profile[key].amount
            share = (amount or 0.0) / total if total > 0 else 0.0
            out.append((line, None if amount is None else amount / self.recipe.servings, share))
        return sorted(out, key=lambda row: -(row[1] if row[1] is not None else -1.0))

    def batch_foods(self) -> list[Ingredient]:
        """Each food with its grams in the batch and what is left of it after cooking, those of
        parts among them. [g]"""
        return list(self._batch_foods)

    @cached_property
    def _batch_foods(self) -> list[Ingredient]:
        out: list[Ingredient] = []
        for line, cooked in self.rows:
            if line.food is None or line.grams is None or cooked is None:
                continue
            if isinstance(line.food, PartFood):
                out += line.food.foods_in(line.grams)
            else:
                out.append(
                    Ingredient(
                        line.food, line.grams, cooked_food(line.food, line.grams, cooked.profile)
                    )
                )
        return out

    def foods(self) -> list[Ingredient]:
        """Each food with its grams in one serving. [g]"""
        return [part.times(1.0 / self.recipe.servings) for part in self.batch_foods()]


def within(value: float | None, limits: tuple[float, float]) -> bool:
    """Whether a number is there and lies within limits; one that is no number does not."""
    return value is not None and limits[0] <= value <= limits[1]


def choice_keys(lines: Sequence[str]) -> list[str]:
    """What the decision for each line is kept under: its text, and which of equal lines it is from
    the second on."""
    seen: dict[str, int] = {}
    out = []
    for text in lines:
        seen[text] = seen.get(text, 0) + 1
        out.append(text if seen[text] == 1 else f"{text}\t{seen[text]}")
    return out


def reckon(recipe: Recipe, index: FoodIndex | None = None) -> Facts:
    """Add up every line. Lines that cannot be settled are in `unresolved` and count as unknown,
    never as zero.

    Raises ValueError when servings or the batch's weight are not above zero.
    """
    if not recipe.servings > 0:
        raise ValueError("servings must be above zero")
    if not within(recipe.servings, SERVINGS):
        raise ValueError(f"servings are {SERVINGS[0]:g} to {SERVINGS[1]:g}")
    if recipe.batch_g is not None and not within(recipe.batch_g, BATCH_G):
        raise ValueError(f"a batch weighs more than nothing, and up to {BATCH_G[1] / 1000:g} kg")
    eaten = [own_left(text) for text in recipe.lines]
    parts = [own_method(bare) for bare, _left in eaten]
    lines = tuple(
        replace(_line(recipe, bare, index, recipe.choices.get(key)), text=text)
        for text, key, (bare, _method) in zip(
            recipe.lines, choice_keys(recipe.lines), parts, strict=True
        )
    )
    cooked = tuple(
        _cooked(line, method or recipe.method, left)
        for line, (_bare, method), (_text, left) in zip(lines, parts, eaten, strict=True)
    )
    batch = Profile.total(Profile.unsettled() if one is None else one.profile for one in cooked)
    if recipe.method in WATER_KEPT or recipe.reduced is not None:
        gone = recipe.reduced if recipe.reduced is not None else STEAM[recipe.method][0]
        batch = batch.weighing(batch.grams * (1.0 - gone))
    computed = batch.grams
    if recipe.batch_g is not None:
        batch = batch.weighing(recipe.batch_g)
    return Facts(recipe, lines, batch, computed, cooked)


def _line(recipe: Recipe, text: str, index: FoodIndex | None, choice: Choice | None) -> Line:
    name = part_named(text)
    if name is None:
        return reckon_line(text, index, choice, recipe.system)
    part = recipe.parts.get(name.lower())
    if part is None:
        return Line(text, why=recipe.refused.get(name.lower(), f"there is no recipe “{name}”"))
    food = part_food(
        name, part.batch, part.recipe.servings, part.volume_ml, tuple(part.batch_foods())
    )
    if choice is not None and choice.grams is not None:
        spread = choice.grams * 0.02
        return Line(
            text,
            food,
            choice.grams,
            choice.grams - spread,
            choice.grams + spread,
            "weighed",
            typed=True,
        )
    reading = read(without_part(text), recipe.system)
    if not reading.terms:
        return Line(text, why="no amount given")
    weighed = weigh(replace(reading, phrase=name, qualifiers=()), food)
    return Line(text, why=weighed) if isinstance(weighed, str) else replace(weighed, food=food)


def _cooked(line: Line, method: str, left: float = 0.0) -> Cooked | None:
    if line.food is None or line.grams is None:
        return None
    low, high = (
        line.low if line.low is not None else line.grams,
        line.high if line.high is not None else line.grams,
    )
    done = cook(line.food, line.grams, low, high, method)
    if left <= 0:
        return done
    said = f"{left:.0%} of it is left in the dish and not eaten"
    return Cooked(
        done.profile * (1 - left),
        done.grams * (1 - left),
        done.low * (1 - left),
        done.high * (1 - left),
        (*done.assumed, said),
    )


_OWN_METHOD = re.compile(r"\s*\[\s*method\s*:\s*([^\]]+)\]\s*$", re.I)


_LEFT = re.compile(
    r"\s*\[\s*left(?: behind| in the dish)?\s*:\s*(\d+(?:\.\d+)?\s*%|half|third|quarter|fifth"
    r"|all)\s*\]\s*",
    re.I,
)


def own_left(text: str) -> tuple[str, float]:
    """A line without its "[left: 60 %]", and the share of it that stays in the dish and is not
    eaten [0 to 1]: marinade, frying oil."""
    match = _LEFT.search(text)
    if not match:
        return text, 0.0
    said = match[1].lower()
    share = (
        1.0
        if said == "all"
        else _PARTS[said]
        if said in _PARTS
        else min(float(said.rstrip("% ")) / 100.0, 1.0)
    )
    return f"{text[: match.start()]} {text[match.end() :]}".strip(), share


def own_method(text: str) -> tuple[str, str]:
    """A line without its "[method: ...]", and the code of that method, empty for none or one that
    is not known."""
    match = _OWN_METHOD.search(text)
    if not match:
        return text, ""
    try:
        return text[: match.start()], read_method(match[1])
    except UnknownMethod:
        return text, ""


def line_method(recipe: Recipe, at: int) -> str:
    """How a line is cooked: by its own method, or else by the whole's; empty for neither."""
    return own_method(own_left(recipe.lines[at])[0])[1] or recipe.method


_HEADER = re.compile(r"^#\s*(title|servings|batch|measured|yield|method)\s*:\s*(.+)$", re.I)
_REDUCED = re.compile(
    r"(?:^|,)?\s*reduced by\s+(?:a\s+)?(\d+(?:\.\d+)?\s*%|half|third|quarter|fifth)\s*$", re.I
)
_FIRST_NUMBER = re.compile(r"\d+(?:\.\d+)?")


def parse_text(text: str) -> Recipe:
    """A recipe from plain text: a line an ingredient, optional `# title:`, `# servings: 4 to 6`, `#
    measured: 620 g` (or `# batch:`), `# yield: 5 x 1/2 cup heaping`, `# method: simmered, reduced
    by 20 %`. Pasted words such as "Serves 4" and "Method" are understood.

    Raises UnreadableRecipe when there is no ingredient, a header has no number, or a method is not
    known.
    """
    if text.lstrip().startswith(("{", "[")):
        return parse_schema_org(text)
    head = Recipe(())
    rest = []
    for raw in text.splitlines():
        line = raw.strip()
        header = _HEADER.match(line)
        if header:
            head = _with_header(head, header[1].lower(), header[2].strip())
        elif line and not line.startswith("#"):
            rest.append(line)
    found = parted("\n".join(rest))
    for line in found.lines:
        if _OWN_METHOD.search(line) and not own_method(line)[1]:
            raise UnreadableRecipe(f"the method of “{line}” is not known")
    lines = fitting(found.lines)
    if found.title and not head.title:
        head = replace(head, title=found.title)
    if found.serves and not head.claimed and not head.serving_measure:
        head = _with_header(head, "servings", found.serves)
    return replace(head, lines=lines)


def fitting(lines: Sequence[str]) -> tuple[str, ...]:
    """The lines, if a recipe can hold them. Raises UnreadableRecipe for none, too many, or one too
    long: nothing is cut in silence."""
    if not lines:
        raise UnreadableRecipe("there is no ingredient line in it")
    if len(lines) > MAX_LINES:
        raise UnreadableRecipe(
            f"it has {len(lines)} ingredient lines, and a recipe holds {MAX_LINES}: take it in as "
            f"two"
        )
    for line in lines:
        if len(line) > MAX_LINE_LENGTH:
            raise UnreadableRecipe(f"a line is over {MAX_LINE_LENGTH} characters: “{line[:60]} …”")
    if sum(map(len, lines)) + len(lines) > MAX_TEXT:
        raise UnreadableRecipe(
            f"its ingredients are over {MAX_TEXT:,} characters: that is no recipe"
        )
    return tuple(lines)


def _with_header(head: Recipe, name: str, value: str) -> Recipe:
    if name == "title":
        return replace(head, title=value)
    if name == "method":
        reduced = _REDUCED.search(value)
        share = None
        if reduced:
            said = reduced[1].lower()
            share = _PARTS[said] if said in _PARTS else float(said.rstrip("% ")) / 100.0
            if not 0 <= share < 1:
                raise UnreadableRecipe(f"the method line reduces by {said}: that leaves nothing")
        bare = _REDUCED.sub("", value).strip()
        if not bare:
            return replace(head, reduced=share)
        try:
            return replace(head, method=read_method(bare), reduced=share)
        except UnknownMethod as error:
            raise UnreadableRecipe(str(error)) from None
    if name == "yield":
        count, _one = counted(value)
        if count is not None:
            return replace(head, servings=count, serving_measure=value)
        return replace(head, servings=_positive(value, name), claimed=head.claimed or value)
    if name != "servings":
        return replace(head, batch_g=_weighed(value, name))
    # a yield that was measured stands over what the recipe claims
    number = _positive(value, name)
    return replace(head, claimed=value, servings=head.servings if head.serving_measure else number)


def _weighed(text: str, what: str) -> float:
    """A weight with its unit, grams if none is named. [g]"""
    number = _positive(text, what)
    unit = text.strip().lower().lstrip("0123456789., ").strip()
    per_unit = unit_grams(UNIT_OF.get(unit, "")) if unit else 1.0
    if per_unit is None:
        raise UnreadableRecipe(
            f"the {what} line needs a weight, “620 g”, not “{text}”; a volume goes in “# yield: 5 "
            f"x 1/2 cup”"
        )
    return number * per_unit


def _positive(text: str, what: str) -> float:
    match = _FIRST_NUMBER.search(text)
    if not match or not 0 < float(match[0]) < 1e6 or text.strip().startswith("-"):
        raise UnreadableRecipe(
            f"the {what} line needs a number above zero, not “{text.strip()[:40]}”"
        )
    return float(match[0])


def parse_schema_org(text: str) -> Recipe:
    """A recipe from schema.org JSON (`name`, `recipeIngredient`, `recipeYield`).

    Raises UnreadableRecipe when it is not JSON or holds no Recipe with ingredients.
    """
    try:
        data = json.loads(text)
    except json.JSONDecodeError as error:
        raise UnreadableRecipe(f"it is not JSON: {error.msg} in line {error.lineno}") from None
    except ValueError:
        raise UnreadableRecipe("it holds a number that is too long") from None
    except RecursionError:
        raise UnreadableRecipe("it is nested deeper than any recipe") from None
    found = find_recipe(data)
    if found is None:
        raise UnreadableRecipe("there is no schema.org Recipe in it")
    stated = found.get("recipeIngredient") or found.get("ingredients")
    ingredients: list[object] = (
        list(stated.splitlines())
        if isinstance(stated, str)
        else stated
        if isinstance(stated, list)
        else []
    )
    lines = [text for text in (decoded(str(line)).strip() for line in ingredients) if text]
    if not lines:
        raise UnreadableRecipe("the Recipe has no recipeIngredient")
    claimed = found.get("recipeYield")
    if isinstance(claimed, list):
        claimed = next((part for part in claimed if _FIRST_NUMBER.search(str(part))), None)
    match = _FIRST_NUMBER.search(str(claimed)) if claimed is not None else None
    servings = float(match[0]) if match and within(float(match[0]), SERVINGS) else 1.0
    return Recipe(
        fitting(lines),
        decoded(str(found.get("name", ""))),
        servings,
        claimed="" if claimed is None else decoded(str(claimed)),
    )


def find_recipe(data: object, depth: int = 0) -> dict[str, object] | None:
    """The first schema.org Recipe in the data, however it is wrapped; None if there is none."""
    if depth > 6:
        return None
    if isinstance(data, dict):
        kind = data.get("@type")
        if kind == "Recipe" or (isinstance(kind, list) and "Recipe" in kind):
            return data
        children: list[object] = (
            list(data.get("@graph", [])) if isinstance(data.get("@graph"), list) else []
        )
    elif isinstance(data, list):
        children = data
    else:
        return None
    for child in children:
        found = find_recipe(child, depth + 1)
        if found is not None:
            return found
    return None
