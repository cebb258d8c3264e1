"""A week for OR-Tools CP-SAT: what stands in each slot, how much of it, from which pot, and each
sum that counts as a whole number."""

# Whole: one model for the solver; its parts share its variables.

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from nutrition.planning.bounds import Bound, besides, brings, day_bounds, week_bounds
from nutrition.planning.cooking import THROWN
from nutrition.planning.rotation import (
    GIVES_WAY,
    TO_A_HALF,
    AtMost,
    beside,
    pattern_of,
    pinned_in,
    served_less,
)
from nutrition.planning.score import (
    A_POT,
    A_QUARTER,
    FROM_FREEZER,
    OF_LEADING,
    OF_NEAR,
    OF_WATCHED,
    PER_AIM,
    PER_SERVING,
    liking,
)
from nutrition.planning.week import DAY_BEFORE, Candidate, Choice, Planned, Slot, Week
from nutrition.portions.work import Work

# The sums that count: see score.py.
LEVELS = (
    *("hard", "pattern", "starved", "leading", "added", "watched", "off", "waste", "moved"),
    *("variety", "rest", "pots", "again"),
)
# No sum of a day's misses is larger than this many aims.
FAR = 400


@dataclass(frozen=True, kw_only=True)
class Found:
    """What a call of the solver found: its status, the week, the value of what was made smallest,
    and the bound under which no value can be. `values` are those of all variables, to begin with
    another time."""

    status: str
    planned: Planned | None
    value: int
    bound: int
    values: tuple[int, ...] = field(default=(), repr=False)


