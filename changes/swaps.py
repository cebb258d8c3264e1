"""Swaps beside the gap they close, for a recipe, a bowl or a day: what the core offers, in words,
and signed so that it can be taken with one click."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from changes.aims import plan_aims
from changes.changeable import Changeable, Look
from changes.offers import Edit, Outdated, swapped_in, token_for
from clients.plan.cautions import listener
from clients.plan.gate import avoided_by
from clients.plan.in_force import Plan
from clients.plan.strip import Reading, reading
from nutrition.composition.amounts import amount_of
from nutrition.composition.foods import Food, ready_to_eat
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Portion, food_portion
from nutrition.composition.unknown_amounts import Unknown
from nutrition.safety.cautions import Caution
from nutrition.swaps.fillers import COMPLEMENT_KEYS, Filler
from nutrition.swaps.gaps import Gap, Judged, Move, Offer, also_short, gaps
from nutrition.swaps.ranking import ranked
from nutrition.swaps.swap import rank, reason
from nutrition.targets.aim import Aim
from nutrition.targets.aims import judged as judged_aims
from nutrition.written.finding import surely_meant
from webkit import figures


@dataclass(frozen=True, kw_only=True)
class ShownMove:
    """What a change does to one target, in words."""

    name: str
    before: str
    after: str
    word: str
    state: str


@dataclass(frozen=True, kw_only=True)
class Offered:
    """One change with what it does, in words, and what is sent to take it."""

    words: str
    closed: float
    effects: list[tuple[str, str]]
    moves: list[ShownMove]
    cautions: tuple[Caution, ...]
    unknown: list[str]
    token: str
    filler: Filler | None


@dataclass(frozen=True)
class ShownGap:
    """A target that is missed, with the changes that close it and the foods that fill it."""

    reading: Reading
    swaps: list[Offered]
    fillers: list[Offered]


def favorites(plan: Plan) -> list[Food]:
    """The foods that the client likes, ready to eat, as far as a name means one without a
    doubt."""
    liked = plan.client.favorite_words if plan.client else ()
    found = (surely_meant(word) for word in liked)
    return [ready_to_eat(food) for food in found if food is not None]


def panel(it: Changeable, look: Look) -> dict[str, object]:
    """What the swaps' template needs."""
    plan = it.plan
    aims, wider = (
        judged_aims(
            plan_aims(plan, look.meal, look.share, also, look.rest_planned, look.rest),
            lambda key: amount_of(look.profile, key).known,
        )
        for also in ((), COMPLEMENT_KEYS)
    )
    if look.by_calories:
        # judged by its own calories, these are never too many or too few
        aims = tuple(aim for aim in aims if aim.key != "energy_kcal")
    if look.only_mosts:
        aims, wider = tuple(_mosts(aims)), ()
    judged = Judged(
        profile=look.profile,
        times=look.times,
        aims=aims,
        system=it.system,
        gate=it.gate,
        liked=favorites(plan),
        say=listener(plan),
    )
    lines = [one for one in look.portions if not one.locked and one.profile.grams > 0]
    swaps = ranked(lines, aims, it.gate, look.profile_of, look.profile, it.dishes(look), it.system)
    if look.extra is not None:
        swaps = sorted([*swaps, *look.extra(aims)], key=rank)
    found, short = gaps(judged, swaps), also_short(judged, wider)
    shown = [_shown(it, look, aims, one) for one in found]
    return {
        "gaps": [one for one in shown if one.swaps or one.fillers],
        "no_change_fills": [one.reading for one in shown if not one.swaps and not one.fillers],
        "also_short": [_shown(it, look, aims, one) for one in short],
        "refused_words": _refused_words(plan),
    }


def portions_after(it: Changeable, look: Look, edits: Sequence[Edit]) -> list[Portion]:
    """What is looked at as a change that is offered would have it. Raises Outdated."""
    parts, added = {one.key: one for one in look.portions}, []
    for edit in edits:
        part = parts.get(edit.key)
        if edit.key and part is None:
            raise Outdated("That is no longer in it.")
        if part is None:
            added.append(food_portion(swapped_in(edit.food), edit.grams))
        elif edit.left_out:
            del parts[edit.key]
        elif edit.dish:
            others = it.dishes(look).get(edit.key, ())
            dish = next((one for one in others if one.key == edit.dish), None)
            if dish is None:
                raise Outdated("That recipe is no longer there.")
            parts[edit.key] = replace(dish, key=part.key, role=part.role)
        elif edit.food:
            food = swapped_in(edit.food)
            parts[edit.key] = food_portion(food, edit.grams, key=part.key, role=part.role)
        else:
            parts[edit.key] = part.times(edit.grams / part.grams if part.grams else 0.0)
    return [*parts.values(), *added]


def _mosts(aims: Iterable[Aim]) -> Iterable[Aim]:
    """What a dressing may be too much of: it need not bring anything."""
    for aim in aims:
        if aim.high is not None and aim.key != "energy_kcal":
            yield replace(aim, low=None, firm_low=False)


def _shown(it: Changeable, look: Look, aims: Iterable[Aim], one: Gap) -> ShownGap:
    stands = reading(one.aim, amount_of(look.profile, one.aim.key))
    return ShownGap(
        stands,
        [_offered(it, offer, reason(offer.swap, tuple(aims))) for offer in one.swaps],
        [
            _offered(it, offer, _filled_why(offer.filler, one.aim, look))
            for offer in one.fillers
            if offer.filler
        ],
    )


def _filled_why(filler: Filler, aim: Aim, look: Look) -> str:
    """Why a food was added, for a version."""
    nutrient, short = NUTRIENT[aim.key], -aim.miss(amount_of(look.profile, aim.key).amount)
    by = f"{figures.digits(short, nutrient.decimals)} {nutrient.unit}"
    return f"{filler.words} added: {nutrient.name.lower()} was under by {by}"


def _offered(it: Changeable, offer: Offer, why: str) -> Offered:
    swap = offer.swap
    return Offered(
        words=swap.words,
        closed=swap.closed,
        effects=[(step.effect, step.fails) for step in swap.steps if step.effect],
        moves=[_moved(move) for move in offer.moves],
        cautions=offer.cautions,
        unknown=[_unknown_words(row) for row in offer.unknown],
        token=token_for(it.key, it.record.version, swap.steps, why),
        filler=offer.filler,
    )


def _moved(move: Move) -> ShownMove:
    nutrient = NUTRIENT[move.key]
    before, after = (
        figures.digits(value, nutrient.decimals) for value in (move.before, move.after)
    )
    inside = move.state == "inside"
    return ShownMove(
        name=nutrient.name,
        before=before,
        after=f"{after} {nutrient.unit}",
        word=move.state if inside else figures.by_words(move.state, move.by, move.key),
        state=move.state,
    )


def _unknown_words(row: Unknown) -> str:
    """What is not known of the foods that come in, with how much it could be."""
    nutrient, size = NUTRIENT[row.key], ""
    if row.between is not None:
        more = row.between[1] - row.between[0]
        size = f": up to {figures.digits(more, nutrient.decimals)} {nutrient.unit} more"
    return f"{nutrient.name} is unknown in {', '.join(row.names)}{size}"


def _refused_words(plan: Plan) -> str:
    """What is never offered here, in words."""
    client = plan.client
    if client is None:
        return ""
    said = [f"what holds {client.allergy_words}"] if client.allergies else []
    said += [client.dislikes.lower()] if client.dislikes else []
    said += [f"{kind} ({whose})" for kind, whose in avoided_by(plan).items()]
    return "; ".join(said)
