"""A recipe: lines, servings and a measured batch, reckoned into facts per batch, per serving and
per 100 g."""

from __future__ import annotations

import re
from collections.abc import Hashable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

from nutrition.composition.cooking import STRAINED_GROUPS, cook, cook_in_turn, water_needed
from nutrition.composition.cooking_methods import (
    STEAM,
    TAKE_UP_WATER,
    WATER_KEPT,
    Cooked,
    boiled_with,
    resolved,
)
from nutrition.composition.food_names import FoodNames
from nutrition.composition.foods import Food, food_table
from nutrition.composition.ingredient import Ingredient, cooked_food
from nutrition.composition.profile import Profile
from nutrition.recipe.dish_volume import LIQUIDS, WET, DishVolume, dish_volume
from nutrition.recipe.model import BATCH_G, SERVINGS, Recipe, choice_keys, within
from nutrition.recipe.notation import (
    THEN,
    as_written,
    beyond_all,
    noted,
    own_left,
    own_method,
    part_named,
    unknown_method,
    without_part,
)
from nutrition.recipe.part import PartFood, part_food
from nutrition.written.grammar import read
from nutrition.written.line import Choice, Line, by_own_weight
from nutrition.written.matching import reckon_line
from nutrition.written.serving_words import portioned_ml
from nutrition.written.weighing import CannotWeigh, weigh

# A measured batch this far from the computed one asks what was left out. [share of it]
LEFT_OUT_SHARE = 0.15
# Where nothing is said of cooking, so far from it does.
WITHOUT_HEAT_SHARE = 0.5
BEYOND_ALL = "more than all of it cannot be left: write 100 % or less"
# Steps that leave a food uncooked.
COLD = frozenset(
    {"soaked", "squeezed", "soaked_squeezed", "sprouted", "rinsed", "strained", "marinated"}
)
# From this share of what is needed on the water was written down.
ENOUGH_WATER = 0.5
# What leaves no pieces, as a line or a title says it.
SMOOTH = re.compile(
    r"\b(mashed|mash|pur[ée]e[ds]?|blended|strained|sieved|smooth|creamed|whipped|velvety|passata)\b",
    re.I,
)


@dataclass(frozen=True, kw_only=True)
class Facts:
    """A reckoned recipe. `computed_g` is what the lines come to after cooking, `batch.grams` the
    weight in force. [g]

    `cooked` has for each line what became of it, None for a line that is not settled. `loose` is
    the share of its liquids that dry goods do not take up. [0 to 1]
    """

    recipe: Recipe
    lines: tuple[Line, ...]
    batch: Profile
    computed_g: float
    cooked: tuple[Cooked | None, ...] = ()
    loose: float = 1.0

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
        """Whether a batch weighs so much more or less than computed that a line may be missing, or
        how it was cooked."""
        cooked = bool(self.recipe.method) or any(own_method(line)[1] for line in self.recipe.lines)
        most = LEFT_OUT_SHARE if cooked else WITHOUT_HEAT_SHARE
        return self.measured_differs is not None and abs(self.measured_differs) > most

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
    def unread(self) -> tuple[str, ...]:
        """The lines nobody could read, as they were typed."""
        return tuple(line.text for line in self.unresolved)

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

    @cached_property
    def by_kind(self) -> DishVolume | None:
        """What a milliliter of it weighs, by its kind; None where it is eaten in pieces."""
        return dish_volume(self.recipe.title, self.rows, self.loose)

    @property
    def computed_ml(self) -> float | None:
        """Room the batch takes, from its weight as it is eaten and its kind. [mL] None where it is
        not measured by the cup."""
        kind = self.by_kind
        return self.batch.grams / kind.g_per_ml if kind and self.batch.grams > 0 else None

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
                        line.food,
                        line.grams,
                        cooked_food(line.food, line.grams, cooked.profile),
                        cooked.heated or self._cooked_for_sure(line.food),
                        said=line.text,
                        smooth=SMOOTH.search(f"{line.text} {self.recipe.title}") is not None,
                        loose=self.loose,
                    )
                )
        return out

    def _cooked_for_sure(self, food: Food) -> bool:
        """Whether what is not eaten dry is cooked, though no method is named: in a recipe with a
        title or a weighed batch it is, in a mere list of lines nobody knows."""
        named = bool(self.recipe.title) or self.recipe.batch_g is not None
        return named and food.state.startswith("dry")

    def foods(self) -> list[Ingredient]:
        """Each food with its grams in one serving. [g]"""
        return [part.times(1.0 / self.recipe.servings) for part in self.batch_foods()]


