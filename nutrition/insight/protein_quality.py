"""Protein quality: the reference patterns, and the score of a mixture with its limiting amino
acid."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from nutrition.composition.foods import Food
from nutrition.composition.nutrients import SUMS

# mg per g of protein, adults. From memory, but for lysine.
PATTERN_2007: Mapping[str, float] = MappingProxyType(
    {
        "histidine_g": 15.0,
        "isoleucine_g": 30.0,
        "leucine_g": 59.0,
        "lysine_g": 45.0,
        "methionine_cystine_g": 22.0,
        "phenylalanine_tyrosine_g": 38.0,
        "threonine_g": 23.0,
        "tryptophan_g": 6.0,
        "valine_g": 39.0,
    }
)


# Older child, adolescent and adult.
PATTERN_2013: Mapping[str, float] = MappingProxyType(
    {
        "histidine_g": 16.0,
        "isoleucine_g": 30.0,
        "leucine_g": 61.0,
        "lysine_g": 48.0,
        "methionine_cystine_g": 23.0,
        "phenylalanine_tyrosine_g": 41.0,
        "threonine_g": 25.0,
        "tryptophan_g": 6.6,
        "valine_g": 40.0,
    }
)


# True protein digestibility by slug prefix, then by group [0 to 1]. FAO Food and Nutrition Paper 51
# (1991), from memory; the groups it does not list take the mixed plant diet's 0.80: common
# practice, no source.
DIGESTIBILITY_SLUGS = (
    ("soy-protein-isolate", 0.95),
    ("soy-flour", 0.86),
    ("tofu", 0.93),
    ("tempeh", 0.86),
    ("soy", 0.86),
    ("edamame", 0.86),
    ("peanut", 0.94),
    ("vital-wheat-gluten", 0.98),
    ("seitan", 0.98),
    ("white-rice", 0.88),
    ("brown-rice", 0.75),
    ("rolled-oats", 0.86),
    ("steel-cut-oats", 0.86),
    ("oat", 0.86),
    ("maize", 0.85),
    ("millet", 0.79),
    ("sorghum", 0.74),
    ("whole-wheat", 0.86),
    ("wheat-flour", 0.96),
    ("peas", 0.88),
    ("split-peas", 0.88),
    ("egg", 0.97),
    ("dairy", 0.95),
)


DIGESTIBILITY_GROUPS = {
    "legume": 0.78,
    "soy": 0.86,
    "grain": 0.85,
    "bread": 0.90,
    "pasta": 0.92,
    "flour": 0.88,
    "comparator": 0.95,
}


DIGESTIBILITY_OTHER = 0.80


@dataclass(frozen=True, kw_only=True)
class MixtureScore:
    """Amino-acid score of a mixture. `score` is before digestibility; `corrected` after it, cut at
    1.

    `covered` is the share of the protein whose amino acids are known [0 to 1]; `limiting` is None
    where none is.
    """

    score: float
    corrected: float
    limiting: str | None
    digestibility: float
    covered: float
    mg_per_g: Mapping[str, float]


def digestibility(food: Food) -> float:
    """True digestibility of a food's protein. [0 to 1]

    References: FAO Food and Nutrition Paper 51 (1991), from memory; unlisted groups by common
    practice.
    """
    for prefix, value in DIGESTIBILITY_SLUGS:
        if food.kind_slug.startswith(prefix):
            return value
    return DIGESTIBILITY_GROUPS.get(food.group, DIGESTIBILITY_OTHER)


def score_mixture(
    parts: Sequence[tuple[float, Mapping[str, float], float]],
    pattern: Mapping[str, float] = PATTERN_2013,
    covered: float = 1.0,
) -> MixtureScore:
    """Score of (protein [g], amino acids [mg per g of protein], digestibility [0 to 1]) parts
    against a pattern [mg/g].

    The lowest ratio of the mixture to the pattern is the score; times the digestibility weighted by
    protein it is the corrected score. Raises ValueError when there is no protein.

    References: FAO Food and Nutrition Paper 51 (1991) for the method; WHO/FAO/UNU 935 (2007) and
    FAO Paper 92 (2013) for the patterns. The 2013 method asks for the digestibility of each amino
    acid; that of the protein stands in for it.
    """
    protein = sum(part[0] for part in parts)
    if protein <= 0:
        raise ValueError("there is no protein to score")
    mixture = {
        key: sum(grams * acids[key] for grams, acids, _share in parts) / protein for key in pattern
    }
    limiting = min(pattern, key=lambda key: mixture[key] / pattern[key])
    score = mixture[limiting] / pattern[limiting]
    digested = sum(grams * share for grams, _acids, share in parts) / protein
    return MixtureScore(
        score=score,
        corrected=min(score * digested, 1.0),
        limiting=limiting,
        digestibility=digested,
        covered=covered,
        mg_per_g=mixture,
    )


def amino_acid_score(
    foods: Iterable[tuple[Food, float]], pattern: Mapping[str, float] = PATTERN_2013
) -> MixtureScore | None:
    """Score of foods with their grams [g], over those whose amino acids are known. None without
    protein."""
    parts: list[tuple[float, Mapping[str, float], float]] = []
    all_protein = 0.0
    for food, grams in foods:
        per_100 = food.per_100_g("protein_g")
        if not per_100:
            continue
        all_protein += per_100 * grams / 100.0
        acids = {key: acid_mg_per_g(food, key, per_100) for key in pattern}
        known = {key: value for key, value in acids.items() if value is not None}
        if len(known) == len(pattern):
            parts.append((per_100 * grams / 100.0, known, digestibility(food)))
    if all_protein <= 0:
        return None
    covered = sum(part[0] for part in parts) / all_protein
    if covered == 0:
        return MixtureScore(
            score=0.0, corrected=0.0, limiting=None, digestibility=0.0, covered=0.0, mg_per_g={}
        )
    return score_mixture(parts, pattern, covered)


def acid_mg_per_g(food: Food, key: str, protein_g: float) -> float | None:
    """What a food with so much protein per 100 g [g] holds of an amino acid, or of a sum of them.
    [mg per g of protein] None where unknown."""
    values = [food.per_100_g(part) for part in SUMS.get(key, (key,))]
    return None if None in values else sum(value or 0.0 for value in values) * 1000.0 / protein_g
