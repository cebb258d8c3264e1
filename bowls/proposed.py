"""Proposals of a balance problem ready to show, and what was ticked of one: the same for a bowl and for a day."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from django.http import HttpRequest, QueryDict

from clients.aims import target_of
from clients.in_force import Plan, Reading, reading
from clients.swap_panel import Outdated
from nutrition.balance import Problem, name_of
from nutrition.balance_hints import closest, colliding, hints, misses
from nutrition.balance_solver import Answer, balance
from nutrition.profile import Profile
from nutrition.proposals import Change, Proposal, proposals
from nutrition.quantities import amount_of
from nutrition.staples import staple_parts
from nutrition.statements import Target

MOST_TAKEN_G = 20_000.0
# A portion below this is nothing: the part is left out. [g]
LEFT_OUT_G = 0.4


@dataclass(frozen=True)
class Portioned:
    """What a part of a problem is on the screen. `say` puts grams of it into a kitchen measure. [g], [mL]"""

    name: str
    profile: Profile
    volume_ml: float
    say: Callable[[float], str]


@dataclass(frozen=True)
class Shown:
    """One change of a proposal with its measures before and after."""

    change: Change
    before: str
    after: str
    left_out: bool


@dataclass(frozen=True)
class ShownProposal:
    """A proposal with what it would come to and where that stands on each target."""

    proposal: Proposal
    changes: list[Shown]
    profile: Profile
    volume_ml: float
    readings: list[Reading]


def _shown(proposal: Proposal, parts: Mapping[str, Portioned], wanted: Mapping[str, Target], besides: Profile) -> ShownProposal:
    changes = [
        Shown(change, parts[change.id].say(change.before), parts[change.id].say(change.after), change.after < LEFT_OUT_G)
        for change in proposal.changes
    ]  # fmt: skip
    portions = proposal.answer.portions
    shares = [(part, portions[id] / part.profile.grams) for id, part in parts.items() if part.profile.grams > 0]
    profile = Profile.total([besides, *(part.profile * share for part, share in shares)])
    readings = [reading(target, amount_of(profile, key)) for key, target in wanted.items()]
    return ShownProposal(proposal, changes, profile, sum(part.volume_ml * share for part, share in shares), readings)


def found(
    request: HttpRequest, problem: Problem, parts: Mapping[str, Portioned], plan: Plan, besides: Profile | None = None
) -> dict[str, object]:
    """What the proposals' template needs; `portions` are those of the proposal that is outlined. Raises BadProblem.

    What stands in the way takes longer: a live page asks for it by itself once the proposals stand there.
    """
    told = proposals(problem)
    first = told[0].answer
    wanted = {aim.key: target_of(plan, aim) for aim in problem.aims}
    asked = request.GET.get("show", "")
    show = min(int(asked), len(told) - 1) if asked.isdigit() else 0
    collisions = [(name_of(name), closest(problem, name), name) for name in colliding(problem)] if first.status == "infeasible" else []
    in_the_way = any(aim.miss(first.totals[aim.key]) for aim in problem.aims) or bool(collisions)
    return {
        "proposals": [_shown(one, parts, wanted, besides or Profile.empty()) for one in told],
        "show": show,
        "portions": told[show].answer.portions,
        "collisions": collisions,
        "query": _without_show(request.GET),
    } | ({"in_the_way_later": in_the_way} if request.htmx else in_the_way_of(problem, first))


def in_the_way_of(problem: Problem, first: Answer | None = None) -> dict[str, object]:
    """What the nearest portions still miss and why, and the single changes that would help, each solved again."""
    first = first or balance(problem)
    missed = misses(problem, first)
    can_add = {food.id for food in staple_parts()}
    helping = hints(problem, first, staple_parts()) if missed or first.status == "infeasible" else []
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


OUTDATED = "It was changed since this was proposed: balance it again."


def ticked(data: QueryDict, known: Sequence[str], version: int) -> dict[str, float]:
    """The portions that were ticked, by part. [g] What cannot be used is passed over. Raises Outdated for another version."""
    if data.get("version") != str(version):
        raise Outdated(OUTDATED)
    out = {}
    for part in data.getlist("take"):
        try:
            grams = float(data.get(f"grams-{part}", ""))
        except ValueError:
            continue
        if part in known and math.isfinite(grams) and 0 <= grams <= MOST_TAKEN_G:
            out[part] = grams
    return out
