"""Which changes and which foods are offered for which gap: what each moves, what is to be said of
what comes in, and what is not known of it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass

from nutrition.composition.amounts import amount_of
from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.profile import Profile
from nutrition.composition.unknown_amounts import (
    WORTH_SAYING,
    Unknown,
    names_unknown,
    unknown_at_most,
)
from nutrition.portions.staples import staples
from nutrition.safety.caution_rules import LEVELS
from nutrition.safety.cautions import Caution
from nutrition.safety.gate import Gate
from nutrition.swaps.fillers import COMPLEMENT_KEYS, Filler, complement
from nutrition.swaps.swap import Step, Swap, gap, totals_of
from nutrition.targets.aim import Aim

# What is listed under one gap, pairs of lines among it, and how many nutrients beside the watched
# ones. Common practice, no source.
MOST_UNDER_A_GAP, MOST_PAIRS, MOST_FILLERS, MOST_ALSO_SHORT = 7, 2, 4, 4
# What is known for less than this share of the weight may be there already, and is not called
# short. Common practice, no source.
KNOWN_ENOUGH = 0.5


@dataclass(frozen=True, kw_only=True)
class Judged:
    """What is looked at and whom it is for: what it brings, of which so many `times` are made
    together; the targets it is judged by; what is refused, what is liked, and what is to be said of
    foods."""

    profile: Profile
    times: float
    aims: tuple[Aim, ...]
    system: str
    gate: Gate
    liked: Sequence[Food]
    say: Callable[[Sequence[Ingredient]], list[Caution]]


@dataclass(frozen=True, kw_only=True)
class Move:
    """What a change does to one target, and where it then stands: "inside", "under" or "over", and
    by how much. In the key's unit."""

    key: str
    before: float
    after: float
    state: str
    by: float


@dataclass(frozen=True, kw_only=True)
class Offer:
    """A change that may be offered; `filler` where it adds a food that fills what is short."""

    swap: Swap
    moves: tuple[Move, ...]
    cautions: tuple[Caution, ...]
    unknown: tuple[Unknown, ...]
    filler: Filler | None = None


@dataclass(frozen=True)
class Gap:
    """A target that is missed, with the changes that close it and the foods that fill it."""

    aim: Aim
    swaps: tuple[Offer, ...]
    fillers: tuple[Offer, ...]


def gaps(judged: Judged, swaps: Sequence[Swap]) -> list[Gap]:
    """Every target that is missed, the most missed first, with what is offered for it: a change
    stands under the target that it helps most."""
    aims, totals = judged.aims, totals_of(judged.aims, judged.profile)
    missed = {aim.key: abs(aim.miss(totals[aim.key])) * aim.weight / aim.per for aim in aims}
    helped = [(swap.helps(aims), swap) for swap in swaps]
    out = []
    for aim in sorted((aim for aim in aims if missed[aim.key] > 0), key=lambda a: -missed[a.key]):
        own = _listed(judged, [swap for key, swap in helped if key == aim.key])
        fills = aim.miss(totals[aim.key]) < 0 and aim.key in COMPLEMENT_KEYS
        out.append(Gap(aim, own, _fillers(judged, aim) if fills else ()))
    return out


def also_short(judged: Judged, wider: Iterable[Aim]) -> list[Gap]:
    """Nutrients that run short on plants and are not among the targets, with what fills them; the
    shortest first."""
    watched = {aim.key for aim in judged.aims}
    out = []
    for aim in wider:
        amount = amount_of(judged.profile, aim.key)
        short = -aim.miss(amount.amount)
        if aim.key in watched or aim.key not in COMPLEMENT_KEYS:
            continue
        if short <= 0 or amount.known < KNOWN_ENOUGH:
            continue
        fillers = _fillers(judged, aim)
        if fillers:
            out.append((short / aim.per, Gap(aim, (), fillers)))
    return [one for _short, one in sorted(out, key=lambda row: -row[0])[:MOST_ALSO_SHORT]]


