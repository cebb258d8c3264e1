"""The round of a reckoned bowl."""

from collections.abc import Mapping

from bowls.bowl import Reckoned
from roundpantry.drawing.round import Slice, draw


def bowl_round(reckoned: Reckoned, key: str) -> dict[str, object]:
    """The drawing of a bowl and its sectors beside their parts."""
    drawing = draw(
        [Slice(part.row.role, part.volume_ml, reckoned.share(part, key), part.star) for part in reckoned.parts],
        reckoned.bowl.vessel_ml,
    )
    return {"drawing": drawing, "pairs": list(zip(reckoned.parts, drawing.sectors, strict=True))}


def ghosts(reckoned: Reckoned, portions: Mapping[str, float]) -> list[str]:
    """Outlines of the bowl as it would be with these portions, by the part's key. [g]"""
    slices = [
        Slice(part.row.role, part.volume_ml * portions[str(part.pk)] / part.profile.grams if part.profile.grams > 0 else 0.0, None)
        for part in reckoned.parts
    ]  # fmt: skip
    return [sector.path for sector in draw(slices, reckoned.bowl.vessel_ml).sectors]
