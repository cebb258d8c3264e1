"""What a dish tells beyond its nutrients, and how dishes compare."""

from nutrition.insight.comparison import at_basis, differences
from nutrition.insight.density_ladder import ladder
from nutrition.insight.indices import all_indices
from nutrition.insight.summary import tell

__all__ = [
    "all_indices",
    "at_basis",
    "differences",
    "ladder",
    "tell",
]