class Model:
    """The variables of a week. `levels` are the sums by name; what is fixed for one call is freed
    again after it. `pots` leaves cooking out where it is not asked about."""

    def __init__(self, week: Week, pots: bool = True) -> None:
        from ortools.sat.python import cp_model

        self.cp, self.week = cp_model, week
        self.model: Any = cp_model.CpModel()
        self.candidates = week.by_key
        self.options = {slot.key: self._options(slot) for slot in week.slots}
        self.optional = {slot.key for slot in week.slots if slot.optional}
        self.stands: dict[tuple[str, str], Any] = {}
        self.count: dict[tuple[str, str], Any] = {}
        self.thawed: list[Any] = []
        # the step between the portions of a candidate in a slot; None where they are uneven
        self.even: dict[tuple[str, str], float | None] = {}
        self.brought: dict[tuple[str, float, bool], dict[str, float]] = {}
        for slot in week.slots:
            self._slot(slot)
        self.leading: list[Any] = []
        self.terms: dict[str, list[Any]] = {name: [] for name in LEVELS}
        self._pattern()
        self._days()
        self._averages()
        if pots:
            self._pots()
        self._added()
        self._moved()
        self._variety()
        self._again()
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
        if here and slot.optional:
            self.model.add_at_most_one(here)
        elif here:
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

    def _pattern(self) -> None:
        """The rules of the rotation; by how much one is broken counts as it gives way."""
        pattern = pattern_of(self.week)
        for rule in pattern.at_most:
            for key, there in self._standing(rule).items():
                most = max(rule.most, pinned_in(self.week, rule.slots, key))
                if len(there) > most:
                    over = self.model.new_int_var(0, len(there) - most, "")
                    self.model.add(self._sum(there) <= most + over)
                    self.terms["pattern"].append(GIVES_WAY[rule.rule] * over)
        for least in pattern.at_least:
            slots = [slot for slot in self.week.slots if slot.key in set(least.slots)]
            here = self._present(slots)
            short = self.model.new_int_var(0, least.least, "")
            self.model.add(self._sum(list(here.values())) + short >= least.least)
            self.terms["pattern"].append(GIVES_WAY[least.rule] * short)

        for added in self.week.slots:
            if added.optional:
                self._whole_beside(added)

    def _whole_beside(self, added: Slot) -> None:
        """Nothing is added beside less than a portion; where it is, that counts as it gives way."""
        here = [self.stands[added.key, key] for key in self.options[added.key]]
        for slot in beside(self.week, added) if here else ():
            for one, counts in self._those(slot):
                less = sum(served_less(slot, one, count) for count in counts)
                if not less:
                    continue
                stands, at = self.stands[slot.key, one.key], self.count[slot.key, one.key]
                broken = self.model.new_bool_var("")
                for addition in here:
                    self.model.add(at >= less).only_enforce_if(stands, addition, broken.negated())
                self.terms["pattern"].append(GIVES_WAY[TO_A_HALF] * broken)

    def _standing(self, rule: AtMost) -> dict[str, list[Any]]:
        """Where each dish may stand in the slots of a rule."""
        out: dict[str, list[Any]] = {}
        for slot in rule.slots:
            for key in self.options[slot]:
                if rule.means(self.candidates[key]):
                    out.setdefault(key, []).append(self.stands[slot, key])
        return out

    def _present(self, slots: Sequence[Slot]) -> dict[str, Any]:
        """Of each dish whether it stands in one of some slots: it may be so only then."""
        there: dict[str, list[Any]] = {}
        for slot in slots:
            for key in self.options[slot.key]:
                there.setdefault(key, []).append(self.stands[slot.key, key])
        out = {}
        for key, stands in there.items():
            here = self.model.new_bool_var("")
            self.model.add_bool_or([*stands, here.negated()])
            out[key] = here
        return out

    def _days(self) -> None:
        """Of each day what is broken, what energy and protein miss, and how near it comes."""
        days = self.week.planned_days
        near, starved = list[Any](), list[Any]()
        for day in days:
            held, slots = day_bounds(self.week, day), self.week.slots_of(day)
            for bound in held.firm:
                self.terms["hard"].extend(self._missed([slots], bound))
            starved += [one for bound in held.fed for one in self._missed([slots], bound)]
            self.leading += [one for bound in held.leading for one in self._missed([slots], bound)]
            for bound in held.near:
                near += [_times(bound) * one for one in self._missed([slots], bound)]
        size = round(OF_NEAR * PER_AIM * max(len(days), 1))
        self.terms["rest"] += [A_QUARTER * one for one in self._grains(near, size)]
        size = round(OF_LEADING * PER_AIM * max(len(days), 1))
        self.terms["starved"] += self._grains(starved, size)

    def _averages(self) -> None:
        """What the averages of the week miss."""
        days = self.week.planned_days
        each = [self.week.slots_of(day) for day in days]
        over, watched = week_bounds(self.week), list[Any]()
        if days:
            for bound in over.leading:
                self.leading += [len(days) * one for one in self._missed(each, bound)]
            for bound in over.watched:
                watched += [_times(bound) * one for one in self._missed(each, bound)]
        size = round(OF_LEADING * PER_AIM * max(len(days), 1))
        self.terms["leading"] += self._grains(self.leading, size)
        self.terms["watched"] += self._grains(watched, round(OF_WATCHED * PER_AIM))

    def _missed(self, days: Sequence[Sequence[Slot]], bound: Bound) -> list[Any]:
        """What the average of some days misses of a bound, in parts of an aim; nothing where it
        cannot be missed."""
        by = PER_AIM / bound.per / len(days)
        if not self._can_miss(days, bound):
            return []
        total = self._sum([self._total(slots, bound, by) for slots in days])
        miss = self.model.new_int_var(0, FAR * PER_AIM, "")
        limit = round(bound.limit * PER_AIM / bound.per)
        self.model.add(miss >= (limit - total if bound.least else total - limit))
        return [miss]

    def _can_miss(self, days: Sequence[Sequence[Slot]], bound: Bound) -> bool:
        """Whether the least or the most of each slot together could be beyond a bound."""
        worst = 0.0
        for slots in days:
            worst += besides(self.week, bound)
            for slot in slots:
                each = [
                    brings(self.candidates[key], bound) * count
                    for key, counts in self.options[slot.key].items()
                    for count in (counts[0], counts[-1])
                ]
                each += [0.0] if slot.optional or not each else []
                worst += min(each) if bound.least else max(each)
        return bound.miss(worst / len(days)) > 0.0

    def _grains(self, missed: Sequence[Any], size: int) -> list[Any]:
        """A sum of misses in grains that nobody tells apart."""
        if not missed:
            return []
        whole = self.model.new_int_var(0, FAR * PER_AIM // size + 1, "")
        # what rounding to whole numbers may add is no grain
        self.model.add(size * whole >= self._sum(missed) - size // 500)
        return [whole]

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
                    if not week.may_cook(made, cooked):
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
                self.terms["waste"].append((1 if made.freezes else THROWN) * left)
            if made.cooks and day not in self.week.cook_days:
                self.terms["off"].append(pot)
            if made.cooks:
                self.terms["pots"].append(pot)
            self.terms["rest"].append(A_POT * pot)

    def _moved(self) -> None:
        for slot in self.week.slots:
            if slot.placed is None or slot.pinned:
                continue
            for one, counts in self._those(slot):
                stands, at = self.stands[slot.key, one.key], self.count[slot.key, one.key]
                if one.key != slot.placed.candidate:
                    # an empty place has moved as far as one with another dish
                    self.terms["moved"].append(0 if slot.optional else 2 * stands)
                elif len(counts) > 1:
                    other = self.model.new_bool_var("")
                    own = counts.index(slot.placed.count)
                    self.model.add(at == own).only_enforce_if(stands, other.negated())
                    self.terms["moved"].append(other)
                if slot.optional and one.key == slot.placed.candidate:
                    self.terms["moved"].append(2 * stands.negated())

    def _added(self) -> None:
        for slot in self.week.slots:
            if slot.optional:
                self.terms["added"] += [
                    self.stands[slot.key, key] for key in self.options[slot.key]
                ]

    def _variety(self) -> None:
        week, slots = self.week, list(self.week.slots)
        if week.wishes.plants:
            self._enough(slots, lambda one: one.plants, week.wishes.plants)
        if week.wishes.proteins:
            self._enough(slots, lambda one: one.proteins, week.wishes.proteins)
        for day in week.planned_days if week.wishes.colors else ():
            self._enough(week.slots_of(day), lambda one: one.colors, week.wishes.colors)

    def _again(self) -> None:
        """How often a dish stands where it varies and stood before."""
        varied = [slot for slot in self.week.slots if slot.varies and self.options[slot.key]]
        if varied:
            here = self._present(varied)
            self.terms["again"].append(len(varied) - self._sum(list(here.values())))

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
        self.terms["variety"].append(short)

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

    def forbid(self, together: Mapping[str, float]) -> None:
        """These are not eaten together on any day, each in so many servings or more at once."""
        for day in range(self.week.days):
            there = []
            for key, count in together.items():
                here = self.model.new_bool_var("")
                much = [
                    self._is_much(slot, key, count, here)
                    for slot in self.week.slots_of(day)
                    if (slot.key, key) in self.stands
                ]
                if not any(much):
                    break
                there.append(here)
            else:
                self.model.add(self._sum(there) <= len(there) - 1)

    def _is_much(self, slot: Slot, key: str, count: float, here: Any) -> bool:
        """Whether so much of it could stand in a slot; where it does, it is `here`."""
        counts = self.options[slot.key][key]
        first = next((n for n, one in enumerate(counts) if one >= count - 1e-9), None)
        if first is None:
            return False
        stands, at = self.stands[slot.key, key], self.count[slot.key, key]
        if first == 0:
            self.model.add_implication(stands, here)
        else:
            self.model.add(at <= first - 1).only_enforce_if(here.negated())
        return True

    def hold(self, level: str, value: int) -> None:
        """From now on a sum is no larger than this."""
        if self.terms[level]:
            self.model.add(self.levels[level] <= value)

    def solve(
        self,
        objective: Any,
        work: Work,
        begin: Sequence[int] = (),
        fixed: Mapping[str, Choice | None] | None = None,
        portions: bool = False,
    ) -> Found:
        """Make a sum smallest, from the values of a week on that was found, with some slots as they
        are in `fixed`, or where `portions` is said with its dishes, and any portions of them. What
        it took is spent."""
        self.model.clear_hints()
        for index, value in enumerate(begin):
            self.model.add_hint(self.model.get_int_var_from_proto_index(index), value)
        self.model.minimize(objective)
        freed = self._fix(fixed or {}, portions)
        solver = self.cp.CpSolver()
        # one worker, a fixed seed and counted work: the same question has the same answer; probing
        # would eat the work of a step
        solver.parameters.num_workers = 1
        solver.parameters.random_seed = 1
        solver.parameters.cp_model_probing_level = 0
        solver.parameters.symmetry_level = 0
        solver.parameters.max_deterministic_time = work.units()
        solver.parameters.max_time_in_seconds = work.seconds()
        status = solver.status_name(solver.solve(self.model)).lower()
        for index, domain in freed:
            self._bound(index, domain)
        work.solved(solver.response_proto.deterministic_time)
        if status not in ("optimal", "feasible"):
            return Found(status=status, planned=None, value=0, bound=0)
        bound = math.ceil(solver.best_objective_bound - 1e-6)
        return Found(
            status=status,
            planned=self._read(solver),
            value=round(solver.objective_value),
            bound=bound,
            values=tuple(solver.response_proto.solution),
        )

    def _place(self, slot: str, choice: Choice) -> int:
        counts = self.options[slot][choice.candidate]
        return counts.index(choice.count)

    def _fix(
        self, fixed: Mapping[str, Choice | None], portions: bool
    ) -> list[tuple[int, tuple[int, int]]]:
        """Hold the variables of some slots, or only which dishes stand there; what they could be
        before, to free them again."""
        freed = []
        variables = self.model.proto.variables
        for (slot, key), stands in self.stands.items():
            choice = fixed.get(slot)
            if choice is None and not (slot in fixed and slot in self.optional):
                continue
            here = choice is not None and choice.candidate == key
            at = self._place(slot, choice) if here and choice is not None else 0
            held = [(stands, int(here))]
            if not portions or not here:
                held.append((self.count[slot, key], at))
            for variable, value in held:
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


def _times(bound: Bound) -> int:
    """What a miss of a target counts."""
    return round(bound.aim.weight)


def _even_step(counts: Sequence[float]) -> float | None:
    """The step between portions; None where it is not the same for all."""
    step = counts[1] - counts[0] if len(counts) > 1 else 0.0
    even = all(abs(count - counts[0] - n * step) < 1e-9 for n, count in enumerate(counts))
    return step if even else None
