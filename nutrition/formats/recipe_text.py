"""Recipes as plain text: a line an ingredient, what else there is to say in lines that begin with
`#`, the steps in lines that begin with `--`. Whatever is pasted is read; what was written here
comes back as it was."""

from __future__ import annotations

import re
from dataclasses import dataclass, field, replace

from nutrition.composition.cooking_methods import UnknownMethod, read_method
from nutrition.formats.shared import Shared, as_percent, exact, with_known_choices
from nutrition.recipe.model import (
    BATCH_G,
    LINE_G,
    SERVINGS,
    Recipe,
    UnreadableRecipe,
    choice_keys,
    fitting,
    within,
)
from nutrition.recipe.notation import SHARE, read_share
from nutrition.written.line import Choice
from nutrition.written.pasted_recipe import decoded, parted, printable
from nutrition.written.serving_words import counted
from nutrition.written.units import UNIT_OF
from nutrition.written.units import grams as unit_grams

_HEADER = re.compile(
    r"^\s*#\s*(title|servings|batch|measured|yield|method|role|claims|measure|measures"
    r"|ingredients|line \d{1,3}|taken)\s*:\s*(.*?)\s*$",
    re.I,
)
_REDUCED = re.compile(rf"(?:^|,)?\s*reduced by\s+(?:a\s+)?({SHARE})\s*$", re.I)
_NUMBER = re.compile(r"\d+(?:\.\d+)?")
_CHOICE = re.compile(r"^(\S+?)?(?:,?\s*(\d+(?:\.\d+)?(?:e[+-]?\d+)?)\s*g)?\s*$", re.I)
_NONE = ("-", "-,")


@dataclass(kw_only=True)
class _Text:
    """What was found so far. From `# ingredients:` on, lines are taken as they stand."""

    head: Recipe = field(default_factory=lambda: Recipe(()))
    words: dict[str, str] = field(default_factory=dict)
    choices: dict[str, Choice] = field(default_factory=dict)
    numbered: dict[int, Choice] = field(default_factory=dict)
    as_they_stand: bool = False
    lines: list[str] = field(default_factory=list)
    steps: list[str] = field(default_factory=list)
    remarks: list[str] = field(default_factory=list)


def read_text(text: str) -> Shared:
    """A recipe from plain text: a line an ingredient, optional `# title:`, `# servings: 4 to 6`, `#
    measured: 620 g` (or `# batch:`), `# yield: 5 x 1/2 cup heaping`, `# method: simmered, reduced
    by 20 %`. Pasted words such as "Serves 4" and "Method" are understood.

    Raises UnreadableRecipe when there is no ingredient, a header has no number, or a method is not
    known.
    """
    found = _Text()
    for raw in text.split("\n"):
        _read_line(found, raw.rstrip("\r"))
    recipe, notes = found.head, list(found.remarks)
    steps = found.steps
    if found.as_they_stand:
        lines = found.lines
    else:
        pasted = parted("\n".join(found.lines))
        lines = list(pasted.lines)
        steps = [*steps, *pasted.steps]
        notes += pasted.passed_over
        if pasted.title and not recipe.title:
            recipe = replace(recipe, title=pasted.title)
        if pasted.serves and not recipe.claimed and not recipe.serving_measure:
            recipe = _with_header(recipe, "servings", pasted.serves)
    recipe = replace(recipe, lines=fitting(lines))
    if not within(recipe.servings, SERVINGS) or (
        recipe.batch_g is not None and not within(recipe.batch_g, BATCH_G)
    ):
        raise UnreadableRecipe(
            f"servings are {SERVINGS[0]:g} to {SERVINGS[1]:g}, and a batch weighs up to "
            f"{BATCH_G[1] / 1000:g} kg"
        )
    keys = choice_keys(recipe.lines)
    numbered = {keys[at - 1]: one for at, one in found.numbered.items() if 0 < at <= len(keys)}
    claimed = "" if found.as_they_stand else recipe.claimed
    recipe = replace(
        recipe,
        claimed=found.words.get("claims", claimed),
        serving_measure=found.words.get("measure", recipe.serving_measure),
        choices=found.choices | numbered,
    )
    notes = [f"Note: {note}" for note in notes if note]
    told = "what is no ingredient and no step stands under the method as a note"
    return Shared(
        recipe=with_known_choices(recipe),
        role=found.words.get("role", "dish"),
        instructions="\n".join((*steps, *notes)),
        told=(told,) if notes else (),
        measures=found.words.get("measures", ""),
    )


