"""Which food a name means, and how sure that is. A name settles only when every word of it is
accounted for; else it asks, with what comes nearest."""

# Whole: the ways in which words may name a food, and their costs, are held against each other.

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from nutrition.composition.animal_foods import animal_foods
from nutrition.composition.cooking_methods import resolved
from nutrition.composition.food_names import ASK, SAME, STAND_IN, FoodNames, Named, OtherName
from nutrition.composition.food_search import Match
from nutrition.composition.food_words import Apart, Words, lexicon, varieties, words
from nutrition.composition.foods import Food
from nutrition.composition.likeness import BOUGHT_SO, OUT, Fit, fit, same_heat, states_of
from nutrition.written.units import UNIT_OF
from nutrition.written.wording import uncapitalized

# What a word of a row's name costs that was not said: within its first part, and after it.
# What a word costs that was said and is not in the name; from UNACCOUNTED on nothing settles.
EXTRA, EXTRA_KIND, UNACCOUNTED = 1.0, 0.5, 10.0
MAYBE_MISSED, VARIETY_DROPPED, RENAMED, VAGUE = 0.2, 0.1, 0.1, 0.3
# Another name counts for more the more of the words it covers.
LONGER_RUN = 0.02
HEAD_LEFT_OUT = 0.3
COMPUTED, WORD_OF_NAME = 0.1, 0.01
# What a name costs as it stands where it is another name for something.
HAS_OTHER_NAME = 0.5
# Head nouns that are left unsaid where the rest of the name says enough: "chia", "romaine".
LEFT_OUT = frozenset(
    "seed nut leaf mushroom pepper lettuce squash sheet bulb root sprout fruit bean lentil herb"
    " powder kernel husk".split()
)
NEGATIONS = frozenset({"no", "without", "free"})
# Rows that cost no more than this above the best are as likely meant.
AS_LIKELY = 0.75
# Two rows differ in what matters from so much of energy or protein on. [share], [kcal or g]
MATTERS_SHARE, MATTERS_KCAL, MATTERS_PROTEIN = 0.3, 20.0, 2.5
SHOWN = 6
# What heat or water does to a food, by the word for it: the code of a method.
STEPS = {
    "roasted": "roasted",
    "baked": "roasted",
    "grilled": "roasted",
    "toasted": "roasted",
    "boiled": "boiled",
    "blanched": "boiled_drained",
    "parboiled": "boiled_drained",
    "steamed": "steamed",
    "microwaved": "microwaved",
    "wilted": "wilted",
    "fried": "pan_fried_dry",
    "oil roasted": "roasted",
    "dry roasted": "roasted",
    "stewed": "boiled_drained",
    "pressure cooked": "boiled_drained",
    "pressed": "squeezed",
    "squeezed": "squeezed",
    "soaked": "soaked",
    "rehydrated": "soaked",
    "rehydrated squeezed": "soaked_squeezed",
    "sprouted": "sprouted",
    "dehydrated": "dehydrated",
    "caramelized": "caramelized",
}
# What lies in brine or salt loses some of it when it is rinsed; beans in cans have rows of their
# own for that.
BRINED = frozenset({"fermented vegetable", "condiment", "sea vegetable"})


@dataclass(frozen=True, kw_only=True)
class NamedFood:
    """The food a name means, or none and `why`. `sure` says that it wants no look; `steps` are the
    methods named with it, done after it was measured, `variety` the words for a variety that makes
    little difference to what is in it, but may to its weight."""

    food: Food | None = None
    sure: bool = False
    notes: tuple[str, ...] = ()
    candidates: tuple[Match, ...] = ()
    steps: tuple[str, ...] = ()
    variety: tuple[str, ...] = ()
    why: str = ""
    animal: bool = False


@dataclass(frozen=True, kw_only=True)
class _Way:
    """One way to read a name: its words, which of them may mean nothing, how the food is said to
    be, and what reading it so costs."""

    name: Words
    may: Words = ()
    said: Apart
    implied: tuple[tuple[str, str], ...] = ()
    strict: Words = ()
    variety: Words = ()
    renamed: bool = False
    cost: float = 0.0
    notes: tuple[str, ...] = ()
    doubt: bool = False
    stand_in: bool = False


@dataclass(frozen=True, kw_only=True)
class _Fitting:
    row: Named
    way: _Way
    fit: Fit
    cost: float
    missed: Words
    extras: frozenset[str]


