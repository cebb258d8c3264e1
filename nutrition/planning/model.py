"""A week for OR-Tools CP-SAT: what stands in each slot, how much of it, from which pot, and each
sum that counts as a whole number."""

# Whole: one model for the solver; its parts share its variables.

from __future__ import annotations

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from nutrition.planning.score import (
    A_POT,
    FROM_FREEZER,
    MOUTHFUL,
    PER_AIM,
    PER_SERVING,
    Bound,
    besides,
    bounds_of,
    brings,
    liking,
    runs,
)
from nutrition.planning.week import DAY_BEFORE, Candidate, Choice, Planned, Slot, Week
from nutrition.portions.work import Work

# The sums that count, in their order: see score.py.
LEVELS = ("hard", "thrown", "mouthfuls", "frozen", "off", "moved", "same", "rest")
# No sum of a day's misses is larger than this many aims.
FAR = 400


@dataclass(frozen=True, kw_only=True)
class Found:
    """What a call of the solver found: its status, the week, the value of what was made smallest,
    and the bound under which no value can be. `order` are the slots that it was found for."""

    status: str
    planned: Planned | None
    value: int
    bound: int
    order: tuple[str, ...] = ()


class Model:
    """The variables of a week. `levels` are the sums by name; what is fixed for one call is freed
    again after it. `pots` leaves cooking out where it is not asked about."""

    def __init__(self, week: Week, pots: bool = True) -> None:
        from ortools.sat.python import cp_model

        self.cp, self.week = cp_model, week
        self.model: Any = cp_model.CpModel()
        self.candidates = week.by_key
        self.options = {slot.key: self._options(slot) for slot in week.slots}
        self.stands: dict[tuple[str, str], Any] = {}
        self.count: dict[tuple[str, str], Any] = {}
        self.thawed: list[Any] = []
        # the step between the portions of a candidate in a slot; None where they are uneven
        self.even: dict[tuple[str, str], float | None] = {}
        self.brought: dict[tuple[str, float, bool], dict[str, float]] = {}
        for slot in week.slots:
            self._slot(slot)
        self.terms: dict[str, list[Any]] = {name: [] for name in LEVELS}
        self._hard_and_missed()
        if pots:
            self._pots()
        self._moved()
        self._variety()
        self._rest()
        self.levels = {name: self._sum(terms) for name, terms in self.terms.items()}

    def _sum(self, terms: Sequence[Any]) -> Any:
        return self.cp.LinearExpr.sum(list(terms)) if terms else 0

    def _options(self, slot: Slot) -> dict[str, list[float]]:
        """The portions of each candidate that may stand in a slot, from the smallest."""
        out = dict[str, list[float]]()
        for choice in self.week.choices(slot):
            out.setdefault(choice.candidate, []).append(choice.count)
        return {key: sorted(counts) for key, counts in out.items()}

    def _those(self, slot: Slot) -> list[tuple[Candidate, list[float]]]:
        """What may stand in a slot, with its portions."""
        return [(self.candidates[key], counts) for key, counts in self.options[slot.key].items()]

    def _slot(self, slot: Slot) -> None:
        here = []
        for one, counts in self._those(slot):
            stands = self.model.new_bool_var("")
            # portions by their place among those that can be served
            at = self.model.new_int_var(0, len(counts) - 1, "")
            self.model.add(at == 0).only_enforce_if(stands.negated())
            self.stands[slot.key, one.key], self.count[slot.key, one.key] = stands, at
            self.even[slot.key, one.key] = _even_step(counts)
            here.append(stands)
        if here:
            self.model.add_exactly_one(here)

    def amount(self, slot: Slot, one: Candidate, per_count: float, scale: float) -> Any:
        """So much for each that is served of a candidate in a slot, times the scale, as a whole
        number expression."""
        counts, step = self.options[slot.key][one.key], self.even[slot.key, one.key]
        stands, at = self.stands[slot.key, one.key], self.count[slot.key, one.key]
        if step is not None:
            first = round(counts[0] * per_count * scale)
            return first * stands + round(step * per_count * scale) * at
        # a portion that was placed and is no step of the usual ones
        values = [round(count * per_count * scale) for count in counts]
        out = self.model.new_int_var(min(*values, 0), max(*values, 0), "")
        self.model.add_element(at, values, out).only_enforce_if(stands)
        self.model.add(out == 0).only_enforce_if(stands.negated())
        return out

    def _total(self, slots: Sequence[Slot], bound: Bound, by: float) -> Any:
        """What some slots and what is eaten besides bring toward a bound, times `by`."""
        brought = self.brought.setdefault(
            (bound.key, bound.minus, bound.at_most),
            {key: brings(one, bound) for key, one in self.candidates.items()},
        )
        variables, times, others = [], [], []
        for slot in slots:
            for key, counts in self.options[slot.key].items():
                each = brought[key] * by
                step = self.even[slot.key, key]
                if step is None:
                    others.append(self.amount(slot, self.candidates[key], brought[key], by))
                    continue
                variables += [self.stands[slot.key, key], self.count[slot.key, key]]
                times += [round(counts[0] * each), round(step * each)]
        total = self.cp.LinearExpr.weighted_sum(variables, times)
        return (total + self._sum(others) if others else total) + round(
            besides(self.week, bound) * by
        )

    def _hard_and_missed(self) -> None:
        week = self.week
        days = [day for day in range(week.days) if week.slots_of(day)]
        missed: list[Any] = []
        for day in days:
            for bound in bounds_of(week.aims, week.density_g):
                at = self._total(week.slots_of(day), bound, PER_AIM / bound.per)
                self._count(self._miss(at, bound), bound, 1, missed)
        for bound in bounds_of(week.over_week, week.density_g) if days else ():
            by = PER_AIM / bound.per / len(days)
            each = [self._total(week.slots_of(day), bound, by) for day in days]
            self._count(self._miss(self._sum(each), bound), bound, len(days), missed)
        if missed:
            size = round(MOUTHFUL * max(len(days), 1) * PER_AIM)
            whole = self.model.new_int_var(0, FAR * PER_AIM // size + 1, "")
            # what rounding to whole numbers may add is no mouthful
            self.model.add(size * whole >= self._sum(missed) - size // 1000)
            self.terms["mouthfuls"].append(whole)
        self.missed = self._sum(missed)

    def _miss(self, total: Any, bound: Bound) -> Any:
        miss = self.model.new_int_var(0, FAR * PER_AIM, "")
        limit = round(bound.limit * PER_AIM / bound.per)
        self.model.add(miss >= (limit - total if bound.least else total - limit))
        return miss

    def _count(self, miss: Any, bound: Bound, times: int, missed: list[Any]) -> None:
        if bound.firm:
            self.terms["hard"].append(times * miss)
        if bound.aim.weight > 0:
            missed.append(round(times * bound.aim.weight) * miss)

    def _pots(self) -> None:
        """What is eaten of each thing prepared on each day comes from one pot, cooked in time."""
        week = self.week
        days = range(DAY_BEFORE, week.days)
        for key, made in week.made.items():
            used = [slot for slot in week.slots if self._takes(slot, key)]
            if not used:
                continue
            pots = {day: self.model.new_bool_var("") for day in days}
            eaten: dict[int, list[Any]] = {day: [] for day in days}
            most = 0
            for day in dict.fromkeys(slot.day for slot in used):
                wanted, top = self._wanted(key, [slot for slot in used if slot.day == day])
                most += top
                froms = []
                for cooked in days:
                    late = day - cooked > made.keeps
                    if cooked > day or (late and not made.freezes):
                        continue
                    here = self.model.new_bool_var("")
                    some = self.model.new_int_var(0, top, "")
                    self.model.add(some <= top * here)
                    self.model.add_implication(here, pots[cooked])
                    froms.append((here, some))
                    eaten[cooked].append(some)
                    if late:
                        self.thawed.append(some)
                self.model.add(self._sum([some for _here, some in froms]) == wanted)
                self.model.add_at_most_one(here for here, _some in froms)
            self._batches(key, pots, eaten, most)
        self._freezer()

    def _freezer(self) -> None:
        """What is eaten from the freezer counts by whole units of the last sum."""
        if self.thawed:
            units = self.model.new_int_var(0, 10**6, "")
            thawed = self._sum(self.thawed)
            self.model.add(units * PER_SERVING >= thawed * FROM_FREEZER - PER_SERVING // 2)
            self.terms["rest"].append(units)

    def _takes(self, slot: Slot, key: str) -> bool:
        return any(one.parts.get(key) for one, _counts in self._those(slot))

    def _wanted(self, key: str, slots: Sequence[Slot]) -> tuple[Any, int]:
        """The servings of something prepared that are eaten in some slots, and the most it can
        be."""
        terms, top = [], 0
        for slot in slots:
            tops = [0]
            for one, counts in self._those(slot):
                servings = one.parts.get(key, 0.0) * slot.eaters
                if servings:
                    terms.append(self.amount(slot, one, servings, PER_SERVING))
                    tops.append(math.ceil(counts[-1] * servings * PER_SERVING) + len(counts))
            top += max(tops)
        return self._sum(terms), top

    def _batches(
        self, key: str, pots: Mapping[int, Any], eaten: Mapping[int, Sequence[Any]], most: int
    ) -> None:
        made = self.week.made[key]
        least = round(made.least * PER_SERVING)
        top = most if math.isinf(made.most) else min(most, round(made.most * PER_SERVING))
        package = round(made.package * PER_SERVING) if made.package else 0
        for day, pot in pots.items():
            some = self._sum(eaten[day])
            if not eaten[day]:
                self.model.add(pot == 0)
                continue
            self.model.add(some <= top * pot)
            # without anything eaten there is no pot
            self.model.add(some >= pot)
            if least or package:
                left = self.model.new_int_var(0, max(least, package), "")
                if package:
                    packages = self.model.new_int_var(0, top // package + 2, "")
                    self.model.add(some + left == package * packages)
                    self.model.add(some + left >= least * pot)
                else:
                    self.model.add(left >= least * pot - some)
                self.terms["frozen" if made.freezes else "thrown"].append(left)
            if made.cooks and day not in self.week.cook_days:
                self.terms["off"].append(pot)
            self.terms["rest"].append(A_POT * pot)

    def _moved(self) -> None:
        for slot in self.week.slots:
            if slot.placed is None or slot.pinned:
                continue
            for one, counts in self._those(slot):
                stands, at = self.stands[slot.key, one.key], self.count[slot.key, one.key]
                if one.key != slot.placed.candidate:
                    self.terms["moved"].append(2 * stands)
                elif len(counts) > 1:
                    other = self.model.new_bool_var("")
                    own = counts.index(slot.placed.count)
                    self.model.add(at == own).only_enforce_if(stands, other.negated())
                    self.terms["moved"].append(other)

    def _variety(self) -> None:
        week = self.week
        for run in runs(week):
            keys = {key for slot in run[0] for key in self.options[slot.key]}
            for key in sorted(keys):
                days = [
                    [self.stands[slot.key, key] for slot in day if (slot.key, key) in self.stands]
                    for day in run
                ]
                if all(days):
                    again = self.model.new_bool_var("")
                    self.model.add(again >= sum(self._sum(day) for day in days) - len(run) + 1)
                    self.terms["same"].append(again)
        slots = list(week.slots)
        if week.wishes.plants:
            self._enough(slots, lambda one: one.plants, week.wishes.plants)
        if week.wishes.colors:
            for day in dict.fromkeys(slot.day for slot in slots):
                self._enough(week.slots_of(day), lambda one: one.colors, week.wishes.colors)

    def _enough(self, slots: Sequence[Slot], of: Any, wanted: int) -> None:
        """At least so many different ones among what stands in some slots; what is short counts."""
        with_it: dict[str, list[Any]] = {}
        for slot in slots:
            for one, _counts in self._those(slot):
                for name in sorted(of(one)):
                    with_it.setdefault(name, []).append(self.stands[slot.key, one.key])
        there = []
        for stands in with_it.values():
            here = self.model.new_bool_var("")
            self.model.add_bool_or([*stands, here.negated()])
            there.append(here)
        short = self.model.new_int_var(0, wanted, "")
        self.model.add(short >= wanted - self._sum(there))
        self.terms["same"].append(short)

    def _rest(self) -> None:
        for slot in self.week.slots:
            for one, counts in self._those(slot):
                at = self.count[slot.key, one.key]
                values = [liking(slot, one, count) for count in counts]
                stands = self.stands[slot.key, one.key]
                if len(set(values)) == 1:
                    self.terms["rest"].append(values[0] * stands)
                    continue
                cost = self.model.new_int_var(0, max(values), "")
                self.model.add_element(at, values, cost).only_enforce_if(stands)
                self.terms["rest"].append(cost)

    def forbid(self, keys: Collection[str]) -> None:
        """These are not eaten together on any day."""
        for day in range(self.week.days):
            there = []
            for key in keys:
                stands = [
                    self.stands[slot.key, key]
                    for slot in self.week.slots_of(day)
                    if (slot.key, key) in self.stands
                ]
                if not stands:
                    break
                here = self.model.new_bool_var("")
                for one in stands:
                    self.model.add_implication(one, here)
                there.append(here)
            else:
                self.model.add(self._sum(there) <= len(there) - 1)

    def hold(self, level: str, value: int) -> None:
        """From now on a sum is no larger than this."""
        if self.terms[level]:
            self.model.add(self.levels[level] <= value)

    def solve(
        self,
        objective: Any,
        work: Work,
        hint: Planned | None = None,
        fixed: Mapping[str, Choice | None] | None = None,
    ) -> Found:
        """Make a sum smallest, with some slots as they are in `fixed`. What it took is spent."""
        self.model.clear_hints()
        for (slot, key), stands in self.stands.items() if hint else ():
            choice = (hint or {}).get(slot)
            here = choice is not None and choice.candidate == key
            self.model.add_hint(stands, here)
            if here and choice is not None:
                self.model.add_hint(self.count[slot, key], self._place(slot, choice))
        self.model.minimize(objective)
        freed = self._fix(fixed or {})
        solver = self.cp.CpSolver()
        # one worker, a fixed seed and counted work: the same question has the same answer; probing
        # would eat the work of a step
        solver.parameters.num_workers = 1
        solver.parameters.random_seed = 1
        solver.parameters.cp_model_probing_level = 0
        solver.parameters.max_deterministic_time = work.units()
        solver.parameters.max_time_in_seconds = work.seconds()
        status = solver.status_name(solver.solve(self.model)).lower()
        for index, domain in freed:
            self._bound(index, domain)
        work.solved(solver.response_proto.deterministic_time)
        if status not in ("optimal", "feasible"):
            return Found(status=status, planned=None, value=0, bound=0)
        bound = math.ceil(solver.best_objective_bound - 1e-6)
        value = round(solver.objective_value)
        return Found(status=status, planned=self._read(solver), value=value, bound=bound)

    def _place(self, slot: str, choice: Choice) -> int:
        counts = self.options[slot][choice.candidate]
        return counts.index(choice.count)

    def _fix(self, fixed: Mapping[str, Choice | None]) -> list[tuple[int, tuple[int, int]]]:
        """Hold the variables of some slots; what they could be before, to free them again."""
        freed = []
        variables = self.model.proto.variables
        for (slot, key), stands in self.stands.items():
            choice = fixed.get(slot)
            if choice is None:
                continue
            here = choice.candidate == key
            at = self._place(slot, choice) if here else 0
            for variable, value in ((stands, int(here)), (self.count[slot, key], at)):
                domain = variables[variable.index].domain
                freed.append((variable.index, (domain[0], domain[1])))
                self._bound(variable.index, (value, value))
        return freed

    def _bound(self, index: int, domain: tuple[int, int]) -> None:
        held = self.model.proto.variables[index].domain
        held[0], held[1] = domain

    def _read(self, solver: Any) -> dict[str, Choice | None]:
        out: dict[str, Choice | None] = {slot.key: None for slot in self.week.slots}
        for (slot, key), stands in self.stands.items():
            if solver.value(stands):
                counts = self.options[slot][key]
                count = counts[solver.value(self.count[slot, key])]
                out[slot] = Choice(candidate=key, count=count)
        return out


def _even_step(counts: Sequence[float]) -> float | None:
    """The step between portions; None where it is not the same for all."""
    step = counts[1] - counts[0] if len(counts) > 1 else 0.0
    even = all(abs(count - counts[0] - n * step) < 1e-9 for n, count in enumerate(counts))
    return step if even else None
