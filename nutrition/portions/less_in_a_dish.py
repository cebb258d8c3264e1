"""Less of one line in a dish, where that line brings most of what there is too much of: the salt of
a dressing, before the dressing, or anything beside it, is made smaller."""

from __future__ import annotations

from dataclasses import dataclass, replace

from nutrition.composition.amounts import DENSITY, amount_of
from nutrition.composition.foods import Food, food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Portion, food_portion
from nutrition.portions.problem import Problem, at_most, totals
from nutrition.portions.serving_rules import servable
from nutrition.targets.aim import Aim
from nutrition.written.household import say
from nutrition.written.wording import uncapitalized

# The dish must bring so much of all, and the line so much of the dish's. Common practice, no
# source. [share]
OF_ALL, OF_THE_DISH = 0.3, 0.5
# Of what is too rich there is less of all of it.
NOT_OF = (DENSITY, "energy_kcal")
# How much of the line may be left, the gentlest cut first. [share]
LEFT = (0.75, 0.5, 0.25, 0.0)
WATER = "water"


@dataclass(frozen=True, kw_only=True)
class LineCut:
    """So much of a food less in a dish: what of the portion goes [g], what is left of the line
    [share], and the share of a nutrient that the dish brings."""

    part: str
    name: str
    food: Food
    gone_g: float
    left: float
    key: str
    brings: float

    @property
    def less(self) -> str:
        """What is less, as a cook says it."""
        said = say(food_portion(self.food, self.gone_g), self.gone_g)
        amount = said or f"{self.gone_g:.2g} g"
        name = uncapitalized(self.food.name)
        return f"no {name}" if self.left <= 0 else f"{amount} less {name}"

    @property
    def said(self) -> str:
        """The same as the first of several changes."""
        return f"{self.less[:1].upper()}{self.less[1:]} in {self.name}."

    @property
    def words(self) -> str:
        nutrient = uncapitalized(NUTRIENT[self.key].name)
        return (
            f"{self.less} in {self.name}, which brings {self.brings * 100:.0f} % of the {nutrient}"
        )


@dataclass(frozen=True, kw_only=True)
class Brings:
    """A dish that brings most of what there is too much of: which share of it, and how much of it
    the dish may bring beside the rest. In the key's unit."""

    part: Portion
    key: str
    share: float
    may_be: float


def brings_most(problem: Problem) -> list[Brings]:
    """For each target whose most is passed, the dish that brings most of it, where one brings
    much."""
    out = []
    for aim, known in _over(problem):
        dishes = [part for part in problem.parts if _is_dish(part)]
        brought, part = max(
            ((one.amount(aim.key) * one.grams, one) for one in dishes),
            key=lambda row: row[0],
            default=(0.0, None),
        )
        if part is not None and brought >= OF_ALL * known > 0:
            may_be = max((aim.high or 0.0) - (known - brought), 0.0)
            share = min(brought / known, 1.0)
            out.append(Brings(part=part, key=aim.key, share=share, may_be=may_be))
    return out


def _is_dish(part: Portion) -> bool:
    return part.food is None and len(part.foods) > 1 and not part.locked and part.grams > 0


def _over(problem: Problem) -> list[tuple[Aim, float]]:
    """The targets whose most is passed, the worst first, with what there is of each."""
    own = {part.key: part.grams for part in problem.parts}
    known, most = totals(problem, own), at_most(problem, own)
    over = []
    for aim in problem.aims:
        by = aim.miss(known[aim.key], most[aim.key])
        if aim.weight > 0 and aim.key not in NOT_OF and by > 0:
            over.append((aim.weight * by / aim.per, aim))
    return [(aim, known[aim.key]) for _miss, aim in sorted(over, key=lambda row: -row[0])]


def cut_of(problem: Problem) -> tuple[Problem, LineCut] | None:
    """The problem with less of the line that brings most of what there is too much of, the worst
    first, made up with water, and what is less; None where no one line does."""
    for aim, known in _over(problem):
        for part in problem.parts:
            found = _cut(problem, part, aim, known)
            if found is not None:
                return found
    return None


def _cut(problem: Problem, part: Portion, aim: Aim, known: float) -> tuple[Problem, LineCut] | None:
    brought = part.amount(aim.key) * part.grams
    if not _is_dish(part) or known <= 0 or brought < OF_ALL * known:
        return None
    scale = part.share(part.grams)
    rows = [(_brings(one, aim.key) * scale, one) for one in part.foods]
    amount, line = max(rows, key=lambda row: row[0])
    if amount < OF_THE_DISH * brought or not servable(line.food, line.food.role).first:
        return None
    over = known - (aim.high or 0.0)
    # a miso soup keeps half its miso
    named = line.food.name.lower().split(",")[0].split(" ")[-1] in part.name.lower()
    may_be = LEFT[:2] if named else LEFT
    left = next((one for one in may_be if amount * (1.0 - one) >= over), may_be[-1])
    other = _with_less(part, line, left)
    return problem.with_part(other), LineCut(
        part=part.key,
        name=part.name,
        food=line.food,
        gone_g=line.grams * scale * (1.0 - left),
        left=left,
        key=aim.key,
        brings=min(brought / known, 1.0),
    )


def _brings(one: Ingredient, key: str) -> float:
    return amount_of(one.food.profile(one.grams), key).amount


def _with_less(part: Portion, line: Ingredient, left: float) -> Portion:
    """The dish with so much of a line left, and water in the place of what is gone."""
    gone = line.grams * (1.0 - left)
    water = food_table()[WATER]
    profile = part.profile + line.food.profile(gone) * -1.0 + water.profile(gone)
    foods = [one.times(left) if one is line else one for one in part.foods]
    kept = tuple(one for one in foods if one.grams > 0)
    return replace(part, profile=profile, foods=(*kept, Ingredient(water, gone)))
