"""Foods that fill what is short for the fewest calories, what the client likes first."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nutrition.composition.amounts import amount_of
from nutrition.composition.foods import Food
from nutrition.portions.serving_limits import most_added_g
from nutrition.safety.gate import Gate
from nutrition.swaps.swap import kitchen, weight_words
from nutrition.written.wording import uncapitalized


@dataclass(frozen=True, kw_only=True)
class Filler:
    """A food that fills a share of a shortfall [0 to 1]: so many grams of it, at so many kcal. [g],
    [kcal]"""

    food: Food
    grams: float
    kcal: float
    filled: float
    favorite: bool
    measure: str = ""

    @property
    def words(self) -> str:
        return f"{uncapitalized(self.food.name)}, {weight_words(self.grams, self.measure)}"


# What plants can leave short, and what is looked for to fill it. Common practice, no source.
COMPLEMENT_KEYS = (
    "protein_g",
    "lysine_g",
    "methionine_cystine_g",
    "leucine_g",
    "tryptophan_g",
    "threonine_g",
    "iron_mg",
    "zinc_mg",
    "calcium_mg",
    "ala_g",
    "fiber_g",
)
# A food that in a sensible amount fills less of a gap than this is no help. [share]
LEAST_FILLED = 0.25


def complement(
    key: str,
    short: float,
    favorites: Sequence[Food],
    others: Sequence[Food],
    gate: Gate,
    most: int = 6,
    servings: float = 1.0,
    system: str = "us",
) -> list[Filler]:
    """Foods that bring `short` of a nutrient [its unit] for the fewest calories: the client's
    favorites before the others.

    `short` is of so many servings together, and no more of a food is offered than is sensible in
    each: then it fills a part.
    """
    out = []
    seen: set[str] = set()
    for favorite, foods in ((True, favorites), (False, others)):
        for food in foods:
            amount = amount_of(food.profile(100.0), key)
            per_100 = amount.amount if amount.known > 0 else 0.0
            if per_100 <= 0 or food.slug in seen or gate.why_not(food):
                continue
            seen.add(food.slug)
            kcal = food.per_100_g("energy_kcal")
            if kcal is None:
                continue
            needed = short / per_100 * 100.0
            sensible = most_added_g(food) * servings
            grams, measure = kitchen(food, min(needed, sensible), system)
            filled = min(grams / needed, 1.0)
            if filled >= LEAST_FILLED:
                out.append(
                    Filler(
                        food=food,
                        grams=grams,
                        kcal=kcal * grams / 100.0,
                        filled=1.0 if filled > 0.9 else filled,
                        favorite=favorite,
                        measure=measure,
                    )
                )
    return sorted(
        out,
        key=lambda filler: (not filler.favorite, filler.filled < 1.0, filler.kcal / filler.filled),
    )[:most]
