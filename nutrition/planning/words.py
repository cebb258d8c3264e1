"""What is said of a planned week: what is proved, what it gives up for what, which rules gave way,
what is missing."""

from __future__ import annotations

from collections.abc import Collection, Sequence

from nutrition.composition.amounts import DENSITY
from nutrition.composition.nutrients import NUTRIENT
from nutrition.planning.bounds import Bound
from nutrition.planning.orders import LEAST_COOKING, MOST_VARIETY, NEAREST
from nutrition.planning.proposals import PlannedWeek
from nutrition.planning.rotation import (
    ADDED_OFTEN,
    IN_A_ROW,
    KINDS_FEW,
    TO_A_HALF,
    TWICE_A_DAY,
    Broken,
    Missing,
)
from nutrition.planning.search import Planning
from nutrition.planning.trades import (
    ADDED,
    DISHES,
    OFF_DAYS,
    PLANTS,
    POTS,
    SHORT,
    WASTE,
    Trade,
)
from nutrition.planning.week import Week
from nutrition.written.wording import uncapitalized

# With these a day of too little to eat is a danger within hours. ADA Standards of Care, from
# memory.
LOWERED_BY = frozenset({"insulin", "sulfonylurea"})
TITLES = {
    NEAREST.name: "Nearest to the targets",
    LEAST_COOKING.name: "Least cooking",
    MOST_VARIETY.name: "Most variety",
}
COUNTED = {
    POTS: ("pot", "pots"),
    OFF_DAYS: ("pot on another day than the cook's", "pots on other days than the cook's"),
    WASTE: ("serving left over", "servings left over"),
    DISHES: ("different dish", "different dishes"),
    PLANTS: ("plant", "plants"),
    ADDED: ("addition", "additions"),
}


def listed(words: Sequence[str]) -> str:
    """ "a, b and c" """
    return " and ".join([*([", ".join(words[:-1])] if words[:-1] else []), *words[-1:]])


def proved_words(planning: Planning) -> str:
    """What is proved of a week."""
    if planning.stopped:
        return "Stopped before the search was over: the best until then."
    if planning.best:
        return "Proved: no week is better by what counts, in its order."
    if planning.proved:
        names = {"hard": "limits", "pattern": "rotation", "leading": "energy and protein"}
        names |= {"watched": "averages of the targets", "off": "cook's days", "pots": "pots"}
        names |= {"again": "different dishes"}
        some = [names[level] for level in planning.proved if level in names]
        return f"No week is better by its {listed(some)}; the rest is the best found."
    return "The best that was found; a better one is not ruled out."


def trade_words(one: Trade) -> str:
    """ "5 pots instead of 8", "fiber 3 g under on the average instead of 1 g" """
    if one.kind != SHORT or one.bound is None:
        names = COUNTED[one.kind]
        return f"{one.one:.3g} {names[one.one != 1]} instead of {one.other:.3g}"
    name = uncapitalized(NUTRIENT[one.bound.aim.key].name)
    side = "under" if one.bound.least else "over"
    mine, theirs = (amount_words(one.bound, value) for value in (one.one, one.other))
    when = "on the average"
    if one.days is not None:
        when = f"its tenth on {one.days} day{'s' if one.days != 1 else ''}"
    if not one.one:
        return f"{name} no longer {side} {when} (before: {theirs})"
    return f"{name} {mine} {side} {when}" + (f" instead of {theirs}" if one.other else "")


def amount_words(bound: Bound, value: float) -> str:
    """An amount of a bound's nutrient, with its unit; a density by its own."""
    nutrient = NUTRIENT[bound.aim.key]
    if bound.aim.key == DENSITY:
        value = value / bound.per * bound.aim.per
    return nutrient.said(value)


def gives_words(found: Sequence[PlannedWeek], at: int) -> str:
    """What a week gives up for what, in one sentence."""
    one = found[at]
    if at == 0:
        return _of_the_first(found)
    better = [trade_words(trade) for trade in one.gives if trade.better]
    worse = [trade_words(trade) for trade in one.gives if not trade.better]
    said = listed(better) or "Other dishes"
    said = said[0].upper() + said[1:]
    return f"{said}; for that {listed(worse)}." if worse else f"{said}, for nothing in return."


def _of_the_first(found: Sequence[PlannedWeek]) -> str:
    """What the nearest week gives up: where another is better than it."""
    first, out = found[0], []
    for other in found[1:]:
        wanted = (POTS, OFF_DAYS) if other.name == LEAST_COOKING.name else (DISHES,)
        for trade in other.gives:
            if trade.kind in wanted and trade.better:
                name = COUNTED[trade.kind][1]
                out.append(f"{trade.other:.3g} {name}, where {trade.one:.3g} are possible")
    also = [TITLES[name].lower() for name in first.also]
    said = f"Nearest to the targets; for that {listed(out)}." if out else ""
    if also:
        said += f" It is also the one with {listed(also)}."
    return said.strip() or "No week was found that comes nearer to the targets."


def gave_way_words(week: Week, some: Sequence[Broken]) -> list[str]:
    """The rules of the rotation that gave way, each in words."""
    return list(dict.fromkeys(_broken_words(week, one) for one in some))


def _broken_words(week: Week, one: Broken) -> str:
    if one.rule == KINDS_FEW:
        return f"{one.most} different dishes of “{one.meal}” were asked for, {one.times} fewer came"
    name = week.by_key[one.candidate].name
    at = f" at {one.meal}" if one.meal else ""
    if one.rule == TO_A_HALF:
        return f"something is added to less than a portion of {name}"
    if one.rule == ADDED_OFTEN:
        return f"{name} is added more than {'once a day' if one.most == 1 else f'{one.most} times'}"
    if one.rule == TWICE_A_DAY:
        return f"{name} stands twice on a day"
    if one.rule == IN_A_ROW:
        return f"{name} comes on more than {one.most} days in a row{at}"
    return f"{name} comes more than {one.most} times a week{at or ' over all meals'}"


def missing_words(some: Sequence[Missing]) -> list[str]:
    """How many dishes of which kind are missing for a week that keeps its rotation."""
    return [
        f"{one.more} more of “{one.kind}” (there {'is' if one.there == 1 else 'are'} "
        f"{one.there or 'none'}, a week that keeps its rotation needs {one.needs})"
        for one in some
    ]


def starved_words(kcal: float) -> str:
    """Why a day is no plan."""
    return f"{kcal:,.0f} kcal under its least: no plan, a draft"


def stops_words(conditions: Collection[str]) -> str:
    """Why a draft is not even taken for who is brought too low by a medicine; empty for others."""
    if LOWERED_BY.isdisjoint(conditions):
        return ""
    return (
        "Stop: with insulin or a sulfonylurea a day of too little brings the sugar too low. "
        "Nothing of this is planned until the days have their energy, or who prescribes the "
        "medicine has lowered its dose."
    )
