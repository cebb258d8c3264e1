"""Where an amount stands on a target: what the strip, the proposals and the page say of it."""

from dataclasses import dataclass

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Amount
from nutrition.targets.voices import Band

# Within so much of a bound, as a share of the aim, it is near the edge. Common practice, no source.
NEAR_EDGE = 0.05


@dataclass(frozen=True)
class Standing:
    """`state` is "none" (nothing is known), "under", "over", "inside", or "near": inside, near a
    bound; `by` is how much, in the target's unit. `part_unknown`: some of it is unknown, and that
    could move it. `up_to`: what is unknown can only make a shortfall smaller."""

    state: str
    by: float = 0.0
    part_unknown: bool = False
    up_to: bool = False


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
        return Standing("none")
    state, by = judge(target, amount.amount)
    if not amount.complete:
        # an index can move either way with what is unknown; an amount can only grow
        either_way = NUTRIENT[target.key].group == "indices"
        return Standing(
            state,
            by,
            part_unknown=either_way or state == "inside",
            up_to=state == "under" and not either_way,
        )
    if state == "inside" and near_edge(target, amount.amount):
        return Standing("near")
    return Standing(state, by)
