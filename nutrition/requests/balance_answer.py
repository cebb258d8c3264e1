"""What came out of a balance problem, as plain data and as a page of text."""

from __future__ import annotations

from typing import Any

from pydantic import Field

from nutrition.composition.foods import food_table
from nutrition.composition.nutrients import NUTRIENT
from nutrition.portions.allowed import allowed
from nutrition.portions.less_in_a_dish import LineCut
from nutrition.portions.obstacles import closest, colliding, misses
from nutrition.portions.problem import Problem, name_of
from nutrition.portions.proposals import Proposal, partly_unknown
from nutrition.portions.solver import Answer, balance
from nutrition.portions.work import Work
from nutrition.requests.structure import Told, rounded
from nutrition.swaps.hints import helping
from nutrition.targets.aim import Aim

SIGNIFICANT = 9
KNOWN_ONLY = "what is known, the unknown at its largest"
STOPPED = "the clock ended the search: asked again it may find other portions"


class UnknownTold(Told):
    """Of a target with a most: the parts of which it is not known, and between what it lies."""

    nutrient: str
    parts: list[str]
    least: float = Field(alias="from")
    most: float = Field(alias="to")


class MissTold(Told):
    """By how much a target is missed, below zero for too little, and why."""

    nutrient: str
    by: float
    why: str


class CollisionTold(Told):
    """A limit that cannot be kept beside the others, and how near it can be come to."""

    limit: str
    closest: float | None


class HintTold(Told):
    """A single change that would help; `violation` is what is missed after it."""

    kind: str
    id: str
    to: float
    violation: float
    text: str


class LineTold(Told):
    """So much of a line less in the dish that a part is: what of it goes [g]."""

    part: str
    food: str
    less: float
    text: str


class ProposalTold(Told):
    """A few changes as a cook would make them; `closes` is their share of what is missed. What is
    added is among the portions by the food's name in the table; `line` is what is less in a
    dish."""

    name: str
    closes: float
    text: str
    because: list[str]
    portions: dict[str, float]
    line: LineTold | None = None


class BalanceAnswer(Told):
    """Portions by part [g], totals by target, what is missed and what would help."""

    status: str
    proved_for: str
    judged_as: str = ""
    stopped: str = ""
    portions: dict[str, float]
    totals: dict[str, float]
    unknown: list[UnknownTold]
    held: dict[str, str]
    violation: float
    deviation: float
    misses: list[MissTold]
    colliding: list[CollisionTold]
    hints: list[HintTold]
    proposals: list[ProposalTold]
    why: dict[str, Any] = {}


def _round(value: float) -> float:
    return rounded(value, SIGNIFICANT)


def _grams(portions: dict[str, float]) -> dict[str, float]:
    return {name: _round(grams) for name, grams in portions.items()}


def _answered(
    problem: Problem, seconds: float | None
) -> tuple[Answer, list[Proposal], Problem, Problem]:
    """The answer that is given first, what is proposed as a cook would, the problem as it was
    asked of the parts, and with all that they may be."""
    work = Work.within(seconds)
    if not problem.cooks:
        return balance(problem, work), [], problem, problem
    found = allowed(problem, work)
    return found.answer, list(found.told), found.problem, found.asked


def solve(problem: Problem, seconds: float | None = None) -> BalanceAnswer:
    """The portions that come nearest, within some seconds where they are given."""
    answer, proposed, problem, asked = _answered(problem, seconds)
    named = colliding(problem) if answer.status == "infeasible" else []
    unknown = _unknown(problem, answer)
    told = BalanceAnswer(
        status=answer.status,
        proved_for=KNOWN_ONLY if unknown else "all of it",
        portions=_grams(answer.portions),
        totals={aim.key: _round(answer.totals[aim.key]) for aim in _shown(problem, answer)},
        unknown=unknown,
        held={part.key: part.limits.held for part in problem.parts if part.limits.held},
        violation=_round(answer.violation),
        deviation=_round(answer.deviation),
        misses=[
            MissTold(nutrient=miss.key, by=_round(miss.by), why=miss.why)
            for miss in misses(problem, answer, asked)
        ],
        colliding=[_collision(problem, name) for name in named],
        hints=[
            HintTold(
                kind=hint.kind,
                id=hint.id,
                to=_round(hint.to),
                violation=_round(hint.violation),
                text=hint.words,
            )
            for hint in helping(problem, answer)
        ],
        proposals=[
            ProposalTold(
                name=one.name,
                closes=_round(one.closes),
                text=one.sentence,
                because=list(one.because),
                portions=_grams(one.answer.portions),
                line=_line(one.cut),
            )
            for one in proposed
        ],
    )
    said = {"judged_as": problem.judged_as, "stopped": STOPPED if answer.stopped else ""}
    return told.model_copy(update={key: words for key, words in said.items() if words})


def _line(cut: LineCut | None) -> LineTold | None:
    if cut is None:
        return None
    return LineTold(part=cut.part, food=cut.food.slug, less=_round(cut.gone_g), text=cut.words)


