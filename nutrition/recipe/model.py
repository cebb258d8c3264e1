"""A recipe as the cook wrote it, and what one can hold."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import KW_ONLY, dataclass, field

from nutrition.composition.errors import CoreError
from nutrition.written.line import Choice

MAX_LINES, MAX_LINE_LENGTH, MAX_TEXT = 200, 400, 20_000
# How many servings a recipe can be reckoned for, and what a batch can weigh. [1], [g]
SERVINGS, BATCH_G = (0.1, 1000.0), (0.1, 500_000.0)
# How much of the whole can be boiled away. [share of it]
REDUCED = (0.0, 0.99)


# What a line can be said to weigh. [g]
LINE_G = (0.01, 100_000.0)


class UnreadableRecipe(CoreError):
    """The text is not a recipe; the message says why."""


@dataclass(frozen=True)
class Recipe:
    """What the cook wrote. `batch_g` is what the pan's content weighed, if it was weighed. [g]

    `method` is how the whole is cooked, a code of the cooking tables or empty; a line's own,
    "[method: roasted]" at its end, stands over it. `parts` are the recipes that lines name as
    "[recipe: ...]", by name in lower case, and `refused` why one cannot be used. `system` says
    whose cups and spoons are meant. `reduced` is the share of the whole that is boiled away [0 to
    1], None for the usual. `claimed` is how many it says it serves, `serving_measure` what servings
    were measured with, "1/2 cup heaping", or how many of them came out as well, "5 x 1/2 cup
    heaping". What is `eaten` was measured after it was cooked: the lines of a meal.

    What is equal is reckoned once: a recipe is its own key. Its mappings are not to be changed.

    `lines` may be given as any sequence of lines, or as one text of them. Raises TypeError for
    anything else.
    """

    lines: tuple[str, ...]
    _: KW_ONLY
    title: str = ""
    servings: float = 1.0
    batch_g: float | None = None
    choices: Mapping[str, Choice] = field(default_factory=dict)
    method: str = ""
    reduced: float | None = None
    claimed: str = ""
    serving_measure: str = ""
    system: str = "us"
    parts: Mapping[str, Recipe] = field(default_factory=dict)
    refused: Mapping[str, str] = field(default_factory=dict)
    eaten: bool = False

    def __post_init__(self) -> None:
        given: object = self.lines
        lines = given.splitlines() if isinstance(given, str) else given
        if not isinstance(lines, Sequence) or not all(isinstance(one, str) for one in lines):
            raise TypeError(f"The lines of a recipe are texts, not {type(given).__name__}.")
        object.__setattr__(self, "lines", tuple(lines))

    def __hash__(self) -> int:
        return hash(
            (
                self.lines,
                self.title,
                self.servings,
                self.batch_g,
                self.method,
                self.reduced,
                self.serving_measure,
                self.system,
                self.eaten,
                frozenset(self.choices.items()),
                frozenset(self.parts.items()),
            )
        )


def within(value: float | None, limits: tuple[float, float]) -> bool:
    """Whether a number is there and lies within limits; one that is no number does not."""
    return value is not None and limits[0] <= value <= limits[1]


def choice_keys(lines: Sequence[str]) -> list[str]:
    """What the decision for each line is kept under: its text, and which of equal lines it is from
    the second on."""
    seen: dict[str, int] = {}
    out = []
    for text in lines:
        seen[text] = seen.get(text, 0) + 1
        out.append(text if seen[text] == 1 else f"{text}\t{seen[text]}")
    return out


def fitting(lines: Sequence[str]) -> tuple[str, ...]:
    """The lines, if a recipe can hold them. Raises UnreadableRecipe for none, too many, or one too
    long: nothing is cut in silence."""
    if not lines:
        raise UnreadableRecipe("there is no ingredient line in it")
    if len(lines) > MAX_LINES:
        raise UnreadableRecipe(
            f"it has {len(lines)} ingredient lines, and a recipe holds {MAX_LINES}: take it in as "
            f"two"
        )
    for line in lines:
        if len(line) > MAX_LINE_LENGTH:
            raise UnreadableRecipe(f"a line is over {MAX_LINE_LENGTH} characters: “{line[:60]} …”")
    if sum(map(len, lines)) + len(lines) > MAX_TEXT:
        raise UnreadableRecipe(
            f"its ingredients are over {MAX_TEXT:,} characters: that is no recipe"
        )
    return tuple(lines)
