"""A mix that becomes so many small pieces: whether its weight is right, and what to do if not."""

from __future__ import annotations

import math
from dataclasses import dataclass

# A piece so much heavier or lighter than the recipe says is worth a word. Common practice, no
# source. [share]
NEAR = 0.10


@dataclass(frozen=True, kw_only=True)
class Pieces:
    """What a mix gives: `each_g` for the pieces wanted, `off` how far that is from what the recipe
    says [share], `count` how many pieces of the said weight there are with what is left over. [g]
    `words` are what to do; empty where nothing is said."""

    each_g: float
    off: float | None
    count: int | None
    left_g: float
    words: str


def pieces_of(mix_g: float, wanted: int, said_g: float | None = None) -> Pieces:
    """A mix of so much for so many pieces, against what the recipe says that one weighs. [g] Raises
    ValueError for no mix, no pieces, or a piece of no weight."""
    if not mix_g > 0 or wanted < 1 or (said_g is not None and not said_g > 0):
        raise ValueError("A mix and its pieces weigh more than nothing, and there is at least one.")
    each = mix_g / wanted
    if said_g is None:
        return Pieces(each_g=each, off=None, count=None, left_g=0.0, words="")
    off = each / said_g - 1.0
    count = math.floor(mix_g / said_g + 1e-9)
    return Pieces(
        each_g=each,
        off=off,
        count=count,
        left_g=max(mix_g - count * said_g, 0.0),
        words=_words(mix_g, wanted * said_g, off, count, said_g),
    )


def _words(mix_g: float, due_g: float, off: float, count: int, said_g: float) -> str:
    if abs(off) <= NEAR + 1e-9:
        return "As the recipe says."
    more = abs(mix_g - due_g)
    pieces = f"it makes {count} of {said_g:.0f} g"
    if off > 0:
        return (
            f"{more:.0f} g too much: too wet, if nothing more went in. Wring out {more:.0f} g, or "
            f"{pieces}."
        )
    return (
        f"{more:.0f} g too little: too dry, or something is not in it yet. Add water by the spoon, "
        f"up to {more:.0f} g, or {pieces}."
    )
