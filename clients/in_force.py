"""The targets of a client that are in force: by version, with what was computed beside what was set
by hand."""

from dataclasses import dataclass, field
from datetime import date

from django.utils import timezone

from clients.models import Client, TargetOverride, TargetVersion
from clients.stored import from_data
from clients.versions import compute, version_on
from nutrition.composition.derived import amount_of
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Amount, Profile
from nutrition.targets import day as targets
from nutrition.targets.day import DayTargets, Order, near_edge
from nutrition.targets.meals import MealTarget
from nutrition.targets.person import OutOfRange
from nutrition.targets.schools import School
from nutrition.targets.voices import Target, band_words, target_words
from roundpantry import show
from roundpantry.drawing.track import Track, track


@dataclass(frozen=True)
class InForce:
    """A target in force, the computed one, and the override where there is one."""

    target: Target
    computed: Target | None
    override: TargetOverride | None
    watched: bool

    @property
    def name(self) -> str:
        return NUTRIENT[self.target.key].name

    @property
    def words(self) -> str:
        """ "at least 96 g, aim 106" """
        return target_words(self.target)

    @property
    def computed_words(self) -> str:
        return target_words(self.computed) if self.computed else ""


@dataclass(frozen=True, kw_only=True)
class Plan:
    """What holds for a client: the targets by key, the version they come from, and the day's plan
    they are part of.

    `day` is None and `problem` says why where the formulas do not cover the client; only what was
    set by hand is in force then. For nobody it is empty: no client, no targets.
    """

    client: Client | None
    version: TargetVersion | None
    day: DayTargets | None
    orders: tuple[Order, ...]
    rows: dict[str, InForce] = field(default_factory=dict)
    problem: str = ""
    refer_to: str = ""

    @property
    def school(self) -> School | None:
        return self.day.school if self.day else None

    @property
    def meals(self) -> tuple[MealTarget, ...]:
        return self.day.meals if self.day else ()

    @property
    def watched(self) -> list[InForce]:
        return [row for row in self.rows.values() if row.watched]

    @property
    def others(self) -> list[InForce]:
        return [row for row in self.rows.values() if not row.watched]


@dataclass(frozen=True, kw_only=True)
class Reading:
    """Where a plan stands on one target, ready to draw."""

    name: str
    key: str
    target: str
    band: str
    value: str
    span: str
    word: str
    state: str
    unknown: str
    track: Track


def reading(target: Target, amount: Amount | None) -> Reading:
    """One line of the target strip. `amount` is None where there is nothing to show yet."""
    key, bounds = target.key, band_words(target.key, target.low, target.high)
    if amount is None:
        bare = track(target.low, target.aim, target.high, None)
        return Reading(
            name=NUTRIENT[key].name,
            key=key,
            target=target_words(target),
            band=bounds,
            value="",
            span="",
            word="",
            state="none",
            unknown="",
            track=bare,
        )
    state, by = targets.judge(target, amount.amount)
    word = "inside" if state == "inside" else by_words(state, by, key)
    if amount.known <= 0 and amount.amount == 0:
        state, word = "none", "unknown"
    elif not amount.complete and NUTRIENT[key].group == "indices":
        word += ", part unknown"
    elif state == "under" and not amount.complete:
        # what is unknown can only add to it
        word = word.replace("under by", "under by up to")
    elif state == "inside" and not amount.complete:
        word = "inside, part unknown"
    elif state == "inside" and near_edge(target, amount.amount):
        state = "near"
        word = "inside, near the edge"
    return Reading(
        name=NUTRIENT[key].name,
        key=key,
        target=target_words(target),
        band=bounds,
        value=show.amount(amount, key),
        span=show.span(amount, key),
        word=word,
        state=state,
        unknown=show.unknown(amount),
        track=track(target.low, target.aim, target.high, amount.amount, amount.low, amount.high),
    )


def by_words(side: str, by: float, key: str) -> str:
    """ "over by 12 g", or "just over" where the difference would print as nothing."""
    said = show.digits(by, NUTRIENT[key].decimals)
    return f"{side} by {said} {NUTRIENT[key].unit}" if said.strip("0.") else f"just {side}"


NOBODY = Plan(client=None, version=None, day=None, orders=())


def plan_of(
    client: Client | None, version: TargetVersion | None = None, on: date | None = None
) -> Plan:
    """What holds for a client: by `version`, or on a date (today); computed on the spot where no
    version was made yet."""
    if client is None:
        return NOBODY
    version = version or version_on(client, on or timezone.localdate())
    rows = client.at_hand(
        "fetched_overrides", lambda: list(client.overrides.select_related("by").order_by("made"))
    )
    if version is None:
        overrides = {row.key: row for row in rows if row.ended is None}
        orders = tuple(row.order() for row in overrides.values())
        try:
            return _plan(client, None, compute(client), overrides, orders)
        except OutOfRange as error:
            return _by_hand_only(
                client, None, overrides, orders, str(error), getattr(error, "refer_to", "")
            )
    then = set(version.data["overrides"].values())
    overrides = {row.key: row for row in rows if row.pk in then}
    orders = tuple(row.order() for row in overrides.values())
    if "referred" in version.data:
        return _by_hand_only(
            client, version, overrides, orders, version.data["referred"], version.data["refer_to"]
        )
    return _plan(client, version, from_data(version.data), overrides, orders)


def _plan(
    client: Client,
    version: TargetVersion | None,
    day: DayTargets,
    overrides: dict[str, TargetOverride],
    orders: tuple[Order, ...],
) -> Plan:
    watched = [
        key
        for key in client.watched or targets.watched_keys(day.person, day.school, orders)
        if key in day.targets
    ]
    order = [*watched, *(key for key in day.targets if key not in watched)]
    rows = {
        key: InForce(day.targets[key], day.computed.get(key), overrides.get(key), key in watched)
        for key in order
    }
    return Plan(client=client, version=version, day=day, orders=orders, rows=rows)


def _by_hand_only(
    client: Client,
    version: TargetVersion | None,
    overrides: dict[str, TargetOverride],
    orders: tuple[Order, ...],
    problem: str,
    refer_to: str,
) -> Plan:
    rows = {}
    for key, override in overrides.items():
        kind = override.get_kind_display()
        stated = (override.aim, override.low, override.high)
        target = Target(
            key=key,
            low=override.low,
            aim=next((value for value in stated if value is not None), 0.0),
            high=override.high,
            unit=NUTRIENT[key].unit,
            source=kind,
            reason=override.reason,
            voice=kind,
        )
        rows[key] = InForce(target, None, override, True)
    return Plan(
        client=client,
        version=version,
        day=None,
        orders=orders,
        rows=rows,
        problem=problem,
        refer_to=refer_to,
    )


def _stand(rows: list[InForce], profile: Profile | None) -> list[Reading]:
    if profile is None or profile.lines == 0:
        return [reading(row.target, None) for row in rows]
    return [reading(row.target, amount_of(profile, row.target.key)) for row in rows]


def strip(plan: Plan, profile: Profile | None) -> list[Reading]:
    """Where `profile` stands on the targets that are watched; nothing without a client."""
    return _stand(plan.watched, profile)


def others(plan: Plan, profile: Profile | None) -> list[Reading]:
    """Where `profile` stands on all the other targets."""
    return _stand(plan.others, profile)
