"""The steps of a recipe read into tasks: what is done to which lines, by hand and alone, where, and
after what."""

# Whole: one walk over the pieces; what is on the stove, and what was done last, is shared.

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from nutrition.composition.foods import Food
from nutrition.prep.steps import signs
from nutrition.prep.steps.beforehand import cut_first, soaked_first
from nutrition.prep.steps.boiling import STEAMER, to_the_boil
from nutrition.prep.steps.clauses import Clause, clauses_of, in_the_oven, leading_kind, worded
from nutrition.prep.steps.corrections import NOTHING, Correction, corrected
from nutrition.prep.steps.cutting import knife_minutes
from nutrition.prep.steps.durations import HALF_WAY, Stated, stated_in
from nutrition.prep.steps.heat import Heat, heat_in
from nutrition.prep.steps.holding import holding_of
from nutrition.prep.steps.kidney_beans import kept_safe
from nutrition.prep.steps.late import late_last
from nutrition.prep.steps.line_names import left_out, lines_named, says_all, says_together
from nutrition.prep.steps.task import Event, Task, Worked
from nutrition.prep.steps.work_kinds import NONE, Kind, Place, Span, kind_named, usual_alone
from nutrition.written.line import Line

# What follows in the same pot, or on what was just done, follows within so long. Common practice,
# no source. [min]
SAME_POT_GAP = 2.0
# With a ladle at a time a pot is looked after every so often. Common practice, no source. [min]
LADLE_EVERY = 5.0
# Less than so long is done standing by; what is attended longer than this is not, all the time.
# Common practice, no source. [min]
STAND_BY, ATTENDED_MOST = 3.0, 60.0
# Beans that have boiled for a while simmer so much shorter, but so long at the least. Common
# practice, no source. [min]
SIMMER_LEAST = 10.0
# What rises or sets takes another heat less well. Common practice, no source. [degrees Celsius]
RISEN_SPREAD = 10
HEATED = ("burner", "oven")
USUAL_TIME = "the time is a usual one: common practice, no source"


@dataclass(kw_only=True)
class _Vessel:
    """What is worked on: its last task, its lines, where it stands."""

    tail: tuple[int, ...]
    lines: set[int]
    place: str
    kind: str
    # cold liquid went in since it last boiled; it was taken off the heat
    cold: bool = False
    off: bool = False
    # it came to the boil, and nothing went in since
    boils: bool = False


