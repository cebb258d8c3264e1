"""What a cook writes, read, and amounts said back as a cook says them."""

from nutrition.written.grammar import Reading, read
from nutrition.written.household import say, spoken
from nutrition.written.line import Choice, Line
from nutrition.written.matching import reckon_line
from nutrition.written.typed_amounts import read_amount
from nutrition.written.units import SYSTEM_WORDS

__all__ = [
    "Choice",
    "Line",
    "Reading",
    "SYSTEM_WORDS",
    "read",
    "read_amount",
    "reckon_line",
    "say",
    "spoken",
]