def name_food(
    phrase: str, names: FoodNames, *, remark: str = "", more: Sequence[tuple[str, str]] = ()
) -> NamedFood:
    """The food that `phrase` means, with what is remarked of it after a comma, and `more` marks
    that the amount implies (a can is canned)."""
    said, mended = _mended(lexicon().joined(words(phrase)), names)
    before = lexicon().take_apart(said)
    after = _done_later(lexicon().take_apart([w for w in words(remark) if not _numeric(w)]))
    ways = list(_ways(said, after, tuple(more), names))
    fittings = _ordered(_fittings(ways, names))
    unsettled = not fittings or fittings[0].cost >= UNACCOUNTED
    if unsettled and more and ("state", "canned") not in more:
        # what the amount implied may not hold: a bay leaf is dried
        ways = list(_ways(said, after, (), names))
        fittings = _ordered(_fittings(ways, names))
    candidates = _candidates(fittings)
    settled = _settled(phrase, remark, names)
    if settled is not None:
        return replace(settled, candidates=candidates)
    animal = _animal(said, fittings)
    if animal is not None:
        return animal
    if not before.name and not before.may and not (fittings and fittings[0].cost < UNACCOUNTED):
        return NamedFood(why=f"no food named in “{phrase.strip()}”", candidates=candidates)
    if not fittings or fittings[0].cost >= UNACCOUNTED:
        return NamedFood(why=_why(phrase, fittings), candidates=candidates)
    best = fittings[0]
    if best.way.stand_in:
        return NamedFood(
            why=f"“{phrase.strip()}” is not in the table; {uncapitalized(best.row.food.name)} may "
            f"stand in for it: what differs is yours to judge",
            candidates=candidates,
        )
    notes = [*mended, *best.way.notes, *best.fit.notes]
    if best.way.doubt:
        notes.append(f"“{phrase.strip()}” taken as {uncapitalized(best.row.food.name)}")
    doubt = bool(mended) or best.way.doubt or best.fit.doubt
    which = _which(best, fittings)
    if which:
        notes.append(which)
        doubt = True
    overlooked = _overlooked(best, after, names)
    if overlooked:
        notes.append(f"not counted: {', '.join(overlooked)}")
        doubt = True
    return NamedFood(
        food=best.row.food,
        sure=not doubt,
        notes=tuple(dict.fromkeys(notes)),
        candidates=candidates,
        steps=_steps(best),
        variety=best.way.variety,
    )


def said_words(phrase: str) -> Words:
    """The words of a phrase as they are compared: singular, without accents, each run that is one
    word to us as that word."""
    return tuple(lexicon().joined(words(phrase)))


def _settled(phrase: str, remark: str, names: FoodNames) -> NamedFood | None:
    """The food that these words mean in this practice, if it has settled that and nothing else is
    said that contradicts it."""
    known = names.table.settled
    if not known:
        return None
    said, more = said_words(phrase), said_words(remark)
    apart = lexicon().take_apart(said)
    bare = tuple(word for word in said if word in {*apart.name, *apart.may})
    later = lexicon().take_apart([word for word in more if not _numeric(word)]).marks
    for key, marks in (((*said, *more), ()), (said, later), (bare, (*apart.marks, *later))):
        row = names.row_of.get(known.get(key, ""))
        if row is None:
            continue
        way = _Way(name=row.apart.name, said=_done_later(Apart(marks=marks)))
        how = fit(way.said, row.food, row.apart)
        if how.cost >= OUT:
            continue
        found = _Fitting(row=row, way=way, fit=how, cost=0.0, missed=(), extras=frozenset())
        own = said_words(row.food.name) == key
        notes = [] if own else [f"always so here: {uncapitalized(row.food.name)}"]
        if row.food.retired:
            notes.append("retired here: nothing new is made with it")
        return NamedFood(food=row.food, sure=True, notes=(*notes, *how.notes), steps=_steps(found))
    return None


def _ordered(fittings: Iterator[_Fitting]) -> list[_Fitting]:
    return sorted(fittings, key=lambda one: (one.cost, one.row.food.slug))


def _numeric(word: str) -> bool:
    return len(word) == 1 or word[0].isdigit() or word in UNIT_OF