@dataclass(kw_only=True)
class _Reader:
    """The tasks so far, what is worked on, and the heat that the oven was set to."""

    lines: Sequence[Line]
    corrections: Mapping[str, Correction]
    name: str = ""
    tasks: list[Task] = field(default_factory=list)
    vessels: list[_Vessel] = field(default_factory=list)
    current: _Vessel | None = None
    set_to: int | None = None
    unread: list[str] = field(default_factory=list)
    remarks: list[str] = field(default_factory=list)
    # lines that a later piece names, for each piece
    named_later: Sequence[frozenset[int]] = ()
    at: int = -1
    appliance: str = ""
    trays: int = 1
    # the burner was turned down under what is worked on
    low: bool = False

    def foods(self, at: Sequence[int]) -> list[Food]:
        return [food for one in at if (food := self.lines[one].food) is not None]

    def take(self, clause: Clause) -> None:
        """One piece of the steps."""
        self.at += 1
        right = self.corrections.get(clause.text.lower(), NOTHING)
        if clause.remark or right.no_work:
            self.remarks.append(clause.text)
            self.low = self.low or signs.LOW_HEAT.search(clause.text) is not None
            self.set_to = (heat_in(clause.text) if clause.remark else None) or self.set_to
            return
        kind = clause.kind
        if kind is None:
            self.unread.append(clause.text)
            kind = kind_named()["add"]
        if kind.name == "preheat":
            self.set_to = heat_in(clause.text) or self.set_to
            self.remarks.append(clause.text)
            return
        self.appliance = next(
            (name for sign, name in signs.APPLIANCES if sign.search(clause.text)), self.appliance
        )
        self.trays = 2 if signs.TRAYS.search(clause.text) else self.trays
        stated = stated_in(clause.text)
        uses = lines_named(clause.text, self.lines)
        if self._within_another(clause, kind, stated, uses):
            return
        kind = self._really(clause, kind, stated, uses)
        if kind.name == "soak" and not uses:
            uses = tuple(at for at, one in enumerate(self.lines) if _is_soaked(one))
        self._add(clause, kind, stated, uses, right)

    def _within_another(
        self, clause: Clause, kind: Kind, stated: Stated | None, uses: tuple[int, ...]
    ) -> bool:
        """Whether a piece is done while something goes on: turned at half time, put in for the last
        minutes, stirred now and then."""
        small = kind.name in ("add", "mix", "wilt")
        target = self._going_on()
        if target is None or not small:
            return False
        length = target.alone.usual
        if HALF_WAY.search(clause.text) and not uses:
            self._put_in(target, Event(before_end=length / 2, hands=1.0, text=clause.text))
            return True
        if stated is not None and stated.last:
            before = length * stated.share if stated.share else stated.usual
            if 0 < before < length:
                self._put_in(target, Event(before_end=before, hands=1.0, text=clause.text))
                vessel = self._holding(target.number)
                vessel.lines |= set(uses)
                return True
        return bool(signs.ALONG.search(clause.text)) and not uses and stated is None

    def _going_on(self) -> Task | None:
        """The last task that goes on by itself."""
        return next((one for one in reversed(self.tasks) if one.alone.usual > 0), None)

    def _holding(self, number: int) -> _Vessel:
        """What a task was done to."""
        return next((one for one in self.vessels if number in one.tail), self.vessels[-1])

    def _put_in(self, task: Task, event: Event) -> None:
        events = sorted((*task.events, event), key=lambda one: -one.before_end)
        self.tasks[task.number] = replace(task, events=tuple(events))

    def _really(
        self, clause: Clause, kind: Kind, stated: Stated | None, uses: tuple[int, ...]
    ) -> Kind:
        """What adding something and then so many minutes is: cooking it, or letting it stand."""
        if self.appliance and (kind.name == "simmer" or (kind.name in ("add", "mix") and stated)):
            return kind_named()[self.appliance]
        timed = kind.name in ("add", "mix") and stated is not None
        if timed and says_all(clause.text) and any(one.place == "oven" for one in self.vessels):
            return kind_named()["roast"]
        now = self.current
        hot = now is not None and (now.place in ("burner", "oven") or now.off)
        if kind.name == "steam" and now is not None and now.off and not uses:
            return kind_named()["rest"]
        left = self.low and signs.LEFT.search(clause.text) and not signs.OFF.search(clause.text)
        if kind.name == "rest" and left and now is not None and now.place == "burner":
            return kind_named()["simmer"]
        if kind.name == "add" and stated is None and hot and signs.COVERED_PAN.search(clause.text):
            return kind_named()["steam"]
        if kind.name not in ("add", "mix") or stated is None or stated.most < STAND_BY:
            return kind
        if signs.LADLE.search(clause.text):
            return kind_named()["simmer"]
        if signs.STIRRED.match(clause.text) and not uses:
            return kind
        if signs.COVERED.match(clause.text) or (self.current is not None and not hot):
            return kind if kind.name == "mix" and not uses else kind_named()["rest"]
        return kind_named()["simmer"]

    def _add(
        self,
        clause: Clause,
        kind: Kind,
        stated: Stated | None,
        uses: tuple[int, ...],
        right: Correction,
    ) -> None:
        before = self._before(clause, kind, uses)
        if right.apart is not None:
            before = [] if right.apart else before or self._open()
        every = says_all(clause.text)
        lines = set(uses)
        if every or (not before and not uses and not self.tasks):
            taken = {one for vessel in self.vessels for one in vessel.lines}
            taken |= set(left_out(clause.text, self.lines)) | self.named_later[self.at]
            lines |= set(range(len(self.lines))) - taken
        place = self._place(clause, kind, before)
        own = tuple(sorted(lines))
        hands, alone, notes = self._minutes(clause, kind, stated, own, before)
        for other in clause.also:
            hands = hands.plus(other.hands)
        tight = bool(before) and place == "burner" and all(one.place == "burner" for one in before)
        task = Task(
            number=len(self.tasks),
            text=clause.text,
            kind=kind.name,
            step=clause.step,
            place=place,
            hands=hands,
            alone=alone,
            lines=own,
            boil=self._boil(clause, kind, before, own),
            heat=self._heat(clause, kind) if place == "oven" else None,
            after=tuple(dict.fromkeys(one for vessel in before for one in vessel.tail)),
            gap=SAME_POT_GAP if tight and len(before) == 1 else None,
            waits=kind.waits,
            strict=kind.strict,
            hot=(
                (kind.hot and not (kind.place == "oven" and self._are_nuts(own)))
                or any(self._is_hot(one) for one in before)
            )
            and not (kind.cools or signs.COOLED.search(clause.text)),
            ahead=kind.ahead,
            events=self._events(clause, alone),
            sweet=self._is_sweet(before, own),
            trays=self.trays if place == "oven" else 1,
            stated=stated is not None,
            sure=clause.kind is not None,
            notes=tuple(notes),
        )
        self.tasks.append(corrected(task, right))
        self._settle(task, before, lines)

    def _before(self, clause: Clause, kind: Kind, uses: tuple[int, ...]) -> list[_Vessel]:
        """What a piece of work waits for: nothing where it begins something of its own."""
        if self.current is None:
            return []
        if says_all(clause.text) or (says_together(clause.text) and not uses):
            return self._open()
        if signs.ON_PLATES.search(clause.text) and not uses:
            return self._open()
        refs = [one for one in self.vessels if one.lines & set(uses)]
        apart = signs.APART.search(clause.text) is not None
        goes_in = leading_kind(worded(clause.text)) is None and signs.GOES_IN.search(clause.text)
        new = [one for one in uses if not any(one in vessel.lines for vessel in self.vessels)]
        fills = signs.FILLED.search(clause.text)
        into = bool(fills or signs.INTO_WHAT_IS_THERE.search(clause.text))
        added = clause.kind is not None and clause.kind.name in ("add", "mix")
        product = signs.PRODUCT.search(worded(clause.text)) is not None
        if kind.joins or added:
            if refs and not new and not into:
                return _unique([self.current, *refs]) if product else refs
            ordered = leading_kind(worded(clause.text)) is not None
            object_of = lines_named(signs.WHERETO.split(clause.text)[0], self.lines)
            direct = any(one in new for one in object_of)
            aside = direct and clause.first and ordered and not into and not refs
            if aside or (bool(new) and apart and not refs):
                return []
            together = kind.name == "mix" or signs.OVER.search(clause.text)
            left = self._left() if together else []
            return _unique([self.current, *refs, *left])
        if (goes_in or fills) and not apart:
            return _unique([self.current, *refs])
        with_more = clause.first and signs.WITH_MORE.match(clause.text)
        if (with_more or product) and not apart:
            return _unique([self.current, *refs])
        if any(one.name == "add" for one in clause.also) and signs.OVER.search(clause.text):
            return _unique([self.current, *refs, *self._left()])
        if refs:
            return refs
        if not uses or self._same_pot(clause, kind, new):
            return [self.current]
        return []

    def _same_pot(self, clause: Clause, kind: Kind, new: Sequence[int]) -> bool:
        """Whether foods that are new go into what stands on the stove."""
        now = self.current
        if now is None or now.place != "burner" or kind.place != "burner":
            return False
        if signs.APART.search(clause.text):
            return False
        if not clause.first:
            return kind.name in ("fry", "simmer", "warm", "wilt", "toast")
        if kind.name not in ("simmer", "warm") or now.kind not in ("fry", "add", "toast", "bloom"):
            return False
        return not any(signs.OWN_POT.match(food.slug) for food in self.foods(new))

    def _left(self) -> list[_Vessel]:
        """The vessels of which no later piece names what is in them: they go in now, or never."""
        return [one for one in self.vessels if not one.lines & self.named_later[self.at]]

    def _open(self) -> list[_Vessel]:
        return list(self.vessels)

    def _place(self, clause: Clause, kind: Kind, before: Sequence[_Vessel]) -> Place:
        """Where it is done: what goes into a pot on the stove is done there."""
        if kind.name not in ("add", "mix") or signs.OFF.search(clause.text):
            return kind.place
        if signs.IN_A_DISH.search(clause.text):
            return kind.place
        if kind.name == "mix" and not signs.FOLDED.match(clause.text):
            return kind.place
        first, others = before[:1], before[1:]
        stays = not others or (kind.name == "add" and first[0] is self.current)
        if first and first[0].place == "burner" and stays:
            # a grain that was rinsed goes into the pot; what is cooked too goes with it elsewhere
            return kind.place if any(one.place in HEATED for one in others) else "burner"
        return kind.place

    def _minutes(
        self,
        clause: Clause,
        kind: Kind,
        stated: Stated | None,
        lines: Sequence[int],
        before: Sequence[_Vessel],
    ) -> tuple[Span, Span, list[str]]:
        """By hand and alone [min], and what was filled in."""
        if stated is not None:
            span = Span(stated.least, stated.usual, stated.most)
            if signs.PER_SIDE.search(clause.text):
                rounds = 2.0 if signs.IN_ROUNDS.search(clause.text) else 1.0
                return span.times(2.0 * rounds), NONE, []
            attended = kind.attended or signs.CONSTANT.search(clause.text)
            if attended and span.usual <= ATTENDED_MOST:
                return span, NONE, []
            return kind.hands, span, []
        about = lines or sorted({one for vessel in before for one in vessel.lines})
        if kind.name == "cut" and lines:
            total = NONE
            for one in lines:
                total = total.plus(knife_minutes(self.lines[one]))
            return total, NONE, [USUAL_TIME]
        if kind.attended:
            return kind.hands, NONE, [USUAL_TIME]
        alone, source = usual_alone(kind, self.foods(about))
        if kind.name == "boil_up":
            alone = to_the_boil(self.lines[one] for one in about)
        boiled = [self.tasks[one] for vessel in before for one in vessel.tail]
        if kind.name == "simmer" and len(boiled) == 1 and boiled[0].kind == "simmer":
            done = boiled[0].alone.usual
            alone = Span(
                *(max(v - done, SIMMER_LEAST) for v in (alone.least, alone.usual, alone.most))
            )
        return kind.hands, alone, [f"the time is a usual one: {source}"]

    def _boil(
        self, clause: Clause, kind: Kind, before: Sequence[_Vessel], lines: Sequence[int]
    ) -> Span:
        """How long it takes to come to the boil: what begins cold, or what liquid was put to."""
        hot = any(one.place == "burner" and not one.cold for one in before)
        dry = any(food.state == "dry" for food in self.foods(lines))
        boils = any(one.boils for one in before)
        if boils or (hot and not dry) or signs.HOT_WATER.search(clause.text):
            return NONE
        if kind.name == "simmer":
            inside = {*lines, *(at for one in before for at in one.lines)}
            return to_the_boil(self.lines[at] for at in sorted(inside))
        return STEAMER if kind.name in ("steam", "blanch") else NONE

    def _heat(self, clause: Clause, kind: Kind) -> Heat:
        written = heat_in(clause.text) or self.set_to
        turned = signs.TURNED_TO.search(clause.text)
        self.set_to = (heat_in(turned["heat"]) if turned else None) or written
        risen = any(
            food.group in ("flour", "leavener") for food in self.foods(range(len(self.lines)))
        )
        spread = RISEN_SPREAD if risen or signs.LOAF.search(self.name) else kind.spread
        return Heat(celsius=written or kind.celsius, spread=spread, written=written is not None)

    def _events(self, clause: Clause, alone: Span) -> tuple[Event, ...]:
        out = []
        if HALF_WAY.search(clause.text) and alone.usual > 0:
            out.append(Event(before_end=alone.usual / 2, hands=1.0, text="Turn"))
        moved = signs.MOVED_AFTER.search(clause.text)
        after = stated_in(f"{moved['minutes']} minutes") if moved else None
        if after is not None and after.usual < alone.usual:
            out.append(Event(before_end=alone.usual - after.usual, hands=1.0, text="Turn"))
        if signs.LADLE.search(clause.text):
            times = int(alone.usual // LADLE_EVERY)
            out += [
                Event(
                    before_end=alone.usual - LADLE_EVERY * at, hands=1.0, text="A ladle more, stir"
                )
                for at in range(1, times)
            ]
        return tuple(out)

    def _are_nuts(self, lines: Sequence[int]) -> bool:
        """Whether nothing but nuts and seeds is meant, which are eaten at any warmth."""
        foods = self.foods(lines)
        return bool(foods) and all(food.group in ("nut", "seed") for food in foods)

    def _is_hot(self, vessel: _Vessel) -> bool:
        return any(self.tasks[one].hot for one in vessel.tail)

    def _is_sweet(self, before: Sequence[_Vessel], lines: Sequence[int]) -> bool:
        """Whether what is blended is sweet: fruit or sweetness in it, and nothing savory."""
        taken = {*lines, *(one for vessel in before for one in vessel.lines)}
        foods = self.foods(sorted(taken))
        if any(signs.SAVORY.search(food.slug) for food in foods):
            return False
        return any(
            food.group in signs.SWEET_GROUPS and not signs.SOUR_FRUIT.match(food.slug)
            for food in foods
        )

    def _settle(self, task: Task, before: Sequence[_Vessel], lines: set[int]) -> None:
        """What is worked on, after a task."""
        merged = set(lines).union(*(one.lines for one in before)) if before else set(lines)
        self.vessels = [one for one in self.vessels if one not in before]
        liquid = task.kind in ("add", "mix") and (
            signs.LIQUID.search(task.text) is not None
            or any(food.group in ("broth", "plant milk") for food in self.foods(sorted(lines)))
        )
        off = signs.OFF.search(task.text) is not None
        self.low = not off and signs.LOW_HEAT.search(task.text) is not None
        self.current = _Vessel(
            tail=(task.number,),
            lines=merged,
            place=task.place,
            kind=task.kind,
            cold=liquid,
            off=off,
            boils=task.kind == "boil_up"
            or (
                any(one.boils for one in before) and task.kind == "add" and not lines and not liquid
            ),
        )
        self.vessels.append(self.current)


def _is_soaked(line: Line) -> bool:
    """Whether a line is what one soaks where nothing is named."""
    if line.food is None or line.food.group not in ("legume", "soy", "nut", "seed", "grain"):
        return False
    return line.food.state == "dry" or line.food.group in ("nut", "seed")


def _unique(vessels: Sequence[_Vessel]) -> list[_Vessel]:
    out: list[_Vessel] = []
    for one in vessels:
        if one not in out:
            out.append(one)
    return out


def read_work(
    steps: Sequence[str],
    lines: Sequence[Line],
    name: str = "",
    role: str = "dish",
    corrections: Mapping[str, Correction] | None = None,
) -> Worked:
    """The work of a dish from its written steps and its lines. What the writer left open is filled
    in and said: what is cut before, dry beans that are soaked, sour that goes in last. [min]"""
    clauses = in_the_oven(clauses_of(steps), name)
    named = [frozenset(lines_named(one.text, lines)) for one in clauses]
    later = [frozenset().union(*named[at + 1 :]) for at in range(len(named))]
    reader = _Reader(lines=lines, corrections=corrections or {}, name=name, named_later=later)
    for clause in clauses:
        reader.take(clause)
    tasks = late_last(reader.tasks, lines)
    tasks = kept_safe(soaked_first(tasks, lines), lines)
    tasks = cut_first(tasks, lines)
    hot, waits, strict = holding_of(tasks, lines, name, role)
    return Worked(
        tasks=tuple(tasks),
        hot=hot,
        waits=waits,
        strict=strict,
        unread=tuple(reader.unread),
        remarks=tuple(reader.remarks),
    )
