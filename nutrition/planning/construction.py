"""A first week in no time: dishes in turn over the days between two cookings, each where it breaks
the fewest rules."""

from __future__ import annotations

from collections import Counter

from nutrition.planning.rotation import GIVES_WAY, AtMost, pattern_of
from nutrition.planning.week import Candidate, Choice, Planned, Slot, Week


def constructed(week: Week) -> Planned:
    """A week that goes by its rotation as far as one dish after the other can, in portions as
    people usually eat them; what is placed stays, what is optional stays empty."""
    return _Rotation(week).filled()


class _Rotation:
    def __init__(self, week: Week) -> None:
        self.week = week
        self.planned: dict[str, Choice | None] = {slot.key: None for slot in week.slots}
        # of each slot the rules that it is in; of each rule how often a dish stands in its slots
        self.rules: dict[str, list[AtMost]] = {slot.key: [] for slot in week.slots}
        for rule in pattern_of(week).at_most:
            for key in rule.slots:
                self.rules[key].append(rule)
        self.uses: Counter[tuple[int, str]] = Counter()
        self.stood: Counter[str] = Counter()
        self.of_kind: dict[str, set[str]] = {}

    def filled(self) -> Planned:
        slots = [slot for slot in self.week.slots if not slot.optional or slot.placed]
        for slot in slots:
            if slot.placed is not None:
                self._put(slot, slot.placed)
        # what may stand in few places first, and each kind of place day after day
        free = [slot for slot in slots if slot.placed is None]
        groups: dict[tuple[str, str], list[Slot]] = {}
        for slot in free:
            groups.setdefault((slot.meal, slot.kind), []).append(slot)
        for some in sorted(groups.values(), key=lambda group: len(self._choices(group[0]))):
            for slot in some:
                choices = self._choices(slot)
                if choices:
                    best = min(choices, key=lambda one: self._cost(slot, one))
                    self._put(slot, self._portion(slot, best))
        return self.planned

    def _choices(self, slot: Slot) -> list[Candidate]:
        return [one for one in self.week.candidates if slot.takes(one)]

    def _cost(self, slot: Slot, one: Candidate) -> tuple[int, int, int, int, int]:
        """The rules that it would break, whether it is not what is cooked already, how often it
        stood, its place in what is liked."""
        broken = sum(
            GIVES_WAY[rule.rule]
            for rule in self.rules[slot.key]
            if rule.means(one) and self.uses[id(rule), one.key] >= rule.most
        )
        new = one.key not in self.of_kind.get(slot.kind, set())
        return broken, -self._in_pot(slot, one), self.stood[one.key], int(not new), one.liked

    def _in_pot(self, slot: Slot, one: Candidate) -> int:
        """Whether a pot of the day before holds it still, and has not been eaten of too often."""
        if not one.parts or slot.day == 0:
            return 0
        keeps = min(self.week.made[key].keeps for key in one.parts)
        before = [
            other.day
            for other in self.week.slots
            if (choice := self.planned[other.key]) is not None
            and choice.candidate == one.key
            and other.day < slot.day
        ]
        return int(bool(before) and slot.day - max(before) <= 1 and slot.day - min(before) <= keeps)

    def _put(self, slot: Slot, choice: Choice) -> None:
        self.planned[slot.key] = choice
        for rule in self.rules[slot.key]:
            self.uses[id(rule), choice.candidate] += 1
        self.stood[choice.candidate] += 1
        self.of_kind.setdefault(slot.kind, set()).add(choice.candidate)

    def _portion(self, slot: Slot, one: Candidate) -> Choice:
        """The portion that comes nearest to the usual one."""
        usual = one.usual * slot.portion
        counts = one.counts_for(slot.portion, slot.least, slot.most)
        return Choice(candidate=one.key, count=min(counts, key=lambda count: abs(count - usual)))
