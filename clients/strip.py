"""The target strip of a working page: the watched targets always, all the others when they are
looked at."""

from clients.context import PageRequest
from clients.in_force import Plan, others, strip
from clients.models import Client
from nutrition.composition.profile import Profile

# sent by the page with every live request while the other targets are open
OPEN_HEADER = "Strip-Open"


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
