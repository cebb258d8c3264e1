"""Which dishes somebody eats gladly, by what they ate and what they left."""

from __future__ import annotations

# Eaten so often of late and never left, a dish is liked. Common practice, no source.
GLADLY = 2


def is_liked(eaten: int, left: int) -> bool:
    """Whether a dish that was eaten and left so often of late is liked."""
    return eaten >= GLADLY and not left
