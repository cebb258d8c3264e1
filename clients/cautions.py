"""Cautions for a client where a decision is made, and those put aside for this client."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

from clients.attention import weekly_pace
from clients.in_force import Plan, plan_of
from clients.models import CautionDismissal, Client
from nutrition.composition.ingredient import Ingredient
from nutrition.safety.cautions import LEVELS, Caution, Situation, cautions_in
from nutrition.safety.situations import (
    body_numbers,
    measured_numbers,
    plan_numbers,
    plan_words,
    situation,
    tablet_numbers,
)

ABOUT_LENGTH = 400


@dataclass(frozen=True)
class Told:
    """Cautions that stand, and those put aside with who and why."""

    standing: list[Caution]
    put_aside: list[tuple[Caution, CautionDismissal]]


Kept = dict[tuple[str, str], CautionDismissal]


def _kept(client: Client | None) -> Kept:
    """The dismissals that hold, by rule and what it was about."""
    if client is None:
        return {}
    return {
        (row.code, row.about): row
        for row in client.at_hand(
            "fetched_dismissals",
            lambda: list(client.dismissals.filter(ended=None).select_related("by")),
        )
    }


def sort_out(client: Client | None, cautions: Sequence[Caution]) -> Told:
    """The cautions that stand for a client, and those put aside."""
    return _sorted_out(cautions, _kept(client))


def _sorted_out(cautions: Sequence[Caution], kept: Kept) -> Told:
    """A dismissal holds for the same rule about the same foods: another food brings the caution
    back."""
    standing, aside = [], []
    for caution in cautions:
        row = kept.get((caution.code, caution.about[:ABOUT_LENGTH]))
        if row is None:
            standing.append(caution)
        else:
            aside.append((caution, row))
    return Told(standing, aside)


def situation_of(
    plan: Plan,
    numbers: Mapping[str, float] | None = None,
    foods: Sequence[Ingredient] | None = None,
) -> Situation:
    """The client's situation with the foods in question and what more is known in numbers.

    It is the client as they are today: a day planned last week still speaks of an allergy that was
    found this morning. For nobody there is only what holds for anybody.
    """
    client, words = plan.client, {}
    if client is None:
        return Situation(foods=foods, numbers=numbers or {})
    person = client.person()
    if plan.day is not None:
        known, words = plan_numbers(plan.day, plan.orders), plan_words(plan.day, plan.orders)
    else:
        known = body_numbers(person)
    known |= tablet_numbers(client.supplements_taken())
    return situation(
        person, client.school, known | dict(numbers or {}), foods, client.disliked_words, words
    )


def of_the_client(plan: Plan, measured_kg_per_week: float | None) -> Told:
    """What the client's page says: about the person, the plan, what they take, how their weight
    moves."""
    client = plan.client
    # a client for whom nothing is computed is weighed all the same
    numbers = measured_numbers(client.person(), measured_kg_per_week)
    if plan.day is not None:
        numbers |= plan_numbers(plan.day, plan.orders, measured_kg_per_week)
        made_for, now = plan.day.person.weight_kg, client.person().weight_kg
        numbers["weight_drift_percent"] = abs(now - made_for) / made_for * 100.0
    return sort_out(client, cautions_in(situation_of(plan, numbers)))


def listener(plan: Plan) -> Callable[[Sequence[Ingredient]], list[Caution]]:
    """What stands to be said of foods for this client, to be asked many times: the person is looked
    at once."""
    person = situation_of(plan)
    about_the_person = {caution.code for caution in cautions_in(person)}
    kept = _kept(plan.client)

    def of(foods: Sequence[Ingredient]) -> list[Caution]:
        found = [
            caution
            for caution in cautions_in(replace(person, foods=foods))
            if caution.code not in about_the_person
        ]
        return _sorted_out(found, kept).standing

    return of


def of_foods(
    plan: Plan, foods: Sequence[Ingredient], numbers: Mapping[str, float] | None = None
) -> Told:
    """What is to be said of foods, for a client or, without one, for anybody. Only rules that the
    foods or `numbers` set off."""
    about_the_person = {caution.code for caution in cautions_in(situation_of(plan))}
    found = [
        caution
        for caution in cautions_in(situation_of(plan, numbers, foods))
        if caution.code not in about_the_person
    ]
    return sort_out(plan.client, found)


def stops_of(client: Client) -> int:
    """How many cautions of the gravest level stand for a client."""
    return sum(
        caution.level == LEVELS[0]
        for caution in of_the_client(plan_of(client), weekly_pace(client)).standing
    )
