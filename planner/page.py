"""A day's page: its meals against the targets, and the list of days."""

from datetime import date, timedelta
from typing import Any

from django.contrib import messages
from django.core.paginator import Page
from django.db import IntegrityError, transaction
from django.db.models import Q, QuerySet
from django.urls import reverse
from django.utils import timezone

from clients.models import Client
from clients.pages.client_records import ClientRecordPages
from clients.pages.context import PageRequest
from clients.plan.agreements import agreed_with
from clients.plan.cautions import Holder
from clients.plan.in_force import Plan
from clients.plan.strip import strip, strip_context
from clients.plan.versions import version_on
from nutrition.composition.amounts import amount_of
from nutrition.composition.nutrients import NUTRIENT
from nutrition.insight import indices
from nutrition.insight.habits import tick
from nutrition.insight.summary import tell
from planner.cautions import told_of
from planner.completeness import filled
from planner.day import ReckonedDay, entry_now, reckon_day
from planner.forms import DAYS_AHEAD, DayForm, SettingsForm
from planner.models import MEALS, Day, DayEntry
from planner.origins import origin_of
from planner.planned_copies import changed_since
from planner.plans import plan_for
from practice.models import Practice
from webkit import figures
from webkit.listing import Lists

# A change of a target by less than this share of its aim is not worth a word.
WORTH_SAYING = 0.02


def day_lists() -> Lists:
    """What the list of days can be asked for today."""
    return Lists(
        search=("note",),
        sorts={"new": ("newest", ("-date", "-pk")), "old": ("oldest", ("date", "pk"))},
        filters={
            "all": ("all", Q(archived=None)),
            "ahead": ("from today on", Q(archived=None, date__gte=timezone.localdate())),
            "archived": ("archived", Q(archived__isnull=False)),
        },
    )


def day_on(practice: Practice, client: Client, on: date) -> Day:
    """The client's day of a date, begun where there is none."""
    try:
        with transaction.atomic():
            day, _made = Day.objects.get_or_create(
                client=client,
                date=on,
                defaults={"practice": practice, "made_for": version_on(client, on)},
            )
    except IntegrityError:
        # somebody else began it between the look and the write
        day = Day.objects.get(client=client, date=on)
    return day


def next_free(day: Day) -> date:
    """The first date after a day's that has no plan yet."""
    taken = set(day.client.days.filter(date__gt=day.date).values_list("date", flat=True)[:400])
    on = min(day.date, timezone.localdate() + DAYS_AHEAD - timedelta(days=400))
    on += timedelta(days=1)
    while on in taken:
        on += timedelta(days=1)
    return on


def newer_dishes(reckoned: ReckonedDay, plan: Plan) -> dict[int, str]:
    """By entry, what taking the bowl or recipe as it is now would change of the watched targets, in
    words."""
    out = {}
    for meal in reckoned.meals:
        for entry in meal.entries:
            if entry.row.planned_id and changed_since(entry.row):
                now, moved = entry_now(entry.row, reckoned.day.practice.measures), []
                for row in plan.watched:
                    nutrient = NUTRIENT[row.target.key]
                    before, after = (
                        amount_of(one.profile, nutrient.key).amount for one in (entry, now)
                    )
                    if abs(after - before) >= WORTH_SAYING * (abs(row.target.aim) or 1.0):
                        said = (
                            figures.digits(value, nutrient.decimals) for value in (before, after)
                        )
                        moved.append(f"{nutrient.name.lower()} {' to '.join(said)} {nutrient.unit}")
                renamed = f"it is called {now.name} now; " if now.name != entry.name else ""
                out[entry.row.pk] = renamed + ("; ".join(moved) or "no watched target moves")
    return out


def holders(reckoned: ReckonedDay) -> list[Holder]:
    """The entries as what a caution may be about."""
    return [
        Holder(
            key=str(entry.row.pk),
            name=entry.name,
            foods=frozenset(one.food.name for one in entry.foods),
            change_url=reverse("planner:change", args=[reckoned.day.pk, entry.row.pk]),
            dish=entry.row.recipe_id is not None,
            open_url=reverse("bowls:page", args=[entry.row.bowl_id]) if entry.row.bowl_id else "",
        )
        for entry in reckoned.entries
    ]