# So many recipes stay reckoned.
KEPT_RECKONED = 1024


def reckon(recipe: Recipe, names: FoodNames | None = None) -> Facts:
    """Add up every line. Lines that cannot be settled are in `unresolved` and count as unknown,
    never as zero. An equal recipe is reckoned once, as long as the foods are the same.

    Raises ValueError when servings or the batch's weight are not above zero.
    """
    return _reckoned(recipe, food_table().key) if names is None else _reckon(recipe, names)


@lru_cache(maxsize=KEPT_RECKONED)
def _reckoned(recipe: Recipe, _foods: Hashable) -> Facts:
    return _reckon(recipe, None)


def _reckon(recipe: Recipe, names: FoodNames | None) -> Facts:
    if not recipe.servings > 0:
        raise ValueError("servings must be above zero")
    if not within(recipe.servings, SERVINGS):
        raise ValueError(f"servings are {SERVINGS[0]:g} to {SERVINGS[1]:g}")
    if recipe.batch_g is not None and not within(recipe.batch_g, BATCH_G):
        raise ValueError(f"a batch weighs more than nothing, and up to {BATCH_G[1] / 1000:g} kg")
    eaten = [own_left(text) for text in recipe.lines]
    parts = [own_method(bare) for bare, _left in eaten]
    lines = tuple(
        _as_typed(
            Line(text=text, why=BEYOND_ALL)
            if beyond_all(text)
            else _line(recipe, bare, names, recipe.choices.get(key)),
            text,
        )
        for text, key, (bare, _method) in zip(
            recipe.lines, choice_keys(recipe.lines), parts, strict=True
        )
    )
    whole = _whole_method(recipe, lines)
    methods = [_methods(line, own, whole) for line, (_bare, own) in zip(lines, parts, strict=True)]
    needed, brought = _water_needed_and_brought(lines, methods)
    dry = _share_of_water_missing(needed, brought)
    cooked = tuple(
        _cooked(line, done, left, dry)
        for line, done, (_text, left) in zip(lines, methods, eaten, strict=True)
    )
    batch = Profile.total(Profile.unsettled() if one is None else one.profile for one in cooked)
    if whole in WATER_KEPT or recipe.reduced is not None:
        # a grain that takes up the water no line brings weighs what its yield says: steam is in it
        steam = STEAM[whole][0] * (1.0 - dry) if recipe.reduced is None else 0.0
        gone = recipe.reduced if recipe.reduced is not None else steam
        batch = batch.weighing(batch.grams * (1.0 - gone))
    computed = batch.grams
    if recipe.batch_g is not None:
        batch = batch.weighing(recipe.batch_g)
    return Facts(
        recipe=recipe,
        lines=lines,
        batch=batch,
        computed_g=computed,
        cooked=cooked,
        loose=max(1.0 - needed / brought, 0.0) if brought > 0 else 1.0,
    )


# With so much water to what is squeezed out of it, it is a milk and not a wrung vegetable. [g/g]
MILK_WATER = 1.5
SQUEEZED = frozenset({"squeezed", "soaked_squeezed", "strained"})


def _whole_method(recipe: Recipe, lines: Sequence[Line]) -> str:
    """The method of the whole by what is in the pot: "boiled" of grain keeps its water, and nuts
    squeezed out in plenty of water are a milk that was strained."""
    settled = [line for line in lines if line.food is not None and line.grams]
    if recipe.method in SQUEEZED:
        water = sum(
            line.grams or 0.0 for line in settled if line.food and line.food.slug == "water"
        )
        solids = sum(
            line.grams or 0.0
            for line in settled
            if line.food and line.food.group in STRAINED_GROUPS
        )
        return "strained" if solids and water >= MILK_WATER * solids else recipe.method
    return boiled_with(recipe.method, [line.food for line in settled if line.food])


