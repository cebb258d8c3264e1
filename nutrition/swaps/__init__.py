"""Another food in a line's place, less of it, thinned; what fills a shortfall; and which of them is
offered for which gap."""

from nutrition.swaps.gaps import Gap, Judged, Offer
from nutrition.swaps.library import for_food
from nutrition.swaps.ranking import ranked
from nutrition.swaps.swap import Step, Swap

__all__ = [
    "Gap",
    "Judged",
    "Offer",
    "Step",
    "Swap",
    "for_food",
    "ranked",
]
