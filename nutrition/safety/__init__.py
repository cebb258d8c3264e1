"""What this person must not have, and what to warn about: the gate stands before everything
that proposes."""

from nutrition.safety.cautions import Caution, Situation, cautions_in
from nutrition.safety.gate import OPEN, Gate

__all__ = [
    "Caution",
    "Gate",
    "OPEN",
    "Situation",
    "cautions_in",
]
