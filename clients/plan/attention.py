"""What the core is asked about a client who may need a look."""

from datetime import date

from clients.models import Client
from clients.plan.versions import versions_made
from nutrition.follow_up.attention import Need, attention, judged_for, pace_of
from nutrition.follow_up.stall import Judged
from nutrition.follow_up.trend import Pace
from nutrition.follow_up.weigh_in import Weighed
from schools.choices import school_named
from webkit.extension_points import Question
from webkit.page_cache import once

# What more of a client is there to attend to on a day?
NEEDS: Question[[Client, date], list[Need]] = Question()
# Until which day is something planned for a client?
PLANNED_UNTIL: Question[[Client], date | None] = Question()


def weighed(client: Client) -> list[Weighed]:
    """The weigh-ins that are looked at, newest first."""
    return [row.weighed() for row in client.newest_weigh_ins()]


def judged_now(client: Client, today: date) -> Judged:
    """How the weight stands to what is expected."""
    return once(("judged", client.pk, today), lambda: _judged(client, today))


def _judged(client: Client, today: date) -> Judged:
    school, since = school_named(client.school), planned_since(client)
    return judged_for(client.person(), weighed(client), today, school, since)


def planned_since(client: Client) -> date | None:
    """The day from which this goal is planned for; None where no targets were made yet."""
    since = None
    for row in versions_made(client):
        if row.goal not in (None, client.goal):
            break
        since = row.takes_effect if since is None else min(since, row.takes_effect)
    return since


def reasons(client: Client, today: date, judged: Judged | None = None) -> list[Need]:
    """What to attend to, in words; empty when nothing asks for it."""
    judged = judged or judged_now(client, today)
    made = versions_made(client)
    made_for = made[0].weight_kg if made else None
    own = attention(
        client.person(), weighed(client), made_for, PLANNED_UNTIL.first(client), today, judged
    )
    return [*(need for needs in NEEDS.ask(client, today) for need in needs), *own]


def weekly_pace(judged: Judged) -> Pace | None:
    """The pace over the last four weeks, or two. [kg/week] None for too few weigh-ins."""
    return pace_of(judged)
