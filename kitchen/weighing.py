"""What the pots of a session came to: kept as the measure of each, learned by the recipe, divided
into containers, and what it changes for the days that eat of it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from django.db import transaction

from kitchen.dishes import Dish
from kitchen.models import Box, CookingSession, PotMeasure
from kitchen.planning import Planned
from nutrition.prep.keeping import Keeping, endangered, keeping_of
from nutrition.prep.pot_weighed import CameOut, came_out, divided, learned
from nutrition.recipe.reckoning import Facts
from practice.models import User
from recipes.facts import facts_of
from recipes.models import Recipe
from week.pots import Pot
from week.reckoning import reckon_week

FROZEN_DAYS = 30


@dataclass(frozen=True, kw_only=True)
class PotShown:
    """A pot of a session as it is weighed: what was reckoned of it, what it came to, what goes into
    each of its containers, which days eat of it."""

    dish: Dish
    recipe: Recipe
    facts: Facts
    keeping: Keeping
    measure: PotMeasure | None
    pot: Pot | None

    @property
    def reckoned_g(self) -> float:
        return self.facts.serving.grams * self.dish.servings

    @property
    def out(self) -> CameOut | None:
        """What it came to; None before it was weighed."""
        if self.measure is None:
            return None
        return came_out(self.measure.grams, self.facts.serving.grams, self.dish.servings)

    @property
    def containers(self) -> int:
        return self.dish.containers

    @property
    def division(self) -> str:
        """ "6 of 310 g" """
        if self.measure is None or not self.containers:
            return ""
        each = divided(self.measure.grams, self.containers)
        return f"{self.containers} of {each:,.0f} g"

    @property
    def eaten_words(self) -> str:
        """What the days that eat of it hold now, where it came to something else."""
        out = self.out
        if out is None or out.as_reckoned or self.pot is None:
            return ""
        share = out.servings / self.dish.servings
        days = ", ".join(f"{one.on:%A}" for one in self.pot.eatings)
        return f"{days}: a portion is {share:.0%} of the planned one, or divide it otherwise."


def pots_shown(planned: Planned) -> list[PotShown]:
    """The pots of a session with what they came to."""
    session = planned.session
    measures = {row.dish: row for row in PotMeasure.objects.filter(session=session)}
    pots = {}
    if session.week is not None:
        pots = {(pot.recipe.pk, pot.cooked.day): pot for pot in reckon_week(session.week).pots}
    in_danger = endangered(session.client.person())
    out = []
    for dish in planned.dishes:
        recipe = planned.recipes.get(dish.recipe_id)
        if recipe is None:
            continue
        facts = facts_of(recipe)
        if facts.serving.grams <= 0:
            continue
        out.append(
            PotShown(
                dish=dish,
                recipe=recipe,
                facts=facts,
                keeping=keeping_of(recipe.title, recipe.role, facts.foods(), in_danger),
                measure=measures.get(dish.key),
                pot=pots.get((recipe.pk, dish.pot_day)) if dish.pot_day is not None else None,
            )
        )
    return out


def weigh(
    session: CookingSession, shown: PotShown, grams: float, servings: float | None, by: User
) -> PotMeasure:
    """Keep what a pot came to, and put its containers into the house, those of an earlier weighing
    of it taken back."""
    with transaction.atomic():
        row, _made = PotMeasure.objects.update_or_create(
            session=session,
            dish=shown.dish.key,
            recipe=shown.recipe,
            defaults={
                "made_for": shown.dish.servings,
                "grams": grams,
                "servings": servings,
                "by": by,
            },
        )
        for box in Box.objects.filter(session=session, recipe=shown.recipe, gone=""):
            box.delete()
        for box in boxes_of(session, shown, grams):
            box.save()
    return row


def boxes_of(session: CookingSession, shown: PotShown, grams: float) -> list[Box]:
    """The containers that a pot of so many grams is divided into: meant for the days of the week
    that eat of it, frozen where it does not keep until then. [g]"""
    count = shown.containers
    if not count:
        return []
    each = divided(grams, count)
    days = _days(shown)
    out = []
    for at in range(count):
        day = days[at] if at < len(days) else None
        last = session.day + timedelta(days=shown.keeping.days)
        frozen = shown.keeping.freezes and (day is None or day > last)
        until = session.day + timedelta(days=FROZEN_DAYS * shown.keeping.frozen_months)
        out.append(
            Box(
                client=session.client,
                recipe=shown.recipe,
                session=session,
                servings=round(shown.dish.servings * each / max(grams, 1.0), 3),
                grams=each,
                cooked=session.day,
                place="freezer" if frozen else "refrigerator",
                use_by=until if frozen else last,
                eaten_on=day,
            )
        )
    return out


def _days(shown: PotShown) -> list[date]:
    """For each container the day it is meant for, as the week has it."""
    if shown.pot is None:
        return []
    return [one.eaten_on for one in shown.pot.containers if one.eaten_on is not None]


@dataclass(frozen=True, kw_only=True)
class Learned:
    """What a recipe's pots weighed, for the recipe as written: the median of so many, beside what
    is reckoned. [g]"""

    grams: float
    count: int
    reckoned_g: float

    @property
    def off(self) -> float:
        return self.grams / self.reckoned_g - 1.0 if self.reckoned_g else 0.0


def learned_of(recipe: Recipe) -> Learned | None:
    """What a recipe has learned of its real yield; None before it was weighed."""
    facts = facts_of(recipe)
    rows = PotMeasure.objects.filter(recipe=recipe)
    each = [row.grams * recipe.servings / row.made_for for row in rows]
    found = learned(each)
    if found is None:
        return None
    return Learned(grams=found, count=len(each), reckoned_g=facts.batch.grams)
