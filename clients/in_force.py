"""The targets of a client that are in force: computed ones, and those set by hand over them."""

from dataclasses import dataclass

from clients.models import Client, TargetOverride
from nutrition import targets
from nutrition.nutrients import NUTRIENT
from nutrition.profile import Amount, Profile
from nutrition.targets import Target
from roundpantry import show
from roundpantry.drawing.track import Track, track


@dataclass(frozen=True)
class InForce:
    """A target in force, the computed one, and the override where there is one."""

    target: Target
    computed: Target | None
    override: TargetOverride | None

    @property
    def name(self) -> str:
        return NUTRIENT[self.target.key].name

    @property
    def watched(self) -> bool:
        """Whether it stands in the target strip from the start."""
        return self.target.key in targets.MAIN_KEYS or self.override is not None

    @property
    def words(self) -> str:
        """ "at least 96 g, aim 106" """
        return target_words(self.target)

    @property
    def computed_words(self) -> str:
        return target_words(self.computed) if self.computed else ""


@dataclass(frozen=True)
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


def _said(target: Target, value: float | None) -> str:
    decimals = NUTRIENT[target.key].decimals if target.aim < 10 else 0
    return "" if value is None else show.digits(value, decimals)


def band_words(target: Target) -> str:
    """ "96-140 g", "at least 96 g" or "at most 2,300 mg" """
    low, high = _said(target, target.low), _said(target, target.high)
    if low and high:
        return f"{low}\u2013{high} {target.unit}"
    return f"at least {low} {target.unit}" if low else f"at most {high} {target.unit}"


def target_words(target: Target) -> str:
    """ "at least 96 g, aim 106" """
    return f"{band_words(target)}, aim {_said(target, target.aim)}"


def targets_in_force(client: Client) -> dict[str, InForce]:
    """By nutrient key, computed first, then what was set by hand only. Raises nutrition.targets.OutOfRange."""
    computed = targets.day_targets(client.person())
    overrides = {row.key: row for row in client.overrides.filter(ended=None).select_related("by").order_by("made")}
    out = {}
    for key in [*computed, *(key for key in overrides if key not in computed)]:
        override = overrides.get(key)
        target = computed.get(key)
        if override:
            target = Target(
                key, override.low, override.aim, override.high, NUTRIENT[key].unit, override.get_kind_display(), override.reason
            )
        if target is not None:
            out[key] = InForce(target, computed.get(key), override)
    return out


def reading(target: Target, amount: Amount | None) -> Reading:
    """One line of the target strip. `amount` is None where there is nothing to show yet."""
    key = target.key
    if amount is None:
        bare = track(target.low, target.aim, target.high, None)
        return Reading(NUTRIENT[key].name, key, target_words(target), band_words(target), "", "", "", "none", "", bare)
    state, by = targets.judge(target, amount.amount)
    decimals = NUTRIENT[key].decimals
    word = "inside" if state == "inside" else f"{state} by {show.digits(by, decimals)} {target.unit}"
    if amount.known <= 0:
        state, word = "none", "unknown"
    elif state == "under" and not amount.complete:
        # what is unknown can only add to it
        word = word.replace("under by", "under by up to")
    elif state == "inside" and not amount.complete:
        word = "inside, part unknown"
    elif state == "inside" and _near_edge(target, amount.amount):
        state = "near"
        word = "inside, near the edge"
    return Reading(
        NUTRIENT[key].name,
        key,
        target_words(target),
        band_words(target),
        show.amount(amount, key),
        show.span(amount, key),
        word,
        state,
        show.unknown(amount),
        track(target.low, target.aim, target.high, amount.amount, amount.low, amount.high),
    )


def _near_edge(target: Target, amount: float) -> bool:
    edges = [edge for edge in (target.low, target.high) if edge is not None]
    return any(abs(amount - edge) <= 0.05 * target.aim for edge in edges)


def _rows(client: Client | None) -> list[InForce]:
    """The targets in force; none without a client, or for one the formulas do not cover."""
    if client is None:
        return []
    try:
        return list(targets_in_force(client).values())
    except targets.OutOfRange:
        return []


def _stand(rows: list[InForce], profile: Profile | None) -> list[Reading]:
    if profile is None or profile.lines == 0:
        return [reading(row.target, None) for row in rows]
    return [reading(row.target, profile[row.target.key]) for row in rows]


def strip(client: Client | None, profile: Profile | None) -> list[Reading]:
    """Where `profile` stands on the targets that are watched: the main ones and those set by hand."""
    return _stand([row for row in _rows(client) if row.watched], profile)


def readings(client: Client | None, profile: Profile | None) -> tuple[list[Reading], list[Reading]]:
    """Where `profile` stands on the watched targets, and on all the others."""
    rows = _rows(client)
    return _stand([row for row in rows if row.watched], profile), _stand([row for row in rows if not row.watched], profile)
