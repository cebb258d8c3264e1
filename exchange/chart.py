"""A client as they travel to other programs: what is measured of them, what is planned, what they
ate."""

from __future__ import annotations

from datetime import UTC, date, datetime, time

from django.utils import timezone

from clients.models import Client
from clients.plan.in_force import Plan, plan_of
from journal.record.days import logged_days
from nutrition.composition.amounts import amount_of
from nutrition.composition.nutrients import NUTRIENT
from nutrition.follow_up.intake import LoggedDay
from nutrition.formats.fhir.chart import Chart, Intake, LabValue, Limit, Taken, Weight
from nutrition.targets.blood import analytes
from nutrition.targets.conditions import those

# What they eat, in the words of an order.
DIET = "whole-food plant-based diet"
# Indices are reckoned from the rest by whoever wants them.
LEFT_OUT = "indices"


def chart_of(client: Client) -> Chart:
    """All that FHIR can say of a client; what was taken away is not in it."""
    plan = plan_of(client)
    weights = client.weigh_ins.order_by("date", "pk")
    return Chart(
        identifier=f"{client.practice_id}-{client.pk}",
        name=client.name,
        sex=client.sex,
        birth_date=client.birth_date,
        birth_year=client.birth_year,
        height_cm=client.height_cm,
        # the height is of the first visit
        measured_on=_first_day(client),
        weights=tuple(Weight(on=row.date, kg=row.kg) for row in weights),
        values=_values(client),
        allergies=tuple(client.allergies),
        textures=tuple(row.name for row in those(client.conditions) if row.kind == "texture"),
        diet=DIET,
        goal=client.get_goal_display(),
        target_kg=client.target_weight_kg,
        limits=_limits(plan),
        supplements=_taken(client),
        intakes=_intakes(client, plan),
    )


def made_on(chart: Chart) -> datetime:
    """When a chart was last added to, by what is in it: the same chart is written the same
    whenever it is."""
    days = [
        *(one.on for one in chart.weights),
        *(one.measured.on for one in chart.values),
        *(one.on for one in chart.intakes),
        *([chart.measured_on] if chart.measured_on else []),
    ]
    return datetime.combine(max(days, default=date(2000, 1, 1)), time.min, tzinfo=UTC)


def _first_day(client: Client) -> date | None:
    first = client.target_versions.order_by("number").first()
    made = timezone.localtime(first.made).date() if first else None
    weighed = client.weigh_ins.order_by("date").first()
    return made or (weighed.date if weighed else None)


def _values(client: Client) -> tuple[LabValue, ...]:
    rows = [row for row in client.blood_values.all() if row.key in analytes()]
    values = [
        LabValue(measured=row.measured(), laboratory=row.laboratory, remark=row.remark)
        for row in rows
    ]
    return tuple(sorted(values, key=lambda one: (one.measured.on, one.measured.key)))


def _keys(plan: Plan) -> list[str]:
    """What has a target, in the order of the table: the same however a version keeps them."""
    return [key for key, one in NUTRIENT.items() if key in plan.rows and one.group != LEFT_OUT]


def _limits(plan: Plan) -> tuple[Limit, ...]:
    out = []
    for key in _keys(plan):
        row = plan.rows[key]
        target, ordered = row.target, row.override is not None and row.override.kind == "order"
        out.append(
            Limit(
                key=key,
                low=target.low,
                aim=target.aim,
                high=target.high,
                by=row.override.given_by if ordered and row.override else "",
                license=row.override.license if ordered and row.override else "",
                reason=" ".join(target.reason.split()),
            )
        )
    return tuple(out)


def _taken(client: Client) -> tuple[Taken, ...]:
    return tuple(
        Taken(key=row.key, dose=row.dose, form=row.form, per_week=row.per_week)
        for row in client.supplements.all()
        if row.possible
    )


def _intakes(client: Client, plan: Plan) -> tuple[Intake, ...]:
    """Every logged day: what it brought of all that has a target, and the foods in words."""
    keys = list(dict.fromkeys(["energy_kcal", "protein_g", *_keys(plan)]))
    return tuple(
        Intake(
            on=day.on,
            whole=day.whole,
            amounts={key: amount_of(day.profile, key) for key in keys},
            foods=tuple(f"{one.portion.said} {one.portion.name}".strip() for one in day.eaten),
        )
        for day in logged_of(client)
    )


def logged_of(client: Client) -> list[LoggedDay]:
    """Every day of a client's log, oldest first."""
    dates = client.logged_days.order_by("date").values_list("date", flat=True)
    first, last = dates.first(), dates.last()
    if first is None or last is None:
        return []
    return logged_days(client, first, last, beside_the_plan=False)
