"""What came out of a balance problem, as plain data and as a page of text."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from nutrition.composition.nutrients import NUTRIENT
from nutrition.portions.obstacles import closest, colliding, misses
from nutrition.portions.problem import Problem, name_of
from nutrition.portions.proposals import Proposal, allowed, partly_unknown
from nutrition.portions.solver import Answer, balance
from nutrition.portions.work import Work
from nutrition.swaps.hints import helping
from nutrition.targets.aim import Aim

SIGNIFICANT = 9
# Of the seconds that are given so much is work; the rest is a slower machine's.
FITS_WITHIN = 0.6
KNOWN_ONLY = "what is known, the unknown at its largest"
STOPPED = "the clock ended the search: asked again it may find other portions"


def _round(value: float) -> float:
    return float(f"{value:.{SIGNIFICANT}g}")


def _answered(problem: Problem, seconds: float | None) -> tuple[Answer, list[Proposal], Problem]:
    """The answer that is given first, what is proposed as a cook would, and the problem as it was
    asked of the parts."""
    # who gives the seconds means the clock; the work is counted so that it fits within them
    work = None if seconds is None else Work.of(seconds * FITS_WITHIN, seconds)
    if not problem.cooks:
        return balance(problem, work), [], problem
    found = allowed(problem, work)
    return found.answer, list(found.told), found.problem


def solve(problem: Problem, seconds: float | None = None) -> dict[str, object]:
    """The answer as JSON-ready data; the keys are the command's published ones."""
    answer, told, problem = _answered(problem, seconds)
    missed = misses(problem, answer)
    named = colliding(problem) if answer.status == "infeasible" else []
    unknown = _unknown(problem, answer)
    return {
        "status": answer.status,
        "proved_for": KNOWN_ONLY if unknown else "all of it",
        **({"judged_as": problem.judged_as} if problem.judged_as else {}),
        **({"stopped": STOPPED} if answer.stopped else {}),
        "portions": {name: _round(grams) for name, grams in answer.portions.items()},
        "totals": {aim.key: _round(answer.totals[aim.key]) for aim in _shown(problem, answer)},
        "unknown": unknown,
        "held": {part.key: part.limits.held for part in problem.parts if part.limits.held},
        "violation": _round(answer.violation),
        "deviation": _round(answer.deviation),
        "misses": [
            {"nutrient": miss.key, "by": _round(miss.by), "why": miss.why} for miss in missed
        ],
        "colliding": [_collision(problem, name) for name in named],
        "hints": [
            {
                "kind": hint.kind,
                "id": hint.id,
                "to": _round(hint.to),
                "violation": _round(hint.violation),
                "text": hint.words,
            }
            for hint in helping(problem, answer)
        ],
        "proposals": [
            {
                "name": one.name,
                "closes": _round(one.closes),
                "text": one.sentence,
                "because": list(one.because),
                "portions": {name: _round(grams) for name, grams in one.answer.portions.items()},
            }
            for one in told
        ],
    }


def _shown(problem: Problem, answer: Answer) -> list[Aim]:
    """The targets that were asked for, and the upper levels that are passed."""
    return [
        aim
        for aim in problem.aims
        if aim.weight > 0 or aim.miss(answer.totals[aim.key], answer.at_most[aim.key])
    ]


def _unknown(problem: Problem, answer: Answer) -> list[dict[str, object]]:
    """Of each target with a most: what of it is not known, in which parts, and between what it then
    lies."""
    out: list[dict[str, object]] = []
    for aim in partly_unknown(answer, problem):
        known, most = answer.totals[aim.key], answer.at_most[aim.key]
        names = [
            part.name
            for part in problem.parts
            if part.unknown.get(aim.key, 0.0) * answer.portions[part.key] > 0
        ]
        out.append({"nutrient": aim.key, "parts": names, "from": _round(known), "to": _round(most)})
    return out


def _collision(problem: Problem, name: str) -> dict[str, object]:
    reached = closest(problem, name)
    return {"limit": name, "closest": None if reached is None else _round(reached)}


def _proved(data: Mapping[str, Any]) -> str:
    return f"Proved for {KNOWN_ONLY}" if data["unknown"] else "Proved"


def _cooks_words(data: Mapping[str, Any]) -> list[str]:
    """What is proposed as a cook would, a line each."""
    if not data["proposals"]:
        if data["status"] == "infeasible" or data["misses"]:
            return ["No change of these portions closes enough of what is missed."]
        return ["Nothing to change: it is inside everything that is asked of it."]
    out = []
    for row in data["proposals"]:
        mosts = ", ".join(row["because"])
        why = f" Smaller vegetables because of {mosts}." if mosts else ""
        out.append(f"{row['name']} (closes {row['closes']:.0%}): {row['text']}{why}")
    if data["status"] == "infeasible":
        out.append("The hard limits cannot all be kept. These portions come nearest.")
    elif data["status"] == "optimal":
        out.append(f"{_proved(data)}: no portions that earn their moves come nearer.")
    return out


def as_text(problem: Problem, data: Mapping[str, Any]) -> str:
    """The answer as a page of text."""
    words = {
        "optimal": f"{_proved(data)}: no other portions do better.",
        "feasible": "The best found; not proved the best.",
        "infeasible": "The hard limits cannot all be kept. These portions come nearest.",
    }
    out = [words[data["status"]]]
    if problem.cooks:
        out = _cooks_words(data) or out
    if problem.judged_as:
        out.append(f"Judged as {problem.judged_as}.")
    if "stopped" in data:
        out.append(f"{data['stopped'].capitalize()}.")
    for part in problem.parts:
        new = data["portions"][part.key]
        moved = f" ({new - part.grams:+.0f})" if abs(new - part.grams) >= 0.5 else ""
        out.append(f"{new:8.1f} g{moved:9}{'  locked' if part.locked else ''}  {part.name}")
        if part.limits.held:
            out.append(f"{'':10} {part.limits.held}")
    out.append("")
    most = {row["nutrient"]: row["to"] for row in data["unknown"]}
    for aim in problem.aims:
        if aim.key not in data["totals"]:
            continue
        places = NUTRIENT[aim.key].decimals
        total, miss = data["totals"][aim.key], aim.miss(data["totals"][aim.key], most.get(aim.key))
        stands = (
            "inside"
            if not miss
            else f"{'under' if miss < 0 else 'over'} by {abs(miss):,.{places}f}"
        )
        out.append(
            f"{name_of(aim.key):28}{total:>12,.{places}f} {NUTRIENT[aim.key].unit:8} {stands}"
        )
    out.append(
        f"Misses {data['violation']:.4f}, distances {data['deviation']:.4f} (each over its aim, "
        f"weighted)"
    )
    for row in data["unknown"]:
        span = " and ".join(
            f"{row[side]:,.{NUTRIENT[row['nutrient']].decimals}f}" for side in ("from", "to")
        )
        name, unit = name_of(row["nutrient"]), NUTRIENT[row["nutrient"]].unit
        out.append(f"{name} is unknown in {', '.join(row['parts'])}: in all between {span} {unit}")
    out += [f"{NUTRIENT[miss['nutrient']].name}: {miss['why']}" for miss in data["misses"]]
    if data["colliding"]:
        out.append(
            "Cannot all be kept: " + ", ".join(name_of(row["limit"]) for row in data["colliding"])
        )
    out += [
        f"Would help: {hint['text']} (misses then {hint['violation']:.4f})"
        for hint in data["hints"]
    ]
    return "\n".join(out)
