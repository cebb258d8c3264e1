"""The round of a reckoned bowl."""

from bowls.bowl import Reckoned
from roundpantry.drawing.round import Slice, draw


def bowl_round(reckoned: Reckoned, key: str) -> dict[str, object]:
    """The drawing of a bowl and its sectors beside their parts."""
    drawing = draw(
        [Slice(part.row.role, part.volume_ml, reckoned.share(part, key), part.star) for part in reckoned.parts],
        reckoned.bowl.vessel_ml,
    )
    return {"drawing": drawing, "pairs": list(zip(reckoned.parts, drawing.sectors, strict=True))}
