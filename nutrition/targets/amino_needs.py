"""Amino acids: what a body needs, the reference patterns, and the score of a mixture with its
limiting amino acid."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

# mg per kg of body weight and day, adults. From memory.
NEEDS_MG_PER_KG: Mapping[str, float] = MappingProxyType(
    {
        "histidine_g": 10.0,
        "isoleucine_g": 20.0,
        "leucine_g": 39.0,
        "lysine_g": 30.0,
        "methionine_cystine_g": 15.0,
        "phenylalanine_tyrosine_g": 25.0,
        "threonine_g": 15.0,
        "tryptophan_g": 4.0,
        "valine_g": 26.0,
    }
)


def needs_g(weight_kg: float) -> dict[str, float]:
    """What an adult needs of each indispensable amino acid. [g/day] from [kg]

    References: WHO/FAO/UNU Technical Report 935 (2007), from memory.
    """
    return {key: mg * weight_kg / 1000.0 for key, mg in NEEDS_MG_PER_KG.items()}
