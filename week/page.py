"""A week's page: what stands in its slots against the targets, and the list of weeks."""

from collections.abc import Sequence
from datetime import date
from typing import Any, ClassVar

from django.contrib import messages
from django.core.paginator import Page
from django.db.models import Q, QuerySet
from django.http import HttpResponse
from django.urls import reverse
from django.utils import timezone

from clients.pages.client_records import ClientRecordPages
from clients.pages.context import PageRequest
from clients.plan.agreements import agreed_with
from clients.plan.strip import strip_context
from clients.plan.versions import version_on
from nutrition.planning.skeleton import as_data
from planner.models import MEALS
from recipes.ownership import open_to
from webkit.listing import Lists
from webkit.request_values import next_in, short
from week import changes
from week.cautions import told_of
from week.forms import SettingsForm, WeekForm, form_of, next_monday
from week.models import Week
from week.proposals import compared, told
from week.reckoning import Place, ReckonedWeek, reckon_week
from week.skeletons import skeleton_of
from week.slot import options_for


def week_lists() -> Lists:
    """What the list of weeks can be asked for today."""
    return Lists(
        search=("note",),
        sorts={"new": ("newest", ("-start", "-pk")), "old": ("oldest", ("start", "pk"))},
        filters={
            "all": ("all", Q(archived=None)),
            "ahead": ("from this week on", Q(archived=None, start__gte=timezone.localdate())),
            "archived": ("archived", Q(archived__isnull=False)),
        },
    )


def _place(reckoned: ReckonedWeek, key: str) -> Place | None:
    return next(
        (
            place
            for day in reckoned.days
            for meal in day.meals
            for place in meal.places
            if place.key == key
        ),
        None,
    )


class WeekPages(ClientRecordPages[Week]):
    """The weeks of a client, and one of them."""

    app, noun, model, new_form = "week", "week", Week, WeekForm
    related: ClassVar[tuple[str, ...]] = ("client", "made_for")
    belongs = "a week belongs to one"

    def named(self, week: Week) -> str:
        return f"The week of {week.start:%B %-d}"

    def on(self, week: Week) -> date:
        """Its days keep their own."""
        return week.last

    def lists(self) -> Lists:
        return week_lists()

    def rows(self, request: PageRequest) -> QuerySet[Week]:
        client = request.for_client
        rows = Week.objects.filter(client=client) if client else Week.objects.none()
        return rows.select_related("client", "made_for")

    def list_context(self, request: PageRequest, page: Page) -> dict[str, Any]:
        return {"weeks": [reckon_week(row) for row in page.object_list]} | self.whose(request)

    def first_form(self) -> WeekForm:
        return WeekForm(initial={"start": next_monday(), "days": 7})

    def make(self, request: PageRequest, form: WeekForm) -> Week:
        """A week with the client's skeleton and nothing in it yet."""
        client, start = request.for_client, form.cleaned_data["start"]
        assert client is not None
        return Week.objects.create(
            practice=request.practice,
            client=client,
            start=start,
            days=form.cleaned_data["days"],
            made_for=version_on(client, start),
            skeleton=as_data(skeleton_of(client)),
        )

    def settings_form(self, week: Week, data: Any = None) -> SettingsForm:
        return form_of(week) if data is None else SettingsForm(data)

    def set(self, week: Week, form: SettingsForm) -> None:
        week.note = form.cleaned_data["note"]
        week.container_ml = form.cleaned_data["container_ml"]

    def after_settings(self, request: PageRequest, week: Week) -> str:
        return next_in(request, self.address(week))

    def copied(self, request: PageRequest, week: Week) -> Week:
        """The week after it, the rotation moved on by one day."""
        made = changes.copy_on(week)
        messages.success(
            request, "Copied, every dish a day later than last week; what is pinned kept its day."
        )
        return made

    def undone(self, week: Week) -> dict[str, Any]:
        return {"moved": range(week.days)}

    def after(self, week: Week, about: dict[str, Any]) -> str:
        slot = about.get("slot", "")
        return f"{self.address(week)}?slot={slot}" if slot else self.address(week)

    def shown(self, request: PageRequest, week: Week, /, **about: Any) -> HttpResponse:
        about |= {"slot": short(request.GET, "slot", 40), "q": short(request.GET, "q")}
        return super().shown(request, week, **about)

    def context(
        self,
        request: PageRequest,
        week: Week,
        /,
        moved: Sequence[int] = (),
        slot: str = "",
        q: str = "",
        errors: dict[str, Any] | None = None,
        **_about: Any,
    ) -> dict[str, Any]:
        """What the page of a week needs; `moved` are the days that were just changed, `slot` is the
        one that is open."""
        reckoned = reckon_week(week, moved)
        client = week.client
        mean = reckoned.mean if reckoned.filled else None
        place, proposals = _place(reckoned, slot), told(week)
        return (
            {
                "week": week,
                "client": client,
                "reckoned": reckoned,
                "plan": reckoned.plan,
                "newer_url": reverse("week:newer-targets", args=[week.pk]),
                "told": told_of(reckoned),
                "version": week.version,
                "last_change": week.last_change,
                "here": reverse("week:page", args=[week.pk]),
                "proposals": proposals,
                "compared": compared(proposals) if len(proposals) > 1 else [],
                "agreed": agreed_with(client),
                "settings_form": self.settings_form(week),
                "slot": place,
                "slot_day": reckoned.days[place.slot.day] if place else None,
                "options": options_for(week, place, q) if place else None,
                "q": q,
                "meal_names": dict(MEALS),
                "unplanned": not reckoned.filled,
                "without_dishes": not reckoned.filled and not open_to(client).exists(),
                "shelf_school": client.school.partition(":")[0],
            }
            | strip_context(request, reckoned.plan, mean, client, "The average day")
            | (errors or {})
        )


PAGES = WeekPages()
