"""The sauce bench: a sauce and the bowls it must cover; thinned by how much, what it then costs a
bowl, what can go before a target.

Volumes add when a sauce is thinned: what is dissolved in it makes that a little too much. Common
practice, no source.
"""

from __future__ import annotations

from dataclasses import dataclass

from nutrition.composition.amounts import amount_of
from nutrition.composition.foods import Food
from nutrition.composition.profile import Profile
from nutrition.recipe.reckoning import Facts

# What coats a bowl: two to four spoons. Common practice, no source. [mL]
USUAL_PER_BOWL_ML = 45.0
# A sauce thinned to more than so many times its volume is a soup. Common practice, no source.
MOST_THINNED = 3.0
# Less than this is neither left over nor added, to speak of. [mL]
WORTH_A_WORD_ML = 1.0
# A line that brings less of what is looked at than this is no rich ingredient. [share]
RICH_SHARE = 0.05


# A sauce fills its gaps: it takes about the room that water of its weight takes. Common practice,
# no source. [mL/g]
POURED_ML_PER_G = 1.0


def poured_ml(facts: Facts) -> float:
    """The room a sauce takes: as it was portioned out, or else by its weight. [mL] Not the sum of
    its dry and leafy parts."""
    return facts.measured_ml or facts.batch.grams * POURED_ML_PER_G


@dataclass(frozen=True)
class Sauce:
    """A batch: what it brings and the room it takes [mL]; `thinner` is what it is thinned with."""

    batch: Profile
    volume_ml: float
    thinner: Food

    @property
    def ml_per_gram(self) -> float:
        return self.volume_ml / self.batch.grams

    def thinner_profile(self, added_ml: float) -> Profile:
        """What so much of the thinner brings. [mL] Where its volume is unknown, a milliliter weighs
        a gram."""
        return self.thinner.profile(added_ml * self.thinner_g_per_ml)

    @property
    def thinner_g_per_ml(self) -> float:
        volume = self.thinner.volume_ml(100.0)
        return 100.0 / volume if volume else 1.0


@dataclass(frozen=True, kw_only=True)
class Covered:
    """The sauce thinned by `added_ml` over so many bowls: per bowl, and what is left over. [mL],
    [g], [kcal/g]"""

    added_ml: float
    added_g: float
    volume_ml: float
    per_bowl: Profile
    left_ml: float
    density: float
    too_thin: bool
    bowls: float

    @property
    def spare(self) -> bool:
        """Whether what is left over is worth a word."""
        return self.left_ml > WORTH_A_WORD_ML

    @property
    def thins(self) -> bool:
        """Whether anything was added to speak of."""
        return self.added_ml >= WORTH_A_WORD_ML


def thinned(sauce: Sauce, added_ml: float) -> Profile:
    """The whole batch with so much thinner in it. [mL]"""
    return sauce.batch + sauce.thinner_profile(added_ml) if added_ml > 0 else sauce.batch


def cover(sauce: Sauce, bowls: float, per_bowl_ml: float, added_ml: float | None = None) -> Covered:
    """The batch over so many bowls, each with `per_bowl_ml`; thinned just so far that it reaches,
    or by `added_ml`. [mL]

    Raises ValueError for bowls or portions that are not above zero, or a sauce without weight or
    volume.
    """
    if not bowls > 0 or not per_bowl_ml > 0:
        raise ValueError("bowls and the sauce for each must be above zero")
    if not sauce.batch.grams > 0 or not sauce.volume_ml > 0:
        raise ValueError("the sauce weighs nothing yet")
    needed = bowls * per_bowl_ml
    added = max(needed - sauce.volume_ml, 0.0) if added_ml is None else max(added_ml, 0.0)
    whole, volume = thinned(sauce, added), sauce.volume_ml + added
    share = min(per_bowl_ml / volume, 1.0 / bowls)
    density = whole["energy_kcal"].amount / whole.grams
    left = max(volume - needed, 0.0)
    return Covered(
        added_ml=added,
        added_g=added * sauce.thinner_g_per_ml,
        volume_ml=volume,
        per_bowl=whole * share,
        left_ml=left,
        density=density,
        too_thin=volume > MOST_THINNED * sauce.volume_ml,
        bowls=bowls,
    )


def to_density(sauce: Sauce, density: float) -> float | None:
    """How much thinner brings the sauce to a calorie density; 0 where it is there already, None
    where it cannot. [mL] from [kcal/g]"""
    energy, grams = sauce.batch["energy_kcal"].amount, sauce.batch.grams
    if energy <= density * grams:
        return 0.0
    per_ml = sauce.thinner_profile(1.0)
    # energy + e x = density (grams + g x)
    slope = density * per_ml.grams - per_ml["energy_kcal"].amount
    return (energy - density * grams) / slope if slope > 0 else None


@dataclass(frozen=True)
class Rich:
    """A rich line: its weight in the batch and its share of what is looked at. [g], [0 to 1]"""

    name: str
    grams: float
    share: float
    at: int


def rich_lines(facts: Facts, key: str = "fat_g") -> list[Rich]:
    """The lines that bring most of a key, most first."""
    total = amount_of(facts.batch, key).amount
    out = []
    for at, (line, cooked) in enumerate(facts.rows):
        if line.food is None or line.grams is None or cooked is None or total <= 0:
            continue
        share = amount_of(cooked.profile, key).amount / total
        if share >= RICH_SHARE:
            out.append(Rich(line.food.name, line.grams, share, at))
    return sorted(out, key=lambda row: -row.share)


@dataclass(frozen=True, kw_only=True)
class Cut:
    """How much of a rich line must go so that a bowl keeps to a most; the room it took is made up
    with thinner. [g], [mL]

    `share` of the line goes [0 to 1]; `enough` says whether leaving all of it out is enough.
    """

    grams: float
    share: float
    enough: bool
    per_bowl: Profile
    made_up_ml: float


def without(facts: Facts, sauce: Sauce, rich: Rich, share: float) -> tuple[Profile, float]:
    """The batch without a share of a rich line [0 to 1], its room made up with thinner; and how
    much of that. [mL]"""
    line, cooked = facts.rows[rich.at]
    assert cooked is not None and line.food is not None
    gone_ml = line.food.volume_ml(rich.grams * share) or rich.grams * share * sauce.ml_per_gram
    return sauce.batch + cooked.profile * -share + sauce.thinner_profile(gone_ml), gone_ml


def cut(
    facts: Facts, sauce: Sauce, rich: Rich, bowls: float, per_bowl_ml: float, key: str, most: float
) -> Cut:
    """How much of a rich line can go before a bowl's sauce is at most `most` of a key, at the
    thinning that reaches. In its unit.

    What a bowl gets is linear in the share that goes, so the share is found directly. Raises
    ValueError as `cover` does.
    """

    def bowl(share: float) -> tuple[Profile, float]:
        batch, made_up = without(facts, sauce, rich, share)
        return cover(
            Sauce(batch, sauce.volume_ml, sauce.thinner), bowls, per_bowl_ml
        ).per_bowl, made_up

    now, none = amount_of(bowl(0.0)[0], key).amount, amount_of(bowl(1.0)[0], key).amount
    if now <= most:
        share = 0.0
    elif none > most or now <= none:
        share = 1.0
    else:
        share = (now - most) / (now - none)
    profile, made_up = bowl(share)
    return Cut(
        grams=rich.grams * share,
        share=share,
        enough=amount_of(profile, key).amount <= most * (1 + 1e-9),
        per_bowl=profile,
        made_up_ml=made_up,
    )
