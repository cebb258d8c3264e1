"""A written step taken apart into single pieces of work: "Soak overnight, cook the beans past firm,
add squash for twenty minutes" is three."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from nutrition.prep.steps.durations import HALF_WAY, is_only_a_time, stated_in
from nutrition.prep.steps.heat import heat_in
from nutrition.prep.steps.work_kinds import Kind, kind_named, kinds

# From this heat on a time and a heat alone are roasting, below it baking. Common practice, no
# source. [degrees Celsius]
ROASTED_FROM_C = 200
# What stirring or putting something somewhere may be instead.
PUT_TO = ("thicken", "soak", "marinate", "roast", "chill", "freeze", "broil", "cool")
# What is told about the dish and is no work.
REMARK = re.compile(
    r"^(?:it |this |they |slices? |the rest )?"
    r"(?:keeps?|freezes?|iron|vitamin|protein|gentle|good|fills?|for a client|serves?\s+\d"
    r"|makes?\s+(?:\d|about|enough|a)|salt nothing|note|tips?(?=\s*:)|do not|don't|never|made for"
    r"|no salt"
    r"|enjoy|nutrition|great|best|can be|eats?\b|goes well)\b"
    r"|^(?:slices? )?freezes? well"
    r"|^it (?:will |should |may )?(?:seizes?|thickens?|loosens?|turns?|is|can|looks?)\b"
    r"|^thickens as"
    r"|^(?:[\w']+ ){1,5}should (?:be|have|look|feel) (?!soaked|rinsed|drained|cooked|boiled|peeled)"
    r"|^(?:they|these|this|it|the \w+) (?:will )?\w+ (?:up |more )?(?:as|while|when) (?:they|it)\b"
    r"|^(?:up to |about )?(?:\w+ ){1,3}(?:days?|weeks?|months?) in the "
    r"(?:refrigerator|fridge|freezer)"
    r"|.*\bat the table\b",
    re.I,
)
# The heat is turned: told, and nothing to plan.
HEAT_TURNED = re.compile(
    r"^(?:reduce|lower|raise|increase|turn) (?:the )?(?:heat|oven|temperature)\b[\w °]*$"
    r"|^(?:reduce|lower|raise|increase|turn) (?:it )?(?:down |up )?to \d+ ?°?[ CF]*$"
    r"|^turn (?:the heat )?(?:down|up)(?: the heat)?[\w ]{0,12}$",
    re.I,
)
# Softened in a pan, said without a verb: "Onions in water until soft"; with "cook", in a little.
_SOFT = re.compile(
    r"\b(?:in|with) (?:splashes of |a little |some |the )?(?:water|oil)\b.*\bsoft\b"
    r"|\bsoft in (?:water|oil)\b",
    re.I,
)
_IN_LITTLE = re.compile(r"\b(?:splash(?:es)? of|a little|some) (?:water|oil)\b|\boil\b", re.I)
# Where it is done or for what, said before what is done: "In a large pot over medium heat, ..."
_LEAD_IN = re.compile(
    r"^\W*(?:in|on|over|using|with|for|to make) (?:a|an|the|your|another)\b[^,]*,\s*", re.I
)
# How it is meanwhile moved: "tossing after twenty"; and another way of doing it: "or bake it".
_MOVING = re.compile(
    r"^(?:stirring|turning|tossing|flipping|shaking|swapping|basting|rotating|brushing)\b", re.I
)
_OTHERWISE = re.compile(r"^or(?: else| alternatively|,)? (?=\w)", re.I)
# The end of a clause that says when it is done or why, not what is done.
_UNTIL = re.compile(
    r"\b(?:until|till|so (?:that|it|they|the)\b|before|as soon as|when|while(?! you)|once"
    r"|because|or it|or they|to taste|as (?:it|they|you)|if)\b.*",
    re.I,
)
# "barley in", "lemon last", "Dill off the heat", "seeds over for the last five", "Rice on".
_NOUN_WORK = re.compile(
    r"^(?:the |a |some |half the |most of the )?(?:[\w%'-]+(?: and | or |, | )){1,6}?"
    r"(?:in(?! (?:a |an |the )?(?:\w+ )?"
    r"(?:bowl|dish|pan|pot|cooker|blender|jar|saucepan|skillet|tray))"
    r"|on(?= top| the side|$|[.,;])|last|late|over|after|underneath|beside it|at the end"
    r"|off the heat|apart"
    r"|a ladle at a time|for the last|with splashes of water|to wilt|soft in water|into the \w+"
    r"|for \w+(?:[ -]\w+)? (?:minutes?|mins?|hours?))\b",
    re.I,
)
# What is told of the dish at the end of a piece of work.
_PRAISE = re.compile(r",? (?:and )?(?:good cold|keeps|freezes|good for)\b[^.;]*", re.I)
# A dish that is named for the oven.
_ROASTED = re.compile(r"\b(?:roast|baked?)\b(?! (?:pepper|garlic|beet)s? (?:sauce|soup|dip))", re.I)
_HOW = re.compile(
    r"^(?:un|partly |half |loosely )?covered\b|^with (?:the|a) lid|^without (?:the|a) lid|^lid "
    r"|^cut side|^stirring|^turning|^shaking|^basting",
    re.I,
)
# "Knead with flour", and then "yeast and water for ten minutes": the list goes on.
_LIST_OPEN = re.compile(r"\bwith (?:the |a )?[\w -]+$", re.I)
_ONLY_FOR = re.compile(r"(?<!last) \w+(?:[ -]\w+)? (?:minutes?|mins?|hours?)$", re.I)
# When it is done, said before what is done.
_STAGE = re.compile(
    r"^(?:(?:on )?the (?:night|evening|day|morning) before|(?:the )?next (?:day|morning)"
    r"|the following (?:day|morning)|on the day|in the (?:morning|evening))\s*[:,–-]?\s+(?=\w)",
    re.I,
)
_NAMED_LATER = re.compile(r"\blast\b|\bin\b(?! (?:the|a|an)\b)|\bgarlic\b", re.I)
# "While the rice cooks, chop the dill": beside it; "when it is soft, add": after it.
_BESIDE = re.compile(r"^while\b[^,]*,\s*", re.I)
_ONCE = re.compile(r"^(?:when|once|as soon as|after|as)\b[^,]*,\s*", re.I)
_SENTENCE = re.compile(r"(?<=[.;!])\s+|;\s*")
_CUT = re.compile(
    r"(\s*;\s*|\s*,\s+and then\s+|\s*,\s+then\s+|\s+and then\s+|\s+then\s+|\s*,\s+and\s+"
    r"|\s*,\s+|\s+and\s+|\s*:\s+)"
)
_ONLY_THEN = re.compile(r"then|;|:")


@dataclass(frozen=True, kw_only=True)
class Clause:
    """A piece of a step: its words, the place of the step and of the sentence, its kind of work,
    None where none is seen; `remark`: it is no work. `also` is what else is done in it."""

    text: str
    step: int
    sentence: int
    first: bool
    kind: Kind | None
    remark: bool = False
    also: tuple[Kind, ...] = ()


def worded(text: str) -> str:
    """A clause without what says where or for what before it, and until when or why after it."""
    return _UNTIL.sub(" ", _LEAD_IN.sub("", text))


def leading_kind(text: str) -> Kind | None:
    """The kind of work that a clause begins with."""
    return next((one for one in kinds() if one.leading.match(text)), None)


def kind_of(text: str) -> Kind | None:
    """The kind of work of a clause: that of the verb it begins with, else the first known in it;
    else adding something, or baking where a heat stands, or simmering where only a time does."""
    plain = worded(text)
    found = leading_kind(plain)
    simmers = found is not None and found.name == "simmer" and _IN_LITTLE.search(text)
    if (found is None or simmers) and _SOFT.search(text):
        return kind_named()["fry"]
    heat = heat_in(text)
    by_heat = kind_named()["roast" if heat is not None and heat >= ROASTED_FROM_C else "bake"]
    small = found is None or found.name in ("add", "mix", "rest", "shape", "toast")
    if small and heat is not None and stated_in(text) is not None:
        said = (kind_named()[name] for name in ("roast", "bake"))
        return next((one for one in said if one.pattern.search(plain)), by_heat)
    if found is not None and found.name in ("add", "mix", "rest"):
        # "stir until it thickens", "put into the oven", "leave in the refrigerator"
        for name in PUT_TO:
            if kind_named()[name].pattern.search(text if name == "thicken" else plain):
                return kind_named()[name]
    if found is not None:
        return found
    # of a food that goes in, only what is done to it with heat or cold: "soy mince in"
    goes_in = _NOUN_WORK.match(plain) is not None
    anywhere = next(
        (
            one
            for one in kinds()
            if one.pattern.search(plain) and not (goes_in and one.place == "counter")
        ),
        None,
    )
    if anywhere is not None:
        return anywhere
    if heat is not None:
        return by_heat
    if re.match(r"^(?!.*\b(?:skins?|lids?|peels?)\b)[\w -]{3,30} on$", plain.strip(" .")):
        return kind_named()["simmer"]
    if goes_in:
        return kind_named()["add"]
    return kind_named()["simmer"] if stated_in(text) else None


def _begins_work(before: str, text: str, separator: str, rest: str) -> bool:
    """Whether a part that stands after a separator is a piece of work; `rest` is all that follows,
    for what is in it may be a list, one that began `before`."""
    if leading_kind(worded(text)) is not None:
        return True
    if "and" in separator and "then" not in separator:
        return False
    if heat_in(text) is not None and stated_in(text) is not None:
        return True
    if is_only_a_time(text):
        return False
    listed = _NOUN_WORK.match(rest)
    if listed and _LIST_OPEN.search(before) and _ONLY_FOR.search(listed.group()):
        return False
    if listed and not any(leading_kind(one) for one in re.split(r", | and ", listed.group())):
        return True
    return _ONLY_THEN.search(separator) is not None and kind_of(text) is not None


def _is_how(before: str, text: str) -> bool:
    """Whether a part says how long or how hot it is that goes on by itself: "bake, covered, for an
    hour"."""
    kind = kind_of(before)
    if kind is None or kind.attended or stated_in(before) is not None:
        return False
    told = stated_in(text) is not None or heat_in(text) is not None or _HOW.match(text)
    return bool(told) and leading_kind(worded(text)) is None and not _NAMED_LATER.search(text)