class DayPages(ClientRecordPages[Day]):
    """The days of a client, and one of them against its targets."""

    app, noun, model, new_form = "planner", "day", Day, DayForm
    belongs = "a day belongs to one"

    def named(self, day: Day) -> str:
        return f"{day.date:%A, %B %-d}"

    def on(self, day: Day) -> date:
        return day.date

    def lists(self) -> Lists:
        return day_lists()

    def rows(self, request: PageRequest) -> QuerySet[Day]:
        client = request.for_client
        return client.days.all() if client else Day.objects.none()

    def list_context(self, request: PageRequest, page: Page) -> dict[str, Any]:
        days = [dict[str, Any](day=day, reckoned=reckon_day(day)) for day in page.object_list]
        for row in days:
            row["strip"] = strip(plan_for(row["day"]), row["reckoned"].profile)
        return {"days": days} | self.whose(request)

    def first_form(self) -> DayForm:
        return DayForm(initial={"date": timezone.localdate()})

    def make(self, request: PageRequest, form: DayForm) -> Day:
        """The day of that date; the one that is there already, if one is."""
        assert request.for_client is not None
        return day_on(request.practice, request.for_client, form.cleaned_data["date"])

    def settings_form(self, day: Day, data: Any = None) -> SettingsForm:
        return SettingsForm(data, initial={"date": day.date, "note": day.note})

    def set(self, day: Day, form: SettingsForm) -> None:
        on = form.cleaned_data["date"]
        if day.client.days.filter(date=on).exclude(pk=day.pk).exists():
            form.add_error("date", "There is a plan for that date already.")
        day.date, day.note = on, form.cleaned_data.get("note", "")

    def back_refused(self, day: Day) -> str:
        there = day.client.days.filter(date=day.date).exists()
        words = f"There is another plan for {day.date:%B %-d} now: take that away first."
        return words if there else ""

    def copied(self, request: PageRequest, day: Day) -> Day | None:
        """The same day on another date, for the targets that hold then; its dishes as they were
        planned."""
        form = DayForm(request.POST)
        on = form.cleaned_data["date"] if form.is_valid() else None
        if on is None or day.client.days.filter(date=on).exists():
            messages.error(request, "Choose a date that has no plan yet.")
            return None
        entries = list(day.entries.all())
        with transaction.atomic():
            made: Day = Day.objects.create(
                practice=day.practice,
                client=day.client,
                date=on,
                note=day.note,
                made_for=version_on(day.client, on),
            )
            for entry in entries:
                entry.pk, entry.day = None, made
            DayEntry.objects.bulk_create(entries)
        messages.success(request, f"Duplicated to {on:%A, %B %-d}.")
        return made

    def context(
        self,
        request: PageRequest,
        day: Day,
        /,
        errors: dict[int, tuple[str, str]] | None = None,
        more: bool = False,
        **_about: Any,
    ) -> dict[str, Any]:
        reckoned = reckon_day(day)
        plan = plan_for(day)
        targets = {meal.key: meal for meal in plan.meals}
        school = plan.school
        habits = tick(school.habits, reckoned.ingredients) if school else []
        return {
            "plan": plan,
            "newer_url": reverse("planner:newer-targets", args=[day.pk]),
            "meal_targets": targets,
            "meal_tells": {
                meal.key: tell(meal.profile, meal.ingredients)
                for meal in reckoned.meals
                if meal.entries
            },
            # what stands below the first screen is asked for by itself, a moment after a change
            "tells": None
            if request.htmx and not more
            else tell(reckoned.profile, reckoned.ingredients, school),
            "school": school,
            "habits": habits,
            "habits_met": sum(row.met for row in habits),
            "next_free": None if request.htmx else next_free(day),
            "told": told_of(plan, day, reckoned).held_by(holders(reckoned)),
            "replace_url": reverse("planner:swap", args=[day.pk]),
            "without_url": reverse("planner:without", args=[day.pk]),
            "version": day.version,
            "meal_of": f"meal-{day.pk}.",
            "newer_dishes": newer_dishes(reckoned, plan),
            "empty_meals": filled(reckoned, plan).empty if plan.day else [],
            "client": day.client,
            "origin": origin_of(day),
            "agreed": agreed_with(day.client),
            "last_change": day.last_change,
            "here": reverse("planner:page", args=[day.pk]),
            "day": day,
            "reckoned": reckoned,
            "errors": errors or {},
            "indices": indices.all_indices(reckoned.profile),
            "by_carbohydrate": day.client.by_carbohydrate,
            "meal_choices": MEALS,
            "settings_form": self.settings_form(day),
        } | strip_context(
            request, plan, reckoned.profile, day.client, "The plan", why=f"day-{day.pk}"
        )


PAGES = DayPages()
