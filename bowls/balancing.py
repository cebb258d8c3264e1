"""A bowl as a balance problem, and its proposals ready to show."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import partial

from bowls.bowl import Part, Reckoned
from bowls.proposed import Portioned
from clients.aims import WHOLE_DAY, meal_of, plan_aims
from clients.held import Item, limit_of
from clients.in_force import Plan
from nutrition.composition.food_classes import classes_of
from nutrition.composition.foods import food_table
from nutrition.composition.plausible import unknown_at_most
from nutrition.composition.portion import Ingredient
from nutrition.portions import problem as core
from nutrition.portions.reach import within_reach
from nutrition.portions.sensible import Limits, limits_around
from nutrition.safety.gate import OPEN, Gate
from nutrition.targets.day import DayTargets
from nutrition.targets.meals import MAIN_MEALS
from nutrition.targets.schools import School
from nutrition.written import household


@dataclass(frozen=True)
class Options:
    """What a bowl is balanced for: a meal's key or the whole day, and which constraints are
    switched on."""

    meal: str
    vessel: bool = True
    star: bool = True
    plate: bool = False


def options_from(data: Mapping[str, str], day: DayTargets, bowl: Reckoned) -> Options:
    """The options asked for; a meal is by itself the one whose energy the bowl comes nearest to."""
    known = {meal.key: meal for meal in day.meals}
    meal = data.get("meal", "")
    if meal not in known and meal != WHOLE_DAY:
        kcal = bowl.profile["energy_kcal"].amount
        mains = [one for one in known.values() if one.key in MAIN_MEALS] or list(known.values())
        meal = min(mains, key=lambda one: abs(one.energy_kcal - kcal)).key if mains else WHOLE_DAY
    asked = "asked" in data
    return Options(
        meal, "vessel" in data or not asked, "star" in data or not asked, "plate" in data
    )


def item_of(part: Part) -> Item:
    """A part as the gate looks at it."""
    food = food_table()[part.row.food] if part.row.food else None
    return Item(
        id=str(part.pk),
        name=part.name,
        foods=part.foods,
        grams=part.row.grams,
        food=food,
        locked=part.row.locked,
    )


def gated(limits: Limits, item: Item, gate: Gate) -> tuple[float, float, float]:
    """The least and the most that may be proposed of something, and the portion that no hint goes
    beyond. [g] What is locked stays."""
    if item.locked:
        return limits.least, limits.most, limits.most
    limit = limit_of(gate, item)
    most = min(limits.most, limit.most)
    return min(limits.least, most), most, limit.most


def unknown_per_gram(foods: Iterable[Ingredient], grams: float) -> dict[str, float]:
    """What each gram of something could bring at most of what is not known of its foods. In each
    key's unit per gram."""
    return (
        {key: value / grams for key, value in unknown_at_most(list(foods)).items()}
        if grams > 0
        else {}
    )


def part_for(part: Part, gate: Gate = OPEN) -> core.Part:
    """A bowl's part with its sensible portions, as far as the gate lets it."""
    row, ml_per_gram = (
        part.row,
        part.volume_ml / part.profile.grams if part.profile.grams > 0 else 1.0,
    )
    group = part.foods[0].food.group if row.food else ""
    limits = limits_around(row.role, row.grams, part.step_g, row.least_g, row.most_g, group)
    least, most, ceiling = gated(limits, item_of(part), gate)
    return core.Part(
        str(part.pk),
        part.name,
        part.profile,
        row.grams,
        least,
        most,
        limits.step,
        row.locked,
        row.role,
        ml_per_gram,
        part.star,
        unknown_per_gram(part.foods, part.profile.grams),
        ceiling,
    )


def _plate(school: School, bowl: Reckoned) -> tuple[core.PlateShare, ...]:
    """The school's plate: a part belongs where most of its grams do."""
    out = []
    for share in school.plate:
        ids = set()
        for part in bowl.parts:
            inside = sum(
                one.grams
                for one in part.foods
                if not classes_of(one.food).isdisjoint(share.classes)
            )
            if inside * 2 > sum(one.grams for one in part.foods):
                ids.add(str(part.pk))
        if ids:
            out.append(core.PlateShare(share.part, frozenset(ids), share.share))
    return tuple(out)


def problem_for(bowl: Reckoned, plan: Plan, options: Options, gate: Gate) -> core.Problem:
    """Raises BadProblem, for instance for a part with too small a step."""
    assert plan.day is not None
    meal = meal_of(plan.day, options.meal)
    parts = tuple(part_for(part, gate) for part in bowl.parts)
    if not options.star:
        parts = tuple(core.replace(part, star=False) for part in parts)
    aims = plan_aims(plan, meal)
    school = plan.day.school
    return core.Problem(
        parts=parts,
        aims=within_reach(aims, parts, {}),
        vessel_ml=float(bowl.bowl.vessel_ml) if options.vessel else None,
        plate=_plate(school, bowl) if options.plate and school else (),
    )


def measure_of(part: Part, grams: float) -> str:
    """A part's portion in a kitchen measure; empty where none is known. [g]"""
    if grams <= 0 or part.profile.grams <= 0:
        return ""
    if part.row.food:
        said = household.spoken(part.foods[0].food, grams)
    else:
        said = household.by_volume(part.volume_ml / part.profile.grams * grams, grams)
    return said.words if said else ""


def portioned(bowl: Reckoned) -> dict[str, Portioned]:
    """The bowl's parts as proposals show them."""
    return {
        str(part.pk): Portioned(
            name=part.name,
            profile=part.profile,
            volume_ml=part.volume_ml,
            say=partial(measure_of, part),
            foods=part.foods,
        )
        for part in bowl.parts
    }