def _done_later(after: Apart) -> Apart:
    """What is remarked of heat was done after the food was measured; frying brings oil into it."""
    return replace(
        after,
        marks=tuple(
            ("then", value) if axis == "heat" and value not in BOUGHT_SO else (axis, value)
            for axis, value in after.marks
        ),
    )


def _mended(said: list[str], names: FoodNames) -> tuple[list[str], list[str]]:
    out, notes = [], []
    for word in said:
        right = names.mended(word)
        if right is not None:
            notes.append(f"“{word}” read as “{right}”")
        out.append(right or word)
    return out, notes


def _ways(
    said: list[str], after: Apart, more: tuple[tuple[str, str], ...], names: FoodNames
) -> Iterator[_Way]:
    """The ways to read a name: as it stands, by other names for it or for parts of it, and each
    with the words left out that only name a variety."""
    orders = [(said, after.name)]
    if after.name:
        # "spaghetti, whole wheat", "split peas, green"
        orders += [([*said, *after.name], ()), ([*after.name, *said], ())]
    renamed = [(way, rest) for order, rest in orders for way in _renamed(order, names)]
    for way, rest in renamed:
        bare = replace(way, said=_marked(way, after, more))
        if (
            bare.doubt
            and bare.implied
            and set(map(_plainly, bare.implied)) <= set(map(_plainly, after.marks))
        ):
            # "wakame, dried": what the vague word was taken for was said outright
            bare = replace(bare, doubt=False)
        may = tuple(dict.fromkeys([*bare.may, *rest, *after.may]))
        bare = replace(bare, may=may, strict=bare.may)
        dropped = _without_variety(bare)
        found = [bare] if dropped is None else [bare, dropped]
        yield from found
        for one in found:
            again = names.others.get(one.name)
            if again is not None and again.kind != STAND_IN:
                yield _by_other_name(one, again)


def _plainly(mark: tuple[str, str]) -> tuple[str, str]:
    """A mark with dried and dry alike."""
    return (mark[0], "dry") if mark[1] == "dried" else mark


def _axes(marks: Sequence[tuple[str, str]]) -> set[str]:
    """What marks speak of. What is raw was not heated either."""
    axes = {axis for axis, _value in marks}
    return axes | {"heat"} if ("state", "raw") in marks else axes


def _marked(way: _Way, after: Apart, more: tuple[tuple[str, str], ...]) -> Apart:
    """How the food is said to be: before the comma, after it, and by what only our name for it
    implies, where that is not gainsaid."""
    own, later = way.said, _axes(after.marks) | {axis for axis, _value in more}
    kept = [mark for mark in own.marks if mark not in way.implied or mark[0] not in later]
    marks = dict.fromkeys([*kept, *after.marks])
    on = {axis for axis, _value in marks}
    marks.update(dict.fromkeys(mark for mark in more if mark[0] not in on))
    return replace(own, marks=tuple(marks))


def _renamed(said: list[str], names: FoodNames) -> Iterator[_Way]:
    literal = lexicon().take_apart(said)
    start = _Way(name=literal.name, may=literal.may, said=literal)
    # other names of the bare words: "chopped fresh coriander leaves"
    whole = names.others.get(literal.name)
    if whole is not None:
        yield _by_other_name(start, whole)
    bare = tuple(w for w in said if w in {*literal.name, *literal.may})
    with_may = names.others.get(bare) if literal.may else None
    if with_may is not None:
        yield _by_other_name(replace(start, may=()), with_may)
    yield from _by_run(said, names)
    if literal.may:
        lean = [word for word in said if word not in literal.may]
        for way in _by_run(lean, names):
            yield replace(way, may=(*way.may, *literal.may))
    full = with_may or names.others.get(tuple(said)) or (whole if not literal.may else None)
    yield replace(
        start,
        cost=HAS_OTHER_NAME if full is not None else 0.0,
        renamed=full is None and whole is not None,
    )


