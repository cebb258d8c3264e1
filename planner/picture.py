"""What a day or a meal holds as one round: its entries by volume."""

from collections.abc import Mapping, Sequence

from planner.day import Entry
from roundpantry.drawing.round import Slice, outlines, picture


def _vessel_ml(entries: Sequence[Entry]) -> float:
    """Everything that is eaten fills four fifths of the round, so that a larger proposal still
    finds room. [mL]"""
    return sum(entry.volume_ml for entry in entries) / 0.8


def _slices(entries: Sequence[Entry], portions: Mapping[str, float] | None = None) -> list[Slice]:
    energy = sum(entry.profile["energy_kcal"].amount for entry in entries)
    out = []
    for number, entry in enumerate(entries, 1):
        share = portions[str(entry.row.pk)] / entry.profile.grams if portions is not None else 1.0
        brings = entry.profile["energy_kcal"].amount / energy if energy > 0 else None
        out.append(
            Slice(
                role=entry.role,
                volume=entry.volume_ml * share,
                share=brings,
                star=False,
                name=entry.name,
                number=number,
            )
        )
    return out


def entries_round(entries: Sequence[Entry]) -> dict[str, object]:
    """The drawing of the entries as they are, the rim by each one's share of the energy."""
    return picture(_slices(entries), _vessel_ml(entries))


def ghosts(entries: Sequence[Entry], portions: Mapping[str, float]) -> list[str]:
    """Outlines of the entries with these portions. [g]"""
    return outlines(_slices(entries, portions), _vessel_ml(entries))