def _pieces(sentence: str) -> list[str]:
    """A sentence in pieces, each with some work in it where it can be."""
    parts = _CUT.split(sentence)
    out = [parts[0]]
    for at in range(1, len(parts), 2):
        separator, text = parts[at], parts[at + 1]
        has_work = kind_of(out[-1]) is not None and bool(out[-1].strip())
        rest = "".join(parts[at + 1 :])
        where = leading_kind(out[-1]) is None and _LEAD_IN.fullmatch(out[-1] + ", ")
        if where or _MOVING.match(text) or _is_how(out[-1], text):
            out[-1] += separator + text
        elif _OTHERWISE.match(text) and leading_kind(_OTHERWISE.sub("", text)):
            out.append(text)
        elif (
            has_work and _begins_work(out[-1], text, separator, rest) and not HALF_WAY.search(text)
        ):
            out.append(_with_its_verb(out[-1], text))
        else:
            out[-1] += separator + text
    return [one for one in out if one.strip(" .")]


def _with_its_verb(before: str, text: str) -> str:
    """ "Then uncovered for ten more" is done as what stands before it was: "bake"."""
    if not _HOW.match(text) or stated_in(text) is None:
        return text
    verb = re.match(r"\W*(\w+)", before)
    return f"{verb[1].lower()} {text}" if verb and leading_kind(before) else text


