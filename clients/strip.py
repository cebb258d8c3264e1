"""The target strip of a working page: the watched targets always, all the others when they are
looked at; each a reading of where something stands."""

from dataclasses import dataclass

from clients.context import PageRequest
from clients.in_force import InForce, Plan
from clients.models import Client
from nutrition.composition.derived import amount_of
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Amount, Profile
from nutrition.targets.standing import standing
from nutrition.targets.voices import Band, band_words, target_words
from roundpantry import show
from roundpantry.drawing.track import Track, track

# sent by the page with every live request while the other targets are open
OPEN_HEADER = "Strip-Open"


@dataclass(frozen=True, kw_only=True)
class Reading:
    """Where a plan stands on one target, ready to draw."""

    name: str
    key: str
    target: str
    band: str
    value: str = ""
    span: str = ""
    word: str = ""
    state: str = "none"
    unknown: str = ""
    track: Track


def reading(target: Band, amount: Amount | None) -> Reading:
    """One line of the target strip. `amount` is None where there is nothing to show yet."""
    key = target.key
    name, words = NUTRIENT[key].name, target_words(target)
    band, bounds = band_words(key, target.low, target.high), (target.low, target.aim, target.high)
    if amount is None:
        return Reading(name=name, key=key, target=words, band=band, track=track(*bounds, None))
    stands = standing(target, amount)
    return Reading(
        name=name,
        key=key,
        target=words,
        band=band,
        value=show.amount(amount, key),
        span=show.span(amount, key),
        word=show.standing(stands, key),
        state=stands.state,
        unknown=show.unknown(amount),
        track=track(*bounds, amount.amount, amount.low, amount.high),
    )


def _readings(rows: list[InForce], profile: Profile | None) -> list[Reading]:
    if profile is None or profile.lines == 0:
        return [reading(row.target, None) for row in rows]
    return [reading(row.target, amount_of(profile, row.target.key)) for row in rows]


def strip(plan: Plan, profile: Profile | None) -> list[Reading]:
    """Where `profile` stands on the targets that are watched; nothing without a client."""
    return _readings(plan.watched, profile)


def others(plan: Plan, profile: Profile | None) -> list[Reading]:
    """Where `profile` stands on all the other targets."""
    return _readings(plan.others, profile)


def strip_context(
    request: PageRequest,
    plan: Plan,
    profile: Profile | None,
    client: Client | None,
    what: str,
) -> dict[str, object]:
    """What the strip's template needs: where `what` ("This bowl") stands.

    In a live answer the other targets are reckoned and drawn only while they are open; a page
    always has them.
    """
    with_others = not request.htmx or OPEN_HEADER in request.headers
    return {
        "strip": strip(plan, profile),
        "others": others(plan, profile) if with_others else [],
        "with_others": with_others,
        "strip_client": client,
        "strip_of": what,
    }
