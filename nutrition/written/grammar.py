"""Read one line of a recipe as a cook writes it: how much, of what, in which form.

`read` knows words and numbers only; `written.matching` puts a food and its grams to what was read.
"""

# Whole: one pass over a line; each step hands on what is left of it.

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass, replace

from nutrition.written.line_patterns import (
    AND_ANOTHER,
    ASIDE,
    CONTAINERS,
    COUNT_AFTER,
    COUNTED,
    EACH_AFTER,
    EACH_OF,
    FILL,
    FORM_WORDS,
    INCHES,
    JOINT,
    LOOK,
    LOOSE,
    MOST_COUNT,
    NO_AMOUNT,
    NO_UNIT,
    OR_SIZE,
    PACKAGE,
    PLUS_MORE,
    PURPOSE,
    QTY,
    SALT_AND_PEPPER,
    SHARE_USED,
    SHARES,
    SIZES,
    SMALLER,
    TAKE,
    UNIT,
    WITH_WATER,
)
from nutrition.written.remarks import set_apart
from nutrition.written.units import CASED, UNIT_OF, WEIGHT_NAMES
from nutrition.written.wording import NUMBER, number, plain


@dataclass(frozen=True)
class Quantity:
    """So many of a unit, with the range that was written ("2-3") or is meant ("a few")."""

    best: float
    low: float
    high: float
    unit: str = ""

    def times(self, factor: float) -> Quantity:
        return Quantity(self.best * factor, self.low * factor, self.high * factor, self.unit)


@dataclass(frozen=True, kw_only=True)
class Reading:
    """What a line says. `terms` add up ("3 tbsp plus 1 tsp"); `package` is the stated size of one
    can or pack, `counted` the phrase with the count word that follows its food ("curry leaves"),
    `several` the lines to write instead where one amount stands for several foods. `whole` says
    that its weight is that of so many whole `pieces`; `uncooked` that it was measured so,
    and `then` how it is cooked after; `beside` what is stirred in and not counted."""

    text: str
    terms: tuple[Quantity, ...] = ()
    package: Quantity | None = None
    phrase: str = ""
    forms: tuple[str, ...] = ()
    size: str = ""
    counted: str = ""
    take: str = ""
    fill: str = ""
    note: str = ""
    alternatives: tuple[str, ...] = ()
    shared: str = ""
    loose: str = ""
    several: tuple[str, ...] = ()
    problem: str = ""
    system: str = "us"
    whole: bool = False
    pieces: float = 1.0
    uncooked: bool = False
    then: str = ""
    beside: str = ""


@dataclass
class _Cursor:
    text: str
    at: int = 0

    def take(self, pattern: re.Pattern[str]) -> re.Match[str] | None:
        match = pattern.match(self.text, self.at)
        if match:
            self.at = match.end()
        return match

    @property
    def rest(self) -> str:
        return self.text[self.at :]


def _several(line: str, text: str) -> tuple[str, ...]:
    """The lines to write where one amount stands for several foods: "1/2 tsp each cumin and
    coriander"."""
    two = AND_ANOTHER.match(line)
    if two and all(_read(part).phrase and _read(part).terms for part in two.groups()):
        return tuple(part.strip(" ,") for part in two.groups())
    match = EACH_OF.match(line) or EACH_AFTER.match(line)
    if not match or (match.re is EACH_AFTER and not re.search(r",| and | & ", match["foods"])):
        return ()
    foods = [
        one.strip(" .")
        for one in re.split(r",\s*(?:and |& )?|\s+and\s+|\s+&\s+|\s\+\s", match["foods"])
    ]
    amount = match["amount"].strip(" :,")
    return tuple(f"{amount} {food}".strip() for food in foods if food)


def _of_it(terms: tuple[Quantity, ...], note: str) -> tuple[Quantity, ...]:
    """What counts of an amount of which a part is used: "1 onion, half of it"."""
    match = SHARE_USED.search(note)
    if not match:
        return terms
    return tuple(term.times(SHARES[match[1].lower()]) for term in terms)


def _more_of_it(terms: tuple[Quantity, ...], note: str) -> tuple[Quantity, ...]:
    """An amount that is added after the food: "1 tbsp tahini, plus 1 tsp"."""
    match = PLUS_MORE.search(note)
    unit = UNIT_OF.get(match[2].lower()) if match else None
    if not match or unit is None or not terms:
        return terms
    value = number(match[1])
    return (*terms, Quantity(value, value, value, unit))


