"""The gate before everything that proposes: what this person must not have is not added and not
made larger, and is said first.

It looks at the same cautions as the page does, so that nothing is proposed that its own page warns
of.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Hashable, Mapping, Sequence
from dataclasses import KW_ONLY, dataclass, field, fields, replace
from functools import cached_property, lru_cache

from nutrition.composition.food_classes import kinds_of
from nutrition.composition.food_mosts import ceiling_g, most_of
from nutrition.composition.foods import Food
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.same_question import Asked
from nutrition.safety.caution_rules import LEVELS
from nutrition.safety.cautions import Caution, Situation, cautions_in
from nutrition.targets.conditions import in_play, speaking
from nutrition.targets.schools import School

STOP = LEVELS[0]
# An amount that is too much is cut to within a part in a thousand.
HALVINGS = 10
# ... and to a weight that a kitchen scale is read to. [g]
CUT_TO_G = 5.0
# What the code of a bar begins with that is a school's or a condition's, and no caution.
AVOIDED = "avoided"
# ... and that of a gate through which nothing passes.
CLOSED = "closed"


@dataclass(frozen=True)
class Bar:
    """Something that holds a food back: how strongly, and why in words. `by_amount`: less of it
    would not."""

    level: str
    why: str
    code: str = ""
    by_amount: bool = False

    @property
    def stops(self) -> bool:
        return self.level == STOP


@dataclass(frozen=True)
class Limit:
    """How much of something may be proposed: none at all where it `stops`, never more than `most`
    [g]; `bars` say why."""

    stops: bool
    most: float
    bars: tuple[Bar, ...]


@dataclass(frozen=True)
class Gate:
    """Who it is for: their situation, the kinds of food that a school or a condition has them avoid
    (each with whose word it is), and the cautions that somebody settled for them by name, as (code,
    what it was about). `closed` says why nothing at all is proposed; empty where something is.
    """

    situation: Situation = field(default_factory=Situation)
    avoided: Mapping[str, str] = field(default_factory=dict)
    settled: Collection[tuple[str, str]] = ()
    _: KW_ONLY
    closed: str = ""

    @cached_property
    def content(self) -> Hashable:
        """All that an answer depends on besides the foods."""
        known = (
            getattr(self.situation, one.name) for one in fields(Situation) if one.name != "foods"
        )
        own = (tuple(self.avoided.items()), frozenset(self.settled), self.closed)
        return (*map(_held_fast, known), *own)

    def bars(self, foods: Sequence[Ingredient]) -> tuple[Bar, ...]:
        """Everything that holds these foods back, the gravest first. Amounts that only count
        together are seen together."""
        if self.closed and foods:
            return (Bar(STOP, self.closed, CLOSED),)
        parts = tuple(one.told_apart for one in foods)
        return _bars(Asked((self, tuple(foods)), (parts, self.content)))

    def bars_anew(self, foods: Sequence[Ingredient]) -> tuple[Bar, ...]:
        """The same, found without looking at what was found before."""
        out = []
        for caution in cautions_in(replace(self.situation, foods=foods)):
            if caution.names and not self._is_settled(caution):
                out.append(Bar(caution.level, caution.text, caution.code, caution.by_amount))
        out += self._avoided_in(foods)
        return tuple(sorted(out, key=lambda bar: LEVELS.index(bar.level)))

    def _is_settled(self, caution: Caution) -> bool:
        """Whether somebody put it aside by name, for these foods or for more than these."""
        return any(
            code == caution.code and all(name in about for name in caution.names)
            for code, about in self.settled
        )

    def _avoided_in(self, foods: Sequence[Ingredient]) -> list[Bar]:
        out = []
        for kind, whose in self.avoided.items():
            names = dict.fromkeys(part.food.name for part in foods if kind in kinds_of(part))
            if names:
                out.append(
                    Bar(
                        LEVELS[1],
                        f"{kind[0].upper()}{kind[1:]} avoided ({whose}): {', '.join(names)}.",
                        f"{AVOIDED} {kind}",
                    )
                )
        return out

    def of(self, food: Food, grams: float | None = None) -> tuple[Bar, ...]:
        """What holds one food back, at a first helping or at so much. [g]"""
        grams = first_helping_g(food) if grams is None else grams
        return self.bars([Ingredient(food, grams)])

    def why_not(self, food: Food, grams: float | None = None) -> str:
        """Why a food may not be offered, in words; empty if it may."""
        own = most_of(food)
        if own is not None and (
            own.most_g <= 0 or (grams is not None and grams > own.most_g + 1e-6)
        ):
            return f"{food.name}: {own.why}"
        return next((bar.why for bar in self.of(food, grams)), "")

    def why_not_dish(self, foods: Sequence[Ingredient]) -> str:
        """Why a dish of these foods may not be offered, in words; empty if it may."""
        ceiling, why = ceiling_g(foods, 1.0, cooked=True)
        return why if ceiling < 1.0 else next((bar.why for bar in self.bars(foods)), "")

    def limit(self, foods: Sequence[Ingredient], grams: float, dish: bool = False) -> Limit:
        """How much of something that holds these foods in `grams` may be proposed: what is warned
        of is not made larger, what stands as stop and ask is left out, or cut to what does not
        where only so much of it does, and a food's own most is never passed. [g]"""
        bars = self.bars(foods)
        ceiling, why = ceiling_g(foods, grams, cooked=dish)
        if ceiling < grams - 1e-9:
            bars = (Bar(LEVELS[1], f"{why}."), *bars)
        if any(bar.stops and not bar.by_amount for bar in bars):
            return Limit(True, 0.0, bars)
        most = min(ceiling, grams if bars else float("inf"))
        if any(bar.stops for bar in bars):
            cut = grams * self._share_without_a_stop(foods)
            most = min(most, cut if cut < 2 * CUT_TO_G else cut // CUT_TO_G * CUT_TO_G)
        return Limit(False, most, bars)

    def _share_without_a_stop(self, foods: Sequence[Ingredient]) -> float:
        """The largest share of these foods that brings nothing to stop and ask about, from below.
        [0 to 1]"""
        return self._share_that(foods, lambda bars: not any(bar.stops for bar in bars))

    def share_without_a_word(self, foods: Sequence[Ingredient]) -> float:
        """The largest share of these foods that nothing is said against, from below. [0 to 1]"""
        return 1.0 if not self.bars(foods) else self._share_that(foods, lambda bars: not bars)

    def _share_that(
        self, foods: Sequence[Ingredient], may_be: Callable[[Sequence[Bar]], bool]
    ) -> float:
        low, high = 0.0, 1.0
        for _ in range(HALVINGS):
            middle = (low + high) / 2
            fits = may_be(self.bars([one.times(middle) for one in foods]))
            low, high = (middle, high) if fits else (low, middle)
        return low


def _held_fast(value: object) -> Hashable:
    """What is known, as something that an answer can be kept by."""
    if isinstance(value, Mapping):
        return frozenset(value.items())
    return tuple(value) if isinstance(value, list) else value


@lru_cache(maxsize=8192)
def _bars(asked: Asked[tuple[Gate, tuple[Ingredient, ...]]]) -> tuple[Bar, ...]:
    """The same question has the same answer on whichever page it is asked."""
    gate, foods = asked.about
    return gate.bars_anew(foods)


def avoided_kinds(
    codes: Collection[str], school: School | None, age_years: float = 0.0
) -> dict[str, str]:
    """Kinds of food to avoid, each with whose word that is: the school's, or a condition's."""
    out = (
        {row.food_class: school.name for row in school.foods if row.stance == "avoid"}
        if school
        else {}
    )
    for condition in speaking(in_play(codes, age_years)):
        out |= {row.food_class: condition.name for row in condition.foods if row.stance == "avoid"}
    return out


OPEN = Gate()