def _listed(judged: Judged, swaps: Sequence[Swap]) -> tuple[Offer, ...]:
    """What is listed under one gap: changes of one line, a few of two, and always the one that is
    felt least."""
    gentlest = min(
        (swap for swap in swaps if len(swap.steps) == 1),
        key=lambda swap: (swap.felt, -swap.closed),
        default=None,
    )
    out: list[Offer] = []
    pairs = 0
    for swap in swaps:
        full = len(out) >= MOST_UNDER_A_GAP or (len(swap.steps) > 1 and pairs == MOST_PAIRS)
        if full and swap is not gentlest:
            continue
        one = _offer(judged, judged.aims, swap)
        if one is not None:
            out.append(one)
            pairs += len(swap.steps) > 1
    return tuple(out)


def _fillers(judged: Judged, aim: Aim) -> tuple[Offer, ...]:
    """Foods that fill a shortfall, what is wholly known first; none that makes more of the other
    targets worse than it mends."""
    aims = (*(one for one in judged.aims if one.key != aim.key), aim)
    totals, times = totals_of(aims, judged.profile), judged.times
    short = -aim.miss(totals[aim.key])
    out = []
    for filler in complement(
        aim.key,
        short * times,
        judged.liked,
        staples(),
        judged.gate,
        MOST_FILLERS * 2,
        times,
        judged.system,
    ):
        after = totals_of(aims, judged.profile + filler.food.profile(filler.grams / times))
        step = Step(
            id="",
            kind="add",
            food=filler.food,
            grams=filler.grams,
            words=f"add {filler.words}",
            measure=filler.measure,
        )
        swap = Swap(
            steps=(step,),
            before=gap(aims, totals),
            after=gap(aims, after),
            felt=0.0,
            totals={one.key: (totals[one.key], after[one.key]) for one in aims},
        )
        offer = _offer(judged, aims, swap, filler)
        if offer is not None and swap.closed > 0 and not swap.breaks(aims):
            out.append(offer)
    return tuple(sorted(out, key=lambda one: bool(one.unknown))[:MOST_FILLERS])


def _offer(
    judged: Judged, aims: Sequence[Aim], swap: Swap, filler: Filler | None = None
) -> Offer | None:
    """The change with what it does; None where what comes in is to be asked about first, or could
    go beyond a limit that is never broken."""
    new = [
        Ingredient(step.food, step.grams)
        for step in swap.steps
        if step.food is not None and step.kind not in ("less", "out")
    ]
    cautions = judged.say(new) if new else []
    # at the amount that it comes in at it may be too much, where a first helping was not
    if any(caution.level == LEVELS[0] or caution.names for caution in cautions):
        return None
    # of what comes into all that is made, what is looked at gets its share
    unknown = _unknown(aims, swap, [Ingredient(one.food, one.grams / judged.times) for one in new])
    if unknown is None:
        return None
    return Offer(
        swap=swap,
        moves=tuple(_moves(aims, swap)),
        cautions=tuple(cautions),
        unknown=unknown,
        filler=filler,
    )


def _unknown(
    aims: Iterable[Aim], swap: Swap, new: Sequence[Ingredient]
) -> tuple[Unknown, ...] | None:
    """What is not known of the foods that come in, where a target has a most; None where it could
    go beyond a limit that is never broken."""
    at_most = unknown_at_most(new)
    out = []
    for aim in aims:
        names = names_unknown(new, aim.key) if aim.high is not None and aim.weight else []
        if not names:
            continue
        more, after = at_most.get(aim.key, 0.0), swap.totals[aim.key][1]
        if aim.firm_high and aim.miss(after, after + more) > 0:
            return None
        between = (after, after + more) if more >= WORTH_SAYING * aim.per else None
        out.append(Unknown(aim.key, tuple(names), between))
    return tuple(out)


def _moves(aims: Iterable[Aim], swap: Swap) -> list[Move]:
    """The targets that a change moves enough to say so."""
    out = []
    for aim in aims:
        before, after = swap.totals[aim.key]
        miss = aim.miss(after)
        if abs(after - before) < WORTH_SAYING * aim.per or (not aim.weight and not miss):
            continue
        state = "inside" if not miss else "under" if miss < 0 else "over"
        out.append(Move(key=aim.key, before=before, after=after, state=state, by=abs(miss)))
    return out
