"""Read one line of a recipe as a cook writes it: how much, of what, in which form.

`read` knows words and numbers only; `written.matching` puts a food and its grams to what was read.
"""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass, replace

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


FORM_WORDS = {
    "cooked": "cooked",
    "boiled": "cooked",
    "steamed": "cooked",
    "dry": "dry",
    "dried": "dried",
    "uncooked": "dry",
    "raw": "raw",
    "fresh": "fresh",
    "frozen": "frozen",
    "canned": "canned",
    "tinned": "canned",
    "prepared": "prepared",
    "drained": "drained",
    "rinsed": "rinsed",
    "undrained": "undrained",
    "chopped": "chopped",
    "diced": "chopped",
    "cubed": "chopped",
    "sliced": "sliced",
    "grated": "grated",
    "shredded": "shredded",
    "minced": "minced",
    "mashed": "mashed",
    "puree": "mashed",
    "pureed": "mashed",
    "ground": "ground",
    "packed": "packed",
    "whole": "whole",
    "peeled": "peeled",
    "unpeeled": "unpeeled",
    "pitted": "pitted",
    "baked": "baked",
    "roasted": "roasted",
    "toasted": "toasted",
    "crumbled": "chopped",
    "halved": "halves",
    "quartered": "chopped",
    "trimmed": "trimmed",
    "untrimmed": "untrimmed",
}
FILLS = {
    "heaping": 1.25,
    "heaped": 1.25,
    "rounded": 1.15,
    "scant": 0.9,
    "level": 1.0,
    "generous": 1.1,
    "good": 1.1,
}

