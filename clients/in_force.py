"""The targets of a client that are in force: by version, with what was computed beside what was set
by hand."""

from dataclasses import dataclass, field
from datetime import date

from django.utils import timezone

from clients.models import Client, TargetOverride, TargetVersion
from clients.stored import from_data
from clients.versions import compute, version_on
from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets import day as targets
from nutrition.targets.day import DayTargets, Order
from nutrition.targets.meals import MealTarget
from nutrition.targets.person import OutOfRange
from nutrition.targets.schools import School
from nutrition.targets.voices import Target, target_words


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


NOBODY = Plan(client=None, version=None, day=None, orders=())


def plan_of(
    client: Client | None, version: TargetVersion | None = None, on: date | None = None
) -> Plan:
    """What holds for a client: by `version`, or on a date (today); computed on the spot where no
    version was made yet."""
    if client is None:
        return NOBODY
    version = version or version_on(client, on or timezone.localdate())
    overrides = {row.key: row for row in _overrides(client, version)}
    orders = tuple(row.order() for row in overrides.values())
    try:
        day = from_data(version.data) if version else compute(client)
    except OutOfRange as error:
        return _by_hand_only(client, version, overrides, orders, error)
    return _plan(client, version, day, overrides, orders)


def _overrides(client: Client, version: TargetVersion | None) -> list[TargetOverride]:
    """What was set by hand and held when a version was made, or holds now."""
    rows = client.at_hand(
        "fetched_overrides", lambda: list(client.overrides.select_related("by").order_by("made"))
    )
    if version is None:
        return [row for row in rows if row.ended is None]
    then = set(version.data["overrides"].values())
    return [row for row in rows if row.pk in then]


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