def _beyond(line: str, terms: tuple[Quantity, ...]) -> str:
    """What is asked of an amount that cannot be meant."""
    if re.match(r"^-\d", line):
        return "the amount is below zero"
    if re.match(r"^\d{1,3}\.\d{3}(?!\d)\s*(?:g|ml|grams?)\b", line, re.I):
        return "is the point a decimal point or does it mark thousands? write 1000 or 1"
    if terms and terms[0].best <= 0:
        return "the amount is nothing"
    if any(term.unit not in WEIGHT_NAMES and term.best > MOST_COUNT for term in terms):
        return "the amount is beyond any kitchen"
    return ""


def _unit_of(word: str) -> str:
    return CASED.get(word) or UNIT_OF[word.lower()]


def _quantity(cursor: _Cursor) -> tuple[float, float, float] | None:
    match = cursor.take(QTY)
    if not match:
        return None
    low = number(match[1])
    high = number(match[2]) if match[2] else low
    if high < low:
        # "1-1/2 cups" is one and a half
        low = high = low + high
    return (low + high) / 2, low, high


def _cased_unit(cursor: _Cursor) -> str:
    cursor.take(LOOK)
    match = re.compile(r"\s*(Tb|T|t)(?![A-Za-z])\.?").match(cursor.text, cursor.at)
    if match:
        cursor.at = match.end()
        return CASED[match[1]]
    found = None if NO_UNIT.match(cursor.text, cursor.at) else cursor.take(UNIT)
    return _unit_of(found[1]) if found else ""


def read(text: str, system: str = "us") -> Reading:
    """Read one line, its cups and spoons those of `system`. Never raises: what cannot be read has a
    `problem` saying why."""
    return replace(_read(text), system=system)


def _names_food(line: str) -> bool:
    """Whether a piece of a line has more than an amount: "3 tbsp" alone has not."""
    cursor = _Cursor(line)
    try:
        _terms(cursor)
    except (ValueError, ZeroDivisionError):
        return False
    return bool(cursor.rest.strip())


def _read(text: str) -> Reading:
    # Whole: one pass over a line.
    line = plain(text)[:400]
    if not line:
        return Reading(text=text, problem="empty line")
    if not re.search(r"\beach\b", line, re.I):
        line = SALT_AND_PEPPER.sub("salt", line)
    water = WITH_WATER.search(line)
    if water and _names_food(line[: water.start()]):
        line = line[: water.start()]
    else:
        water = None
    said = set_apart(line)
    line = said.line
    take = ""
    match = TAKE.match(line)
    if match:
        take, line = match[1].lower(), line[match.end() :]
        if "juice" in match[0].lower():
            # of both the juice is what weighs
            take = "juice"
    cursor = _Cursor(line)
    cursor.take(re.compile(r"\s*(about|approximately|approx\.?|around|roughly|~)\s+", re.I))
    try:
        parsed = _terms(cursor)
    except (ValueError, ZeroDivisionError):
        return Reading(text=text, phrase=line, problem="the amount could not be read")
    terms, package, size, fill, pieces = parsed
    whole = pieces > 0
    rest = PURPOSE.sub("", cursor.rest)
    rest, alternatives, shared = _alternatives(rest)
    phrase, forms, note = _phrase(rest)
    whole_phrase = phrase
    counted_first = terms
    terms, package, phrase, forms, florets = _after_the_food(terms, package, phrase, forms, note)
    whole = whole or (terms != counted_first and terms[0].unit in WEIGHT_NAMES)
    shared = shared or florets
    done = re.findall(
        r"\b(juice|zest)e?d\b|(?:^|, |and )(?:just the )?(juice|zest)(?: only)?(?:$|,)", note
    )
    done = [first or second for first, second in done]
    if done and not take:
        # zested and juiced: the juice is what weighs
        take = "juice" if "juice" in done else "zest"
    if not terms and take:
        terms = (Quantity(1, 1, 1),)
    terms = _of_it(_more_of_it(terms, note), note)
    after = next((part for part in note.split(", ") if part in SIZES), "")
    if after and not size:
        # "1 baked sweet potato, large"
        terms = tuple(replace(term, unit=term.unit or after) for term in terms)
    loose = LOOSE.search(line)
    problem = _beyond(text.strip(), terms)
    several = _several(line, cursor.text)
    if several:
        problem = "several foods on one line: write a line for each"
    elif problem:
        pass
    elif not phrase:
        problem = "no food named"
    elif not terms and package is None and not loose:
        problem = NO_AMOUNT
    return Reading(
        text=text,
        terms=terms,
        package=package,
        phrase=phrase,
        forms=forms,
        size=size,
        counted=whole_phrase if phrase != whole_phrase else "",
        take=take,
        fill=fill,
        note=note,
        alternatives=alternatives,
        shared=shared,
        loose=loose[1].lower() if loose and not terms else "",
        several=several,
        problem=problem,
        whole=whole,
        pieces=pieces if counted_first == terms else counted_first[0].best,
        uncooked=said.uncooked,
        then=said.then,
        beside=water["water"] if water else "",
    )