UNKNOWN_METHOD = "how it is cooked is not known here: counted as it went in"


def _as_typed(line: Line, text: str) -> Line:
    """A line with its brackets, which each of the several it may become keeps."""
    said = noted(text)
    ending = as_written("", said.method, said.left)
    line = replace(line, text=text, several=tuple(one + ending for one in line.several))
    if unknown_method(text):
        return replace(line, sure=False, assumed=(*line.assumed, UNKNOWN_METHOD))
    return line


def line_method(recipe: Recipe, at: int) -> str:
    """How a line is cooked: by its own method, or else by the whole's; empty for neither."""
    return noted(recipe.lines[at]).method or recipe.method


def _line(recipe: Recipe, text: str, names: FoodNames | None, choice: Choice | None) -> Line:
    name = part_named(text)
    if name is None:
        return reckon_line(text, names, choice, recipe.system, eaten=recipe.eaten)
    named = recipe.parts.get(name.lower())
    if named is None:
        return Line(text=text, why=recipe.refused.get(name.lower(), f"there is no recipe “{name}”"))
    # what a dish is called says how it fills a cup
    part = reckon(named if named.title else replace(named, title=name), names)
    food = part_food(
        name, part.batch, part.recipe.servings, part.volume_ml, tuple(part.batch_foods())
    )
    if choice is not None and choice.grams is not None:
        return replace(by_own_weight(text, food, choice.grams), sure=True)
    reading = read(without_part(text), recipe.system)
    if not reading.terms:
        return Line(text=text, why="no amount given")
    try:
        weighed = weigh(replace(reading, phrase=name), food)
    except CannotWeigh as error:
        return Line(text=text, why=str(error))
    return replace(weighed, food=food, sure=True)


def _methods(line: Line, own: str, whole: str) -> tuple[str, ...]:
    """What is done to a line, in turn: what its words say, then its own method, or else the
    whole's where its words name no heat."""
    if own:
        own_steps = [resolved(line.food, step) if line.food else step for step in own.split(THEN)]
        return (*(step for step in line.steps if step not in own_steps), *own_steps)
    if not whole:
        return line.steps
    if any(step not in COLD for step in line.steps):
        return line.steps
    return (*line.steps, whole)


def _water_needed_and_brought(
    lines: Sequence[Line], methods: Sequence[tuple[str, ...]]
) -> tuple[float, float]:
    """The water that dry goods need in a pot whose water is kept, and what the lines bring. [g]"""
    needed = brought = 0.0
    for line, done in zip(lines, methods, strict=True):
        if line.food is None or line.grams is None:
            continue
        if done:
            needed += water_needed(line.food, line.grams, done[-1])
        if line.food.group in LIQUIDS or WET.search(line.food.kind_slug):
            brought += line.grams
    return needed, brought


def _share_of_water_missing(needed: float, brought: float) -> float:
    """The share of the water that dry goods need and that no line brings [0 to 1]; nothing where
    the lines bring half of it: then it was written down. [g]"""
    if needed <= 0 or brought >= ENOUGH_WATER * needed:
        return 0.0
    return 1.0 - brought / needed


def _cooked(line: Line, methods: tuple[str, ...], left: float, dry: float) -> Cooked | None:
    if line.food is None or line.grams is None:
        return None
    low, high = (
        line.low if line.low is not None else line.grams,
        line.high if line.high is not None else line.grams,
    )
    soaked_first = all(method in COLD for method in methods[:-1])
    kept = bool(methods) and methods[-1] in WATER_KEPT and soaked_first
    if kept and line.food.group in TAKE_UP_WATER:
        done = cook(line.food, line.grams, low, high, methods[-1], dry)
    else:
        done = cook_in_turn(line.food, line.grams, low, high, methods)
    done = replace(done, heated=any(method not in COLD for method in methods))
    if left <= 0:
        return done
    said = f"{left:.0%} of it is left in the dish and not eaten"
    return Cooked(
        profile=done.profile * (1 - left),
        grams=done.grams * (1 - left),
        low=done.low * (1 - left),
        high=done.high * (1 - left),
        assumed=(*done.assumed, said),
        heated=done.heated,
    )