def _by_run(said: list[str], names: FoodNames) -> Iterator[_Way]:
    """The name with runs of its words put in our own words, the longest first."""
    for longest in (names.longest, 1):
        out: list[str] = []
        kinds: list[str] = []
        implied: list[str] = []
        left: list[str] = []
        at = covered = 0
        while at < len(said):
            for length in range(min(longest, len(said) - at), 0, -1):
                run = tuple(said[at : at + length])
                other = names.others.get(run)
                rest = [*said[:at], *said[at + length :]]
                if other is not None and (other.kind == SAME or not _naming(rest)):
                    kinds.append(other.kind)
                    out += other.means
                    implied += other.means
                    covered += length
                    at += length
                    break
            else:
                out.append(said[at])
                left.append(said[at])
                at += 1
        if not kinds:
            continue
        literal, whole = lexicon().take_apart(left), lexicon().take_apart(out)
        meant = lexicon().take_apart(implied)
        yield _judged(
            _Way(
                name=whole.name,
                may=whole.may,
                said=_softly(whole, literal, meant),
                implied=tuple(mark for mark in meant.marks if mark not in literal.marks),
                cost=RENAMED - LONGER_RUN * covered,
            ),
            kinds,
        )


def _naming(rest: Sequence[str]) -> bool:
    return bool(lexicon().take_apart(rest).name)


def _softly(whole: Apart, literal: Apart, meant: Apart) -> Apart:
    """The marks of a renamed name: those that only our name for it implies give way to what was
    said."""
    said = _axes(literal.marks)
    marks = tuple(
        mark
        for mark in whole.marks
        if mark in literal.marks or mark not in meant.marks or mark[0] not in said
    )
    return replace(whole, marks=marks)


def _by_other_name(way: _Way, other: OtherName) -> _Way:
    meant = lexicon().take_apart(other.means)
    said = _axes(way.said.marks)
    marks = (*way.said.marks, *(mark for mark in meant.marks if mark[0] not in said))
    return _judged(
        replace(
            way,
            name=meant.name,
            may=(*meant.may, *way.may),
            implied=(*way.implied, *meant.marks),
            renamed=False,
            said=replace(way.said, name=meant.name, marks=marks),
            cost=way.cost + RENAMED,
        ),
        [other.kind],
    )


def _judged(way: _Way, kinds: Sequence[str]) -> _Way:
    return replace(
        way,
        doubt=way.doubt or ASK in kinds,
        stand_in=way.stand_in or STAND_IN in kinds,
        cost=way.cost + (VAGUE if ASK in kinds else 0.0),
    )


def _without_variety(way: _Way) -> _Way | None:
    """The way without the words that name a variety of its food."""
    have = {*way.name, *way.may}
    gone: set[str] = set()
    for food, kinds in varieties():
        if food <= have:
            for kind in kinds:
                if set(kind) <= have - food:
                    gone |= set(kind)
    gone &= set(way.name)
    if not gone:
        return None
    left = tuple(word for word in way.name if word not in gone)
    named = " ".join(word for word in way.name if word in gone)
    return replace(
        way,
        name=left,
        said=replace(way.said, name=left),
        variety=tuple(word for word in way.name if word in gone),
        cost=way.cost + VARIETY_DROPPED,
        notes=(*way.notes, f"“{named}” makes little difference"),
    )


def _fittings(ways: Sequence[_Way], names: FoodNames) -> Iterator[_Fitting]:
    """The rows that miss the fewest of the words said: no other can be meant. Where none of them
    settles, those that miss one more are looked at too, to be shown."""
    by_missed: dict[int, list[tuple[_Way, Named]]] = {}
    for way in dict.fromkeys(ways):
        naming = frozenset(way.name)
        for row in names.sharing([*way.name, *way.may]):
            by_missed.setdefault(len(naming - row.name), []).append((way, row))
    settles = False
    for missed in sorted(by_missed)[:2]:
        if settles:
            break
        for way, row in by_missed[missed]:
            found = _fitting(way, row, names)
            if found is not None:
                settles = settles or found.cost < UNACCOUNTED
                yield found


def _fitting(way: _Way, row: Named, names: FoodNames) -> _Fitting | None:
    missed = tuple(word for word in way.name if word not in row.name)
    have = {*way.name, *way.may}
    matched = have & row.name
    if not matched:
        return None
    extras = row.name - have - {"vegan"}
    cost = way.cost + UNACCOUNTED * len(missed)
    if way.renamed and not row.name.intersection(way.may):
        cost += HAS_OTHER_NAME
    for word in way.may:
        if word not in row.name:
            dropped = word not in way.strict or lexicon().may_be_dropped(word, row.food.group)
            cost += MAYBE_MISSED if dropped else UNACCOUNTED
    if row.head not in have:
        weak = row.head in LEFT_OUT and not missed and bool(way.name)
        weak = weak and names.heads_of(way.name) <= {row.head, "sprout"}
        cost += HEAD_LEFT_OUT - EXTRA if weak else UNACCOUNTED
    cost += sum(EXTRA if word in row.first else EXTRA_KIND for word in extras)
    if row.food.source.startswith("computed from another"):
        cost += COMPUTED
    cost += WORD_OF_NAME * row.length
    # how it is matters only for a row whose name is accounted for
    how = fit(way.said, row.food, row.apart) if cost < UNACCOUNTED else Fit()
    if "vegan" in row.name and not way.said.values("plant"):
        how.add(0.5, "taken as the vegan kind", doubt=True)
    return _Fitting(row=row, way=way, fit=how, cost=cost + how.cost, missed=missed, extras=extras)