_QTY = re.compile(rf"\s*({NUMBER})(?:\s*(?:-|to|or)\s*({NUMBER}))?(?:\s*([x×])(?=\s*\d))?", re.I)
_PACKAGE = re.compile(
    rf"\(?\s*({NUMBER})\s*-?\s*(g|kg|oz|oz\.|ounces?|ml|l|lb|lbs|grams?|fl\.? ?oz)\b\.?\s*\)?", re.I
)
_UNITS = sorted((name for name in UNIT_OF if len(name) > 1), key=len, reverse=True)
_UNIT = re.compile(
    r"\s*-?(" + "|".join(re.escape(name) for name in _UNITS) + r"|[cgl])(?![a-z])\.?", re.I
)
# How a clove or a slice looks says nothing of what it weighs.
_LOOK = re.compile(
    r"\s*(?:fat|plump|thick|thin|thickly cut|long|short|juicy)\s+(?=(?:clove|slice|stalk|stick|rib"
    r"|piece|wedge|spear|sprig|leek)s?\b)",
    re.I,
)
# Begins as a unit does and is a food.
_NO_UNIT = re.compile(r"\s*(?:bottle gourd|cubed|canned|head lettuce|leaf lettuce|ear fung)", re.I)
_INCHES = re.compile(
    rf"\s*\(\s*({NUMBER})[\s-]*(?:inch|in\.?|\")\s*\)\s*(?:piece|knob|length)s?\b", re.I
)
_JOINT = re.compile(r"\s*(plus|and|\+|&|minus|less)\s+(?=\d)", re.I)
# "1/2 tsp each cumin and coriander": one amount for several foods.
_EACH_OF = re.compile(
    r"^(?P<amount>[^,(]*?)\s*\beach\b(?: of)?\s*[:,]?\s*"
    r"(?P<foods>[^,(]+(?:,| and | & | \+ )\s*\w.*)$",
    re.I,
)
_EACH_AFTER = re.compile(rf"^(?P<amount>{NUMBER}\s*[a-z]+)\s+(?P<foods>.+?),? each$", re.I)
# "2 tbsp ground flaxseed + 6 tbsp water": two foods, each with its amount.
_AND_ANOTHER = re.compile(
    rf"^(.*[a-z]{{3}}.*?),?\s+(?:\+|plus|and|&|mixed with|with|in)\s+({NUMBER}\s*[a-z].*)$", re.I
)
# "half of it", "use a third": what of the amount counts.
_SHARE_USED = re.compile(
    r"(?:^|, |\b(?:use|using|only|just) )(?:about )?(?:a |an |one )?(half|third|quarter)"
    r"(?: (?:of it|of this|of the \w+|used|only))?(?=$|,)",
    re.I,
)
_SHARES = {"half": 1 / 2, "third": 1 / 3, "quarter": 1 / 4}
_PLUS_MORE = re.compile(rf"(?:^|, )(?:plus|and|\+) ({NUMBER})\s*([a-z]+)\b(?! of)", re.I)
NO_AMOUNT = "no amount given"
# No kitchen weighs or counts so much on one line.
MOST_COUNT = 10_000
_OR_SIZE = re.compile(r"\s*(?:or|to|-)\s*(?:small|medium|large)\b", re.I)
_FILL = re.compile(r"\s*(" + "|".join(FILLS) + r"|packed|loosely packed)\b", re.I)
_TAKE = re.compile(
    r"^\s*(?:the\s+)?(juice|zest)(?:\s+and\s+(?:zest|juice))?\s+(?:of|from)\s+", re.I
)
_COUNTED = {
    *("", "small", "medium", "large", "head", "stalk", "rib", "ear", "glass", "mug", "bowl"),
    *("nest", "piece", "slice", "square", "serving", "bunch", "punnet"),
}
_ASIDE = re.compile(
    rf"(?:about|approx\.?|approximately|around|weighing|~)?\s*({NUMBER})\s*-?\s*(g|kg|oz|ounces?"
    rf"|grams?|lbs?|pounds?|ml|cl|l|fl oz)\.?( each)?",
    re.I,
)
_CONTAINERS = {"can", "jar", "package", "block", "pot"}
SIZES = ("small", "medium", "large", "extra large")
# Stirred into the food, it brings nothing but its weight: "1 tbsp ground flaxseed + 3 tbsp water".
_WITH_WATER = re.compile(
    rf",?\s+(?:\+|plus|and|&|mixed with|with|in)\s+(?P<water>{NUMBER}\s*[a-z]+\.?\s+(?:of )?"
    r"(?:(?:hot|warm|cold|boiling|lukewarm|tap) )?water)\b.*$",
    re.I,
)
# What may follow a unit without a word between.
SMALLER = {
    "kg": ("g",),
    "lb": ("oz",),
    "l": ("ml",),
    "pint": ("cup", "tbsp", "fl oz"),
    "quart": ("cup", "tbsp", "fl oz"),
    "cup": ("tbsp", "tsp"),
    "tbsp": ("tsp",),
}
# A count word that follows its food: "celery stalks", "garlic cloves", "walnut halves".
_COUNT_AFTER = re.compile(
    r"^(.+?) (stalks?|ribs?|sticks?|cloves?|sheets?|leaf|leaves|sprigs?|heads?|bulbs?|florets?"
    r"|slices?|wedges?|bunch|bunches|spears?|ears?|"
    r"halves|caps?)$",
    re.I,
)
# An amount that is left to the cook.
_LOOSE = re.compile(
    r"\b(to taste|as needed|as required|for serving|to serve|for garnish|to garnish|for drizzling"
    r"|for dusting|for frying|for greasing|for the pan|to thin|to cover|to loosen|to finish"
    r"|to sprinkle|for sprinkling)\b",
    re.I,
)
_PURPOSE = re.compile(
    r"\s+(?:to (?:thin|taste|serve|garnish|cover|drizzle|finish|loosen)|for (?:serving|garnish"
    r"|dusting|topping|drizzling|cooking|frying|brushing|dressing))\b.*$",
    re.I,
)


# Seasoned with both: the salt is what counts.
_SALT_AND_PEPPER = re.compile(
    r"\bsalt (?:and|&|\+) (?:(?:freshly|ground|cracked|black|white|fresh) )*pepper\b", re.I
)


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
    two = _AND_ANOTHER.match(line)
    if two and all(_read(part).phrase and _read(part).terms for part in two.groups()):
        return tuple(part.strip(" ,") for part in two.groups())
    match = _EACH_OF.match(line) or _EACH_AFTER.match(line)
    if not match or (match.re is _EACH_AFTER and not re.search(r",| and | & ", match["foods"])):
        return ()
    foods = [
        one.strip(" .")
        for one in re.split(r",\s*(?:and |& )?|\s+and\s+|\s+&\s+|\s\+\s", match["foods"])
    ]
    amount = match["amount"].strip(" :,")
    return tuple(f"{amount} {food}".strip() for food in foods if food)


def _of_it(terms: tuple[Quantity, ...], note: str) -> tuple[Quantity, ...]:
    """What counts of an amount of which a part is used: "1 onion, half of it"."""
    match = _SHARE_USED.search(note)
    if not match:
        return terms
    return tuple(term.times(_SHARES[match[1].lower()]) for term in terms)