def _read_line(found: _Text, raw: str) -> None:
    header = _HEADER.match(raw)
    if raw.startswith("--"):
        step = raw[2:].removeprefix(" ")
        found.steps.append(printable(step) if found.as_they_stand else decoded(step).strip())
    elif header:
        _read_header(found, header[1].lower(), header[2])
    elif raw.lstrip().startswith("#"):
        # a remark of the cook's own stays with the steps
        found.remarks.append(decoded(raw.lstrip("# \t")).strip())
    elif raw.strip():
        line = raw.strip()
        found.lines.append(printable(line).removeprefix("\\") if found.as_they_stand else line)


def _read_header(found: _Text, name: str, value: str) -> None:
    said = printable(value)
    if name == "ingredients":
        found.as_they_stand = True
    elif name == "taken":
        line, _arrow, choice = said.rpartition("=>")
        found.choices[line.strip()] = _choice(choice)
    elif name.startswith("line "):
        found.numbered[int(name.removeprefix("line "))] = _choice(said)
    elif name in ("role", "claims", "measure", "measures"):
        found.words[name] = said
    elif value:
        found.head = _with_header(found.head, name, said)


def _choice(said: str) -> Choice:
    match = _CHOICE.match(said.strip())
    if not match:
        return Choice()
    food = None if match[1] in (None, *_NONE) else match[1].rstrip(",")
    grams = float(match[2]) if match[2] else None
    return Choice(food, grams if grams is not None and within(grams, LINE_G) else None)


def _with_header(head: Recipe, name: str, value: str) -> Recipe:
    if name == "title":
        return replace(head, title=value)
    if name == "method":
        return _with_method(head, value)
    if name == "yield":
        count, _one = counted(value)
        if count is not None:
            return replace(head, servings=count, serving_measure=value)
        return replace(head, servings=_positive(value, name), claimed=head.claimed or value)
    if name != "servings":
        return replace(head, batch_g=_weighed(value, name))
    # a yield that was measured stands over what the recipe claims
    number = _positive(value, name)
    return replace(head, claimed=value, servings=head.servings if head.serving_measure else number)


def _with_method(head: Recipe, value: str) -> Recipe:
    reduced, share = _REDUCED.search(value), None
    if reduced:
        share = read_share(reduced[1])
        if not 0 <= share < 1:
            raise UnreadableRecipe(f"the method line reduces by {reduced[1]}: that leaves nothing")
    bare = _REDUCED.sub("", value).strip()
    if not bare:
        return replace(head, reduced=share)
    try:
        return replace(head, method=read_method(bare), reduced=share)
    except UnknownMethod as error:
        raise UnreadableRecipe(str(error)) from None


def _weighed(text: str, what: str) -> float:
    """A weight with its unit, grams if none is named. [g]"""
    number = _positive(text, what)
    unit = text.strip().lower().lstrip("0123456789., ").strip()
    per_unit = unit_grams(UNIT_OF.get(unit, "")) if unit else 1.0
    if per_unit is None:
        raise UnreadableRecipe(
            f"the {what} line needs a weight, “620 g”, not “{text}”; a volume goes in “# yield: 5 "
            f"x 1/2 cup”"
        )
    return number * per_unit


def _positive(text: str, what: str) -> float:
    match = _NUMBER.search(text)
    if not match or not 0 < float(match[0]) < 1e6 or text.strip().startswith("-"):
        raise UnreadableRecipe(
            f"the {what} line needs a number above zero, not “{text.strip()[:40]}”"
        )
    return float(match[0])


def to_text(shared: Shared) -> str:
    """Plain text with `#` headers, a line an ingredient, and the instructions after `--`."""
    recipe = shared.recipe
    out = [
        f"# title: {recipe.title}",
        f"# servings: {exact(recipe.servings)}",
        f"# role: {shared.role}",
    ]
    if recipe.batch_g is not None:
        out.append(f"# measured: {exact(recipe.batch_g)} g")
    for name, value in (("claims", recipe.claimed), ("measure", recipe.serving_measure)):
        if value:
            out.append(f"# {name}: {value}")
    reduced = f"reduced by {as_percent(recipe.reduced)} %" if recipe.reduced is not None else ""
    if recipe.method or reduced:
        out.append(f"# method: {', '.join(part for part in (recipe.method, reduced) if part)}")
    if shared.measures:
        out.append(f"# measures: {shared.measures}")
    for at, key in enumerate(choice_keys(recipe.lines), 1):
        if choice := recipe.choices.get(key):
            grams = "" if choice.grams is None else f", {exact(choice.grams)} g"
            out.append(f"# line {at}: {choice.food or '-'}{grams}")
    out.append("# ingredients:")
    out += [f"\\{line}" if line.startswith(("#", "--", "\\")) else line for line in recipe.lines]
    if shared.instructions:
        out += [f"-- {line}" for line in shared.instructions.split("\n")]
    return "\n".join(out) + "\n"
