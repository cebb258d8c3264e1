"""The targets of a client that are in force: by version, with what was computed beside what was set
by hand."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import date

from django.utils import timezone

from clients.models import Client, TargetOverride, TargetVersion
from clients.plan.target_data import from_data
from clients.plan.versions import compute, version_on
from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets.day import DayTargets
from nutrition.targets.hard_limits import Moved, hard_keys, moved, tightened, with_hard_limits
from nutrition.targets.meals import MealTarget
from nutrition.targets.orders import Order
from nutrition.targets.person import OutOfRange
from nutrition.targets.schools import School
from nutrition.targets.voices import Target, target_words
from nutrition.targets.watched_targets import watched_keys
from webkit.page_cache import once


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
    # the version in force on the date, where it is another than the one planned for
    newer: TargetVersion | None = None
    newer_targets: Mapping[str, Target] = field(default_factory=dict)

    @property
    def would_move(self) -> list[Moved]:
        """What the newer version would change, those that are watched first."""
        if self.newer is None or self.day is None:
            return []
        found = moved(self.day.targets, self.newer_targets)
        watched = [row.target.key for row in self.watched]
        return sorted(found, key=lambda one: one.key not in watched)

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


NOBODY = Plan(client=None, version=None, day=None, orders=())


def plan_of(
    client: Client | None, version: TargetVersion | None = None, on: date | None = None
) -> Plan:
    """What holds for a client on a date (today); computed on the spot where no version was made
    yet.

    With the `version` that something was planned for, its softer targets hold on; the orders and
    hard limits are those in force on the date.
    """
    if client is None:
        return NOBODY
    on = on or timezone.localdate()
    if client.pk is None:
        return _found(client, version, on)
    key = ("plan", client.pk, version and version.pk, on)
    return once(key, lambda: _found(client, version, on))


def _found(client: Client, version: TargetVersion | None, on: date) -> Plan:
    now = version_on(client, on)
    version = version or now
    newer = now if now and version and now.pk != version.pk else None
    holds = now or version
    overrides = {row.key: row for row in _overrides(client, holds)}
    orders = tuple(row.order() for row in overrides.values())
    try:
        in_force = from_data(holds.data) if holds else compute(client)
    except OutOfRange as error:
        return _by_hand_only(client, holds, overrides, orders, error)
    day = _planned_for(version) if newer else None
    if newer is None or day is None:
        return _plan(client, holds, in_force, overrides, orders)
    keys = hard_keys(day, in_force)
    then = {row.key: row for row in _overrides(client, version)}
    kept = {key: row for key, row in then.items() if key not in keys and row.kind != "order"}
    overrides = kept | {key: row for key, row in overrides.items() if key in keys}
    orders = tuple(row.order() for row in overrides.values())
    laid_over = with_hard_limits(day, in_force)
    made = _plan(client, version, laid_over, overrides, orders)
    return replace(made, newer=newer, newer_targets=in_force.targets)


def plan_over(client: Client, version: TargetVersion | None, first: date, last: date) -> Plan:
    """What holds for something planned over several days: as on the first, with whatever hard limit
    begins among them."""
    plan = plan_of(client, version, first)
    later = version_on(client, last)
    if plan.day is None or later is None or later == version_on(client, first):
        return plan
    end = plan_of(client, None, last)
    if end.day is None:
        return end
    made = _plan_like(plan, tightened(plan.day, end.day))
    newer = later if version and later.pk != version.pk else None
    return replace(made, newer=newer, newer_targets=end.day.targets if newer else {})


def _planned_for(version: TargetVersion | None) -> DayTargets | None:
    """The targets of a version; None for one that was kept without any."""
    try:
        return from_data(version.data) if version else None
    except OutOfRange:
        return None


def _overrides(client: Client, version: TargetVersion | None) -> list[TargetOverride]:
    """What was set by hand and held when a version was made, or holds now."""
    rows = client.at_hand(
        "fetched_overrides", lambda: list(client.overrides.select_related("by").order_by("made"))
    )
    if version is None:
        return [row for row in rows if row.ended is None]
    then = set(version.data["overrides"].values())
    return [row for row in rows if row.pk in then]


def _plan_like(plan: Plan, day: DayTargets) -> Plan:
    """The same plan with other targets."""
    assert plan.client is not None
    overrides = {key: row.override for key, row in plan.rows.items() if row.override}
    return _plan(plan.client, plan.version, day, overrides, plan.orders)


def _plan(
    client: Client,
    version: TargetVersion | None,
    day: DayTargets,
    overrides: dict[str, TargetOverride],
    orders: tuple[Order, ...],
) -> Plan:
    watched = [
        key
        for key in client.watched or watched_keys(day.person, day.school, orders)
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
    error: OutOfRange,
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
        problem=str(error),
        refer_to=getattr(error, "refer_to", ""),
    )
