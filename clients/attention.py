"""Why a client needs a look: the reasons, plainest first."""

from datetime import date, timedelta

from clients.models import Client
from nutrition.follow_up.trend import weekly_change
from nutrition.targets.person import OutOfRange, check

WEIGH_IN_DAYS = 14
FAST_SHARE_PER_WEEK = 0.01
DRIFT_SHARE = 0.03


def reasons(client: Client, today: date) -> list[str]:
    """What to attend to, in words; empty when nothing asks for it."""
    out = []
    try:
        check(client.person())
    except OutOfRange as error:
        out.append(str(error))
    rows = list(client.weigh_ins.order_by("-date")[:6])
    if not rows:
        out.append("Not weighed yet")
    elif (today - rows[0].date).days > WEIGH_IN_DAYS:
        out.append(f"Last weighed {(today - rows[0].date).days} days ago")
    pace = weekly_pace(client)
    if pace is not None and client.goal == "lose" and pace > -0.05:
        out.append("Weight is not falling")
    if pace is not None and rows and pace < -FAST_SHARE_PER_WEEK * rows[0].kg:
        out.append(
            f"Losing {-pace:.1f} kg a week: more than 1 % of body weight. Ask why, and tell their "
            f"physician"
        )
    version = client.target_versions.first()
    made_for = version.data.get("person", {}).get("weight_kg") if version else None
    if made_for and rows and abs(rows[0].kg - made_for) > DRIFT_SHARE * made_for:
        out.append(f"Targets were made for {made_for:g} kg; the last weigh-in is {rows[0].kg:g} kg")
    if not client.days.filter(date__gte=today - timedelta(days=1)).exists():
        out.append("No day planned")
    return out


def weekly_pace(client: Client) -> float | None:
    """Change over the last four weeks of weigh-ins, by the line of least squares. [kg/week] None
    for under three."""
    rows = list(client.weigh_ins.order_by("-date")[:28])
    if not rows:
        return None
    newest = rows[0].date
    points = [((row.date - newest).days, row.kg) for row in rows if (newest - row.date).days <= 28]
    return weekly_change(points)
