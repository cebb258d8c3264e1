"""What the core is asked about a client who may need a look."""

from datetime import date

from clients.models import Client
from nutrition.follow_up.attention import Need, Weighed, attention, pace_of


def weighed(client: Client) -> list[Weighed]:
    """The weigh-ins that are looked at, newest first."""
    return [Weighed(row.date, row.kg) for row in client.newest_weigh_ins()]


def reasons(client: Client, today: date) -> list[Need]:
    """What to attend to, in words; empty when nothing asks for it."""
    versions = client.at_hand("fetched_versions", lambda: list(client.target_versions.all()[:1]))
    made_for = versions[0].data.get("person", {}).get("weight_kg") if versions else None
    days = client.at_hand("fetched_days", lambda: list(client.days.all()[:1]))
    planned_until = days[0].date if days else None
    return attention(client.person(), weighed(client), made_for, planned_until, today)


def weekly_pace(client: Client) -> float | None:
    """Change over the last four weeks of weigh-ins. [kg/week] None for under three."""
    return pace_of(weighed(client))
