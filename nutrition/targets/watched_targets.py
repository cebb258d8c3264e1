"""Which targets are watched for a person."""

from __future__ import annotations

from collections.abc import Iterable

from nutrition.targets.conditions import in_play, speaking
from nutrition.targets.orders import Order
from nutrition.targets.person import Person
from nutrition.targets.schools import School

# What is watched from the start, whoever it is; school and conditions add theirs.
MAIN_KEYS = ("energy_kcal", "protein_g", "fiber_g", "sodium_mg")
MOST_WATCHED = 7


def watched_keys(
    person: Person, school: School | None, orders: Iterable[Order] = ()
) -> tuple[str, ...]:
    """The six or so targets that matter for this client: energy and protein, what was set by hand,
    what the conditions and the school watch, then fiber and sodium."""
    codes = in_play(person.conditions, person.age_years)
    keys = ["energy_kcal", "protein_g", *(order.key for order in orders)]
    for condition in speaking(codes):
        keys += condition.watched
    if person.pregnant:
        keys += ["iron_mg", "folate_ug", "iodine_ug"]
    keys += school.watched if school is not None else ()
    keys += MAIN_KEYS
    by_hand = len({order.key for order in orders} - {"energy_kcal", "protein_g"})
    return tuple(dict.fromkeys(keys))[: max(MOST_WATCHED, by_hand + 2)]