def _more_of_it(terms: tuple[Quantity, ...], note: str) -> tuple[Quantity, ...]:
    """An amount that is added after the food: "1 tbsp tahini, plus 1 tsp"."""
    match = _PLUS_MORE.search(note)
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
    match = cursor.take(_QTY)
    if not match:
        return None
    low = number(match[1])
    high = number(match[2]) if match[2] else low
    if high < low:
        # "1-1/2 cups" is one and a half
        low = high = low + high
    return (low + high) / 2, low, high


def _cased_unit(cursor: _Cursor) -> str:
    cursor.take(_LOOK)
    match = re.compile(r"\s*(Tb|T|t)(?![A-Za-z])\.?").match(cursor.text, cursor.at)
    if match:
        cursor.at = match.end()
        return CASED[match[1]]
    found = None if _NO_UNIT.match(cursor.text, cursor.at) else cursor.take(_UNIT)
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
    line = plain(text)[:400]
    if not line:
        return Reading(text=text, problem="empty line")
    if not re.search(r"\beach\b", line, re.I):
        line = _SALT_AND_PEPPER.sub("salt", line)
    water = _WITH_WATER.search(line)
    if water and _names_food(line[: water.start()]):
        line = line[: water.start()]
    else:
        water = None
    said = set_apart(line)
    line = said.line
    take = ""
    match = _TAKE.match(line)
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
    rest = _PURPOSE.sub("", cursor.rest)
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
    loose = _LOOSE.search(line)
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
    counted, shared = _COUNT_AFTER.match(phrase), ""
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
    if len(terms) == 1 and terms[0].unit in _COUNTED and package is None:
        terms = _weighed_aside(terms[0], note)
    if package is None and len(terms) == 1 and terms[0].unit in _CONTAINERS:
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
        stated = _ASIDE.fullmatch(part.strip())
        if stated:
            value = number(stated[1])
            one = Quantity(value, value, value, _unit_of(stated[2]))
            return (replace(term, unit=one.unit).times(value) if stated[3] else one,)
    return (term,)


def _terms(cursor: _Cursor) -> tuple[tuple[Quantity, ...], Quantity | None, str, str, float]:
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
        found = cursor.take(_FILL)
        if found:
            fill = found[1].lower()
        # "1 (2-inch) piece": two inches of it
        inches = _INCHES.match(cursor.text, cursor.at)
        if inches:
            cursor.at = inches.end()
            terms.append(Quantity(*amount, "inch").times(number(inches[1])))
            break
        inner = re.compile(r"\s*(?:" + _PACKAGE.pattern + r")(?=\s|$|-)", re.I).match(
            cursor.text, cursor.at
        )
        if inner and re.match(
            r"\s*-?\s*(?:\S+\s+){0,2}?(?:"
            + "|".join(n for u in _CONTAINERS for n in _names(u))
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
            cursor.take(_OR_SIZE)
            second = _cased_unit(cursor)
            unit = second if second and second not in SIZES else size
        elif unit == "piece" and start == cursor.at:
            unit = ""
        found = cursor.take(_FILL)
        if found:
            fill = found[1].lower()
        terms.append(Quantity(*amount, unit).times(sign))
        # "8 oz package", "400 g can": the weight is the package's, said before the container
        if unit in ("g", "oz", "ml", "kg", "lb") and package is None:
            container = re.compile(
                r"\s*-?\s*(" + "|".join(n for u in _CONTAINERS for n in _names(u)) + r")\b", re.I
            ).match(cursor.text, cursor.at)
            if container:
                package = terms[-1]
                terms[-1] = Quantity(1, 1, 1, UNIT_OF[container[1].lower()])
                cursor.at = container.end()
        after = re.compile(
            r"\s*\(\s*(?:about|approx\.?)?\s*"
            + _PACKAGE.pattern.replace(r"\(?\s*", "", 1)
            + r"[^)]*\)",
            re.I,
        ).match(cursor.text, cursor.at)
        if after and package is None:
            value = number(after[1])
            stated = Quantity(value, value, value, _unit_of(after[2]))
            if unit in ("block", "package") and terms[-1].best < 1:
                terms[-1] = stated  # "1/2 block (7 oz)": the half weighs it
            elif unit in _CONTAINERS:
                package = stated
            else:
                terms[-1] = stated  # "1 cup (140 g)": the weight beats the measure
                pieces = amount[0] if unit in ("", *SIZES, "head", "bunch", "ear") else 0.0
            cursor.at = after.end()
        joint = _JOINT.match(cursor.text, cursor.at)
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
