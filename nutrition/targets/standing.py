"""Where an amount stands on a target: what the strip, the proposals and the page say of it."""

import math
from dataclasses import dataclass

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Amount
from nutrition.targets.voices import Band

# Within so much of a bound, as a share of the aim, it is near the edge. Common practice, no source.
NEAR_EDGE = 0.05
# Of what is known for less than this share of the weight nothing is judged. Common practice, no
# source.
KNOWN_ENOUGH = 0.8


@dataclass(frozen=True, kw_only=True)
class Standing:
    """`state` is "none" (nothing is known), "under", "over", "inside", or "near": inside, near a
    bound; `by` is how much, in the target's unit. `part_unknown`: some of it is unknown, and that
    could move it. `up_to`: what is unknown can only make a shortfall smaller. `too_little`: so
    little is known that it is shown and not judged. `could_be_over`: with what is unknown at its
    largest it is over, by so much."""

    state: str
    by: float = 0.0
    part_unknown: bool = False
    up_to: bool = False
    too_little: bool = False
    could_be_over: float = 0.0


def judge(target: Band, amount: float) -> tuple[str, float]:
    """ "under", "inside" or "over" the band, and by how much, in the target's unit."""
    if target.low is not None and amount < target.low:
        return "under", target.low - amount
    if target.high is not None and amount > target.high:
        return "over", amount - target.high
    return "inside", 0.0


def near_edge(target: Band, amount: float) -> bool:
    """Whether an amount stands near one of the bounds. In the target's unit."""
    edges = [edge for edge in (target.low, target.high) if edge is not None]
    return any(abs(amount - edge) <= NEAR_EDGE * target.aim for edge in edges)


def standing(target: Band, amount: Amount) -> Standing:
    """Where an amount stands on a target, its unknown part considered. In the target's unit."""
    if amount.known <= 0 and amount.amount == 0:
        return Standing(state="none")
    state, by = judge(target, amount.amount)
    if not amount.complete:
        # an index can move either way with what is unknown; an amount can only grow
        either_way = NUTRIENT[target.key].group == "indices"
        if amount.known < KNOWN_ENOUGH and state != "over" and not either_way:
            return Standing(state="none", too_little=True)
        most = amount.amount + amount.could_add
        if state == "inside" and target.high is not None and target.high < most < math.inf:
            return Standing(state="near", part_unknown=True, could_be_over=most - target.high)
        return Standing(
            state=state,
            by=by,
            part_unknown=either_way or state == "inside",
            up_to=state == "under" and not either_way,
        )
    if state == "inside" and near_edge(target, amount.amount):
        return Standing(state="near")
    return Standing(state=state, by=by)
