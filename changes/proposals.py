"""Proposals of a balance problem ready to show, and what was ticked of one: the same for a bowl and
for a day."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace

from django.http import QueryDict

from changes.aims import plan_aims
from changes.changeable import Changeable, Look, limited
from changes.offers import LEFT_OUT_G, Edit
from clients.plan.strip import Reading, in_one_line, reading, strip
from nutrition.composition.amounts import DENSITY, amount_of
from nutrition.composition.foods import Food
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Profile
from nutrition.composition.unknown_amounts import Unknown
from nutrition.portions.allowed import allowed
from nutrition.portions.feasibility import within_reach
from nutrition.portions.less_in_a_dish import brings_most
from nutrition.portions.obstacles import closest, colliding, misses
from nutrition.portions.problem import Problem, name_of
from nutrition.portions.proposals import (
    Balanced,
    PortionChange,
    Proposal,
    unknown_of,
)
from nutrition.portions.served_to import served_to
from nutrition.portions.serving_limits import HEAPED
from nutrition.swaps.hints import helping
from nutrition.targets.aim import Aim
from nutrition.targets.aims import judged, within_upper_levels
from nutrition.targets.body import is_thin_or_frail, must_gain
from nutrition.targets.goal_words import Wanted, read_goal, with_goal
from nutrition.written.household import say
from webkit import figures
from webkit.request_values import key_in, number_in, short

MOST_TAKEN_G = 20_000.0
# A goal that is typed beside the targets is no longer than this. [characters]
MOST_GOAL = 200


@dataclass(frozen=True, kw_only=True)
class Shown:
    """One change of a proposal with its measures before and after."""

    change: PortionChange
    before: str
    after: str
    left_out: bool
    # what is added to it
    food: Food | None = None


@dataclass(frozen=True, kw_only=True)
class ShownProposal:
    """A proposal with what it would come to and where that stands on each target."""

    proposal: Proposal
    changes: list[Shown]
    profile: Profile
    # the portions alone, without what is eaten besides
    portions: Profile
    volume_ml: float
    readings: list[Reading]
    unknown: list[str]


@dataclass(frozen=True, kw_only=True)
class Bench:
    """A dish that brings most of what there is too much of, and where it is made with less."""

    name: str
    key: str
    share: float
    url: str


def _benches(it: Changeable, problem: Problem) -> list[Bench]:
    out = []
    for one in brings_most(problem):
        part = one.part
        url = it.bench_url(part.key, one.key, one.may_be, part.ml_per_gram * part.grams)
        if url:
            out.append(Bench(name=part.name, key=one.key, share=one.share, url=url))
    return out


def _shown(
    proposal: Proposal,
    problem: Problem,
    wanted: Sequence[Aim],
    look: Look,
    system: str,
) -> ShownProposal:
    parts = {one.key: one for one in problem.parts if one.key in proposal.answer.portions}
    there = {one.key for one in look.portions}
    changes = [
        Shown(
            change=change,
            before=say(parts[change.id], change.before, system),
            after=say(parts[change.id], change.after, system),
            left_out=change.after < LEFT_OUT_G,
            food=parts[change.id].food if change.id not in there else None,
        )
        for change in proposal.changes
    ]
    portions = proposal.answer.portions
    shares = [
        (part, portions[id] / part.profile.grams)
        for id, part in parts.items()
        if part.profile.grams > 0
    ]
    alone = Profile.total(part.profile * share for part, share in shares)
    profile = Profile.total([look.besides, alone])
    readings = [reading(aim, amount_of(profile, aim.key)) for aim in wanted]
    volume = sum(part.volume_ml * share for part, share in shares)
    return ShownProposal(
        proposal=proposal,
        changes=changes,
        profile=profile,
        portions=alone,
        volume_ml=volume,
        readings=readings,
        unknown=[_unknown_words(row) for row in unknown_of(proposal.answer, problem)],
    )


def _unknown_words(row: Unknown) -> str:
    """What is not known of a target with a most, in words."""
    assert row.between is not None
    nutrient = NUTRIENT[row.key]
    known, most = (figures.digits(value, nutrient.decimals) for value in row.between)
    foods = ", ".join(row.names)
    return f"{nutrient.name} is unknown in {foods}: between {known} and {most} {nutrient.unit}"


def goal_of(it: Changeable) -> tuple[Wanted, ...]:
    """The goal of the practitioner's own that stands beside the targets. Raises UnreadGoal."""
    return read_goal(short(it.request.GET, "goal", MOST_GOAL))