def _merged(pieces: Sequence[str]) -> list[tuple[str, tuple[Kind, ...]]]:
    """Small things done at the counter, one after another, as one: "peel and quarter them"; each
    with the kinds of what was put to it."""
    out: list[tuple[str, tuple[Kind, ...]]] = []
    for text in pieces:
        kind, before = kind_of(text), kind_of(out[-1][0]) if out else None
        small = kind is not None and kind.place == "counter" and kind.attended
        if (
            kind is not None
            and small
            and before is not None
            and (before.place == "counter" and before.attended)
            and stated_in(text) is None
            and stated_in(out[-1][0]) is None
        ):
            also = () if kind is before else (kind,)
            out[-1] = (f"{out[-1][0].rstrip(' ,.')}, {text}", (*out[-1][1], *also))
        else:
            out.append((text, ()))
    return out


def in_the_oven(clauses: Sequence[Clause], name: str) -> list[Clause]:
    """The pieces, and roasting besides where the name of the dish says it and no step does."""
    called = _ROASTED.search(name)
    if not called or not clauses:
        return list(clauses)
    if any(one.kind is not None and one.kind.place == "oven" for one in clauses):
        return list(clauses)
    at = next(
        (i for i, one in enumerate(clauses) if not one.remark and stated_in(one.text) is not None),
        len(clauses),
    )
    kind = kind_named()["bake" if called.group().lower().startswith("bak") else "roast"]
    before = clauses[max(at - 1, 0)]
    own = Clause(
        text=kind.name.capitalize(), step=-1, sentence=before.sentence, first=True, kind=kind
    )
    return [*clauses[:at], own, *clauses[at:]]


def clauses_of(steps: Sequence[str]) -> list[Clause]:
    """All pieces of work of a recipe's steps, in the order in which they are written."""
    out = []
    for at, step in enumerate(steps):
        step = _PRAISE.sub("", step)
        text = re.sub(r"^\s*(?:step\s*)?\d+\s*[.):]\s+", "", step.strip(), flags=re.I)
        for number, sentence in enumerate(_SENTENCE.split(text)):
            sentence = _STAGE.sub("", sentence)
            sentence = _ONCE.sub("", _BESIDE.sub("Meanwhile, ", sentence))
            if not sentence.strip(" ."):
                continue
            remark = REMARK.match(sentence) is not None
            pieces = [(sentence, ())] if remark else _merged(_pieces(sentence))
            for place, (piece, also) in enumerate(pieces):
                clean = piece.strip(" ,;.")
                told = remark or HEAT_TURNED.match(clean) or (place and _OTHERWISE.match(clean))
                out.append(
                    Clause(
                        text=clean[:1].upper() + clean[1:],
                        step=at,
                        sentence=number,
                        first=place == 0,
                        kind=None if remark else kind_of(piece),
                        remark=bool(told),
                        also=also,
                    )
                )
    return out
