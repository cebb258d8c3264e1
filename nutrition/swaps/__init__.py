"""Another food in a line's place, less of it, thinned; and what fills a shortfall."""

from nutrition.swaps.library import for_food
from nutrition.swaps.ranking import Step, Swap, complement, ranked

__all__ = [
    "Step",
    "Swap",
    "complement",
    "for_food",
    "ranked",
]
