"""A cook's wording made plain: numbers in words and signs, remarks before the amount, an amount at
the end of the line."""

from __future__ import annotations

import re
import unicodedata

from nutrition.written.units import UNIT_OF

NUMBER = r"(?:\d+\s+\d+/\d+|\d+/\d+|\d+(?:\.\d+)?|\.\d+)"
NUMBER_WORDS = {
    "a": 1.0,
    "an": 1.0,
    "one": 1.0,
    "two": 2.0,
    "three": 3.0,
    "four": 4.0,
    "five": 5.0,
    "six": 6.0,
    "seven": 7.0,
    "eight": 8.0,
    "nine": 9.0,
    "ten": 10.0,
    "eleven": 11.0,
    "twelve": 12.0,
}
FRACTION_WORDS = {"half": 1 / 2, "quarter": 1 / 4, "third": 1 / 3, "fourth": 1 / 4, "eighth": 1 / 8}
BY_EYE_WORDS = (
    "pinch|dash|smidgen|splash|drizzle|squeeze|knob|handful|bunch|sprig|thumb|glug|dollop|fistful"
    "|spoonful|ladleful|plateful|cupful|cup|mug|tablespoon|tbsp|teaspoon|tsp"
)
# These too where "of" follows: a glass of water is so much, glass noodles are not.
_WITH_OF = (
    "glass|bowl|plate|spoon|ladle|katori|scoop|slice|piece|can|tin|jar|bag|box|package|packet|pack"
    "|carton|bottle|pot|tub|sachet|sheet|square|serving|portion|clove|stick|stalk|head|wedge|strip"
)
_LITTLE = re.compile(
    r"^(?:an? )?(?:(?:little |tiny )?(?:bit|touch|hint|tad|lick|trace)(?: of)?|little) "
    r"(?!gem|millet)",
    re.I,
)
_COUNT = "|".join(word for word in NUMBER_WORDS if word not in ("a", "an"))
_FRACTION = "|".join(FRACTION_WORDS)
_FILL_WORDS = "heaping|heaped|rounded|scant|level|generous|good"
# What stands before an amount and changes nothing, or marks it as an estimate or an option.
_BEFORE = re.compile(
    r"^(?:optional(?:ly)?|about|approximately|approx\.?|around|roughly|circa|ca\.?|up to|at least"
    r"|some|~)\s*:?\s*(?=[\d.a])",
    re.I,
)
_METRIC = r"(?:g|kgs?|mls?|cl|l|grams?|lit(?:er|re)s?)"
_OTHER = r"(?:oz|lb|lbs|ounces?|pounds?|fl\.? ?oz|cups?|pints?)"
_TWO_SYSTEMS = re.compile(
    rf"^(?:(?P<metric>{NUMBER} ?{_METRIC}) ?/ ?{NUMBER} ?-?{_OTHER}\b\.?|{NUMBER} ?-?{_OTHER}\.? "
    rf"?/ ?(?P<after>{NUMBER} ?{_METRIC}\b))",
    re.I,
)
_AT_END = re.compile(
    rf"^(?P<name>[a-z][^\d]*?)[\s,:\u2013-]+(?P<amount>{NUMBER}(?:\s*(?:-|to"
    rf"|or)\s*{NUMBER})?\s*[a-z]*\.?)$",
    re.I,
)


def number(text: str) -> float:
    """The value of "1 1/2", "1/2", "1.5". Raises ValueError on anything else."""
    total = 0.0
    for part in text.split():
        top, slash, bottom = part.partition("/")
        if slash and float(bottom) == 0:
            raise ValueError("a fraction over zero")
        total += float(top) / float(bottom) if slash else float(part)
    return total


def plain(text: str) -> str:
    """The line with vulgar fractions, fancy dashes, bullets and number words written plainly, its
    amount first."""
    line = _marks_of_numbers(_signs(text))
    line = re.sub(r"^\s*(?:[-*•·]|\d+[.)]\s(?=\d))\s*", "", line)
    line = re.sub(r"\s+", " ", line).strip()
    line = _BEFORE.sub("", line)
    # "100 g/3.5 oz", "3 1/2 oz (100 g)": one weight in two systems; the metric one is kept
    line = _TWO_SYSTEMS.sub(lambda m: m["metric"] or m["after"], line)
    line = _BEAN_WATER.sub(
        lambda m: f"{m['many'] if m['many'][0].isdigit() else 1} can aquafaba", line
    )
    line = _LITTLE.sub("1 littlebit ", line)
    line = _INCHES_MARK.sub(r"\1 inch ", line)
    line = _AND_FRACTION.sub(r"\1 \2", line)
    line = re.sub(rf"^between ({NUMBER}) and ({NUMBER})\b", r"\1-\2", line, flags=re.I)
    return _amount_first(_words_to_numbers(line))