def _alternatives(rest: str) -> tuple[str, tuple[str, ...], str]:
    """What stands before the first "or", what may be taken instead, and the first with the noun
    both may share.

    A remark after a comma stays with the first: it counts until another is picked.
    """
    match = re.search(
        r"^(?P<first>[^(,]*?)(?:,\s*|\s*\(\s*|\s+)or\s+(?P<other>[^,()]+)\)?(?P<tail>.*)$",
        rest,
        re.I,
    )
    if (
        not match
        or not match["first"].strip()
        or re.match(r"(?:more|less|so|as|to)\b", match["other"].strip(), re.I)
    ):
        return rest, (), ""
    first, other = match["first"].strip(), match["other"].strip()
    last = other.split()[-1]
    # "soy or almond milk": the kind of food is named once; "or 1 1/2 cans" is another amount
    amount = other[0].isdigit() or last.lower() in UNIT_OF
    said = re.search(rf"\b{re.escape(last)}\b", first, re.I)
    shared = f"{first} {last}" if len(other.split()) > 1 and not said and not amount else ""
    return f"{first}{match['tail']}", (other,), shared


def _after_the_food(
    terms: tuple[Quantity, ...],
    package: Quantity | None,
    phrase: str,
    forms: tuple[str, ...],
    note: str,
) -> tuple[tuple[Quantity, ...], Quantity | None, str, tuple[str, ...], str]:
    """A count word that follows its food ("garlic cloves"), and the size of a can said at the
    end."""
    counted, shared = COUNT_AFTER.match(phrase), ""
    if counted and counted[1].lower() in FORM_WORDS:
        # "whole cloves" are the spice
        counted = None
    if counted and terms:
        word, only = counted[2].lower(), len(terms) == 1
        if word == "halves" and only and not terms[0].unit:
            terms, phrase, forms = (
                (replace(terms[0], unit="piece"),),
                counted[1],
                (*forms, "halves"),
            )
        elif only and terms[0].unit in ("", *SIZES) and word != "halves":
            terms, phrase = (replace(terms[0], unit=UNIT_OF[word]),), counted[1]
        elif word.startswith("floret"):
            phrase, shared = counted[1], phrase
    if len(terms) == 1 and terms[0].unit in COUNTED and package is None:
        terms = _weighed_aside(terms[0], note)
    if package is None and len(terms) == 1 and terms[0].unit in CONTAINERS:
        stated = re.match(
            rf"\s*(?:about )?({NUMBER})\s*-?\s*(g|kg|fl oz|oz|ounces?|grams?|lb|ml|l)\b",
            note.split(", ")[-1],
            re.I,
        )
        if stated:
            value = number(stated[1])
            package = Quantity(value, value, value, _unit_of(stated[2]))
    return terms, package, phrase, forms, shared


def _weighed_aside(term: Quantity, note: str) -> tuple[Quantity, ...]:
    """What a count was said to weigh besides: "2 potatoes (about 300 g)", "3 carrots (60 g
    each)"."""
    for part in note.split(", "):
        stated = ASIDE.fullmatch(part.strip())
        if stated:
            value = number(stated[1])
            one = Quantity(value, value, value, _unit_of(stated[2]))
            return (replace(term, unit=one.unit).times(value) if stated[3] else one,)
    return (term,)


