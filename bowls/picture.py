"""The round of a reckoned bowl."""

from collections.abc import Mapping

from bowls.bowl import Reckoned
from roundpantry.drawing.round import Slice, outlines, picture


def bowl_round(reckoned: Reckoned, key: str) -> dict[str, object]:
    """The drawing of a bowl, its rim by each part's share of a nutrient."""
    slices = [
        Slice(
            role=part.row.role,
            volume=part.volume_ml,
            share=reckoned.share(part, key),
            star=part.star,
            name=part.name,
            number=part.number,
            pk=part.pk,
        )
        for part in reckoned.parts
    ]
    return picture(slices, reckoned.bowl.vessel_ml)


def ghosts(reckoned: Reckoned, portions: Mapping[str, float]) -> list[str]:
    """Outlines of the bowl as it would be with these portions, by the part's key. [g]"""
    slices = [
        Slice(
            role=part.row.role,
            volume=part.volume_ml * portions[str(part.pk)] / part.profile.grams
            if part.profile.grams > 0
            else 0.0,
            share=None,
        )
        for part in reckoned.parts
    ]
    return outlines(slices, reckoned.bowl.vessel_ml)