def problem_of(it: Changeable, look: Look) -> Problem:
    """The portions that are looked at as a balance problem, as far as the gate lets them. Raises
    BadProblem, for instance for a part with too small a step, and UnreadGoal."""
    richer = is_thin_or_frail(it.day.person)
    portions = tuple(
        replace(served_to(limited(one, it.gate), it.gate, richer), star=one.star and look.star)
        for one in look.portions
    )
    aims = judged(
        plan_aims(it.plan, look.meal, look.share, rest=look.rest_planned, there=look.rest),
        lambda key: amount_of(look.profile, key).known,
    )
    base = {
        aim.key: amount_of(look.besides, aim.key).amount for aim in aims if aim.key != DENSITY
    } | {"energy_kcal": look.besides["energy_kcal"].amount}
    return Problem(
        parts=portions,
        aims=with_goal(within_upper_levels(within_reach(aims, portions, base), base), goal_of(it)),
        base=base,
        vessel_ml=None if look.vessel_ml is None else look.vessel_ml * HEAPED,
        rooms=look.rooms,
        plate=look.plate,
        cooks=True,
        eats_little=must_gain(it.day.person),
        richer=richer,
        meal=look.meal.key if look.meal else "",
        gate=it.gate,
    )


def found(it: Changeable, look: Look, problem: Problem) -> dict[str, object]:
    """What the proposals' template needs; `portions` are those of the proposal that is outlined.
    Raises BadProblem.

    What stands in the way takes longer: a live page asks for it by itself once the proposals stand
    there.
    """
    request = it.request
    balanced_as = allowed(problem)
    benches = _benches(it, problem)
    told, first, problem = balanced_as.told, balanced_as.answer, balanced_as.problem
    wanted = [
        aim
        for aim in problem.aims
        if aim.weight or aim.miss(first.totals[aim.key], first.at_most[aim.key])
    ]
    asked_for = key_in(request.GET.get("show", ""))
    chosen = len(told) - 1 if asked_for is None else min(asked_for, len(told) - 1)
    collisions = (
        [(name_of(name), closest(problem, name), name) for name in colliding(problem)]
        if first.status == "infeasible"
        else []
    )
    in_the_way = any(
        aim.miss(first.totals[aim.key], first.at_most[aim.key]) for aim in problem.aims
    ) or bool(collisions)
    shown = [_shown(one, problem, wanted, look, it.system) for one in told]
    return (
        {
            "proposals": shown,
            "show": chosen,
            "portions": (told[chosen].answer if told else first).portions,
            "nothing_to_change": not told,
            "collisions": collisions,
            "benches": benches,
            "query": _without_show(request.GET),
        }
        | (strip_after(it, look, shown[chosen].portions) if shown else {})
        | (
            {"in_the_way_later": in_the_way}
            if request.htmx
            else in_the_way_of(problem, balanced_as)
        )
    )


def strip_after(it: Changeable, look: Look, proposed: Profile) -> dict[str, object]:
    """The strip as it is, each reading with where a change would bring it, as its template takes
    it."""
    besides, meal = it.besides(look), it.strip_meal(look)
    alone = Profile.total(one.profile for one in look.portions)
    now, after = (strip(it.plan, Profile.total([besides, one]), meal) for one in (alone, proposed))
    rows = [replace(row, then=then) for row, then in zip(now, after, strict=True)]
    return {
        "strip": rows,
        "strip_line": in_one_line([row.then for row in rows if row.then]),
        "strip_client": it.client,
        "strip_of": "As it is, and as proposed",
        "strip_meal": meal,
        "why_of": it.key,
    }


def in_the_way_of(problem: Problem, found: Balanced | None = None) -> dict[str, object]:
    """What the nearest portions still miss and why, and the single changes that would help, each
    solved again."""
    found = allowed(problem) if found is None else found
    problem, first = found.problem, found.answer
    missed = misses(problem, first, found.asked)
    would_help = helping(problem, first) if missed or first.status == "infeasible" else []
    return {
        "misses": missed,
        "hints": [(hint, hint.kind == "add") for hint in would_help],
        "violation": first.violation,
    }


def _without_show(query: QueryDict) -> str:
    """The options as they were asked for, to ask again for something else of the same."""
    kept = query.copy()
    kept.pop("show", None)
    return kept.urlencode()


def ticked(data: QueryDict, known: Collection[str]) -> list[Edit]:
    """What was ticked, of what is known and of foods that are added. What cannot be used is passed
    over."""
    out = []
    for part in data.getlist("take"):
        grams, food = number_in(data.get(f"grams-{part}", "")), data.get(f"food-{part}", "")
        if grams is None or not 0 <= grams <= MOST_TAKEN_G:
            continue
        grams = grams if grams >= LEFT_OUT_G else 0.0
        if part in known:
            out.append(Edit(key=part, grams=grams))
        elif food and grams:
            out.append(Edit(key="", food=food, grams=grams))
    return out


def less_ticked(data: QueryDict) -> tuple[str, str, float] | None:
    """The dish in which there is to be less of a line, which food, and what is left of it [share];
    None where that was not ticked."""
    part, food = data.get("less", ""), data.get("less-food", "")
    left = number_in(data.get("less-left", ""))
    return (part, food, left) if part and food and left is not None and 0 <= left < 1 else None
