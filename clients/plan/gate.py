"""The gate of a client: what they must not have, as they are today, whatever targets a day was
planned with."""

from collections.abc import Iterable

from clients.plan.cautions import dismissals_kept, situation_of
from clients.plan.in_force import Plan
from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient
from nutrition.safety.gate import OPEN, Gate, avoided_kinds
from nutrition.targets.referral import needs_a_clinic
from schools.choices import school_named


def avoided_by(plan: Plan) -> dict[str, str]:
    """Kinds of food to avoid, each with whose word that is: the school's, or a condition's."""
    client = plan.client
    if client is None:
        return {}
    return avoided_kinds(client.person().conditions, school_named(client.school), client.age_years)


def gate_of(plan: Plan) -> Gate:
    """The gate before everything that is proposed to a client; for nobody, what nobody should
    have."""
    if plan.client is None:
        return OPEN
    settled = frozenset(dismissals_kept(plan.client))
    closed = plan.problem if plan.day is None and needs_a_clinic(plan.client.conditions) else ""
    return Gate(situation_of(plan), avoided_by(plan), settled, closed=closed)


def barred_foods(gate: Gate, foods: Iterable[Ingredient]) -> list[Food]:
    """The foods among these that are to be asked about before they are served."""
    return list(
        {
            part.food.slug: part.food
            for part in foods
            if any(bar.stops for bar in gate.of(part.food, part.grams))
        }.values()
    )