def _marks_of_numbers(line: str) -> str:
    """Thousands and decimal commas written our way: "1,000 g", "1,5 cups"."""
    line = re.sub(
        r"(?<![\d.,])(\d{1,3}(?:,\d{3})+)(?![\d,])", lambda m: m[1].replace(",", ""), line
    )
    return re.sub(r"(?<![\d.,])(\d+),(\d{1,2})(?=\s?[a-zA-Z])", r"\1.\2", line)


# "the liquid from 1 can of chickpeas"
_BEAN_WATER = re.compile(
    rf"^(?:the )?(?:liquid|brine|water|juice) (?:from|of) (?P<many>an?|the|one|{NUMBER}) "
    r"(?:can|tin|jar)s?(?: of)? (?:chick ?peas?|garbanzos?|white beans|cannellini)(?: beans)?\b",
    re.I,
)
_OF_ONE = re.compile(
    rf"^((?:the )?(?:juice|zest) of )?({NUMBER}) (?:of )?(?:an?|one) ",
    re.I,
)
_UNIT_ALONE = re.compile(
    rf"^((?:(?:small|large|big|generous) )?(?:{_WITH_OF})s? of )(?=\w)",
    re.I,
)
_INCHES_MARK = re.compile(rf"^({NUMBER})\s?(?:[\"\u201d\u2033]|'')\s*", re.I)
_AND_FRACTION = re.compile(r"\b(\d+) and (?:a )?(\d+/\d+)\b", re.I)


def _signs(text: str) -> str:
    out = []
    for char in text:
        if unicodedata.name(char, "").startswith("VULGAR FRACTION"):
            out.append(f" {unicodedata.normalize('NFKC', char)}")
        else:
            out.append("-" if char in "\u2013\u2014\u2212" else char)
    return "".join(out).replace("\u2044", "/")


def _value(count: str | None, part: str) -> str:
    times = NUMBER_WORDS[count.lower()] if count else 1.0
    return f"{times * FRACTION_WORDS[part.lower()]:.6g}"


# "half the package", "a third of the can", "the whole jar", as people say it of what they bought.
_OF_CONTAINER = re.compile(
    rf"^(?:(?P<count>an?|{_COUNT})[ -])?(?P<part>{_FRACTION})s?(?: of)? (?:the|an?|one) "
    rf"(?P<what>(?:small |large )?(?:package|packet|pack|can|tin|jar|bag|box|block|carton|bottle"
    rf"|container|pouch|tub|tube|head|bunch|loaf))\b(?: of)?(?= )",
    re.I,
)
_WHOLE_CONTAINER = re.compile(
    r"^(?:all of )?(?:the|a|one) (?:whole|entire) (?P<what>package|packet|pack|can|tin|jar|bag|box"
    r"|block|carton|bottle|container|pouch|tub|tube)\b(?: of)?(?= )",
    re.I,
)


def _container(match: re.Match[str]) -> str:
    count = (match["count"] or "one").lower()
    return f"{NUMBER_WORDS[count] * FRACTION_WORDS[match['part'].lower()]:.6g} {match['what']}"