def _shown(problem: Problem, answer: Answer) -> list[Aim]:
    """The targets that were asked for, and the upper levels that are passed."""
    return [
        aim
        for aim in problem.aims
        if aim.weight > 0 or aim.miss(answer.totals[aim.key], answer.at_most[aim.key])
    ]


def _unknown(problem: Problem, answer: Answer) -> list[UnknownTold]:
    """Of each target with a most: what of it is not known, in which parts, and between what it then
    lies."""
    out = []
    for aim in partly_unknown(answer, problem):
        known, most = answer.totals[aim.key], answer.at_most[aim.key]
        names = [
            part.name
            for part in problem.parts
            if part.unknown.get(aim.key, 0.0) * answer.portions[part.key] > 0
        ]
        ends = {"from": _round(known), "to": _round(most)}
        out.append(UnknownTold.model_validate({"nutrient": aim.key, "parts": names, **ends}))
    return out


def _collision(problem: Problem, name: str) -> CollisionTold:
    reached = closest(problem, name)
    return CollisionTold(limit=name, closest=None if reached is None else _round(reached))


def _proved(answer: BalanceAnswer) -> str:
    return f"Proved for {KNOWN_ONLY}" if answer.unknown else "Proved"


def _cooks_words(answer: BalanceAnswer) -> list[str]:
    """What is proposed as a cook would, a line each."""
    if not answer.proposals:
        if answer.status == "infeasible" or answer.misses:
            return ["No change of these portions closes enough of what is missed."]
        return ["Nothing to change: it is inside everything that is asked of it."]
    out = []
    for row in answer.proposals:
        mosts = ", ".join(row.because)
        why = f" Smaller vegetables because of {mosts}." if mosts else ""
        out.append(f"{row.name} (closes {row.closes:.0%}): {row.text}{why}")
    if answer.status == "infeasible":
        out.append("The hard limits cannot all be kept. These portions come nearest.")
    elif answer.status == "optimal":
        out.append(f"{_proved(answer)}: no portions that earn their moves come nearer.")
    return out


def _parts_words(problem: Problem, answer: BalanceAnswer) -> list[str]:
    there = {part.key for part in problem.parts}
    out = [
        f"{grams:8.1f} g  added    {food_table()[key].name}"
        for key, grams in answer.portions.items()
        if key not in there and grams > 0
    ]
    for part in problem.parts:
        new = answer.portions[part.key]
        moved = f" ({new - part.grams:+.0f})" if abs(new - part.grams) >= 0.5 else ""
        out.append(f"{new:8.1f} g{moved:9}{'  locked' if part.locked else ''}  {part.name}")
        if part.limits.held:
            out.append(f"{'':10} {part.limits.held}")
    return out


def _totals_words(problem: Problem, answer: BalanceAnswer) -> list[str]:
    out = []
    most = {row.nutrient: row.most for row in answer.unknown}
    for aim in problem.aims:
        if aim.key not in answer.totals:
            continue
        nutrient, total = NUTRIENT[aim.key], answer.totals[aim.key]
        miss = aim.miss(total, most.get(aim.key))
        by = f"{abs(miss):,.{nutrient.decimals}f}"
        stands = "inside" if not miss else f"{'under' if miss < 0 else 'over'} by {by}"
        out.append(
            f"{name_of(aim.key):28}{total:>12,.{nutrient.decimals}f} {nutrient.unit:8} {stands}"
        )
    return out


def as_text(problem: Problem, answer: BalanceAnswer) -> str:
    """The answer as a page of text."""
    words = {
        "optimal": f"{_proved(answer)}: no other portions do better.",
        "feasible": "The best found; not proved the best.",
        "infeasible": "The hard limits cannot all be kept. These portions come nearest.",
    }
    out = _cooks_words(answer) if problem.cooks else [words[answer.status]]
    if problem.judged_as:
        out.append(f"Judged as {problem.judged_as}.")
    if answer.stopped:
        out.append(f"{answer.stopped.capitalize()}.")
    out += [*_parts_words(problem, answer), "", *_totals_words(problem, answer)]
    out.append(
        f"Misses {answer.violation:.4f}, distances {answer.deviation:.4f} (each over its aim, "
        f"weighted)"
    )
    for row in answer.unknown:
        nutrient = NUTRIENT[row.nutrient]
        span = " and ".join(f"{end:,.{nutrient.decimals}f}" for end in (row.least, row.most))
        out.append(
            f"{name_of(row.nutrient)} is unknown in {', '.join(row.parts)}: in all between {span} "
            f"{nutrient.unit}"
        )
    out += [f"{NUTRIENT[miss.nutrient].name}: {miss.why}" for miss in answer.misses]
    if answer.colliding:
        names = ", ".join(name_of(row.limit) for row in answer.colliding)
        out.append(f"Cannot all be kept: {names}")
    out += [f"Would help: {hint.text} (misses then {hint.violation:.4f})" for hint in answer.hints]
    return "\n".join(out)
