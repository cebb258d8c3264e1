"""What may be proposed to somebody: nothing that brings together what is to be asked about
first."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import replace

from nutrition.composition.portion import Portion
from nutrition.portions.added_to_a_meal import added_to
from nutrition.portions.further import furthered
from nutrition.portions.problem import BadProblem, Problem
from nutrition.portions.proposals import Balanced, balanced
from nutrition.portions.work import Work
from nutrition.written.wording import uncapitalized


def allowed(problem: Problem, work: Work | None = None) -> Balanced:
    """The proposals that bring nothing to stop and ask about that is not there now: amounts that
    only count together. Raises BadProblem where there are some and none is allowed."""
    needs = not problem.gate.situation.conditions.isdisjoint(LITTLE_IS_A_DANGER)
    if needs and _share_left_out(problem) >= NO_MEAL_LEFT:
        raise BadProblem(
            "parts",
            f"Nearly all of this is to be asked about first for this client ({_held(problem)}): "
            "begin with other foods, or prepare these otherwise.",
        )
    now = _barred(problem, {part.key: part.grams for part in problem.parts})
    found = balanced(problem, work)
    after = [_barred(problem, one.answer.portions) for one in found.told]
    out = [one for one, bars in zip(found.told, after, strict=True) if bars.keys() <= now.keys()]
    if found.told and not out:
        new = dict.fromkeys(why for bars in after for code, why in bars.items() if code not in now)
        raise BadProblem(
            "parts",
            "Every proposal would bring together what is to be asked about first: "
            f"{' '.join(new)} Change that part.",
        )
    found = replace(found, told=tuple(out))
    # what takes the place of a part that must go comes before anything more
    if not problem.cooks or _share_left_out(problem, but=NO_PLACE) >= PLACE_TO_FILL:
        return found
    return furthered(
        found,
        added_to(found.problem),
        lambda asked, grams: _barred(asked, grams).keys() <= now.keys(),
    )


def _held(problem: Problem) -> str:
    """The parts that the gate leaves out altogether, each with why."""
    return "; ".join(
        f"{uncapitalized(part.name)}: {part.limits.held.rstrip('.')}"
        for part in problem.parts
        if part.limits.held and part.limits.most <= 0
    )


# Where so much of the energy may not be served, what is left is no meal for somebody to whom little
# food is a danger by itself. Common practice, no source.
NO_MEAL_LEFT = 0.75
# Of a meal that loses so much of its energy the gap is filled by what stands in, and an oil or a
# handful of nuts leaves no gap on a plate. Common practice, no source.
PLACE_TO_FILL = 0.1
NO_PLACE = ("sauce", "topping")
LITTLE_IS_A_DANGER = ("insulin", "sulfonylurea", "sglt2_inhibitor")


def _share_left_out(problem: Problem, but: Collection[str] = ()) -> float:
    """The share of the energy in what the gate leaves out altogether, `but` parts of these roles.
    [0 to 1]"""

    def kcal(part: Portion) -> float:
        return part.amount("energy_kcal") * part.grams

    whole = sum(map(kcal, problem.parts))
    out = sum(
        kcal(part)
        for part in problem.parts
        if part.limits.held and part.limits.most <= 0 and part.role not in but
    )
    return out / whole if whole > 0 else 0.0


def _barred(problem: Problem, portions: Mapping[str, float]) -> dict[str, str]:
    """What holds the foods of these portions [g] back, seen together: each code with why, which
    names the foods."""
    foods = [one for part in problem.parts for one in part.foods_in(portions[part.key])]
    bars = problem.gate.bars([one for one in foods if one.grams > 0])
    return {bar.code: bar.why for bar in bars}
