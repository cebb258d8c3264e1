"""Cautions for a client where a decision is made, and those put aside for this client."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass, replace

from django.utils import timezone

from clients.models import HALF_A_YEAR_WEIGH_INS, CautionDismissal, Client
from clients.plan.in_force import Plan
from clients.plan.versions import versions_made
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.same_question import Asked
from nutrition.follow_up.sudden_change import weight_signs
from nutrition.safety.caution_rules import LEVELS
from nutrition.safety.cautions import Caution, Situation, cautions_in
from nutrition.safety.limits_in_force import limits_of
from nutrition.safety.situations import (
    body_numbers,
    measured_numbers,
    plan_numbers,
    plan_words,
    situation,
    tablet_numbers,
)
from nutrition.targets.blood import blood_numbers, blood_words
from webkit.extension_points import Question
from webkit.page_cache import once

ABOUT_LENGTH = 400
# What more is known of a client in numbers, for their own page?
MORE_NUMBERS: Question[[Client], Mapping[str, float]] = Question()
# ... and on every page, of what they eat as a rule?
USUAL_NUMBERS: Question[[Client], Mapping[str, float]] = Question()


@dataclass(frozen=True, kw_only=True)
class Holder:
    """A part of a bowl, or an entry of a day, that a caution may be about: what its foods are
    called, and where a change of it is sent to. A `dish` may be made without a food."""

    key: str
    name: str
    foods: frozenset[str]
    change_url: str
    dish: bool
    # a bowl is opened, and its parts are looked at there
    open_url: str = ""

    def holds(self, names: Collection[str]) -> bool:
        """Whether one of the foods that a caution names is in it; the caution may say more of a
        food in brackets."""
        return is_about(names, self.foods)


def is_about(names: Collection[str], foods: Collection[str]) -> bool:
    """Whether one of the foods that a caution names is among these; the caution may say more of a
    food in brackets."""
    return any(name in foods or name.rpartition(" (")[0] in foods for name in names)


@dataclass(frozen=True)
class Told:
    """Cautions that stand, and those put aside with who and why."""

    standing: list[Caution]
    put_aside: list[tuple[Caution, CautionDismissal]]
    holders: tuple[Holder, ...] = ()

    @property
    def stops(self) -> list[tuple[Caution, list[Holder]]]:
        """What is to be asked about before anything else, each with what holds it."""
        return [
            (one, [holder for holder in self.holders if holder.holds(one.names)])
            for one in self.standing
            if one.level == LEVELS[0]
        ]

    @property
    def lesser(self) -> list[Caution]:
        """Those that are counted, and open in place."""
        return [one for one in self.standing if one.level != LEVELS[0]]

    @property
    def counted(self) -> str:
        """ "2 cautions, 1 note" """
        said = []
        for level in LEVELS[1:]:
            found = sum(one.level == level for one in self.standing)
            if found:
                said.append(f"{found} {level}{'' if found == 1 else 's'}")
        if self.put_aside:
            said.append(f"{len(self.put_aside)} put aside")
        return ", ".join(said)

    def held_by(self, holders: Sequence[Holder]) -> Told:
        """The same, with what may hold the foods that they are about."""
        return replace(self, holders=tuple(holders))


Kept = dict[tuple[str, str], CautionDismissal]


def dismissals_kept(client: Client | None) -> Kept:
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
    return _sorted_out(cautions, dismissals_kept(client))


def _sorted_out(cautions: Sequence[Caution], kept: Kept) -> Told:
    """A dismissal holds for the same rule about the same foods: another food brings the caution
    back."""
    standing, aside = [], []
    for caution in cautions:
        row = kept.get((caution.code, caution.about[:ABOUT_LENGTH])) or _within(caution, kept)
        if row is None:
            standing.append(caution)
        else:
            aside.append((caution, row))
    return Told(standing, aside)


def _within(caution: Caution, kept: Kept) -> CautionDismissal | None:
    """What was put aside of a whole day holds for a bowl in it as well: of the same rule, about
    more foods than these."""
    if not caution.names:
        return None
    return next(
        (
            row
            for (code, _about), row in kept.items()
            if code == caution.code and set(caution.names) <= set(row.names)
        ),
        None,
    )


def situation_of(plan: Plan, numbers: Mapping[str, float] | None = None) -> Situation:
    """The client's situation and what more is known in numbers.

    It is the client as they are today: a day planned last week still speaks of an allergy that was
    found this morning. For nobody there is only what holds for anybody.
    """
    client, words = plan.client, {}
    if client is None:
        return Situation(numbers=numbers or {})
    person, taken, today = client.person(), client.supplements_taken(), timezone.localdate()
    if plan.day is not None:
        known, words = plan_numbers(plan.day, plan.orders), plan_words(plan.day, plan.orders)
    else:
        known = body_numbers(person)
    known |= tablet_numbers(taken)
    measured = client.blood()
    if measured:
        of_blood = blood_numbers(measured, person, today)
        known |= of_blood
        words = words | blood_words(measured, of_blood, today)
    for usual in USUAL_NUMBERS.ask(client):
        known |= usual
    return situation(
        person,
        client.school,
        known | dict(numbers or {}),
        dislikes=client.disliked_words,
        words=words,
        limits=limits_of(plan.day) if plan.day is not None else (),
    )


def of_the_client(plan: Plan, client: Client, measured_kg_per_week: float | None) -> Told:
    """What the client's page says: about the person, the plan, what they take, how their weight
    moves."""
    asked = Asked(plan, id(plan))
    key = ("of the client", client.pk, asked, measured_kg_per_week)
    return once(key, lambda: _of_the_client(plan, client, measured_kg_per_week))


def _of_the_client(plan: Plan, client: Client, measured_kg_per_week: float | None) -> Told:
    # a client for whom nothing is computed is weighed all the same
    numbers = measured_numbers(client.person(), measured_kg_per_week)
    if plan.day is not None:
        numbers |= plan_numbers(plan.day, plan.orders, measured_kg_per_week)
        made_for, now = plan.day.person.weight_kg, client.person().weight_kg
        numbers["weight_drift_percent"] = abs(now - made_for) / made_for * 100.0
    numbers["factor_switched_on"] = float(_factor_switched_on(client))
    for more in MORE_NUMBERS.ask(client):
        numbers |= more
    rows = [row.weighed() for row in client.newest_weigh_ins(HALF_A_YEAR_WEIGH_INS)]
    signs = weight_signs(client.person(), plan.school, rows, timezone.localdate())
    asked = situation_of(plan, numbers | signs.numbers)
    return sort_out(client, cautions_in(replace(asked, words={**asked.words, **signs.words})))


def _factor_switched_on(client: Client) -> bool:
    """Whether a factor for plants alone was left off in an earlier version and is on now."""
    on = [name for name in ("vegan_iron", "vegan_zinc") if getattr(client, name)]
    return bool(on) and any(
        getattr(row, name) is False for row in versions_made(client) for name in on
    )


def listener(plan: Plan) -> Callable[[Sequence[Ingredient]], list[Caution]]:
    """What stands to be said of foods for this client, to be asked many times: the person is looked
    at once."""
    kept, person = dismissals_kept(plan.client), situation_of(plan)
    of_the_person = _codes(person)
    return lambda foods: _sorted_out(_beyond(of_the_person, person, foods), kept).standing


def of_foods(
    plan: Plan,
    foods: Sequence[Ingredient],
    numbers: Mapping[str, float] | None = None,
    lines: Sequence[str] = (),
) -> Told:
    """What is to be said of foods, and of `lines` that nobody could read, for a client or, without
    one, for anybody. Only rules that these or `numbers` set off."""
    kept, person = dismissals_kept(plan.client), situation_of(plan)
    with_numbers = replace(person, numbers={**person.numbers, **(numbers or {})}, lines=lines)
    return _sorted_out(_beyond(_codes(person), with_numbers, foods), kept)


def _codes(person: Situation) -> set[str]:
    return {caution.code for caution in cautions_in(person)}


def _beyond(
    of_the_person: set[str], person: Situation, foods: Sequence[Ingredient]
) -> list[Caution]:
    """What is to be said of foods beyond what is said of the person anyway."""
    with_foods = cautions_in(replace(person, foods=foods))
    return [caution for caution in with_foods if caution.code not in of_the_person]
