"""Proposals of a balance problem ready to show, and what was ticked of one: the same for a bowl and
for a day."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from django.http import QueryDict

from changes.aims import plan_aims, target_of
from changes.changeable import Changeable, Look, limited
from changes.offers import LEFT_OUT_G
from clients.strip import Reading, reading
from nutrition.composition.derived import DENSITY, amount_of
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.plausible import names_unknown
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Profile
from nutrition.portions.obstacles import closest, colliding, hints, misses
from nutrition.portions.problem import BadProblem, Problem, name_of
from nutrition.portions.proposals import PortionChange, Proposal, proposals
from nutrition.portions.reach import within_reach
from nutrition.portions.solver import Answer, balance
from nutrition.portions.staples import staple_portions
from nutrition.safety.gate import Gate
from nutrition.targets.aims import within_upper_levels
from nutrition.targets.voices import Target
from nutrition.written.household import say
from roundpantry import show
from roundpantry.asked import key_in, number_in

MOST_TAKEN_G = 20_000.0
# Of an amount that is partly unknown less than this share of its aim is not worth a word.
WORTH_SAYING = 0.01


@dataclass(frozen=True)
class Shown:
    """One change of a proposal with its measures before and after."""

    change: PortionChange
    before: str
    after: str
    left_out: bool


@dataclass(frozen=True, kw_only=True)
class ShownProposal:
    """A proposal with what it would come to and where that stands on each target."""

    proposal: Proposal
    changes: list[Shown]
    profile: Profile
    volume_ml: float
    readings: list[Reading]
    unknown: list[str]


def _unknown(answer: Answer, problem: Problem, parts: Mapping[str, Portion]) -> list[str]:
    """What is not known of a target with a most, in words: in which foods, and between what it then
    lies."""
    out = []
    for aim in problem.aims:
        known, most = answer.totals[aim.key], answer.at_most[aim.key]
        if aim.high is None or not aim.weight or most - known < WORTH_SAYING * aim.per:
            continue
        names = dict.fromkeys(
            name
            for id, part in parts.items()
            if answer.portions.get(id, 0.0) > 0
            for name in names_unknown(part.foods, aim.key)
        )
        places, unit = NUTRIENT[aim.key].decimals, NUTRIENT[aim.key].unit
        span = f"between {show.digits(known, places)} and {show.digits(most, places)} {unit}"
        out.append(f"{NUTRIENT[aim.key].name} is unknown in {', '.join(names)}: {span}")
    return out


def _newly_warned(proposal: Proposal, parts: Mapping[str, Portion], gate: Gate) -> bool:
    """Whether a proposal would bring something to stop and ask about that is not there now: amounts
    that only count together."""

    def codes(portions: Mapping[str, float] | None) -> set[str]:
        foods = [
            one.times(1.0 if portions is None else portions[id] / part.profile.grams)
            for id, part in parts.items()
            if part.profile.grams > 0
            for one in part.foods
        ]
        return {bar.code for bar in gate.bars([one for one in foods if one.grams > 0])}

    return bool(codes(proposal.answer.portions) - codes(None))


def _shown(
    proposal: Proposal,
    problem: Problem,
    parts: Mapping[str, Portion],
    wanted: Mapping[str, Target],
    besides: Profile,
    system: str,
) -> ShownProposal:
    changes = [
        Shown(
            change,
            say(parts[change.id], change.before, system),
            say(parts[change.id], change.after, system),
            change.after < LEFT_OUT_G,
        )
        for change in proposal.changes
    ]
    portions = proposal.answer.portions
    shares = [
        (part, portions[id] / part.profile.grams)
        for id, part in parts.items()
        if part.profile.grams > 0
    ]
    profile = Profile.total([besides, *(part.profile * share for part, share in shares)])
    readings = [reading(target, amount_of(profile, key)) for key, target in wanted.items()]
    volume = sum(part.volume_ml * share for part, share in shares)
    return ShownProposal(
        proposal=proposal,
        changes=changes,
        profile=profile,
        volume_ml=volume,
        readings=readings,
        unknown=_unknown(proposal.answer, problem, parts),
    )


def problem_of(it: Changeable, look: Look) -> Problem:
    """The portions that are looked at as a balance problem, as far as the gate lets them. Raises
    BadProblem, for instance for a part with too small a step."""
    portions = tuple(
        replace(limited(one, it.gate), star=one.star and look.star) for one in look.portions
    )
    aims = plan_aims(it.plan, look.meal, look.share)
    base = {
        aim.key: amount_of(look.besides, aim.key).amount for aim in aims if aim.key != DENSITY
    } | {"energy_kcal": look.besides["energy_kcal"].amount}
    return Problem(
        parts=portions,
        aims=within_upper_levels(within_reach(aims, portions, base), base),
        base=base,
        vessel_ml=look.vessel_ml,
        plate=look.plate,
    )


def found(it: Changeable, look: Look, problem: Problem) -> dict[str, object]:
    """What the proposals' template needs; `portions` are those of the proposal that is outlined.
    Raises BadProblem.

    What stands in the way takes longer: a live page asks for it by itself once the proposals stand
    there.
    """
    request, gate, plan = it.request, it.gate, it.plan
    parts = {one.key: one for one in look.portions}
    told = [one for one in proposals(problem) if not _newly_warned(one, parts, gate)]
    if not told:
        raise BadProblem(
            "parts",
            "Every proposal would bring together what is to be asked about first: change the "
            "parts.",
        )
    first = told[0].answer
    wanted = {
        aim.key: target_of(plan, aim)
        for aim in problem.aims
        if aim.weight or aim.miss(first.totals[aim.key], first.at_most[aim.key])
    }
    chosen = min(key_in(request.GET.get("show", "")) or 0, len(told) - 1)
    collisions = (
        [(name_of(name), closest(problem, name), name) for name in colliding(problem)]
        if first.status == "infeasible"
        else []
    )
    in_the_way = any(
        aim.miss(first.totals[aim.key], first.at_most[aim.key]) for aim in problem.aims
    ) or bool(collisions)
    return {
        "proposals": [_shown(one, problem, parts, wanted, look.besides, it.system) for one in told],
        "show": chosen,
        "portions": told[chosen].answer.portions,
        "collisions": collisions,
        "query": _without_show(request.GET),
    } | ({"in_the_way_later": in_the_way} if request.htmx else in_the_way_of(problem, gate, first))


def in_the_way_of(problem: Problem, gate: Gate, first: Answer | None = None) -> dict[str, object]:
    """What the nearest portions still miss and why, and the single changes that would help, each
    solved again."""
    first = first or balance(problem)
    missed = misses(problem, first)
    pantry = staple_portions(gate)
    can_add = {food.key for food in pantry}
    helping = hints(problem, first, pantry) if missed or first.status == "infeasible" else []
    return {
        "misses": missed,
        "hints": [(hint, hint.kind == "add" and hint.id in can_add) for hint in helping],
        "violation": first.violation,
    }


def _without_show(query: QueryDict) -> str:
    """The options as they were asked for, to ask again for something else of the same."""
    kept = query.copy()
    kept.pop("show", None)
    return kept.urlencode()


def ticked(data: QueryDict) -> dict[str, float]:
    """The portions that were ticked, by key. [g] What cannot be used is passed over."""
    out = {}
    for part in data.getlist("take"):
        grams = number_in(data.get(f"grams-{part}", ""))
        if grams is not None and 0 <= grams <= MOST_TAKEN_G:
            out[part] = grams
    return out