def _terms(cursor: _Cursor) -> tuple[tuple[Quantity, ...], Quantity | None, str, str, float]:
    # Whole: one pass over the amounts of a line.
    terms: list[Quantity] = []
    package: Quantity | None = None
    size = fill = ""
    pieces = 0.0
    sign = 1.0
    while True:
        amount = _quantity(cursor)
        if amount is None:
            break
        if amount[0] > 100_000:
            raise ValueError("an amount beyond any kitchen")
        found = cursor.take(FILL)
        if found:
            fill = found[1].lower()
        # "1 (2-inch) piece": two inches of it
        inches = INCHES.match(cursor.text, cursor.at)
        if inches:
            cursor.at = inches.end()
            terms.append(Quantity(*amount, "inch").times(number(inches[1])))
            break
        inner = re.compile(r"\s*(?:" + PACKAGE.pattern + r")(?=\s|$|-)", re.I).match(
            cursor.text, cursor.at
        )
        if inner and re.match(
            r"\s*-?\s*(?:\S+\s+){0,2}?(?:"
            + "|".join(n for u in CONTAINERS for n in _names(u))
            + r")\b",
            cursor.text[inner.end() :],
            re.I,
        ):
            value = number(inner[1])
            package = Quantity(value, value, value, _unit_of(inner[2].replace("fl oz", "fl oz")))
            cursor.at = inner.end()
            cursor.take(re.compile(r"\s*-"))
        start = cursor.at
        unit = _cased_unit(cursor)
        if unit in SIZES:
            size = unit
            # "small or medium": between the two, so the first with its range
            cursor.take(OR_SIZE)
            second = _cased_unit(cursor)
            unit = second if second and second not in SIZES else size
        elif unit == "piece" and start == cursor.at:
            unit = ""
        found = cursor.take(FILL)
        if found:
            fill = found[1].lower()
        terms.append(Quantity(*amount, unit).times(sign))
        # "8 oz package", "400 g can": the weight is the package's, said before the container
        if unit in ("g", "oz", "ml", "kg", "lb") and package is None:
            container = re.compile(
                r"\s*-?\s*(" + "|".join(n for u in CONTAINERS for n in _names(u)) + r")\b", re.I
            ).match(cursor.text, cursor.at)
            if container:
                package = terms[-1]
                terms[-1] = Quantity(1, 1, 1, UNIT_OF[container[1].lower()])
                cursor.at = container.end()
        after = re.compile(
            r"\s*\(\s*(?:about|approx\.?)?\s*"
            + PACKAGE.pattern.replace(r"\(?\s*", "", 1)
            + r"[^)]*\)",
            re.I,
        ).match(cursor.text, cursor.at)
        if after and package is None:
            value = number(after[1])
            stated = Quantity(value, value, value, _unit_of(after[2]))
            if unit in ("block", "package") and terms[-1].best < 1:
                terms[-1] = stated  # "1/2 block (7 oz)": the half weighs it
            elif unit in CONTAINERS:
                package = stated
            else:
                terms[-1] = stated  # "1 cup (140 g)": the weight beats the measure
                pieces = amount[0] if unit in ("", *SIZES, "head", "bunch", "ear") else 0.0
            cursor.at = after.end()
        joint = JOINT.match(cursor.text, cursor.at)
        if joint:
            cursor.at = joint.end()
            sign = -1.0 if joint[1].lower() in ("minus", "less") else 1.0
        elif not _goes_on(cursor, unit):
            break
    return tuple(terms), package, size, fill, pieces


def _goes_on(cursor: _Cursor, unit: str) -> bool:
    """Whether a smaller unit of the same kind follows without a word between: "1 lb 2 oz", "1 cup 2
    tbsp"."""
    smaller = SMALLER.get(unit, ())
    found = (
        re.compile(rf"\s*,?\s*{NUMBER}\s*", re.I).match(cursor.text, cursor.at) if smaller else None
    )
    if not found:
        return False
    ahead = _Cursor(cursor.text, found.end())
    return _cased_unit(ahead) in smaller


def _names(unit: str) -> tuple[str, ...]:
    return tuple(name for name, known in UNIT_OF.items() if known == unit)


def _phrase(rest: str) -> tuple[str, tuple[str, ...], str]:
    """Split what follows the amount into the food's name, the forms it is in, and the cook's
    remark."""
    rest = re.sub("[\u00b5\u03bc]g", "ug", rest)
    rest = unicodedata.normalize("NFKD", rest).encode("ascii", "ignore").decode()
    rest = re.sub(r"^\s*of\s+", "", rest.strip(), flags=re.I)
    notes = re.findall(r"\(([^)]*)\)", rest)
    rest = re.sub(r"\([^)]*\)?", " ", rest)
    name, comma, tail = rest.partition(",")
    forms: list[str] = []
    for word in re.findall(r"[a-z]+", name.lower()):
        form = FORM_WORDS.get(word)
        if form and form not in forms:
            forms.append(form)
    for word in re.findall(r"[a-z]+", " ".join([tail, *notes]).lower()):
        form = FORM_WORDS.get(word)
        if form and form not in forms:
            forms.append(form)
    return (
        re.sub(r"\s+", " ", name).strip(" -"),
        tuple(forms),
        ", ".join(part.strip() for part in [tail, *notes] if part.strip()),
    )
