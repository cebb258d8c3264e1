"""A bowl as a balance problem, and its proposals ready to show."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from bowls.bowl import Part, Reckoned
from clients.in_force import Plan
from nutrition import balance as core
from nutrition import household
from nutrition.food_classes import classes_of
from nutrition.household import Spoken
from nutrition.meal_aims import aims_for, firm_keys, within_reach
from nutrition.meals import MAIN_MEALS, MealTarget
from nutrition.portions import limits_around
from nutrition.profile import Profile
from nutrition.proposals import Change, Proposal
from nutrition.schools import School
from nutrition.targets import DayTargets

WHOLE_DAY = "day"


@dataclass(frozen=True)
class Options:
    """What a bowl is balanced for: a meal's key or the whole day, and which constraints are switched on."""

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
    return Options(meal, "vessel" in data or not asked, "star" in data or not asked, "plate" in data)


def meal_of(day: DayTargets, key: str) -> MealTarget | None:
    return next((meal for meal in day.meals if meal.key == key), None)


def refused_by(part: Part, allergies: frozenset[str]) -> list[str]:
    """The allergens of the client that a part holds."""
    return sorted({name for ingredient in part.foods for name in ingredient.food.allergens} & allergies)


def part_for(part: Part, allergies: frozenset[str] = frozenset()) -> core.Part:
    """A bowl's part with its sensible portions; one that the client does not tolerate may only be left out."""
    row, ml_per_gram = part.row, part.volume_ml / part.profile.grams if part.profile.grams > 0 else 1.0
    limits = limits_around(row.role, row.grams, part.step_g, row.least_g, row.most_g)
    least, most = (limits.least, limits.most) if row.locked or not refused_by(part, allergies) else (0.0, 0.0)
    return core.Part(
        str(part.pk), part.name, part.profile, row.grams, least, most, limits.step, row.locked, row.role, ml_per_gram, part.star
    )  # fmt: skip


def _plate(school: School, bowl: Reckoned) -> tuple[core.PlateShare, ...]:
    """The school's plate: a part belongs where most of its grams do."""
    out = []
    for share in school.plate:
        ids = set()
        for part in bowl.parts:
            inside = sum(one.grams for one in part.foods if not classes_of(one.food).isdisjoint(share.classes))
            if inside * 2 > sum(one.grams for one in part.foods):
                ids.add(str(part.pk))
        if ids:
            out.append(core.PlateShare(share.part, frozenset(ids), share.share))
    return tuple(out)


def problem_for(bowl: Reckoned, plan: Plan, options: Options) -> core.Problem:
    """Raises BadProblem, for instance for a part with too small a step."""
    assert plan.day is not None
    meal = meal_of(plan.day, options.meal)
    allergies = plan.day.person.allergies
    parts = tuple(part_for(part, allergies) for part in bowl.parts)
    if not options.star:
        parts = tuple(core.replace(part, star=False) for part in parts)
    watched = {row.target.key for row in plan.watched}
    aims = aims_for(plan.day.targets, watched, firm_keys(plan.day, plan.orders), meal.share if meal else 1.0, meal)
    school = plan.day.school
    return core.Problem(
        parts,
        within_reach(aims, parts, {}),
        vessel_ml=float(bowl.bowl.vessel_ml) if options.vessel else None,
        plate=_plate(school, bowl) if options.plate and school else (),
    )


@dataclass(frozen=True)
class Shown:
    """One change of a proposal with its measures before and after."""

    change: Change
    before: Spoken | None
    after: Spoken | None


@dataclass(frozen=True)
class ShownProposal:
    proposal: Proposal
    changes: list[Shown]
    profile: Profile
    volume_ml: float


def measure_of(part: Part, grams: float) -> Spoken | None:
    """A part's portion in a kitchen measure. [g]"""
    if grams <= 0:
        return None
    if part.row.food:
        return household.spoken(part.foods[0].food, grams)
    return household.by_volume(part.volume_ml / part.profile.grams * grams, grams) if part.profile.grams > 0 else None


def shown(bowl: Reckoned, proposal: Proposal) -> ShownProposal:
    """A proposal with what the bowl would be."""
    parts = {str(part.pk): part for part in bowl.parts}
    changes = [
        Shown(change, measure_of(parts[change.id], change.before), measure_of(parts[change.id], change.after))
        for change in proposal.changes
    ]  # fmt: skip
    portions = proposal.answer.portions
    shares = [(part, portions[str(part.pk)] / part.profile.grams) for part in bowl.parts if part.profile.grams > 0]
    profile = Profile.total(part.profile * share for part, share in shares)
    return ShownProposal(proposal, changes, profile, sum(part.volume_ml * share for part, share in shares))