def _candidates(fittings: Sequence[_Fitting]) -> tuple[Match, ...]:
    """What comes nearest, each food once, the best first."""
    best: dict[str, Match] = {}
    for one in fittings:
        if one.row.food.slug not in best:
            best[one.row.food.slug] = Match(one.row.food, 1.0 / (1.0 + one.cost))
        if len(best) >= SHOWN:
            break
    return tuple(best.values())


def _animal(said: list[str], fittings: Sequence[_Fitting]) -> NamedFood | None:
    """What is said where a name holds an animal food that no plant's name accounts for."""
    known = animal_foods()
    named = [word for word in said if word in known.instead]
    if not named:
        return None
    plant = any(
        one.cost < UNACCOUNTED
        and set(named) <= one.row.name
        and not one.extras
        and "vegan" not in one.row.name
        for one in fittings[:SHOWN]
    )
    vegan = lexicon().take_apart(said).values("plant")
    if plant or vegan or known.plant_words & set(said):
        return None
    return NamedFood(why=named[0], animal=True)


def _why(phrase: str, fittings: Sequence[_Fitting]) -> str:
    name = phrase.strip()
    if not fittings:
        return f"no food found for “{name}”"
    best = fittings[0]
    if best.missed:
        missing = " ".join(best.missed)
        return f"no food in the table is “{name}”: “{missing}” is not accounted for"
    if best.fit.cost >= OUT:
        return f"no food in the table is “{name}” in that state: choose what comes nearest"
    return f"no food in the table is just “{name}”: choose what is meant"


def _which(best: _Fitting, fittings: Sequence[_Fitting]) -> str:
    """What is asked where another row is as likely meant and differs in what matters."""
    if not best.extras:
        return ""
    for other in fittings[1:]:
        if other.cost > best.cost + AS_LIKELY:
            break
        if other.row.name != best.row.name and _matters(best.row.food, other.row.food):
            return (
                f"taken as {uncapitalized(best.row.food.name)}; it may be "
                f"{uncapitalized(other.row.food.name)}"
            )
    return ""


def _matters(one: Food, other: Food) -> bool:
    for key, least in (("energy_kcal", MATTERS_KCAL), ("protein_g", MATTERS_PROTEIN)):
        a, b = one.per_100_g(key), other.per_100_g(key)
        if a is not None and b is not None and abs(a - b) > max(least, MATTERS_SHARE * max(a, b)):
            return True
    return False


def _overlooked(best: _Fitting, after: Apart, names: FoodNames) -> list[str]:
    """Words remarked of the food that name foods themselves and are not in its name."""
    if NEGATIONS.intersection(after.name):
        # "no added oil or salt" names what is not in it
        return []
    return [
        word
        for word in after.name
        if word != "water"
        and word in names.by_word
        and word not in best.row.name
        and word not in best.way.name
    ]


def _steps(best: _Fitting) -> tuple[str, ...]:
    """What is done to the food after it was measured."""
    row, food = best.row, best.row.food
    out: list[str] = []
    rinsed = best.way.said.values("liquid") & {"rinsed", "drained and rinsed"}
    brined = food.group in BRINED or "brine" in row.apart.values("in")
    if rinsed and brined and "rinsed" not in row.apart.values("liquid"):
        out.append("rinsed")
    for axis, value in best.way.said.marks:
        if axis in ("heat", "then"):
            done = same_heat(value, row.apart.values("heat")) or "cooked" in states_of(
                food, row.apart
            )
            if done or food.state in ("canned", "ready"):
                continue
        elif axis != "wet" or row.apart.values("wet"):
            continue
        if value in STEPS:
            out.append(resolved(food, STEPS[value]))
    return tuple(out)
