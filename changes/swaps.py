"""Swaps beside the gap they close, for a recipe, a bowl or a day; each can be taken with one
click."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from changes.aims import plan_aims, target_of
from changes.changeable import Changeable, Look
from changes.offers import token_for
from clients.cautions import listener
from clients.gate import avoided_by
from clients.in_force import Plan
from clients.strip import Reading, reading
from nutrition.composition.derived import amount_of
from nutrition.composition.food_search import food_index
from nutrition.composition.foods import Food, ready_to_eat
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.plausible import names_unknown, unknown_at_most
from nutrition.portions.staples import staples
from nutrition.safety.cautions import LEVELS, Caution
from nutrition.safety.gate import Gate
from nutrition.swaps.ranking import (
    COMPLEMENT_KEYS,
    Filler,
    Step,
    Swap,
    complement,
    gap,
    rank,
    ranked,
    reason,
    totals_of,
)
from nutrition.targets.aim import Aim
from roundpantry import show

# What is listed under one gap, pairs of lines among it, and how many nutrients beside the watched
# ones. Common practice, no source.
MOST_UNDER_A_GAP, MOST_PAIRS, MOST_FILLERS, MOST_ALSO_SHORT = 7, 2, 4, 4
# A target that moves by less than this share of its aim is not worth a line.
WORTH_SAYING = 0.01


@dataclass(frozen=True, kw_only=True)
class Move:
    """What a change does to one target."""

    name: str
    before: str
    after: str
    word: str
    state: str


@dataclass(frozen=True, kw_only=True)
class Offered:
    """One change with what it does, and what is sent to take it."""

    words: str
    closed: float
    effects: list[tuple[str, str]]
    moves: list[Move]
    cautions: list[Caution]
    token: str
    unknown: list[str]


@dataclass(frozen=True, kw_only=True)
class OfferedFiller:
    filler: Filler
    moves: list[Move]
    cautions: list[Caution]
    token: str
    unknown: list[str]


@dataclass(frozen=True)
class Gap:
    """A target that is missed, with the changes that close it and the foods that fill it."""

    reading: Reading
    swaps: list[Offered]
    fillers: list[OfferedFiller]


def favorites(plan: Plan) -> list[Food]:
    """The foods that the client likes, ready to eat, as far as the table knows them by that
    name."""
    found = (next(iter(food_index().usable(word, 1)), None) for word in plan.client.favorite_words)
    return [ready_to_eat(match.food) for match in found if match is not None]


def _moves(aims: Sequence[Aim], swap: Swap) -> list[Move]:
    out = []
    for aim in aims:
        before, after = swap.totals[aim.key]
        if abs(after - before) < WORTH_SAYING * aim.per or (not aim.weight and not aim.miss(after)):
            continue
        places, miss = NUTRIENT[aim.key].decimals, aim.miss(after)
        side = "inside" if not miss else "under" if miss < 0 else "over"
        word = show.by_words(side, abs(miss), aim.key) if miss else side
        after_words = f"{show.digits(after, places)} {NUTRIENT[aim.key].unit}"
        out.append(
            Move(
                name=NUTRIENT[aim.key].name,
                before=show.digits(before, places),
                after=after_words,
                word=word,
                state=side,
            )
        )
    return out


@dataclass(frozen=True, kw_only=True)
class _For:
    """Whom a panel is for and of what, looked up once: what they like, what is refused, what is to
    be said of foods, and what a change is signed for."""

    key: str
    version: int
    system: str
    liked: list[Food]
    gate: Gate
    say: Callable[[Sequence[Ingredient]], list[Caution]]


def _cautions(whom: _For, steps: Sequence[Step]) -> list[Caution]:
    """What is to be said of the foods that come in, gravest first."""
    new = [
        Ingredient(step.food, step.grams)
        for step in steps
        if step.food is not None and step.kind not in ("less", "out")
    ]
    return whom.say(new) if new else []


def _stops(cautions: Sequence[Caution]) -> bool:
    return any(caution.level == LEVELS[0] for caution in cautions)


def _offered(look: Look, whom: _For, aims: Sequence[Aim], swap: Swap) -> Offered | None:
    """The change with what it does; None where what comes in is to be asked about first."""
    cautions = _cautions(whom, swap.steps)
    if _stops(cautions):
        return None
    unknown, beyond = _unknown(aims, swap, 1.0 / look.times)
    if beyond:
        return None
    effects = [(step.effect, step.fails) for step in swap.steps if step.effect]
    token = token_for(whom.key, whom.version, swap.steps, reason(swap, aims))
    return Offered(
        words=swap.words,
        closed=swap.closed,
        effects=effects,
        moves=_moves(aims, swap),
        cautions=cautions,
        token=token,
        unknown=unknown,
    )


def _unknown(aims: Sequence[Aim], swap: Swap, share: float) -> tuple[list[str], bool]:
    """What is not known of the foods that come in, where a target has a most: in words, with how
    much it could be; and whether it could go beyond a limit that is never broken. `share` of what
    comes in is what is looked at [0 to 1]."""
    words, beyond = [], False
    new = [
        Ingredient(step.food, step.grams * share)
        for step in swap.steps
        if step.food is not None and step.kind not in ("less", "out")
    ]
    at_most = unknown_at_most(new)
    for aim in aims:
        names = names_unknown(new, aim.key) if aim.high is not None and aim.weight else []
        if names:
            more, unit = at_most.get(aim.key, 0.0), NUTRIENT[aim.key].unit
            size = (
                f": up to {show.digits(more, NUTRIENT[aim.key].decimals)} {unit} more"
                if more >= WORTH_SAYING * aim.per
                else ""
            )
            words.append(f"{NUTRIENT[aim.key].name} is unknown in {', '.join(names)}{size}")
            beyond = beyond or (
                aim.firm_high
                and aim.miss(swap.totals[aim.key][1], swap.totals[aim.key][1] + more) > 0
            )
    return words, beyond


def _under(look: Look, whom: _For, aims: Sequence[Aim], swaps: Sequence[Swap]) -> list[Offered]:
    """What is listed under one gap: changes of one line, a few of two, and always the one that is
    felt least."""
    gentlest = min(
        (swap for swap in swaps if len(swap.steps) == 1),
        key=lambda swap: (swap.felt, -swap.closed),
        default=None,
    )
    out: list[Offered] = []
    pairs = 0
    for swap in swaps:
        full = len(out) >= MOST_UNDER_A_GAP or (len(swap.steps) > 1 and pairs == MOST_PAIRS)
        if full and swap is not gentlest:
            continue
        one = _offered(look, whom, aims, swap)
        if one is not None:
            out.append(one)
            pairs += len(swap.steps) > 1
    return out


def _fillers(look: Look, whom: _For, aim: Aim, aims: Sequence[Aim]) -> list[OfferedFiller]:
    """Foods that fill a shortfall; none that makes more of the other targets worse than it
    mends."""
    totals = totals_of([*aims, aim], look.profile)
    judged = [one for one in aims if one.key != aim.key] + [aim]
    short = -aim.miss(totals[aim.key])
    name, unit, places = (
        NUTRIENT[aim.key].name.lower(),
        NUTRIENT[aim.key].unit,
        NUTRIENT[aim.key].decimals,
    )
    out = []
    for filler in complement(
        aim.key,
        short * look.times,
        whom.liked,
        staples(),
        whom.gate,
        MOST_FILLERS * 2,
        look.times,
        whom.system,
    ):
        after = totals_of(judged, look.profile + filler.food.profile(filler.grams / look.times))
        step = Step(
            id="",
            kind="add",
            food=filler.food,
            grams=filler.grams,
            words=f"add {filler.words}",
            measure=filler.measure,
        )
        shown = {one.key: (totals[one.key], after[one.key]) for one in judged}
        swap = Swap(
            steps=(step,),
            before=gap(judged, totals),
            after=gap(judged, after),
            felt=0.0,
            totals=shown,
        )
        cautions = _cautions(whom, [step])
        unknown, beyond = _unknown(judged, swap, 1.0 / look.times)
        if swap.closed <= 0 or swap.breaks(judged) or _stops(cautions) or beyond:
            continue
        why = f"{filler.words} added: {name} was under by {show.digits(short, places)} {unit}"
        out.append(
            OfferedFiller(
                filler=filler,
                moves=_moves(judged, swap),
                cautions=cautions,
                token=token_for(whom.key, whom.version, [step], why),
                unknown=unknown,
            )
        )
    # what is wholly known comes first
    return sorted(out, key=lambda one: bool(one.unknown))[:MOST_FILLERS]


def panel(it: Changeable, look: Look) -> dict[str, object]:
    """What the swaps' template needs."""
    plan, meal, share = it.plan, look.meal, look.share
    whom = _For(
        key=it.key,
        version=it.record.version,
        system=it.system,
        liked=favorites(plan),
        gate=it.gate,
        say=listener(plan),
    )
    aims = plan_aims(plan, meal, share)
    if look.by_calories:
        # judged by its own calories, these are never too many or too few
        aims = tuple(aim for aim in aims if aim.key != "energy_kcal")
    lines = [one for one in look.portions if not one.locked and one.profile.grams > 0]
    totals = totals_of(aims, look.profile)
    targets = {aim.key: target_of(plan, aim) for aim in aims}
    swaps = ranked(
        lines, aims, whom.gate, look.profile_of, look.profile, it.dishes(look), it.system
    )
    if look.extra is not None:
        swaps = sorted([*swaps, *look.extra(aims)], key=rank)
    gaps = []
    missed = {aim.key: abs(aim.miss(totals[aim.key])) * aim.weight / aim.per for aim in aims}
    for aim in sorted(
        (aim for aim in aims if missed[aim.key] > 0), key=lambda aim: -missed[aim.key]
    ):
        own = _under(look, whom, aims, [swap for swap in swaps if swap.helps(aims) == aim.key])
        fills = aim.miss(totals[aim.key]) < 0 and aim.key in COMPLEMENT_KEYS
        fillers = _fillers(look, whom, aim, aims) if fills else []
        gaps.append(Gap(reading(targets[aim.key], amount_of(look.profile, aim.key)), own, fillers))
    return {
        "gaps": [one for one in gaps if one.swaps or one.fillers],
        "no_change_fills": [one.reading for one in gaps if not one.swaps and not one.fillers],
        "also_short": _also_short(
            look, plan, whom, aims, plan_aims(plan, meal, share, COMPLEMENT_KEYS)
        ),
        "refused_words": _refused_words(plan),
    }


def _also_short(
    look: Look, plan: Plan, whom: _For, aims: Sequence[Aim], wider: Sequence[Aim]
) -> list[Gap]:
    """Nutrients that run short on plants and are not watched, with what fills them."""
    watched = {aim.key for aim in aims}
    out = []
    for aim in wider:
        amount = amount_of(look.profile, aim.key)
        short = -aim.miss(amount.amount)
        # what is largely unknown may be there already
        if aim.key in watched or aim.key not in COMPLEMENT_KEYS or short <= 0 or amount.known < 0.5:
            continue
        fillers = _fillers(look, whom, aim, aims)
        if fillers:
            out.append((short / aim.per, Gap(reading(target_of(plan, aim), amount), [], fillers)))
    return [one for _short, one in sorted(out, key=lambda row: -row[0])[:MOST_ALSO_SHORT]]


def _refused_words(plan: Plan) -> str:
    """What is never offered here, in words."""
    client = plan.client
    said = [f"what holds {client.allergy_words}"] if client.allergies else []
    said += [client.dislikes.lower()] if client.dislikes else []
    said += [f"{kind} ({whose})" for kind, whose in avoided_by(plan).items()]
    return "; ".join(said)