def _words_to_numbers(line: str) -> str:
    line = _OF_CONTAINER.sub(_container, line)
    line = _WHOLE_CONTAINER.sub(lambda m: f"1 {m['what']}", line)
    line = re.sub(r"\b(a )?couple( of)?\b", "2", line, flags=re.I)
    line = re.sub(r"\b(a few|several)\b", "3", line, flags=re.I)
    line = re.sub(
        r"^(?:an? )?thumb[- ]sized? (?:piece|knob|chunk)\b(?: of)?", "1 thumb", line, flags=re.I
    )
    line = re.sub(rf"^({NUMBER}) ?#(?= )", r"\1 lb", line)
    # "a 4 cm piece" in inches, as ginger is weighed by
    line = re.sub(
        rf"^({NUMBER})[ -]?cm(?=[ -])",
        lambda m: f"{number(m[1]) / 2.54:.3g} inch",
        line,
        flags=re.I,
    )
    line = re.sub(r"\bhalf of one\b", "1/2", line, flags=re.I)
    # "1/2 of a large one", "the juice of 1/2 a lemon"
    line = _OF_ONE.sub(r"\1\2 ", line)
    line = re.sub(rf"\b({_COUNT}) and one[- ]({_FRACTION})\b", r"\1 and a \2", line, flags=re.I)
    line = re.sub(r"\bhalf a dozen\b", "6", line, flags=re.I)
    line = re.sub(rf"^({NUMBER}) dozen\b", lambda m: f"{12 * number(m[1]):g}", line, flags=re.I)
    line = re.sub(
        rf"\b(?:(a|{_COUNT}) )?dozen\b",
        lambda m: f"{12 * NUMBER_WORDS[(m[1] or 'one').lower()]:g}",
        line,
        flags=re.I,
    )
    line = re.sub(
        rf"\b({_COUNT}) and a ({_FRACTION})\b",
        lambda m: f"{NUMBER_WORDS[m[1].lower()] + FRACTION_WORDS[m[2].lower()]:.6g}",
        line,
        flags=re.I,
    )
    # "two thirds of a cup", "one-half cup", "three-quarters cup", "half an avocado"
    line = re.sub(
        rf"\b(?:({_COUNT})[ -])?({_FRACTION})s?(?! of (?:it|this|them)\b)(?: of)?(?: an?)?\b"
        r"(?= )(?! of \w+ and)",
        lambda m: (
            _value(m[1], m[2]) if m[1] or not line[m.end() :].strip().startswith(",") else m[0]
        ),
        line,
        count=1,
        flags=re.I,
    )
    line = re.sub(rf"^an? (?=(?:{_FILL_WORDS} )?{NUMBER} )", "", line, flags=re.I)
    return re.sub(
        rf"^(juice of |juice from |zest of |the juice of |juice and zest of |zest and juice of "
        rf")?(an?|{_COUNT})\b(?=[ -])",
        lambda m: f"{m[1] or ''}{NUMBER_WORDS[m[2].lower()]:g}",
        line,
        flags=re.I,
    )


def _amount_first(line: str) -> str:
    """The amount put in front where it stands at the end, after a word such as "heaping", or is
    only meant."""
    line = re.sub(rf"^({_FILL_WORDS}) ({NUMBER}) ", r"\2 \1 ", line, flags=re.I)
    line = re.sub(rf"^1 ({_FILL_WORDS}) ({NUMBER}) ", r"\2 \1 ", line, flags=re.I)
    line = re.sub(
        rf"^((?:small |large |generous )?(?:{BY_EYE_WORDS}) (?:of )?)(?=\w)",
        r"1 \1",
        line,
        flags=re.I,
    )
    line = _UNIT_ALONE.sub(r"1 \1", line)
    line = _amount_late(line)
    match = _AT_END.match(line)
    if match and not re.match(r"(?:juice|zest|the juice)\b", line, re.I):
        return f"{match['amount']} {match['name'].strip(' ,:-')}"
    return line


_ABOUT = r"(?:about|approximately|approx\.?|around|roughly|circa|ca\.?|maybe|~)"
_LATE = re.compile(
    rf"^(?P<name>[a-z][^\d(,]*(?:, [a-z][^\d(,]*)*?)"
    rf"\s*(?:(?:,|:|\(|\s-)\s*(?:{_ABOUT}\s+)?|\s{_ABOUT}\s+)"
    rf"(?P<count>an?|half an?|{_COUNT}|{NUMBER})\s*(?P<unit>[a-z]+\.?)\)?$",
    re.I,
)
_SIZE_LATE = re.compile(r"^(?P<name>[a-z][^\d,(]*), (?P<size>small|medium|large)$", re.I)


def _amount_late(line: str) -> str:
    """The amount put in front where it stands after the food: "brown rice, about a cup", "salt to
    taste (about 3/4 tsp)"."""
    sized = _SIZE_LATE.match(line)
    if sized:
        return f"1 {sized['size']} {sized['name']}"
    match = _LATE.match(line)
    if match is None or match["unit"].lower().rstrip(".") not in UNIT_OF:
        return line
    count = match["count"].lower()
    if count.startswith("half"):
        many = "1/2"
    else:
        many = f"{NUMBER_WORDS[count]:g}" if count in NUMBER_WORDS else count
    return f"{many} {match['unit']} {match['name'].strip(' ,:-')}"


def uncapitalized(name: str) -> str:
    """A name as it stands within a sentence: "Tofu, firm" is "tofu, firm"."""
    return name[:1].lower() + name[1:]
