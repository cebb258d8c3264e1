"""Swaps on the day's page, beside the gap they close."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.urls import reverse
from django.utils.text import capfirst

from clients.aims import WHOLE_DAY, meal_of, meal_options, refusals_of
from clients.swap_panel import Outdated, panel, taken
from planner.balance_views import NOTHING
from planner.day import reckon_day
from planner.models import MEALS, Day
from planner.swapping import apply, subject_of
from planner.views import answer, page_context, plan_for


def _context(request: HttpRequest, day: Day) -> dict[str, object]:
    reckoned, plan = reckon_day(day), plan_for(day)
    url = reverse("planner:swap", args=[day.pk])
    context: dict[str, object] = {"day": day, "client": day.client, "swapped": True, "swap_url": url}
    if plan.day is None:
        return context | {"problem": plan.problem}
    meal = meal_of(plan.day, request.GET.get("meal", WHOLE_DAY))
    context |= {"judged": meal.key if meal else WHOLE_DAY, "meal_options": meal_options(plan.day), "subject_words": "Looking at"}
    subject = subject_of(reckoned, meal.key if meal else None, refusals_of(plan))
    if not subject.lines:
        return context | {"problem": NOTHING}
    return context | {"take_url": f"{url}?meal={meal.key if meal else ''}", "live": True} | panel(subject, plan, meal)


def swap(request: HttpRequest, pk: int) -> HttpResponse:
    """The changes that close the gap; a POST takes one, as one step for undo."""
    day = get_object_or_404(Day.objects.select_related("client"), pk=pk)
    if request.method == "POST":
        meal = request.GET.get("meal", "")
        entries = {str(entry.row.pk): entry for one in reckon_day(day).meals for entry in one.entries}
        try:
            steps, why = taken(request.POST.get("change", ""), f"day-{day.pk}", day.version)
            apply(day, entries, steps, meal if meal in dict(MEALS) else "dinner")
            messages.success(request, f"{capfirst(why)}.")
        except Outdated as error:
            messages.error(request, str(error))
        return answer(request, day)
    context = _context(request, day)
    if request.htmx:
        return render(request, "clients/_swap_panel.html", context)
    return render(request, "planner/page.html", page_context(request, day) | context)
