"""How often the same dish comes, and how many different ones there are: the pattern of a week as
rules, what breaks them, and which gives way first where the favorites are too few."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from nutrition.planning.week import DAYS_OF_A_WEEK, DIFFERENT, Candidate, Planned, Slot, Turns, Week

# The rules in the order in which they give way, and what one step of each counts: a rule is broken
# before the next one is. No limit of safety is among them. Common practice, no source.
KINDS_FEW, ADDED_OFTEN, IN_A_ROW, IN_A_WEEK, OVER_ALL, TO_A_HALF, TWICE_A_DAY = (
    "different dishes of a kind",
    "the same thing added",
    "days in a row",
    "times a week",
    "times a week over all meals",
    "added to less than a portion",
    "twice on a day",
)
GIVES_WAY = {
    KINDS_FEW: 1,
    ADDED_OFTEN: 1,
    IN_A_ROW: 2,
    IN_A_WEEK: 8,
    OVER_ALL: 16,
    TO_A_HALF: 32,
    TWICE_A_DAY: 64,
}


# The same thing is added to no more meals of a week than these, and to one of a day. Common
# practice, no source.
MOST_ADDED, ADDED_A_DAY = 4, 1
# The meals of two days show what may be added at all.
MANY_ADDED = 8


@dataclass(frozen=True, kw_only=True)
class AtMost:
    """The same dish stands in at most so many of some slots; `batches` where only what is cooked in
    batches is meant, or only what is not."""

    rule: str
    meal: str
    slots: tuple[str, ...]
    most: int
    batches: bool | None = None

    def means(self, candidate: Candidate) -> bool:
        if not candidate.dish and self.rule not in (TWICE_A_DAY, ADDED_OFTEN):
            return False
        return self.batches is None or self.batches == bool(candidate.parts)


@dataclass(frozen=True, kw_only=True)
class AtLeast:
    """So many different dishes stand in the slots of a kind."""

    kind: str
    slots: tuple[str, ...]
    least: int
    rule: str = KINDS_FEW


@dataclass(frozen=True, kw_only=True)
class Broken:
    """A rule that is broken: how often it is, and by which dish, none where dishes are missing."""

    rule: str
    meal: str
    candidate: str
    times: int
    most: int


@dataclass(frozen=True)
class Pattern:
    """The rules of a week."""

    at_most: tuple[AtMost, ...]
    at_least: tuple[AtLeast, ...]


def pattern_of(week: Week) -> Pattern:
    """The rules of a week."""
    return week.once("pattern", lambda one: Pattern(tuple(_at_most(one)), tuple(_at_least(one))))


def blocks(week: Week) -> list[range]:
    """The weeks that a plan has: its days by seven."""
    return [
        range(first, min(first + DAYS_OF_A_WEEK, week.days))
        for first in range(0, week.days, DAYS_OF_A_WEEK)
    ]


def _at_most(week: Week) -> Iterator[AtMost]:
    for day in week.planned_days:
        once = [slot for slot in week.slots_of(day) if not slot.repeats]
        if len(once) > 1:
            yield AtMost(rule=TWICE_A_DAY, meal="", slots=_keys(once), most=1)
    varied = [slot for slot in week.slots if slot.varies]
    for meal in dict.fromkeys(slot.meal for slot in varied):
        mine = [slot for slot in varied if slot.meal == meal]
        usual, fresh = week.wishes.turns[meal], week.wishes.turns["dinner"]
        if meal == "lunch" and usual != fresh:
            yield from _turns(week, meal, mine, usual, True)
            yield from _turns(week, meal, mine, fresh, False)
        else:
            yield from _turns(week, meal, mine, usual, None)
    # an apple may come every day; apples that somebody bakes go by the rotation
    plain = [slot for slot in week.slots if not (slot.varies or slot.repeats or slot.optional)]
    for meal in dict.fromkeys(slot.meal for slot in plain):
        mine = [slot for slot in plain if slot.meal == meal]
        yield from _turns(week, meal, mine, week.wishes.turns[meal], True)
    if len({slot.meal for slot in varied}) > 1:
        yield from _turns(week, "", varied, week.wishes.over_all, None)
    yield from _added(week)


def _added(week: Week) -> Iterator[AtMost]:
    """What is added is not always the same, as far as there is something else."""
    added = [slot for slot in week.slots if slot.optional]
    things = sum(
        1 for one in week.candidates if any(slot.takes(one) for slot in added[:MANY_ADDED])
    )
    for days, usual in (
        *(((day,), ADDED_A_DAY) for day in week.planned_days),
        *((block, MOST_ADDED) for block in blocks(week)),
    ):
        some = [slot for slot in added if slot.day in days]
        most = max(usual, math.ceil(len(some) / max(things, 1)))
        if len(some) > most:
            yield AtMost(rule=ADDED_OFTEN, meal="", slots=_keys(some), most=most)


def _turns(
    week: Week, meal: str, slots: Sequence[Slot], turns: Turns, batches: bool | None
) -> Iterator[AtMost]:
    """At most so many days in a row, and so many times in each week."""
    long = turns.in_a_row + 1
    for first in range(week.days - long + 1):
        some = [slot for slot in slots if first <= slot.day < first + long]
        if len({slot.day for slot in some}) == long:
            yield AtMost(
                rule=IN_A_ROW, meal=meal, slots=_keys(some), most=turns.in_a_row, batches=batches
            )
    for block in blocks(week):
        some = [slot for slot in slots if slot.day in block]
        if len(some) > turns.a_week:
            rule = IN_A_WEEK if meal else OVER_ALL
            yield AtMost(
                rule=rule, meal=meal, slots=_keys(some), most=turns.a_week, batches=batches
            )


def _keys(slots: Sequence[Slot]) -> tuple[str, ...]:
    return tuple(slot.key for slot in slots)


def _at_least(week: Week) -> Iterator[AtLeast]:
    for kind, wanted in DIFFERENT.items():
        there = sum(1 for one in week.candidates if kind in one.kinds)
        for block in blocks(week):
            some = [slot for slot in week.slots if slot.kind == kind and slot.day in block]
            least = min(wanted, there, len(some))
            if least > 1:
                yield AtLeast(kind=kind, slots=_keys(some), least=least)


def pinned_in(week: Week, slots: Sequence[str], candidate: str) -> int:
    """How many of some slots are pinned to a dish: what the practitioner put there is no fault of
    the plan."""
    wanted = set(slots)
    return sum(
        1
        for slot in week.slots
        if slot.key in wanted
        and slot.pinned
        and slot.placed is not None
        and slot.placed.candidate == candidate
    )


def broken(week: Week, planned: Planned) -> list[Broken]:
    """The rules that a planned week breaks."""
    pattern, out = pattern_of(week), []
    at = {key: choice.candidate for key, choice in planned.items() if choice is not None}
    candidates = week.by_key
    for rule in pattern.at_most:
        for key, times in Counter(at[slot] for slot in rule.slots if slot in at).items():
            if times <= rule.most or not rule.means(candidates[key]):
                continue
            over = times - max(rule.most, pinned_in(week, rule.slots, key))
            if over > 0:
                one = Broken(
                    rule=rule.rule, meal=rule.meal, candidate=key, times=over, most=rule.most
                )
                out.append(one)
    for few in pattern.at_least:
        short = few.least - len({at[slot] for slot in few.slots if slot in at})
        if short > 0:
            one = Broken(rule=few.rule, meal=few.kind, candidate="", times=short, most=few.least)
            out.append(one)
    return [*out, *_to_a_half(week, planned)]


def served_less(slot: Slot, candidate: Candidate, count: float) -> bool:
    """Whether it is less than the usual portion, and could be more: nothing is added to that."""
    most = candidate.counts_for(slot.portion, slot.least, slot.most)[-1]
    return not slot.optional and count < min(candidate.usual * slot.portion, most) - 1e-9


def beside(week: Week, added: Slot) -> list[Slot]:
    """What stands at the meal that something is added to, but for what is pinned."""
    return [
        slot
        for slot in week.slots_of(added.day)
        if slot.meal == added.meal and not slot.optional and not slot.pinned
    ]


def _to_a_half(week: Week, planned: Planned) -> Iterator[Broken]:
    for added in week.slots:
        if not added.optional or planned.get(added.key) is None:
            continue
        for slot in beside(week, added):
            choice = planned.get(slot.key)
            if choice is None:
                continue
            if served_less(slot, week.by_key[choice.candidate], choice.count):
                yield Broken(
                    rule=TO_A_HALF, meal=slot.meal, candidate=choice.candidate, times=1, most=0
                )


def weight_of(some: Sequence[Broken]) -> int:
    """What the rules that are broken count together."""
    return sum(GIVES_WAY[one.rule] * one.times for one in some)


@dataclass(frozen=True, kw_only=True)
class Missing:
    """A kind of dish of which a week without a broken rule needs so many, and there are so many
    that may stand there."""

    kind: str
    needs: int
    there: int

    @property
    def more(self) -> int:
        return self.needs - self.there


def empty_kinds(week: Week) -> list[str]:
    """The kinds of slot that nothing may stand in."""
    return sorted(
        {slot.kind for slot in week.slots if not slot.optional and not week.choices(slot)}
    )


def missing(week: Week) -> list[Missing]:
    """The kinds of which there are too few dishes for the rotation, or none at all. So many more
    are needed at the least."""
    out = []
    for kind in dict.fromkeys(slot.kind for slot in week.slots if not slot.optional):
        mine = [slot for slot in week.slots if slot.kind == kind and not slot.pinned]
        if not mine:
            continue
        there = sum(1 for one in week.candidates if any(slot.takes(one) for slot in mine))
        needs = max(1, *(_needed(week, kind, mine, block) for block in blocks(week)))
        if needs > there:
            out.append(Missing(kind=kind, needs=needs, there=there))
    return out


def _needed(week: Week, kind: str, mine: Sequence[Slot], block: range) -> int:
    """How many different dishes the slots of a kind in a week need by each rule."""
    some = [slot for slot in mine if slot.day in block]
    by_day = Counter(slot.day for slot in some if not slot.repeats)
    needs = [max(by_day.values(), default=0), min(DIFFERENT.get(kind, 0), len(some))]
    varied = [slot for slot in some if slot.varies]
    for meal, count in Counter(slot.meal for slot in varied).items():
        needs.append(math.ceil(count / week.wishes.turns[meal].a_week))
    needs.append(math.ceil(len(varied) / week.wishes.over_all.a_week))
    return max(needs)
