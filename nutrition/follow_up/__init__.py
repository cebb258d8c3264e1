"""How it went: where the weight is going, and who needs a look."""

from nutrition.follow_up.attention import pace_of
from nutrition.follow_up.trend import weekly_change

__all__ = [
    "pace_of",
    "weekly_change",
]
